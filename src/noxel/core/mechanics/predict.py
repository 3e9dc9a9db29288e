"""A whole rig as planned: the state that its bases, lists and lengths give (rig-file format,
``predict``).

Sums need neither lengths nor places; axles and tongue do. What cannot be computed is left out, and
what it lacks is named.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from typing import cast

from noxel.core.mechanics.aboard import Same, Side, aboard
from noxel.core.mechanics.knowledge import empty_by_label, empty_weights
from noxel.core.mechanics.listed import hitch_mass, in_tank
from noxel.core.mechanics.model import Levers, State, loads
from noxel.core.quantities import nominal
from noxel.core.rig import RigFile, Trailer, TrailerBase
from noxel.errors import MissingInput, Problem

_ALONE = ("front_solo", "rear_solo", "vehicle_solo", "cargo", "payload_used")
"""The loads of a vehicle that tows nothing."""


@dataclass(frozen=True, slots=True)
class Placed:
    """What is aboard on one side: its mass [kg], and its moment about the front axle or the coupler
    [kg m]; None where a place is not known.
    """

    mass: float = 0.0
    moment: float | None = 0.0


@dataclass(frozen=True, slots=True)
class Planned:
    """A rig as planned.

    ``base`` is the state without what the levers place, and ``own_tongue`` what the trailer puts on
    the hitch without its listed loads [kg]. ``hitch`` is the hitch's own mass [kg] where the base
    has it not yet, ``hitch_behind`` how far behind the hitch point it lies [m]. ``missing`` is what
    the rest lacks.
    """

    levers: Levers
    base: State
    in_vehicle: Placed
    hitch: float
    hitch_behind: float
    own_tongue: float | None
    in_trailer: Placed
    towing: bool
    missing: tuple[Problem, ...] = ()

    def solo(self, levers: Levers | None = None) -> State:
        """The vehicle without the trailer; ``levers`` in place of its own."""
        lengths = levers or self.levers
        rear = lengths.in_vehicle(self.in_vehicle.mass, self.in_vehicle.moment).rear
        hitch = lengths.at_hitch(self.hitch, self.hitch_behind).rear if self.hitch else 0.0
        placed = State(rear=rear).plus(State(rear=hitch))
        return self.base._replace(trailer=0.0).plus(placed)

    def state(self, levers: Levers | None = None) -> State:
        """The rig as planned; ``levers`` in place of its own."""
        lengths, solo = levers or self.levers, self.solo(levers)
        if not self.towing:
            return solo
        more = lengths.in_trailer(self.in_trailer.mass, self.in_trailer.moment).tongue
        own = self.own_tongue
        coupled = lengths.on_hitch(None if own is None or more is None else own + more)
        return solo.plus(coupled)._replace(trailer=self.base.trailer)

    def loads(self) -> dict[str, float]:
        """Every load that is known, by the keys of the rig-file format, and the tongue share. [kg],
        the share plain
        """
        known = loads(self.state())
        if not self.towing:
            return {key: kg for key, kg in known.items() if key in _ALONE}
        if "tongue_static" in known and known.get("trailer_gross"):
            known["tongue_share"] = known["tongue_static"] / known["trailer_gross"]
        return known


@dataclass(slots=True)
class Predicted:
    """What can be predicted, by the keys of the rig-file format, and what the rest lacks. [kg],
    ``tongue_share`` plain
    """

    loads: dict[str, float] = field(default_factory=dict)
    missing: list[Problem] = field(default_factory=list)


def overhang(rig: RigFile) -> float | None:
    """Hitch point behind the rear axle: as a slack pass showed it, else by the tape. [m]"""
    known = rig.plan.effective_overhang or rig.vehicle.geometry.hitch_offset
    return known.m if known else None


def restored(rig: RigFile) -> float:
    """The share of the front axle's loss that the bars give back as planned; 0 without bars."""
    return (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0


def levers_of(rig: RigFile) -> Levers:
    """The rig's levers, as far as its lengths are known."""
    wheelbase = rig.vehicle.geometry.wheelbase
    coupler = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
    return Levers(
        wheelbase.m if wheelbase else None,
        overhang(rig),
        coupler.m if coupler else None,
        restored(rig),
    )


class _Lacks:
    """Collects what is missing."""

    def __init__(self) -> None:
        self.problems: dict[str, Problem] = {}

    def say(self, path: str, why: str) -> None:
        self.problems.setdefault(path, Problem(path, why, "missing"))

    def place(self, path: str, behind: str) -> None:
        self.say(f"{path}.position", f"is needed: how far behind {behind} it is")

    def hitch_point(self) -> None:
        self.say(
            "vehicle.geometry.hitch_offset",
            "is needed: how far behind the rear axle the hitch point is",
        )


def _aboard(rig: RigFile, on: Side) -> list[tuple[float, float | None, str]]:
    """Everything aboard on one side: mass [kg], place [m], path; listed items that have a place are
    one, where they lie on average.
    """
    carried = aboard(rig, on)
    masses: list[tuple[float, float | None, str]] = [
        (kg, None, f"loads[{index}]") for index, kg in carried.unplaced
    ]
    if carried.placed:
        masses.append((carried.placed, carried.moment / carried.placed, "loads"))
    for index, tank in enumerate(rig.tanks):
        if tank.on == on and (kg := in_tank(rig, tank)):
            masses.append((kg, tank.position.m if tank.position else None, f"tanks[{index}]"))
    return masses


def _placed(masses: list[tuple[float, float | None, str]], behind: str, lacks: _Lacks) -> Placed:
    """What they add up to; missing places are noted."""
    mass, moment, known = 0.0, 0.0, True
    for kg, place, path in masses:
        mass += kg
        if place is None:
            lacks.place(path, behind)
            known = False
        else:
            moment += kg * place
    return Placed(mass, moment if known else None)


def _on_trailer(rig: RigFile, trailer: Trailer) -> list[tuple[float, float | None, str]]:
    """Everything beyond the trailer's base: listed items, tanks, and what its dry figure leaves
    out.
    """
    carried = _aboard(rig, "trailer")
    if rig.plan.trailer_base is None:
        for index, extra in enumerate(trailer.dry_extras):
            if not extra.counted:
                place = extra.position.m if extra.position else None
                carried.append((extra.mass.kg, place, f"trailer.dry_extras[{index}]"))
    return carried


def planned(rig: RigFile) -> Planned:
    """The rig as planned.

    Parameters
    ----------
    rig : RigFile
        ``plan.vehicle_base``, else the curb weight, else the placard; ``plan.trailer_base``, else
        its dry figures; ``loads``, ``tanks``, ``hitch`` and lengths.

    Returns
    -------
    Planned
        As far as it can be known; worked out once as long as the rig is looked at.
    """
    return _planned(Same(rig))


@lru_cache(maxsize=4)
def _planned(rig_as_is: Same) -> Planned:
    rig = cast(RigFile, rig_as_is.of)
    lacks, levers, base = _Lacks(), levers_of(rig), rig.plan.vehicle_base
    front, rear = (base.front, base.rear) if base is not None else (None, None)
    for side, mass in (("front", front), ("rear", rear)):
        if mass is None:
            lacks.say(
                f"plan.vehicle_base.{side}",
                "is needed: what this axle carries without the listed loads",
            )
    if levers.wheelbase is None:
        lacks.say("vehicle.geometry.wheelbase", "is needed to split loads between the axles")
    items = _placed(_aboard(rig, "vehicle"), "the front axle", lacks)
    hitch, fitted = nominal(hitch_mass(rig)), base is not None and base.hitch_fitted
    labelled, empties = empty_by_label(rig), empty_weights(rig)
    listed = items.mass + hitch
    gross: float | None = None
    cargo: float | None = None
    if front is not None and rear is not None:
        if fitted:
            hitch = 0.0
        gross = front.kg + rear.kg + items.mass + hitch
        cargo = listed if labelled is None else gross - labelled.value
    else:
        gross = empties[0].value + listed if empties else None
        cargo = listed if listed or gross is not None else None
    if hitch and levers.overhang is None:
        lacks.hitch_point()
    trailer, own, in_trailer, total = rig.trailer, None, Placed(), None
    if trailer is not None:
        own, in_trailer, total = _trailer(rig, trailer, lacks)
        if levers.overhang is None:
            lacks.hitch_point()
    rear_base = rear.kg if front is not None and rear is not None else None
    return Planned(
        levers,
        State(vehicle=gross, rear=rear_base, cargo=cargo, trailer=total),
        items,
        hitch,
        rig.hitch.own_lever,
        own,
        in_trailer,
        trailer is not None,
        tuple(lacks.problems.values()),
    )


def _trailer(
    rig: RigFile, trailer: Trailer, lacks: _Lacks
) -> tuple[float | None, Placed, float | None]:
    """The tongue of the trailer's base, what is on it beside, and what it weighs. [kg]"""
    base = rig.plan.trailer_base or TrailerBase(gross=trailer.dry_weight, tongue=trailer.dry_tongue)
    paths = ("trailer.dry_weight", "trailer.dry_tongue")
    if rig.plan.trailer_base is not None:
        paths = ("plan.trailer_base.gross", "plan.trailer_base.tongue")
    if base.gross is None:
        lacks.say(paths[0], "is needed: what the trailer weighs without the listed loads")
    if base.tongue is None:
        lacks.say(
            paths[1], "is needed: what the trailer puts on the hitch without the listed loads"
        )
    if trailer.geometry.coupler_to_axles is None:
        lacks.say(
            "trailer.geometry.coupler_to_axles", "is needed: coupler to the middle of the axles"
        )
    placed = _placed(_on_trailer(rig, trailer), "the coupler", lacks)
    gross = None if base.gross is None else base.gross.kg + placed.mass
    return None if base.tongue is None else base.tongue.kg, placed, gross


def predict_known(rig: RigFile) -> Predicted:
    """Predict every load of the rig that can be predicted.

    Parameters
    ----------
    rig : RigFile
        As for :func:`planned`.

    Returns
    -------
    Predicted
        ``front_solo`` … ``payload_used`` as far as they can be known; without a trailer the
        trailer's and the hitched keys are absent.
    """
    plan = planned(rig)
    return Predicted(plan.loads(), list(plan.missing))


def predict(rig: RigFile) -> Mapping[str, float]:
    """Predict every load of the rig as planned.

    Parameters
    ----------
    rig : RigFile
        As for :func:`planned`.

    Returns
    -------
    Mapping
        ``front_solo`` … ``payload_used`` in kilograms, and ``tongue_share``.

    Raises
    ------
    MissingInput
        Naming the first base, length or position that is not there.
    """
    plan = planned(rig)
    if plan.missing:
        raise MissingInput(plan.missing[0].path, plan.missing[0].message)
    return plan.loads()
