"""Papers that travel: a page for the glove box and a report with every working, as PDF; black on white, no colour needed."""

import datetime
import io
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from noxel.core.answers import Check, Evaluation, Working
from noxel.core.evaluate import evaluate
from noxel.core.rigfile import RigFile
from noxel.core.units import round_half_up

_BODY = ParagraphStyle("body", fontName="Helvetica", fontSize=9, leading=11.5)
_SMALL = ParagraphStyle("small", parent=_BODY, fontSize=7.5, leading=9.5)
_HEAD = ParagraphStyle("head", parent=_BODY, fontName="Helvetica-Bold", fontSize=16, leading=19)
_SUB = ParagraphStyle("sub", parent=_BODY, fontName="Helvetica-Bold", fontSize=10.5, leading=13, spaceBefore=6, spaceAfter=2)
_WORDS = {
    "over": "OVER",
    "low": "LOW",
    "high": "HIGH",
    "tight": "too close",
    "unconfirmed": "unconfirmed",
    "unknown": "not known",
    "within": "within",
}


def _text(text: str, style: ParagraphStyle = _BODY) -> Paragraph:
    """A paragraph of plain text; the built-in fonts know western letters, what they do not know is shown as a mark."""
    plain = text.replace("−", "-").replace("→", "to").replace("≥", "at least").replace("÷", "/")
    return Paragraph(escape(plain.encode("cp1252", "replace").decode("cp1252")), style)


def _mass(value: float | None) -> str:
    return "?" if value is None else f"{round_half_up(value):,}"


