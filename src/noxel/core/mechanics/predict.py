"""The lever model on a whole rig: what its axles will carry, loaded as planned (rig-file format,
``predict``).

Sums need neither lengths nor places; axles and tongue do. What cannot be computed is left out, and
what it lacks is named.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field

from noxel.core.mechanics import statics
from noxel.core.mechanics.aboard import Side, aboard
from noxel.core.mechanics.knowledge import empty_by_label, empty_weights
from noxel.core.mechanics.listed import hitch_mass, in_tank
from noxel.core.quantities import nominal
from noxel.core.rig import RigFile, Trailer, TrailerBase
from noxel.errors import MissingInput, Problem


@dataclass(frozen=True, slots=True)
class Solo:
    """The vehicle as loaded, without the trailer; None what is not known. [kg], lengths [m]

    ``cargo`` is what it carries: from the curb weight, else from the placard's, else what is
    listed. ``missing`` is what would place its load axle by axle.
    """

    gross: float | None
    cargo: float | None
    front: float | None = None
    rear: float | None = None
    wheelbase: float | None = None
    overhang: float | None = None
    missing: tuple[Problem, ...] = ()

    @property
    def lever(self) -> float | None:
        """Overhang as a share of the wheelbase."""
        if self.wheelbase is None or self.overhang is None:
            return None
        return self.overhang / self.wheelbase


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


class _Lacks:
    """Collects what is missing."""

    def __init__(self) -> None:
        self.found: list[Problem] = []

    def say(self, path: str, why: str) -> None:
        self.found.append(Problem(path, why, "missing"))

    def place(self, position: float | None, path: str, behind: str) -> float:
        """A position; missing ones are noted. [m]"""
        if position is None:
            self.say(f"{path}.position", f"is needed: how far behind {behind} it is")
            return 0.0
        return position


def _aboard(rig: RigFile, on: Side) -> list[tuple[float, float | None, str]]:
    """Everything aboard on one side: mass [kg], place [m], path; listed items that have a place are
    one, where they lie on average.
    """
    here = aboard(rig, on)
    found: list[tuple[float, float | None, str]] = [
        (kg, None, f"loads[{index}]") for index, kg in here.unplaced
    ]
    if here.placed:
        found.append((here.placed, here.moment / here.placed, "loads"))
    for index, tank in enumerate(rig.tanks):
        if tank.on == on and (kg := in_tank(rig, tank)):
            found.append((kg, tank.position.m if tank.position else None, f"tanks[{index}]"))
    return found


def predict_solo(rig: RigFile) -> Solo:
    """Load the vehicle: its base or its empty weight, the listed items, the hitch's own mass at the
    hitch point.

    Parameters
    ----------
    rig : RigFile
        ``plan.vehicle_base``, else the curb weight, else the placard; ``loads``, ``tanks``,
        ``hitch`` and lengths.

    Returns
    -------
    Solo
        As far as it can be known.
    """
    lacks, base = _Lacks(), rig.plan.vehicle_base
    loads, hitch = _aboard(rig, "vehicle"), nominal(hitch_mass(rig))
    items = sum(kg for kg, _, _ in loads)
    labelled, empties = empty_by_label(rig), empty_weights(rig)
    based = base is not None and base.front is not None and base.rear is not None
    fitted = base is not None and base.hitch_fitted and based
    gross: float | None = None
    if base is not None and base.front is not None and base.rear is not None:
        gross = base.front.kg + base.rear.kg + items + (0.0 if fitted else hitch)
    elif empties:
        gross = empties[0].value + items + hitch
    cargo = items + hitch if loads or hitch or gross is not None else None
    if based and gross is not None and labelled is not None:
        cargo = gross - labelled.value
    for side, mass in (
        ("front", base.front if base else None),
        ("rear", base.rear if base else None),
    ):
        if mass is None:
            lacks.say(
                f"plan.vehicle_base.{side}",
                "is needed: what this axle carries without the listed loads",
            )
    wheelbase, b = rig.vehicle.geometry.wheelbase, overhang(rig)
    if wheelbase is None:
        lacks.say("vehicle.geometry.wheelbase", "is needed to split loads between the axles")
    placed = [(kg, lacks.place(position, path, "the front axle")) for kg, position, path in loads]
    if hitch and not fitted:
        if b is None:
            lacks.say(
                "vehicle.geometry.hitch_offset",
                "is needed: how far behind the rear axle the hitch point is",
            )
        elif wheelbase is not None:
            placed.append((hitch, wheelbase.m + b + rig.hitch.own_lever))
    a = wheelbase.m if wheelbase else None
    if lacks.found or a is None or base is None or base.front is None or base.rear is None:
        return Solo(gross, cargo, None, None, a, b, tuple(lacks.found))
    front, rear = base.front.kg, base.rear.kg
    for kg, x in placed:
        change = statics.split_item(kg, x, a)
        front, rear = front + change.front, rear + change.rear
    return Solo(front + rear, None if cargo is None else cargo, front, rear, a, b)


@dataclass(frozen=True, slots=True)
class _Trailer:
    """The trailer as loaded; None what is not known. [kg], length [m]"""

    gross: float | None
    tongue: float | None
    length: float | None


def _on_trailer(rig: RigFile, trailer: Trailer) -> list[tuple[float, float | None, str]]:
    """Everything beyond the trailer's base: listed items, tanks, and what its dry figure leaves
    out.
    """
    loads = _aboard(rig, "trailer")
    if rig.plan.trailer_base is None:
        for index, extra in enumerate(trailer.dry_extras):
            if not extra.counted:
                place = extra.position.m if extra.position else None
                loads.append((extra.mass.kg, place, f"trailer.dry_extras[{index}]"))
    return loads


def trailer_cargo(rig: RigFile) -> float:
    """What is on the trailer beyond its base (``plan.trailer_base``, else its dry figures). [kg]"""
    return sum(kg for kg, _, _ in _on_trailer(rig, rig.trailer)) if rig.trailer else 0.0


def _trailer(rig: RigFile, lacks: _Lacks) -> _Trailer:
    trailer = rig.trailer
    if trailer is None:
        return _Trailer(None, None, None)
    base = rig.plan.trailer_base or TrailerBase(gross=trailer.dry_weight, tongue=trailer.dry_tongue)
    paths = ("trailer.dry_weight", "trailer.dry_tongue")
    if rig.plan.trailer_base is not None:
        paths = ("plan.trailer_base.gross", "plan.trailer_base.tongue")
    loads = _on_trailer(rig, trailer)
    gross = None if base.gross is None else base.gross.kg + sum(kg for kg, _, _ in loads)
    if base.gross is None:
        lacks.say(paths[0], "is needed: what the trailer weighs without the listed loads")
    here = _Lacks()
    if base.tongue is None:
        here.say(paths[1], "is needed: what the trailer puts on the hitch without the listed loads")
    length = trailer.geometry.coupler_to_axles
    if length is None:
        here.say(
            "trailer.geometry.coupler_to_axles", "is needed: coupler to the middle of the axles"
        )
    placed = [(kg, here.place(position, path, "the coupler")) for kg, position, path in loads]
    lacks.found += here.found
    if here.found or base.tongue is None or length is None:
        return _Trailer(gross, None, length.m if length else None)
    tongue = base.tongue.kg + sum(statics.item_on_tongue(kg, x, length.m) for kg, x in placed)
    return _Trailer(gross, tongue, length.m)


def _moment(rig: RigFile, tongue: float, b: float | None, length: float) -> float | None:
    """The spring bars' moment as planned; None where it needs the overhang and that is not known.
    [kg m]
    """
    restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    if not restoration:
        return 0.0
    return None if b is None else statics.bar_moment(restoration, tongue, b, length)


def predict_known(rig: RigFile) -> Predicted:
    """Predict every load of the rig that can be predicted.

    Parameters
    ----------
    rig : RigFile
        As for :func:`predict_solo`, and for the trailer ``plan.trailer_base``, else its dry
        figures.

    Returns
    -------
    Predicted
        ``front_solo`` … ``payload_used`` as far as they can be known; without a trailer the
        trailer's and the hitched keys are absent.
    """
    solo, lacks = predict_solo(rig), _Lacks()
    lacks.found += solo.missing
    loads = {
        "front_solo": solo.front,
        "rear_solo": solo.rear,
        "vehicle_solo": solo.gross,
        "cargo": solo.cargo,
    }
    if rig.trailer is None:
        loads["payload_used"] = solo.cargo
    else:
        _coupled(rig, solo, loads, lacks)
    known = {key: kg for key, kg in loads.items() if kg is not None}
    unique = {problem.path: problem for problem in lacks.found}
    return Predicted(known, list(unique.values()))


def _coupled(rig: RigFile, solo: Solo, loads: dict[str, float | None], lacks: _Lacks) -> None:
    """Add what the trailer weighs, and what coupling it does."""
    trailer = _trailer(rig, lacks)
    gross, tongue, length = trailer.gross, trailer.tongue, trailer.length
    loads["trailer_gross"], loads["tongue_static"] = gross, tongue
    if solo.gross is not None and gross is not None:
        loads["combination_gross"] = solo.gross + gross
    if solo.overhang is None:
        lacks.say(
            "vehicle.geometry.hitch_offset",
            "is needed: how far behind the rear axle the hitch point is",
        )
    if tongue is None or length is None:
        return
    loads["tongue_share"] = tongue / gross if gross else None
    loads["payload_used"] = None if solo.cargo is None else solo.cargo + tongue
    moment = _moment(rig, tongue, solo.overhang, length)
    if moment is None:
        return
    net = tongue - moment / length
    loads["vehicle_hitched"] = None if solo.gross is None else solo.gross + net
    loads["trailer_axles"] = None if gross is None else gross - net
    if (
        solo.front is not None
        and solo.rear is not None
        and solo.wheelbase is not None
        and solo.overhang is not None
    ):
        change = statics.hitched_change(tongue, moment, solo.overhang, solo.wheelbase, length)
        loads["front_hitched"], loads["rear_hitched"] = (
            solo.front + change.front,
            solo.rear + change.rear,
        )


def predict(rig: RigFile) -> Mapping[str, float]:
    """Predict every load of the rig as planned.

    Parameters
    ----------
    rig : RigFile
        As for :func:`predict_known`.

    Returns
    -------
    Mapping
        ``front_solo`` … ``payload_used`` in kilograms, and ``tongue_share``.

    Raises
    ------
    MissingInput
        Naming the first base, length or position that is not there.
    """
    found = predict_known(rig)
    if found.missing:
        raise MissingInput(found.missing[0].path, found.missing[0].message)
    return found.loads
