"""Changing a rig in the database: typed into, a ticket taken, undone, redone. Each change is one
transaction with its record, and is taken once.
"""

from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass

from sqlalchemy import select, text, update
from sqlalchemy.orm import Session

from noxel.core.editing import (
    Change,
    Document,
    Edited,
    PathParts,
    apply_changes,
    frame_of_weigh_ins,
    identify,
    named,
    positions,
    value_at,
)
from noxel.core.rig import Identity, read_path
from noxel.errors import Conflict, FieldConflict, Gone, OtherEpoch, Problem
from noxel.store.database import InDatabase
from noxel.store.equipment import KINDS, now
from noxel.store.history import deltas, follow, record, step_at, touched_since
from noxel.store.models import PhotoRow, RigRow, TakenRow
from noxel.store.parts import fit_the_others, fit_the_rest, row_of, split, whole, write
from noxel.store.stored import Stored, stored
from noxel.store.window import Window, look, number_of, whole_log


@dataclass(frozen=True, slots=True)
class Sent:
    """How a change reached us.

    ``key`` is its own, made where it was typed: it is taken once, however often it is sent. ``by``
    is the client, ``seen`` how many edits the rig had as that client saw it, ``epoch`` the
    database's then. ``overrules`` are paths whose conflict a person has decided.
    """

    key: str | None = None
    by: str | None = None
    seen: int | None = None
    epoch: str | None = None
    overrules: Collection[str] = ()


UNKNOWN = Sent()
"""A change of which nothing is known: a script's, or this program's own."""


class ChangingRigs(InDatabase):
    """The rigs of one database, as far as they are changed."""

    def change(
        self,
        rig_id: str,
        what: str,
        make: Callable[[Document], Document],
        *,
        looking: int | None = None,
        entire: bool = False,
        sent: Sent = UNKNOWN,
    ) -> Stored:
        """Change a rig and record the step, in one transaction.

        ``what``: the step in words, for undo. ``make``: from the stored document to the new one; an
        error leaves everything as it was. ``looking``: which weigh-in the document and the answer
        look at. ``entire``: whether the document holds the whole log. ``sent``: how the change
        reached us.

        Raises NotFound if no rig has that id; Conflict if a weigh-in that the document does
        not hold contradicts the change.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            window = whole_log(session, row, looking) if entire else look(session, row, looking)
            if take_once(session, row.id, sent.key):
                return stored(session, row, window)
            _lists_as_seen(session, row, sent)
            document = whole(session, row, window)
            return _put(session, row, window, document, make(document), what, looking, sent)

    def enter(
        self,
        rig_id: str,
        what: str,
        changes: Sequence[Change],
        gesture: str | None = None,
        *,
        looking: int | None = None,
        sent: Sent = UNKNOWN,
    ) -> Stored:
        """Change a rig by what was typed; as :meth:`change`.

        ``changes``: their paths name elements by identity; a position is that of the newest
        document. ``gesture``: steps of one gesture (typing in one field) become one step.

        Raises FieldConflict if another client set the same figure meanwhile; Gone if what a change
        is about was taken away; OtherEpoch if a backup was restored since it was typed; NotFound or
        Conflict as :meth:`change`.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            paths = [read_path(change.path) for change in changes]
            weigh_ins = [path[1] for path in paths if path[:1] == ("weigh_ins",) and len(path) > 1]
            keys = [part for part in weigh_ins if isinstance(part, Identity)]
            window = (
                look(session, row, looking, keys)
                if len(keys) == len(weigh_ins)
                else whole_log(session, row, looking)
            )
            if take_once(session, row.id, sent.key):
                return stored(session, row, look(session, row, looking))
            document = whole(session, row, window)
            _same_epoch(session, sent)
            _no_conflict(session, row, document, changes, sent)
            edited = apply_changes(document, changes)
            return _put(session, row, window, document, edited, what, looking, sent, gesture)

    def receive(
        self,
        rig_id: str,
        visit: str,
        make: Callable[[Document, int | None], Document],
        *,
        sent: Sent,
    ) -> Stored:
        """Take a ticket that another device jotted down.

        ``visit``: what the device calls the visit to the scale that the ticket belongs to.
        ``make``: from the document, and where the visit's weigh-in stands in it (None: not yet
        there), to the new document. ``sent``: how the ticket reached us.

        Raises NotFound if there is no such rig; Conflict if the key was another rig's.
        """
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            of_visit = select(TakenRow.weigh_in).where(
                TakenRow.rig_id == rig_id, TakenRow.visit == visit
            )
            key = session.scalar(of_visit.order_by(TakenRow.weigh_in.desc()).limit(1))
            number = number_of(session, rig_id, key) if key else None
            window = look(session, row, number)
            if take_once(session, row.id, sent.key):
                return stored(session, row, window)
            present = key in window.keys
            document = whole(session, row, window)
            new = make(document, window.keys.index(key) if key and present else None)
            looking = number if present else None
            answer = _put(session, row, window, document, new, "ticket", looking, sent)
            if not present:
                key = answer.window.keys[-1]
                without = (
                    PhotoRow.rig_id == rig_id,
                    PhotoRow.visit == visit,
                    PhotoRow.weigh_in.is_(None),
                )
                session.execute(update(PhotoRow).where(*without).values(weigh_in=key))
            earlier = session.get_one(TakenRow, sent.key)
            earlier.visit, earlier.weigh_in = visit, key
            return answer

    def undo(self, rig_id: str, looking: int | None = None, *, sent: Sent = UNKNOWN) -> Stored:
        """Undo the last step.

        Raises NotFound if there is no such rig; Conflict if there is nothing to undo, or what it
        changed was changed in another rig since.
        """
        return self._move(rig_id, looking, sent, back=True)

    def redo(self, rig_id: str, looking: int | None = None, *, sent: Sent = UNKNOWN) -> Stored:
        """Redo the step that was undone last; errors as :meth:`undo`."""
        return self._move(rig_id, looking, sent, back=False)

    def _move(self, rig_id: str, looking: int | None, sent: Sent, *, back: bool) -> Stored:
        with self._database.writing() as session:
            row = row_of(session, rig_id)
            if not take_once(session, row.id, sent.key):
                step = step_at(session, row, row.revision + (not back))
                if step is None:
                    raise Conflict(f"There is nothing to {'undo' if back else 'redo'}.")
                follow(session, row, step, sent.by, back=back)
                row.revision += -1 if back else 1
            return stored(session, row, look(session, row, looking))


