"""What a database or a disk refuses, in words that say what to do."""

import sqlite3

from sqlalchemy.exc import DBAPIError

from noxel.errors import NoxelError, StorageFault

_FAULTS = {  # by SQLite's primary result code
    sqlite3.SQLITE_FULL: ("full", "The disk is full. Make room, then try again.", 507),
    sqlite3.SQLITE_BUSY: (
        "busy",
        "Another program holds the database. Close it, then try again.",
        503,
    ),
    sqlite3.SQLITE_LOCKED: (
        "busy",
        "Another program holds the database. Close it, then try again.",
        503,
    ),
    sqlite3.SQLITE_READONLY: (
        "read_only",
        "The data folder can only be read. Allow writing in it, then try again.",
        503,
    ),
    sqlite3.SQLITE_PERM: (
        "read_only",
        "The data folder can only be read. Allow writing in it, then try again.",
        503,
    ),
    sqlite3.SQLITE_CANTOPEN: (
        "gone",
        "The database cannot be opened: was its disk taken out, or its folder moved?",
        503,
    ),
    sqlite3.SQLITE_IOERR: (
        "io",
        "The disk does not answer as it should. Look after it, and keep a backup elsewhere.",
        503,
    ),
    sqlite3.SQLITE_CORRUPT: (
        "damaged",
        "The database is damaged. Restore a backup: noxel restore FILE.",
        503,
    ),
    sqlite3.SQLITE_NOTADB: (
        "damaged",
        "The database is damaged. Restore a backup: noxel restore FILE.",
        503,
    ),
}


def code_of(exc: BaseException) -> int | None:
    """SQLite's primary result code, where an error has one."""
    cause = exc.orig if isinstance(exc, DBAPIError) else exc
    code = getattr(cause, "sqlite_errorcode", None)
    return code & 0xFF if isinstance(code, int) else None


def fault_of(exc: Exception) -> NoxelError:
    """The fault of the storage that a database's error stands for.

    Raises the error itself, where it is none of the storage's.
    """
    fault = _FAULTS.get(code_of(exc) or 0)
    if fault is None:
        raise exc
    code, words, status = fault
    return StorageFault(code, words, status)
