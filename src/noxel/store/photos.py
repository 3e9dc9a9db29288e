"""Photographs of labels, tickets and loads, in a table of their own and so in every backup."""

from sqlalchemy import delete, select

from noxel.errors import Conflict, NotFound
from noxel.store.database import InDatabase, row_count
from noxel.store.equipment import now
from noxel.store.models import PhotoRow, TakenRow
from noxel.store.parts import row_of

MOST = 300
"""Photographs of one rig."""


class Photos(InDatabase):
    """The photographs of all rigs. NotFound is raised where there is no such rig."""

    def all(self, rig_id: str) -> list[PhotoRow]:
        """A rig's photographs without the pictures, the first taken first."""
        query = select(PhotoRow).where(PhotoRow.rig_id == rig_id)
        query = query.order_by(PhotoRow.added_at, PhotoRow.id)
        with self._database.reading() as session:
            row_of(session, rig_id)
            return list(session.scalars(query))

    def add(self, row: PhotoRow) -> None:
        """Keep a photograph; one that is there already stays as it is. One of a visit belongs to
        that visit's weigh-in, also where that comes later.

        Raises Conflict if there are too many already.
        """
        with self._database.writing() as session:
            row_of(session, row.rig_id)
            if session.get(PhotoRow, row.id) is not None:
                return
            if row_count(session, PhotoRow.rig_id == row.rig_id) >= MOST:
                raise Conflict(f"This rig has {MOST} photographs already. Take some away first.")
            if row.visit is not None:
                of_visit = select(TakenRow.weigh_in).where(
                    TakenRow.rig_id == row.rig_id, TakenRow.visit == row.visit
                )
                row.weigh_in = session.scalar(of_visit.order_by(TakenRow.weigh_in.desc()).limit(1))
            row.added_at = now()
            session.add(row)

    def picture(self, rig_id: str, photo: str, *, small: bool) -> bytes:
        """One picture as JPEG.

        Raises NotFound if it is not there.
        """
        column = PhotoRow.small if small else PhotoRow.picture
        with self._database.reading() as session:
            query = select(column).where(PhotoRow.id == photo, PhotoRow.rig_id == rig_id)
            picture = session.scalar(query)
        if picture is None:
            raise NotFound("This photograph is not there.")
        return picture

    def drop(self, rig_id: str, photo: str) -> None:
        """Take a photograph away, for good."""
        with self._database.writing() as session:
            session.execute(delete(PhotoRow).where(PhotoRow.id == photo, PhotoRow.rig_id == rig_id))
