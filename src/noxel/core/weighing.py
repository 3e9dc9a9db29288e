"""From passes over a scale to the loads on every axle, with their uncertainty.

A reading with graduation d is uniform over ±d/2, so its standard uncertainty is d/√12; a scale's accuracy, as a
share of the reading, adds in quadrature (JCGM 100:2008, 4.3.7). Derived weights share readings; the correlations are
carried by `uncertainties`.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from uncertainties import ufloat

from noxel.core import statics
from noxel.core.figures import Amount, Figure, Term, combine, nominal, plus_minus, ratio, total
from noxel.core.quantities import Length, Mass
from noxel.core.rigfile import RigFile
from noxel.core.since import Since, since
from noxel.core.tickets import BeamMeasurement, LeverMeasurement, Pass, ScaleMeasurement, WeighIn
from noxel.core.units import print_mass

TongueSource = Literal["passes", "direct", "trailer", "moment"]
_ORDER: tuple[TongueSource, ...] = ("passes", "direct", "trailer", "moment")
SAME = 1e-9
"""Two floats closer than this, relatively, are the same figure: unit conversion must never decide a status."""


@dataclass(slots=True, eq=False)
class Candidate:
    """One way to know the tongue weight."""

    source: TongueSource
    figure: Figure


@dataclass(slots=True, eq=False)
class PassLoads:
    """One pass, read: every reading with its uncertainty, the axles summed, adjustments added."""

    number: int
    each: Pass
    readings: Mapping[str, Amount]
    front: Figure | None
    rear: Figure | None
    trailer: Figure | None

    @property
    def single_axles(self) -> tuple[int, ...]:
        """Numbers of the trailer axles that are known singly."""
        return self.each.trailer_axles if any(name.startswith("trailer_") for name in self.readings) else ()

    @property
    def vehicle(self) -> float | None:
        """Front and rear together, without its ±. [kg]"""
        return None if self.front is None or self.rear is None else self.front.value + self.rear.value


@dataclass(frozen=True, slots=True)
class Weighing:
    """Everything that a weigh-in lets us know."""

    figures: dict[str, Figure] = field(default_factory=dict)
    candidates: tuple[Candidate, ...] = ()
    tongue_source: TongueSource | None = None
    hitched: PassLoads | None = None
    engaged: PassLoads | None = None
    slack: PassLoads | None = None
    solo: PassLoads | None = None
    empty: PassLoads | None = None
    trailer_only: PassLoads | None = None

    def amount(self, key: str) -> Amount | None:
        """The amount of a derived figure, or None when it cannot be known."""
        return self.figures[key].amount if key in self.figures else None


def describe_pass(each: Pass, number: int) -> str:
    """Name a pass as people speak of it: ``"pass 1, hitched, bars slack"``."""
    words = {"hitched": "hitched", "vehicle_only": "vehicle only", "vehicle_empty": "vehicle empty",
             "trailer_only": "trailer only"}[each.config]  # fmt: skip
    bars = f", bars {each.spring_bars}" if each.config == "hitched" and each.spring_bars in ("engaged", "slack") else ""
    return f"pass {number}, {words}{bars}"


_READING_WORDS = {"front": "front axle", "rear": "rear axle", "trailer": "trailer axles"}


def reading_words(name: str) -> str:
    """Name a reading: ``trailer_1_left`` is “trailer axle 1, left”."""
    stem, side = ([*name.rsplit("_", 1), ""])[:2] if name.endswith(("_left", "_right")) else (name, "")
    words = _READING_WORDS.get(stem) or f"trailer axle {stem.split('_')[1]}"
    return f"{words}, {side}" if side else words


def _axle(loads: Mapping[str, Amount], which: str, each: Pass, source: str, added: Since | None) -> Figure | None:
    names = [name for name in loads if name == which or name.startswith(which + "_")]
    if not names:
        return None
    terms = [Term("+" if index else "", reading_words(name), loads[name], source=source)
             for index, name in enumerate(sorted(names))]  # fmt: skip
    formula = "the reading" if len(terms) == 1 else "the readings added"
    if which != "trailer" and each.adjustments:
        formula += ", corrected"
        for adjustment in each.adjustments:
            share = adjustment.front_share if which == "front" else 1 - adjustment.front_share
            label = f"{adjustment.what or 'correction'}, {share * 100:.0f} % on this axle"
            terms.append(Term("+", label, adjustment.mass.kg * share, source="typed correction"))
    if added is not None:
        terms.append(Term("+", "came aboard since, estimated", added.on(which, coupled=each.config == "hitched")))
    return total(which, formula, terms)


def _read_pass(rig: RigFile, weigh_in: WeighIn, each: Pass | None, added: Since | None = None) -> PassLoads | None:
    if each is None or weigh_in.scale is None:
        return None
    scale = weigh_in.scale
    number = next(n for n, other in enumerate(weigh_in.passes, 1) if other is each)
    readings = {
        name: ufloat(mass.kg, math.hypot(scale.resolution.kg / math.sqrt(12), scale.accuracy * mass.kg))
        for name, mass in each.readings.items()
    }
    source = f"{describe_pass(each, number)}; graduation {_print(scale.resolution, rig)}"
    front, rear, trailer = (_axle(readings, which, each, source, added) for which in ("front", "rear", "trailer"))
    if added is not None:  # what came aboard is known by axle at the best, never by wheel
        sums = {"front": front, "rear": rear, "trailer": trailer}
        readings = {name: figure.amount for name, figure in sums.items() if figure}
    return PassLoads(number, each, readings, front, rear, trailer)


def _print(mass: Mass, rig: RigFile) -> str:
    return mass.written if isinstance(mass.written, str) else print_mass(mass.kg, rig.units.mass)


def _half_width(nominal_value: Mass | Length, half: Mass | Length | None) -> Amount:
    return ufloat(nominal_value.si, half.si / math.sqrt(3)) if half is not None and half.si else nominal_value.si


def measure_tongue(measured: ScaleMeasurement | BeamMeasurement | LeverMeasurement, key: str) -> Figure:
    """The tongue weight from one direct measurement, with its error budget.

    Parameters
    ----------
    measured : ScaleMeasurement or BeamMeasurement or LeverMeasurement
        As typed.
    key : str
        What to call the figure.

    Returns
    -------
    Figure
        Tongue load. [kg]

    Notes
    -----
    A scale's reading (and its tare, if any) has u = graduation/√12; a length or weight known to ±h has u = h/√3.
    """
    if isinstance(measured, ScaleMeasurement):
        amount = ufloat(measured.value.kg, measured.resolution.kg / math.sqrt(12))
        words = "tongue scale" if measured.method == "scale" else "scale in the ball mount"
        return Figure(key, amount, f"read off the {words}", (Term("", words, amount),))
    if isinstance(measured, BeamMeasurement):
        u = measured.resolution.kg / math.sqrt(12)
        reading = ufloat(measured.reading.kg, u)
        tare: Amount = ufloat(measured.tare.kg, u) if measured.tare and measured.tare.kg else 0.0
        span = _half_width(measured.span, measured.span_pm)
        coupler = _half_width(measured.coupler_from_support, measured.coupler_from_support_pm)
        terms = [Term("", "scale under the beam", reading), Term("−", "the beam alone", tare),
                 Term("×", "support to scale", span, "length"), Term("÷", "support to coupler", coupler, "length")]  # fmt: skip
        return Figure(key, statics.beam_tongue(reading, tare, span, coupler),
                      "(reading − beam alone) × support to scale ÷ support to coupler", tuple(terms))  # fmt: skip
    weight = _half_width(measured.counterweight, measured.counterweight_pm)
    arm = _half_width(measured.counterweight_arm, measured.counterweight_arm_pm)
    tongue_arm = _half_width(measured.tongue_arm, measured.tongue_arm_pm)
    beam = measured.beam_mass.kg if measured.beam_mass else 0.0
    beam_arm = measured.beam_cg_arm.m if measured.beam_cg_arm else 0.0
    lever = [Term("", "known weight", weight), Term("×", "its arm", arm, "length")]
    if beam:
        lever += [Term("+", "the beam's own mass", beam), Term("×", "its middle from the fulcrum", beam_arm, "length")]
    lever.append(Term("÷", "tongue to fulcrum", tongue_arm, "length"))
    return Figure(key, statics.lever_tongue(weight, arm, tongue_arm, beam, beam_arm),
                  "(known weight × its arm + beam × its arm) ÷ tongue arm" if beam
                  else "known weight × its arm ÷ tongue arm", tuple(lever))  # fmt: skip


class _Builder:
    def __init__(self) -> None:
        self.figures: dict[str, Figure] = {}

    def put(self, figure: Figure | None) -> None:
        if figure is not None:
            self.figures[figure.key] = figure

    def sum(self, key: str, formula: str, *terms: tuple[Literal["", "+", "−"], str, str], note: str = "") -> None:
        """Add the figure made of other figures, when all of them are known."""
        if all(of in self.figures for _, of, _ in terms):
            made = [self.figures[of].term(op, label) for op, of, label in terms]
            self.put(total(key, formula, made, [note] if note else ()))


def _renamed(figure: Figure | None, key: str) -> Figure | None:
    return figure.renamed(key) if figure else None


def weigh(rig: RigFile, weigh_in: WeighIn | None, *, with_added: bool = False) -> Weighing:
    """Work out everything a weigh-in lets us know (rig-file format, ``derived``).

    Parameters
    ----------
    rig : RigFile
        The rig; its hitch and geometry are used, not its ratings.
    weigh_in : WeighIn or None
        The visit to the scale; None when there was none.
    with_added : bool
        Whether to add what came aboard since: estimates then, not weights; known by axle at the best, never by wheel.

    Returns
    -------
    Weighing
        Each figure that can be known, in kilograms and shares; absent ones cannot.
    """
    if weigh_in is None:
        return Weighing()
    added = since(rig, weigh_in) if with_added else None
    engaged = _read_pass(rig, weigh_in, weigh_in.last("hitched", engaged=True), added)
    slack = _read_pass(rig, weigh_in, weigh_in.last("hitched", engaged=False), added)
    solo = _read_pass(rig, weigh_in, weigh_in.last("vehicle_only"), added)
    empty = _read_pass(rig, weigh_in, weigh_in.last("vehicle_empty"))
    alone = _read_pass(rig, weigh_in, weigh_in.last("trailer_only"), added)
    hitched = (engaged or slack) if rig.towing else solo
    work = _Builder()
    if hitched is not None:
        work.put(_renamed(hitched.front, "front_hitched"))
        work.put(_renamed(hitched.rear, "rear_hitched"))
    work.sum("vehicle_hitched", "front axle + rear axle", ("", "front_hitched", "front axle"),
             ("+", "rear_hitched", "rear axle"))  # fmt: skip
    if solo is not None:
        work.put(_renamed(solo.front, "front_solo"))
        work.put(_renamed(solo.rear, "rear_solo"))
    work.sum("vehicle_solo", "front axle + rear axle, vehicle only", ("", "front_solo", "front axle"),
             ("+", "rear_solo", "rear axle"))  # fmt: skip
    if empty is not None and empty.front and empty.rear:
        work.put(total("curb_measured", "front axle + rear axle, vehicle empty",
                       [Term("", "front axle", empty.front.amount), Term("+", "rear axle", empty.rear.amount)]))  # fmt: skip
    candidates: list[Candidate] = []
    if rig.towing:
        candidates = _tow(work, rig, weigh_in, engaged, slack, hitched, alone, added)
    chosen = _choose(candidates)
    return Weighing(work.figures, tuple(candidates), chosen.source if chosen else None,
                    hitched, engaged, slack, solo, empty, alone)  # fmt: skip


def _tow(
    work: _Builder, rig: RigFile, weigh_in: WeighIn, engaged: PassLoads | None, slack: PassLoads | None,
    hitched: PassLoads | None, alone: PassLoads | None, added: Since | None) -> list[Candidate]:  # fmt: skip
    figures = work.figures
    if hitched is not None:
        work.put(_renamed(hitched.trailer, "trailer_axles"))
    work.sum("combination_gross", "all platforms added", ("", "vehicle_hitched", "vehicle, hitched"),
             ("+", "trailer_axles", "trailer axles"),
             note="The tongue is inside the vehicle's figure; it is counted once.")  # fmt: skip
    work.sum("tongue_net", "vehicle hitched − vehicle only", ("", "vehicle_hitched", "vehicle, hitched"),
             ("−", "vehicle_solo", "vehicle only"))  # fmt: skip
    work.sum("front_transfer", "front axle hitched − front axle alone", ("", "front_hitched", "front axle, hitched"),
             ("−", "front_solo", "front axle, vehicle only"))  # fmt: skip
    work.sum("rear_transfer", "rear axle hitched − rear axle alone", ("", "rear_hitched", "rear axle, hitched"),
             ("−", "rear_solo", "rear axle, vehicle only"))  # fmt: skip
    candidates = _tongue_candidates(figures, rig, weigh_in, engaged, slack, alone, added)
    chosen = _choose(candidates)
    if chosen is not None:
        work.put(_renamed(chosen.figure, "tongue_static"))
    _trailer_gross(work, slack, alone)
    tongue, gross = figures.get("tongue_static"), figures.get("trailer_gross")
    if tongue and gross and gross.value > 0:
        work.put(Figure("tongue_share", ratio(tongue.amount, gross.amount), "tongue weight ÷ trailer in total",
                        (tongue.term("", "tongue weight"), gross.term("÷", "trailer in total")), "share"))  # fmt: skip
    if engaged and slack:
        _bar_figures(work, engaged, slack)
    return candidates


def _trailer_gross(work: _Builder, slack: PassLoads | None, alone: PassLoads | None) -> None:
    if alone is not None and alone.trailer is not None:
        work.put(_renamed(alone.trailer, "trailer_gross"))
        return
    work.sum("trailer_gross", "everything hitched − vehicle only", ("", "combination_gross", "everything, hitched"),
             ("−", "vehicle_solo", "vehicle only"),
             note="Not the trailer platform alone: that leaves out the tongue, which the vehicle carries.")  # fmt: skip
    if "trailer_gross" not in work.figures and slack and slack.trailer and "tongue_static" in work.figures:
        work.put(total("trailer_gross", "trailer axles + tongue weight",
                       [Term("", "trailer axles, bars not tensioned", slack.trailer.amount),
                        work.figures["tongue_static"].term("+", "tongue weight")]))  # fmt: skip


def _tongue_candidates(
    figures: Mapping[str, Figure], rig: RigFile, weigh_in: WeighIn, engaged: PassLoads | None,
    slack: PassLoads | None, alone: PassLoads | None, added: Since | None) -> list[Candidate]:  # fmt: skip
    found: list[Candidate] = []
    if slack and slack.front and slack.rear and "vehicle_solo" in figures:
        terms = [Term("", "front axle, hitched, bars not tensioned", slack.front.amount),
                 Term("+", "rear axle, hitched, bars not tensioned", slack.rear.amount),
                 figures["vehicle_solo"].term("−", "vehicle only")]  # fmt: skip
        found.append(Candidate("passes", total("tongue:passes", "vehicle hitched − vehicle only", terms)))
    for number, measured in enumerate(weigh_in.tongue_measurements, 1):
        figure = measure_tongue(measured, f"tongue:direct:{number}")
        if added is not None:
            figure = total(figure.key, "as measured, and what came aboard since",
                           [figure.term("", "as measured"), Term("+", "came aboard since, estimated", added.tongue)])  # fmt: skip
        found.append(Candidate("direct", figure))
    if alone and alone.trailer and slack and engaged is None and "trailer_axles" in figures:
        terms = [Term("", "trailer alone", alone.trailer.amount), figures["trailer_axles"].term("−", "trailer axles, hitched")]
        found.append(Candidate("trailer", total("tongue:trailer", "trailer alone − trailer axles hitched", terms)))
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    if (
        engaged and slack is None and "tongue_net" in figures and "front_transfer" in figures and trailer
        and geometry.wheelbase and geometry.hitch_offset and trailer.geometry.coupler_to_axles
    ):  # fmt: skip
        a, b, length = geometry.wheelbase.m, geometry.hitch_offset.m, trailer.geometry.coupler_to_axles.m
        net, front = figures["tongue_net"], figures["front_transfer"]
        amount = statics.tongue_by_moments(net.amount, front.amount, b, a, length)
        lines = (net.term("", "net load on the vehicle, bars engaged"), front.term("+", "front axle's change"),
                 Term("×", "wheelbase", a, "length"), net.term("+", "net load"), Term("×", "hitch behind rear axle", b, "length"),
                 Term("÷", "coupler to trailer axles", length, "length"))  # fmt: skip
        found.append(Candidate("moment", Figure("tongue:moment", amount,
            "net + (wheelbase × front change + overhang × net) ÷ coupler to axles", lines,
            remarks=("The bars moved part of the tongue onto the trailer's axles; moments bring it back.",))))  # fmt: skip
    return found


def _choose(candidates: list[Candidate]) -> Candidate | None:
    best: Candidate | None = None
    for candidate in sorted(candidates, key=lambda each: _ORDER.index(each.source)):
        if best is None or plus_minus(candidate.figure.amount) < plus_minus(best.figure.amount) * (1 - SAME):
            best = candidate
    return best


def _bar_figures(work: _Builder, engaged: PassLoads, slack: PassLoads) -> None:
    if engaged.front and slack.front:
        restored = total("front_restored", "front axle, bars engaged − bars slack",
                         [Term("", "front axle, bars engaged", engaged.front.amount),
                          Term("−", "front axle, bars slack", slack.front.amount)])  # fmt: skip
        work.put(restored)
        solo = work.figures.get("front_solo")
        lost = combine([(1.0, solo.amount), (-1.0, slack.front.amount)]) if solo else None
        if solo and lost is not None and abs(nominal(lost)) > SAME * abs(solo.value):
            work.put(Figure("front_restoration", ratio(restored.amount, lost), "what the bars gave back ÷ what the front axle lost",
                            (restored.term("", "given back by the bars"),
                             Term("÷", "lost by the front axle", lost)), "share"))  # fmt: skip
    if engaged.trailer and slack.trailer:
        work.put(total("trailer_transfer", "trailer axles, bars engaged − bars slack",
                       [Term("", "trailer axles, bars engaged", engaged.trailer.amount),
                        Term("−", "trailer axles, bars slack", slack.trailer.amount)]))  # fmt: skip
