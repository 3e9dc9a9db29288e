"""Rigs in the database: listed, opened, changed, undone, taken away. Each change is one transaction with its record."""

import datetime
import json
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from noxel.core.document import Document
from noxel.core.rigfile import parse_rig
from noxel.errors import Conflict, NotFound
from noxel.store.database import Database
from noxel.store.models import ChangeRow, RigRow, WeighInRow

HISTORY = 500
"""How many steps of a rig's history are kept for undo."""

Parts = dict[str, Any]
"""Documents by name: ``rig`` without its weigh-ins, and each weigh-in by its position."""


@dataclass(frozen=True, slots=True)
class Summary:
    """A rig in a list."""

    id: str
    name: str
    kind: str
    vehicle: str
    trailer: str | None
    weigh_ins: int
    updated_at: datetime.datetime


@dataclass(frozen=True, slots=True)
class Stored:
    """A rig as it is stored, and how far its history goes both ways."""

    id: str
    document: Document
    revision: int
    saved_at: datetime.datetime
    undo: str | None
    redo: str | None


def _now() -> datetime.datetime:
    return datetime.datetime.now(datetime.UTC).replace(tzinfo=None)


def _dump(document: Any) -> str:
    return json.dumps(document, ensure_ascii=False, separators=(",", ":"))


def _split(document: Document) -> Parts:
    parts: Parts = {"rig": {key: value for key, value in document.items() if key != "weigh_ins"}}
    parts.update({str(index): each for index, each in enumerate(document.get("weigh_ins", []))})
    return parts


class Rigs:
    """All rigs of one database."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def list(self, *, deleted: bool = False) -> list[Summary]:
        """Every rig, the last used first; or those that were deleted and can be brought back."""
        count = select(func.count()).where(WeighInRow.rig_id == RigRow.id).scalar_subquery()
        kept = RigRow.deleted_at.is_not(None) if deleted else RigRow.deleted_at.is_(None)
        query = select(RigRow, count).where(kept).order_by(RigRow.updated_at.desc(), RigRow.id)
        with self._database.reading() as session:
            return [_summary(row, weighed) for row, weighed in session.execute(query)]

    def open(self, rig_id: str) -> Stored:
        """A rig with its weigh-ins.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.reading() as session:
            return _stored(session, _row(session, rig_id))

    def add(self, document: Document) -> str:
        """Keep a new rig; returns its id.

        Raises
        ------
        RigFileError
            If the document is not a valid rig file; nothing is kept then.
        """
        rig = parse_rig(document)
        row = RigRow(id=uuid.uuid4().hex, name=rig.name, document="", revision=0, created_at=_now(), updated_at=_now())
        with self._database.writing() as session:
            session.add(row)
            session.flush()
            _write(session, row, _split(document))
            return row.id

    def change(self, rig_id: str, what: str, make: Callable[[Document], Document], gesture: str | None = None) -> Stored:
        """Change a rig and record the step, in one transaction.

        Parameters
        ----------
        rig_id : str
            Which rig.
        what : str
            The step in words, for undo.
        make : callable
            From the stored document to the new one; an error leaves everything as it was.
        gesture : str or None
            Steps of one gesture (typing in one field) become one step.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.writing() as session:
            row = _row(session, rig_id)
            document = _document(session, row)
            old, new = _split(document), _split(make(document))
            changed = [part for part in {**old, **new} if old.get(part) != new.get(part)]
            if changed:
                before = {part: old.get(part) for part in changed}
                after = {part: new.get(part) for part in changed}
                _write(session, row, after)
                _record(session, row, what, gesture, before, after)
            return _stored(session, row)

    def undo(self, rig_id: str) -> Stored:
        """Take the last step back.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to undo.
        """
        with self._database.writing() as session:
            row = _row(session, rig_id)
            step = _step(session, row, row.revision)
            if step is None:
                raise Conflict("There is nothing to undo.")
            _write(session, row, json.loads(step.before))
            row.revision -= 1
            return _stored(session, row)

    def redo(self, rig_id: str) -> Stored:
        """Do the step again that was taken back last.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to redo.
        """
        with self._database.writing() as session:
            row = _row(session, rig_id)
            step = _step(session, row, row.revision + 1)
            if step is None:
                raise Conflict("There is nothing to redo.")
            _write(session, row, json.loads(step.after))
            row.revision += 1
            return _stored(session, row)

    def delete(self, rig_id: str, *, bring_back: bool = False) -> None:
        """Take a rig out of the list, or bring it back; nothing of it is lost.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.writing() as session:
            row = session.get(RigRow, rig_id)
            if row is None:
                raise NotFound("There is no such rig.")
            row.deleted_at = None if bring_back else _now()


def _row(session: Session, rig_id: str) -> RigRow:
    row = session.get(RigRow, rig_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such rig.")
    return row


def _summary(row: RigRow, weigh_ins: int) -> Summary:
    document = json.loads(row.document)
    trailer = document.get("trailer")
    return Summary(row.id, row.name, document["kind"], document.get("vehicle", {}).get("name", ""),
                   None if trailer is None else trailer.get("name", ""), weigh_ins, row.updated_at)  # fmt: skip


def _document(session: Session, row: RigRow) -> Document:
    query = select(WeighInRow.document).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.position)
    weigh_ins = [json.loads(document) for document in session.scalars(query)]
    made: Document = json.loads(row.document)
    return {**made, "weigh_ins": weigh_ins} if weigh_ins else made


def _write(session: Session, row: RigRow, parts: Parts) -> None:
    for part, document in parts.items():
        if part == "rig":
            row.document, row.name = _dump(document), document.get("name", "")
            continue
        kept = session.scalar(select(WeighInRow).where(WeighInRow.rig_id == row.id, WeighInRow.position == int(part)))
        if document is None:
            if kept is not None:
                session.delete(kept)
            continue
        if kept is None:
            kept = WeighInRow(rig_id=row.id, position=int(part))
            session.add(kept)
        kept.document = _dump(document)
        kept.date = datetime.date.fromisoformat(document["date"]) if document.get("date") else None
    row.updated_at = _now()
    session.flush()


def _step(session: Session, row: RigRow, revision: int) -> ChangeRow | None:
    return session.scalar(select(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision == revision))


def _record(session: Session, row: RigRow, what: str, gesture: str | None, before: Parts, after: Parts) -> None:
    session.execute(delete(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision > row.revision))
    last = _step(session, row, row.revision)
    if last is not None and gesture is not None and last.gesture == gesture:
        last.before = _dump({**before, **json.loads(last.before)})
        last.after = _dump({**json.loads(last.after), **after})
        last.at = _now()
        return
    row.revision += 1
    session.add(ChangeRow(rig_id=row.id, revision=row.revision, at=_now(), what=what, gesture=gesture,
                          before=_dump(before), after=_dump(after)))  # fmt: skip
    session.execute(delete(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision <= row.revision - HISTORY))


def _stored(session: Session, row: RigRow) -> Stored:
    session.flush()
    undo, redo = _step(session, row, row.revision), _step(session, row, row.revision + 1)
    return Stored(row.id, _document(session, row), row.revision, row.updated_at,
                  undo.what if undo else None, redo.what if redo else None)  # fmt: skip
