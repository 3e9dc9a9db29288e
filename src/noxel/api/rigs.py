"""``/api/rigs``: the rigs, their sheets, and every change to them."""

import datetime
import re
from typing import Annotated, Any
from urllib.parse import quote

from fastapi import APIRouter, Depends, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from noxel.api.problems import ProblemDetails
from noxel.api.progress import ProgressName, TheWorks
from noxel.api.sheet import Changes, NewRig, NewUnits, PressureTable, RigSummary, Sheet, make_sheet
from noxel.core.editing import Change, Document, apply_changes, new_rig, settle, switch_units
from noxel.core.evaluate import evaluate
from noxel.core.limits import read_pressure_table
from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.core.weigh import SCALES, ScaleKind, new_weigh_in, plan
from noxel.core.wording import Evaluation, PassAnswer
from noxel.errors import NotFound
from noxel.formats.rig_json import SUFFIX, read_rig, write_rig
from noxel.store.rigs import Rigs, Stored

router = APIRouter(prefix="/api", responses={422: {"model": ProblemDetails}})
_RIG_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/RigFile"}}},
    }
}


def rigs_of(request: Request) -> Rigs:
    """The rigs of the running application."""
    rigs: Rigs = request.app.state.rigs
    return rigs


def sheet_as_json(answer: BaseModel) -> Response:
    """An answer as JSON, written by its own model: the sheet is read at every keystroke."""
    return Response(answer.model_dump_json(), media_type="application/json")


def file_stem(rig: RigFile) -> str:
    """What a rig's files are called, without an ending."""
    return re.sub(r"[^\w]+", "-", rig.name.lower()).strip("-") or "rig"


def open_at(rigs: Rigs, rig_id: str, weigh_in: int | None, *, entire: bool = False) -> Stored:
    """A rig looked at by a weigh-in that must be there, where one is asked for.

    Raises
    ------
    NotFound
        If there is no such rig or no such weigh-in.
    """
    stored = rigs.open(rig_id, weigh_in, entire=entire)
    if weigh_in and weigh_in not in stored.window.numbers:
        raise NotFound(f"There is no weigh-in {weigh_in}; the rig has {stored.window.count or 'none'}.")
    return stored


Store = Annotated[Rigs, Depends(rigs_of)]
Looking = Annotated[int | None, Query(ge=1, description="Which weigh-in to look at, from 1; the last if absent.")]


class Health(BaseModel):
    """That it runs, and which version."""

    status: str
    version: str


class ScaleOffer(BaseModel):
    """Something to weigh on."""

    kind: ScaleKind
    name: str
    says: str


class PassPlan(BaseModel):
    """What can be weighed on, and the passes for the one chosen."""

    scales: list[ScaleOffer]
    passes: list[PassAnswer]


class CreatedId(BaseModel):
    """The id of what was added."""

    id: str


@router.post("/evaluate", response_model=Evaluation, openapi_extra=_RIG_BODY)
async def evaluate_file(request: Request, weigh_in: Looking = None) -> Response:
    """Evaluate a rig file without keeping it."""
    return sheet_as_json(evaluate(read_rig(await request.body()), weigh_in))


@router.get("/rigs")
def list_rigs(rigs: Store, deleted: bool = False) -> list[RigSummary]:
    """Every rig, the last used first; or those that were deleted and can be brought back."""
    return [RigSummary.model_validate(summary, from_attributes=True) for summary in rigs.list(deleted=deleted)]


@router.post("/rigs", status_code=201)
def start_rig(new: NewRig, rigs: Store) -> CreatedId:
    """Start a rig about which nothing is known yet."""
    return CreatedId(id=rigs.add(new_rig(new.name, new.kind, new.mass)))


@router.post("/rigs/import", status_code=201, openapi_extra=_RIG_BODY)
async def import_rig(request: Request, rigs: Store, works: TheWorks, work: ProgressName = None) -> CreatedId:
    """Import a rig file: all of it, or nothing."""
    data = await request.body()

    def take() -> CreatedId:
        with works.under_way(work) as report:
            report(0, 0, "reading the file")
            return CreatedId(id=rigs.add(dump_rig(read_rig(data)), report))

    return await run_in_threadpool(take)


@router.get("/rigs/{rig_id}", response_model=Sheet)
def open_rig(rig_id: str, rigs: Store, weigh_in: Looking = None) -> Response:
    """A rig with everything that was typed and everything that follows from it."""
    return sheet_as_json(make_sheet(rigs.open(rig_id, weigh_in)))


