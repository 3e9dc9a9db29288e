"""Opening the database: SQLite with WAL, full synchronisation and foreign keys, migrated to the
newest form.
"""

import os
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from typing import Any

from alembic import command
from sqlalchemy import (
    URL,
    ColumnElement,
    Connection,
    Engine,
    create_engine,
    event,
    func,
    select,
    text,
)
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session
from sqlalchemy.pool import StaticPool

from noxel.errors import StorageFault
from noxel.store.backup import before_migration, keep_aside
from noxel.store.database_file import migrations, private_folder
from noxel.store.faults import fault_of
from noxel.store.seal import Seal


class InDatabase:
    """Something that is kept in one database."""

    def __init__(self, database: "Database") -> None:
        self._database = database


def row_count(session: Session, *where: ColumnElement[bool]) -> int:
    """How many rows there are of that kind."""
    return session.scalar(select(func.count()).where(*where)) or 0


class Database:
    """One SQLite file, or a fresh one in memory.

    ``path``: the file; None is a database in memory. ``as_is``: open it also where saves are
    missing from it; what is there is kept aside first.

    Raises InputError if it cannot be opened, is damaged, was written by a newer Noxel, or lacks
    what was saved last; StorageFault if the disk or another program refuses.
    """

    def __init__(self, path: Path | None, *, as_is: bool = False) -> None:
        self.path = path
        self._seal = Seal(path) if path else None
        self._heard: list[Callable[[], None]] = []
        self.commits = 0
        if path is None:
            self.engine = create_engine(
                "sqlite://", poolclass=StaticPool, connect_args={"check_same_thread": False}
            )
        else:
            private_folder(path.parent)
            _make_private(path)
            if as_is:
                keep_aside(path)
            before_migration(path, as_is=as_is)
            url = URL.create("sqlite", database=str(path))
            self.engine = create_engine(
                url, connect_args={"check_same_thread": False, "timeout": 30}
            )
        event.listen(self.engine, "connect", _prepare)
        event.listen(self.engine, "begin", _begin)
        try:
            migrate(self.engine)
            if as_is:
                with self.engine.begin() as connection:
                    connection.execute(text("UPDATE saves SET epoch = lower(hex(randomblob(8)))"))
            self._note_saves()
        except DatabaseError as exc:
            self.engine.dispose()
            raise StorageFault(
                "open", f"The database {path} cannot be opened. {_words(exc)}"
            ) from exc

    def _note_saves(self) -> None:
        if self._seal is not None:
            with self.reading() as session:
                self._seal.write(session.scalar(text("SELECT count FROM saves")) or 0)

    @contextmanager
    def reading(self) -> Iterator[Session]:
        """A session that only reads, of one consistent state."""
        with Session(self.engine) as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """One transaction that writes: all of it or nothing; no other writer meanwhile. After
        it the changes are on the disk.
        """
        engine = self.engine.execution_options(sqlite_begin="IMMEDIATE")
        with Session(engine, expire_on_commit=False) as session:
            with session.begin():
                yield session
                session.flush()
                saves = session.scalar(text("UPDATE saves SET count = count + 1 RETURNING count"))
            self.commits += 1
            if self._seal is not None and saves is not None:
                self._seal.write(int(saves))
        for listener in self._heard:
            listener()

    def on_commit(self, heard: Callable[[], None]) -> None:
        """Call something after every transaction that wrote, in the thread that wrote it."""
        self._heard.append(heard)

    def close(self) -> None:
        """Close the file; unless another program has it open, all of it is in the main file."""
        self.engine.dispose()
        if self.path is not None:
            with suppress(sqlite3.Error), closing(sqlite3.connect(self.path)) as last:
                last.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def _words(exc: DatabaseError) -> str:
    try:
        return fault_of(exc).message
    except DatabaseError:
        return f"{exc.orig}"


def _make_private(path: Path) -> None:
    """Nobody else on this machine reads it: SQLite gives its other files the mode of the main
    one.
    """
    with suppress(OSError):
        handle = os.open(path, os.O_RDWR | os.O_CREAT, 0o600)
        os.close(handle)
        for file in (path, Path(f"{path}-wal"), Path(f"{path}-shm")):
            if file.exists() and file.stat().st_mode & 0o077:
                file.chmod(0o600)


def _prepare(connection: sqlite3.Connection, _record: Any) -> None:
    connection.isolation_level = None  # transactions are ours, see _begin
    connection.execute("PRAGMA foreign_keys = ON")
    connection.execute("PRAGMA journal_mode = WAL")
    connection.execute("PRAGMA synchronous = FULL")  # what is acknowledged survives a power cut


def _begin(connection: Connection) -> None:
    kind = connection.get_execution_options().get("sqlite_begin", "DEFERRED")
    connection.exec_driver_sql(f"BEGIN {kind}")


def migrate(engine: Engine) -> None:
    """Bring the database to the newest form."""
    config = migrations()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
