"""The log: every weigh-in in a line, what changed beyond the scale's ±, and two to four of them compared."""

import math
from collections.abc import Sequence
from typing import Any, NamedTuple

from noxel.core.adjust import KeptAnswer
from noxel.core.answers import Answer
from noxel.core.checks import Verdict, run_checks, tightest_first, verdict
from noxel.core.ratings import limits
from noxel.core.rigfile import RigFile, parse_rig
from noxel.core.tickets import WeighIn
from noxel.core.units import KG, print_mass
from noxel.core.weighing import Weighing, weigh
from noxel.core.words import figure_title, headline
from noxel.errors import InputError, Problem

LINES = {
    "front_hitched": "vehicle.front_axle", "rear_hitched": "vehicle.rear_axle", "vehicle_hitched": "vehicle.gross",
    "tongue_static": "hitch.tongue", "trailer_axles": "trailer.axles", "trailer_gross": "trailer.gross", "combination_gross": "combination.gross",
}  # fmt: skip
"""What the log follows, and the check whose limit stands beside it."""
_COMPARED = (*LINES, "front_solo", "rear_solo", "tongue_share", "front_restoration", "trailer_transfer")


class Facts(Answer):
    """What the log keeps of one weigh-in: what it was, what came out, and its figures with their ±. [kg, or a share]"""

    date: str | None
    place: str
    note: str
    tags: list[str]
    decided: str
    aboard: list[str]
    verdict: Verdict
    sentence: str
    figures: dict[str, tuple[float, float]]


class Recorded(NamedTuple):
    """The facts of a weigh-in under its number."""

    number: int
    facts: Facts


class LogLine(Answer):
    """One weigh-in in a line; ``changed`` names what differs from the one before by more than the scales' ±."""

    number: int
    date: str | None
    place: str
    note: str
    tags: list[str]
    decided: str
    aboard: list[str]
    verdict: Verdict
    sentence: str
    totals: dict[str, float]
    changed: list[str]


class Series(Answer):
    """One load over the weigh-ins of a chart, against its rating; None where it was not known."""

    key: str
    label: str
    limit: float | None
    values: list[float | None]
    plus_minus: list[float | None]


class Chart(Answer):
    """Every load over some weigh-ins in a row, by their numbers, out of ``count``."""

    numbers: list[int]
    dates: list[str | None]
    series: list[Series]
    count: int


class Log(Answer):
    """A page of the log, the last first, out of ``count``; the plans that were kept, held against what came.

    ``more`` is whether there are earlier ones.
    """

    entries: list[LogLine]
    more: bool
    count: int
    kept: list[KeptAnswer]


class ComparedRow(Answer):
    """One figure in each of the weigh-ins compared; differences are from the first, real ones beyond both ±."""

    key: str
    label: str
    values: list[float | None]
    plus_minus: list[float | None]
    differences: list[float | None]
    real: list[bool]
    share: bool


class Comparison(Answer):
    """Two to four weigh-ins side by side; ``warnings`` say where they are not like for like."""

    titles: list[str]
    rows: list[ComparedRow]
    says: list[str]
    warnings: list[str]


def words_of(weigh_in: dict[str, Any]) -> str:
    """Everything that a weigh-in can be found by, for comparing without regard to capitals.

    Parameters
    ----------
    weigh_in : dict
        As the rig file has it.
    """
    said = [weigh_in.get(key) for key in ("date", "place", "note", "decided")] + list(weigh_in.get("tags", ()))
    for each in weigh_in.get("passes", ()):
        said += [each.get(key) for key in ("ticket_number", "aboard", "note")]
    return "\n".join(str(each).casefold() for each in said if each)


def facts_of(rig: RigFile, weigh_in: WeighIn) -> Facts:
    """What the log keeps of a weigh-in, held against the ratings as they stand now."""
    weighing = weigh(rig, weigh_in)
    rows = tightest_first(run_checks(rig, weighing))
    said = verdict(rows)
    aboard = dict.fromkeys(each.aboard for each in weigh_in.passes if each.aboard)
    figures = {key: (figure.value, figure.plus_minus) for key, figure in weighing.figures.items() if key in _COMPARED}
    return Facts(date=weigh_in.date.isoformat() if weigh_in.date else None, place=weigh_in.place or "", note=weigh_in.note or "",
                 tags=list(weigh_in.tags), decided=weigh_in.decided or "", aboard=list(aboard), verdict=said,
                 sentence=headline(rig, rows, said).sentence, figures=figures)  # fmt: skip


