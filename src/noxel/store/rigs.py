"""Rigs in the database: listed, opened, changed, undone, taken away. Each change is one transaction with its record."""

import datetime
import json
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from noxel.core.document import Document
from noxel.core.edit import fit
from noxel.core.rigfile import parse_rig
from noxel.errors import Conflict, InputError, NotFound
from noxel.store.database import Database
from noxel.store.models import ChangeRow, RigRow, ThingRow, WeighInRow
from noxel.store.things import KINDS, assemble, dump, now, rigs_with, write_part

HISTORY = 500
"""How many steps of a rig's history are kept for undo."""

Parts = dict[str, Any]
"""Documents by name: ``rig`` without its things and weigh-ins, each thing by its kind, each weigh-in by its position."""


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
    """A rig as it is stored, how far its history goes both ways, and which other rigs have its things."""

    id: str
    document: Document
    revision: int
    saved_at: datetime.datetime
    undo: str | None
    redo: str | None
    shared: dict[str, list[str]] = field(default_factory=dict)


def _split(document: Document) -> Parts:
    parts: Parts = {"rig": {key: value for key, value in document.items() if key not in (*KINDS, "weigh_ins")}}
    parts.update({kind: document[kind] for kind in KINDS if kind in document})
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
            return [_summary(session, row, weighed) for row, weighed in session.execute(query)]

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
        row = RigRow(id=uuid.uuid4().hex, name=rig.name, document="", revision=0, created_at=now(), updated_at=now())
        with self._database.writing() as session:
            session.add(row)
            session.flush()
            _write(session, row, _split(document))
            return row.id

    def add_all(self, documents: Sequence[Document]) -> Sequence[str]:
        """Keep several rigs, all of them or none; one that is there already, figure by figure, is left as it is.

        Raises
        ------
        RigFileError
            If one of them is not a valid rig file; nothing is kept then.
        """
        added = []
        with self._database.writing() as session:
            there = [whole(session, row) for row in session.scalars(select(RigRow).where(RigRow.deleted_at.is_(None)))]
            for document in documents:
                name = parse_rig(document).name
                if document in there:
                    continue
                row = RigRow(id=uuid.uuid4().hex, name=name, document="", revision=0, created_at=now(), updated_at=now())
                session.add(row)
                session.flush()
                _write(session, row, _split(document))
                added.append(row.id)
        return added

    def documents(self) -> Sequence[Document]:
        """Every rig's whole document, the last used first."""
        with self._database.reading() as session:
            rows = session.scalars(select(RigRow).where(RigRow.deleted_at.is_(None)).order_by(RigRow.updated_at.desc()))
            return [whole(session, row) for row in rows]

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
            document = whole(session, row)
            old, new = _split(document), _split(make(document))
            changed = [part for part in {**old, **new} if old.get(part) != new.get(part)]
            if changed:
                before = {part: old.get(part) for part in changed}
                after = {part: new.get(part) for part in changed}
                _write(session, row, after)
                _fit_the_others(session, row, changed)
                _record(session, row, what, gesture, before, after)
            return _stored(session, row)

    def undo(self, rig_id: str) -> Stored:
        """Take the last step back.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to undo, or what it changed was changed in another rig since.
        """
        with self._database.writing() as session:
            row = _row(session, rig_id)
            step = _step(session, row, row.revision)
            if step is None:
                raise Conflict("There is nothing to undo.")
            _take_back(session, row, json.loads(step.after), json.loads(step.before))
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
            _take_back(session, row, json.loads(step.before), json.loads(step.after))
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
            row.deleted_at = None if bring_back else now()

    def row(self, rig_id: str) -> RigRow:
        """A rig's own row, to be copied.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.reading() as session:
            row = _row(session, rig_id)
            session.expunge(row)
            return row


def _row(session: Session, rig_id: str) -> RigRow:
    row = session.get(RigRow, rig_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such rig.")
    return row


def _summary(session: Session, row: RigRow, weigh_ins: int) -> Summary:
    kind: str = json.loads(row.document)["kind"]
    vehicle, trailer = (session.get(ThingRow, key) if key else None for key in (row.vehicle_id, row.trailer_id))
    return Summary(row.id, row.name, kind, vehicle.name if vehicle else "", trailer.name if trailer else None, weigh_ins,
                   row.updated_at)  # fmt: skip


def whole(session: Session, row: RigRow) -> Document:
    """A rig's whole document: its things and its weigh-ins in it."""
    query = select(WeighInRow.document).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.position)
    weigh_ins = [json.loads(document) for document in session.scalars(query)]
    made = assemble(session, row)
    return {**made, "weigh_ins": weigh_ins} if weigh_ins else made


