"""What every paper says, whatever it is printed on: the words, the table, the posts, the workings,
as plain texts and figures.
"""

import datetime
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from noxel.core.drawing import Outline
from noxel.core.evaluate import evaluate
from noxel.core.mechanics import reading_words
from noxel.core.plates import contradictions
from noxel.core.quantities import Sort, print_mass, round_half_up
from noxel.core.rig import RigFile
from noxel.core.weigh import pass_title
from noxel.core.wording import (
    AT_THE_SCALE,
    Check,
    Evaluation,
    ExpectedCheck,
    Working,
    vehicle_word,
)

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
    tickets: tuple["Ticket", ...]
    workings: tuple["PaperWorking", ...]
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


def _figure(value: float, sort: Sort, plus_minus: float) -> tuple[str, str]:
    """A figure of a working and its ±, with as many digits as that allows; a count is exact, minus
    is a minus sign.
    """
    if sort == "share":
        pm = f"± {plus_minus * 100:.1f} %" if plus_minus else ""
        return f"{value * 100:.1f} %".replace("-", "−"), pm
    if sort == "count":
        return f"{value:g}".replace("-", "−"), ""
    whole = plus_minus >= 1 or (not plus_minus and value == round(value))
    places = 0 if whole else 1
    pm = f"± {plus_minus:,.{places}f}" if plus_minus else ""
    return f"{value:,.{places}f}".replace("-", "−"), pm


@dataclass(frozen=True, slots=True)
class PaperWorking:
    """How a figure was worked out: a sum with its terms one below the other, the result last.

    A row is its label with its sign, its figure, its ± and where it is from.
    """

    title: str
    formula: str
    rows: tuple[tuple[str, str, str, str], ...]


def _working(working: Working, unit: str) -> PaperWorking:
    rows = [
        (
            f"{line.op} {line.label}".strip(),
            *_figure(line.value, line.sort, line.plus_minus),
            line.source or "",
        )
        for line in working.lines
    ]
    value, pm = _figure(working.value, working.sort, working.plus_minus)
    in_unit = value if working.sort == "share" else f"{value} {unit}"
    return PaperWorking(working.title, working.formula, (*rows, ("=", in_unit, pm, "")))


@dataclass(frozen=True, slots=True)
class Ticket:
    """A pass as its ticket has it: what was on the scale, each reading, what is printed besides."""

    title: str
    readings: tuple[tuple[str, str], ...]
    facts: str


def _tickets(rig: RigFile, number: int | None) -> Iterator[Ticket]:
    passes = rig.weigh_ins[number - 1].passes if number else ()
    for index, pass_ in enumerate(passes, 1):
        unit = pass_.unit or rig.units.mass
        printed = {"printed gross": pass_.printed_gross} if pass_.printed_gross else {}
        masses = {reading_words(name): mass for name, mass in pass_.readings.items()} | printed
        facts = (
            f"ticket {pass_.ticket_number}" if pass_.ticket_number else "",
            pass_.time or "",
            pass_.note or "",
        )
        yield Ticket(
            f"{index}. {pass_title(pass_, vehicle_word(rig))}",
            tuple((name, print_mass(value.kg, unit)) for name, value in masses.items()),
            " · ".join(filter(None, facts)),
        )


def prepare(rig: RigFile, weigh_in: int | None, today: datetime.date | None) -> Paper:
    """What is printed of a weigh-in.

    Raises NotFound if the rig has no weigh-in of that number.
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
        tickets=tuple(_tickets(rig, evaluation.weigh_in)),
        workings=tuple(_working(working, unit) for working in evaluation.working.values()),
        beside=tuple(
            notice.message for notice in (*contradictions(rig, today), *evaluation.advisories)
        ),
    )
