"""A photograph of a label and of a ticket, by thumb, from the camera to what is stored. Expected:
the figures that were drawn on them.
"""

import random
import re

from playwright.sync_api import FilePayload, Page, expect
from tools.labels import KINDS
from tools.photos import photo_of

from tests.browser.stage import PHONE, OnStage
from tests.truth import rig_of

SLOW = 90_000
"""Long enough for the reader to start on a busy machine. [ms]"""


def shot(kind: int, condition: str = "perspective") -> tuple[FilePayload, dict[str, str]]:
    """A photograph as a camera hands it over, and what was drawn on it."""
    drawn = KINDS[kind](random.Random(f"{KINDS[kind].__name__}/{condition}")).expected
    buffer = photo_of(kind, condition)
    return FilePayload(name="photo.jpg", mimeType="image/jpeg", buffer=buffer), drawn


class FromAPhoto(OnStage):
    def take(self, page: Page, figures: int) -> None:
        expect(page.locator("[data-read]").first).to_be_visible(timeout=SLOW)
        page.get_by_role("button", name=f"Take these {figures} figures").tap()
        expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.locator("[data-part=saving]")).to_have_text("saved")

    def test_a_door_label_into_plates(self) -> None:
        document = rig_of("check--three-passes")
        ratings = document["vehicle"].pop("ratings")
        document["vehicle"]["ratings"] = {"gawr_rear": ratings["gawr_rear"]}
        rig = self.rigs.add(document)
        photo, drawn = shot(0)
        page = self.page(f"/rigs/{rig}/plates", PHONE, touch=True)
        label = page.locator("[data-photos='certification label']")
        page.get_by_text("Certification label").tap()
        if not label.is_visible():
            page.get_by_text("Certification label").tap()
        label.get_by_label("read it from a photo").set_input_files(photo)
        # the rear axle's rating is typed already: it is not ticked
        entered = page.locator("[data-read='vehicle.ratings.gawr_rear']")
        expect(entered).to_contain_text("is entered", timeout=SLOW)
        expect(entered.get_by_role("checkbox")).not_to_be_checked()
        self.take(page, 2)
        stored = self.rigs.open(rig).document["vehicle"]
        front, gvwr = (int(drawn[f"vehicle.ratings.{name}"]) for name in ("gawr_front", "gvwr"))
        self.assertEqual(
            stored["ratings"],
            {"gawr_front": front, "gvwr": gvwr, "gawr_rear": ratings["gawr_rear"]},
        )
        self.assertEqual(stored["entered"]["ratings.gvwr"]["source"], "plate")
        expect(label.get_by_role("button", name=re.compile("^Photograph of"))).to_have_count(1)
        page.get_by_role("button", name=re.compile("^Undo")).tap()
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        self.assertEqual(list(self.rigs.open(rig).document["vehicle"]["ratings"]), ["gawr_rear"])

    def test_a_ticket_into_its_pass(self) -> None:
        document = rig_of("check--three-passes")
        document["weigh_ins"][0]["passes"] = [
            {"config": "hitched", "spring_bars": "engaged", "readings": {}}
        ]
        rig = self.rigs.add(document)
        photo, drawn = shot(8, "uneven light")
        page = self.page(f"/rigs/{rig}/weigh", PHONE, touch=True)
        page.get_by_label("read it from a photo").first.set_input_files(photo)
        self.take(page, 5)  # three lines, the gross, the ticket's number; the day differs
        kept = self.rigs.open(rig).document["weigh_ins"][0]["passes"][0]
        readings = {name: int(drawn[f"P.readings.{name}"]) for name in ("front", "rear", "trailer")}
        self.assertEqual(kept["readings"], readings)
        self.assertEqual(kept["printed_gross"], int(drawn["P.printed_gross"]))
        self.assertEqual(kept["ticket_number"], drawn["P.ticket_number"])

    def test_a_phone_without_network_keeps_it_and_reads_it_later(self) -> None:
        document = rig_of("check--three-passes")
        document["vehicle"].pop("ratings")
        rig = self.rigs.add(document)
        photo, drawn = shot(0)
        page = self.page(f"/rigs/{rig}/plates", touch=True)
        label = page.locator("[data-photos='certification label']")
        expect(label).to_be_visible()
        page.context.set_offline(True)
        label.get_by_label("read it from a photo").set_input_files(photo)
        expect(page.get_by_text("The photograph is kept on this device")).to_be_visible()
        page.get_by_role("button", name="Close").tap()
        expect(label.get_by_text("1 on its way")).to_be_visible()
        page.context.set_offline(False)
        label.get_by_role("button", name=re.compile("^Photograph of")).tap(timeout=SLOW)
        page.get_by_role("button", name="Read its figures").tap()
        self.take(page, 3)
        self.assertEqual(
            self.rigs.open(rig).document["vehicle"]["ratings"]["gvwr"],
            int(drawn["vehicle.ratings.gvwr"]),
        )
