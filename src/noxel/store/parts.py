"""A rig's document in rows: taken apart, written, put together, and kept valid where other rows
depend on it.
"""

import datetime
import re
import uuid
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, func, insert, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document, fit
from noxel.core.log import words_of
from noxel.errors import Conflict, InputError, NotFound
from noxel.store.documents import checksum_of, dump, read_document, read_text
from noxel.store.equipment import KINDS, assemble, now, read_rig_row, rigs_with, write_part
from noxel.store.models import FactsRow, RigRow, WeighInRow
from noxel.store.window import Window, look, whole_log

Report = Callable[[int, int, str], None]
"""Receives how much is done, of how much, and what is being done."""


def silent(_done: int, _of: int, _says: str) -> None:
    """Nobody waits for it."""


Documents = dict[str, Any]
"""Documents by name: ``rig`` without its equipment and weigh-ins, each piece of equipment by its
kind, each weigh-in by its key.
"""


def weigh_in_words(day: datetime.date | None) -> str:
    """What a weigh-in is called in an error."""
    return f"The weigh-in of {day}" if day else "A weigh-in without a day"


def split(document: Document, keys: Sequence[int]) -> Documents:
    """A document in its parts; its weigh-ins by these keys."""
    parts: Documents = {
        "rig": {key: value for key, value in document.items() if key not in (*KINDS, "weigh_ins")}
    }
    parts.update({kind: document[kind] for kind in KINDS if kind in document})
    parts.update(
        {str(key): each for key, each in zip(keys, document.get("weigh_ins", []), strict=True)}
    )
    return parts


@dataclass(slots=True)
class Prepared:
    """A new rig, ready to be written: everything that takes long is done before the database is
    held for writing.
    """

    name: str
    rig: Document
    equipment: dict[str, Any]
    weigh_ins: list[dict[str, Any]]
    words: list[str]


def prepare(document: Document, report: Report = silent) -> Prepared:
    """Make a valid rig file ready to be written; ``report`` receives the progress."""
    parts = split(document, range(len(document.get("weigh_ins", []))))
    rows, words, weighed = [], [], document.get("weigh_ins", [])
    for position, each in enumerate(weighed):
        text = dump(each)
        day = datetime.date.fromisoformat(each["date"]) if each.get("date") else None
        rows.append(
            {"position": position, "document": text, "checksum": checksum_of(text), "date": day}
        )
        words.append(words_of(each))
        if position % _AT_ONCE == _AT_ONCE - 1:
            report(position + 1, len(weighed), "reading weigh-ins")
    equipment = {kind: parts[kind] for kind in KINDS if kind in parts}
    return Prepared(parts["rig"].get("name", ""), parts["rig"], equipment, rows, words)


def write_new(
    session: Session, prepared: Prepared, report: Report = silent, *, example: bool = False
) -> str:
    """Write a new rig; returns its id. ``report`` receives the progress."""
    text, rows = dump(prepared.rig), prepared.weigh_ins
    row = RigRow(
        id=uuid.uuid4().hex,
        name=prepared.name,
        document=text,
        example=example,
        created_at=now(),
        updated_at=now(),
    )
    session.add(row)
    session.flush()
    for kind, part in prepared.equipment.items():
        write_part(session, row, kind, part, prepared.rig["units"])
    session.flush()
    for start in range(0, len(rows), _AT_ONCE):
        session.execute(
            insert(WeighInRow),
            [{"rig_id": row.id, **each} for each in rows[start : start + _AT_ONCE]],
        )
        report(min(start + _AT_ONCE, len(rows)), len(rows), "keeping weigh-ins")
    ids = session.scalars(
        select(WeighInRow.id).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.position)
    )
    facts = [
        {"weigh_in_id": key, "words": words} for key, words in zip(ids, prepared.words, strict=True)
    ]
    if facts:
        session.execute(insert(FactsRow), facts)
    return row.id


