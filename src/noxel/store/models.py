"""The tables. A rig's plates are one document, each weigh-in another, in the rig file's own names."""

import datetime

from sqlalchemy import ForeignKey, MetaData, String, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Base of all tables; constraints are named so that migrations can find them."""

    metadata = MetaData(naming_convention={
        "ix": "ix_%(table_name)s_%(column_0_name)s", "uq": "uq_%(table_name)s_%(column_0_name)s",
        "fk": "fk_%(table_name)s_%(column_0_name)s", "pk": "pk_%(table_name)s",
    })  # fmt: skip


class RigRow(Base):
    """A rig: its rig file without the weigh-ins, and where it stands in its history of changes."""

    __tablename__ = "rigs"

    id: Mapped[str] = mapped_column(String(32), primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    document: Mapped[str] = mapped_column(Text)
    revision: Mapped[int] = mapped_column(default=0)
    created_at: Mapped[datetime.datetime]
    updated_at: Mapped[datetime.datetime] = mapped_column(index=True)
    deleted_at: Mapped[datetime.datetime | None] = mapped_column(default=None)


class WeighInRow(Base):
    """One weigh-in of a rig, by its place in the rig file's list."""

    __tablename__ = "weigh_ins"
    __table_args__ = (UniqueConstraint("rig_id", "position"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    rig_id: Mapped[str] = mapped_column(ForeignKey("rigs.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    date: Mapped[datetime.date | None] = mapped_column(default=None)
    document: Mapped[str] = mapped_column(Text)


class ChangeRow(Base):
    """One step of a rig's history: the documents that it changed, before and after."""

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
