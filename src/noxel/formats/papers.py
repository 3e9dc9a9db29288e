"""Papers that travel: a page for the glove box and a report with every working, as PDF; black on
white, no colour needed.
"""

import datetime
import io
from collections.abc import Sequence
from functools import cache, partial
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import (
    Flowable,
    Image,
    KeepTogether,
    Paragraph,
    SimpleDocTemplate,
    Spacer,
    Table,
    TableStyle,
)

from noxel.core.rig import RigFile
from noxel.formats.paper_fonts import BOLD, PLAIN, font_for, load_fonts
from noxel.formats.paper_parts import Paper, PaperWorking, prepare
from noxel.formats.rig_picture import rig_picture

_GLOVE_BOX = 4
"""Sentences beside the first that the page for the glove box has room for."""


@cache
def styles() -> dict[str, ParagraphStyle]:
    """The styles of the papers.

    Raises NotFound if the page, and with it the fonts, has not been built.
    """
    load_fonts()
    body = ParagraphStyle("body", fontName=PLAIN, fontSize=10, leading=12.5)
    return {
        "body": body,
        "cell": ParagraphStyle("cell", parent=body, fontSize=9.5, leading=11),
        "loud": ParagraphStyle("loud", parent=body, fontName=BOLD, fontSize=9.5, leading=11),
        "small": ParagraphStyle("small", parent=body, fontSize=8.5, leading=10.5),
        "head": ParagraphStyle("head", parent=body, fontName=BOLD, fontSize=20, leading=23),
        "sub": ParagraphStyle(
            "sub",
            parent=body,
            fontName=BOLD,
            fontSize=13,
            leading=15.5,
            spaceBefore=6,
            spaceAfter=2,
        ),
    }


def text_of(text: str, style: str = "body") -> Paragraph:
    """A paragraph in one of the styles of the papers."""
    usual = styles()[style]
    font = font_for(text, usual.fontName)
    words = escape(text)
    return Paragraph(
        words if font == usual.fontName else f'<font name="{font}">{words}</font>', usual
    )


def _checks(paper: Paper, width: float) -> Table:
    rows: list[list[Any]] = [list(paper.headings)]
    for row in paper.rows:
        rows.append(
            [
                text_of(row.cells[0], "loud" if row.loud else "cell"),
                *row.cells[1:-1],
                text_of(row.cells[-1], "small"),
            ]
        )
    table = Table(
        rows,
        colWidths=[width * part for part in (0.24, 0.12, 0.06, 0.1, 0.13, 0.16, 0.19)],
        repeatRows=1,
    )
    table.setStyle(
        TableStyle(
            [
                ("FONT", (0, 0), (-1, -1), PLAIN, 9.5),
                ("FONT", (0, 0), (-1, 0), BOLD, 8.5),
                ("ALIGN", (1, 0), (4, -1), "RIGHT"),
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, "black"),
                ("TOPPADDING", (0, 0), (-1, -1), 1.6),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 1.6),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                *[
                    ("FONT", (1, number), (-1, number), BOLD, 9.5)
                    for number, row in enumerate(paper.rows, 1)
                    if row.loud
                ],
            ]
        )
    )
    return table


def _tickets(paper: Paper, width: float) -> Table:
    """The passes side by side, each as its ticket has it."""
    cells: list[list[Flowable]] = []
    for ticket in paper.tickets:
        rows: list[list[Any]] = [[text_of(ticket.title, "loud"), ""]]
        rows += [[text_of(name, "cell"), value] for name, value in ticket.readings]
        if ticket.facts:
            rows.append([text_of(ticket.facts, "small"), ""])
        last = [("SPAN", (0, -1), (1, -1))] if ticket.facts else []
        cells.append(
            [
                Table(
                    rows,
                    colWidths=[width / 3 * 0.56, width / 3 * 0.36],
                    style=[
                        *_LINES,
                        ("BOX", (0, 0), (-1, -1), 0.8, "black"),
                        ("SPAN", (0, 0), (1, 0)),
                        *last,
                    ],
                )
            ]
        )
    three = [[*cells[row : row + 3], "", ""][:3] for row in range(0, len(cells), 3)]
    return Table(three, colWidths=[width / 3] * 3, style=[("VALIGN", (0, 0), (-1, -1), "TOP")])


