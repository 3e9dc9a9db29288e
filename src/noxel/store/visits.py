"""What belongs to a rig and is not in its rig file: the visit to the scale under way, how it drove,
the owner's own lines.
"""

import datetime
import json
from typing import Any

from sqlalchemy import delete, select, text
from sqlalchemy.orm import Session

from noxel.errors import Conflict, NotFound
from noxel.store.changes import take_once
from noxel.store.database import InDatabase, row_count
from noxel.store.equipment import now
from noxel.store.models import NotesRow, OwnLineRow, VisitRow, WeighInRow
from noxel.store.parts import row_of
from noxel.store.window import number_of

MOST_LINES = 100
"""Lines of the owner's own for one rig."""


class Visits(InDatabase):
    """Visits, notes and own lines of all rigs. NotFound is raised where there is no such
    rig, or no such line.
    """

    def visit(self, rig_id: str) -> dict[str, Any] | None:
        """Where the visit under way was left; None if none is."""
        with self._database.reading() as session:
            row_of(session, rig_id)
            visit = session.get(VisitRow, rig_id)
            return json.loads(visit.document) if visit else None

    def keep_visit(self, rig_id: str, document: dict[str, Any] | None) -> None:
        """Keep where the visit was left, or end it."""
        with self._database.writing() as session:
            row_of(session, rig_id)
            if document is None:
                session.execute(delete(VisitRow).where(VisitRow.rig_id == rig_id))
            else:
                session.merge(VisitRow(rig_id=rig_id, document=json.dumps(document)))

    def notes(self, rig_id: str) -> dict[int, dict[str, Any]]:
        """The notes of every drive, by the number that its weigh-in has now, from 1."""
        with self._database.reading() as session:
            row_of(session, rig_id)
            same = (WeighInRow.rig_id == NotesRow.rig_id) & (WeighInRow.key == NotesRow.weigh_in)
            rows = session.scalars(
                select(NotesRow).join(WeighInRow, same).where(NotesRow.rig_id == rig_id)
            )
            return {
                number_of(session, rig_id, row.weigh_in): json.loads(row.document) for row in rows
            }

    def keep_notes(self, rig_id: str, key: str, document: dict[str, Any] | None) -> None:
        """Keep the notes of the drive after a weigh-in, or take them away.

        Raises NotFound if there is no such rig or weigh-in.
        """
        with self._database.writing() as session:
            row_of(session, rig_id)
            in_weigh_in = (WeighInRow.rig_id == rig_id, WeighInRow.key == key)
            if session.scalar(select(WeighInRow.id).where(*in_weigh_in)) is None:
                raise NotFound("This weigh-in was taken away.")
            if document is None:
                session.execute(
                    delete(NotesRow).where(NotesRow.rig_id == rig_id, NotesRow.weigh_in == key)
                )
            else:
                session.merge(NotesRow(rig_id=rig_id, weigh_in=key, document=json.dumps(document)))

    def fees(self, rig_id: str) -> list[str]:
        """Every fee on the rig's tickets, as typed."""
        query = """SELECT json_extract(pass.value, '$.fee')
                    FROM weigh_ins, json_each(weigh_ins.document, '$.passes') AS pass
                   WHERE rig_id = :rig AND json_valid(weigh_ins.document)
                        AND json_extract(pass.value, '$.fee') IS NOT NULL"""
        with self._database.reading() as session:
            row_of(session, rig_id)
            return [str(fee) for fee in session.scalars(text(query), {"rig": rig_id})]

    def lines(self, rig_id: str) -> list[OwnLineRow]:
        """The owner's own lines, in the order they were added."""
        with self._database.reading() as session:
            row_of(session, rig_id)
            query = select(OwnLineRow).where(OwnLineRow.rig_id == rig_id).order_by(OwnLineRow.id)
            return list(session.scalars(query))

    def add_line(self, rig_id: str, says: str, *, trip: bool, key: str | None = None) -> None:
        """Add a line; once, where it is sent again with the same key.

        Raises Conflict if there are too many already.
        """
        with self._database.writing() as session:
            row_of(session, rig_id)
            if take_once(session, rig_id, key):
                return
            if row_count(session, OwnLineRow.rig_id == rig_id) >= MOST_LINES:
                raise Conflict(f"There are {MOST_LINES} lines already. Take some away first.")
            session.add(OwnLineRow(rig_id=rig_id, text=says, trip=trip))

    def tick_line(self, rig_id: str, line: int, by: str | None, ago: int = 0) -> None:
        """Note that a line was done, by whom and how long ago [s]; None takes the tick away."""
        with self._database.writing() as session:
            row = _line(session, rig_id, line)
            row.done_at, row.done_by = (
                (None, None) if by is None else (now() - datetime.timedelta(seconds=ago), by)
            )

    def drop_line(self, rig_id: str, line: int) -> None:
        """Take a line away."""
        with self._database.writing() as session:
            session.delete(_line(session, rig_id, line))

    def end_trip(self, rig_id: str) -> None:
        """Take the lines of the trip away, and the ticks of all others."""
        with self._database.writing() as session:
            row_of(session, rig_id)
            session.execute(delete(OwnLineRow).where(OwnLineRow.rig_id == rig_id, OwnLineRow.trip))
            for row in session.scalars(select(OwnLineRow).where(OwnLineRow.rig_id == rig_id)):
                row.done_at = row.done_by = None


def _line(session: Session, rig_id: str, line: int) -> OwnLineRow:
    row = session.get(OwnLineRow, line)
    if row is None or row.rig_id != rig_id:
        raise NotFound("There is no such line.")
    return row


def when_done(row: OwnLineRow) -> datetime.datetime | None:
    """When a line was done, in UTC."""
    return row.done_at.replace(tzinfo=datetime.UTC) if row.done_at else None