def _title(weigh_in: WeighIn, number: int) -> str:
    when = weigh_in.date.isoformat() if weigh_in.date else f"no. {number}"
    return f"{when}{f', {weigh_in.place}' if weigh_in.place else ''}"


def _changed(rig: RigFile, before: Facts | None, now: Facts) -> list[str]:
    found = []
    for key in LINES if before else ():
        old, new = before.figures.get(key) if before else None, now.figures.get(key)
        if old is None or new is None:
            continue
        by, pm = new[0] - old[0], math.hypot(old[1], new[1])
        if abs(by) > pm:
            found.append(f"{figure_title(rig, key)} {'+' if by > 0 else '−'}{print_mass(abs(by), rig.units.mass)}")
    return found


def line_of(rig: RigFile, recorded: Recorded, before: Facts | None) -> LogLine:
    """A weigh-in in a line, beside the one before it in the log."""
    factor, facts = KG[rig.units.mass], recorded.facts
    totals = {
        key: facts.figures[key][0] / factor
        for key in ("vehicle_hitched", "trailer_gross", "combination_gross")
        if key in facts.figures
    }
    return LogLine(number=recorded.number, totals=totals, changed=_changed(rig, before, facts),
                   **{key: getattr(facts, key) for key in LogLine.model_fields if key in Facts.model_fields})  # fmt: skip


def chart_of(rig: RigFile, run: Sequence[Recorded], count: int) -> Chart:
    """Every load over some weigh-ins in a row, against the ratings as they stand now."""
    factor, known = KG[rig.units.mass], limits(rig)
    made = []
    for key, check in LINES.items():
        found = [each.facts.figures.get(key) for each in run]
        if any(found):
            limit = known.get(check)
            made.append(Series(key=key, label=figure_title(rig, key), limit=limit.kg / factor if limit else None,
                               values=[None if each is None else each[0] / factor for each in found],
                               plus_minus=[None if each is None else each[1] / factor for each in found]))  # fmt: skip
    return Chart(numbers=[each.number for each in run], dates=[each.facts.date for each in run], series=made, count=count)


def _signature(weigh_in: WeighIn) -> object:
    """What makes two weigh-ins the same: day, place, and every reading to a gram."""
    passes = [(each.config, each.spring_bars or "none", sorted((name, round(mass.kg, 3)) for name, mass in each.readings.items()))
              for each in weigh_in.passes]  # fmt: skip
    return (weigh_in.date, weigh_in.place or "", str(passes))


def brought_in(document: dict[str, Any], fresh: Sequence[dict[str, Any]]) -> tuple[dict[str, Any], int]:
    """A rig with weigh-ins from elsewhere among its own, in the order of their days; those that are there already stay out.

    Parameters
    ----------
    document : dict
        The rig with its whole log; it is not changed.
    fresh : sequence of dict
        Weigh-ins as the rig file has them.

    Returns
    -------
    tuple of dict and int
        The rig, and how many were there already.

    Raises
    ------
    RigFileError
        If one of them cannot be this rig's; paths count the fresh ones from 0.
    """
    own = list(document.get("weigh_ins", []))
    known = {_signature(each) for each in parse_rig(document).weigh_ins}
    parsed = parse_rig({**document, "weigh_ins": list(fresh)}).weigh_ins
    new = []
    for each, raw in zip(parsed, fresh, strict=True):
        if _signature(each) not in known:
            known.add(_signature(each))
            new.append(raw)
    together, last, order = [*own, *new], "", []
    for each in together:  # one without a day stays behind the one before it
        last = each.get("date") or last
        order.append(last)
    days = [each.get("date") or "" for each in own]
    if any((each.get("date") or "9999") < max(days, default="") for each in new):
        together = [each for _, each in sorted(zip(order, together, strict=True), key=lambda pair: pair[0])]
    return ({**document, "weigh_ins": together} if together else document), len(fresh) - len(new)


