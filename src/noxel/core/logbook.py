"""The log: every weigh-in in a line, what changed beyond the scale's ±, and two to four of them compared."""

import datetime
import math
from collections.abc import Sequence

from noxel.core.adjust import KeptAnswer, kept_answers
from noxel.core.answers import Answer
from noxel.core.checks import Verdict, run_checks, tightest_first, verdict
from noxel.core.ratings import limits
from noxel.core.rigfile import RigFile
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


class Point(Answer):
    """One figure of one weigh-in."""

    weigh_in: int
    value: float
    plus_minus: float


class Series(Answer):
    """One load over all weigh-ins, against its rating."""

    key: str
    label: str
    limit: float | None
    points: list[Point]


class LogLine(Answer):
    """One weigh-in in a line."""

    number: int
    date: datetime.date | None
    place: str
    note: str
    verdict: Verdict
    sentence: str
    totals: dict[str, float]
    changed: list[str]


class Log(Answer):
    """Every weigh-in, the last first, every load over time, and the plans that were kept, held against what came."""

    entries: list[LogLine]
    series: list[Series]
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


def _title(weigh_in: WeighIn, number: int) -> str:
    when = weigh_in.date.isoformat() if weigh_in.date else f"no. {number}"
    return f"{when}{f', {weigh_in.place}' if weigh_in.place else ''}"


def _changed(rig: RigFile, before: Weighing | None, now: Weighing) -> list[str]:
    if before is None:
        return []
    unit, found = rig.units.mass, []
    for key in LINES:
        old, new = before.figures.get(key), now.figures.get(key)
        if old is None or new is None:
            continue
        by, pm = new.value - old.value, math.hypot(old.plus_minus, new.plus_minus)
        if abs(by) > pm:
            found.append(f"{figure_title(rig, key)} {'+' if by > 0 else '−'}{print_mass(abs(by), unit)}")
    return found


def log_of(rig: RigFile) -> Log:
    """Every weigh-in of a rig in a line, and every load over time.

    Parameters
    ----------
    rig : RigFile
        Old weigh-ins are held against the ratings as they stand now.
    """
    factor, known = KG[rig.units.mass], limits(rig)
    entries: list[LogLine] = []
    series: dict[str, list[Point]] = {key: [] for key in LINES}
    before: Weighing | None = None
    for number, weigh_in in enumerate(rig.weigh_ins, 1):
        now = weigh(rig, weigh_in)
        rows = tightest_first(run_checks(rig, now))
        said = verdict(rows)
        for key, points in series.items():
            figure = now.figures.get(key)
            if figure is not None:
                points.append(Point(weigh_in=number, value=figure.value / factor, plus_minus=figure.plus_minus / factor))
        totals = {
            key: now.figures[key].value / factor
            for key in ("vehicle_hitched", "trailer_gross", "combination_gross")
            if key in now.figures
        }
        entries.append(LogLine(number=number, date=weigh_in.date, place=weigh_in.place or "", note=weigh_in.note or "", verdict=said,
                             sentence=headline(rig, rows, said).sentence, totals=totals, changed=_changed(rig, before, now)))  # fmt: skip
        before = now
    made = []
    for key, check in LINES.items():
        limit = known.get(check)
        if series[key]:
            made.append(
                Series(key=key, label=figure_title(rig, key), limit=limit.kg / factor if limit else None, points=series[key])
            )
    return Log(entries=entries[::-1], series=made, kept=kept_answers(rig))


def compare_weigh_ins(rig: RigFile, numbers: Sequence[int]) -> Comparison:
    """Two to four weigh-ins side by side: before and after a repack, hitch A and hitch B.

    Parameters
    ----------
    rig : RigFile
        The rig.
    numbers : sequence of int
        Which weigh-ins, from 1; differences are from the first named.

    Raises
    ------
    InputError
        If there are fewer than two, more than four, or one that is not there.
    """
    if not 2 <= len(set(numbers)) <= 4 or len(set(numbers)) != len(numbers):
        raise InputError("Choose two to four different weigh-ins.", [Problem("numbers", "two to four different ones", "count")])
    for number in numbers:
        if not 1 <= number <= len(rig.weigh_ins):
            raise InputError(
                f"There is no weigh-in {number}.", [Problem("numbers", f"there is no weigh-in {number}", "missing")]
            )
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
    return Comparison(titles=[_title(each, number) for each, number in zip(chosen, numbers, strict=True)], rows=rows,
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