@router.patch("/rigs/{rig_id}", response_model=Sheet)
def change_rig(rig_id: str, wanted: Changes, rigs: Store, weigh_in: Looking = None) -> Response:
    """Change a rig by what was typed; the answer is the whole new sheet."""
    changes = [each.change() for each in wanted.changes]
    stored = rigs.change(rig_id, wanted.what, lambda document: apply_changes(document, changes).document, wanted.gesture,
                         looking=weigh_in, keys=wanted.window, entire=wanted.window is None)  # fmt: skip
    return sheet_as_json(make_sheet(stored))


@router.post("/rigs/{rig_id}/units", response_model=Sheet)
def switch_the_units(rig_id: str, units: NewUnits, rigs: Store, weigh_in: Looking = None) -> Response:
    """Work in other units from now on; every figure keeps its value, and says its own unit where it was typed in another."""
    stored = rigs.change(rig_id, "units", lambda document: switch_units(document, units.mass, units.length, units.pressure),
                         looking=weigh_in, entire=True)  # fmt: skip
    return sheet_as_json(make_sheet(stored))


@router.post("/rigs/{rig_id}/pressure-table", response_model=Sheet)
def set_pressure_table(rig_id: str, typed: PressureTable, rigs: Store, weigh_in: Looking = None) -> Response:
    """Take a tire maker's table of pressures and loads, a row a line: all of it, or none and each bad line by its number."""
    rows = [{"pressure": pressure, "load": load} for pressure, load in read_pressure_table(typed.text)]

    def put(document: Document) -> Document:
        made = apply_changes(document, [Change(f"{typed.tires}.table", op="remove")]).document
        changes = [Change(f"{typed.tires}.table[{index}]", op="insert", value={}, texts=row) for index, row in enumerate(rows)]
        return apply_changes(made, changes).document

    return sheet_as_json(make_sheet(rigs.change(rig_id, "tire table", put, looking=weigh_in)))


@router.get("/rigs/{rig_id}/plan")
def plan_weigh_in(rig_id: str, rigs: Store, scale: ScaleKind = "truck_scale", uncouple: bool = True) -> PassPlan:
    """A short plan of passes for what there is to weigh on and what can be uncoupled there."""
    rig = settle(rigs.open(rig_id).document).rig
    kinds = [
        ScaleOffer(kind=kind, name=name, says=says) for kind, name, says in SCALES if rig.towing or kind != "trailer_platform"
    ]
    return PassPlan(scales=kinds, passes=plan(rig, scale, uncouple))


@router.post("/rigs/{rig_id}/weigh-ins", response_model=Sheet)
def start_weigh_in(rig_id: str, rigs: Store, scale: ScaleKind = "truck_scale", uncouple: bool = True) -> Response:
    """Add a weigh-in of today with the passes of the plan, nothing read yet, and look at it."""

    def add(document: Document) -> Document:
        rig = parse_rig(document)
        fresh = new_weigh_in(rig, datetime.date.today(), scale, uncouple)
        return apply_changes(document, [Change(f"weigh_ins[{len(rig.weigh_ins)}]", op="insert", value=fresh)]).document

    return sheet_as_json(make_sheet(rigs.change(rig_id, "new weigh-in", add)))


@router.post("/rigs/{rig_id}/undo", response_model=Sheet)
def undo(rig_id: str, rigs: Store, weigh_in: Looking = None) -> Response:
    """Undo the last step."""
    return sheet_as_json(make_sheet(rigs.undo(rig_id, weigh_in)))


@router.post("/rigs/{rig_id}/redo", response_model=Sheet)
def redo(rig_id: str, rigs: Store, weigh_in: Looking = None) -> Response:
    """Redo the step that was undone last."""
    return sheet_as_json(make_sheet(rigs.redo(rig_id, weigh_in)))


@router.delete("/rigs/{rig_id}", status_code=204)
def delete_rig(rig_id: str, rigs: Store) -> None:
    """Take a rig out of the list; it can be brought back."""
    rigs.delete(rig_id)


@router.post("/rigs/{rig_id}/bring-back", status_code=204)
def bring_back_rig(rig_id: str, rigs: Store) -> None:
    """Bring a deleted rig back."""
    rigs.delete(rig_id, bring_back=True)


@router.get("/rigs/{rig_id}/file", response_class=Response)
def export_rig(rig_id: str, rigs: Store) -> Response:
    """The rig file, as it would be imported."""
    rig = settle(rigs.open(rig_id, entire=True).document).rig
    disposition = f"attachment; filename=\"rig{SUFFIX}\"; filename*=UTF-8''{quote(file_stem(rig) + SUFFIX)}"
    return Response(write_rig(rig), media_type="application/json", headers={"content-disposition": disposition})


@router.get("/schema/rig-file.json")
def rig_file_schema() -> dict[str, Any]:
    """The JSON Schema of the rig file."""
    return RigFile.model_json_schema()
