"""Opening the database: SQLite with WAL and foreign keys, migrated to the newest form."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from sqlalchemy import URL, Connection, Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session
from sqlalchemy.pool import StaticPool

from noxel.errors import InputError
from noxel.store.keep import before_migration, migrations


class Database:
    """One SQLite file, or a fresh one in memory.

    Raises
    ------
    InputError
        If it cannot be opened, is damaged, or was written by a newer Noxel.
    """

    def __init__(self, path: Path | None) -> None:
        self.path = path
        if path is None:
            self.engine = create_engine("sqlite://", poolclass=StaticPool, connect_args={"check_same_thread": False})
        else:
            try:
                path.parent.mkdir(parents=True, exist_ok=True)
            except OSError as exc:
                raise InputError(
                    f"{path.parent} cannot be a folder for the data: {exc.strerror}. Choose another with --data."
                ) from exc
            before_migration(path)
            url = URL.create("sqlite", database=str(path))
            self.engine = create_engine(url, connect_args={"check_same_thread": False, "timeout": 30})
        event.listen(self.engine, "connect", _prepare)
        event.listen(self.engine, "begin", _begin)
        try:
            migrate(self.engine)
        except OperationalError as exc:
            self.engine.dispose()
            raise InputError(
                f"The database {path} cannot be opened: {exc.orig}. Is its folder yours to write in, and not full?"
            ) from exc

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session that only reads, of one consistent state."""
        with Session(self.engine) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """One transaction that writes: all of it or nothing; the only writer while it lasts."""
        engine = self.engine.execution_options(sqlite_begin="IMMEDIATE")
        with Session(engine) as session, session.begin():
            yield session

    def close(self) -> None:
        """Close the file."""
        self.engine.dispose()


def _prepare(connection: sqlite3.Connection, _record: Any) -> None:
    connection.isolation_level = None  # transactions are ours, see _begin
    connection.execute("PRAGMA foreign_keys = ON")
    connection.execute("PRAGMA journal_mode = WAL")
    connection.execute("PRAGMA synchronous = NORMAL")


def _begin(connection: Connection) -> None:
    kind = connection.get_execution_options().get("sqlite_begin", "DEFERRED")
    connection.exec_driver_sql(f"BEGIN {kind}")


def migrate(engine: Engine) -> None:
    """Bring the database to the newest form."""
    config = migrations()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
