"""Exercises for a class, on paper: tickets and labels, room for the answer, an answer sheet with
the usual slips, and tickets to cut out.
"""

import io
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.platypus import (
    Flowable,
    KeepTogether,
    PageBreak,
    SimpleDocTemplate,
    Spacer,
    Table,
    TableStyle,
)

from noxel.core.practice import (
    LESSONS,
    UNITS,
    WAYS,
    Exercise,
    Lesson,
    Missing,
    Paper,
    Teller,
    Ticket,
    Yard,
    exercise_of,
    figure_of_way,
    lesson_of,
    open_lesson,
    solved,
    spoken,
)
from noxel.core.quantities import MassUnit
from noxel.core.rig import TermSet
from noxel.core.wording import CAUTION
from noxel.errors import InputError, Problem
from noxel.formats.paper_fonts import BOLD, PLAIN
from noxel.formats.papers import text_of


@dataclass(frozen=True, slots=True)
class _Task:
    """One exercise of the sheet."""

    lesson: Lesson
    yard: Yard
    exercise: Exercise


def practice_sheet(
    names: Sequence[str], seed: str, unit: MassUnit = "lb", terms: TermSet = "north_america"
) -> bytes:
    """A PDF of exercises, answers and tickets to cut out; the same seed gives the same sheet.

    ``names``: the lessons, in the order they are printed; all that can be done on paper where it is
    empty. ``seed``: what the rigs are drawn from. ``unit`` and ``terms``: what the papers are
    written in.

    Raises NotFound if there is no such lesson; InputError if none of them can be done on paper.
    """
    tasks = []
    for name in names or list(LESSONS):
        lesson = lesson_of(name)
        yard = solved(lesson, open_lesson(name, seed, unit, terms))
        exercise = exercise_of(lesson, yard)
        if not isinstance(exercise, Missing) and exercise.form != "done":
            tasks.append(_Task(spoken(lesson, yard.rig), yard, exercise))
    if not tasks:
        raise InputError(
            "None of these lessons can be done on paper.",
            [Problem("lessons", "can be done in the yard only", "lessons")],
        )
    stream = io.BytesIO()
    page = LETTER if unit == "lb" else A4
    document = SimpleDocTemplate(
        stream,
        pagesize=page,
        leftMargin=16 * mm,
        rightMargin=16 * mm,
        topMargin=14 * mm,
        bottomMargin=14 * mm,
        title="Weighing exercises",
        author="Noxel",
        subject=f"seed {seed}",
        invariant=1,
    )
    width = page[0] - 32 * mm
    story: list[Flowable] = [
        text_of("Weighing exercises", "head"),
        text_of(f"Seed {seed}. Name:", "body"),
        Spacer(1, 4 * mm),
    ]
    for number, task in enumerate(tasks, 1):
        story.append(KeepTogether(_question(number, task, width)))
    story += [PageBreak(), text_of("Answers", "head"), Spacer(1, 3 * mm)]
    for number, task in enumerate(tasks, 1):
        story.append(KeepTogether(_answer(number, task)))
    slips = [
        (number, ticket, task)
        for number, task in enumerate(tasks, 1)
        for ticket in task.yard.tickets
    ]
    if slips:
        story += [
            PageBreak(),
            text_of("Tickets to cut out", "head"),
            Spacer(1, 3 * mm),
            *_rows(
                [_slip(ticket, task, f"exercise {number}") for number, ticket, task in slips], width
            ),
        ]
    story += [Spacer(1, 6 * mm), text_of(CAUTION, "small")]
    document.build(story)
    return stream.getvalue()


def _box(title: str, lines: Sequence[tuple[str, str]], *, dashed: bool = False) -> Table:
    rows: list[list[Any]] = [
        [text_of(title, "loud"), ""],
        *([text_of(label, "cell"), value] for label, value in lines),
    ]
    table = Table(rows, colWidths=[34 * mm, 22 * mm])
    edge = (
        ("BOX", (0, 0), (-1, -1), 0.6, "black", None, (2, 2))
        if dashed
        else ("BOX", (0, 0), (-1, -1), 0.6, "black")
    )
    table.setStyle(
        TableStyle(
            [
                edge,
                ("SPAN", (0, 0), (1, 0)),
                ("FONT", (1, 1), (1, -1), BOLD, 9),
                ("ALIGN", (1, 0), (1, -1), "RIGHT"),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("TOPPADDING", (0, 0), (-1, -1), 1.2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.6),
                ("LINEBELOW", (0, 0), (-1, 0), 0.4, "black"),
            ]
        )
    )
    return table


