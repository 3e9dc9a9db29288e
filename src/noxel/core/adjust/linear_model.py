"""The rig's loads as linear forms of its state: what each kilogram in each place, and the bars, do
to every check.

Every load that a check judges is a sum of the state's parts, so cures can be computed, and proved
absent, exactly.
"""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from noxel.core.adjust.baseline import Baseline
from noxel.core.limits import CHECKS, UNDER_LOAD, CheckId, axle_sets
from noxel.core.mechanics import (
    SUMS,
    State,
    dry_by_label,
    dry_entered,
    empty_by_label,
    levers_of,
    planned,
)
from noxel.core.rig import RigFile

Vector = NDArray[np.float64]
"""A state, or a change of it, as numbers; and what a sum takes of each of its parts."""


def vector(state: State) -> Vector:
    """A state as numbers; a rig whose places or lengths are missing has none. [kg]"""
    return np.array(state, dtype=float)


def sum_of(parts: Mapping[str, float]) -> Vector:
    """What a sum takes of each part of the state, by the part's name."""
    return vector(State(**{part: float(times) for part, times in parts.items()}))


def amount(state: Vector, part: str) -> float:
    """One part of a state. [kg]"""
    return float(state[State._fields.index(part)])


def state_of(rig: RigFile) -> Vector:
    """The state of a rig as predicted."""
    return vector(planned(rig).state())


def forms(rig: RigFile, base: Baseline | None = None) -> dict[CheckId, tuple[Vector, float]]:
    """Every check's load as a linear form of the state: coefficients and a constant. [kg]

    ``base`` has what the scale found besides the lever model; None is the model alone.
    """
    start = base.changed(rig) if base else Baseline(rig, {})
    beyond = start.beyond if rig.towing else {}

    def form(key: str) -> tuple[Vector, float]:
        return sum_of(SUMS[key]), beyond.get(key, 0.0)

    def both(one: str, other: str) -> tuple[Vector, float]:
        return form(one)[0] + form(other)[0], form(one)[1] + form(other)[1]

    gross = both("front_hitched", "rear_hitched")
    combined = gross[0] + form("trailer_axles")[0], gross[1] + form("trailer_axles")[1]
    sums = {"vehicle_hitched": gross, "combination_gross": combined}
    labelled, built = empty_by_label(rig), dry_entered(rig) or dry_by_label(rig)
    empty = start.empty if start.empty is not None else labelled.value if labelled else None
    shares = _shares(rig) | dict(start.parts)
    rows: dict[CheckId, tuple[Vector, float]] = {}
    for check, spec in CHECKS.items():
        if spec.part == "share" or not (rig.towing or spec.subject in ("vehicle", "tires")):
            continue
        coefs, constant = sums.get(spec.load) or form(spec.load)
        if spec.part == "load":
            rows[check] = coefs, constant
        elif spec.part == "beyond_empty" and empty is not None:
            rows[check] = coefs, constant - empty
        elif spec.part == "beyond_dry" and built is not None:
            rows[check] = coefs, constant - built.value
        elif check in shares:
            rows[check] = coefs * shares[check], constant * shares[check]
    return rows


def _shares(rig: RigFile) -> dict[CheckId, float]:
    """What one tire, wheel or assembly usually has of its group of axles."""
    shares: dict[CheckId, float] = {}
    for axles in axle_sets(rig):
        tire, wheel, assembly = UNDER_LOAD[axles.group]
        count = axles.tires.count
        if count:
            shares[tire] = shares[wheel] = 1 / count
        number = len(rig.trailer.ratings.gawr) if rig.trailer and axles.group == "trailer" else 1
        if number:
            shares[assembly] = 1 / number
    return shares


def in_vehicle(rig: RigFile, kg: float, place: float) -> Vector:
    """What a mass in the vehicle adds to the state; ``place`` is behind the front axle. [kg, m]"""
    return vector(levers_of(rig).in_vehicle(kg, kg * place))


def in_trailer(rig: RigFile, kg: float, place: float) -> Vector:
    """What a mass in the trailer adds to the state, the bars' share of the front axle's loss kept;
    ``place`` is behind the coupler.
    """
    return vector(levers_of(rig).in_trailer(kg, kg * place))
