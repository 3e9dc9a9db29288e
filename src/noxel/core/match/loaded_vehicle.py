"""The vehicle as loaded, by the plan or by the scale, and the question that is asked of it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from noxel.core.limits import Limit
from noxel.core.mechanics import Knowledge, Solo, expect, items_kg, overhang, weigh
from noxel.core.quantities import print_mass
from noxel.core.rig import RigFile, WeighIn

ON_LIMIT = 1e-6
"""A load this little above a limit is on it, and within. [kg]"""
Start = Literal["plan", "weigh_in"]


@dataclass(frozen=True, slots=True)
class TowQuestion:
    """How much can it tow: the vehicle as loaded, the tongue share, the limits known, where its
    load lies, what was weighed.
    """

    rig: RigFile
    solo: Solo
    share: float
    known: Mapping[str, Limit | None]
    place: float
    weigh_in: WeighIn | None = None

    def mass(self, kg: float) -> str:
        """A mass in the rig's unit."""
        return print_mass(kg, self.rig.units.mass)


def weigh_in_numbered(rig: RigFile, number: int | None = None) -> WeighIn | None:
    """The weigh-in of a number, from 1, or the last; None where there is none at all."""
    return rig.weigh_ins[(number or 0) - 1] if rig.weigh_ins else None


def solo_from_weigh_in(rig: RigFile, weigh_in: WeighIn | None) -> Solo | None:
    """The vehicle as the scale found it without its trailer, as far as it goes; None when it was
    not weighed so. One that is lighter than empty carries nothing, not less: a doubt says so.
    """
    weighing = weigh(rig, weigh_in)
    figures = weighing.figures
    total = figures.get("vehicle_solo")
    if total is None:
        return None
    known: Knowledge = expect(rig, weighing)
    wheelbase = rig.vehicle.geometry.wheelbase
    front, rear = (
        figures[key].value if key in figures else None for key in ("front_solo", "rear_solo")
    )
    listed = items_kg(rig, "vehicle") + rig.hitch.own_mass
    cargo = max(0.0, total.value - known.empty.value) if known.empty is not None else listed
    return Solo(total.value, cargo, front, rear, wheelbase.m if wheelbase else None, overhang(rig))


def with_load(solo: Solo, kg: float, place: float) -> Solo:
    """The vehicle with so much more in it, at a share of the wheelbase behind the front axle."""
    if not kg:
        return solo

    def more(known: float | None, share: float) -> float | None:
        return None if known is None else known + kg * share

    return replace(
        solo,
        gross=more(solo.gross, 1.0),
        cargo=(solo.cargo or 0.0) + kg,
        front=more(solo.front, 1 - place),
        rear=more(solo.rear, place),
    )
