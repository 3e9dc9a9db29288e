"""Rigs in the database: listed, opened, changed, undone, taken away. Each change is one transaction
with its record.
"""

import sqlite3
from collections.abc import Sequence
from contextlib import closing
from pathlib import Path
from typing import Any

from sqlalchemy import delete, func, select

from noxel.core.editing import Document, without_identities
from noxel.core.rig import parse_rig
from noxel.errors import NotFound
from noxel.store.changes import ChangingRigs
from noxel.store.database_file import Report, copy_pages, silent
from noxel.store.equipment import KINDS, now, rigs_with
from noxel.store.models import EquipmentRow, RigRow, WeighInRow
from noxel.store.parts import prepare, row_of, write_new
from noxel.store.stored import RigSummary, Stored, sound, stored, summary_of
from noxel.store.window import look, numbered, whole_log


class Rigs(ChangingRigs):
    """All rigs of one database. NotFound is raised where there is no such rig."""

    def summaries(self, *, deleted: bool = False) -> list[RigSummary]:
        """Every rig, the last used first; or those that were deleted and can be brought back."""
        count = select(func.count()).where(WeighInRow.rig_id == RigRow.id).scalar_subquery()
        kept = RigRow.deleted_at.is_not(None) if deleted else RigRow.deleted_at.is_(None)
        query = select(RigRow, count).where(kept).order_by(RigRow.updated_at.desc(), RigRow.id)
        with self._database.reading() as session:
            return [summary_of(session, row, weighed) for row, weighed in session.execute(query)]

    def open(self, rig_id: str, looking: int | None = None, *, entire: bool = False) -> Stored:
        """A rig with the weigh-in looked at and the last ones, or with all of them.

        ``looking``: which weigh-in is looked at, from 1; None, or one that is not there, is the
        last. ``entire``: whether the document holds the whole log.
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

        Raises NotFound if no rig has that id.
        """
        with self._database.reading() as session:
            row = row_of(session, rig_id)
            return stored(session, row, numbered(session, row, numbers))

    def add(self, document: Document, report: Report = silent, *, example: bool = False) -> str:
        """Keep a new rig; returns its id. ``report`` receives the progress.

        Raises RigFileError if the document is not a valid rig file; nothing is kept then.
        """
        parse_rig(document)
        prepared = prepare(document, report)
        with self._database.writing() as session:
            return write_new(session, prepared, report, example=example)

    def add_all(self, documents: Sequence[Document], report: Report = silent) -> Sequence[str]:
        """Keep several rigs, all of them or none; one that is there already, figure by figure, is
        left as it is.

        ``report`` receives the progress.

        Raises RigFileError if one of them is not a valid rig file; nothing is kept then.
        """
        with self._database.reading() as session:
            rows = session.scalars(select(RigRow).where(RigRow.deleted_at.is_(None)))
            present = [without_identities(document) for document in sound(session, rows)]
        wanted = []
        for number, document in enumerate(documents, 1):
            parse_rig(document)
            report(number, len(documents), f"reading rig {number} of {len(documents)}")
            if without_identities(document) not in present:
                wanted.append(prepare(document, report))
        # held only while rows are written, not while files are read
        with self._database.writing() as session:
            return [write_new(session, document, report) for document in wanted]

    def documents(self) -> Sequence[Document]:
        """Every rig's whole document, the last used first; one that is damaged is left out."""
        with self._database.reading() as session:
            rows = session.scalars(
                select(RigRow).where(RigRow.deleted_at.is_(None)).order_by(RigRow.updated_at.desc())
            )
            return sound(session, rows)

    def delete(self, rig_id: str, *, bring_back: bool = False) -> None:
        """Take a rig out of the list, or bring it back; nothing of it is lost."""
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

    def back_up(self, target: Path, report: Report) -> None:
        """Copy the whole database, of one consistent state, while it is in use."""
        pooled = self._database.engine.raw_connection()
        live: Any = pooled.driver_connection
        try:
            with closing(sqlite3.connect(target)) as copy:
                copy_pages(live, copy, report)
        finally:
            pooled.close()

    def raw(self, rig_id: str) -> dict[str, Any]:
        """What the tables hold of a rig, as text: also of one that can no longer be read."""
        with self._database.reading() as session:
            row = session.get(RigRow, rig_id)
            if row is None:
                raise NotFound("There is no such rig.")
            keys = {kind: getattr(row, f"{kind}_id") for kind in KINDS}
            parts = {kind: session.get(EquipmentRow, key) for kind, key in keys.items() if key}
            weighed = (
                select(WeighInRow.document)
                .where(WeighInRow.rig_id == row.id)
                .order_by(WeighInRow.key)
            )
            return {
                "name": row.name,
                "rig": row.document,
                **{kind: part.document for kind, part in parts.items() if part},
                "weigh_ins": list(session.scalars(weighed)),
            }

    def row(self, rig_id: str) -> RigRow:
        """A rig's own row, to be copied."""
        with self._database.reading() as session:
            return row_of(session, rig_id)
