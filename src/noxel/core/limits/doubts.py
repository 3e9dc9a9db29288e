"""Doubts: what cannot both be true. No verdict says within over one that the owner has not
accepted.
"""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits.checks import exceeds
from noxel.core.mechanics import PassLoads, Weighing, empty_by_label, reading_words
from noxel.core.quantities import Figure, combine, nominal, plus_minus
from noxel.core.rig import RigFile, WeighIn

DoubtCode = Literal[
    "bars_do_the_reverse",
    "gvwr_against_axle_ratings",
    "negative_load",
    "passes_do_not_close",
    "ticket_total_differs",
    "tongue_sources_disagree",
    "trailer_far_below_gvwr",
    "trailer_gvwr_against_axle_ratings",
    "trailer_lighter_than_dry",
    "trailer_totals_disagree",
    "vehicle_far_above_gvwr",
    "vehicle_far_below_gvwr",
    "vehicle_lighter_than_empty",
]

LIGHTER = 0.97
"""A loaded vehicle or trailer below this share of its empty weight cannot be right."""
FAR_BELOW = 0.5
"""A vehicle below this share of its GVWR: kilograms typed as pounds, or a digit lost."""
FAR_ABOVE = 1.5
"""A vehicle above this share of its GVWR: pounds typed as kilograms, or a digit too many."""
TRAILER_FAR_BELOW = 0.55
"""A trailer below this share of its GVWR: a label in the other unit, or a digit too many."""
GVWR_SPAN, TRAILER_SPAN = (0.6, 1.1), (0.6, 1.5)
"""Where a GVWR lies against the sum of the axle ratings."""
FAR_LIGHTER = 0.8
"""Below this share of its empty weight no owner's word can answer for a vehicle."""
APART = 1.5
"""Two figures this many times their ± apart cannot both be right."""


@dataclass(frozen=True, slots=True)
class Doubt:
    """Two figures that cannot both be true [kg], the field to read again, and what the sentence
    needs to name them.

    ``number`` is the pass concerned, from 1, where it is one pass; ``plus_minus`` that of the two
    figures' difference.
    """

    code: DoubtCode
    path: str
    figure: float
    other: float
    plus_minus: float = 0.0
    number: int | None = None
    names: tuple[str, str] = ("", "")


def _vehicle(rig: RigFile, weighing: Weighing, prefix: str) -> Iterator[Doubt]:
    vehicle = weighing.figures.get("vehicle_solo") or weighing.figures.get("vehicle_hitched")
    alone = "vehicle_solo" in weighing.figures
    loads = (weighing.solo if alone else None) or weighing.hitched or weighing.solo
    if vehicle is None or loads is None:
        return
    ratings, curb = rig.vehicle.ratings, rig.vehicle.curb_weight
    path = f"{prefix}.passes[{loads.number - 1}].unit"
    empty = empty_by_label(rig)
    if empty is not None and exceeds(LIGHTER * empty.value, vehicle.value):
        yield Doubt(
            "vehicle_lighter_than_empty",
            path,
            vehicle.value,
            empty.value,
            number=loads.number,
            names=("", "curb weight" if curb else "empty weight by its labels"),
        )
    if ratings.gvwr and exceeds(FAR_BELOW * ratings.gvwr.kg, vehicle.value):
        yield Doubt(
            "vehicle_far_below_gvwr", path, vehicle.value, ratings.gvwr.kg, number=loads.number
        )
    if ratings.gvwr and exceeds(vehicle.value, FAR_ABOVE * ratings.gvwr.kg):
        yield Doubt(
            "vehicle_far_above_gvwr", path, vehicle.value, ratings.gvwr.kg, number=loads.number
        )


_LOADS = {
    "front_hitched": "front",
    "front_solo": "front",
    "rear_hitched": "rear",
    "rear_solo": "rear",
    "vehicle_hitched": "vehicle",
    "vehicle_solo": "vehicle",
    "trailer_axles": "trailer",
    "trailer_gross": "trailer",
    "tongue_static": "trailer",
}
"""Loads, and the reading that is read again where one is below nothing."""


