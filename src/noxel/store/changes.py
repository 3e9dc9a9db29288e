"""Changing a rig in the database: typed into, a ticket taken, undone, redone. Each change is one
transaction with its record.
"""

from collections.abc import Callable, Sequence

from sqlalchemy import select, update
from sqlalchemy.orm import Session

from noxel.core.editing import Change, Document, Edited, apply_changes, frame_of_weigh_ins
from noxel.errors import Conflict
from noxel.store.database import Database
from noxel.store.edits import rebased, record_edit
from noxel.store.equipment import KINDS
from noxel.store.history import do_again, record_step, step_at, take_back
from noxel.store.models import PhotoRow, ReceivedRow, RigRow
from noxel.store.parts import fit_the_others, fit_the_rest, last_key, row_of, split, whole, write
from noxel.store.stored import Stored, stored
from noxel.store.window import Window, keys_after, look, named, number_of, whole_log


class ChangingRigs:
    """The rigs of one database, as far as they are changed."""

    def __init__(self, database: Database) -> None:
        self._database = database

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