def compare_weigh_ins(rig: RigFile, numbers: Sequence[int], called: Sequence[int] | None = None) -> Comparison:
    """Two to four weigh-ins side by side: before and after a repack, hitch A and hitch B.

    Parameters
    ----------
    rig : RigFile
        The rig.
    numbers : sequence of int
        Which weigh-ins, from 1; differences are from the first named.
    called : sequence of int or None
        Their numbers in the whole log, where the rig holds only some of it.

    Raises
    ------
    InputError
        If there are fewer than two, more than four, or one that is not there.
    """
    if not 2 <= len(set(called or numbers)) <= 4 or len(set(called or numbers)) != len(numbers):
        raise InputError("Choose two to four different weigh-ins.", [Problem("numbers", "two to four different ones", "count")])
    for number, name in zip(numbers, called or numbers, strict=True):
        if not 1 <= number <= len(rig.weigh_ins):
            raise InputError(f"There is no weigh-in {name}.", [Problem("numbers", f"there is no weigh-in {name}", "missing")])
    chosen = [rig.weigh_ins[number - 1] for number in numbers]
    made = [weigh(rig, each) for each in chosen]
    rows = []
    for key in _COMPARED:
        figures = [each.figures.get(key) for each in made]
        if sum(figure is not None for figure in figures) < 2:
            continue
        share = key in ("tongue_share", "front_restoration")
        factor, first = 1.0 if share else KG[rig.units.mass], figures[0]
        differences = [None if figure is None or first is None else (figure.value - first.value) / factor for figure in figures]
        apart = [
            0.0 if figure is None or first is None else math.hypot(figure.plus_minus, first.plus_minus) / factor
            for figure in figures
        ]
        rows.append(ComparedRow(
            key=key, label=figure_title(rig, key), values=[None if figure is None else figure.value / factor for figure in figures],
            plus_minus=[None if figure is None else figure.plus_minus / factor for figure in figures], differences=differences,
            real=[by is not None and abs(by) > pm for by, pm in zip(differences, apart, strict=True)], share=share))  # fmt: skip
    return Comparison(titles=[_title(each, number) for each, number in zip(chosen, called or numbers, strict=True)], rows=rows,
                      says=_says(rig, rows), warnings=_warnings(rig, chosen, made))  # fmt: skip


def _says(rig: RigFile, rows: Sequence[ComparedRow]) -> list[str]:
    unit, factor = rig.units.mass, KG[rig.units.mass]
    real = [row for row in rows if not row.share and any(row.real[1:])]
    if not real:
        return ["No load changed by more than the scales can tell."]
    parts = []
    for row in real:
        last = row.differences[-1]
        if last is not None and row.real[-1]:
            parts.append(f"{row.label} {'+' if last > 0 else '−'}{print_mass(abs(last) * factor, unit)}")
    return [f"From the first to the last: {', '.join(parts)}."] if parts else ["What changed on the way is back where it was."]


def _warnings(rig: RigFile, chosen: Sequence[WeighIn], made: Sequence[Weighing]) -> list[str]:
    """Where weigh-ins are not like for like: scale, fuel, people, load."""
    found = []
    scales = {(each.scale.kind or "", round(each.scale.resolution.kg, 6)) for each in chosen if each.scale}
    if len(scales) > 1:
        found.append("Not the same scale, or not the same graduation: part of a difference may be the scales'.")
    for name, what in (("fuel", "Fuel"), ("aboard", "What was aboard")):
        notes = {next((getattr(each, name) for each in weigh_in.passes if getattr(each, name)), None) for weigh_in in chosen}
        if len(notes) > 1:
            found.append(f"{what} is noted differently: {'; '.join(sorted(note or 'not noted' for note in notes))}.")
    first = made[0].figures.get("vehicle_solo")
    for other in made[1:]:
        solo = other.figures.get("vehicle_solo")
        if first and solo and abs(solo.value - first.value) > math.hypot(solo.plus_minus, first.plus_minus):
            found.append(f"The vehicle alone differs by {print_mass(abs(solo.value - first.value), rig.units.mass)}: not the same load, so a hitch "
                         "cannot be judged from it.")  # fmt: skip
            break
    bars = {"engaged" if each.engaged else "slack" for each in made if each.hitched and rig.hitch.weight_distribution}
    if len(bars) > 1:
        found.append("The bars were not set alike in all of them.")
    return found