def take_once(session: Session, rig_id: str, key: str | None) -> bool:
    """Whether a key was taken already; it is from now on.

    Raises Conflict if it was another rig's.
    """
    if key is None:
        return False
    earlier = session.get(TakenRow, key)
    if earlier is not None and earlier.rig_id != rig_id:
        raise Conflict(
            "This change was already sent for another rig. Reload the page and make it again."
        )
    if earlier is None:
        session.add(TakenRow(key=key, rig_id=rig_id, made_at=now()))
        session.flush()
    return earlier is not None


def _lists_as_seen(session: Session, row: RigRow, sent: Sent) -> None:
    """Steps count items as they were listed; where others changed the lists since, they count
    wrong.
    """
    if sent.seen is not None and sent.seen < row.edits:
        touched = touched_since(session, row, sent.seen, None)
        if any(path[:1] in ((), ("loads",), ("tanks",)) for path in touched):
            raise Conflict(
                "The lists in Pack were changed since these steps were tried. Look at them again; "
                "nothing was changed."
            )


def _same_epoch(session: Session, sent: Sent) -> None:
    if sent.epoch is not None and sent.epoch != session.scalar(text("SELECT epoch FROM saves")):
        raise OtherEpoch(
            "A backup was restored after this was typed. See whether it still holds; nothing was "
            "changed."
        )


def _no_conflict(
    session: Session, row: RigRow, document: Document, changes: Sequence[Change], sent: Sent
) -> None:
    """Raise where another client set the same figure of the same element since this one saw it."""
    if sent.seen is None or sent.seen >= row.edits:
        return
    touched = list(touched_since(session, row, sent.seen, sent.by))
    for change in changes if touched else ():
        if change.op == "insert" or change.path in sent.overrules:
            continue
        try:
            place = positions(document, read_path(change.path))
        except Gone:
            continue  # or not there yet: the change before this one may put it in
        path = named(document, place)
        theirs = _shown(value_at(document, place))
        mine = _shown(change.text if change.op == "type" else change.value)
        if any(_meet(path, other) for other in touched) and _bare(mine) != _bare(theirs):
            message = (
                "Someone changed it elsewhere while you took it off the list here."
                if change.op == "remove"
                else f"It was changed to {theirs} elsewhere in the meantime."
            )
            problem = Problem(change.path, message, FieldConflict.code)
            raise FieldConflict(message, [problem])


def _bare(text: str) -> str:
    return text.replace(",", "").strip()


def _meet(path: PathParts, other: PathParts) -> bool:
    """Whether one of two paths is the other, or leads to it."""
    shorter = min(len(path), len(other))
    return path[:shorter] == other[:shorter]


def _shown(value: object) -> str:
    if value is None:
        return "empty"
    return str(value) if isinstance(value, str | int | float) else "something else"


def _put(
    session: Session,
    row: RigRow,
    window: Window,
    document: Document,
    new: Document | Edited,
    what: str,
    looking: int | None,
    sent: Sent,
    gesture: str | None = None,
) -> Stored:
    """Write a changed document and its record."""
    edited = new if isinstance(new, Edited) else None
    written = new.document if isinstance(new, Edited) else new
    old, parts = split(document), split(identify(written))
    framed = frame_of_weigh_ins(document) != frame_of_weigh_ins(written)
    if framed and not window.whole:
        fit_the_rest(session, row, written, window, old, parts)
    after = {part: parts.get(part) for part in {**old, **parts} if old.get(part) != parts.get(part)}
    if after:
        write(session, row, after)
        fit_the_others(session, row, list(after), framed=framed)
        record(session, row, what, gesture, deltas(old, after), sent.by)
    shown = look(session, row, looking)
    gone = [part for part in (*KINDS, "weigh_ins") if not written.get(part, part)]
    if gone or shown.keys != tuple(weigh_in["id"] for weigh_in in written.get("weigh_ins", ())):
        edited = None  # what is shown is not what was made: it is read
    return stored(session, row, shown, edited)
