"""Rigs in the database: listed, opened, changed, undone, taken away. Each change is one transaction with its record."""

import datetime
import json
import sqlite3
import uuid
from collections.abc import Callable, Sequence
from contextlib import closing
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import delete, func, insert, select
from sqlalchemy.orm import Session

from noxel.core.document import Document
from noxel.core.edit import fit
from noxel.core.logbook import words_of
from noxel.core.rigfile import parse_rig
from noxel.errors import Conflict, InputError, NotFound
from noxel.store.database import Database
from noxel.store.models import ChangeRow, FactsRow, RigRow, ThingRow, WeighInRow
from noxel.store.things import KINDS, assemble, dump, now, rigs_with, write_part
from noxel.store.window import Window, keys_after, look, named, numbered, whole_log

Report = Callable[[int, int, str], None]
"""Told how much is done, of how much, and what is being done."""


def silent(_done: int, _of: int, _says: str) -> None:
    """Nobody waits for it."""


HISTORY = 500
"""How many steps of a rig's history are kept for undo."""

Parts = dict[str, Any]
"""Documents by name: ``rig`` without its things and weigh-ins, each thing by its kind, each weigh-in by its key."""


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
    """A rig as it is stored, which of its weigh-ins the document holds, how far its history goes both ways, and which
    other rigs have its things."""

    id: str
    document: Document
    window: Window
    revision: int
    saved_at: datetime.datetime
    undo: str | None
    redo: str | None
    shared: dict[str, list[str]] = field(default_factory=dict)


def _split(document: Document, keys: Sequence[int]) -> Parts:
    parts: Parts = {"rig": {key: value for key, value in document.items() if key not in (*KINDS, "weigh_ins")}}
    parts.update({kind: document[kind] for kind in KINDS if kind in document})
    parts.update({str(key): each for key, each in zip(keys, document.get("weigh_ins", []), strict=True)})
    return parts


def _new(document: Document) -> Parts:
    return _split(document, range(len(document.get("weigh_ins", []))))


