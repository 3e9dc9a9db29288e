"""``/api/rigs``: the rigs, their sheets, and every change to them."""

import datetime
import json
from dataclasses import replace
from typing import Annotated, Any
from urllib.parse import quote

from fastapi import Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel, Field

from noxel.api.deps import (
    CreatedId,
    EquipmentKind,
    HowSent,
    Id,
    Looking,
    TheGarage,
    TheRigs,
    as_file,
    as_json,
    file_stem,
    new_router,
)
from noxel.api.progress import ProgressName, TheWorks
from noxel.api.sheet import Changes, MakersTable, NewRig, NewUnits, Sheet, answer_sheet
from noxel.core.editing import Change, Document, apply_changes, new_rig, settle, switch_units
from noxel.core.evaluate import evaluate
from noxel.core.plates import Door, PathStep, read_table, short_path
from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.core.weigh import ScaleKind, new_weigh_in, plan, scales_for
from noxel.core.wording import Evaluation, PassAnswer
from noxel.demo import example, load_demo
from noxel.formats.rig_json import SUFFIX, read_rig, write_rig
from noxel.store.stored import RigSummary

router = new_router()
_RIG_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/RigFile"}}},
    }
}


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


class Examples(BaseModel):
    """The ids of the rigs that were added as examples."""

    ids: list[str]


class CopyRig(BaseModel):
    """What a copied rig is called, and which of its equipment is copied with it; the rest is
    shared.
    """

    name: Annotated[str, Field(max_length=200)] = ""
    apart: list[EquipmentKind] = []


@router.post("/evaluate", response_model=Evaluation, openapi_extra=_RIG_BODY)
async def evaluate_file(request: Request, weigh_in: Looking = None) -> Response:
    """Evaluate a rig file without keeping it."""
    data = await request.body()
    return await run_in_threadpool(lambda: as_json(evaluate(read_rig(data), weigh_in)))


@router.get("/rigs")
def list_rigs(rigs: TheRigs, deleted: bool = False) -> list[RigSummary]:
    """Every rig, the last used first; or those that were deleted and can be brought back."""
    return rigs.summaries(deleted=deleted)


@router.post("/rigs", status_code=201)
def start_rig(new: NewRig, rigs: TheRigs) -> CreatedId:
    """Start a rig about which nothing is known yet."""
    document = new_rig(new.name, new.kind, new.mass, new.terms, alone=new.alone)
    return CreatedId(id=rigs.add(document))


@router.get("/example", response_model=Evaluation)
def look_at_example() -> Response:
    """What is said of an invented rig; nothing is kept."""
    return as_json(evaluate(example()))


@router.post("/examples", status_code=201)
def add_examples(rigs: TheRigs) -> Examples:
    """Add the demo household's rigs, marked as examples."""
    return Examples(ids=load_demo(rigs, example=True))


@router.delete("/examples", status_code=204)
def drop_examples(rigs: TheRigs) -> None:
    """Throw the examples away, with their weigh-ins and the equipment that no other rig has."""
    rigs.drop_examples()


@router.post("/rigs/import", status_code=201, openapi_extra=_RIG_BODY)
async def import_rig(
    request: Request, rigs: TheRigs, works: TheWorks, work: ProgressName = None
) -> CreatedId:
    """Import a rig file: all of it, or nothing."""
    data = await request.body()

    def take() -> CreatedId:
        with works.under_way(work) as report:
            report(0, 0, "reading the file")
            return CreatedId(id=rigs.add(dump_rig(read_rig(data)), report))

    return await run_in_threadpool(take)


@router.get("/rigs/{rig_id}", response_model=Sheet)
def open_rig(rig_id: Id, rigs: TheRigs, weigh_in: Looking = None) -> Response:
    """A rig with everything that was typed and everything that follows from it."""
    return answer_sheet(rigs.open(rig_id, weigh_in))


