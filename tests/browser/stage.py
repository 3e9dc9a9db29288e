"""What the browser tests share: one browser, a fresh database for each test, and a page that must
stay at home.
"""

import tempfile
import unittest
from contextlib import ExitStack, suppress
from pathlib import Path
from typing import ClassVar

from playwright.sync_api import Browser, Locator, Page, Request, expect
from tools.stage import a_browser, serving

from noxel.store.database import Database
from noxel.store.rigs import Rigs

DESK, PHONE = (1280, 800), (390, 844)
expect.set_options(timeout=20_000)


def at(page: Page, path: str) -> Locator:
    """The field for what the rig file holds at a path."""
    return page.locator(f'input[data-path="{path}"]')


def saving(page: Page) -> Locator:
    """What the page says of saving."""
    return page.locator("[data-part=saving]")


def unfolded(page: Page, path: str) -> Locator:
    """The same on a phone, where a label is folded: it is opened first."""
    field = at(page, path)
    expect(field).to_be_attached()
    for _ in range(3):  # what is opened while the page still fills may be closed by the same tap
        if field.is_visible():
            break
        page.locator("section", has=field).locator("summary").first.click()
        with suppress(AssertionError):
            expect(field).to_be_visible(timeout=5_000)
    return field


class OnStage(unittest.TestCase):
    browser: ClassVar[Browser]
    _stack: ClassVar[ExitStack]

    @classmethod
    def setUpClass(cls) -> None:
        cls._stack = ExitStack()
        cls.browser = cls._stack.enter_context(a_browser())

    @classmethod
    def tearDownClass(cls) -> None:
        cls._stack.close()

    def setUp(self) -> None:
        stack = ExitStack()
        self.addCleanup(stack.close)
        folder = Path(stack.enter_context(tempfile.TemporaryDirectory()))
        self.database = Database(folder / "noxel.db")
        self.rigs = Rigs(self.database)
        self.address = stack.enter_context(serving(self.database))
        self.errors: list[str] = []
        self.strangers: list[str] = []
        self.addCleanup(lambda: self.assertEqual((self.errors, self.strangers), ([], [])))

    def page(self, at: str = "/", size: tuple[int, int] = DESK, *, touch: bool = False) -> Page:
        """A new page; whatever goes wrong on it, or asks another machine, fails the test."""
        context = self.browser.new_context(
            viewport={"width": size[0], "height": size[1]},
            accept_downloads=True,
            has_touch=touch,
            is_mobile=touch,
        )
        self.addCleanup(context.close)
        page = context.new_page()
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.on("request", self._watch)
        page.goto(self.address + at)
        return page

    def _watch(self, request: Request) -> None:
        if not request.url.startswith((self.address, "data:", "blob:")):
            self.strangers.append(request.url)

    def fits(self, page: Page) -> None:
        """Nothing sticks out to the right."""
        expect(page.locator("main svg").filter(visible=True).first).to_be_visible()
        wide = page.evaluate(
            "[document.documentElement.scrollWidth, document.querySelector('main').scrollWidth, "
            "window.innerWidth]"
        )
        self.assertLessEqual(max(wide[:2]), wide[2])
