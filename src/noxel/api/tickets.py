"""``/api/rigs/{id}/tickets``: a table of tickets from a spreadsheet, looked at first, then imported
whole or not at all; and a ticket that was jotted down at the scale.
"""

import datetime
from dataclasses import replace
from typing import Annotated, Any

from fastapi import Response
from pydantic import BaseModel, Field

from noxel.api.deps import HowSent, Id, TheRigs, new_router
from noxel.api.problems import FieldProblem
from noxel.api.sheet import AsWritten, Sheet, answer_sheet
from noxel.core.editing import Document, settle
from noxel.core.log import merge_weigh_ins
from noxel.core.quantities import MassUnit, read_mass, read_typed
from noxel.core.rig import Config, RigFile, SpringBars
from noxel.core.weigh import Jotted, ScaleKind, add_jotted
from noxel.errors import InputError, Problem, RigFileError
from noxel.formats.lists import preview
from noxel.formats.tickets_list import (
    TICKET_COLUMNS,
    TicketColumn,
    Tickets,
    guess_tickets,
    guess_units,
    read_tickets,
    understood,
)

router = new_router()


class TableAsWritten(AsWritten):
    """A table of tickets; ``resolution`` is the scale's graduation as typed, ``day_first`` reads
    3/4 as 3 April.
    """

    columns: dict[TicketColumn, Annotated[int, Field(ge=0, le=200)]]
    day_first: bool
    resolution: Annotated[str, Field(max_length=40)]


class TicketTable(BaseModel):
    """A table of tickets from a spreadsheet; how it is written is guessed where it is not said."""

    text: Annotated[str, Field(max_length=5_000_000)]
    written: TableAsWritten | None = None


class TablePreview(BaseModel):
    """What would come in: how the table was understood, its first rows, what adds up, what cannot
    be read.
    """

    written: TableAsWritten
    columns: list[TicketColumn]
    rows: list[list[str]]
    weigh_ins: int
    passes: int
    already: int
    problems: list[FieldProblem]


class TicketsImported(BaseModel):
    """How many weigh-ins came in, and how many already present."""

    added: int
    already: int


Typed = Annotated[str, Field(max_length=400)]
Key = Annotated[str, Field(min_length=1, max_length=64, pattern=r"^[\w-]+$")]


class JottedTicket(BaseModel):
    """A ticket as it was jotted down on a device, perhaps without a network: ``key`` is its own, so
    that it is taken once also where it is sent twice; the tickets of one ``visit`` belong to one
    weigh-in.
    """

    key: Key
    visit: Key
    day: datetime.date
    config: Config | None = None
    spring_bars: SpringBars | None = None
    tongue: Typed = ""
    unit: MassUnit
    scale: ScaleKind = "truck_scale"
    readings: Annotated[
        dict[Annotated[str, Field(max_length=20)], Typed], Field(max_length=24)
    ] = {}
    place: Typed = ""
    ticket_number: Typed = ""
    time: Typed = ""
    fee: Typed = ""
    note: Typed = ""


def _read(rig: RigFile, text: str, written: TableAsWritten) -> Tickets:
    try:
        resolution = read_typed(written.resolution, "mass", rig.units.mass).value
    except InputError as exc:
        raise InputError(exc.message, [Problem("the graduation", exc.message, exc.code)]) from exc
    if (read_mass(resolution) if isinstance(resolution, str) else resolution) <= 0:
        raise InputError(
            "The graduation must be more than 0.",
            [Problem("the graduation", "must be more than 0", "range")],
        )
    return read_tickets(
        text,
        written.layout(),
        mass=written.mass,
        resolution=resolution,
        day_first=written.day_first,
        config="hitched" if rig.towing else "vehicle_only",
    )


def _import(document: Document, tickets: Tickets) -> tuple[Document, int]:
    """The rig with the tickets; what breaks a rule is reported with the line of the table that it
    stands on.
    """
    try:
        return merge_weigh_ins(document, tickets.weigh_ins)
    except RigFileError as exc:
        problems = []
        for problem in exc.problems:
            line, column = tickets.line_of(problem.path), problem.path.rsplit(".", 1)[-1]
            problems.append(
                Problem(
                    f"line {line}" if line else problem.path,
                    f"{column}: {problem.message}",
                    problem.code,
                )
            )
        raise InputError(f"Nothing was added. {problems[0]}.", problems) from exc


@router.post("/rigs/{rig_id}/tickets/preview")
def preview_tickets(rig_id: Id, wanted: TicketTable, rigs: TheRigs) -> TablePreview:
    """Read a table without bringing it in: what was understood, and each line that cannot be."""
    document = rigs.open(rig_id, entire=True).document
    rig = settle(document).rig
    written = wanted.written
    if written is None:
        layout = guess_tickets(wanted.text)
        mass, day_first, resolution = guess_units(wanted.text, layout, rig.units.mass)
        columns: Any = dict(layout.columns)
        written = TableAsWritten(
            delimiter=layout.delimiter,
            decimal_comma=layout.decimal_comma,
            header=layout.header,
            columns=columns,
            mass=mass,
            day_first=day_first,
            resolution=resolution,
        )
    tickets, already, problems = Tickets([], {}), 0, []
    try:
        tickets = _read(rig, wanted.text, written)
        _, already = _import(document, tickets)
    except InputError as exc:
        problems = [
            FieldProblem(path=problem.path, message=problem.message, code=problem.code)
            for problem in exc.problems
        ][:50]
    return TablePreview(
        written=written,
        columns=list(TICKET_COLUMNS),
        rows=preview(wanted.text, written.layout(), understood(written.layout(), written.mass)),
        problems=problems,
        weigh_ins=len(tickets.weigh_ins),
        passes=sum(len(weigh_in["passes"]) for weigh_in in tickets.weigh_ins),
        already=already,
    )


@router.post("/rigs/{rig_id}/tickets/import")
def import_tickets(
    rig_id: Id, wanted: TicketTable, rigs: TheRigs, sent: HowSent
) -> TicketsImported:
    """Bring a table in among the weigh-ins, by date: all of it, or nothing and each bad line by its
    number.
    """
    written = wanted.written
    if written is None:
        raise InputError(
            "Say how the table is written.", [Problem("written", "is missing", "missing")]
        )
    counts = {"added": 0, "already": 0}

    def add(document: Document) -> Document:
        rig = settle(document).rig
        tickets = _read(rig, wanted.text, written)
        imported, counts["already"] = _import(document, tickets)
        counts["added"] = len(tickets.weigh_ins) - counts["already"]
        return settle(imported).document

    rigs.change(rig_id, "imported tickets", add, entire=True, sent=sent)
    return TicketsImported(**counts)


@router.post("/rigs/{rig_id}/jotted", response_model=Sheet)
def take_jotted(rig_id: Id, ticket: JottedTicket, rigs: TheRigs, sent: HowSent) -> Response:
    """Put a ticket that was jotted down into the weigh-in of its visit; sent again, it changes
    nothing.
    """
    facts = {
        name: getattr(ticket, name) for name in ("place", "ticket_number", "time", "fee", "note")
    }
    jotted = Jotted(
        ticket.day,
        ticket.config,
        ticket.spring_bars,
        ticket.unit,
        ticket.scale,
        ticket.readings,
        facts,
        ticket.tongue,
    )
    received = rigs.receive(
        rig_id,
        ticket.visit,
        lambda document, index: add_jotted(document, index, jotted),
        sent=replace(sent, key=ticket.key),
    )
    return answer_sheet(received)
