"""Counts, inside SQLite itself, how often a connection's write-ahead log is brought to the disk.

The method table of the open log file is replaced by one whose ``xSync`` counts and then does what
it did.
"""

import _sqlite3
import ctypes
import sqlite3

_SQLITE = ctypes.CDLL(_sqlite3.__file__)
_JOURNAL_POINTER = 28  # SQLITE_FCNTL_JOURNAL_POINTER
_METHODS = 19  # members of sqlite3_io_methods, version 3
_SYNC = 5  # where xSync is among them
_Sync = ctypes.CFUNCTYPE(ctypes.c_int, ctypes.c_void_p, ctypes.c_int)


class SyncCount:
    """Counts how often a connection's write-ahead log is brought to the disk, from now on."""

    def __init__(self, connection: sqlite3.Connection) -> None:
        self.count = 0
        # after PyObject_HEAD
        handle = ctypes.c_void_p.from_address(id(connection) + 2 * ctypes.sizeof(ctypes.c_void_p))
        log = ctypes.c_void_p()
        status = _SQLITE.sqlite3_file_control(handle, b"main", _JOURNAL_POINTER, ctypes.byref(log))
        if status or not log.value:
            raise LookupError("this SQLite does not show its log")
        methods = ctypes.cast(log, ctypes.POINTER(ctypes.POINTER(ctypes.c_void_p)))
        members = [methods[0][index] for index in range(_METHODS)]
        real = _Sync(members[_SYNC] or 0)

        def counted(file: int, flags: int) -> int:
            self.count += 1
            return int(real(file, flags))

        self._kept = _Sync(counted)
        members[_SYNC] = ctypes.cast(self._kept, ctypes.c_void_p).value
        self._table = (ctypes.c_void_p * _METHODS)(*members)
        methods[0] = ctypes.cast(self._table, ctypes.POINTER(ctypes.c_void_p))