def _working(working: PaperWorking, width: float) -> Flowable:
    """A sum with its terms one below the other, on one page."""
    rows: list[list[Any]] = [[text_of(f"{working.title}: {working.formula}", "loud"), "", "", ""]]
    rows += [
        [text_of(label, "cell"), value, pm, text_of(source, "small")]
        for label, value, pm, source in working.rows
    ]
    table = Table(
        rows,
        colWidths=[width * part for part in (0.46, 0.14, 0.1, 0.3)],
        style=[
            *_LINES,
            ("SPAN", (0, 0), (-1, 0)),
            ("LINEABOVE", (1, -1), (1, -1), 0.8, "black"),
            ("FONT", (1, -1), (2, -1), BOLD, 9.5),
        ],
    )
    return KeepTogether([table, Spacer(1, 4)])


def _page_number(title: str, middle: float, canvas: Canvas, _document: object) -> None:
    """At the foot of every page but the first: whose report it is, and which page."""
    text = f"{title} · page {canvas.getPageNumber()}"
    canvas.setFont(font_for(text, PLAIN), 8.5)
    canvas.drawCentredString(middle, 8 * mm, text)


_LINES: list[Any] = [
    ("FONT", (0, 0), (-1, -1), PLAIN, 9.5),
    ("ALIGN", (1, 0), (2, -1), "RIGHT"),
    ("TOPPADDING", (0, 0), (-1, -1), 0.6),
    ("BOTTOMPADDING", (0, 0), (-1, -1), 0.6),
    ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
]


def _photographs(photos: Sequence[tuple[str, bytes]], width: float) -> list[Flowable]:
    """Photographs two in a row, each with what it shows."""
    cells: list[list[Flowable]] = []
    for says, picture in photos:
        try:
            image = Image(io.BytesIO(picture))
            image.imageWidth  # noqa: B018 it is looked at here
        except OSError:  # damaged on the disk: one picture less
            cells.append([text_of(f"{says}: this photograph cannot be read any more.", "small")])
            continue
        scale = min((width / 2 - 3 * mm) / image.imageWidth, 80 * mm / image.imageHeight)
        image.drawWidth, image.drawHeight = image.imageWidth * scale, image.imageHeight * scale
        cells.append([image, text_of(says, "small")])
    rows = [
        cells[start : start + 2] + [""] * (start + 2 > len(cells))
        for start in range(0, len(cells), 2)
    ]
    return [
        Table(
            rows,
            colWidths=[width / 2] * 2,
            style=[("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0)],
        )
    ]


def paper(
    rig: RigFile,
    weigh_in: int | None = None,
    *,
    full: bool = False,
    today: datetime.date | None = None,
    photos: Sequence[tuple[str, bytes]] = (),
) -> bytes:
    """The glove-box page, or the full report with every working, as PDF.

    ``rig``: in its own terms and units. ``weigh_in``: which weigh-in, from 1; None is the last.
    ``full``: whether the workings and advisories follow. ``today``: printed on it; None is the
    machine's own date. ``photos``: photographs for the full report: what each shows, and the
    picture (JPEG).

    Raises NotFound if the rig has no weigh-in of that number, or the fonts have not been built.
    """
    paper = prepare(rig, weigh_in, today)
    sheet, margin = LETTER if rig.units.mass == "lb" else A4, 14 * mm
    width = sheet[0] - 2 * margin
    story: list[Flowable] = [
        text_of(paper.title, "head"),
        text_of(paper.about),
        Spacer(1, 5),
        text_of(paper.lead, "sub"),
        *[text_of(line) for line in (paper.rest if full else paper.rest[:_GLOVE_BOX])],
        Spacer(1, 6),
        rig_picture(paper, width),
        Spacer(1, 4),
        _checks(paper, width),
        Spacer(1, 6),
        *[text_of(line, "small") for line in paper.cautions],
    ]
    if full:
        if paper.tickets:
            story.append(KeepTogether([text_of("The tickets", "sub"), _tickets(paper, width)]))
        story.append(text_of("How each figure was worked out", "sub"))
        story += [_working(working, width) for working in paper.workings]
        if paper.beside:
            story.append(text_of("To know beside the checks", "sub"))
            story += [text_of(line) for line in paper.beside]
        if photos:
            story += [text_of("Photographs", "sub"), *_photographs(photos, width)]
    stream = io.BytesIO()
    title = f"{paper.title}, {'report' if full else 'for the glove box'}"
    document = SimpleDocTemplate(
        stream,
        pagesize=sheet,
        leftMargin=margin,
        rightMargin=margin,
        topMargin=margin,
        bottomMargin=margin,
        title=title,
    )
    document.build(story, onLaterPages=partial(_page_number, paper.title, sheet[0] / 2))
    return stream.getvalue()
