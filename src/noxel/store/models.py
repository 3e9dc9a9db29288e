"""The tables. Vehicle, hitch and trailer are equipment that rigs share; each weigh-in is a document
too.

All documents have the rig file's own names.
"""

import datetime

from sqlalchemy import (
    ForeignKey,
    Index,
    LargeBinary,
    MetaData,
    String,
    Text,
    UniqueConstraint,
    event,
)
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

from noxel.store.documents import checksum_of


class Base(DeclarativeBase):
    """Base of all tables; constraints are named so that migrations can find them."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(table_name)s_%(column_0_name)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "pk": "pk_%(table_name)s",
        }
    )


class EquipmentRow(Base):
    """A vehicle, a hitch or a trailer: its part of a rig file, and the units of its bare
    figures.
    """

    __tablename__ = "things"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    kind: Mapped[str] = mapped_column(String(16), index=True)
    name: Mapped[str] = mapped_column(Text)
    document: Mapped[str] = mapped_column(Text)
    checksum: Mapped[str | None] = mapped_column(String(16), default=None)
    created_at: Mapped[datetime.datetime]
    updated_at: Mapped[datetime.datetime]
    retired_at: Mapped[datetime.datetime | None] = mapped_column(default=None)


class RigRow(Base):
    """A rig: which equipment it couples, its rig file without them and without the weigh-ins, its
    place in its history.
    """

    __tablename__ = "rigs"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    document: Mapped[str] = mapped_column(Text)
    checksum: Mapped[str | None] = mapped_column(String(16), default=None)
    revision: Mapped[int] = mapped_column(default=0)
    edits: Mapped[int] = mapped_column(default=0)
    example: Mapped[bool] = mapped_column(default=False)
    created_at: Mapped[datetime.datetime]
    updated_at: Mapped[datetime.datetime] = mapped_column(index=True)
    deleted_at: Mapped[datetime.datetime | None] = mapped_column(default=None)
    vehicle_id: Mapped[str | None] = mapped_column(
        ForeignKey("things.id"), index=True, default=None
    )
    hitch_id: Mapped[str | None] = mapped_column(ForeignKey("things.id"), index=True, default=None)
    trailer_id: Mapped[str | None] = mapped_column(
        ForeignKey("things.id"), index=True, default=None
    )


class WeighInRow(Base):
    """One weigh-in of a rig; its ``key`` is its identity, which also orders the log."""

    __tablename__ = "weigh_ins"
    __table_args__ = (
        UniqueConstraint("rig_id", "key"),
        Index("ix_weigh_ins_rig_id_date", "rig_id", "date", "key"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), index=True)
    key: Mapped[str] = mapped_column(String(64))
    date: Mapped[datetime.date | None] = mapped_column(default=None)
    document: Mapped[str] = mapped_column(Text)
    checksum: Mapped[str | None] = mapped_column(String(16), default=None)


def _seal(row: EquipmentRow | RigRow | WeighInRow, text: str, *_: object) -> None:
    row.checksum = checksum_of(text)


for _kind in (EquipmentRow, RigRow, WeighInRow):
    event.listen(_kind.document, "set", _seal, propagate=True)


class EditRow(Base):
    """Which figures one edit of a rig set, as a list of paths with identities, and who made it;
    numbered from 1 without a gap. Undo and redo are edits too.
    """

    __tablename__ = "edits"

    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    by: Mapped[str | None] = mapped_column(String(64), default=None)
    touched: Mapped[str] = mapped_column(Text)


class SavesRow(Base):
    """One row: how many times something was saved here, counted in the transaction that saves
    it; and the epoch, another one whenever a backup takes the place of what was here.
    """

    __tablename__ = "saves"

    id: Mapped[int] = mapped_column(primary_key=True)
    count: Mapped[int]
    epoch: Mapped[str] = mapped_column(String(32))


class FactsRow(Base):
    """What the log keeps of a weigh-in: its words for searching, and its facts with a mark of all
    that they rest on.
    """

    __tablename__ = "log_facts"

    weigh_in_id: Mapped[int] = mapped_column(
        ForeignKey("weigh_ins.id", ondelete="CASCADE"), primary_key=True
    )
    words: Mapped[str] = mapped_column(Text)
    basis: Mapped[str | None] = mapped_column(String(64), default=None)
    facts: Mapped[str | None] = mapped_column(Text, default=None)


class ChangeRow(Base):
    """One step of a rig's history: what it did to each document, as JSON patches to undo and redo
    it (:mod:`noxel.store.history`).
    """

    __tablename__ = "changes"
    __table_args__ = (UniqueConstraint("rig_id", "revision"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), index=True)
    revision: Mapped[int]
    at: Mapped[datetime.datetime]
    what: Mapped[str] = mapped_column(Text)
    gesture: Mapped[str | None] = mapped_column(String(64), default=None)
    before: Mapped[str] = mapped_column(Text)
    after: Mapped[str] = mapped_column(Text)


class TakenRow(Base):
    """The key of a change that was taken: the same key again changes nothing. A ticket from the
    scale also has its ``visit``, and the key of the weigh-in that the tickets of that visit belong
    to.
    """

    __tablename__ = "taken"

    key: Mapped[str] = mapped_column(String(64), primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), index=True)
    made_at: Mapped[datetime.datetime]
    visit: Mapped[str | None] = mapped_column(String(64), index=True, default=None)
    weigh_in: Mapped[str | None] = mapped_column(String(64), default=None)


class PhotoRow(Base):
    """A photograph: what it shows, as a path of the rig file or a word, and the weigh-in that it
    belongs to by key.
    """

    __tablename__ = "photos"

    id: Mapped[str] = mapped_column(String(64), primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), index=True)
    about: Mapped[str] = mapped_column(String(300))
    weigh_in: Mapped[str | None] = mapped_column(String(64), default=None)
    visit: Mapped[str | None] = mapped_column(String(64), default=None)
    width: Mapped[int]
    height: Mapped[int]
    added_at: Mapped[datetime.datetime]
    picture: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)
    small: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class NotesRow(Base):
    """What belongs to a weigh-in and is not in the rig file: how the rig drove afterwards."""

    __tablename__ = "notes"

    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    weigh_in: Mapped[str] = mapped_column(String(64), primary_key=True)
    document: Mapped[str] = mapped_column(Text)


class OwnLineRow(Base):
    """A line of the owner's own on the ready-to-roll list; one of a trip is taken off when the trip
    is over. An id is never given again.
    """

    __tablename__ = "own_lines"
    __table_args__ = {"sqlite_autoincrement": True}

    id: Mapped[int] = mapped_column(primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), index=True)
    text: Mapped[str] = mapped_column(Text)
    trip: Mapped[bool] = mapped_column(default=False)
    done_at: Mapped[datetime.datetime | None] = mapped_column(default=None)
    done_by: Mapped[str | None] = mapped_column(Text, default=None)


class VisitRow(Base):
    """A visit to the scale that is under way: where its companion was left."""

    __tablename__ = "visits"

    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True)
    document: Mapped[str] = mapped_column(Text)


class LearnerRow(Base):
    """Somebody who practises in the yard, by name; there is no account."""

    __tablename__ = "learners"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    name: Mapped[str] = mapped_column(String(60), unique=True)
    created_at: Mapped[datetime.datetime]


class CardRow(Base):
    """What a learner has learned of a lesson (``lesson:…``) or a slip (``slip:…``): its box, when
    it is due, how often right and wrong.
    """

    __tablename__ = "cards"

    learner_id: Mapped[str] = mapped_column(
        ForeignKey("learners.id", ondelete="CASCADE"), primary_key=True
    )
    about: Mapped[str] = mapped_column(String(80), primary_key=True)
    box: Mapped[int]
    due: Mapped[datetime.date]
    right: Mapped[int]
    wrong: Mapped[int]
    last: Mapped[datetime.date]


class GuideRow(Base):
    """A maker's towing guide as it was pasted: its name, the unit of its bare masses, the table."""

    __tablename__ = "guides"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    unit: Mapped[str] = mapped_column(String(2))
    text: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime.datetime]
