"""A phone is invited, paired, and types a ticket. It comes to a second address of this machine, so
it counts as a stranger.
"""

import re
import tempfile
import unittest
from contextlib import ExitStack
from pathlib import Path
from typing import ClassVar

from playwright.sync_api import Browser, Page, Route, expect
from tools.stage import STRANGER, a_browser, serving, shared, trust

from noxel.demo import open_demo
from noxel.share import Authority
from noxel.store.photos import Photos
from noxel.store.rigs import Rigs
from noxel.store.visits import Visits
from tests.api.test_photos import photo
from tests.browser.stage import PHONE, at, unfolded

KEPT = """async (rig) => {
  const look = () => new Promise((done) => {
    const asked = indexedDB.open("noxel-answers");
    asked.onsuccess = () => {
      const got = asked.result.transaction("answers").objectStore("answers").get("kept");
      got.onsuccess = () => done(got.result?.queries.some(
        (each) => each.queryKey[0] === "sheet" && each.queryKey[1] === rig));
    };
  });
  for (let frame = 0; frame < 1000; frame++) {
    if (await look()) return true;
    await new Promise(requestAnimationFrame);
  }
  return false;
}"""
"""Whether the phone has kept the sheet of a rig, within some seconds."""


class OnThePhone(unittest.TestCase):
    """The demo household, shared; a browser for the phone that trusts the authority in a store of
    its own.
    """

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
        self.rig = next(
            summary.id for summary in self.rigs.summaries() if summary.name.startswith("Juniper")
        )

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
        context = self.browser.new_context(
            viewport={"width": PHONE[0], "height": PHONE[1]}, has_touch=True
        )
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
        expect(phone.locator("[data-menu=rig]")).to_be_visible()
        return phone


