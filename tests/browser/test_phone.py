"""A phone is invited, paired, and types a ticket. It comes to a second address of this machine, so it counts as a stranger."""

import tempfile
import unittest
from contextlib import ExitStack
from pathlib import Path
from typing import ClassVar

from playwright.sync_api import Browser, Page, expect
from tools.stage import STRANGER, a_browser, serving, shared, trust

from noxel.demo import open_demo
from noxel.share import Authority
from noxel.store.rigs import Rigs
from tests.browser.stage import PHONE, at


class OnThePhone(unittest.TestCase):
    """The demo household, shared; a browser for the phone that trusts the authority in a store of its own."""

    browser: ClassVar[Browser]
    share: ClassVar[Path]

    @classmethod
    def setUpClass(cls) -> None:
        stack = ExitStack()
        cls.addClassCleanup(stack.close)
        folder = Path(stack.enter_context(tempfile.TemporaryDirectory()))
        cls.share, home = folder / "share", folder / "home"
        trust(home, Authority(cls.share).public)
        cls.browser = stack.enter_context(a_browser(home))

    def setUp(self) -> None:
        stack = ExitStack()
        self.addCleanup(stack.close)
        folder = Path(stack.enter_context(tempfile.TemporaryDirectory()))
        (self.share / "devices.json").unlink(missing_ok=True)
        self.database = open_demo(folder / "demo.db", fresh=True)
        self.rigs = Rigs(self.database)
        self.sharing = shared(self.share)
        self.here = stack.enter_context(serving(self.database, self.sharing))
        self.there = f"https://{STRANGER}:{self.sharing.port}"
        self.rig = next(each.id for each in self.rigs.list() if each.name.startswith("Juniper"))

    def computer(self, path: str) -> Page:
        context = self.browser.new_context(viewport={"width": 1280, "height": 800})
        self.addCleanup(context.close)
        page = context.new_page()
        page.goto(self.here + path)
        return page

    def phone(self, name: str = "Ada's phone", *, looks: bool = False) -> Page:
        """A phone that was paired by what a person does on both."""
        computer = self.computer("/phones")
        if looks:
            computer.get_by_role("radio", name="may only look").click()
        computer.get_by_role("button", name="Invite a device").click()
        address = computer.get_by_text("/join?invitation=").inner_text()
        context = self.browser.new_context(viewport={"width": PHONE[0], "height": PHONE[1]}, has_touch=True)
        self.addCleanup(context.close)
        phone = context.new_page()
        phone.goto(address)
        phone.get_by_label("What is this device called?").fill(name)
        phone.get_by_role("button", name="Pair this device").click()
        expect(phone.get_by_role("heading", name=f"{name} is paired")).to_be_visible()
        expect(computer.get_by_text("The device is paired.").last).to_be_visible()
        expect(computer.get_by_role("region", name="Paired devices")).to_contain_text(name)
        computer.context.close()
        phone.get_by_role("link", name="Open Noxel").click()
        expect(phone.get_by_role("button", name="Rig", exact=True)).to_be_visible()
        return phone


class Pairing(OnThePhone):
    def test_a_figure_typed_on_the_phone_stands_on_the_computer(self) -> None:
        phone, computer = self.phone(), self.computer(f"/rigs/{self.rig}/plates")
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        at(phone, "vehicle.ratings.gvwr").fill("7111")
        expect(at(computer, "vehicle.ratings.gvwr")).to_have_value("7,111")
        stranger = self.browser.new_context().new_page()
        stranger.goto(f"{self.there}/rigs/{self.rig}/plates")
        expect(stranger.get_by_role("heading", name="This device is not paired")).to_be_visible()

    def test_a_phone_that_is_shut_out_keeps_what_was_typed(self) -> None:
        phone, computer = self.phone(), self.computer("/phones")
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        expect(at(phone, "vehicle.ratings.gvwr")).to_have_value("7,000")
        computer.get_by_role("button", name="Shut out Ada's phone").click()
        expect(computer.get_by_text("None yet.")).to_be_visible()
        at(phone, "vehicle.ratings.gvwr").fill("7222")
        expect(phone.get_by_role("alert").filter(has_text="Not saved yet")).to_contain_text("not paired")
        expect(at(phone, "vehicle.ratings.gvwr")).to_have_value("7222")

    def test_who_was_invited_to_look_cannot_type(self) -> None:
        phone = self.phone("The seller", looks=True)
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        expect(phone.get_by_text("You may look at everything here")).to_be_visible()
        expect(at(phone, "vehicle.ratings.gvwr")).to_have_attribute("readonly", "")


if __name__ == "__main__":
    unittest.main()
