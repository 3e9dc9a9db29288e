"""A rig's history: each step with what it did to the rig's documents; undone and redone.

A step keeps a JSON patch for each document that it changed, both ways. A document that came or went
is kept whole, and so are those of steps that an earlier version wrote.
"""

import json
from contextlib import suppress
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document, frame_of_weigh_ins, patched, patches
from noxel.errors import Conflict
from noxel.store.documents import dump
from noxel.store.edits import record_edit
from noxel.store.equipment import KINDS, assemble, now
from noxel.store.models import ChangeRow, RigRow
from noxel.store.parts import Documents, fit_the_others, standing, write

HISTORY = 500
"""How many steps of a rig's history are kept for undo."""


def step_at(session: Session, row: RigRow, revision: int) -> ChangeRow | None:
    """The step that led to a revision, if it is kept."""
    return session.scalar(
        select(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision == revision)
    )


def record_step(
    session: Session,
    row: RigRow,
    what: str,
    gesture: str | None,
    before: Documents,
    after: Documents,
) -> None:
    """Record a step after the last; one of the same gesture becomes part of it, and what was undone
    is forgotten.
    """
    session.execute(
        delete(ChangeRow).where(ChangeRow.rig_id == row.id, ChangeRow.revision > row.revision)
    )
    last = step_at(session, row, row.revision)
    if last is not None and gesture is not None and last.gesture == gesture:
        with suppress(Conflict):  # changed in another rig meanwhile: then it is a step of its own
            back, forth = _joined(last, before, after)
            last.before, last.after, last.at = dump(back), dump(forth), now()
            return
    back, forth = _kept(before, after)
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


def _kept(before: Documents, after: Documents) -> tuple[Documents, Documents]:
    """What a step keeps to be undone, and to be redone."""
    back: Documents = {}
    forth: Documents = {}
    for part in before.keys() | after.keys():
        was, is_now = before.get(part), after.get(part)
        if was is None or is_now is None:
            back[part], forth[part] = was, is_now
        else:
            forth[part], back[part] = patches(was, is_now)
    return back, forth


def _joined(last: ChangeRow, before: Documents, after: Documents) -> tuple[Documents, Documents]:
    """What the last step keeps when a further change becomes part of it."""
    back, forth = json.loads(last.before), json.loads(last.after)
    first = {part: _made(stood, back[part]) for part, stood in before.items() if part in back}
    newly_back, newly_forth = _kept({**before, **first}, after)
    return {**back, **newly_back}, {**forth, **newly_forth}


def _made(stands: Document | None, kept: Any) -> Document | None:
    """A document as a step's record makes it of what stands: by a patch, or as it was kept
    whole.
    """
    return patched(stands or {}, kept) if isinstance(kept, list) else kept


def take_back(session: Session, row: RigRow, step: ChangeRow, page: str | None) -> None:
    """Undo a step.

    Raises
    ------
    Conflict
        If what it changed was changed in another rig since.
    """
    _follow(session, row, json.loads(step.before), json.loads(step.after), page)


def do_again(session: Session, row: RigRow, step: ChangeRow, page: str | None) -> None:
    """Redo a step that was undone; errors as :func:`take_back`."""
    _follow(session, row, json.loads(step.after), json.loads(step.before), page)


def _follow(
    session: Session, row: RigRow, wanted: Documents, opposite: Documents, page: str | None
) -> None:
    """Make what a step's record says, unless what it is about was changed elsewhere since."""
    stands = standing(session, row, list(wanted))
    then: Documents = {}
    for part, kept in wanted.items():
        whose = f"The {part}" if part in KINDS else "What this step changed"
        changed = Conflict(f"{whose} was changed in another rig since. Undo it there first.")
        try:
            then[part] = _made(stands.get(part), kept)
            same = part not in KINDS or _made(then[part], opposite[part]) == stands.get(part)
        except Conflict as exc:
            raise changed from exc
        if not same:
            raise changed
    framed = frame_of_weigh_ins(assemble(session, row))
    write(session, row, then)
    record_edit(session, row, {part: stands.get(part) for part in then}, then, page)
    framed_now = frame_of_weigh_ins(assemble(session, row))
    fit_the_others(session, row, list(then), framed=framed != framed_now)