def _negative(weighing: Weighing, path: str) -> Iterator[Doubt]:
    for key in _LOADS:
        figure = weighing.figures.get(key)
        if figure is not None and figure.value + figure.plus_minus < 0:
            yield Doubt(
                "negative_load", path, figure.value, 0.0, figure.plus_minus, names=(key, "")
            )
            return


def _bars(weighing: Weighing, prefix: str) -> Iterator[Doubt]:
    """Bars that take from the front axle, or from the trailer's: the two passes are swapped."""
    for key in ("front_restored", "trailer_transfer"):
        figure = weighing.figures.get(key)
        if figure is not None and figure.value + figure.plus_minus < 0 and weighing.slack:
            path = f"{prefix}.passes[{weighing.slack.number - 1}].spring_bars"
            yield Doubt(
                "bars_do_the_reverse",
                path,
                figure.value,
                0.0,
                figure.plus_minus,
                weighing.slack.number,
                (key, ""),
            )
            return


def _trailer(rig: RigFile, weighing: Weighing, prefix: str) -> Iterator[Doubt]:
    figures, dry = weighing.figures, rig.trailer.dry_weight if rig.trailer else None
    gross = figures.get("trailer_gross")
    if gross and dry and exceeds(LIGHTER * dry.kg, gross.value):
        yield Doubt("trailer_lighter_than_dry", "trailer.dry_weight", gross.value, dry.kg)
    rated = rig.trailer.ratings.gvwr if rig.trailer else None
    if gross and rated and exceeds(TRAILER_FAR_BELOW * rated.kg, gross.value):
        yield Doubt("trailer_far_below_gvwr", "trailer.ratings.gvwr", gross.value, rated.kg)
    alone = weighing.trailer_only.trailer if weighing.trailer_only else None
    hitched, alone_too = weighing.hitched, weighing.solo
    combination = hitched.gross if hitched else None
    solo = alone_too.vehicle if alone_too else None
    if alone and combination and solo and weighing.trailer_only:
        apart = combine([(1.0, alone.amount), (-1.0, combination.amount), (1.0, solo.amount)])
        if exceeds(abs(nominal(apart)), APART * plus_minus(apart)):
            path = f"{prefix}.passes[{weighing.trailer_only.number - 1}]"
            yield Doubt(
                "trailer_totals_disagree",
                path,
                alone.value,
                combination.value - solo.value,
                plus_minus(apart),
            )


def _labels(rig: RigFile) -> Iterator[Doubt]:
    ratings = rig.vehicle.ratings
    if ratings.gvwr and ratings.gawr_front and ratings.gawr_rear:
        axles = ratings.gawr_front.kg + (ratings.rear_axles or 0.0)
        if exceeds(GVWR_SPAN[0] * axles, ratings.gvwr.kg) or exceeds(
            ratings.gvwr.kg, GVWR_SPAN[1] * axles
        ):
            yield Doubt("gvwr_against_axle_ratings", "vehicle.ratings.gvwr", ratings.gvwr.kg, axles)
    rated = rig.trailer.ratings if rig.trailer else None
    if rated and rated.gvwr and rated.gawr:
        axles = sum(gawr.kg for gawr in rated.gawr)
        if exceeds(TRAILER_SPAN[0] * axles, rated.gvwr.kg) or exceeds(
            rated.gvwr.kg, TRAILER_SPAN[1] * axles
        ):
            yield Doubt(
                "trailer_gvwr_against_axle_ratings", "trailer.ratings.gvwr", rated.gvwr.kg, axles
            )


def _tongue(weighing: Weighing, path: str) -> Iterator[Doubt]:
    for candidate, other in itertools.combinations(weighing.candidates, 2):
        allowed = APART * (candidate.figure.plus_minus**2 + other.figure.plus_minus**2) ** 0.5
        if exceeds(abs(candidate.figure.value - other.figure.value), allowed):
            yield Doubt(
                "tongue_sources_disagree",
                path,
                candidate.figure.value,
                other.figure.value,
                allowed / APART,
                names=(candidate.figure.key, other.figure.key),
            )
            return


