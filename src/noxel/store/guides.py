"""Towing guides kept in the garage, as they were pasted."""

from dataclasses import dataclass
from uuid import uuid4

from sqlalchemy import func, select

from noxel.errors import Conflict, NotFound
from noxel.store.database import Database
from noxel.store.equipment import now
from noxel.store.models import GuideRow

MOST = 40
"""Guides in one garage."""


@dataclass(frozen=True, slots=True)
class Guide:
    """A guide: its name, the unit of its bare masses, the table."""

    id: str
    name: str
    unit: str
    text: str


class Guides:
    """All guides; NotFound is raised where there is no such guide."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[Guide]:
        """Every guide, by name."""
        with self._database.reading() as session:
            rows = session.scalars(select(GuideRow).order_by(GuideRow.name, GuideRow.created_at))
            return [Guide(row.id, row.name, row.unit, row.text) for row in rows]

    def one(self, guide: str) -> Guide:
        """One guide."""
        with self._database.reading() as session:
            row = session.get(GuideRow, guide)
            if row is None:
                raise NotFound("There is no such towing guide.")
            return Guide(row.id, row.name, row.unit, row.text)

    def add(self, name: str, unit: str, text: str) -> Guide:
        """Keep a guide.

        Raises Conflict if there are too many.
        """
        with self._database.writing() as session:
            if (session.scalar(select(func.count()).select_from(GuideRow)) or 0) >= MOST:
                raise Conflict(f"There are {MOST} towing guides already. Take one away first.")
            row = GuideRow(id=uuid4().hex, name=name, unit=unit, text=text, created_at=now())
            session.add(row)
            return Guide(row.id, row.name, row.unit, row.text)

    def remove(self, guide: str) -> None:
        """Take a guide away."""
        with self._database.writing() as session:
            row = session.get(GuideRow, guide)
            if row is None:
                raise NotFound("There is no such towing guide.")
            session.delete(row)
