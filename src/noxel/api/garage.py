"""``/api/garage``: vehicles, hitches and trailers on their own, coupled into rigs."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from noxel.api.deps import CreatedId, EquipmentKind, Id, TheGarage, new_router
from noxel.core.editing import Change, apply_changes, new_rig
from noxel.core.plates import Fact, describe
from noxel.core.quantities import MassUnit
from noxel.core.rig import Kind
from noxel.errors import InputError, Problem
from noxel.store.garage import Equipment

router = new_router()


class CoupledRig(BaseModel):
    """A rig that a piece of equipment is part of."""

    id: str
    name: str


class EquipmentOut(BaseModel):
    """A piece of equipment as the garage shows it: its name, its main figures, the rigs it is
    in.
    """

    id: str
    kind: EquipmentKind
    name: str
    retired: bool
    facts: list[Fact]
    rigs: list[CoupledRig]
    damaged: bool


class Couple(BaseModel):
    """Which equipment makes a rig; without a hitch or a trailer of the garage, a towing rig starts
    with blank ones.
    """

    name: Annotated[str, Field(max_length=200)] = ""
    kind: Kind
    vehicle: str
    hitch: str | None = None
    trailer: str | None = None


class Brochure(BaseModel):
    """A vehicle or a trailer typed from a brochure, by the rig file's paths below it, as texts."""

    kind: Literal["vehicle", "trailer"]
    mass: MassUnit
    texts: dict[
        Annotated[str, Field(min_length=1, max_length=200)], Annotated[str, Field(max_length=200)]
    ]


def _out(equipment: Equipment) -> EquipmentOut:
    facts: list[Fact] = []
    damaged = equipment.damaged
    if not damaged:
        try:
            facts = describe(equipment.kind, equipment.part, equipment.units)
        except InputError:  # stored before there were checksums, and no longer a part of a rig file
            damaged = True
    rigs = [CoupledRig(id=rig.id, name=rig.name) for rig in equipment.rigs]
    return EquipmentOut(
        id=equipment.id,
        kind=equipment.kind,
        name=equipment.name,
        retired=equipment.retired,
        facts=facts,
        rigs=rigs,
        damaged=damaged,
    )


@router.get("/garage")
def list_equipment(garage: TheGarage) -> list[EquipmentOut]:
    """Every vehicle, hitch and trailer, the last changed first; retired last."""
    return [_out(equipment) for equipment in garage.equipment()]


@router.post("/garage/couple", status_code=201)
def couple(wanted: Couple, garage: TheGarage) -> CreatedId:
    """A new rig of equipment in the garage."""
    named = {"vehicle": wanted.vehicle, "hitch": wanted.hitch, "trailer": wanted.trailer}
    blank = new_rig(wanted.name, wanted.kind, "lb")
    spare: dict[str, Any] = {kind: blank[kind] for kind in ("hitch", "trailer") if kind in blank}
    equipment = {kind: key for kind, key in named.items() if key}
    return CreatedId(id=garage.couple(wanted.name, wanted.kind, equipment, spare))


@router.post("/garage/{equipment}/copy", status_code=201)
def copy_equipment(equipment: Id, garage: TheGarage) -> CreatedId:
    """A copy, to be changed on its own."""
    return CreatedId(id=garage.copy(equipment))


@router.post("/garage/{equipment}/retire", status_code=204)
def retire(equipment: Id, garage: TheGarage) -> None:
    """Retire equipment; the rigs it is in keep it, with their weigh-ins."""
    garage.retire(equipment)


@router.post("/garage/{equipment}/bring-back", status_code=204)
def bring_back(equipment: Id, garage: TheGarage) -> None:
    """Offer retired equipment again."""
    garage.retire(equipment, bring_back=True)


@router.delete("/garage/{equipment}", status_code=204)
def remove(equipment: Id, garage: TheGarage) -> None:
    """Take a piece of equipment away that no rig couples."""
    garage.remove(equipment)


@router.post("/garage", status_code=201)
def from_brochure(typed: Brochure, garage: TheGarage) -> CreatedId:
    """Keep a vehicle or a trailer typed from a brochure; every figure counts as read in a
    manual.
    """
    kind: Kind = "conventional"
    blank = new_rig("", kind, typed.mass)
    changes = [
        Change(f"{typed.kind}.{path}", text, source="manual" if path != "name" else None)
        for path, text in typed.texts.items()
    ]
    edited = apply_changes(blank, changes)
    wrong = [
        Problem(field.path, field.problem, "quantity.invalid")
        for field in edited.fields
        if field.problem
    ]
    if wrong:
        raise InputError(str(wrong[0]), wrong)
    part = edited.document.get(typed.kind)
    if not part or not any(text.strip() for text in typed.texts.values()):
        raise InputError(
            f"Nothing about the {typed.kind} was typed.",
            [Problem("texts", "is empty", "input.missing")],
        )
    return CreatedId(id=garage.add(typed.kind, part, edited.document["units"]))
