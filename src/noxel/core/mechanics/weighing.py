"""From passes over a scale to the loads on every axle, with their uncertainty.

Loads derived from several readings share them, and stay correlated. What one
pass gives is in :mod:`noxel.core.mechanics.pass_loads`.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.mechanics import statics
from noxel.core.mechanics.pass_loads import SAME, PassLoads, gain_of, read_pass
from noxel.core.mechanics.tongue_methods import measure_tongue
from noxel.core.quantities import Amount, Figure, Term, combine, nominal, plus_minus, ratio, total
from noxel.core.rig import RigFile, TongueMeasurement, WeighIn

TongueSource = Literal["passes", "direct", "trailer", "moment"]


_ORDER: tuple[TongueSource, ...] = ("passes", "direct", "trailer", "moment")


@dataclass(slots=True, eq=False)
class Candidate:
    """One way to know the tongue weight."""

    source: TongueSource
    figure: Figure


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
    off_height: bool = False
    """Whether the tongue weight rests on a measurement at another height than it is towed at."""

    def amount(self, key: str) -> Amount | None:
        """The amount of a derived figure, or None when it cannot be known."""
        return self.figures[key].amount if key in self.figures else None


class _Builder:
    def __init__(self) -> None:
        self.figures: dict[str, Figure] = {}

    def put(self, figure: Figure | None) -> None:
        if figure is not None:
            self.figures[figure.key] = figure

    def sum(
        self, key: str, formula: str, *terms: tuple[Literal["", "+", "−"], str, str], note: str = ""
    ) -> None:
        """Add the figure made of other figures, when all of them are known."""
        if all(of in self.figures for _, of, _ in terms):
            terms_of = [self.figures[of].term(op, label) for op, of, label in terms]
            self.put(total(key, formula, terms_of, [note] if note else ()))

    def vehicle(
        self, state: Literal["hitched", "solo"], formula: str, loads: PassLoads | None
    ) -> None:
        """Add the vehicle's axles and its total, as far as one pass gives them."""
        if loads is None:
            return
        self.put(_renamed(loads.front, f"front_{state}"))
        self.put(_renamed(loads.rear, f"rear_{state}"))
        if {"front", "rear"} <= {name.split("_")[0] for name in loads.readings}:
            self.sum(
                f"vehicle_{state}",
                formula,
                ("", f"front_{state}", "front axle"),
                ("+", f"rear_{state}", "rear axle"),
            )
        else:
            self.put(_renamed(loads.vehicle, f"vehicle_{state}"))


def _renamed(figure: Figure | None, key: str) -> Figure | None:
    return figure.renamed(key) if figure else None


def weigh(rig: RigFile, weigh_in: WeighIn | None) -> Weighing:
    """Work out everything a weigh-in lets us know (rig-file format, ``derived``).

    Parameters
    ----------
    rig : RigFile
        The rig; its hitch and geometry are used, not its ratings.
    weigh_in : WeighIn or None
        The visit to the scale; None when there was none.

    Returns
    -------
    Weighing
        Each figure that can be known, in kilograms and shares; absent ones cannot.
    """
    if weigh_in is None:
        return Weighing()
    gain = gain_of(weigh_in.scale)
    engaged, slack, solo, alone, empty = (
        read_pass(rig, weigh_in, loads, gain)
        for loads in (
            weigh_in.last("hitched", engaged=True),
            weigh_in.last("hitched", engaged=False),
            weigh_in.last("vehicle_only"),
            weigh_in.last("trailer_only"),
            weigh_in.last("vehicle_empty"),
        )
    )
    passes = _Passes(engaged, slack, solo, alone)
    hitched = passes.hitched if rig.towing else solo
    work = _Builder()
    work.vehicle("hitched", "front axle + rear axle", hitched)
    work.vehicle("solo", "front axle + rear axle, vehicle only", solo)
    if empty is not None:
        work.put(_renamed(empty.vehicle, "curb_measured"))
    candidates: list[Candidate] = []
    chosen: Candidate | None = None
    if rig.towing:
        _before_the_tongue(work, passes)
        candidates, off_height = _tongue_candidates(work.figures, rig, weigh_in, passes)
        chosen = _choose(candidates) or _choose(off_height)
        if chosen is not None:
            work.put(_renamed(chosen.figure, "tongue_static"))
        _after_the_tongue(work, rig, passes)
    return Weighing(
        work.figures,
        tuple(candidates),
        chosen.source if chosen else None,
        hitched,
        engaged,
        slack,
        solo,
        empty,
        alone,
        off_height=chosen is not None and chosen not in candidates,
    )


