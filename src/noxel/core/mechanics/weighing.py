"""From passes over a scale to the loads on every axle, with their uncertainty.

Loads derived from several readings share them; `uncertainties` carries the correlations. What one
pass gives is in :mod:`noxel.core.mechanics.pass_loads`.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.mechanics import statics
from noxel.core.mechanics.added_since import AddedLoads, added_loads
from noxel.core.mechanics.pass_loads import SAME, PassLoads, gain_of, read_pass
from noxel.core.mechanics.tongue_methods import measure_tongue
from noxel.core.quantities import Amount, Figure, Term, combine, nominal, plus_minus, ratio, total
from noxel.core.rig import RigFile, WeighIn, on_its_wheels

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
            made = [self.figures[of].term(op, label) for op, of, label in terms]
            self.put(total(key, formula, made, [note] if note else ()))

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


def weigh(rig: RigFile, weigh_in: WeighIn | None, *, with_added: bool = False) -> Weighing:
    """Work out everything a weigh-in lets us know (rig-file format, ``derived``).

    Parameters
    ----------
    rig : RigFile
        The rig; its hitch and geometry are used, not its ratings.
    weigh_in : WeighIn or None
        The visit to the scale; None when there was none.
    with_added : bool
        Whether to add what was added since: estimates then, not weights; known by axle at the best,
        never by wheel.

    Returns
    -------
    Weighing
        Each figure that can be known, in kilograms and shares; absent ones cannot.
    """
    if weigh_in is None:
        return Weighing()
    added = added_loads(rig, weigh_in) if with_added else None
    gain = gain_of(weigh_in)
    engaged, slack, solo, alone = (
        read_pass(rig, weigh_in, each, gain, added)
        for each in (
            weigh_in.last("hitched", engaged=True),
            weigh_in.last("hitched", engaged=False),
            weigh_in.last("vehicle_only"),
            weigh_in.last("trailer_only"),
        )
    )
    empty = read_pass(rig, weigh_in, weigh_in.last("vehicle_empty"), gain)
    hitched = (engaged or slack) if rig.towing else solo
    work = _Builder()
    work.vehicle("hitched", "front axle + rear axle", hitched)
    work.vehicle("solo", "front axle + rear axle, vehicle only", solo)
    if empty is not None:
        work.put(_renamed(empty.vehicle, "curb_measured"))
    candidates: list[Candidate] = []
    if rig.towing:
        candidates = _tow(work, rig, weigh_in, engaged, slack, hitched, alone, added)
    chosen = _choose(candidates)
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
    )


def _tow(
    work: _Builder,
    rig: RigFile,
    weigh_in: WeighIn,
    engaged: PassLoads | None,
    slack: PassLoads | None,
    hitched: PassLoads | None,
    alone: PassLoads | None,
    added: AddedLoads | None,
) -> list[Candidate]:
    figures = work.figures
    if hitched is not None:
        work.put(_renamed(hitched.trailer, "trailer_axles"))
    work.sum(
        "combination_gross",
        "all platforms added",
        ("", "vehicle_hitched", "vehicle, hitched"),
        ("+", "trailer_axles", "trailer axles"),
        note="What rests on the hitch is inside the vehicle's figure; it is counted once.",
    )
    if "combination_gross" not in figures and hitched is not None:
        work.put(_renamed(hitched.gross, "combination_gross"))
    work.sum(
        "tongue_net",
        "vehicle hitched − vehicle only",
        ("", "vehicle_hitched", "vehicle, hitched"),
        ("−", "vehicle_solo", "vehicle only"),
    )
    work.sum(
        "front_transfer",
        "front axle hitched − front axle alone",
        ("", "front_hitched", "front axle, hitched"),
        ("−", "front_solo", "front axle, vehicle only"),
    )
    work.sum(
        "rear_transfer",
        "rear axle hitched − rear axle alone",
        ("", "rear_hitched", "rear axle, hitched"),
        ("−", "rear_solo", "rear axle, vehicle only"),
    )
    candidates = _tongue_candidates(figures, rig, weigh_in, engaged, slack, alone, added)
    chosen = _choose(candidates)
    if chosen is not None:
        work.put(_renamed(chosen.figure, "tongue_static"))
    _trailer_gross(work, rig, slack, alone)
    if on_its_wheels(rig) and "trailer_axles" in figures:
        work.put(_renamed(figures["trailer_axles"], "trailer_gross"))
    tongue, gross = figures.get("tongue_static"), figures.get("trailer_gross")
    if tongue and gross and gross.value > 0:
        work.put(
            Figure(
                "tongue_share",
                ratio(tongue.amount, gross.amount),
                "tongue weight ÷ trailer in total",
                (tongue.term("", "tongue weight"), gross.term("÷", "trailer in total")),
                "share",
            )
        )
    if engaged and slack:
        _bar_figures(work, engaged, slack)
    return candidates


def _trailer_gross(
    work: _Builder, rig: RigFile, slack: PassLoads | None, alone: PassLoads | None
) -> None:
    if alone is not None and alone.trailer is not None:
        work.put(_renamed(alone.trailer, "trailer_gross"))
        return
    work.sum(
        "trailer_gross",
        "everything hitched − vehicle only",
        ("", "combination_gross", "everything, hitched"),
        ("−", "vehicle_solo", "vehicle only"),
        note="Not the trailer platform alone, which leaves out what rests on the hitch, "
        "which the vehicle carries.",
    )
    if (
        "trailer_gross" not in work.figures
        and slack
        and slack.trailer
        and "tongue_static" in work.figures
    ):
        work.put(
            total(
                "trailer_gross",
                "trailer axles + tongue weight",
                [
                    Term(
                        "",
                        "trailer axles, bars slack"
                        if rig.hitch.weight_distribution
                        else "trailer axles",
                        slack.trailer.amount,
                    ),
                    work.figures["tongue_static"].term("+", "tongue weight"),
                ],
            )
        )


def _tongue_candidates(
    figures: Mapping[str, Figure],
    rig: RigFile,
    weigh_in: WeighIn,
    engaged: PassLoads | None,
    slack: PassLoads | None,
    alone: PassLoads | None,
    added: AddedLoads | None,
) -> list[Candidate]:
    found: list[Candidate] = []
    if slack and slack.vehicle and "vehicle_solo" in figures:
        terms = [
            Term(
                "",
                "vehicle, hitched, bars slack"
                if rig.hitch.weight_distribution
                else "vehicle, hitched",
                slack.vehicle.amount,
            ),
            figures["vehicle_solo"].term("−", "vehicle only"),
        ]
        found.append(
            Candidate("passes", total("tongue:passes", "vehicle hitched − vehicle only", terms))
        )
    for number, measured in enumerate(weigh_in.tongue_measurements, 1):
        figure = measure_tongue(measured, f"tongue:direct:{number}")
        if added is not None:
            figure = total(
                figure.key,
                "as measured, and what was added since",
                [
                    figure.term("", "as measured"),
                    Term("+", "was added since, estimated", added.tongue),
                ],
            )
        found.append(Candidate("direct", figure))
    if alone and alone.trailer and slack and engaged is None and "trailer_axles" in figures:
        terms = [
            Term("", "trailer alone", alone.trailer.amount),
            figures["trailer_axles"].term("−", "trailer axles, hitched"),
        ]
        found.append(
            Candidate(
                "trailer", total("tongue:trailer", "trailer alone − trailer axles hitched", terms)
            )
        )
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    if (
        engaged
        and slack is None
        and "tongue_net" in figures
        and "front_transfer" in figures
        and trailer
        and geometry.wheelbase
        and geometry.hitch_offset
        and trailer.geometry.coupler_to_axles
    ):
        a, b, length = (
            geometry.wheelbase.m,
            geometry.hitch_offset.m,
            trailer.geometry.coupler_to_axles.m,
        )
        net, front = figures["tongue_net"], figures["front_transfer"]
        amount = statics.tongue_by_moments(net.amount, front.amount, b, a, length)
        lines = (
            net.term("", "net load on the vehicle, bars engaged"),
            front.term("+", "front axle's change"),
            Term("×", "wheelbase", a, "length"),
            net.term("+", "net load"),
            Term("×", "hitch behind rear axle", b, "length"),
            Term("÷", "coupler to trailer axles", length, "length"),
        )
        found.append(
            Candidate(
                "moment",
                Figure(
                    "tongue:moment",
                    amount,
                    "net + (wheelbase × front change + overhang × net) ÷ coupler to axles",
                    lines,
                    remarks=(
                        "The bars moved part of the load on the hitch onto the trailer's axles; "
                        "moments bring it back.",
                    ),
                ),
            )
        )
    return found


def _choose(candidates: list[Candidate]) -> Candidate | None:
    best: Candidate | None = None
    for candidate in sorted(candidates, key=lambda each: _ORDER.index(each.source)):
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