def _frame(document: Document) -> tuple[object, ...]:
    """What the rules of every weigh-in depend on."""
    trailer, hitch = document.get("trailer"), document.get("hitch", {})
    axles = len((trailer or {}).get("ratings", {}).get("gawr", ()))
    return trailer is None, bool(hitch.get("weight_distribution")), axles, document["units"]


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

    def open(self, rig_id: str, looking: int | None = None, *, entire: bool = False) -> Stored:
        """A rig with the weigh-in looked at and the last ones, or with all of them.

        Parameters
        ----------
        rig_id : str
            Which rig.
        looking : int or None
            Which weigh-in is looked at, from 1; None, or one that is not there, is the last.
        entire : bool
            Whether the document holds the whole log.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.reading() as session:
            row = row_of(session, rig_id)
            return _stored(session, row, whole_log(session, row, looking) if entire else look(session, row, looking))

    def open_these(self, rig_id: str, numbers: Sequence[int]) -> Stored:
        """A rig with some of its weigh-ins; those that are not there are left out.

        Raises
        ------
        NotFound
            If there is no rig of that id.
        """
        with self._database.reading() as session:
            row = row_of(session, rig_id)
            return _stored(session, row, numbered(session, row, numbers))

    def add(self, document: Document, report: Report = silent) -> str:
        """Keep a new rig; returns its id. ``report`` is told how far it is.

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
            _write(session, row, _new(document), report)
            return row.id

    def add_all(self, documents: Sequence[Document], report: Report = silent) -> Sequence[str]:
        """Keep several rigs, all of them or none; one that is there already, figure by figure, is left as it is.

        ``report`` is told how far it is.

        Raises
        ------
        RigFileError
            If one of them is not a valid rig file; nothing is kept then.
        """
        added = []
        with self._database.writing() as session:
            there = [whole(session, row) for row in session.scalars(select(RigRow).where(RigRow.deleted_at.is_(None)))]
            for number, document in enumerate(documents, 1):
                name = parse_rig(document).name
                report(number, len(documents), f"keeping rig {number} of {len(documents)}")
                if document in there:
                    continue
                row = RigRow(id=uuid.uuid4().hex, name=name, document="", revision=0, created_at=now(), updated_at=now())
                session.add(row)
                session.flush()
                _write(session, row, _new(document), report)
                added.append(row.id)
        return added

    def documents(self) -> Sequence[Document]:
        """Every rig's whole document, the last used first."""
        with self._database.reading() as session:
            rows = session.scalars(select(RigRow).where(RigRow.deleted_at.is_(None)).order_by(RigRow.updated_at.desc()))
            return [whole(session, row) for row in rows]

    def change(
        self,
        rig_id: str,
        what: str,
        make: Callable[[Document], Document],
        gesture: str | None = None,
        *,
        looking: int | None = None,
        keys: Sequence[int] | None = None,
        entire: bool = False,
    ) -> Stored:
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
        looking : int or None
            Which weigh-in the answer looks at.
        keys : sequence of int or None
            Which weigh-ins the document holds, such as a page's window; None: those of ``looking``.
        entire : bool
            Whether the document holds the whole log.

        Raises
        ------
        NotFound
            If there is none of that id.
        Conflict
            If one of the keys is there no longer, or a weigh-in that the document does not hold contradicts the change.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            window = (
                whole_log(session, row)
                if entire
                else look(session, row, looking)
                if keys is None
                else named(session, row, keys)
            )
            document = whole(session, row, window)
            made = make(document)
            past, now_there = document.get("weigh_ins", []), made.get("weigh_ins", [])
            after_keys = keys_after(window, past, now_there, _last_key(session, row))
            old, new = _split(document, window.keys), _split(made, after_keys)
            framed = _frame(document) != _frame(made)
            if framed and not window.whole:
                _fit_the_rest(session, row, made, window, old, new)
            changed = [part for part in {**old, **new} if old.get(part) != new.get(part)]
            if changed:
                before = {part: old.get(part) for part in changed}
                after = {part: new.get(part) for part in changed}
                _write(session, row, after)
                _fit_the_others(session, row, changed, framed=framed)
                _record(session, row, what, gesture, before, after)
            return _stored(session, row, whole_log(session, row, looking) if entire else look(session, row, looking))

    def undo(self, rig_id: str, looking: int | None = None) -> Stored:
        """Take the last step back.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to undo, or what it changed was changed in another rig since.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            step = _step(session, row, row.revision)
            if step is None:
                raise Conflict("There is nothing to undo.")
            _take_back(session, row, json.loads(step.after), json.loads(step.before))
            row.revision -= 1
            return _stored(session, row, look(session, row, looking))

    def redo(self, rig_id: str, looking: int | None = None) -> Stored:
        """Do the step again that was taken back last.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to redo.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            step = _step(session, row, row.revision + 1)
            if step is None:
                raise Conflict("There is nothing to redo.")
            _take_back(session, row, json.loads(step.before), json.loads(step.after))
            row.revision += 1
            return _stored(session, row, look(session, row, looking))

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

    def backup(self) -> bytes:
        """The whole database as a file's bytes, of one consistent state, while it is in use."""
        connection = self._database.engine.raw_connection()
        try:
            live = connection.driver_connection
            with closing(sqlite3.connect(":memory:")) as copy:
                live.backup(copy)  # type: ignore[union-attr]
                return copy.serialize()
        finally:
            connection.close()

    def row(self, rig_id: str) -> RigRow:
        """A rig's own row, to be copied.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.reading() as session:
            row = row_of(session, rig_id)
            session.expunge(row)
            return row


def row_of(session: Session, rig_id: str) -> RigRow:
    row = session.get(RigRow, rig_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such rig.")
    return row


def _summary(session: Session, row: RigRow, weigh_ins: int) -> Summary:
    kind: str = json.loads(row.document)["kind"]
    vehicle, trailer = (session.get(ThingRow, key) if key else None for key in (row.vehicle_id, row.trailer_id))
    return Summary(row.id, row.name, kind, vehicle.name if vehicle else "", trailer.name if trailer else None, weigh_ins,
                   row.updated_at)  # fmt: skip


def whole(session: Session, row: RigRow, window: Window | None = None) -> Document:
    """A rig's document: its things in it, and the weigh-ins of a window, or all of them."""
    query = select(WeighInRow.document).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.position)
    if window is not None and not window.whole:
        query = query.where(WeighInRow.position.in_(window.keys))
    weigh_ins = [json.loads(document) for document in session.scalars(query)]
    made = assemble(session, row)
    return {**made, "weigh_ins": weigh_ins} if weigh_ins else made


def _last_key(session: Session, row: RigRow) -> int:
    last = session.scalar(select(func.max(WeighInRow.position)).where(WeighInRow.rig_id == row.id))
    return -1 if last is None else last