@dataclass(frozen=True, slots=True)
class _Passes:
    """The passes that tell of a rig that tows."""

    engaged: PassLoads | None
    slack: PassLoads | None
    solo: PassLoads | None
    alone: PassLoads | None

    @property
    def hitched(self) -> PassLoads | None:
        """As for the road, where that was driven."""
        return self.engaged or self.slack


def _before_the_tongue(work: _Builder, passes: _Passes) -> None:
    """Everything that the passes give without the tongue weight: totals, also by difference."""
    hitched = passes.hitched
    if hitched is not None:
        work.put(_renamed(hitched.trailer, "trailer_axles"))
    work.sum(
        "combination_gross",
        "all platforms added",
        ("", "vehicle_hitched", "vehicle, hitched"),
        ("+", "trailer_axles", "trailer axles"),
        note="What rests on the hitch is inside the vehicle's figure; it is counted once.",
    )
    if "combination_gross" not in work.figures and hitched is not None:
        work.put(_renamed(hitched.gross, "combination_gross"))
    if passes.alone is not None:
        work.put(_renamed(passes.alone.trailer, "trailer_gross"))
    if "vehicle_solo" not in work.figures:
        work.sum(
            "vehicle_solo",
            "everything hitched − trailer alone",
            ("", "combination_gross", "everything, hitched"),
            ("−", "trailer_gross", "trailer alone"),
        )
    if "combination_gross" not in work.figures:
        work.sum(
            "combination_gross",
            "vehicle alone + trailer alone",
            ("", "vehicle_solo", "vehicle only"),
            ("+", "trailer_gross", "trailer alone"),
        )
    work.sum(
        "tongue_net",
        "vehicle hitched − vehicle only",
        ("", "vehicle_hitched", "vehicle, hitched"),
        ("−", "vehicle_solo", "vehicle only"),
    )
    for axle in ("front", "rear"):
        work.sum(
            f"{axle}_transfer",
            f"{axle} axle hitched − {axle} axle alone",
            ("", f"{axle}_hitched", f"{axle} axle, hitched"),
            ("−", f"{axle}_solo", f"{axle} axle, vehicle only"),
        )


def _after_the_tongue(work: _Builder, rig: RigFile, passes: _Passes) -> None:
    """What the tongue weight adds: the trailer in total, its share, sums over passes."""
    figures, slack = work.figures, passes.slack
    if "trailer_gross" not in figures:
        work.sum(
            "trailer_gross",
            "everything hitched − vehicle only",
            ("", "combination_gross", "everything, hitched"),
            ("−", "vehicle_solo", "vehicle only"),
            note="Not the trailer platform alone, which leaves out what rests on the hitch, "
            "which the vehicle carries.",
        )
    if "trailer_gross" not in figures and slack and slack.trailer and "tongue_static" in figures:
        terms = [
            Term("", _with_bars(rig, "trailer axles"), slack.trailer.amount),
            figures["tongue_static"].term("+", "tongue weight"),
        ]
        work.put(total("trailer_gross", "trailer axles + tongue weight", terms))
    hitched = passes.hitched
    bars_in_play = hitched is passes.engaged if hitched else rig.hitch.weight_distribution
    if not bars_in_play and "vehicle_hitched" not in figures:
        work.sum(
            "vehicle_hitched",
            "vehicle alone + tongue weight",
            ("", "vehicle_solo", "vehicle only"),
            ("+", "tongue_static", "tongue weight"),
        )
    if not bars_in_play and "trailer_axles" not in figures:
        work.sum(
            "trailer_axles",
            "trailer in total − tongue weight",
            ("", "trailer_gross", "trailer in total"),
            ("−", "tongue_static", "tongue weight"),
        )
    tongue, gross = figures.get("tongue_static"), figures.get("trailer_gross")
    if tongue and gross and gross.value:
        work.put(
            Figure(
                "tongue_share",
                ratio(tongue.amount, gross.amount),
                "tongue weight ÷ trailer in total",
                (tongue.term("", "tongue weight"), gross.term("÷", "trailer in total")),
                "share",
            )
        )
    if passes.engaged and slack:
        _bar_figures(work, passes.engaged, slack)


def _with_bars(rig: RigFile, words: str) -> str:
    return f"{words}, bars slack" if rig.hitch.weight_distribution else words


HEIGHT_OFF = 0.0254
"""A tongue measured this much above or below towing height says nothing about towing height. [m]"""


