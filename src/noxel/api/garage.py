"""``/api/garage``: vehicles, hitches and trailers on their own, coupled into rigs."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Depends, Request
from pydantic import BaseModel, Field

from noxel.api.problems import ProblemDetails
from noxel.api.rigs import CreatedId, Store
from noxel.core.editing import new_rig
from noxel.core.plates import Fact, describe
from noxel.core.rig import Kind
from noxel.store.garage import Equipment, Garage

router = APIRouter(prefix="/api", responses={422: {"model": ProblemDetails}})
EquipmentKind = Literal["vehicle", "hitch", "trailer"]


def garage_of(request: Request) -> Garage:
    """The garage of the running application."""
    garage: Garage = request.app.state.garage
    return garage


TheGarage = Annotated[Garage, Depends(garage_of)]


class CoupledRig(BaseModel):
    """A rig that a piece of equipment is part of."""

    id: str
    name: str


class EquipmentOut(BaseModel):
    """A piece of equipment as the garage shows it: its name, its main figures, the rigs it is in."""

    id: str
    kind: EquipmentKind
    name: str
    retired: bool
    facts: list[Fact]
    rigs: list[CoupledRig]


class Couple(BaseModel):
    """Which equipment makes a rig; without a hitch or a trailer of the garage, a towing rig starts with blank ones."""

    name: Annotated[str, Field(max_length=200)] = ""
    kind: Kind
    vehicle: str
    hitch: str | None = None
    trailer: str | None = None


class CopyRig(BaseModel):
    """What a copied rig is called, and which of its equipment is copied with it; the rest is shared."""

    name: Annotated[str, Field(max_length=200)] = ""
    apart: list[EquipmentKind] = []


def _out(equipment: Equipment) -> EquipmentOut:
    facts = describe(equipment.kind, equipment.part, equipment.units)
    rigs = [CoupledRig(id=rig.id, name=rig.name) for rig in equipment.rigs]
    return EquipmentOut(
        id=equipment.id, kind=equipment.kind, name=equipment.name, retired=equipment.retired, facts=facts, rigs=rigs
    )


@router.get("/garage")
def list_equipment(garage: TheGarage) -> list[EquipmentOut]:
    """Every vehicle, hitch and trailer, the last changed first; retired last."""
    return [_out(equipment) for equipment in garage.list()]


@router.post("/garage/couple", status_code=201)
def couple(wanted: Couple, garage: TheGarage) -> CreatedId:
    """A new rig of equipment in the garage."""
    named = {"vehicle": wanted.vehicle, "hitch": wanted.hitch, "trailer": wanted.trailer}
    blank = new_rig(wanted.name, wanted.kind, "lb")
    spare: dict[str, Any] = {kind: blank[kind] for kind in ("hitch", "trailer") if kind in blank}
    equipment = {kind: key for kind, key in named.items() if key}
    return CreatedId(id=garage.couple(wanted.name, wanted.kind, equipment, spare))


@router.post("/garage/{equipment}/copy", status_code=201)
def copy_equipment(equipment: str, garage: TheGarage) -> CreatedId:
    """A copy, to be changed on its own."""
    return CreatedId(id=garage.copy(equipment))


@router.post("/garage/{equipment}/retire", status_code=204)
def retire(equipment: str, garage: TheGarage) -> None:
    """Retire equipment; the rigs it is in keep it, with their weigh-ins."""
    garage.retire(equipment)


@router.post("/garage/{equipment}/bring-back", status_code=204)
def bring_back(equipment: str, garage: TheGarage) -> None:
    """Offer retired equipment again."""
    garage.retire(equipment, bring_back=True)


@router.delete("/garage/{equipment}", status_code=204)
def remove(equipment: str, garage: TheGarage) -> None:
    """Take a piece of equipment away that no rig couples."""
    garage.remove(equipment)


@router.post("/rigs/{rig_id}/copy", status_code=201)
def copy_rig(rig_id: str, wanted: CopyRig, rigs: Store, garage: TheGarage) -> CreatedId:
    """The rig again with its loads and plan, without its weigh-ins: to try another trim, hitch or trailer."""
    return CreatedId(id=garage.copy_rig(rigs.row(rig_id), wanted.name, wanted.apart))
