"""The garage: equipment listed, copied, retired, and coupled into rigs."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from noxel.core.editing import copied, identify
from noxel.core.rig import parse_rig
from noxel.errors import Conflict, Damaged
from noxel.store.database import InDatabase
from noxel.store.equipment import (
    KINDS,
    alone,
    assemble,
    copy_equipment,
    equipment_of,
    new_equipment,
    new_rig_row,
    now,
    read_equipment,
    read_rig_row,
    rigs_with,
)
from noxel.store.models import EquipmentRow, RigRow
from noxel.store.parts import whole
from noxel.store.window import look


@dataclass(frozen=True, slots=True)
class Equipment:
    """A vehicle, a hitch or a trailer, as it stands in the garage."""

    id: str
    kind: str
    name: str
    retired: bool
    units: dict[str, str]
    part: dict[str, Any]
    rigs: list[RigRow]
    damaged: bool = False


@dataclass(frozen=True, slots=True)
class GarageEntry:
    """A vehicle or a trailer in the document of a rig that has it, or in one of its own."""

    id: str
    name: str
    document: dict[str, Any]
    in_a_rig: bool


@dataclass(frozen=True, slots=True)
class GarageEntries:
    """What is offered for a match, and how many there are in all."""

    vehicles: tuple[GarageEntry, ...]
    trailers: tuple[GarageEntry, ...]
    damaged: tuple[str, ...]
    vehicle_count: int
    trailer_count: int


class Garage(InDatabase):
    """All equipment of one database. NotFound is raised where there is no such
    piece of equipment.
    """

    def equipment(self) -> list[Equipment]:
        """All equipment, the last changed first; retired last."""
        with self._database.reading() as session:
            query = select(EquipmentRow).order_by(EquipmentRow.updated_at.desc(), EquipmentRow.id)
            entries = []
            for row in session.scalars(query).all():
                rigs = [rig for rig in rigs_with(session, row.id) if rig.deleted_at is None]
                try:
                    kept = read_equipment(row)
                except Damaged:
                    kept = {"units": {}, "part": {}, "damaged": True}
                entries.append(
                    Equipment(
                        row.id,
                        row.kind,
                        row.name,
                        row.retired_at is not None,
                        kept["units"],
                        kept["part"],
                        rigs,
                        "damaged" in kept,
                    )
                )
        return sorted(entries, key=lambda equipment: equipment.retired)

    def entries(
        self,
        *,
        only: Collection[str] | None = None,
        first: tuple[int, int] = (0, 0),
        most: int = 10**9,
    ) -> GarageEntries:
        """What is offered for a match: each vehicle in the rig that had it last, each trailer with
        what was listed for it.

        ``only``: the ids that are wanted; None is all of them. ``first``: how many vehicles, and
        how many trailers, are left out at the start. ``most``: how many of each are read at most.
        """
        with self._database.reading() as session:
            query = (
                select(EquipmentRow)
                .where(EquipmentRow.retired_at.is_(None))
                .order_by(EquipmentRow.name, EquipmentRow.id)
            )
            if only is not None:
                query = query.where(EquipmentRow.id.in_(only))
            damaged: list[str] = []
            read: dict[str, tuple[GarageEntry, ...]] = {}
            counts = dict.fromkeys(("vehicle", "trailer"), 0)
            for kind, start in zip(counts, first, strict=True):
                rows = session.scalars(query.where(EquipmentRow.kind == kind)).all()
                counts[kind] = len(rows)
                entries = (_entry(session, row, damaged) for row in rows[start : start + most])
                read[kind] = tuple(entry for entry in entries if entry is not None)
        return GarageEntries(
            read["vehicle"], read["trailer"], tuple(damaged), counts["vehicle"], counts["trailer"]
        )

    def add(self, kind: str, part: dict[str, Any], units: dict[str, str]) -> str:
        """Keep a piece of equipment that no rig has yet, such as one typed from a brochure; returns
        its id.
        """
        with self._database.writing() as session:
            return new_equipment(session, kind, identify(copied(part)), units).id

    def retire(self, key: str, *, bring_back: bool = False) -> None:
        """Offer a piece of equipment no longer, or again; the rigs it is in, and their weigh-ins,
        stay.
        """
        with self._database.writing() as session:
            equipment_of(session, key).retired_at = None if bring_back else now()

    def copy(self, key: str) -> str:
        """The same equipment again, to be changed apart; returns its id."""
        with self._database.writing() as session:
            return copy_equipment(session, equipment_of(session, key)).id

    def remove(self, key: str) -> None:
        """Take a piece of equipment away that no rig couples.

        Raises NotFound if nothing has that id; Conflict if a rig has it, be it a deleted one:
        retire it instead.
        """
        with self._database.writing() as session:
            equipment = equipment_of(session, key)
            if rigs_with(session, key):
                raise Conflict(
                    "It is part of a rig, whose weigh-ins would lose it. Retire it instead."
                )
            session.delete(equipment)

    def couple(
        self, name: str, kind: str, equipment: Mapping[str, str], spare: Mapping[str, Any]
    ) -> str:
        """A new rig of equipment in the garage; returns its id.

        ``name`` and ``kind``: of the rig. ``equipment``: ids by kind; a rig needs a vehicle.
        ``spare``: the parts to start with where none was named, such as a bare hitch chain.

        Raises NotFound if one of them is not there; RigFileError if they cannot be a rig; nothing
        is kept then.
        """
        with self._database.writing() as session:
            parts = {
                kind: equipment_of(session, equipment[kind], kind)
                for kind in KINDS
                if kind in equipment
            }
            units = (
                read_equipment(parts["vehicle"])["units"]
                if "vehicle" in parts
                else {"mass": "lb", "length": "in"}
            )
            for spare_kind, part in spare.items():
                if spare_kind not in parts:
                    parts[spare_kind] = new_equipment(session, spare_kind, part, units)
            row = new_rig_row(
                {"format": "noxel-rig", "version": 1, "units": units, "name": name, "kind": kind},
                **{f"{kind}_id": part.id for kind, part in parts.items()},
            )
            session.add(row)
            session.flush()
            parse_rig(assemble(session, row))
            return row.id

    def copy_rig(self, rig: RigRow, name: str, apart: Sequence[str]) -> str:
        """The rig again with its loads and plan but no weigh-ins; the equipment named in ``apart``
        is copied, the rest shared.
        """
        with self._database.writing() as session:
            document = {**read_rig_row(rig), "name": name}
            document.pop("ready", None)
            document.pop("note", None)
            row = new_rig_row(document)
            for kind in KINDS:
                key = getattr(rig, f"{kind}_id")
                if key and kind in apart:
                    key = copy_equipment(session, equipment_of(session, key)).id
                setattr(row, f"{kind}_id", key)
            session.add(row)
            return row.id


def _entry(session: Session, row: EquipmentRow, damaged: list[str]) -> GarageEntry | None:
    """A vehicle or a trailer for a match; a damaged one is named and left out."""
    last = next((rig for rig in rigs_with(session, row.id) if rig.deleted_at is None), None)
    try:
        kept = read_equipment(row)
        document = whole(session, last, look(session, last)) if last else alone(row.kind, kept)
    except Damaged:
        damaged.append(row.name or row.kind)
        return None
    return GarageEntry(row.id, row.name, document, last is not None)
