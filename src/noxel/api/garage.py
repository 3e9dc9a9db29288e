"""``/api/garage``: vehicles, hitches and trailers as things of their own, coupled into rigs."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Depends, Request
from pydantic import BaseModel, Field

from noxel.api.problems import ProblemDetails
from noxel.api.rigs import Added, Store
from noxel.core.describe import Fact, describe
from noxel.core.fresh import new_rig
from noxel.core.rig import Kind
from noxel.store.garage import Garage, Thing

router = APIRouter(prefix="/api", responses={422: {"model": ProblemDetails}})
ThingKind = Literal["vehicle", "hitch", "trailer"]


def garage_of(request: Request) -> Garage:
    """The garage of the running application."""
    garage: Garage = request.app.state.garage
    return garage


TheGarage = Annotated[Garage, Depends(garage_of)]


class CoupledRig(BaseModel):
    """A rig that a thing is part of."""

    id: str
    name: str


class ThingOut(BaseModel):
    """A thing as the garage shows it: its name, what matters of it, the rigs it is in."""

    id: str
    kind: ThingKind
    name: str
    retired: bool
    facts: list[Fact]
    rigs: list[CoupledRig]


class Couple(BaseModel):
    """Which things make a rig; without a hitch or a trailer of the garage, a towing rig starts with blank ones."""

    name: Annotated[str, Field(max_length=200)] = ""
    kind: Kind
    vehicle: str
    hitch: str | None = None
    trailer: str | None = None


class CopyRig(BaseModel):
    """What a copied rig is called, and which of its things are copied with it; the others are shared."""

    name: Annotated[str, Field(max_length=200)] = ""
    apart: list[ThingKind] = []


def _out(thing: Thing) -> ThingOut:
    facts = describe(thing.kind, thing.part, thing.units)
    rigs = [CoupledRig(id=rig.id, name=rig.name) for rig in thing.rigs]
    return ThingOut(id=thing.id, kind=thing.kind, name=thing.name, retired=thing.retired, facts=facts, rigs=rigs)


@router.get("/garage")
def list_things(garage: TheGarage) -> list[ThingOut]:
    """Every vehicle, hitch and trailer, the last changed first; retired ones last."""
    return [_out(thing) for thing in garage.list()]


@router.post("/garage/couple", status_code=201)
def couple(wanted: Couple, garage: TheGarage) -> Added:
    """A new rig of things in the garage."""
    named = {"vehicle": wanted.vehicle, "hitch": wanted.hitch, "trailer": wanted.trailer}
    blank = new_rig(wanted.name, wanted.kind, "lb")
    spare: dict[str, Any] = {kind: blank[kind] for kind in ("hitch", "trailer") if kind in blank}
    things = {kind: key for kind, key in named.items() if key}
    return Added(id=garage.couple(wanted.name, wanted.kind, things, spare))


@router.post("/garage/{thing}/copy", status_code=201)
def copy_thing(thing: str, garage: TheGarage) -> Added:
    """The same thing again, to be changed apart."""
    return Added(id=garage.copy(thing))


@router.post("/garage/{thing}/retire", status_code=204)
def retire(thing: str, garage: TheGarage) -> None:
    """Offer a thing no longer; the rigs it is in, and their weigh-ins, stay."""
    garage.retire(thing)


@router.post("/garage/{thing}/bring-back", status_code=204)
def bring_back(thing: str, garage: TheGarage) -> None:
    """Offer a retired thing again."""
    garage.retire(thing, bring_back=True)


@router.delete("/garage/{thing}", status_code=204)
def remove(thing: str, garage: TheGarage) -> None:
    """Take a thing away that no rig couples."""
    garage.remove(thing)


@router.post("/rigs/{rig_id}/copy", status_code=201)
def copy_rig(rig_id: str, wanted: CopyRig, rigs: Store, garage: TheGarage) -> Added:
    """The rig again with its loads and plan, without its weigh-ins: to try another trim, hitch or trailer."""
    return Added(id=garage.copy_rig(rigs.row(rig_id), wanted.name, wanted.apart))
