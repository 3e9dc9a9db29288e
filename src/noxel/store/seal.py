"""The seal beside a database: how many saves it must hold.

What was saved last lies in the write-ahead log, ``NAME-wal``, until SQLite moves it into the main
file. If that log is deleted or overwritten, SQLite opens the older main file without a word. The
count in the seal is written after each save, so a database that holds fewer saves than its seal has
lost some.
"""

import os
from contextlib import suppress
from pathlib import Path


class Seal:
    """The seal of one database file; a disk that does not take it is no reason to fail."""

    def __init__(self, database: Path) -> None:
        self.path = database.with_name(f"{database.name}.seal")

    def read(self) -> int:
        """How many saves the database must hold; 0 where nothing is known."""
        try:
            text = self.path.read_text(encoding="ascii").strip()
        except (OSError, UnicodeDecodeError):
            return 0
        return int(text) if text.isdecimal() and len(text) < 19 else 0

    def write(self, saves: int) -> None:
        """Note that so many saves are in the database."""
        with suppress(OSError):
            handle = os.open(self.path, os.O_WRONLY | os.O_CREAT, 0o600)
            try:
                os.pwrite(handle, f"{saves:<19}".encode(), 0)
            finally:
                os.close(handle)

    def forget(self) -> None:
        """Forget what was noted: another database takes its place."""
        with suppress(OSError):
            self.path.unlink(missing_ok=True)