def _write(session: Session, row: RigRow, parts: Parts, report: Report = silent) -> None:
    if "rig" in parts:
        row.document, row.name = dump(parts["rig"]), parts["rig"].get("name", "")
    units = json.loads(row.document)["units"]
    for kind in KINDS:
        if kind in parts:
            write_part(session, row, kind, parts[kind], units)
    weigh_ins = [(int(part), document) for part, document in parts.items() if part not in ("rig", *KINDS)]
    for start in range(0, len(weigh_ins), _AT_ONCE):
        _write_weigh_ins(session, row, dict(weigh_ins[start : start + _AT_ONCE]))
        report(min(start + _AT_ONCE, len(weigh_ins)), len(weigh_ins), "keeping weigh-ins")
    row.updated_at = now()
    session.flush()


_AT_ONCE = 1000
"""Weigh-ins that are written at once."""


def _write_weigh_ins(session: Session, row: RigRow, wanted: dict[int, Document | None]) -> None:
    """Put weigh-ins by their keys, and their words beside them; None takes one away."""
    here = (WeighInRow.rig_id == row.id, WeighInRow.position.in_(wanted))
    kept = {each.position: each for each in session.scalars(select(WeighInRow).where(*here))}
    new = []
    for key, document in wanted.items():
        if document is None:
            if key in kept:
                session.delete(kept[key])
            continue
        day = datetime.date.fromisoformat(document["date"]) if document.get("date") else None
        if key in kept:
            kept[key].document, kept[key].date = dump(document), day
        else:
            new.append({"rig_id": row.id, "position": key, "document": dump(document), "date": day})
    session.flush()
    if new:
        session.execute(insert(WeighInRow), new)
    ids = list(session.execute(select(WeighInRow.id, WeighInRow.position).where(*here)))
    session.execute(delete(FactsRow).where(FactsRow.weigh_in_id.in_([key for key, _ in ids])))
    facts = [{"weigh_in_id": key, "words": words_of(wanted[position] or {})} for key, position in ids]
    if facts:
        session.execute(insert(FactsRow), facts)


def _fit_the_rest(session: Session, row: RigRow, made: Document, window: Window, old: Parts, new: Parts) -> None:
    """The weigh-ins that the document does not hold follow a change of what their rules depend on, or it is refused."""
    outside = (WeighInRow.rig_id == row.id, WeighInRow.position.not_in(window.keys))
    query = select(WeighInRow.position, WeighInRow.document).where(*outside).order_by(WeighInRow.position)
    kept = {key: json.loads(text) for key, text in session.execute(query)}
    try:
        fitted = fit({**made, "weigh_ins": list(kept.values())}).get("weigh_ins", [])
    except InputError as exc:
        raise Conflict(f"A weigh-in further back contradicts this: {exc.message}") from exc
    for (key, was), now_is in zip(kept.items(), fitted, strict=True):
        if was != now_is:
            old[str(key)], new[str(key)] = was, now_is


def _fit_the_others(session: Session, row: RigRow, changed: Sequence[str], *, framed: bool) -> None:
    """Other rigs that share a changed thing keep being valid rigs, or the change is refused."""
    for kind in KINDS:
        if kind not in changed:
            continue
        key = getattr(row, f"{kind}_id")
        for other in rigs_with(session, key) if key else ():
            if other.id == row.id:
                continue
            window = whole_log(session, other) if framed else look(session, other, None)
            document = whole(session, other, window)
            try:
                old, new = _split(document, window.keys), _split(fit(document), window.keys)
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
    _fit_the_others(session, row, list(then), framed=_frame(stands) != _frame(assemble(session, row)))


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


def _stored(session: Session, row: RigRow, window: Window) -> Stored:
    session.flush()
    undo, redo = _step(session, row, row.revision), _step(session, row, row.revision + 1)
    return Stored(row.id, whole(session, row, window), window, row.revision, row.updated_at,
                  undo.what if undo else None, redo.what if redo else None, _shared(session, row))  # fmt: skip


def _shared(session: Session, row: RigRow) -> dict[str, list[str]]:
    found = {}
    for kind in KINDS:
        key = getattr(row, f"{kind}_id")
        others = [other for other in rigs_with(session, key) if other.id != row.id and other.deleted_at is None] if key else []
        if others:
            found[kind] = [other.name or "an unnamed rig" for other in others]
    return found
