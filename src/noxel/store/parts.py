"""A rig's document in rows: taken apart, written, put together, and kept valid where other rows
depend on it.
"""

import datetime
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, insert, select
from sqlalchemy.orm import Session

from noxel.core.editing import Document, copied, fit, identify
from noxel.core.log import words_of
from noxel.errors import Conflict, InputError, NotFound
from noxel.store.database_file import Report, silent
from noxel.store.documents import checksum_of, dump, read_document, read_text
from noxel.store.equipment import (
    KINDS,
    assemble,
    new_rig_row,
    now,
    others_with,
    read_rig_row,
    write_part,
)
from noxel.store.models import FactsRow, RigRow, WeighInRow
from noxel.store.window import Window, look, whole_log

Documents = dict[str, Any]
"""Documents by name: ``rig`` without its equipment and weigh-ins, each piece of equipment by its
kind, each weigh-in by its key.
"""


def weigh_in_words(day: datetime.date | None) -> str:
    """What a weigh-in is called in an error."""
    return f"The weigh-in of {day}" if day else "A weigh-in without a day"


def split(document: Document) -> Documents:
    """A document in its parts; its weigh-ins by their identities."""
    parts: Documents = {
        "rig": {key: value for key, value in document.items() if key not in (*KINDS, "weigh_ins")}
    }
    parts.update({kind: document[kind] for kind in KINDS if kind in document})
    parts.update({weigh_in["id"]: weigh_in for weigh_in in document.get("weigh_ins", [])})
    return parts


@dataclass(slots=True)
class Prepared:
    """A new rig, ready to be written: everything that takes long is done before the database is
    held for writing.
    """

    rig: Document
    equipment: dict[str, Any]
    weigh_ins: list[dict[str, Any]]
    words: list[str]


def prepare(document: Document, report: Report = silent) -> Prepared:
    """Make a valid rig file ready to be written; ``report`` receives the progress."""
    document = identify(copied(document))
    parts = split(document)
    rows, words, weighed = [], [], document.get("weigh_ins", [])
    for number, weigh_in in enumerate(weighed, 1):
        rows.append(_row_of_weigh_in(weigh_in))
        words.append(words_of(weigh_in))
        if number % _AT_ONCE == 0:
            report(number, len(weighed), "reading weigh-ins")
    equipment = {kind: parts[kind] for kind in KINDS if kind in parts}
    return Prepared(parts["rig"], equipment, rows, words)


def _row_of_weigh_in(document: Document) -> dict[str, Any]:
    text = dump(document)
    return {
        "key": document["id"],
        "document": text,
        "checksum": checksum_of(text),
        "date": _day_of(document),
    }


def _day_of(document: Document) -> datetime.date | None:
    return datetime.date.fromisoformat(document["date"]) if document.get("date") else None


def write_new(
    session: Session, prepared: Prepared, report: Report = silent, *, example: bool = False
) -> str:
    """Write a new rig; returns its id. ``report`` receives the progress."""
    row, rows = new_rig_row(prepared.rig, example=example), prepared.weigh_ins
    session.add(row)
    session.flush()
    for kind, part in prepared.equipment.items():
        write_part(session, row, kind, part, prepared.rig["units"])
    session.flush()
    for start in range(0, len(rows), _AT_ONCE):
        session.execute(
            insert(WeighInRow),
            [{"rig_id": row.id, **values} for values in rows[start : start + _AT_ONCE]],
        )
        report(min(start + _AT_ONCE, len(rows)), len(rows), "keeping weigh-ins")
    ids = session.scalars(
        select(WeighInRow.id).where(WeighInRow.rig_id == row.id).order_by(WeighInRow.key)
    )
    facts = [
        {"weigh_in_id": key, "words": words} for key, words in zip(ids, prepared.words, strict=True)
    ]
    if facts:
        session.execute(insert(FactsRow), facts)
    return row.id


def row_of(session: Session, rig_id: str) -> RigRow:
    """A rig that is not deleted."""
    row = session.get(RigRow, rig_id)
    if row is None or row.deleted_at is not None:
        raise NotFound("There is no such rig.")
    return row


