"""A rig's history: each step with the documents that it changed, before and after; undone and
redone.
"""

import json

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from noxel.core.editing import frame_of_weigh_ins
from noxel.errors import Conflict
from noxel.store.documents import dump
from noxel.store.edits import record_edit
from noxel.store.equipment import KINDS, assemble, now
from noxel.store.models import ChangeRow, RigRow
from noxel.store.parts import Documents, fit_the_others, write

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
        last.before = dump({**before, **json.loads(last.before)})
        last.after = dump({**json.loads(last.after), **after})
        last.at = now()
        return
    row.revision += 1
    session.add(
        ChangeRow(
            rig_id=row.id,
            revision=row.revision,
            at=now(),
            what=what,
            gesture=gesture,
            before=dump(before),
            after=dump(after),
        )
    )
    session.execute(
        delete(ChangeRow).where(
            ChangeRow.rig_id == row.id, ChangeRow.revision <= row.revision - HISTORY
        )
    )


def take_back(
    session: Session, row: RigRow, now_there: Documents, then: Documents, page: str | None
) -> None:
    """Put a step's documents back, unless shared equipment was changed elsewhere since."""
    stands = assemble(session, row)
    for kind in KINDS:
        if kind in now_there and stands.get(kind) != now_there[kind]:
            raise Conflict(f"The {kind} was changed in another rig since. Undo it there first.")
    write(session, row, then)
    record_edit(session, row, now_there, then, page)
    fit_the_others(
        session,
        row,
        list(then),
        framed=frame_of_weigh_ins(stands) != frame_of_weigh_ins(assemble(session, row)),
    )