def _write(session: Session, row: RigRow, parts: Parts) -> None:
    if "rig" in parts:
        row.document, row.name = dump(parts["rig"]), parts["rig"].get("name", "")
    units = json.loads(row.document)["units"]
    for part, document in parts.items():
        if part == "rig":
            continue
        if part in KINDS:
            write_part(session, row, part, document, units)
            continue
        kept = session.scalar(select(WeighInRow).where(WeighInRow.rig_id == row.id, WeighInRow.position == int(part)))
        if document is None:
            if kept is not None:
                session.delete(kept)
            continue
        if kept is None:
            kept = WeighInRow(rig_id=row.id, position=int(part))
            session.add(kept)
        kept.document = dump(document)
        kept.date = datetime.date.fromisoformat(document["date"]) if document.get("date") else None
    row.updated_at = now()
    session.flush()


def _fit_the_others(session: Session, row: RigRow, changed: Sequence[str]) -> None:
    """Other rigs that share a changed thing keep being valid rigs, or the change is refused."""
    for kind in KINDS:
        if kind not in changed:
            continue
        key = getattr(row, f"{kind}_id")
        for other in rigs_with(session, key) if key else ():
            if other.id == row.id:
                continue
            document = whole(session, other)
            try:
                old, new = _split(document), _split(fit(document))
            except InputError as exc:
                raise Conflict(
                    f"“{other.name or 'another rig'}” has the same {kind}, and its weigh-ins contradict this: {exc.message}"
                ) from exc
            _write(
                session, other, {part: new.get(part) for part in new if part not in KINDS and old.get(part) != new.get(part)}
            )


def _take_back(session: Session, row: RigRow, now_there: Parts, then: Parts) -> None:
    """Put a step's documents back, unless a shared thing was changed elsewhere since."""
    stands = assemble(session, row)
    for kind in KINDS:
        if kind in now_there and stands.get(kind) != now_there[kind]:
            raise Conflict(f"The {kind} was changed in another rig since. Undo it there first.")
    _write(session, row, then)
    _fit_the_others(session, row, list(then))


def _step(session: Session, row: RigRow, revision: int) -> ChangeRow | None:
    return session.scalar(select(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision == revision))


def _record(session: Session, row: RigRow, what: str, gesture: str | None, before: Parts, after: Parts) -> None:
    session.execute(delete(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision > row.revision))
    last = _step(session, row, row.revision)
    if last is not None and gesture is not None and last.gesture == gesture:
        last.before = dump({**before, **json.loads(last.before)})
        last.after = dump({**json.loads(last.after), **after})
        last.at = now()
        return
    row.revision += 1
    session.add(ChangeRow(rig_id=row.id, revision=row.revision, at=now(), what=what, gesture=gesture,
                          before=dump(before), after=dump(after)))  # fmt: skip
    session.execute(delete(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision <= row.revision - HISTORY))


def _stored(session: Session, row: RigRow) -> Stored:
    session.flush()
    undo, redo = _step(session, row, row.revision), _step(session, row, row.revision + 1)
    return Stored(row.id, whole(session, row), row.revision, row.updated_at,
                  undo.what if undo else None, redo.what if redo else None, _shared(session, row))  # fmt: skip


def _shared(session: Session, row: RigRow) -> dict[str, list[str]]:
    found = {}
    for kind in KINDS:
        key = getattr(row, f"{kind}_id")
        others = [other for other in rigs_with(session, key) if other.id != row.id and other.deleted_at is None] if key else []
        if others:
            found[kind] = [other.name or "an unnamed rig" for other in others]
    return found
