"""The lever model as one linear map: what each kilogram in each place, and the bars' moment, does
to every check.

A rig's state is five numbers: the vehicle's axles alone, the trailer in total, the tongue, the
bars' moment. Every load that a check judges is a linear form of them, so cures can be computed, and
proved absent, exactly.
"""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from noxel.core.adjust.baseline import Baseline
from noxel.core.limits import AxleSet, axle_sets
from noxel.core.mechanics import (
    dry_by_label,
    dry_entered,
    empty_by_label,
    lever_lengths,
    predict,
    statics,
)
from noxel.core.rig import RigFile

Vector = NDArray[np.float64]


FRONT, REAR, GROSS, TONGUE, MOMENT = range(5)
"""Places in a state: front and rear solo, trailer in total, tongue [kg]; bars' moment [kg m]."""


def state_of(rig: RigFile) -> Vector:
    """The state of a rig as predicted."""
    found, at = predict(rig), lever_lengths(rig)
    tongue = found.get("tongue_static", 0.0)
    restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    moment = statics.bar_moment(restoration, tongue, at.b, at.length) if restoration else 0.0
    return np.array(
        [found["front_solo"], found["rear_solo"], found.get("trailer_gross", 0.0), tongue, moment]
    )


def forms(rig: RigFile, base: Baseline | None = None) -> dict[str, tuple[Vector, float]]:
    """Every check's load as a linear form of the state: coefficients and a constant. [kg]

    ``base`` has what the scale found besides the lever model; None is the model alone.
    """
    at, seen = lever_lengths(rig), base.changed(rig) if base else Baseline(rig, {})
    lever, bars = at.b / at.a, (1 + at.b / at.length) / at.a
    front = np.array([1, 0, 0, -lever, bars]), seen.beyond.get("front_hitched", 0.0)
    rear = (
        np.array([0, 1, 0, 1 + lever, -1 / at.length - bars]),
        seen.beyond.get("rear_hitched", 0.0),
    )
    axles = np.array([0, 0, 1, -1, 1 / at.length]), seen.beyond.get("trailer_axles", 0.0)
    if not rig.towing:
        front, rear = (np.array([1.0, 0, 0, 0, 0]), 0.0), (np.array([0, 1.0, 0, 0, 0]), 0.0)
    gross = front[0] + rear[0], front[1] + rear[1]
    trailer, tongue = np.array([0, 0, 1.0, 0, 0]), np.array([0, 0, 0, 1.0, 0])
    found: dict[str, tuple[Vector, float]] = {
        "vehicle.front_axle": front,
        "vehicle.rear_axle": rear,
        "vehicle.gross": gross,
    }
    labelled, built = empty_by_label(rig), dry_entered(rig) or dry_by_label(rig)
    empty = seen.empty if seen.empty is not None else labelled.value if labelled else None
    if empty is not None:
        found["vehicle.payload"] = gross[0], gross[1] - empty
    for each in axle_sets(rig):
        found |= _under_load(
            rig, each, {"front": front, "rear": rear, "trailer": axles}[each.group], seen.parts
        )
    if rig.trailer is None:
        return found
    found |= {
        "combination.gross": (gross[0] + axles[0], gross[1] + axles[1]),
        "vehicle.tow_rating": (trailer, 0.0),
        "trailer.gross": (trailer, 0.0),
        "hitch.trailer": (trailer, 0.0),
        "trailer.axles": axles,
        "hitch.tongue": (tongue, 0.0),
    }
    found |= {
        check: (axles[0] * share, axles[1] * share)
        for check, share in seen.parts.items()
        if check.startswith("trailer.axle_")
    }
    if built is not None:
        found["trailer.cargo"] = (trailer, -built.value)
    return found


def _under_load(
    rig: RigFile, each: AxleSet, axle: tuple[Vector, float], parts: Mapping[str, float]
) -> dict[str, tuple[Vector, float]]:
    """Tires, wheels and assembly of one group, as parts of what it carries."""
    shares = {}
    if each.tires.count:
        shares = {f"{part}.{each.group}": 1 / each.tires.count for part in ("tires", "wheels")}
    axles = len(rig.trailer.ratings.gawr) if rig.trailer and each.group == "trailer" else 1
    if axles:
        shares[f"assembly.{each.group}"] = 1 / axles
    found = {}
    for check, usual in shares.items():
        share = parts.get(check, usual)
        found[check] = axle[0] * share, axle[1] * share
    return found


def in_vehicle(rig: RigFile, kg: float, place: float) -> Vector:
    """What a mass in the vehicle adds to the state; ``place`` is behind the front axle. [kg, m]"""
    change = statics.split_item(kg, place, lever_lengths(rig).a)
    return np.array([change.front, change.rear, 0, 0, 0])


def in_trailer(rig: RigFile, kg: float, place: float) -> Vector:
    """What a mass in the trailer adds to the state, the bars' share of the front axle's loss kept;
    ``place`` is behind the coupler.
    """
    at = lever_lengths(rig)
    tongue = statics.item_on_tongue(kg, place, at.length)
    return np.array([0, 0, kg, tongue, tongue * moment_per_tongue(rig)])


def moment_per_tongue(rig: RigFile) -> float:
    """The bars' moment for each kilogram of tongue, at the restoration in force. [m]"""
    at = lever_lengths(rig)
    restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    return statics.bar_moment(restoration, 1.0, at.b, at.length) if restoration else 0.0
