"""The log: every weigh-in in a line, what changed beyond the scale's ±, every load over time,
weigh-ins from elsewhere.
"""

import math
from bisect import bisect_right
from collections.abc import Mapping, Sequence
from itertools import accumulate
from typing import Any, NamedTuple

from noxel.core.limits import CHECKS, CheckId, Verdict, exceeds, judge, limits
from noxel.core.log.kept_plans import KeptAnswer
from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile, WeighIn, parse_rig
from noxel.core.wording import Answer, check_label, figure_title, headline_of

LINES: Mapping[str, CheckId] = {
    "front_hitched": "vehicle.front_axle",
    "rear_hitched": "vehicle.rear_axle",
    "vehicle_hitched": "vehicle.gross",
    "tongue_static": "hitch.tongue",
    "trailer_axles": "trailer.axles",
    "trailer_gross": "trailer.gross",
    "combination_gross": "combination.gross",
}
"""What the log follows, and the check whose limit stands beside it."""


class Rejudged(Answer):
    """What an earlier release said of the same figures, where this one says otherwise."""

    release: str
    verdict: Verdict
    sentence: str


class Remembered(Answer):
    """A weigh-in as the log speaks of it: when, where, what was noted, what came out."""

    date: str | None
    place: str
    note: str
    tags: list[str]
    decided: str
    aboard: list[str]
    verdict: Verdict
    sentence: str
    rejudged: Rejudged | None = None


class Facts(Remembered):
    """What the log keeps of one weigh-in: all that, and its figures with their ±. [kg, or a
    share]
    """

    figures: dict[str, tuple[float, float]]


class Recorded(NamedTuple):
    """The facts of a weigh-in under its number, and its identity where it is stored."""

    number: int
    facts: Facts
    key: str = ""


class LogLine(Remembered):
    """One weigh-in in a line; ``changed`` names what differs from the one before by more than the
    scales' ±.
    """

    number: int
    key: str
    totals: dict[str, float]
    changed: list[str]


class Series(Answer):
    """One load over the weigh-ins of a chart, against its rating; None where it was not known.
    ``over`` is above the rating.
    """

    key: str
    label: str
    limit: float | None
    values: list[float | None]
    plus_minus: list[float | None]
    over: list[bool]


class Chart(Answer):
    """Every load over some weigh-ins in a row, by their numbers, out of ``count``."""

    numbers: list[int]
    dates: list[str | None]
    series: list[Series]
    count: int


class Log(Answer):
    """A page of the log, the last first, out of ``count``; the plans that were kept, compared with
    what came.

    ``more`` is whether there are earlier ones.
    """

    entries: list[LogLine]
    more: bool
    count: int
    kept: list[KeptAnswer]


def words_of(weigh_in: dict[str, Any]) -> str:
    """Everything that a weigh-in can be found by, for comparing without regard to capitals.

    ``weigh_in``: as the rig file has it.
    """
    texts = [weigh_in.get(key) for key in ("date", "place", "note", "decided")] + list(
        weigh_in.get("tags", ())
    )
    for pass_ in weigh_in.get("passes", ()):
        texts += [pass_.get(key) for key in ("ticket_number", "aboard", "note")]
    return "\n".join(str(text).casefold() for text in texts if text)


def facts_of(rig: RigFile, number: int) -> Facts:
    """What the log keeps of a weigh-in, from 1, compared with the ratings as they stand now; with
    what came aboard since.
    """
    judged, weigh_in = judge(rig, number), rig.weigh_ins[number - 1]
    aboard = dict.fromkeys(pass_.aboard for pass_ in weigh_in.passes if pass_.aboard)
    figures = {
        key: (figure.value, figure.plus_minus)
        for key, figure in judged.weighing.figures.items()
        if key in LINES
    }
    for row in judged.rows:
        if row.spec.part == "axle" and row.actual:
            figures[row.id] = (row.actual.value, row.actual.plus_minus)
    listed = (
        {"vehicle": weigh_in.listed.vehicle, "trailer": weigh_in.listed.trailer}
        if weigh_in.listed
        else {}
    )
    on_lists = [
        f"{print_mass(mass.kg, rig.units.mass)} of listed items in the {on}"
        for on, mass in listed.items()
        if mass and mass.kg
    ]
    return Facts(
        date=weigh_in.date.isoformat() if weigh_in.date else None,
        place=weigh_in.place or "",
        note=weigh_in.note or "",
        tags=list(weigh_in.tags),
        decided=weigh_in.decided or "",
        aboard=[*aboard, *on_lists],
        verdict=judged.verdict,
        sentence=headline_of(rig, judged).sentence,
        figures=figures,
    )


