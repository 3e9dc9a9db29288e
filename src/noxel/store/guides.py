"""Towing guides kept in the garage, as they were pasted."""

from uuid import uuid4

from sqlalchemy import select
from sqlalchemy.orm import Session

from noxel.errors import Conflict, NotFound
from noxel.store.database import InDatabase, row_count
from noxel.store.equipment import now
from noxel.store.models import GuideRow

MOST = 40
"""Guides in one garage."""


class Guides(InDatabase):
    """All guides; NotFound is raised where there is no such guide."""

    def all(self) -> list[GuideRow]:
        """Every guide, by name."""
        query = select(GuideRow).order_by(GuideRow.name, GuideRow.created_at)
        with self._database.reading() as session:
            return list(session.scalars(query))

    def one(self, guide: str) -> GuideRow:
        """One guide."""
        with self._database.reading() as session:
            return _row(session, guide)

    def add(self, name: str, unit: str, text: str) -> GuideRow:
        """Keep a guide.

        Raises Conflict if there are too many.
        """
        with self._database.writing() as session:
            if row_count(session, GuideRow.id.is_not(None)) >= MOST:
                raise Conflict(f"There are {MOST} towing guides already. Take one away first.")
            row = GuideRow(id=uuid4().hex, name=name, unit=unit, text=text, created_at=now())
            session.add(row)
            return row

    def remove(self, guide: str) -> None:
        """Take a guide away."""
        with self._database.writing() as session:
            session.delete(_row(session, guide))


def _row(session: Session, guide: str) -> GuideRow:
    row = session.get(GuideRow, guide)
    if row is None:
        raise NotFound("There is no such towing guide.")
    return row
