"""One pass over the scale: its readings with their uncertainty, and the loads they add up to.

A reading is (true value as read ± graduation/√12) × (1 + g). The gain g is one variable for all
readings of a weigh-in: one scale has one error (JCGM 100:2008, 4.3.7 and 5.2). A load that was not
read is the difference of those that were.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from noxel.core.mechanics.sources import between, entered, place_of
from noxel.core.quantities import (
    Amount,
    Figure,
    Mass,
    Term,
    combine,
    nominal,
    print_mass,
    total,
    uncertain,
)
from noxel.core.rig import Pass, RigFile, Scale, WeighIn

SAME = 1e-9
"""Two floats closer than this, relatively, are the same figure: unit conversion must never decide a
status.
"""
AXLES = ("front", "rear", "trailer")
"""What a pass is made of; ``trailer`` is all of the trailer's axles."""


@dataclass(slots=True, eq=False)
class PassLoads:
    """One pass: every reading with its uncertainty, and each load that they give, adjustments
    added.

    ``vehicle`` is front and rear together, ``gross`` everything that was on the scale.
    """

    number: int
    each: Pass
    readings: Mapping[str, Amount]
    corrections: Sequence[tuple[str, Amount, Amount]] = ()
    """Each typed correction: its name, its mass [kg], the front axle's share of it."""
    front: Figure | None = None
    rear: Figure | None = None
    trailer: Figure | None = None
    vehicle: Figure | None = None
    gross: Figure | None = None

    @property
    def single_axles(self) -> tuple[int, ...]:
        """Numbers of the trailer axles that are known singly."""
        return (
            self.each.trailer_axles
            if any(name.startswith("trailer_") for name in self.readings)
            else ()
        )


def describe_pass(pass_: Pass, number: int) -> str:
    """Name a pass as people speak of it: ``"pass 1, hitched, bars slack"``."""
    words = {
        "hitched": "hitched",
        "vehicle_only": "vehicle only",
        "vehicle_empty": "vehicle empty",
        "trailer_only": "trailer only",
    }[pass_.config]
    bars = (
        f", bars {pass_.spring_bars}"
        if pass_.config == "hitched" and pass_.spring_bars in ("engaged", "slack")
        else ""
    )
    return f"pass {number}, {words}{bars}"


_READING_WORDS = {
    "front": "front axle",
    "rear": "rear axle",
    "trailer": "trailer axles",
    "vehicle": "whole vehicle",
    "gross": "everything",
}


def reading_words(name: str) -> str:
    """Name a reading: ``trailer_1_left`` is “trailer axle 1, left”."""
    stem, side = (
        ([*name.rsplit("_", 1), ""])[:2] if name.endswith(("_left", "_right")) else (name, "")
    )
    words = _READING_WORDS.get(stem) or f"trailer axle {stem.split('_')[1]}"
    return f"{words}, {side}" if side else words


class _Reader:
    """Works out the loads of one pass from its readings."""

    def __init__(
        self,
        pass_: Pass,
        readings: Mapping[str, Amount],
        source: str,
        corrections: Sequence[tuple[str, Amount, Amount]],
    ) -> None:
        self.each, self.readings, self.source = pass_, readings, source
        self.corrections = corrections

    def _corrections(self, which: str) -> list[Term]:
        """What was typed to be added to the readings of the vehicle, or of one of its axles."""
        terms = []
        for label, mass, front_share in self.corrections if which != "trailer" else ():
            share = {"front": front_share, "rear": 1 - front_share}.get(which, 1.0)
            if which in ("front", "rear"):
                label = f"{label}, {nominal(share) * 100:.0f} % on this axle"
            terms.append(Term("+", label, mass * share, source="typed correction"))
        return terms

    def read(self, which: str) -> Figure | None:
        """A load that was read, whole or in parts."""
        names = sorted(
            name for name in self.readings if name == which or name.startswith(which + "_")
        )
        if not names:
            return None
        terms = [
            Term("+" if index else "", reading_words(name), self.readings[name], source=self.source)
            for index, name in enumerate(names)
        ]
        corrections = self._corrections(which)
        formula = "the reading" if len(terms) == 1 else "the readings added"
        return total(
            which, f"{formula}, corrected" if corrections else formula, terms + corrections
        )