class Pairing(OnThePhone):
    def test_a_figure_typed_on_the_phone_stands_on_the_computer(self) -> None:
        phone, computer = self.phone(), self.computer(f"/rigs/{self.rig}/plates")
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        unfolded(phone, "vehicle.ratings.gvwr").fill("7111")
        expect(at(computer, "vehicle.ratings.gvwr")).to_have_value("7,111")
        expect(computer.locator("[data-part=others]")).to_have_text("Ada's phone is in Plates")
        phone.get_by_role("link", name="Pack", exact=True).click()
        expect(computer.locator("[data-part=others]")).to_have_text("Ada's phone is in Pack")
        stranger = self.browser.new_context().new_page()
        stranger.goto(f"{self.there}/rigs/{self.rig}/plates")
        expect(stranger.get_by_role("heading", name="This device is not paired")).to_be_visible()

    def test_a_phone_that_is_shut_out_keeps_what_was_typed(self) -> None:
        phone, computer = self.phone(), self.computer("/phones")
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        expect(at(phone, "vehicle.ratings.gvwr")).to_have_value("7,000")
        computer.get_by_role("button", name="Shut out Ada's phone").click()
        expect(computer.get_by_text("None yet.")).to_be_visible()
        unfolded(phone, "vehicle.ratings.gvwr").fill("7222")
        expect(phone.get_by_role("alert").filter(has_text="Not saved yet")).to_contain_text(
            "not paired"
        )
        expect(at(phone, "vehicle.ratings.gvwr")).to_have_value("7222")

    def test_who_was_invited_to_look_cannot_type(self) -> None:
        phone = self.phone("The seller", looks=True)
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        expect(phone.get_by_text("You may look at everything here")).to_be_visible()
        expect(at(phone, "vehicle.ratings.gvwr")).to_have_attribute("readonly", "")

    def test_tickets_typed_without_a_network_stand_in_the_log_when_it_is_back(self) -> None:
        phone = self.phone()
        phone.goto(f"{self.there}/rigs/{self.rig}/weigh")
        before = self.rigs.open(self.rig).window.count
        expect(phone.get_by_text("This pass settles")).to_be_visible()
        phone.evaluate("navigator.serviceWorker.ready.then(() => 1)")
        self.assertTrue(phone.evaluate(KEPT, self.rig))
        phone.context.set_offline(True)
        phone.reload()
        at(phone, "weigh_ins[1].place").fill("Far Field")
        expect(phone.get_by_text("No connection to the computer.")).to_be_visible()
        expect(phone.get_by_text("without what you typed since").first).to_be_visible()
        jot = phone.get_by_role("region", name="Jot a ticket")
        for name, reading in (("front", "3060"), ("rear", "4100"), ("trailer", "5900")):
            jot.locator(f'input[data-jot="{name}"]').fill(reading)
        jot.get_by_role("button", name="Keep this ticket").click()
        expect(phone.get_by_text("1 to be sent")).to_be_visible()
        phone.reload()
        expect(phone.get_by_text("1 to be sent")).to_be_visible()
        expect(at(phone, "weigh_ins[1].place")).to_have_value("Far Field")
        jot.locator("label:has(input[name])", has_text="vehicle only").click()
        for name, reading in (("front", "3340"), ("rear", "3180")):
            jot.locator(f'input[data-jot="{name}"]').fill(reading)
        jot.get_by_role("button", name="Keep this ticket").click()
        expect(phone.get_by_text("2 to be sent")).to_be_visible()
        phone.context.set_offline(False)
        expect(phone.get_by_text("to be sent")).to_be_hidden(timeout=20_000)
        expect(phone.get_by_text("saved", exact=True)).to_be_visible()
        after = self.rigs.open(self.rig)
        self.assertEqual(after.window.count, before + 1)
        sent, edited = after.document["weigh_ins"][-1], after.document["weigh_ins"][-2]
        self.assertEqual(
            [sent["readings"] for sent in sent["passes"]],
            [{"front": 3060, "rear": 4100, "trailer": 5900}, {"front": 3340, "rear": 3180}],
        )
        self.assertEqual(edited["place"], "Far Field")

    def test_ticks_made_without_a_network_show_and_are_sent_later(self) -> None:
        Visits(self.database).add_line(self.rig, "Mount lashed", trip=False)
        phone = self.phone()
        phone.goto(f"{self.there}/rigs/{self.rig}/plates")
        own, lock = (
            phone.get_by_role("checkbox", name=each)
            for each in ("Mount lashed", "Coupler latched and pinned")
        )
        expect(own).not_to_be_checked()
        expect(lock).not_to_be_checked()
        phone.context.set_offline(True)
        own.click()
        lock.click()
        expect(phone.get_by_text("1 to be sent")).to_contain_text("“Mount lashed” ticked")
        expect(own).to_be_checked()
        expect(lock).to_be_checked()
        phone.context.set_offline(False)
        expect(phone.get_by_text("to be sent")).to_be_hidden(timeout=20_000)
        expect(phone.get_by_text("saved", exact=True)).to_be_visible()
        expect(own).to_be_checked()
        self.assertIsNotNone(Visits(self.database).lines(self.rig)[0].done_at)
        self.assertIn("lock", self.rigs.open(self.rig).document["ready"])

    def test_a_tongue_scale_at_home_is_walked_by_thumb(self) -> None:
        phone = self.phone()
        phone.goto(f"{self.there}/rigs/{self.rig}/visit")
        phone.get_by_label("A tongue scale, at home").check()
        expect(phone.get_by_label("Price of the first weigh")).to_be_hidden()
        for button in ("Begin", "The trailer is chocked and loaded", "It is read"):
            phone.get_by_role("button", name=button).click()
        phone.locator('input[data-jot="tongue"]').fill("640")
        on_the_way: list[Route] = []
        phone.context.route("**/jotted", lambda route: on_the_way.append(route))
        with phone.expect_request("**/jotted"):
            phone.get_by_role("button", name="Keep it").click()
        expect(phone.get_by_role("heading", level=1)).to_have_text("What it says so far")
        without = phone.get_by_text("without what you typed since")
        expect(without).to_be_visible()
        on_the_way[0].continue_()
        expect(without).to_be_hidden()
        expect(phone.get_by_text(re.compile("tongue has .* left"))).to_be_visible()
        expect(phone.get_by_text("to be sent")).to_be_hidden()
        document = self.rigs.open(self.rig).document["weigh_ins"][-1]
        self.assertEqual([entry["value"] for entry in document["tongue_measurements"]], [640])

    def rehearse(self, phone: Page) -> None:
        """The voice's questions, one by one, each to the end of its recording."""
        phone.get_by_role("button", name="Rehearse it aloud").click()
        for question in ("First weigh or re-weigh?", "Which company?", "Vehicle number?", "taken."):
            row = phone.get_by_role("row", name=question)
            expect(row.get_by_role("cell")).to_have_text("your turn")
            phone.get_by_role("button", name="I said it").click()
        expect(phone.get_by_role("row", name="Which company?")).to_contain_text("private")

    def test_the_visit_is_walked_by_thumb_and_goes_on_on_another_device(self) -> None:
        phone = self.phone()
        before = self.rigs.open(self.rig).window.count
        phone.goto(f"{self.there}/rigs/{self.rig}/visit")
        phone.get_by_label("Price of the first weigh").fill("14.50")
        phone.get_by_label("Price of a re-weigh").fill("3.50")
        phone.get_by_role("button", name="Begin").click()
        heading, go_on = phone.get_by_role("heading", level=1), phone.locator("footer button").first
        titles = []
        readings = iter(
            (
                {"front": "3060", "rear": "4100", "trailer": "5900"},
                {"front": "2900", "rear": "4460", "trailer": "5700"},
                {"front": "3340", "rear": "3180"},
            )
        )
        for _ in range(14):
            titles.append(heading.inner_text())
            self.assertLessEqual(phone.evaluate("document.documentElement.scrollWidth"), PHONE[0])
            if titles[-1] == "What it says":
                break
            if titles[-1].startswith("The ticket"):
                for name, reading in next(readings).items():
                    phone.locator(f'input[data-jot="{name}"]').fill(reading)
                if len(titles) == 3:
                    picture = {"name": "t.jpg", "mimeType": "image/jpeg", "buffer": photo()}
                    box = phone.get_by_label("photograph the ticket")
                    box.set_input_files(picture)  # type: ignore[arg-type]
                phone.get_by_role("button", name="Keep this ticket").click()
            elif titles[-1].startswith("Roll on") and len(titles) == 2:
                self.rehearse(phone)
                go_on.click()
            elif titles[-1] == "Set the trailer down":
                phone.get_by_text("Chocks on both sides of the trailer's wheels").click()
                computer = self.computer(f"/rigs/{self.rig}/visit")
                expect(computer.get_by_role("heading", level=1)).to_have_text(
                    "Set the trailer down"
                )
                expect(
                    computer.get_by_label("Chocks on both sides of the trailer's wheels")
                ).to_be_checked()
                computer.context.close()
                go_on.click()
            else:
                go_on.click()
            expect(heading).not_to_have_text(titles[-1])
        drive = "Roll on slowly. Front axle on platform 1."
        self.assertEqual(
            titles,
            [
                "Before you drive on",
                drive,
                "The ticket: hitched, bars engaged",
                "What it says so far",
                "Park, and slacken the bars",
                drive,
                "The ticket: hitched, bars slack",
                "What it says so far",
                "Set the trailer down",
                drive,
                "The ticket: truck only",
                "What it says so far",
                "Couple up",
                "What it says",
            ],
        )
        expect(phone.get_by_text("Re-weigh for 3.50 until")).to_be_visible()
        expect(phone.get_by_text("to be sent")).to_be_hidden()
        after = self.rigs.open(self.rig)
        self.assertEqual(after.window.count, before + 1)
        passes = after.document["weigh_ins"][-1]["passes"]
        self.assertEqual(
            [entry.weigh_in for entry in Photos(self.database).all(self.rig)],
            [after.window.keys[-1]],
        )
        self.assertEqual([pass_["fee"] for pass_ in passes], ["14.50", "3.50", "3.50"])
        self.assertEqual(passes[1]["readings"], {"front": 2900, "rear": 4460, "trailer": 5700})
        go_on.click()
        expect(phone).to_have_url(re.compile("/margins$"))


if __name__ == "__main__":
    unittest.main()
