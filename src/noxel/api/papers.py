"""Papers and files of one rig: for the glove box, a report, a print view, tables, a workbook, a
calendar.
"""

import datetime
from typing import Literal

from fastapi import Response

from noxel.api.deps import Id, Looking, TheRigs, as_file, file_stem, new_router, open_at
from noxel.api.photos import ThePhotos
from noxel.api.visits import TheVisits
from noxel.core.editing import settle
from noxel.core.evaluate import evaluate
from noxel.core.log import reminders
from noxel.core.plates import evaluate_plates
from noxel.formats.print_page import print_page
from noxel.formats.tables import items_csv, tickets_csv

router = new_router()
MOST_PRINTED = 24
"""Photographs that a report has room for."""


@router.get("/rigs/{rig_id}/reminders.ics", response_class=Response)
def calendar_of(rig_id: Id, rigs: TheRigs) -> Response:
    """The reminders for a calendar."""
    from noxel.formats.ical import write_calendar

    rig = settle(rigs.open(rig_id).document).rig
    due = reminders(rig, datetime.date.today())
    calendar = write_calendar(rig_id, rig.name, due, datetime.datetime.now(datetime.UTC))
    return as_file(calendar, f"{file_stem(rig)}.ics", "text/calendar; charset=utf-8")


@router.get("/rigs/{rig_id}/paper.pdf", response_class=Response)
def paper_of(
    rig_id: Id,
    rigs: TheRigs,
    photos: ThePhotos,
    weigh_in: Looking = None,
    what: Literal["glove_box", "report"] = "glove_box",
) -> Response:
    """A page for the glove box, or the full report with every working."""
    from noxel.formats.papers import paper  # only who prints waits for it

    stored = open_at(rigs, rig_id, weigh_in)
    rig = settle(stored.document).rig
    looked_at = stored.window.keys[stored.window.at - 1] if stored.window.at else None
    shown = [] if what == "glove_box" else photos.all(rig_id)
    printed = [photo for photo in shown if photo.weigh_in in (None, looked_at)][:MOST_PRINTED]
    pictures = [
        (
            f"{photo.about}, {photo.added_at:%d %b %Y}",
            photos.picture(rig_id, photo.id, small=False),
        )
        for photo in printed
    ]
    return as_file(
        paper(rig, stored.window.at, full=what == "report", photos=pictures),
        f"{file_stem(rig)}-{what.replace('_', '-')}.pdf",
        "application/pdf",
    )


@router.get("/rigs/{rig_id}/print.html", response_class=Response)
def print_view_of(
    rig_id: Id, rigs: TheRigs, visits: TheVisits, weigh_in: Looking = None
) -> Response:
    """The same as a page of one file, to print or to keep; it needs no server."""
    stored = open_at(rigs, rig_id, weigh_in)
    rig = settle(stored.document).rig
    ready = evaluate_plates(rig, evaluate(rig, stored.window.at)).ready
    to_do = [
        (step.text, f"done {step.done}" if step.done and not step.stale else "") for step in ready
    ]
    for line in visits.lines(rig_id):
        by = f" by {line.done_by}" if line.done_by else ""
        to_do.append((line.text, f"done {line.done_at:%Y-%m-%d}{by}" if line.done_at else ""))
    return as_file(
        print_page(rig, stored.window.at, to_do=to_do),
        f"{file_stem(rig)}.html",
        "text/html; charset=utf-8",
        shown=True,
    )


@router.get("/rigs/{rig_id}/tickets.csv", response_class=Response)
def tickets_of(rig_id: Id, rigs: TheRigs) -> Response:
    """Every reading of every pass."""
    rig = settle(rigs.open(rig_id, entire=True).document).rig
    return as_file(tickets_csv(rig), f"{file_stem(rig)}-tickets.csv", "text/csv; charset=utf-8")


@router.get("/rigs/{rig_id}/items.csv", response_class=Response)
def items_of(rig_id: Id, rigs: TheRigs) -> Response:
    """Every item; the list can be imported again."""
    rig = settle(rigs.open(rig_id).document).rig
    return as_file(items_csv(rig), f"{file_stem(rig)}-items.csv", "text/csv; charset=utf-8")


@router.get("/rigs/{rig_id}/workbook.xlsx", response_class=Response)
def workbook_of(rig_id: Id, rigs: TheRigs, weigh_in: Looking = None) -> Response:
    """Plates, tickets, derived weights and checks with live formulas."""
    from noxel.formats.workbook import workbook

    stored = open_at(rigs, rig_id, weigh_in, entire=True)
    rig = settle(stored.document).rig
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    return as_file(workbook(rig, stored.window.at), f"{file_stem(rig)}.xlsx", kind)
