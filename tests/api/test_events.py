"""Which pages are open, and who hears of what is saved. The clock is turned by hand."""

import asyncio
import unittest
from unittest.mock import patch

from noxel.api.events import Hub, Saved, Whereabouts
from noxel.errors import Conflict
from noxel.store.database import Database


class WhoIsHere(unittest.TestCase):
    def setUp(self) -> None:
        self.hub = Hub(Database(None))

    def at(self, seconds: float, page: str, rig: str = "juniper") -> list[str]:
        with patch("noxel.api.events.time.monotonic", lambda: seconds):
            return [each.page for each in self.hub.is_at(page, None, Whereabouts(rig=rig)).pages]

    def test_a_page_is_open_for_a_hundred_seconds_after_it_was_heard_of(self) -> None:
        self.assertEqual(self.at(0, "a"), ["a"])
        self.assertEqual(self.at(50, "b"), ["a", "b"])
        self.assertEqual(self.at(99, "c"), ["a", "b", "c"])
        self.assertEqual(self.at(101, "c"), ["b", "c"])
        self.assertEqual(self.at(102, "b"), ["c", "b"], "heard of again")
        self.assertEqual(self.at(160, "b", rig=""), ["c"], "closed")

    def test_no_more_than_sixty_four(self) -> None:
        for number in range(64):
            self.at(0, f"p{number}")
        self.assertEqual(len(self.at(0, "one more")), 64)
        self.assertEqual(len(self.at(0, "p3", rig="")), 63)

    def test_a_larger_count_is_newer(self) -> None:
        counts = [self.hub.is_at("a", None, Whereabouts(rig="r")).count for _ in range(3)]
        self.assertEqual(counts, sorted(set(counts)))


class WhoListens(unittest.TestCase):
    def test_every_page_hears_of_every_other(self) -> None:
        asyncio.run(self.every_page_hears())

    def test_too_many_are_refused(self) -> None:
        asyncio.run(self.too_many())

    async def every_page_hears(self) -> None:
        hub = Hub(Database(None))
        first, second = aiter(hub.listen()), aiter(hub.listen())
        heard = [asyncio.ensure_future(anext(each)) for each in (first, second)]
        await asyncio.sleep(0)  # until both listen
        hub.is_at("a", "Ada's phone", Whereabouts(rig="juniper", place="weigh"))
        for said in await asyncio.gather(*heard):
            assert said.present  # noqa: S101
            self.assertEqual(
                [(each.name, each.rig, each.place) for each in said.present.pages],
                [("Ada's phone", "juniper", "weigh")],
            )
        heard = [asyncio.ensure_future(anext(each)) for each in (first, second)]
        await asyncio.sleep(0)
        hub.announce()
        self.assertEqual(await asyncio.gather(*heard), [Saved(page=None)] * 2)
        for each in (first, second):
            await each.aclose()  # type: ignore[attr-defined]

    async def too_many(self) -> None:
        hub = Hub(Database(None))
        streams = [aiter(hub.listen()) for _ in range(65)]
        heard = [asyncio.ensure_future(anext(each)) for each in streams[:64]]
        await asyncio.sleep(0)
        with self.assertRaisesRegex(Conflict, "Too many pages listen already"):
            await anext(streams[64])
        hub.close()
        ended = await asyncio.gather(*heard, return_exceptions=True)
        self.assertTrue(all(isinstance(each, StopAsyncIteration) for each in ended))


if __name__ == "__main__":
    unittest.main()
