"""``/api/rigs/{id}/visit`` and beside it: the companion at the scale, the notes of a drive, the
owner's own lines.
"""

import datetime
from typing import Annotated

from fastapi import Depends, Path, Request
from pydantic import BaseModel, Field

from noxel.api.deps import HowSent, Id, TheRigs, device_of, new_router
from noxel.core.editing import settle
from noxel.core.log import spent
from noxel.core.weigh import ScaleKind, VisitStep, visit_steps
from noxel.store.visits import Visits, when_done

router = new_router()
Short = Annotated[str, Field(max_length=40)]
Text = Annotated[str, Field(max_length=500)]


class VisitState(BaseModel):
    """A visit under way: what is weighed on, which step was left, what was ticked, prices and the
    time that the cheap re-weigh lasts.

    ``ticket_at`` is in milliseconds since 1970, by the clock of the device that noted it.
    """

    scale: ScaleKind = "truck_scale"
    uncouple: bool = True
    at: Annotated[int, Field(ge=0, le=99)] = 0
    ticked: Annotated[list[Annotated[str, Field(max_length=300)]], Field(max_length=300)] = []
    first_price: Short = ""
    again_price: Short = ""
    hours: Annotated[float, Field(ge=0, le=240)] = 24
    ticket_at: Annotated[int, Field(ge=0, le=2**53)] | None = None


class VisitOut(BaseModel):
    """The steps of a visit for this rig, and where it was left, if one is under way."""

    steps: list[VisitStep]
    state: VisitState | None


class DriveNotes(BaseModel):
    """How the rig drove with what was weighed: a word for each, and fuel over distance as texts
    with their units.
    """

    sway: Text = ""
    squat: Text = ""
    mirrors: Text = ""
    braking: Text = ""
    wind: Text = ""
    distance: Short = ""
    fuel: Short = ""
    note: Text = ""


class OwnLine(BaseModel):
    """A line of the owner's own."""

    id: int
    text: str
    trip: bool
    done_at: datetime.datetime | None
    done_by: str | None


class NewLine(BaseModel):
    """A line to be added."""

    text: Annotated[str, Field(min_length=1, max_length=300)]
    trip: bool = False


class Tick(BaseModel):
    """Whether a line is done; ``ago`` is how long since, where a device could not send it at once.
    [s]
    """

    done: bool
    by: Short = ""
    ago: Annotated[int, Field(ge=0, le=366 * 86_400)] = 0


def visits_of(request: Request) -> Visits:
    """The visits of the running application."""
    visits: Visits = request.app.state.visits
    return visits


TheVisits = Annotated[Visits, Depends(visits_of)]


@router.get("/rigs/{rig_id}/visit")
def read_visit(
    rig_id: Id,
    rigs: TheRigs,
    visits: TheVisits,
    scale: ScaleKind = "truck_scale",
    uncouple: bool = True,
) -> VisitOut:
    """What to do at the scale, step by step, and where the visit was left."""
    rig = settle(rigs.open(rig_id).document).rig
    state = visits.visit(rig_id)
    return VisitOut(
        steps=visit_steps(rig, scale, uncouple),
        state=VisitState.model_validate(state) if state else None,
    )


@router.put("/rigs/{rig_id}/visit", status_code=204)
def keep_visit(rig_id: Id, state: VisitState, visits: TheVisits) -> None:
    """Keep where the visit was left."""
    visits.keep_visit(rig_id, state.model_dump())


@router.delete("/rigs/{rig_id}/visit", status_code=204)
def end_visit(rig_id: Id, visits: TheVisits) -> None:
    """End the visit."""
    visits.keep_visit(rig_id, None)


@router.get("/rigs/{rig_id}/drives")
def read_drives(rig_id: Id, visits: TheVisits) -> dict[int, DriveNotes]:
    """How the rig drove, by the number that its weigh-in has now."""
    return {key: DriveNotes.model_validate(note) for key, note in visits.notes(rig_id).items()}


@router.put("/rigs/{rig_id}/drives/{weigh_in}", status_code=204)
def keep_drive(rig_id: Id, weigh_in: Id, notes: DriveNotes, visits: TheVisits) -> None:
    """Keep how it drove with a weigh-in, by its identity; notes without a word are taken away."""
    kept = notes.model_dump()
    visits.keep_notes(rig_id, weigh_in, kept if any(kept.values()) else None)


@router.get("/rigs/{rig_id}/fees")
def read_fees(rig_id: Id, visits: TheVisits) -> list[str]:
    """What was spent on weighing: a sum for each currency, in words."""
    return spent(visits.fees(rig_id))


def _lines(visits: Visits, rig_id: str) -> list[OwnLine]:
    return [
        OwnLine(
            id=line.id,
            text=line.text,
            trip=line.trip,
            done_at=when_done(line),
            done_by=line.done_by,
        )
        for line in visits.lines(rig_id)
    ]


@router.get("/rigs/{rig_id}/lines")
def read_lines(rig_id: Id, visits: TheVisits) -> list[OwnLine]:
    """The owner's own lines on the ready-to-roll list."""
    return _lines(visits, rig_id)


@router.post("/rigs/{rig_id}/lines")
def add_line(rig_id: Id, line: NewLine, visits: TheVisits, sent: HowSent) -> list[OwnLine]:
    """Add a line."""
    visits.add_line(rig_id, " ".join(line.text.split()), trip=line.trip, key=sent.key)
    return _lines(visits, rig_id)


@router.put("/rigs/{rig_id}/lines/{line}")
def tick_line(
    rig_id: Id,
    line: Annotated[int, Path(ge=0, le=2**53)],
    tick: Tick,
    request: Request,
    visits: TheVisits,
) -> list[OwnLine]:
    """Tick a line, or take the tick away; by the name that was given, or the device's."""
    device = device_of(request.scope)
    by = tick.by.strip() or (device.name if device else "")
    visits.tick_line(rig_id, line, by if tick.done else None, tick.ago)
    return _lines(visits, rig_id)


@router.delete("/rigs/{rig_id}/lines/{line}")
def drop_line(
    rig_id: Id, line: Annotated[int, Path(ge=0, le=2**53)], visits: TheVisits
) -> list[OwnLine]:
    """Take a line away."""
    visits.drop_line(rig_id, line)
    return _lines(visits, rig_id)


@router.post("/rigs/{rig_id}/lines/trip-over")
def end_trip(rig_id: Id, visits: TheVisits) -> list[OwnLine]:
    """Take the trip's lines away, and every tick."""
    visits.end_trip(rig_id)
    return _lines(visits, rig_id)
