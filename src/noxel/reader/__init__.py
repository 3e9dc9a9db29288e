"""Text off photographs, read on this machine in a process of its own.

The process is started for the first photograph and ended after some idle minutes. It reads one at a
time, within limits of time and memory, so that no picture can slow or end the server.
"""

import importlib.util
import json
import subprocess
import sys
import threading
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from noxel.errors import InputError, NotFound

SECONDS = 30.0
"""How long one photograph may take. [s]"""
LOADING = 120.0
"""How long the engine may take to load, on a machine that is slow or busy. [s]"""
IDLE = 300.0
"""How long the process waits for another photograph. [s]"""
HOW_TO_ADD = "This Noxel was installed without its reader: pip install 'noxel[read]' adds it."


Corners = tuple[tuple[float, float], tuple[float, float], tuple[float, float], tuple[float, float]]


def _corners(points: list[list[float]]) -> Corners:
    one, two, three, four = ((float(x), float(y)) for x, y in points)
    return one, two, three, four


@dataclass(frozen=True, slots=True)
class ReadWord:
    """A word as it was read: its corners from the top left clockwise, in pixels of the picture as
    it was turned, and the number of its line.
    """

    text: str
    corners: Corners
    sure: float
    line: int


@dataclass(frozen=True, slots=True)
class ReadPicture:
    """Every word of a photograph, its size, and by how many degrees it was turned to the left."""

    words: tuple[ReadWord, ...]
    width: int
    height: int
    turned: int


class Reader:
    """Reads photographs, one at a time; several threads may ask."""

    def __init__(self, *, seconds: float = SECONDS, idle: float = IDLE) -> None:
        self._seconds, self._idle = seconds, idle
        self._turn = threading.Lock()
        self._process: subprocess.Popen[bytes] | None = None
        self._end: threading.Timer | None = None

    @staticmethod
    def there() -> bool:
        """Whether the engine is installed; it is not loaded for the answer."""
        return importlib.util.find_spec("rapidocr") is not None

    def read(self, picture: bytes) -> ReadPicture:
        """Read a photograph.

        Raises NotFound if the engine is not installed; InputError if the photograph cannot be read,
        takes too long or takes too much memory.
        """
        if not self.there():
            raise NotFound(HOW_TO_ADD)
        with self._turn:
            answer = self._asked(picture)
        if "problem" in answer:
            raise InputError(str(answer["problem"]))
        words = tuple(
            ReadWord(word["text"], _corners(word["corners"]), word["sure"], word["line"])
            for word in answer["words"]
        )
        return ReadPicture(words, answer["width"], answer["height"], answer["turned"])

    def close(self) -> None:
        """End the process, if one is there."""
        if self._end is not None:
            self._end.cancel()
        with self._turn:
            self._stop()

    def _asked(self, picture: bytes) -> dict[str, Any]:
        if self._end is not None:
            self._end.cancel()
        answer, too_late = self._sent(picture)
        if answer is None and not too_late:  # it had just ended, or this picture ended it
            self._stop()
            answer, too_late = self._sent(picture)
        if answer is None:
            self._stop()
            raise InputError(
                "Reading this photograph took too long, and was stopped. Try again, or type the "
                "figures."
                if too_late
                else "This photograph could not be read. Take it again, or type the figures."
            )
        self._end = threading.Timer(self._idle, self._rest)
        self._end.daemon = True
        self._end.start()
        reply: dict[str, Any] = json.loads(answer)
        return reply

    def _sent(self, picture: bytes) -> tuple[bytes | None, bool]:
        """What the process answers, None where it ended; and whether it took too long."""
        from noxel.reader.worker import give, take

        waits: list[tuple[float, bytes | None]] = [(self._seconds, picture)]
        if self._process is None or self._process.poll() is not None:
            waits.insert(0, (LOADING, None))
            self._process = subprocess.Popen(
                [sys.executable, "-m", "noxel.reader.worker"],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
            )
        process, answer, too_late = self._process, None, False
        for seconds, message in waits:
            late = threading.Timer(seconds, process.kill)
            late.start()
            try:
                if process.stdin is None or process.stdout is None:
                    raise OSError("no pipe")
                if message is not None:
                    give(process.stdin, message)
                answer = take(process.stdout)
            except OSError:
                answer = None
            finally:
                too_late = not late.is_alive()
                late.cancel()
            if answer is None:
                break
        return answer, too_late

    def _rest(self) -> None:
        """End the process when it has been idle; not while it reads."""
        if self._turn.acquire(blocking=False):
            try:
                self._stop()
            finally:
                self._turn.release()

    def _stop(self) -> None:
        if self._process is None:
            return
        self._process.kill()
        for pipe in (self._process.stdin, self._process.stdout):
            if pipe is not None:
                with suppress(OSError):
                    pipe.close()
        self._process.wait()
        self._process = None
