"""What a database file is, before it is opened: ours, newer, damaged, another program's, or without
its last saves.
"""

import os
import sqlite3
from collections.abc import Callable
from contextlib import closing, suppress
from pathlib import Path
from typing import Literal

from alembic.config import Config
from alembic.script import ScriptDirectory

from noxel.errors import InputError
from noxel.store.faults import code_of, fault_of
from noxel.store.seal import Seal

State = Literal["absent", "empty", "ours", "newer", "foreign", "damaged"]
_DAMAGED = (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB)
SIDES = ("", "-wal", "-shm")
"""What a database consists of: the main file, its write-ahead log, and the log's index."""


def migrations() -> Config:
    """Where the steps from each version of a database to the next lie."""
    config = Config()
    config.set_main_option(
        "script_location", str(Path(__file__).parent / "migrations").replace("%", "%%")
    )
    return config


def known_versions() -> list[str]:
    """Every version that a database of Noxel may have, the newest first."""
    return [
        script.revision for script in ScriptDirectory.from_config(migrations()).walk_revisions()
    ]


def private_folder(folder: Path) -> None:
    """Make a folder for data that only this user may enter.

    Raises InputError if it cannot be made.
    """
    try:
        fresh = not folder.exists()
        folder.mkdir(parents=True, exist_ok=True)
        if fresh:
            folder.chmod(0o700)
    except OSError as exc:
        raise InputError(
            f"{folder} cannot be a folder for the data: {exc.strerror}. Choose another with --data."
        ) from exc


Report = Callable[[int, int, str], None]
"""Receives how much is done, of how much, and what is being done."""


def silent(_done: int, _of: int, _says: str) -> None:
    """Nobody asked how far it is."""


def copy_pages(
    live: sqlite3.Connection,
    copy: sqlite3.Connection,
    report: Report = silent,
) -> None:
    """Copy a database as it stands now into one file, while others write."""
    says = "copying the database"
    live.execute("BEGIN")
    try:
        live.execute("SELECT count(*) FROM sqlite_master").fetchone()  # this state, to the end
        live.backup(copy, pages=2048, progress=lambda _, left, of: report(of - left, of, says))
    finally:
        live.rollback()
    # one file, that opens from a read-only medium too
    copy.execute("PRAGMA journal_mode = DELETE")


def read_only(path: Path) -> sqlite3.Connection:
    """Open a database only to look at it; also on a medium where nothing can be written beside
    it.
    """
    uri = path.absolute().as_uri()
    connection = sqlite3.connect(f"{uri}?mode=ro", uri=True, timeout=5)
    try:
        connection.execute("SELECT count(*) FROM sqlite_master").fetchone()
    except sqlite3.OperationalError as exc:
        connection.close()
        wal = Path(f"{path}-wal")
        alone = not (wal.exists() and wal.stat().st_size)
        if (
            code_of(exc) not in (sqlite3.SQLITE_CANTOPEN, sqlite3.SQLITE_READONLY)
            or not alone
            or not os.access(path, os.R_OK)
        ):
            raise
        return sqlite3.connect(f"{uri}?mode=ro&immutable=1", uri=True)
    return connection


def _tables_of(connection: sqlite3.Connection) -> set[str]:
    rows = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    return {str(name) for (name,) in rows}


def _harm_in(connection: sqlite3.Connection, *, but: frozenset[str] = frozenset()) -> str | None:
    """What is broken in a database, but for some of its tables; None where nothing is."""
    checks = [f"integrity_check({table})" for table in _tables_of(connection) - but]
    for check in checks if but else ["integrity_check"]:
        whole = str(connection.execute(f"PRAGMA {check}").fetchone()[0])
        if whole != "ok":
            return whole
    return None


def state_of(path: Path, *, but: frozenset[str] = frozenset()) -> tuple[State, str]:
    """What a file is to Noxel, and its version or what is wrong with it; ``but`` names tables that
    are not looked through.

    Raises StorageFault if that cannot be known now: another program holds it, or the disk refuses.
    Nothing may be done to it then.
    """
    if not path.exists():
        return "absent", ""
    try:
        with closing(read_only(path)) as connection:
            harm = _harm_in(connection, but=but)
            if harm is not None:
                return "damaged", harm
            tables = _tables_of(connection)
            if not tables:
                return "empty", ""
            if "alembic_version" not in tables or "rigs" not in tables:
                return "foreign", ""
            row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
            version = str(row[0]) if row else ""
            return ("ours" if version in known_versions() else "newer"), version
    except UnicodeDecodeError:  # SQLite's own words quote bytes of the file
        return "damaged", "its tables cannot be read"
    except sqlite3.DatabaseError as exc:
        if code_of(exc) in _DAMAGED:
            return "damaged", str(exc)
        try:
            raise fault_of(exc) from exc
        except sqlite3.DatabaseError:
            return "damaged", str(exc)


def version_of(path: Path) -> str | None:
    """The version of a database file, or None when it is none of ours.

    Raises InputError if it is not a database, or a damaged one.
    """
    state, detail = state_of(path)
    if state == "damaged":
        raise InputError(f"{path.name} is not a database, or a damaged one: {detail}")
    return detail if state in ("ours", "newer") else None


def check_saves(path: Path) -> None:
    """Refuse a database that holds fewer saves than its seal says, before anything is done to
    it.
    """
    noted = Seal(path).read()
    if not noted:
        return
    count = 0
    with closing(read_only(path)) as connection, suppress(sqlite3.OperationalError):
        count = connection.execute("SELECT count FROM saves").fetchone()[0]
    if count < noted:
        raise InputError(
            f"The last {noted - count} saves are missing from {path}: was {path.name}-wal deleted "
            "or changed, or an older file put in "
            "its place? Put that file back, or restore a backup (noxel restore FILE), or open "
            "what is there with --as-is; a copy of "
            "it is kept."
        )


def too_new(path: Path, version: str) -> InputError:
    return InputError(
        f"{path.name} is of version {version}, newer than this Noxel knows. Use the Noxel that "
        "wrote it, or a later one."
    )


_HEADER = 100
_WAL_MODE = b"\x02\x02"
"""What bytes 18 and 19 of an SQLite file say where its last changes lie in a log beside it."""


def log_is_missing(path: Path) -> bool:
    """Whether a database that holds nothing was written by way of a log that is not there."""
    log = Path(f"{path}-wal")
    with path.open("rb") as file:
        header = file.read(_HEADER)
    return header[18:20] == _WAL_MODE and not (log.exists() and log.stat().st_size)
