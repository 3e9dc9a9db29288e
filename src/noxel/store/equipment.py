"""Vehicles, hitches and trailers in the database: assembled into a rig's document, and written back from it."""

import datetime
import json
import uuid
from typing import Any

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document, spell_out
from noxel.errors import NotFound
from noxel.store.models import EquipmentRow, RigRow

KINDS = ("vehicle", "hitch", "trailer")
"""The equipment of a rig: vehicle, hitch and trailer, each in a row of its own."""


def now() -> datetime.datetime:
    """The time as the tables keep it: UTC, without a zone."""
    return datetime.datetime.now(datetime.UTC).replace(tzinfo=None)


def dump(document: Any) -> str:
    """A document as the tables keep it."""
    return json.dumps(document, ensure_ascii=False, separators=(",", ":"))


def part_in(equipment: EquipmentRow, units: dict[str, str]) -> Any:
    """A piece of equipment as a part of a rig with these units: as it was written, or with each figure's unit spelled out."""
    kept = json.loads(equipment.document)
    if kept["units"] == units:
        return kept["part"]
    frame = {"format": "noxel-rig", "version": 1, "units": kept["units"], "kind": "conventional", equipment.kind: kept["part"]}
    return spell_out(frame)[equipment.kind]


def assemble(session: Session, row: RigRow) -> Document:
    """A rig's document with its equipment in it, without its weigh-ins."""
    made: Document = json.loads(row.document)
    for kind in KINDS:
        key = getattr(row, f"{kind}_id")
        equipment = session.get(EquipmentRow, key) if key else None
        if equipment is not None:
            made[kind] = part_in(equipment, made["units"])
    return made


def write_part(session: Session, row: RigRow, kind: str, part: Any, units: dict[str, str]) -> None:
    """Write a part of a rig back to its equipment; a part that is gone is uncoupled, a new one becomes equipment."""
    key = getattr(row, f"{kind}_id")
    if part is None:
        setattr(row, f"{kind}_id", None)
        return
    equipment = session.get(EquipmentRow, key) if key else None
    if equipment is None:
        equipment = new_equipment(session, kind)
        setattr(row, f"{kind}_id", equipment.id)
    equipment.document, equipment.name, equipment.updated_at = dump({"units": units, "part": part}), part.get("name", ""), now()


def new_equipment(session: Session, kind: str) -> EquipmentRow:
    """A piece of equipment about which nothing is known yet."""
    equipment = EquipmentRow(id=uuid.uuid4().hex, kind=kind, name="", document="", created_at=now(), updated_at=now())
    session.add(equipment)
    session.flush()
    return equipment


def copy_equipment(session: Session, equipment: EquipmentRow) -> EquipmentRow:
    """The same equipment again, to be changed apart; its name says so."""
    made = new_equipment(session, equipment.kind)
    kept = json.loads(equipment.document)
    name = f"{equipment.name or equipment.kind} (copy)"
    made.document, made.name = dump({**kept, "part": {**kept["part"], "name": name}}), name
    return made


def equipment_of(session: Session, key: str, kind: str | None = None) -> EquipmentRow:
    """A piece of equipment by its id.

    Raises
    ------
    NotFound
        If there is none of that id, or it is of another kind.
    """
    equipment = session.get(EquipmentRow, key)
    if equipment is None or (kind is not None and equipment.kind != kind):
        raise NotFound(f"There is no such {kind or 'equipment'} in the garage.")
    return equipment


def rigs_with(session: Session, key: str) -> list[RigRow]:
    """Every rig that couples a piece of equipment, deleted ones too."""
    coupled = or_(RigRow.vehicle_id == key, RigRow.hitch_id == key, RigRow.trailer_id == key)
    return list(session.scalars(select(RigRow).where(coupled).order_by(RigRow.updated_at.desc())))