def _less(which: str, whole: Figure, *parts: Figure) -> Figure:
    """The load that is left of a sum."""
    words = " − ".join(reading_words(part.key) for part in (whole, *parts))
    terms = [
        Term("", reading_words(whole.key), whole.amount),
        *(Term("−", reading_words(part.key), part.amount) for part in parts),
    ]
    return total(which, words, terms)


def _plus(which: str, *parts: Figure | None) -> Figure | None:
    known = [part for part in parts if part is not None]
    if len(known) < len(parts):
        return None
    words = " + ".join(reading_words(part.key) for part in known)
    return total(
        which,
        words,
        [
            Term("+" if index else "", reading_words(part.key), part.amount)
            for index, part in enumerate(known)
        ],
    )


def _loads(loads: PassLoads, reader: _Reader) -> None:
    """Every load that the readings give, those by difference included."""
    front, rear, trailer = (reader.read(which) for which in AXLES)
    vehicle, gross = _plus("vehicle", front, rear) or reader.read("vehicle"), reader.read("gross")
    config = loads.each.config
    if gross is not None:
        if config == "trailer_only":
            trailer = gross.renamed("trailer")
        elif config != "hitched":
            vehicle = gross.renamed("vehicle")
        elif vehicle is None and trailer is not None:
            vehicle = _less("vehicle", gross, trailer)
        elif vehicle is not None and trailer is None:
            trailer = _less("trailer", gross, vehicle)
    if vehicle is not None:
        if rear is None and front is not None:
            rear = _less("rear", vehicle, front)
        elif front is None and rear is not None:
            front = _less("front", vehicle, rear)
    if gross is None:
        gross = (
            trailer
            if config == "trailer_only"
            else _plus("gross", vehicle, trailer)
            if config == "hitched"
            else vehicle
        )
    loads.front, loads.rear, loads.trailer, loads.vehicle, loads.gross = (
        front,
        rear,
        trailer,
        vehicle,
        gross,
    )


def gain_of(scale: Scale | None) -> Amount:
    """A scale's one error, as a share of each of its readings."""
    return uncertain(0.0, scale.accuracy) if scale and scale.accuracy else 0.0


def _typed_corrections(
    rig: RigFile, weigh_in: WeighIn, pass_: Pass, number: int
) -> list[tuple[str, Amount, Amount]]:
    """Each adjustment of a pass: its name, its mass with the ± of its source [kg], and the front
    axle's share, anywhere where it was not said.
    """
    place = place_of(rig, weigh_in) if pass_.adjustments else None
    corrections = []
    for index, adjustment in enumerate(pass_.adjustments):
        path = f"weigh_ins[{place}].passes[{number - 1}].adjustments[{index}].mass"
        typed = "front_share" in adjustment.model_fields_set
        share = adjustment.front_share if typed else between(0.0, 1.0)
        mass = entered(rig, path, adjustment.mass.kg)
        corrections.append((adjustment.what or "correction", mass, share))
    return corrections


def read_pass(
    rig: RigFile, weigh_in: WeighIn, pass_: Pass | None, gain: Amount
) -> PassLoads | None:
    """Read a pass.

    Parameters
    ----------
    rig : RigFile
        For its unit.
    weigh_in : WeighIn
        Its scale is used.
    each : Pass or None
        The pass; None was not driven.
    gain : Amount
        The scale's error (:func:`gain_of`), the same for every pass of the weigh-in but those with
        a scale of their own.
    """
    scale = pass_.scale or weigh_in.scale if pass_ else None
    if pass_ is None or scale is None:
        return None
    if pass_.scale is not None:
        gain = gain_of(scale)
    number = next(n for n, other in enumerate(weigh_in.passes, 1) if other is pass_)
    step = scale.resolution.kg / math.sqrt(12)
    readings = {
        name: combine([(1.0, uncertain(mass.kg, step)), (mass.kg, gain)])
        for name, mass in pass_.readings.items()
    }
    source = f"{describe_pass(pass_, number)}; graduation {_print(scale.resolution, rig)}"
    corrections = _typed_corrections(rig, weigh_in, pass_, number)
    loads = PassLoads(number, pass_, readings, corrections)
    _loads(loads, _Reader(pass_, readings, source, corrections))
    return loads


def _print(mass: Mass, rig: RigFile) -> str:
    return mass.written if isinstance(mass.written, str) else print_mass(mass.kg, rig.units.mass)
