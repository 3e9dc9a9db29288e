"""What every paper says, whatever it is printed on: the words, the table, the posts, the workings,
as plain texts and figures.
"""

import datetime
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from noxel.core.drawing import Outline
from noxel.core.evaluate import evaluate
from noxel.core.plates import contradictions
from noxel.core.quantities import Sort, round_half_up
from noxel.core.rig import RigFile
from noxel.core.wording import AT_THE_SCALE, Check, Evaluation, ExpectedCheck, Working

STATUS = {
    "over": "OVER",
    "low": "LOW",
    "high": "HIGH",
    "tight": "too close",
    "unconfirmed": "unconfirmed",
    "unknown": "not known",
    "within": "within",
}
OUTLOOK = {
    "over": "expected OVER",
    "over_at_rating": "over at its rating",
    "low": "expected LOW",
    "high": "expected HIGH",
    "within": "expected within",
    "open": "too close to say",
}
_POSTS = (
    "vehicle.front_axle",
    "vehicle.rear_axle",
    "hitch.tongue",
    "trailer.axles",
    "vehicle.gross",
    "trailer.gross",
    "combination.gross",
)


@dataclass(frozen=True, slots=True)
class Post:
    """A check's load in the frame of its limit; ``used`` is None where one of them is not known.

    ``expected`` is one that was not weighed: it is outlined, never filled.
    """

    check: str
    label: str
    says: str
    used: float | None
    expected: bool = False


@dataclass(frozen=True, slots=True)
class PaperRow:
    """A check in a line of texts; ``loud`` where something has to be done."""

    cells: tuple[str, ...]
    loud: bool


@dataclass(frozen=True, slots=True)
class Paper:
    """Everything that is printed, in the order it is read."""

    title: str
    about: str
    lead: str
    rest: tuple[str, ...]
    headings: tuple[str, ...]
    rows: tuple[PaperRow, ...]
    posts: tuple[Post, ...]
    outline: Outline
    towing: bool
    cautions: tuple[str, ...]
    workings: tuple[tuple[str, tuple[str, ...]], ...]
    beside: tuple[str, ...]


def mass(value: float | None) -> str:
    """A mass in whole units, a question mark where it is not known."""
    return "?" if value is None else f"{round_half_up(value):,}"


def _source(check: Check) -> str:
    """Whose rating it is, and where that was read."""
    where = check.limit_entry.source if check.limit_entry else None
    return ", ".join(
        text for text in (check.limit_label, where.replace("_", " ") if where else None) if text
    )


def _expected_row(check: Check, ahead: ExpectedCheck) -> PaperRow:
    """A check that was not made, with what is expected, in brackets."""
    loud, words = ahead.outlook in ("over", "low", "high"), OUTLOOK[ahead.outlook]
    if check.low is not None:
        pm, limit = (
            f"{ahead.plus_minus * 100:.1f}",
            f"{check.low * 100:g}–{(check.high or 0) * 100:g} %",
        )
        return PaperRow(
            (check.label, f"({ahead.actual * 100:.1f} %)", pm, limit, "", words, ""), loud
        )
    left = (
        ""
        if ahead.margin is None
        else f"({mass(abs(ahead.margin))} {'left' if ahead.margin >= 0 else 'OVER'})"
    )
    return PaperRow(
        (
            check.label,
            f"({mass(ahead.actual)})",
            mass(ahead.plus_minus),
            mass(check.limit),
            left,
            words,
            _source(check),
        ),
        loud,
    )