class _Posts(Flowable):
    """The rig's loads as posts: frame the rating, fill the load, what is over standing out beyond the frame."""

    def __init__(self, checks: list[Check], width: float) -> None:
        super().__init__()
        wanted = (
            "vehicle.front_axle",
            "vehicle.rear_axle",
            "hitch.tongue",
            "trailer.axles",
            "vehicle.gross",
            "trailer.gross",
            "combination.gross",
        )
        self.checks = [check for name in wanted for check in checks if check.id == name]
        self.width, self.height = width, 34 * mm

    def wrap(self, _width: float, _height: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        canvas: Any = self.canv
        step = self.width / max(1, len(self.checks))
        top = 18 * mm
        for index, check in enumerate(self.checks):
            x, wide, base = index * step + 2 * mm, 9 * mm, 8 * mm
            load = check.actual if check.actual is not None else check.at_least
            used = load / check.limit if load is not None and check.limit else None
            canvas.setLineWidth(0.8)
            if used is None:
                canvas.setDash(1, 2)
            else:
                canvas.setFillGray(0.35)
                canvas.rect(x, base, wide, top * min(1.0, used), stroke=0, fill=1)
                if used > 1:
                    canvas.setFillGray(0.0)
                    canvas.rect(
                        x - 1 * mm, base + top, wide + 2 * mm, min(6 * mm, top * (used - 1) + 0.8 * mm), stroke=0, fill=1
                    )
            canvas.rect(x, base, wide, top, stroke=1, fill=0)
            canvas.setDash()
            canvas.setFillGray(0.0)
            canvas.setFont("Helvetica", 6.5)
            canvas.drawString(x, base - 3.2 * mm, check.label[:20].encode("cp1252", "replace").decode("cp1252"))
            canvas.setFont("Helvetica-Bold", 7.5)
            canvas.drawString(x, base - 6.4 * mm, f"{_mass(load)} of {_mass(check.limit)}")


def _checks_table(found: Evaluation, width: float) -> Table:
    rows: list[list[Any]] = [["", f"weighed, {found.units.mass}", "±", "limit", "left", ""]]
    for check in found.checks:
        share = check.low is not None
        if share:
            low, high = check.low or 0.0, check.high or 0.0
            actual = "?" if check.actual is None else f"{check.actual * 100:.1f} %"
            pm = "" if check.plus_minus is None else f"{check.plus_minus * 100:.1f}"
            rows.append([_text(check.label), actual, pm, f"{low:.0%}-{high:.0%}", "", _WORDS[check.status]])
            continue
        left = "" if check.margin is None else f"{_mass(abs(check.margin))} {'left' if check.margin >= 0 else 'OVER'}"
        rows.append([_text(check.label), _mass(check.actual), "" if check.plus_minus is None else _mass(check.plus_minus),
                     "no rating" if check.limit is None else _mass(check.limit), left, _WORDS[check.status]])  # fmt: skip
    table = Table(rows, colWidths=[width * part for part in (0.3, 0.15, 0.09, 0.14, 0.16, 0.16)], repeatRows=1)
    table.setStyle(TableStyle([
        ("FONT", (0, 0), (-1, -1), "Helvetica", 8.5), ("FONT", (0, 0), (-1, 0), "Helvetica-Bold", 7.5), ("ALIGN", (1, 0), (4, -1), "RIGHT"),
        ("LINEBELOW", (0, 0), (-1, -1), 0.3, "black"), ("TOPPADDING", (0, 0), (-1, -1), 1.6), ("BOTTOMPADDING", (0, 0), (-1, -1), 1.6),
        ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
    ]))  # fmt: skip
    for number, check in enumerate(found.checks, 1):
        if check.status in ("over", "low", "tight", "high"):
            table.setStyle(TableStyle([("FONT", (0, number), (-1, number), "Helvetica-Bold", 8.5)]))
    return table


def _working(working: Working, unit: str) -> list[Flowable]:
    lines = [f"{line.op} {line.label}: " + (f"{line.value * 100:.1f} %" if line.sort == "share" else f"{line.value:,.1f}")
             + (f" ± {line.plus_minus:,.1f}" if line.plus_minus and line.sort == "mass" else "") + (f" ({line.source})" if line.source else "")
             for line in working.lines]  # fmt: skip
    value = f"{working.value * 100:.1f} %" if working.sort == "share" else f"{working.value:,.1f} {unit}"
    return [
        _text(f"{working.title} = {value}: {working.formula}"),
        *[_text(line.strip(), _SMALL) for line in lines],
        Spacer(1, 4),
    ]


def paper(rig: RigFile, weigh_in: int | None = None, *, full: bool = False, today: datetime.date | None = None) -> bytes:
    """The glove-box page, or the full report with every working, as PDF.

    Parameters
    ----------
    rig : RigFile
        In its own terms and units.
    weigh_in : int or None
        Which weigh-in, from 1; None is the last.
    full : bool
        Whether the workings and advisories follow.
    today : date or None
        Printed on it; None is the machine's own date.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    found = evaluate(rig, weigh_in)
    sheet = LETTER if rig.units.mass == "lb" else A4
    margin = 14 * mm
    width = sheet[0] - 2 * margin
    weighed = rig.weigh_ins[found.weigh_in - 1] if found.weigh_in else None
    when = (
        f"Weighed {weighed.date or 'on a day not noted'}{f', {weighed.place}' if weighed.place else ''}."
        if weighed
        else "Not weighed yet."
    )
    names = " with ".join(name for name in (rig.vehicle.name, rig.trailer.name if rig.trailer else "") if name)
    story: list[Flowable] = [
        _text(rig.name or "A rig", _HEAD),
        _text(f"{names + '. ' if names else ''}{when} Printed {today or datetime.date.today()}."),
        Spacer(1, 5),
        _text(f"{found.headline.lead} {found.headline.sentence}", _SUB),
        *[_text(line) for line in found.headline.rest[:4]],
        Spacer(1, 6),
        _Posts(found.checks, width),
        Spacer(1, 4),
        _checks_table(found, width),
        Spacer(1, 6),
        _text(found.caution, _SMALL),
    ]  # fmt: skip
    if full:
        story.append(_text("How each figure was worked out", _SUB))
        for working in found.working.values():
            story += _working(working, found.units.mass)
        if found.advisories or found.plates:
            story.append(_text("To know beside the checks", _SUB))
            story += [_text(each.message) for each in (*found.plates, *found.advisories)]
    made = io.BytesIO()
    title = f"{rig.name or 'A rig'}, {'report' if full else 'for the glove box'}"
    document = SimpleDocTemplate(
        made, pagesize=sheet, leftMargin=margin, rightMargin=margin, topMargin=margin, bottomMargin=margin, title=title
    )
    document.build(story)
    return made.getvalue()
