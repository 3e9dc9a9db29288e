"""Vehicles, hitches and trailers in the database: assembled into a rig's document, and written back from it."""

import datetime
import json
import uuid
from typing import Any

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from noxel.core.convert import spell_out
from noxel.core.document import Document
from noxel.errors import NotFound
from noxel.store.models import RigRow, ThingRow

KINDS = ("vehicle", "hitch", "trailer")
"""The parts of a rig that are things of their own."""


def now() -> datetime.datetime:
    """The time as the tables keep it: UTC, without a zone."""
    return datetime.datetime.now(datetime.UTC).replace(tzinfo=None)


def dump(document: Any) -> str:
    """A document as the tables keep it."""
    return json.dumps(document, ensure_ascii=False, separators=(",", ":"))


def part_in(thing: ThingRow, units: dict[str, str]) -> Any:
    """A thing as a part of a rig with these units: as it was written, or with each figure's unit spelled out."""
    kept = json.loads(thing.document)
    if kept["units"] == units:
        return kept["part"]
    frame = {"format": "noxel-rig", "version": 1, "units": kept["units"], "kind": "conventional", thing.kind: kept["part"]}
    return spell_out(frame)[thing.kind]


def assemble(session: Session, row: RigRow) -> Document:
    """A rig's document with its things in it, without its weigh-ins."""
    made: Document = json.loads(row.document)
    for kind in KINDS:
        key = getattr(row, f"{kind}_id")
        thing = session.get(ThingRow, key) if key else None
        if thing is not None:
            made[kind] = part_in(thing, made["units"])
    return made


def write_part(session: Session, row: RigRow, kind: str, part: Any, units: dict[str, str]) -> None:
    """Write a part of a rig back to its thing; a part that is gone is uncoupled, a new one becomes a thing."""
    key = getattr(row, f"{kind}_id")
    if part is None:
        setattr(row, f"{kind}_id", None)
        return
    thing = session.get(ThingRow, key) if key else None
    if thing is None:
        thing = new_thing(session, kind)
        setattr(row, f"{kind}_id", thing.id)
    thing.document, thing.name, thing.updated_at = dump({"units": units, "part": part}), part.get("name", ""), now()


def new_thing(session: Session, kind: str) -> ThingRow:
    """A thing about which nothing is known yet."""
    thing = ThingRow(id=uuid.uuid4().hex, kind=kind, name="", document="", created_at=now(), updated_at=now())
    session.add(thing)
    session.flush()
    return thing


def copy_thing(session: Session, thing: ThingRow) -> ThingRow:
    """The same thing again, to be changed apart; its name says so."""
    made = new_thing(session, thing.kind)
    kept = json.loads(thing.document)
    name = f"{thing.name or thing.kind} (copy)"
    made.document, made.name = dump({**kept, "part": {**kept["part"], "name": name}}), name
    return made


def thing_of(session: Session, key: str, kind: str | None = None) -> ThingRow:
    """A thing by its id.

    Raises
    ------
    NotFound
        If there is none of that id, or it is of another kind.
    """
    thing = session.get(ThingRow, key)
    if thing is None or (kind is not None and thing.kind != kind):
        raise NotFound(f"There is no such {kind or 'thing'} in the garage.")
    return thing


def rigs_with(session: Session, key: str) -> list[RigRow]:
    """Every rig that couples a thing, deleted ones too."""
    coupled = or_(RigRow.vehicle_id == key, RigRow.hitch_id == key, RigRow.trailer_id == key)
    return list(session.scalars(select(RigRow).where(coupled).order_by(RigRow.updated_at.desc())))
