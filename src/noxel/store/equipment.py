"""Vehicles, hitches and trailers in the database: assembled into a rig's document, and written back
from it.
"""

import datetime
import uuid
from typing import Any

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document, spell_out, units_in_force
from noxel.errors import NotFound
from noxel.store.documents import dump, read_document
from noxel.store.models import EquipmentRow, RigRow

KINDS = ("vehicle", "hitch", "trailer")
"""The equipment of a rig: vehicle, hitch and trailer, each in a row of its own."""
ANY_KIND = "conventional"
"""The kind of a rig of which no more is known."""


def now() -> datetime.datetime:
    """The time as the tables keep it: UTC, without a zone."""
    return datetime.datetime.now(datetime.UTC).replace(tzinfo=None)


def read_equipment(equipment: EquipmentRow) -> Any:
    """The document of a piece of equipment: its part of a rig file, and its units.

    Raises Damaged if it is not what was written.
    """
    return read_document(equipment, f"The {equipment.kind} “{equipment.name}”")


def read_rig_row(row: RigRow) -> Any:
    """The document of a rig without its equipment and weigh-ins.

    Raises Damaged if it is not what was written.
    """
    return read_document(row, f"The rig “{row.name}”")


def part_in(equipment: EquipmentRow, units: dict[str, str]) -> Any:
    """A piece of equipment as a part of a rig with these units: as it was written, or with each
    figure's unit spelled out.
    """
    kept = read_equipment(equipment)
    if kept["units"] == units:
        return kept["part"]
    return spell_out(alone(equipment.kind, kept), units_in_force({"units": units}))[equipment.kind]


def alone(kind: str, kept: Any) -> Document:
    """A rig file with nothing but a piece of equipment, as it was read, in it."""
    part: Document = {kind: kept["part"]}
    return {"format": "noxel-rig", "version": 1, "units": kept["units"], "kind": ANY_KIND, **part}


def assemble(session: Session, row: RigRow) -> Document:
    """A rig's document with its equipment in it, without its weigh-ins."""
    document: Document = read_rig_row(row)
    for kind in KINDS:
        key = getattr(row, f"{kind}_id")
        equipment = session.get(EquipmentRow, key) if key else None
        if equipment is not None:
            document[kind] = part_in(equipment, document["units"])
    return document


def write_part(session: Session, row: RigRow, kind: str, part: Any, units: dict[str, str]) -> None:
    """Write a part of a rig back to its equipment; a part that is gone is uncoupled, a new one
    becomes equipment.
    """
    key = getattr(row, f"{kind}_id")
    if part is None:
        setattr(row, f"{kind}_id", None)
        return
    equipment = session.get(EquipmentRow, key) if key else None
    if equipment is None:
        setattr(row, f"{kind}_id", new_equipment(session, kind, part, units).id)
        return
    equipment.document, equipment.name = dump({"units": units, "part": part}), part.get("name", "")
    equipment.updated_at = now()


def new_equipment(
    session: Session, kind: str, part: dict[str, Any], units: dict[str, str]
) -> EquipmentRow:
    """A piece of equipment that is not in the garage yet."""
    equipment = EquipmentRow(
        id=uuid.uuid4().hex,
        kind=kind,
        name=part.get("name", ""),
        document=dump({"units": units, "part": part}),
        created_at=now(),
        updated_at=now(),
    )
    session.add(equipment)
    session.flush()
    return equipment


def new_rig_row(document: Document, **more: Any) -> RigRow:
    """A rig, ready to be kept: its document has neither equipment nor weigh-ins in it."""
    text, name = dump(document), document.get("name", "")
    times = {"created_at": now(), "updated_at": now()}
    return RigRow(id=uuid.uuid4().hex, name=name, document=text, **times, **more)


def copy_equipment(session: Session, equipment: EquipmentRow) -> EquipmentRow:
    """The same equipment again, to be changed apart; its name says so."""
    kept = read_equipment(equipment)
    part = {**kept["part"], "name": f"{equipment.name or equipment.kind} (copy)"}
    return new_equipment(session, equipment.kind, part, kept["units"])


def equipment_of(session: Session, key: str, kind: str | None = None) -> EquipmentRow:
    """A piece of equipment by its id.

    Raises NotFound if nothing has that id, or it is of another kind.
    """
    equipment = session.get(EquipmentRow, key)
    if equipment is None or (kind is not None and equipment.kind != kind):
        raise NotFound(f"There is no such {kind or 'equipment'} in the garage.")
    return equipment


def others_with(session: Session, row: RigRow, kind: str) -> list[RigRow]:
    """Every other rig that has a rig's vehicle, hitch or trailer, deleted ones too."""
    key = getattr(row, f"{kind}_id")
    return [rig for rig in rigs_with(session, key) if rig.id != row.id] if key else []


def rigs_with(session: Session, key: str) -> list[RigRow]:
    """Every rig that couples a piece of equipment, deleted ones too."""
    coupled = or_(RigRow.vehicle_id == key, RigRow.hitch_id == key, RigRow.trailer_id == key)
    return list(session.scalars(select(RigRow).where(coupled).order_by(RigRow.updated_at.desc())))