def _slip(ticket: Ticket, task: _Task, also: str = "") -> Table:
    words = {"front": "platform 1", "rear": "platform 2", "trailer": "platform 3"}
    how = (
        "alone"
        if ticket.config == "vehicle_only"
        else "hitched"
        + (f", bars {ticket.bars}" if task.yard.rig.hitch.weight_distribution else "")
    )
    unit = task.yard.rig.units.mass
    lines = [(words[name], f"{value:,} {unit}") for name, value in ticket.readings.items()]
    return _box(
        f"Ticket {ticket.number}, {how}",
        [*lines, ("gross", f"{ticket.gross:,} {unit}"), *([(also, "")] if also else [])],
        dashed=True,
    )


def _rows(boxes: Sequence[Table], width: float) -> list[Flowable]:
    """Boxes side by side, three in a row."""
    parts: list[Flowable] = []
    for start in range(0, len(boxes), 3):
        row: list[Any] = [*boxes[start : start + 3], *[""] * (3 - len(boxes[start : start + 3]))]
        table = Table([row], colWidths=[width / 3] * 3)
        table.setStyle(
            TableStyle(
                [
                    ("VALIGN", (0, 0), (-1, -1), "TOP"),
                    ("LEFTPADDING", (0, 0), (-1, -1), 0),
                    ("FONT", (0, 0), (-1, -1), PLAIN, 9),
                ]
            )
        )
        parts.append(table)
    return parts


def _paper(paper: Paper) -> Table:
    return _box(paper.title, [(line.label, line.value) for line in paper.lines])


def _question(number: int, task: _Task, width: float) -> list[Flowable]:
    boxes = [
        *(_slip(ticket, task) for ticket in task.yard.tickets),
        *(_paper(paper) for paper in task.exercise.papers),
    ]
    options = [text_of(f"□ {option.label}") for option in task.exercise.options]
    lines = [] if options else [text_of("Answer: ______________________")]
    return [
        text_of(f"{number}. {task.lesson.name}", "sub"),
        text_of(task.lesson.task),
        *_rows(boxes, width),
        Spacer(1, 2 * mm),
        text_of(task.exercise.question, "loud"),
        *options,
        *lines,
        Spacer(1, 5 * mm),
    ]


def _in_words(task: _Task, figure: float) -> str:
    m, form = Teller(task.yard.rig), task.exercise.form
    if form == "pressure":
        return f"{figure:g} {'psi' if m.unit == 'lb' else 'kPa'}"
    return m.share(figure) if form == "share" else m(figure)


def _name_of(way: str) -> str:
    """What a slip is called."""
    return WAYS[way].name if way in WAYS else UNITS[way][0]


def _answer(number: int, task: _Task) -> list[Flowable]:
    exercise = task.exercise
    if exercise.form == "choice":
        right = next(option.label for option in exercise.options if option.code == exercise.choice)
        slips = [
            f"“{option.label}” {option.says}"
            for option in exercise.options
            if option.code != exercise.choice
        ]
    else:
        right = _in_words(task, exercise.right)
        figures = [(way, figure_of_way(exercise, way)) for way in exercise.ways]
        slips = [
            f"{_in_words(task, figure)}: {spoken(_name_of(way), task.yard.rig)}"
            for way, figure in figures
            if figure is not None and figure > 0
        ]
    working = "; ".join(f"{line.op} {line.label} {line.value}".strip() for line in exercise.working)
    return [
        text_of(f"{number}. {task.lesson.name}: {right}", "sub"),
        text_of(working),
        text_of(exercise.because),
        text_of("Usual slips: " + "; ".join(slips), "small") if slips else Spacer(1, 1),
        Spacer(1, 2 * mm),
    ]