def row_of(session: Session, rig_id: str) -> RigRow:
    """A rig that is not deleted.

    Raises
    ------
    NotFound
        If there is none of that id.
    """
    row = session.get(RigRow, rig_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such rig.")
    return row


def whole(session: Session, row: RigRow, window: Window | None = None) -> Document:
    """A rig's document: its equipment in it, and the weigh-ins of a window, or all of them."""
    query = select(WeighInRow.document, WeighInRow.checksum, WeighInRow.date).where(
        WeighInRow.rig_id == row.id
    )
    query = query.order_by(WeighInRow.position)
    if window is not None and not window.whole:
        query = query.where(WeighInRow.position.in_(window.keys))
    weigh_ins = [
        read_text(text, checksum, weigh_in_words(day))
        for text, checksum, day in session.execute(query)
    ]
    made = assemble(session, row)
    return {**made, "weigh_ins": weigh_ins} if weigh_ins else made


def standing(session: Session, row: RigRow, parts: Sequence[str]) -> Documents:
    """What stands of some of a rig's documents; one that is not there is left out."""
    found = split(assemble(session, row), ())
    keys = [int(part) for part in parts if part not in ("rig", *KINDS)]
    query = select(WeighInRow).where(WeighInRow.rig_id == row.id, WeighInRow.position.in_(keys))
    for each in session.scalars(query):
        found[str(each.position)] = read_document(each, weigh_in_words(each.date))
    return {part: found[part] for part in parts if part in found}


def last_key(session: Session, row: RigRow) -> int:
    """The greatest key of a rig's weigh-ins, or -1."""
    last = session.scalar(select(func.max(WeighInRow.position)).where(WeighInRow.rig_id == row.id))
    return -1 if last is None else last


def write(session: Session, row: RigRow, parts: Documents, report: Report = silent) -> None:
    """Write the parts of a rig to their rows and delete those that are None; ``report`` receives
    the progress.
    """
    if "rig" in parts:
        row.document, row.name = dump(parts["rig"]), parts["rig"].get("name", "")
    for kind in KINDS:
        if kind in parts:
            units = parts["rig"]["units"] if "rig" in parts else read_rig_row(row)["units"]
            write_part(session, row, kind, parts[kind], units)
    weigh_ins = [
        (int(part), document) for part, document in parts.items() if part not in ("rig", *KINDS)
    ]
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
            text = dump(document)
            new.append(
                {
                    "rig_id": row.id,
                    "position": key,
                    "document": text,
                    "checksum": checksum_of(text),
                    "date": day,
                }
            )
    session.flush()
    if new:
        session.execute(insert(WeighInRow), new)
    ids = list(session.execute(select(WeighInRow.id, WeighInRow.position).where(*here)))
    session.execute(delete(FactsRow).where(FactsRow.weigh_in_id.in_([key for key, _ in ids])))
    facts = [
        {"weigh_in_id": key, "words": words_of(wanted[position] or {})} for key, position in ids
    ]
    if facts:
        session.execute(insert(FactsRow), facts)


def fit_the_rest(
    session: Session, row: RigRow, made: Document, window: Window, old: Documents, new: Documents
) -> None:
    """The weigh-ins that the document does not hold follow a change of what their rules depend on,
    or it is refused.
    """
    outside = (WeighInRow.rig_id == row.id, WeighInRow.position.not_in(window.keys))
    query = select(WeighInRow).where(*outside).order_by(WeighInRow.position)
    kept = {
        each.position: read_document(each, weigh_in_words(each.date))
        for each in session.scalars(query)
    }
    try:
        fitted = fit({**made, "weigh_ins": list(kept.values())}).get("weigh_ins", [])
    except InputError as exc:
        raise Conflict(_contradicts(exc, list(kept.values()))) from exc
    for (key, was), now_is in zip(kept.items(), fitted, strict=True):
        if was != now_is:
            old[str(key)], new[str(key)] = was, now_is


def _contradicts(exc: InputError, weigh_ins: Sequence[Document]) -> str:
    """Which weigh-in does not fit, by its day and place, and what to do."""
    problem = exc.problems[0] if exc.problems else None
    found = re.match(r"weigh_ins\[(\d+)\]", problem.path) if problem else None
    if found is None or problem is None:
        return f"A weigh-in further back contradicts this: {exc.message}"
    one = weigh_ins[int(found[1])]
    which = ", ".join(str(one[key]) for key in ("date", "place") if one.get(key)) or "no day"
    return (
        f"A weigh-in further back, of {which}, contradicts this: {problem.message}. Correct it "
        "first, or delete it in the Log."
    )


def fit_the_others(session: Session, row: RigRow, changed: Sequence[str], *, framed: bool) -> None:
    """Other rigs that share changed equipment keep being valid rigs, or the change is refused."""
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
                old, new = split(document, window.keys), split(fit(document), window.keys)
            except InputError as exc:
                raise Conflict(
                    f"“{other.name or 'another rig'}” has the same {kind}, and its weigh-ins "
                    f"contradict this: {exc.message}"
                ) from exc
            write(
                session,
                other,
                {
                    part: new.get(part)
                    for part in new
                    if part not in KINDS and old.get(part) != new.get(part)
                },
            )