@router.patch("/rigs/{rig_id}", response_model=Sheet)
def change_rig(
    rig_id: Id, wanted: Changes, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Change a rig by what was typed; the answer is the whole new sheet."""
    how = replace(
        sent,
        by=wanted.by or sent.by,
        seen=wanted.seen,
        epoch=wanted.epoch,
        overrules=wanted.overrules,
    )
    what, changes, gesture = wanted.what, wanted.changes, wanted.gesture
    stored = rigs.enter(rig_id, what, changes, gesture, looking=weigh_in, sent=how)
    return answer_sheet(stored)


@router.post("/rigs/{rig_id}/units", response_model=Sheet)
def switch_the_units(
    rig_id: Id, units: NewUnits, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Work in other units from now on; every figure keeps its value, and says its own unit where it
    was typed in another.
    """
    stored = rigs.change(
        rig_id,
        "units",
        lambda document: switch_units(document, units.mass, units.length, units.pressure),
        looking=weigh_in,
        entire=True,
        sent=sent,
    )
    return answer_sheet(stored)


@router.post("/rigs/{rig_id}/table", response_model=Sheet)
def set_table(
    rig_id: Id, typed: MakersTable, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Take a maker's table, a row a line: all of it, or none and each bad line by its number."""
    rows = read_table(typed.path, typed.text)

    def put(document: Document) -> Document:
        without = apply_changes(document, [Change(typed.path, op="remove")]).document
        changes = [Change(typed.path, op="insert", value={}, texts=row) for row in rows]
        return apply_changes(without, changes).document

    return answer_sheet(rigs.change(rig_id, "maker's table", put, looking=weigh_in, sent=sent))


@router.get("/rigs/{rig_id}/path")
def path_of(rig_id: Id, door: Door, rigs: TheRigs) -> list[PathStep]:
    """The steps of a short path, for this kind of rig and in the words of its region."""
    return short_path(settle(rigs.open(rig_id).document).rig, door)


@router.get("/rigs/{rig_id}/plan")
def plan_weigh_in(
    rig_id: Id, rigs: TheRigs, scale: ScaleKind = "truck_scale", uncouple: bool = True
) -> PassPlan:
    """A short plan of passes for what there is to weigh on and what can be uncoupled there."""
    rig = settle(rigs.open(rig_id).document).rig
    kinds = [ScaleOffer(kind=kind, name=name, says=says) for kind, name, says in scales_for(rig)]
    return PassPlan(scales=kinds, passes=plan(rig, scale, uncouple))


@router.post("/rigs/{rig_id}/weigh-ins", response_model=Sheet)
def start_weigh_in(
    rig_id: Id,
    rigs: TheRigs,
    sent: HowSent,
    scale: ScaleKind = "truck_scale",
    uncouple: bool = True,
) -> Response:
    """Add a weigh-in of today with the passes of the plan, nothing read yet, and look at it."""

    def add(document: Document) -> Document:
        rig = parse_rig(document)
        fresh = new_weigh_in(rig, datetime.date.today(), scale, uncouple)
        return apply_changes(document, [Change("weigh_ins", op="insert", value=fresh)]).document

    return answer_sheet(rigs.change(rig_id, "new weigh-in", add, sent=sent))


@router.post("/rigs/{rig_id}/undo", response_model=Sheet)
def undo(rig_id: Id, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None) -> Response:
    """Undo the last step."""
    return answer_sheet(rigs.undo(rig_id, weigh_in, sent=sent))


@router.post("/rigs/{rig_id}/redo", response_model=Sheet)
def redo(rig_id: Id, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None) -> Response:
    """Redo the step that was undone last."""
    return answer_sheet(rigs.redo(rig_id, weigh_in, sent=sent))


@router.post("/rigs/{rig_id}/copy", status_code=201)
def copy_rig(rig_id: Id, wanted: CopyRig, rigs: TheRigs, garage: TheGarage) -> CreatedId:
    """The rig again with its loads and plan, without its weigh-ins: to try another trim, hitch or
    trailer.
    """
    return CreatedId(id=garage.copy_rig(rigs.row(rig_id), wanted.name, wanted.apart))


@router.delete("/rigs/{rig_id}", status_code=204)
def delete_rig(rig_id: Id, rigs: TheRigs) -> None:
    """Take a rig out of the list; it can be brought back."""
    rigs.delete(rig_id)


@router.post("/rigs/{rig_id}/bring-back", status_code=204)
def bring_back_rig(rig_id: Id, rigs: TheRigs) -> None:
    """Bring a deleted rig back."""
    rigs.delete(rig_id, bring_back=True)


@router.get("/rigs/{rig_id}/file", response_class=Response)
def export_rig(rig_id: Id, rigs: TheRigs) -> Response:
    """The rig file, as it would be imported."""
    rig = settle(rigs.open(rig_id, entire=True).document).rig
    disposition = (
        f"attachment; filename=\"rig{SUFFIX}\"; filename*=UTF-8''{quote(file_stem(rig) + SUFFIX)}"
    )
    return Response(
        write_rig(rig), media_type="application/json", headers={"content-disposition": disposition}
    )


@router.get("/rigs/{rig_id}/raw", response_class=Response)
def export_raw(rig_id: Id, rigs: TheRigs) -> Response:
    """What is stored of a rig, as text, also where it can no longer be read."""
    raw = rigs.raw(rig_id)
    return as_file(
        json.dumps(raw, ensure_ascii=True, indent=1), "damaged-rig.txt", "text/plain; charset=utf-8"
    )


@router.get("/schema/rig-file.json")
def rig_file_schema() -> dict[str, Any]:
    """The JSON Schema of the rig file."""
    return RigFile.model_json_schema()
