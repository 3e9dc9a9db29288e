"""A rig as it is read from the tables: in a list, or whole with its place in its history."""

import datetime
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass, field

from sqlalchemy import text
from sqlalchemy.orm import Session

from noxel.core.editing import Document, Edited
from noxel.errors import Damaged
from noxel.store.equipment import KINDS, others_with, read_equipment, read_rig_row
from noxel.store.history import step_at
from noxel.store.models import EquipmentRow, RigRow
from noxel.store.parts import whole
from noxel.store.window import Window


@dataclass(frozen=True, slots=True)
class RigSummary:
    """A rig in a list."""

    id: str
    name: str
    kind: str
    vehicle: str
    trailer: str | None
    weigh_ins: int
    updated_at: datetime.datetime
    damaged: bool = False
    example: bool = False


@dataclass(frozen=True, slots=True)
class Stored:
    """A rig as it is stored, which of its weigh-ins the document holds, how far its history goes
    both ways, and which other rigs have its equipment. ``edited`` is the document as a change just
    settled it.
    """

    id: str
    document: Document
    window: Window
    revision: int
    edits: int
    epoch: str
    saved_at: datetime.datetime
    undo: str | None
    redo: str | None
    shared: dict[str, list[str]] = field(default_factory=dict)
    edited: Edited | None = None


def summary_of(session: Session, row: RigRow, weigh_ins: int) -> RigSummary:
    """A rig as it stands in a list, also where it is damaged."""
    vehicle, trailer = (
        session.get(EquipmentRow, key) if key else None for key in (row.vehicle_id, row.trailer_id)
    )
    kind, damaged = "conventional", False
    try:
        kind = str(read_rig_row(row).get("kind", kind))
        for part in (vehicle, trailer):
            if part is not None:
                read_equipment(part)
    except Damaged:
        damaged = True
    return RigSummary(
        row.id,
        row.name,
        kind,
        vehicle.name if vehicle else "",
        trailer.name if trailer else None,
        weigh_ins,
        row.updated_at,
        damaged,
        row.example,
    )


def sound(session: Session, rows: Iterable[RigRow]) -> list[Document]:
    """The whole documents of rigs; one that is damaged is left out."""
    rigs = []
    for row in rows:
        with suppress(Damaged):
            rigs.append(whole(session, row))
    return rigs


def stored(session: Session, row: RigRow, window: Window, edited: Edited | None = None) -> Stored:
    """A rig with the weigh-ins of a window, as the session sees it now; ``edited`` is what exactly
    these were just changed to.
    """
    session.flush()
    document = edited.document if edited else whole(session, row, window)
    undo, redo = step_at(session, row, row.revision), step_at(session, row, row.revision + 1)
    return Stored(
        row.id,
        document,
        window,
        row.revision,
        row.edits,
        session.scalar(text("SELECT epoch FROM saves")) or "",
        row.updated_at,
        undo.what if undo else None,
        redo.what if redo else None,
        _shared(session, row),
        edited,
    )


def _shared(session: Session, row: RigRow) -> dict[str, list[str]]:
    others = {kind: others_with(session, row, kind) for kind in KINDS}
    names = {
        kind: [rig.name or "an unnamed rig" for rig in rigs if rig.deleted_at is None]
        for kind, rigs in others.items()
    }
    return {kind: shared for kind, shared in names.items() if shared}