def _closure(engaged: PassLoads | None, slack: PassLoads | None, path: str) -> Iterator[Doubt]:
    totals: list[Figure] = [
        loads.gross for loads in (engaged, slack) if loads is not None and loads.gross is not None
    ]
    if len(totals) < 2 or slack is None:
        return
    apart = combine([(1.0, totals[0].amount), (-1.0, totals[1].amount)])
    if exceeds(abs(nominal(apart)), APART * plus_minus(apart)):
        yield Doubt(
            "passes_do_not_close",
            f"{path}.passes[{slack.number - 1}]",
            totals[0].value,
            totals[1].value,
            plus_minus(apart),
        )


def _as_read(loads: PassLoads) -> float | None:
    """The pass's total as read, before corrections; None while a reading is still to come. [kg]"""
    if loads.gross is None:
        return None
    return loads.gross.value - sum(adjustment.mass.kg for adjustment in loads.each.adjustments)


def _tickets(weighing: Weighing, weigh_in: WeighIn, path: str) -> Iterator[Doubt]:
    passes = (
        weighing.engaged,
        weighing.slack,
        weighing.solo,
        weighing.empty,
        weighing.trailer_only,
    )
    for loads in sorted(
        (loads_there for loads_there in passes if loads_there),
        key=lambda taken_pass: taken_pass.number,
    ):
        printed, read = loads.each.printed_gross, _as_read(loads)
        if printed is None or read is None:
            continue
        scale = loads.each.scale or weigh_in.scale
        step = scale.resolution.kg if scale else 0.0
        allowed = step / 2 * (len(loads.each.readings) + 1)
        if exceeds(abs(printed.kg - read), allowed * (1 + 1e-9)):
            names = tuple(reading_words(name) for name in loads.each.readings)
            yield Doubt(
                "ticket_total_differs",
                f"{path}.passes[{loads.number - 1}].printed_gross",
                printed.kg,
                read,
                allowed,
                loads.number,
                (", ".join(names), ""),
            )


def doubts(rig: RigFile, number: int | None, weighing: Weighing) -> list[Doubt]:
    """Everything about a weigh-in and its rig that cannot be true together, one of each code.

    Parameters
    ----------
    rig : RigFile
        Its labels.
    number : int or None
        Which weigh-in, from 1; None where there is none.
    weighing : Weighing
        What it lets us know.

    Returns
    -------
    list of Doubt
        In order of their codes.
    """
    doubted = list(_labels(rig))
    if number is not None:
        path, weigh_in = f"weigh_ins[{number - 1}]", rig.weigh_ins[number - 1]
        doubted += [
            *_vehicle(rig, weighing, path),
            *_negative(weighing, path),
            *_bars(weighing, path),
            *_trailer(rig, weighing, path),
            *_tongue(weighing, path),
            *_closure(weighing.engaged, weighing.slack, path),
            *_tickets(weighing, weigh_in, path),
        ]
    first = {doubt.code: doubt for doubt in reversed(doubted)}
    return [first[code] for code in sorted(first)]


def unanswered(rig: RigFile, number: int | None, doubted: list[Doubt]) -> list[Doubt]:
    """The doubts that the owner has not accepted on the record of the weigh-in, or that nobody's
    word can answer.
    """
    accepted = (
        {accepted.code for accepted in rig.weigh_ins[number - 1].accepted}
        if number is not None
        else set()
    )
    codes = {doubt.code for doubt in doubted}
    return [
        doubt
        for doubt in doubted
        if doubt.code not in accepted or _beyond_accepting(rig, doubt, codes)
    ]


def _beyond_accepting(rig: RigFile, doubt: Doubt, codes: set[DoubtCode]) -> bool:
    if doubt.code == "vehicle_far_below_gvwr":
        return empty_by_label(rig) is None or "vehicle_lighter_than_empty" in codes
    if doubt.code == "vehicle_lighter_than_empty":
        return exceeds(FAR_LIGHTER * doubt.other, doubt.figure)
    return doubt.code == "negative_load"
