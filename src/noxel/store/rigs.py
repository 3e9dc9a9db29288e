"""Rigs in the database: listed, opened, changed, undone, taken away. Each change is one transaction
with its record.
"""

import sqlite3
from collections.abc import Callable, Sequence
from contextlib import closing
from typing import Any

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from noxel.core.editing import Change, Document, Edited, apply_changes, frame_of_weigh_ins
from noxel.core.rig import parse_rig
from noxel.errors import Conflict, NotFound
from noxel.store.database import Database
from noxel.store.edits import rebased, record_edit
from noxel.store.equipment import KINDS, now, rigs_with
from noxel.store.history import do_again, record_step, step_at, take_back
from noxel.store.models import EquipmentRow, PhotoRow, ReceivedRow, RigRow, WeighInRow
from noxel.store.parts import (
    Report,
    fit_the_others,
    fit_the_rest,
    last_key,
    prepare,
    row_of,
    silent,
    split,
    whole,
    write,
    write_new,
)
from noxel.store.stored import Stored, Summary, sound, stored, summary_of
from noxel.store.window import Window, keys_after, look, named, number_of, numbered, whole_log


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
            return [summary_of(session, row, weighed) for row, weighed in session.execute(query)]

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
            return stored(
                session,
                row,
                whole_log(session, row, looking) if entire else look(session, row, looking),
            )

    def open_these(self, rig_id: str, numbers: Sequence[int]) -> Stored:
        """A rig with some of its weigh-ins; those that are not there are left out.

        Raises
        ------
        NotFound
            If there is no rig of that id.
        """
        with self._database.reading() as session:
            row = row_of(session, rig_id)
            return stored(session, row, numbered(session, row, numbers))

    def add(self, document: Document, report: Report = silent, *, example: bool = False) -> str:
        """Keep a new rig; returns its id. ``report`` receives the progress.

        Raises
        ------
        RigFileError
            If the document is not a valid rig file; nothing is kept then.
        """
        parse_rig(document)
        prepared = prepare(document, report)
        with self._database.writing() as session:
            return write_new(session, prepared, report, example=example)

    def add_all(self, documents: Sequence[Document], report: Report = silent) -> Sequence[str]:
        """Keep several rigs, all of them or none; one that is there already, figure by figure, is
        left as it is.

        ``report`` receives the progress.

        Raises
        ------
        RigFileError
            If one of them is not a valid rig file; nothing is kept then.
        """
        with self._database.reading() as session:
            there = sound(
                session, session.scalars(select(RigRow).where(RigRow.deleted_at.is_(None)))
            )
        wanted = []
        for number, document in enumerate(documents, 1):
            parse_rig(document)
            report(number, len(documents), f"reading rig {number} of {len(documents)}")
            if document not in there:
                wanted.append(prepare(document, report))
        # held only while rows are written, not while files are read
        with self._database.writing() as session:
            return [write_new(session, each, report) for each in wanted]

    def documents(self) -> Sequence[Document]:
        """Every rig's whole document, the last used first; one that is damaged is left out."""
        with self._database.reading() as session:
            rows = session.scalars(
                select(RigRow).where(RigRow.deleted_at.is_(None)).order_by(RigRow.updated_at.desc())
            )
            return sound(session, rows)

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
        page: str | None = None,
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
        page : str or None
            The page that asks for it.

        Raises
        ------
        NotFound
            If there is none of that id.
        Conflict
            If one of the keys is there no longer, or a weigh-in that the document does not hold
            contradicts the change.
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
            return self._put(
                session,
                row,
                window,
                document,
                made,
                what,
                gesture,
                looking=looking,
                entire=entire,
                page=page,
            )

    def type(
        self,
        rig_id: str,
        what: str,
        changes: Sequence[Change],
        gesture: str | None = None,
        *,
        looking: int | None = None,
        keys: Sequence[int] | None = None,
        base: int | None = None,
        page: str | None = None,
    ) -> Stored:
        """Change a rig by what was typed, wherever its items are now; as :meth:`change`.

        Parameters
        ----------
        changes : sequence of Change
            Their paths are within the weigh-ins of ``keys``, or the whole log without them.
        base : int or None
            How many edits the state had that they were typed against; None is the newest.

        Raises
        ------
        FieldConflict
            If another page set the same figure meanwhile.
        NotFound, Conflict
            As :meth:`change`, and if what a change is about was taken away.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            window = whole_log(session, row) if keys is None else named(session, row, keys)
            document = whole(session, row, window)
            here = rebased(
                session, row, document, window, changes, row.edits if base is None else base, page
            )
            made = apply_changes(document, here)
            return self._put(
                session,
                row,
                window,
                document,
                made.document,
                what,
                gesture,
                looking=looking,
                entire=keys is None,
                page=page,
                edited=made,
            )

    def _put(
        self,
        session: Session,
        row: RigRow,
        window: Window,
        document: Document,
        made: Document,
        what: str,
        gesture: str | None,
        *,
        looking: int | None,
        entire: bool,
        page: str | None,
        edited: Edited | None = None,
    ) -> Stored:
        """Write a changed document and its record."""
        past, now_there = document.get("weigh_ins", []), made.get("weigh_ins", [])
        after_keys = keys_after(window, past, now_there, last_key(session, row))
        old, new = split(document, window.keys), split(made, after_keys)
        framed = frame_of_weigh_ins(document) != frame_of_weigh_ins(made)
        if framed and not window.whole:
            fit_the_rest(session, row, made, window, old, new)
        changed = [part for part in {**old, **new} if old.get(part) != new.get(part)]
        if changed:
            before = {part: old.get(part) for part in changed}
            after = {part: new.get(part) for part in changed}
            write(session, row, after)
            fit_the_others(session, row, changed, framed=framed)
            record_step(session, row, what, gesture, before, after)
            record_edit(session, row, before, after, page)
        shown = whole_log(session, row, looking) if entire else look(session, row, looking)
        gone = [part for part in (*KINDS, "weigh_ins") if not made.get(part, part)]
        if gone or shown.keys != after_keys:
            edited = None  # what is shown is not what was made: it is read
        return stored(session, row, shown, edited)

    def receive(
        self,
        rig_id: str,
        key: str,
        visit: str,
        make: Callable[[Document, int | None], Document],
        *,
        page: str | None = None,
    ) -> Stored:
        """Take a ticket that another device jotted down: once, also where it is sent again because
        the answer was lost.

        Parameters
        ----------
        rig_id : str
            Which rig.
        key, visit : str
            What the device calls the ticket, and the visit to the scale that it belongs to.
        make : callable
            From the document, and where the visit's weigh-in stands in it (None: not yet there), to
            the new document.
        page : str or None
            The page that sent the request.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If the key was another rig's.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            known = session.get(ReceivedRow, key)
            if known is not None and known.rig_id != rig_id:
                raise Conflict("This ticket was sent for another rig already.")
            of_visit = select(ReceivedRow.weigh_in).where(
                ReceivedRow.rig_id == rig_id, ReceivedRow.visit == visit
            )
            newest = of_visit.order_by(ReceivedRow.weigh_in.desc()).limit(1)
            position = known.weigh_in if known else session.scalar(newest)
            at = None if position is None else number_of(session, rig_id, position)
            window = look(session, row, at)
            there = position in window.keys
            if known is not None:
                return stored(session, row, window)
            document = whole(session, row, window)
            made = make(
                document, window.keys.index(position) if there and position is not None else None
            )
            answer = self._put(
                session,
                row,
                window,
                document,
                made,
                "ticket",
                None,
                looking=at if there else None,
                entire=False,
                page=page,
            )
            if not there:
                position = last_key(session, row)
                of_visit_too = (
                    PhotoRow.rig_id == rig_id,
                    PhotoRow.visit == visit,
                    PhotoRow.weigh_in.is_(None),
                )
                session.execute(update(PhotoRow).where(*of_visit_too).values(weigh_in=position))
            session.add(ReceivedRow(key=key, rig_id=rig_id, visit=visit, weigh_in=position))
            return answer

    def undo(self, rig_id: str, looking: int | None = None, *, page: str | None = None) -> Stored:
        """Undo the last step.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to undo, or what it changed was changed in another rig since.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            step = step_at(session, row, row.revision)
            if step is None:
                raise Conflict("There is nothing to undo.")
            take_back(session, row, step, page)
            row.revision -= 1
            return stored(session, row, look(session, row, looking))

    def redo(self, rig_id: str, looking: int | None = None, *, page: str | None = None) -> Stored:
        """Redo the step that was undone last.

        Raises
        ------
        NotFound
            If there is no such rig.
        Conflict
            If there is nothing to redo.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            step = step_at(session, row, row.revision + 1)
            if step is None:
                raise Conflict("There is nothing to redo.")
            do_again(session, row, step, page)
            row.revision += 1
            return stored(session, row, look(session, row, looking))

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

    def drop_examples(self) -> None:
        """Delete the rigs that are examples, for good, and the equipment that only they have."""
        with self._database.writing() as session:
            rows = session.scalars(select(RigRow).where(RigRow.example)).all()
            keys = {getattr(row, f"{kind}_id") for row in rows for kind in KINDS} - {None}
            for row in rows:
                session.delete(row)
            session.flush()
            for key in keys:
                if not rigs_with(session, key):
                    session.execute(delete(EquipmentRow).where(EquipmentRow.id == key))

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

    def raw(self, rig_id: str) -> dict[str, Any]:
        """What the tables hold of a rig, as text: also of one that can no longer be read.

        Raises
        ------
        NotFound
            If there is none of that id.
        """
        with self._database.reading() as session:
            row = session.get(RigRow, rig_id)
            if row is None:
                raise NotFound("There is no such rig.")
            keys = {kind: getattr(row, f"{kind}_id") for kind in KINDS}
            parts = {kind: session.get(EquipmentRow, key) for kind, key in keys.items() if key}
            weighed = (
                select(WeighInRow.document)
                .where(WeighInRow.rig_id == row.id)
                .order_by(WeighInRow.position)
            )
            return {
                "name": row.name,
                "rig": row.document,
                **{kind: one.document for kind, one in parts.items() if one},
                "weigh_ins": list(session.scalars(weighed)),
            }

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
