"""What every room answers for rigs put together at random, and the yard in walks, challenges and
lessons: a checksum of each answer is kept. The rigs are nobody's and the answers are not read; that
one changes is what counts.

A difference names a rig and its rooms. ``python -m tests.at_large ROOM NUMBER`` prints such an
answer in full: with this version and with the one before, it shows what has changed.
"""

import re
import unittest
import zlib
from collections.abc import Callable, Iterable

from tests import quick
from tests.at_large import PRACTICE, ROOMS, SELDOM, answer
from tests.kept import as_kept, texts_of, written

EACH, FILES = 30, 8
NOTHING = re.compile(r"(?<!fill: )\b(None|nan|inf)\b")


class AtLarge(unittest.TestCase):
    def sums(self, number: int, rooms: Iterable[str]) -> str:
        found = []
        for room in (room for room in rooms if number % SELDOM.get(room, 1) == 0):
            said = answer(room, number)
            for text in texts_of(said) if room != "files" else ():
                self.assertNotRegex(text, NOTHING, room)
            found.append(f"{room} {zlib.crc32(chr(10).join(written([said])).encode()):08x}")
        return f"{number}: {', '.join(found)}"

    def kept(self, name: str, rooms: Iterable[str], first: int) -> None:
        lines = [self.sums(number, rooms) for number in range(first, first + EACH)]
        as_kept(self, f"at-large/{name}-{first}", lines)


class GoldenRooms(AtLarge):
    """Every room."""


class GoldenPractice(AtLarge):
    """Walks through the yard, challenges, lessons."""


def _part(name: str, rooms: Iterable[str], first: int) -> Callable[[AtLarge], None]:
    return lambda test: test.kept(name, rooms, first)


for _first in range(0, EACH if quick else EACH * FILES, EACH):
    # a test for each file, so that one that fails does not keep the others waiting
    setattr(GoldenRooms, f"test_rooms_from_{_first}", _part("rooms", ROOMS, _first))
    setattr(GoldenPractice, f"test_practice_from_{_first}", _part("practice", PRACTICE, _first))


if __name__ == "__main__":
    unittest.main()
