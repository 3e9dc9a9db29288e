"""Who practises on this machine, and what each has learned. Nothing here touches a rig."""

import datetime
from collections.abc import Iterable
from dataclasses import dataclass
from uuid import uuid4

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from noxel.core.practice import Card, after
from noxel.errors import Conflict, InputError, NotFound, Problem
from noxel.store.database import InDatabase
from noxel.store.equipment import now
from noxel.store.models import CardRow, LearnerRow

MOST = 50
"""Learners on one machine."""


@dataclass(frozen=True, slots=True)
class Known:
    """What is known of a lesson or a slip: when it is due, how often it went right and wrong, when
    it was last asked.
    """

    about: str
    card: Card
    right: int
    wrong: int
    last: datetime.date


class Practice(InDatabase):
    """Learners and their cards. NotFound is raised where there is no such learner."""

    def learners(self) -> list[LearnerRow]:
        """Everybody who practises here, in the order they came."""
        query = select(LearnerRow).order_by(LearnerRow.created_at, LearnerRow.name)
        with self._database.reading() as session:
            return list(session.scalars(query))

    def add(self, name: str) -> LearnerRow:
        """Add a learner.

        Raises InputError if the name is empty; Conflict if the name is taken, or there are too
        many.
        """
        name = " ".join(name.split())
        if not name:
            raise InputError("A name is needed.", [Problem("name", "is needed", "missing")])
        with self._database.writing() as session:
            names = list(session.scalars(select(LearnerRow.name)))
            if any(used.casefold() == name.casefold() for used in names):
                raise Conflict(f"{name} practises here already.")
            if len(names) >= MOST:
                raise Conflict(f"{MOST} people practise here already. Take somebody off first.")
            row = LearnerRow(id=uuid4().hex, name=name, created_at=now())
            session.add(row)
            return row

    def remove(self, learner: str) -> None:
        """Take a learner off, with all that was kept of their progress."""
        with self._database.writing() as session:
            session.delete(_learner(session, learner))

    def reset(self, learner: str) -> None:
        """Forget a learner's progress."""
        with self._database.writing() as session:
            _learner(session, learner)
            session.execute(delete(CardRow).where(CardRow.learner_id == learner))

    def name(self, learner: str) -> str:
        """What a learner is called."""
        with self._database.reading() as session:
            return _learner(session, learner).name

    def known(self, learner: str) -> list[Known]:
        """Everything that is known of a learner's progress."""
        with self._database.reading() as session:
            _learner(session, learner)
            rows = session.scalars(
                select(CardRow).where(CardRow.learner_id == learner).order_by(CardRow.about)
            )
            return [
                Known(row.about, Card(row.box, row.due), row.right, row.wrong, row.last)
                for row in rows
            ]

    def note(
        self, learner: str, right: Iterable[str], wrong: Iterable[str], today: datetime.date
    ) -> None:
        """Note what went right and what went wrong. What was right before it was due stays where it
        is."""
        with self._database.writing() as session:
            _learner(session, learner)
            for about, known in [
                *((way, True) for way in right),
                *((way, False) for way in wrong),
            ]:
                row = session.get(CardRow, (learner, about))
                card = Card(row.box, row.due) if row else None
                if row is None:
                    row = CardRow(learner_id=learner, about=about, right=0, wrong=0)
                    session.add(row)
                if card is None or not known or card.due <= today:
                    moved = after(card, known=known, today=today)
                    row.box, row.due = moved.box, moved.due
                row.right, row.wrong, row.last = row.right + known, row.wrong + (not known), today


def _learner(session: Session, learner: str) -> LearnerRow:
    row = session.get(LearnerRow, learner)
    if row is None:
        raise NotFound("Nobody of that name practises here.")
    return row