def whole(session: Session, row: RigRow, window: Window | None = None) -> Document:
    """A rig's document: its equipment in it, and the weigh-ins of a window, or all of them."""
    query = select(WeighInRow.document, WeighInRow.checksum, WeighInRow.date).where(
        WeighInRow.rig_id == row.id
    )
    query = query.order_by(WeighInRow.key)
    if window is not None and not window.whole:
        query = query.where(WeighInRow.key.in_(window.keys))
    weigh_ins = [
        read_text(text, checksum, weigh_in_words(day))
        for text, checksum, day in session.execute(query)
    ]
    document = assemble(session, row)
    return {**document, "weigh_ins": weigh_ins} if weigh_ins else document


def standing(session: Session, row: RigRow, parts: Sequence[str]) -> Documents:
    """What stands of some of a rig's documents; one that is not there is left out."""
    documents = split(assemble(session, row))
    query = select(WeighInRow).where(WeighInRow.rig_id == row.id, WeighInRow.key.in_(parts))
    for weigh_in in session.scalars(query):
        documents[weigh_in.key] = read_document(weigh_in, weigh_in_words(weigh_in.date))
    return {part: documents[part] for part in parts if part in documents}


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
    weigh_ins = [item for item in parts.items() if item[0] not in ("rig", *KINDS)]
    for start in range(0, len(weigh_ins), _AT_ONCE):
        _write_weigh_ins(session, row, dict(weigh_ins[start : start + _AT_ONCE]))
        report(min(start + _AT_ONCE, len(weigh_ins)), len(weigh_ins), "keeping weigh-ins")
    row.updated_at = now()
    session.flush()


_AT_ONCE = 1000
"""Weigh-ins that are written at once."""


def _write_weigh_ins(session: Session, row: RigRow, wanted: dict[str, Document | None]) -> None:
    """Put weigh-ins by their keys, and their words beside them; None takes one away."""
    in_rig = (WeighInRow.rig_id == row.id, WeighInRow.key.in_(wanted))
    present = {row.key: row for row in session.scalars(select(WeighInRow).where(*in_rig))}
    new = []
    for key, document in wanted.items():
        if document is None:
            if key in present:
                session.delete(present[key])
        elif key in present:
            present[key].document, present[key].date = dump(document), _day_of(document)
        else:
            new.append({"rig_id": row.id, **_row_of_weigh_in({**document, "id": key})})
    session.flush()
    if new:
        session.execute(insert(WeighInRow), new)
    ids = list(session.execute(select(WeighInRow.id, WeighInRow.key).where(*in_rig)))
    session.execute(delete(FactsRow).where(FactsRow.weigh_in_id.in_([own for own, _ in ids])))
    facts = [{"weigh_in_id": own, "words": words_of(wanted[key] or {})} for own, key in ids]
    if facts:
        session.execute(insert(FactsRow), facts)


def fit_the_rest(
    session: Session,
    row: RigRow,
    document: Document,
    window: Window,
    old: Documents,
    new: Documents,
) -> None:
    """The weigh-ins that the document does not hold follow a change of what their rules depend on,
    or it is refused.
    """
    outside = (WeighInRow.rig_id == row.id, WeighInRow.key.not_in(window.keys))
    query = select(WeighInRow).where(*outside).order_by(WeighInRow.key)
    others = [read_document(row, weigh_in_words(row.date)) for row in session.scalars(query)]
    try:
        fitted = fit({**document, "weigh_ins": others}).get("weigh_ins", [])
    except InputError as exc:
        raise Conflict(exc.message) from exc
    for was, is_now in zip(others, fitted, strict=True):
        if was != is_now:
            old[was["id"]], new[was["id"]] = was, is_now


def fit_the_others(session: Session, row: RigRow, changed: Sequence[str], *, framed: bool) -> None:
    """Other rigs that share changed equipment keep being valid rigs, or the change is refused."""
    for kind in KINDS:
        for other in others_with(session, row, kind) if kind in changed else ():
            window = whole_log(session, other) if framed else look(session, other)
            document = whole(session, other, window)
            try:
                old, new = split(document), split(fit(document))
            except InputError as exc:
                raise Conflict(
                    f"“{other.name or 'another rig'}” has the same {kind}. {exc.message}"
                ) from exc
            own = {part: kept for part, kept in new.items() if part not in KINDS}
            write(session, other, {part: own[part] for part in own if old.get(part) != own[part]})
