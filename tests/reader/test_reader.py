"""The reader: real photographs made by ``tools.photos``, whose figures are known because they were
drawn, through the real engine in its process.
"""

import threading
import unittest
from typing import ClassVar
from unittest.mock import patch

from tools.labels import KINDS
from tools.photos import Count, few, look, photo_of

from noxel.errors import InputError, NotFound
from noxel.reader import Reader


class Photographs(unittest.TestCase):
    reader: ClassVar[Reader]

    @classmethod
    def setUpClass(cls) -> None:
        cls.reader = Reader(seconds=120)  # a test machine may be busy

    @classmethod
    def tearDownClass(cls) -> None:
        cls.reader.close()

    def test_two_of_each_kind(self) -> None:
        count = Count()
        for kind, condition in few():
            look(self.reader, kind, condition, count)
        self.assertGreater(count.wanted, 75)
        self.assertGreaterEqual(count.placed / count.wanted, 0.97, count)
        self.assertEqual(count.wrong, 0, count)

    def test_what_is_no_photograph_is_one_refused_picture(self) -> None:
        plain = photo_of(10, "plain")
        for data in (b"", b"no picture", plain[:400], plain[:-9000]):
            with self.assertRaisesRegex(InputError, "cannot be opened|No text"):
                self.reader.read(data)
        self.assertTrue(self.reader.read(plain).words)

    def test_a_picture_without_text_says_what_would_help(self) -> None:
        from tests.api.test_photos import photo

        with self.assertRaisesRegex(InputError, "No text is seen on it. Closer"):
            self.reader.read(photo((1200, 900)))
        with self.assertRaisesRegex(InputError, "too small"):
            self.reader.read(photo((200, 150)))

    def test_taken_on_its_side_it_is_turned(self) -> None:
        for condition, degrees in (("on its side", 270), ("on its other side", 90)):
            picture = self.reader.read(photo_of(6, condition))
            self.assertEqual(picture.turned, degrees)
            self.assertGreater(picture.width, picture.height)

    def test_one_process_reads_one_at_a_time_and_rests(self) -> None:
        plain, photo = photo_of(11, "plain"), list[int]()

        def ask() -> None:
            self.reader.read(plain)
            if self.reader._process is not None:
                photo.append(self.reader._process.pid)

        threads = [threading.Thread(target=ask) for _ in range(3)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(len(set(photo)), 1)
        self.assertEqual(len(photo), 3)
        self.reader._rest()
        self.assertIsNone(self.reader._process)
        self.assertTrue(self.reader.read(plain).words, "it is started again")

    def test_what_takes_too_long_is_stopped(self) -> None:
        hasty = Reader(seconds=0.05)
        with self.assertRaisesRegex(InputError, "too long, and was stopped"):
            hasty.read(photo_of(0, "plain"))
        self.assertIsNone(hasty._process)

    def test_without_the_engine_it_says_how_to_add_it(self) -> None:
        with patch("importlib.util.find_spec", return_value=None):
            self.assertFalse(Reader.there())
            with self.assertRaisesRegex(NotFound, r"pip install 'noxel\[read\]'"):
                Reader().read(b"")
        self.assertEqual(len(KINDS), 12)
