"""Two windows on one rig: each sees the other's changes, what is typed lands where it was meant,
and a person decides.
"""

import subprocess
import sys
from pathlib import Path

from playwright.sync_api import Page, expect

from noxel.store.backup import backup
from tests.browser.stage import OnStage, at, saving
from tests.truth import rig_of


class TwoWindows(OnStage):
    def setUp(self) -> None:
        super().setUp()
        document = rig_of("predict--packed")
        document["loads"] = [
            {"name": name, "on": "vehicle", "mass": 40, "position": 60}
            for name in ("folding table", "battery bank", "tool chest")
        ]
        self.rig = self.rigs.add(document)

    def opened(self, page: Page, *names: str) -> Page:
        """The page with some items of the list unfolded."""
        for name in names:
            page.locator("summary").filter(has_text=name).click()
        return page

    def deaf(self, page: Page) -> None:
        """The page hears of nothing that others do, as while a connection is lost."""
        page.add_init_script(
            "window.EventSource = class {}; window.BroadcastChannel = class { postMessage() {} }"
        )
        page.reload()

    def masses(self) -> dict[str, object]:
        return {load["name"]: load["mass"] for load in self.rigs.open(self.rig).document["loads"]}

    def test_what_is_typed_lands_on_its_item(self) -> None:
        first_page, other = self.page(f"/rigs/{self.rig}/pack"), self.page(f"/rigs/{self.rig}/pack")
        self.deaf(other)
        self.opened(other, "battery bank")
        self.opened(first_page, "folding table").get_by_role(
            "button", name="take it off the list"
        ).click()
        expect(saving(first_page)).to_have_text("saved")
        at(other, "loads[1].mass").fill("77")
        expect(saving(other)).to_have_text("saved")
        self.assertEqual(self.masses(), {"battery bank": 77, "tool chest": 40})
        self.opened(first_page, "battery bank")
        expect(at(first_page, "loads[0].mass")).to_have_value("77")  # the other window heard of it

    def test_a_field_in_hand_stays_with_its_item(self) -> None:
        first_page, other = (
            self.page(f"/rigs/{self.rig}/pack"),
            self.opened(self.page(f"/rigs/{self.rig}/pack"), "battery bank"),
        )
        at(other, "loads[1].mass").focus()
        self.opened(first_page, "folding table").get_by_role(
            "button", name="take it off the list"
        ).click()
        expect(at(other, "loads[0].mass")).to_be_focused()  # the list moved up under the hand
        other.keyboard.type("88")
        expect(saving(other)).to_have_text("saved")
        self.assertEqual(self.masses(), {"battery bank": 88, "tool chest": 40})

    def test_the_same_figure_in_both(self) -> None:
        first_page, other = self.page(f"/rigs/{self.rig}/pack"), self.page(f"/rigs/{self.rig}/pack")
        self.deaf(other)
        self.opened(other, "battery bank", "tool chest")
        at(self.opened(first_page, "battery bank"), "loads[1].mass").fill("55")
        expect(saving(first_page)).to_have_text("saved")
        at(other, "loads[1].mass").fill("66")
        aside = other.locator("[data-aside]")
        expect(aside).to_contain_text("“66”. It was changed to 55 elsewhere in the meantime.")
        self.assertEqual(self.masses()["battery bank"], 55)
        at(other, "loads[2].mass").fill("44")  # another figure merges
        expect(saving(other)).to_have_text("1 not saved")
        self.assertEqual(self.masses(), {"folding table": 40, "battery bank": 55, "tool chest": 44})
        aside.get_by_role("button", name="Use mine").click()
        expect(saving(other)).to_have_text("saved")
        self.assertEqual(self.masses()["battery bank"], 66)
        expect(at(first_page, "loads[1].mass")).to_have_value("66")

    def test_a_restore_is_seen(self) -> None:
        page = self.opened(self.page(f"/rigs/{self.rig}/pack"), "battery bank")
        path = self.database.path or Path()
        copy = path.with_name("copy.db")
        backup(path, copy)
        at(page, "loads[1].mass").fill("99")
        expect(saving(page)).to_have_text("saved")
        page.get_by_role("heading", level=2).first.click()  # out of the field
        call = [sys.executable, "-m", "noxel", "restore", str(copy), "--data", str(path.parent)]
        subprocess.run(call, check=True, capture_output=True)
        expect(at(page, "loads[1].mass")).to_have_value("40")