def _row(check: Check) -> PaperRow:
    if check.actual is None and check.at_least is None and check.expected is not None:
        return _expected_row(check, check.expected)
    loud = check.status in ("over", "low", "tight", "high")
    if check.low is not None:
        actual = "?" if check.actual is None else f"{check.actual * 100:.1f} %"
        pm = "" if check.plus_minus is None else f"{check.plus_minus * 100:.1f}"
        return PaperRow(
            (
                check.label,
                actual,
                pm,
                f"{check.low * 100:g}–{(check.high or 0) * 100:g} %",
                "",
                STATUS[check.status],
                "",
            ),
            loud,
        )
    left = (
        ""
        if check.margin is None
        else f"{mass(abs(check.margin))} {'left' if check.margin >= 0 else 'OVER'}"
    )
    pm = "" if check.plus_minus is None else mass(check.plus_minus)
    limit = "no rating" if check.limit is None else mass(check.limit)
    return PaperRow(
        (check.label, mass(check.actual), pm, limit, left, STATUS[check.status], _source(check)),
        loud,
    )


def _posts(checks: Sequence[Check]) -> Iterator[Post]:
    for check in (check for name in _POSTS for check in checks if check.id == name):
        load = check.actual if check.actual is not None else check.at_least
        ahead = load is None and check.expected is not None
        load = check.expected.actual if ahead and check.expected is not None else load
        used = load / check.limit if load is not None and check.limit else None
        yield Post(
            check.id,
            check.label,
            f"{'expect ' if ahead else ''}{mass(load)} of {mass(check.limit)}",
            used,
            expected=ahead,
        )


def _figure(value: float, sort: Sort) -> str:
    """A figure of a working: shares in percent, counts bare, the rest to a tenth; minus as a minus
    sign.
    """
    text = (
        f"{value * 100:.1f} %"
        if sort == "share"
        else f"{value:g}"
        if sort == "count"
        else f"{value:,.1f}"
    )
    return text.replace("-", "−")


def _working(working: Working, unit: str) -> tuple[str, tuple[str, ...]]:
    lines = []
    for line in working.lines:
        pm = f" ± {_figure(line.plus_minus, line.sort)}" if line.plus_minus else ""
        source = f" ({line.source})" if line.source else ""
        lines.append(
            f"{line.op} {line.label}: {_figure(line.value, line.sort)}{pm}{source}".strip()
        )
    pm = f" ± {_figure(working.plus_minus, working.sort)}" if working.plus_minus else ""
    value = (
        f"{_figure(working.value, working.sort)}{pm}{'' if working.sort == 'share' else f' {unit}'}"
    )
    return f"{working.title} = {value}: {working.formula}", tuple(lines)


def prepare(rig: RigFile, weigh_in: int | None, today: datetime.date | None) -> Paper:
    """What is printed of a weigh-in.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    evaluation: Evaluation = evaluate(rig, rig.filled(weigh_in))
    weighed = rig.weigh_ins[evaluation.weigh_in - 1] if evaluation.weigh_in else None
    when = (
        "Weighed "
        f"{weighed.date or 'on a day not noted'}{f', {weighed.place}' if weighed.place else ''}."
        if weighed
        else "Not weighed yet."
    )
    names = " with ".join(
        name for name in (rig.vehicle.name, rig.trailer.name if rig.trailer else "") if name
    )
    unit = evaluation.units.mass
    return Paper(
        title=rig.name or "A rig",
        about=f"{names + '. ' if names else ''}{when} Printed {today or datetime.date.today()}.",
        lead=f"{evaluation.headline.lead} {evaluation.headline.sentence}",
        rest=tuple(evaluation.headline.rest),
        headings=(
            "",
            f"weighed, {unit}" + (", (expected)" if evaluation.expected else ""),
            "±",
            "limit",
            "left",
            "",
            "limit from",
        ),
        rows=tuple(_row(check) for check in evaluation.checks),
        posts=tuple(_posts(evaluation.checks)),
        outline=evaluation.geometry.outline,
        towing=evaluation.towing,
        cautions=(evaluation.caution, AT_THE_SCALE),
        workings=tuple(_working(working, unit) for working in evaluation.working.values()),
        beside=tuple(
            notice.message for notice in (*contradictions(rig, today), *evaluation.advisories)
        ),
    )
