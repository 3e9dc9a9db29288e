"""What the last edits of a rig did, so that a change typed against an older state finds its place
in the newer one.
"""

import json
from collections.abc import Sequence
from dataclasses import replace

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from noxel.core.editing import (
    Change,
    Document,
    Edit,
    Gone,
    PathParts,
    Splice,
    edit_of,
    rebase,
    value_at,
)
from noxel.core.rig import read_path, write_path
from noxel.errors import Conflict, FieldConflict, Problem
from noxel.store.documents import dump
from noxel.store.equipment import KINDS, rigs_with
from noxel.store.models import EditRow, RigRow
from noxel.store.parts import Documents
from noxel.store.window import Window

KEPT = 500
"""How many edits of a rig are kept: how far behind a page may be."""


def record_edit(
    session: Session, row: RigRow, before: Documents, after: Documents, page: str | None
) -> None:
    """Record what an edit did, also for the other rigs that have the equipment it changed."""
    done = edit_of({**dict.fromkeys(after), **before}, {**dict.fromkeys(before), **after}, page)
    _append(session, row, done)
    for kind in KINDS:
        key = getattr(row, f"{kind}_id")
        if key and (kind in before or kind in after):
            own = Edit(
                tuple(each for each in done.splices if each.path[0] == kind),
                frozenset(each for each in done.touched if each[0] == kind),
                page,
                done.all,
            )
            for other in rigs_with(session, key):
                if other.id != row.id:
                    _append(session, other, own)


def _append(session: Session, row: RigRow, edit: Edit) -> None:
    row.edits += 1
    did = {
        "splices": [[*each.path, each.at, each.gone, each.come] for each in edit.splices],
        "touched": [list(each) for each in edit.touched],
        "all": edit.all,
    }
    session.add(EditRow(rig_id=row.id, number=row.edits, page=edit.by, did=dump(did)))
    session.execute(
        delete(EditRow).where(EditRow.rig_id == row.id, EditRow.number <= row.edits - KEPT)
    )


def _since(session: Session, row: RigRow, base: int) -> list[Edit]:
    rows = session.scalars(
        select(EditRow)
        .where(EditRow.rig_id == row.id, EditRow.number > base)
        .order_by(EditRow.number)
    ).all()
    if len(rows) < row.edits - base:
        raise Conflict(
            "This page is too far behind what was changed elsewhere. Load it again; nothing was "
            "changed."
        )
    found = []
    for each in rows:
        did = json.loads(each.did)
        splices = tuple(Splice(tuple(one[:-3]), *one[-3:]) for one in did["splices"])
        found.append(Edit(splices, frozenset(map(tuple, did["touched"])), each.page, did["all"]))
    return found


def _in_parts(parts: PathParts, keys: Sequence[int]) -> PathParts:
    """A path within the document as one within its parts: weigh-ins by their keys."""
    if parts[:1] == ("weigh_ins",) and len(parts) > 1 and isinstance(parts[1], int):
        if parts[1] < len(keys):
            return (str(keys[parts[1]]), *parts[2:])
        return ("weigh_ins", *parts[1:])
    return parts if parts[0] in KINDS else ("rig", *parts)


def _in_document(parts: PathParts, keys: Sequence[int]) -> PathParts:
    head = parts[0]
    if head == "rig":
        return parts[1:]
    if isinstance(head, str) and head.isdecimal():
        return ("weigh_ins", keys.index(int(head)), *parts[1:])
    return parts


def _shown(value: object) -> str:
    if value is None:
        return "empty"
    return str(value) if isinstance(value, str | int | float) else "something else"


def rebased(
    session: Session,
    row: RigRow,
    document: Document,
    window: Window,
    changes: Sequence[Change],
    base: int,
    page: str | None,
) -> list[Change]:
    """The changes of a page as they apply to what is there now.

    Parameters
    ----------
    document : dict
        The rig as it is now, in the page's window.
    changes : sequence of Change
        As typed under an older state.
    base : int
        Which state: how many edits it had.
    page : str or None
        The page that typed them.

    Raises
    ------
    FieldConflict
        If another page set the same figure to something else meanwhile; both values are said.
    Conflict
        If what a change is about was taken away, or the page is too far behind.
    """
    if base >= row.edits:
        return list(changes)
    edits = _since(session, row, base)
    made = []
    for change in changes:
        parts = read_path(change.path)
        try:
            there, conflict = rebase(
                _in_parts(parts, window.keys), edits, page, inserting=change.op == "insert"
            )
        except Gone as exc:
            raise Conflict(
                "What you typed into was taken away elsewhere. Nothing was changed."
            ) from exc
        path = write_path(_in_document(there, window.keys))
        theirs = value_at(document, read_path(path))
        mine = change.text if change.op == "type" else change.value
        if (
            conflict
            and _shown(mine).replace(",", "").strip() != _shown(theirs).replace(",", "").strip()
        ):
            said = (
                f"Elsewhere it was changed to {_shown(theirs)} meanwhile; here, {_shown(mine)} "
                "was typed."
            )
            raise FieldConflict(said, [Problem(path, said, "conflict.field")])
        made.append(replace(change, path=path))
    return made
