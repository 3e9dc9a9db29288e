"""What a database or a disk refuses, in words that say what to do."""

import sqlite3

from sqlalchemy.exc import DBAPIError

from noxel.errors import NoxelError, StorageFault

_WORDS = {
    "full": "The disk is full. Make room, then try again.",
    "busy": "Another program holds the database. Close it, then try again.",
    "read_only": "The data folder can only be read. Allow writing in it, then try again.",
    "gone": "The database cannot be opened: was its disk taken out, or its folder moved?",
    "io": "The disk does not answer as it should. Look after it, and keep a backup elsewhere.",
    "damaged": "The database is damaged. Restore a backup: noxel restore FILE.",
}
_FAULTS = {  # by SQLite's primary result code
    sqlite3.SQLITE_FULL: "full",
    sqlite3.SQLITE_BUSY: "busy",
    sqlite3.SQLITE_LOCKED: "busy",
    sqlite3.SQLITE_READONLY: "read_only",
    sqlite3.SQLITE_PERM: "read_only",
    sqlite3.SQLITE_CANTOPEN: "gone",
    sqlite3.SQLITE_IOERR: "io",
    sqlite3.SQLITE_CORRUPT: "damaged",
    sqlite3.SQLITE_NOTADB: "damaged",
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
    return StorageFault(fault, _WORDS[fault], 507 if fault == "full" else 503)
