"""``/api/rigs/{id}/adjust``: steps tried, proposals, levers, the bars; plans kept and used in
Pack.
"""

import datetime
from dataclasses import replace
from typing import Annotated, Any

from fastapi import Response
from pydantic import BaseModel, Field

from noxel.api.deps import HowSent, Id, Looking, TheGarage, TheRigs, as_json, new_router
from noxel.api.sheet import Sheet, answer_sheet
from noxel.core.adjust import (
    BarCurve,
    Baseline,
    Lever,
    Proposals,
    Tried,
    TypedStep,
    bar_curve,
    baseline_of,
    do_steps,
    keep,
    levers,
    propose,
    read_step,
    try_steps,
)
from noxel.core.editing import Document, settle
from noxel.core.log import KeptAnswer, kept_answers
from noxel.core.rig import RigFile, Step, dump_rig, parse_rig
from noxel.core.wording import MissingFigure
from noxel.errors import Conflict
from noxel.store.garage import Garage
from noxel.store.rigs import Rigs
from noxel.store.window import Window

router = new_router("/api/rigs/{rig_id}/adjust")


class Steps(BaseModel):
    """Steps to try, in order; ``seen`` is the ``edits`` of the sheet that they count items in."""

    steps: Annotated[list[Step], Field(max_length=200)] = []
    seen: Annotated[int | None, Field(ge=0, le=2**53)] = None


class OneMore(Steps):
    """One more step, as typed, after those that are tried."""

    typed: TypedStep


class KeepSteps(Steps):
    """Steps to keep under a name."""

    name: Annotated[str, Field(min_length=1, max_length=200)]


class OnTheBench(BaseModel):
    """The base: where it starts, what is wrong and by which routes it goes, what the bars do, which
    plans were kept; ``missing`` are the lengths and places that would tell the rest.
    """

    tried: Tried
    levers: list[Lever]
    bars: BarCurve | None
    kept: list[KeptAnswer]
    missing: list[MissingFigure]


def _parts(garage: Garage, steps: list[Step]) -> dict[str, RigFile]:
    """The equipment of the garage that steps name, each in a rig of its own."""
    wanted = {step.thing for step in steps if step.thing}
    if not wanted:
        return {}
    vehicles = {
        vehicle.id: settle(vehicle.document).rig for vehicle in garage.entries(only=wanted).vehicles
    }
    hitches = {
        summary.id: parse_rig(
            {
                "format": "noxel-rig",
                "version": 1,
                "units": summary.units,
                "kind": "conventional",
                "hitch": summary.part,
            }
        )
        for summary in garage.equipment()
        if summary.kind == "hitch" and summary.id in wanted
    }
    return vehicles | hitches


def _base(rigs: Rigs, rig_id: Id, weigh_in: int | None) -> tuple[RigFile, Baseline, Window]:
    stored = rigs.open(rig_id, weigh_in)
    rig = settle(stored.document).rig
    return rig, baseline_of(rig, stored.window.at), stored.window


@router.post("", response_model=OnTheBench)
def adjust(
    rig_id: Id, wanted: Steps, rigs: TheRigs, garage: TheGarage, weigh_in: Looking = None
) -> Response:
    """Try steps on the rig as it was weighed (or planned): everything before and after."""
    rig, base, window = _base(rigs, rig_id, weigh_in)
    changed, _ = do_steps(base.rig, wanted.steps, _parts(garage, wanted.steps))
    after, rows = base.changed(changed), base.checks(changed)
    return as_json(
        OnTheBench(
            tried=try_steps(base, wanted.steps, _parts(garage, wanted.steps)),
            levers=levers(after, rows),
            bars=bar_curve(after, rows),
            kept=kept_answers(rig, window.numbers),
            missing=[MissingFigure(path=lack.path, message=lack.message) for lack in after.missing],
        )
    )


@router.post("/step")
def understand_step(
    rig_id: Id, wanted: OneMore, rigs: TheRigs, garage: TheGarage, weigh_in: Looking = None
) -> Step:
    """What one more typed step means, if it can be done after the others; nothing is changed."""
    _, base, _ = _base(rigs, rig_id, weigh_in)
    step = read_step(base.rig, wanted.typed)
    steps = [*wanted.steps, step]
    try_steps(base, steps, _parts(garage, steps))
    return step


@router.post("/proposals", response_model=Proposals)
def propose_changes(
    rig_id: Id, wanted: Steps, rigs: TheRigs, garage: TheGarage, weigh_in: Looking = None
) -> Response:
    """The easiest sets of steps that bring every known check right, or why there is none."""
    _, base, _ = _base(rigs, rig_id, weigh_in)
    changed, _ = do_steps(base.rig, wanted.steps, _parts(garage, wanted.steps))
    return as_json(propose(base.changed(changed)))


@router.post("/keep", response_model=Sheet)
def keep_steps(
    rig_id: Id,
    wanted: KeepSteps,
    rigs: TheRigs,
    garage: TheGarage,
    sent: HowSent,
    weigh_in: Looking = None,
) -> Response:
    """Keep steps under a name, with what is predicted of them, to be compared with the next
    weigh-in.
    """
    _, base, _ = _base(rigs, rig_id, weigh_in)
    plan = keep(
        base, wanted.name, wanted.steps, datetime.date.today(), _parts(garage, wanted.steps)
    )

    def put(document: Document) -> Document:
        kept = [*document.get("kept_plans", []), plan.model_dump(mode="json")]
        return settle({**document, "kept_plans": kept}).document

    how = replace(sent, seen=wanted.seen)
    return answer_sheet(rigs.change(rig_id, f"keep {wanted.name}", put, looking=weigh_in, sent=how))


@router.post("/apply", response_model=Sheet)
def apply_steps(
    rig_id: Id, wanted: Steps, rigs: TheRigs, sent: HowSent, weigh_in: Looking = None
) -> Response:
    """Put steps to work: the lists in Pack change, and the plan starts from the weigh-in they were
    tried on.
    """
    if any(step.kind in ("hitch", "vehicle") for step in wanted.steps):
        raise Conflict(
            "Another hitch or vehicle is a rig of its own: couple it in the garage. The other "
            "steps can be used in Pack."
        )
    window = rigs.open(rig_id, weigh_in).window

    def put(document: Document) -> Document:
        base = baseline_of(settle(document).rig, window.at_in(document))
        changed = dump_rig(do_steps(base.rig, wanted.steps)[0])
        parts: dict[str, Any] = {
            key: changed[key] for key in ("loads", "tanks", "plan", "hitch") if key in changed
        }
        return settle({**document, **parts}).document

    how = replace(sent, seen=wanted.seen)
    return answer_sheet(rigs.change(rig_id, "use a plan in Pack", put, looking=weigh_in, sent=how))
