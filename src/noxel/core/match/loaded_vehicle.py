"""The vehicle as loaded, by the plan or by the scale, and the question that is asked of it."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from noxel.core.limits import CheckId, Limit
from noxel.core.match.own_share import Share
from noxel.core.mechanics import (
    Levers,
    State,
    Weighing,
    expect,
    items_kg,
    levers_of,
    planned,
    uncertainty,
)
from noxel.core.quantities import print_mass
from noxel.core.rig import RigFile, WeighIn

ON_LIMIT = 1e-6
"""A load this little above a limit is on it, and within. [kg]"""
Start = Literal["plan", "weigh_in"]


@dataclass(frozen=True, slots=True)
class Solo:
    """The vehicle as loaded, without the trailer: its state, its levers, and the ± of its loads by
    the keys of the rig-file format. [kg, m]
    """

    state: State
    levers: Levers
    off: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class TowQuestion:
    """How much can it tow: the vehicle as loaded, the tongue share, the limits known, where its
    load lies, what was weighed.
    """

    rig: RigFile
    solo: Solo
    share: Share
    known: Mapping[CheckId, Limit | None]
    place: float
    weigh_in: WeighIn | None = None

    def mass(self, kg: float) -> str:
        """A mass in the rig's unit."""
        return print_mass(kg, self.rig.units.mass)


def weigh_in_numbered(rig: RigFile, number: int | None = None) -> WeighIn | None:
    """The weigh-in of a number, from 1, or the last; the one before it while it is empty."""
    filled = rig.filled(number)
    return rig.weigh_ins[filled - 1] if filled else None


def solo_planned(rig: RigFile) -> Solo:
    """The vehicle as planned."""
    plan = planned(rig)
    return Solo(plan.solo(), plan.levers, uncertainty(rig))


def solo_weighed(rig: RigFile, weighing: Weighing) -> Solo | None:
    """The vehicle as the scale knows it, alone, or empty with what is listed, as far as it goes;
    None where it does not. One that is lighter than empty carries nothing, not less: a doubt says
    so.
    """
    known = expect(rig, weighing)
    total, rear = known.known("vehicle_solo"), weighing.figures.get("rear_solo")
    if total is None or known.way("vehicle_solo") not in (None, "empty_weighed"):
        return None
    listed = items_kg(rig, "vehicle") + rig.hitch.own_mass
    cargo = max(0.0, total.value - known.empty.value) if known.empty is not None else listed
    keys = ("front_solo", "rear_solo", "vehicle_solo")
    off = {key: figure.plus_minus for key in keys if (figure := known.known(key)) is not None}
    state = State(vehicle=total.value, rear=rear.value if rear else None, cargo=cargo)
    return Solo(state, levers_of(rig), off)


def with_load(solo: Solo, kg: float, place: float) -> Solo:
    """The vehicle with so much more in it, at a share of the wheelbase behind the front axle."""
    carries = solo.state._replace(cargo=solo.state.cargo or 0.0)
    return replace(solo, state=carries.plus(State(vehicle=kg, rear=kg * place, cargo=kg)))