def _at_towing_height(measured: TongueMeasurement) -> bool:
    height, towing = measured.height, measured.towing_height
    if height is None or towing is None:
        return True
    return abs(height.m - towing.m) <= HEIGHT_OFF * (1 + SAME)


def _tongue_candidates(
    figures: Mapping[str, Figure], rig: RigFile, weigh_in: WeighIn, passes: _Passes
) -> tuple[list[Candidate], list[Candidate]]:
    """Every way to the tongue weight, and the measurements that were made at another height."""
    candidates: list[Candidate] = []
    off_height: list[Candidate] = []
    slack, solo, alone = passes.slack, passes.solo, passes.alone
    if slack and slack.vehicle and solo and "vehicle_solo" in figures:
        terms = [
            Term("", _with_bars(rig, "vehicle, hitched"), slack.vehicle.amount),
            figures["vehicle_solo"].term("−", "vehicle only"),
        ]
        formula = "vehicle hitched − vehicle only"
        candidates.append(Candidate("passes", total("tongue:passes", formula, terms)))
    for number, measured in enumerate(weigh_in.tongue_measurements, 1):
        at_height = candidates if _at_towing_height(measured) else off_height
        at_height.append(Candidate("direct", measure_tongue(measured, f"tongue:direct:{number}")))
    if alone and alone.trailer and slack and slack.trailer:
        terms = [
            Term("", "trailer alone", alone.trailer.amount),
            Term("−", _with_bars(rig, "trailer axles, hitched"), slack.trailer.amount),
        ]
        formula = "trailer alone − trailer axles hitched"
        candidates.append(Candidate("trailer", total("tongue:trailer", formula, terms)))
    if passes.engaged and slack is None and solo:
        moments = _by_moments(figures, rig)
        if moments is not None:
            candidates.append(Candidate("moment", moments))
    return candidates, off_height


def _by_moments(figures: Mapping[str, Figure], rig: RigFile) -> Figure | None:
    """The tongue weight behind tensioned bars: moments bring back what they moved."""
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    net, front = figures.get("tongue_net"), figures.get("front_transfer")
    length = trailer.geometry.coupler_to_axles if trailer else None
    if not (net and front and geometry.wheelbase and geometry.hitch_offset and length):
        return None
    a, b = geometry.wheelbase.m, geometry.hitch_offset.m
    lines = (
        net.term("", "net load on the vehicle, bars engaged"),
        front.term("+", "front axle's change"),
        Term("×", "wheelbase", a, "length"),
        net.term("+", "net load"),
        Term("×", "hitch behind rear axle", b, "length"),
        Term("÷", "coupler to trailer axles", length.m, "length"),
    )
    return Figure(
        "tongue:moment",
        statics.tongue_by_moments(net.amount, front.amount, b, a, length.m),
        "net + (wheelbase × front change + overhang × net) ÷ coupler to axles",
        lines,
        remarks=(
            "The bars moved part of the load on the hitch onto the trailer's axles; "
            "moments bring it back.",
        ),
    )


def _choose(candidates: list[Candidate]) -> Candidate | None:
    best: Candidate | None = None
    for candidate in sorted(candidates, key=lambda candidate: _ORDER.index(candidate.source)):
        if best is None or plus_minus(candidate.figure.amount) < plus_minus(best.figure.amount) * (
            1 - SAME
        ):
            best = candidate
    return best


def _bar_figures(work: _Builder, engaged: PassLoads, slack: PassLoads) -> None:
    if engaged.front and slack.front:
        restored = total(
            "front_restored",
            "front axle, bars engaged − bars slack",
            [
                Term("", "front axle, bars engaged", engaged.front.amount),
                Term("−", "front axle, bars slack", slack.front.amount),
            ],
        )
        work.put(restored)
        solo = work.figures.get("front_solo")
        lost = combine([(1.0, solo.amount), (-1.0, slack.front.amount)]) if solo else None
        if solo and lost is not None and abs(nominal(lost)) > SAME * abs(solo.value):
            work.put(
                Figure(
                    "front_restoration",
                    ratio(restored.amount, lost),
                    "what the bars gave back ÷ what the front axle lost",
                    (
                        restored.term("", "restored by the bars"),
                        Term("÷", "lost by the front axle", lost),
                    ),
                    "share",
                )
            )
    if engaged.trailer and slack.trailer:
        work.put(
            total(
                "trailer_transfer",
                "trailer axles, bars engaged − bars slack",
                [
                    Term("", "trailer axles, bars engaged", engaged.trailer.amount),
                    Term("−", "trailer axles, bars slack", slack.trailer.amount),
                ],
            )
        )
