"""Which pages are open, and who hears of what is saved. The clock is turned by hand."""

import asyncio
import unittest
from unittest.mock import patch

from noxel.api.events import Hub, Saved, Whereabouts
from noxel.errors import Conflict
from noxel.share import Device
from noxel.store.database import Database

PHONE = Device(
    id="d1",
    name="Ada's phone",
    viewing=True,
    secret="",
    paired_at="2026-05-01T12:00:00Z",
    used_at="2026-05-01T12:00:00Z",
)


class WhoIsHere(unittest.TestCase):
    def setUp(self) -> None:
        self.hub = Hub(Database(None))

    def at(
        self, seconds: float, page: str, rig: str = "juniper", device: Device | None = None
    ) -> list[str]:
        with patch("noxel.api.events.time.monotonic", lambda: seconds):
            present = self.hub.is_at(page, device, Whereabouts(rig=rig))
        return [row.page for row in present.pages]

    def test_a_page_is_open_for_a_hundred_seconds_after_it_was_heard_of(self) -> None:
        self.assertEqual(self.at(0, "a"), ["a"])
        self.assertEqual(self.at(50, "b"), ["a", "b"])
        self.assertEqual(self.at(99, "c"), ["a", "b", "c"])
        self.assertEqual(self.at(101, "c"), ["b", "c"])
        self.assertEqual(self.at(102, "b"), ["c", "b"], "heard of again")
        self.assertEqual(self.at(160, "b", rig=""), ["c"], "closed")

    def test_no_device_takes_the_place_of_another(self) -> None:
        for number in range(64):
            self.at(0, f"q{number}", device=PHONE)
        self.assertEqual(len(self.at(0, "mine")), 8 + 1)
        self.at(0, "mine", rig="", device=PHONE)
        self.assertIn("mine", self.at(0, "mine"), "nor closes its page")

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
        heard = [asyncio.ensure_future(anext(code)) for code in (first, second)]
        await asyncio.sleep(0)  # until both listen
        hub.is_at("a", PHONE, Whereabouts(rig="juniper", place="weigh"))
        for expected in await asyncio.gather(*heard):
            assert expected.present  # noqa: S101
            self.assertEqual(
                [
                    (first_page.name, first_page.rig, first_page.place)
                    for first_page in expected.present.pages
                ],
                [("Ada's phone", "juniper", "weigh")],
            )
        heard = [asyncio.ensure_future(anext(code)) for code in (first, second)]
        await asyncio.sleep(0)
        hub.announce()
        self.assertEqual(await asyncio.gather(*heard), [Saved(page=None)] * 2)
        for code in (first, second):
            await code.aclose()  # type: ignore[attr-defined]

    async def too_many(self) -> None:
        hub = Hub(Database(None))
        streams = [aiter(hub.listen("d1")) for _ in range(9)]
        streams += [aiter(hub.listen()) for _ in range(65)]
        last = [streams.pop(8), streams.pop()]  # the ninth of a device, the 65th of this machine
        heard = [asyncio.ensure_future(anext(stream)) for stream in streams]
        await asyncio.sleep(0)
        for stream in last:
            with self.assertRaisesRegex(Conflict, "Too many pages listen already"):
                await anext(stream)
        hub.close()
        ended = await asyncio.gather(*heard, return_exceptions=True)
        self.assertTrue(all(isinstance(ended, StopAsyncIteration) for ended in ended))


if __name__ == "__main__":
    unittest.main()
