"""``/api/rigs/{id}/log`` and the papers: every weigh-in in a line, compared, printed, taken along."""

import datetime
from typing import Annotated, Literal
from urllib.parse import quote

from fastapi import APIRouter, Depends, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from noxel.api.problems import ProblemDetails
from noxel.api.progress import ProgressName, TheWorks
from noxel.api.rigs import Looking, Store, file_stem, open_at, sheet_as_json
from noxel.core.editing import settle
from noxel.core.log import (
    Chart,
    Comparison,
    Log,
    Reminder,
    WeighInRef,
    chart_of,
    compare_weigh_ins,
    kept_answers,
    line_of,
    reminders,
)
from noxel.formats.logbook_json import read_logbook, write_logbook
from noxel.formats.print_page import print_page
from noxel.formats.tables import items_csv, tickets_csv
from noxel.store.log import Logs
from noxel.store.rigs import Rigs

router = APIRouter(prefix="/api", responses={422: {"model": ProblemDetails}})


class RigsImported(BaseModel):
    """What a logbook brought: ids of the rigs that are new, and how many already present."""

    added: list[str]
    already: int


def logs_of(request: Request) -> Logs:
    """The logs of the running application."""
    logs: Logs = request.app.state.logs
    return logs


TheLog = Annotated[Logs, Depends(logs_of)]
Number = Annotated[int | None, Query(ge=1)]


@router.get("/rigs/{rig_id}/log", response_model=Log)
def read_log(
    rig_id: str, rigs: Store, logs: TheLog, words: Annotated[str, Query(max_length=200)] = "", before: Number = None
) -> Response:
    """A page of the log, the last first: those with all the words, numbered before ``before``."""
    stored = rigs.open(rig_id)
    rig, page = settle(stored.document).rig, logs.page(rig_id, words=words, before=before)
    entries = [line_of(rig, each, earlier) for each, earlier in page.lines]
    return sheet_as_json(Log(entries=entries, more=page.more, count=page.count, kept=kept_answers(rig, stored.window.numbers)))


@router.get("/rigs/{rig_id}/log/chart", response_model=Chart)
def read_chart(rig_id: str, rigs: Store, logs: TheLog, until: Number = None) -> Response:
    """Every load over up to 300 weigh-ins, the last of them ``until`` or the last there is."""
    run, count = logs.run(rig_id, until=until)
    return sheet_as_json(chart_of(settle(rigs.open(rig_id).document).rig, run, count))


@router.get("/rigs/{rig_id}/reminders")
def read_reminders(rig_id: str, rigs: Store) -> list[Reminder]:
    """Reminders, the first due first."""
    return reminders(settle(rigs.open(rig_id).document).rig, datetime.date.today())


@router.get("/rigs/{rig_id}/reminders.ics", response_class=Response)
def calendar_of(rig_id: str, rigs: Store) -> Response:
    """The reminders for a calendar."""
    from noxel.formats.ical import write_calendar

    rig = settle(rigs.open(rig_id).document).rig
    found = reminders(rig, datetime.date.today())
    made = write_calendar(rig_id, rig.name, found, datetime.datetime.now(datetime.UTC))
    return _file(made, f"{file_stem(rig)}.ics", "text/calendar; charset=utf-8")


@router.get("/rigs/{rig_id}/log/compare", response_model=Comparison)
def compare(
    rig_id: str, rigs: Store, numbers: Annotated[list[int], Query(max_length=8)],
    others: Annotated[list[str] | None, Query(max_length=8, description="Of other rigs, id:number; without it the last.")] = None,
) -> Response:  # fmt: skip
    """Two to four weigh-ins side by side, also of other rigs: the same vehicle and trailer with another hitch."""
    wanted = _of(rigs, rig_id, numbers)
    for each in others or ():
        other, _, number = each.partition(":")
        wanted += _of(rigs, other, [int(number) if number.isdigit() else rigs.open(other).window.count])
    return sheet_as_json(compare_weigh_ins(wanted))


