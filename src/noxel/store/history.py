"""A rig's history: each step with what it did to the rig's documents, undone and redone; and which
figures the last edits set, so that a change typed before another's is noticed.

A step keeps a JSON patch for each document that it changed, both ways. A document that came or went
is kept whole, and so are those of steps that an earlier version wrote.
"""

import json
from collections.abc import Iterable, Sequence
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from noxel.core.editing import (
    Delta,
    Document,
    PathParts,
    delta,
    frame_of_weigh_ins,
    identify,
    patched,
    without_identities,
)
from noxel.core.rig import Identity, read_path, write_path
from noxel.errors import Conflict
from noxel.store.documents import dump
from noxel.store.equipment import KINDS, assemble, now, others_with
from noxel.store.models import ChangeRow, EditRow, RigRow
from noxel.store.parts import Documents, fit_the_others, standing, write

HISTORY = 500
"""How many steps of a rig's history are kept for undo."""
EDITS = 500
"""How many edits of a rig are kept: how far behind a page may be."""
MANY = 1000
"""An edit that sets more figures than this counts as having set all of them."""
Deltas = dict[str, Delta]
"""What an edit did to each document; patches of one that came or went are the document itself."""


def step_at(session: Session, row: RigRow, revision: int) -> ChangeRow | None:
    """The step that led to a revision, if it is kept."""
    return session.scalar(
        select(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision == revision)
    )


def deltas(before: Documents, after: Documents) -> Deltas:
    """What was done to each of a rig's documents; None stands for one that is not there."""
    deltas = {}
    for part, is_now in after.items():
        was = before.get(part)
        name: PathParts = () if part == "rig" else (part,)
        if part not in ("rig", *KINDS):
            name = ("weigh_ins", Identity(part))
        if was is None or is_now is None:
            deltas[part] = Delta(is_now, was, [name] if is_now is None else [])  # type: ignore[arg-type]
        else:
            deltas[part] = delta(was, is_now, name)
    return deltas


def record(
    session: Session,
    row: RigRow,
    what: str,
    gesture: str | None,
    deltas: Deltas,
    by: str | None,
) -> None:
    """Record a step after the last, and which figures it set; one of the same gesture becomes part
    of the last, and what was undone is forgotten.
    """
    session.execute(
        delete(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision > row.revision)
    )
    forth = {part: delta.forth for part, delta in deltas.items()}
    back = {part: delta.back for part, delta in deltas.items()}
    last = step_at(session, row, row.revision)
    if (
        last is not None
        and gesture is not None
        and last.gesture == gesture
        and session.get(EditRow, (row.id, row.edits)).by == by  # type: ignore[union-attr]
    ):
        last.after = dump(_joined(json.loads(last.after), forth))
        last.before = dump(_joined(back, json.loads(last.before)))
        last.at = now()
    else:
        row.revision += 1
        session.add(
            ChangeRow(
                rig_id=row.id,
                revision=row.revision,
                at=now(),
                what=what,
                gesture=gesture,
                before=dump(back),
                after=dump(forth),
            )
        )
        session.execute(
            delete(ChangeRow).where(
                ChangeRow.rig_id == row.id, ChangeRow.revision <= row.revision - HISTORY
            )
        )
    _record_edit(session, row, deltas, by)


def _joined(first: Documents, then: Documents) -> Documents:
    """What does the one and then the other, document by document."""
    both = dict(first)
    for part, kept in then.items():
        if isinstance(kept, list) and part in first:
            earlier = first[part]
            both[part] = [*earlier, *kept] if isinstance(earlier, list) else _made(earlier, kept)
        else:
            both[part] = kept
    return both


def _record_edit(session: Session, row: RigRow, deltas: Deltas, by: str | None) -> None:
    """Note which figures an edit set, also for the other rigs that have the equipment it
    changed.
    """
    _append(session, row, [path for delta in deltas.values() for path in delta.touched], by)
    for kind in KINDS:
        for other in others_with(session, row, kind) if kind in deltas else ():
            _append(session, other, deltas[kind].touched, by)


def _append(session: Session, row: RigRow, touched: Sequence[PathParts], by: str | None) -> None:
    row.edits += 1
    paths = [""] if len(touched) > MANY else [write_path(path) for path in touched]
    session.add(EditRow(rig_id=row.id, number=row.edits, by=by, touched=dump(paths)))
    session.execute(
        delete(EditRow).where(EditRow.rig_id == row.id, EditRow.number <= row.edits - EDITS)
    )


def touched_since(session: Session, row: RigRow, count: int, by: str | None) -> Iterable[PathParts]:
    """Which figures others set since a client saw the rig; the empty path stands for all.

    ``count``: how many edits the rig had then. ``by``: the client, whose own edits do not count.
    """
    query = select(EditRow).where(EditRow.rig_id == row.id, EditRow.number > count)
    rows = session.scalars(query).all()
    if len(rows) < row.edits - count:
        yield ()
    for edit in rows:
        if edit.by is None or edit.by != by:
            yield from map(read_path, json.loads(edit.touched))


def _made(stands: Document | None, kept: Any) -> Document | None:
    """A document as a step's record makes it of what stands: by a patch, or as it was kept
    whole.
    """
    if kept is None:
        return None
    return identify(patched(stands or {}, kept) if isinstance(kept, list) else kept)


def _bare(document: Document | None) -> Document | None:
    return without_identities(document) if document is not None else None


def follow(session: Session, row: RigRow, step: ChangeRow, by: str | None, *, back: bool) -> None:
    """Undo a step, or redo one that was undone.

    Raises Conflict if what it changed was changed in another rig since.
    """
    wanted, opposite = json.loads(step.after), json.loads(step.before)
    if back:
        wanted, opposite = opposite, wanted
    stands = standing(session, row, list(wanted))
    then: Documents = {}
    for part, kept in wanted.items():
        whose = f"The {part}" if part in KINDS else "What this step changed"
        changed = Conflict(f"{whose} was changed in another rig since. Undo it there first.")
        try:
            then[part] = _made(stands.get(part), kept)
            same = part not in KINDS or _bare(_made(then[part], opposite[part])) == _bare(
                stands.get(part)
            )
        except Conflict as exc:
            raise changed from exc
        if not same:
            raise changed
    framed = frame_of_weigh_ins(assemble(session, row))
    write(session, row, then)
    _record_edit(session, row, deltas(stands, then), by)
    framed_now = frame_of_weigh_ins(assemble(session, row))
    fit_the_others(session, row, list(then), framed=framed != framed_now)
