"""The rig's loads as linear forms of its state: what each kilogram in each place, and the bars, do
to every check.

Every load that a check judges is a sum of the state's parts, so cures can be computed, and proved
absent, exactly.
"""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from noxel.core.adjust.baseline import Baseline
from noxel.core.limits import CHECKS, UNDER_LOAD, CheckId, axle_sets, drive_part
from noxel.core.mechanics import (
    SUMS,
    State,
    dry_by_label,
    dry_entered,
    empty_by_label,
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


def state_of(base: Baseline) -> Vector:
    """The state of the rig that is tried on; not a number where it is not known."""
    return vector(base.state())


def forms(base: Baseline) -> dict[CheckId, tuple[Vector, float]]:
    """Every check's load as a linear form of the state: coefficients and a constant. [kg]

    The constant is what the scale found beyond the lever model; a load that is not known has no
    form.
    """
    rig, known, state = base.rig, base.loads(base.rig), state_of(base)

    def form(key: str) -> tuple[Vector, float] | None:
        coefs = sum_of(SUMS[key])
        if key not in known or np.isnan(state[coefs != 0]).any():
            return None
        return coefs, known[key] - float(coefs[coefs != 0] @ state[coefs != 0])

    labelled, built = empty_by_label(rig), dry_entered(rig) or dry_by_label(rig)
    empty = known.get("curb_measured", labelled.value if labelled else None)
    shares = _shares(rig) | dict(base.parts)
    rows: dict[CheckId, tuple[Vector, float]] = {}
    for check, spec in CHECKS.items():
        if spec.part == "share" or not (rig.towing or spec.subject in ("vehicle", "tires")):
            continue
        load_form = form(spec.load)
        if load_form is None:
            continue
        coefs, constant = load_form
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
            shares[tire] = shares[wheel] = drive_part(rig, axles.group) / count
        number = len(rig.trailer.ratings.gawr) if rig.trailer and axles.group == "trailer" else 1
        if number:
            shares[assembly] = 1 / number
    return shares


def in_vehicle(base: Baseline, kg: float, place: float) -> Vector:
    """What a mass in the vehicle adds to the state; ``place`` is behind the front axle. [kg, m]"""
    return vector(base.levers.in_vehicle(kg, kg * place))


def in_trailer(base: Baseline, kg: float, place: float) -> Vector:
    """What a mass in the trailer adds to the state: weighed bars stay as they are, planned ones
    keep their share; ``place`` is behind the coupler. [kg, m]
    """
    return vector(base.levers.in_trailer(kg, kg * place, base.restored))