def _of(rigs: Rigs, rig_id: str, numbers: list[int]) -> list[WeighInRef]:
    stored = rigs.open_these(rig_id, numbers)
    rig = settle(stored.document).rig
    there = {number: at for at, number in enumerate(stored.window.numbers, 1)}
    return [WeighInRef(rig, there.get(number, 0), number) for number in numbers]


def _file(content: bytes | str, name: str, kind: str, *, shown: bool = False) -> Response:
    ascii_name = name.encode("ascii", "ignore").decode() or "noxel"
    disposition = f"{'inline' if shown else 'attachment'}; filename=\"{ascii_name}\"; filename*=UTF-8''{quote(name)}"
    return Response(content, media_type=kind, headers={"content-disposition": disposition})


@router.get("/rigs/{rig_id}/paper.pdf", response_class=Response)
def paper_of(
    rig_id: str, rigs: Store, weigh_in: Looking = None, what: Literal["glove_box", "report"] = "glove_box"
) -> Response:
    """A page for the glove box, or the full report with every working."""
    from noxel.formats.papers import paper  # only who prints waits for it

    stored = open_at(rigs, rig_id, weigh_in)
    rig = settle(stored.document).rig
    return _file(
        paper(rig, stored.window.at, full=what == "report"), f"{file_stem(rig)}-{what.replace('_', '-')}.pdf", "application/pdf"
    )


@router.get("/rigs/{rig_id}/print.html", response_class=Response)
def print_view_of(rig_id: str, rigs: Store, weigh_in: Looking = None) -> Response:
    """The same as a page of one file, to print or to keep; it needs no server."""
    stored = open_at(rigs, rig_id, weigh_in)
    rig = settle(stored.document).rig
    return _file(print_page(rig, stored.window.at), f"{file_stem(rig)}.html", "text/html; charset=utf-8", shown=True)


@router.get("/rigs/{rig_id}/tickets.csv", response_class=Response)
def tickets_of(rig_id: str, rigs: Store) -> Response:
    """Every reading of every pass."""
    rig = settle(rigs.open(rig_id, entire=True).document).rig
    return _file(tickets_csv(rig), f"{file_stem(rig)}-tickets.csv", "text/csv; charset=utf-8")


@router.get("/rigs/{rig_id}/items.csv", response_class=Response)
def items_of(rig_id: str, rigs: Store) -> Response:
    """Every item; the list can be imported again."""
    rig = settle(rigs.open(rig_id).document).rig
    return _file(items_csv(rig), f"{file_stem(rig)}-items.csv", "text/csv; charset=utf-8")


@router.get("/rigs/{rig_id}/workbook.xlsx", response_class=Response)
def workbook_of(rig_id: str, rigs: Store, weigh_in: Looking = None) -> Response:
    """Plates, tickets, derived weights and checks with live formulas."""
    from noxel.formats.workbook import workbook

    stored = open_at(rigs, rig_id, weigh_in, entire=True)
    rig = settle(stored.document).rig
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    return _file(workbook(rig, stored.window.at), f"{file_stem(rig)}.xlsx", kind)


@router.get("/logbook", response_class=Response)
def export_all(rigs: Store) -> Response:
    """Every rig in one file."""
    return _file(write_logbook(list(rigs.documents())), "noxel-logbook.json", "application/json")


@router.get("/backup", response_class=Response)
def back_up(rigs: Store) -> Response:
    """Everything in one file: the database itself, as ``noxel restore`` takes it back."""
    name = f"noxel-{datetime.date.today().isoformat()}.db"
    return _file(rigs.backup(), name, "application/vnd.sqlite3")


@router.post("/logbook", status_code=201)
async def import_all(request: Request, rigs: Store, works: TheWorks, work: ProgressName = None) -> RigsImported:
    """Bring in a logbook: all of it, or nothing; what is there already stays as it is."""
    data = await request.body()

    def take() -> RigsImported:
        with works.under_way(work) as report:
            report(0, 0, "reading the logbook")
            documents = read_logbook(data)
            added = rigs.add_all(documents, report)
        return RigsImported(added=list(added), already=len(documents) - len(added))

    return await run_in_threadpool(take)