def _changed(rig: RigFile, before: Facts | None, now: Facts) -> list[str]:
    if before is None:
        return []
    matches = []
    for key in LINES:
        old, new = before.figures.get(key), now.figures.get(key)
        if old is None or new is None:
            continue
        by, pm = new[0] - old[0], math.hypot(old[1], new[1])
        if abs(by) > pm:
            matches.append(
                f"{figure_title(rig, key)} "
                f"{'+' if by > 0 else '−'}{print_mass(abs(by), rig.units.mass)}"
            )
    return matches


def line_of(rig: RigFile, recorded: Recorded, before: Facts | None) -> LogLine:
    """A weigh-in in a line, beside the one before it in the log."""
    factor, facts = KG[rig.units.mass], recorded.facts
    totals = {
        key: facts.figures[key][0] / factor
        for key in ("vehicle_hitched", "trailer_gross", "combination_gross")
        if key in facts.figures
    }
    return LogLine(
        number=recorded.number,
        key=recorded.key,
        totals=totals,
        changed=_changed(rig, before, facts),
        **{key: getattr(facts, key) for key in Remembered.model_fields},
    )


def chart_of(rig: RigFile, run: Sequence[Recorded], count: int) -> Chart:
    """Every load over some weigh-ins in a row, against the ratings as they stand now."""
    factor, known = KG[rig.units.mass], limits(rig)
    series = []
    single: dict[str, CheckId] = {check: check for check, spec in CHECKS.items() if spec.axle}
    for key, check in [*LINES.items(), *single.items()]:
        figures = [recorded.facts.figures.get(key) for recorded in run]
        if any(figures):
            limit = known.get(check)
            series.append(
                Series(
                    key=key,
                    label=check_label(rig, check) if key == check else figure_title(rig, key),
                    limit=limit.kg / factor if limit else None,
                    values=[None if figure is None else figure[0] / factor for figure in figures],
                    plus_minus=[
                        None if figure is None else figure[1] / factor for figure in figures
                    ],
                    over=[
                        bool(figure and limit and exceeds(figure[0], limit.kg))
                        for figure in figures
                    ],
                )
            )
    return Chart(
        numbers=[recorded.number for recorded in run],
        dates=[recorded.facts.date for recorded in run],
        series=series,
        count=count,
    )


def _signature(weigh_in: WeighIn) -> object:
    """What makes two weigh-ins the same: day, place, and every reading to a gram."""
    passes = [
        (
            pass_.config,
            pass_.spring_bars or "none",
            sorted((name, round(mass.kg, 3)) for name, mass in pass_.readings.items()),
        )
        for pass_ in weigh_in.passes
    ]
    return (weigh_in.date, weigh_in.place or "", str(passes))


def _days(weigh_ins: Sequence[dict[str, Any]]) -> list[str]:
    """The day of each; a weigh-in without one stays behind the one before it."""
    days, last = [], ""
    for weigh_in in weigh_ins:
        last = weigh_in.get("date") or last
        days.append(last)
    return days


def merge_weigh_ins(
    document: dict[str, Any], fresh: Sequence[dict[str, Any]]
) -> tuple[dict[str, Any], int]:
    """A rig with weigh-ins from elsewhere among its own, in the order of their days; those that are
    there already stay out.

    ``document``: the rig with its whole log; it is not changed. ``fresh``: weigh-ins as the rig
    file has them.

    Returns the rig, and how many were there already.

    Raises RigFileError if one of them cannot be this rig's; paths count the fresh ones from 0.
    """
    own = list(document.get("weigh_ins", []))
    known = {_signature(weigh_in) for weigh_in in parse_rig(document).weigh_ins}
    parsed = parse_rig({**document, "weigh_ins": list(fresh)}).weigh_ins
    new = []
    for weigh_in, raw in zip(parsed, fresh, strict=True):
        if _signature(weigh_in) not in known:
            known.add(_signature(weigh_in))
            new.append(raw)
    together, days = list(own), list(accumulate(_days(own), max))
    dated = [(day or "9999", raw) for day, raw in zip(_days(new), new, strict=True)]
    for day, raw in sorted(dated, key=lambda pair: pair[0]):  # its own keep their order
        place = bisect_right(days, day)
        days.insert(place, day)
        together.insert(place, raw)
    return ({**document, "weigh_ins": together} if together else document), len(fresh) - len(new)
