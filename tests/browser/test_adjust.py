"""Adjust in a real browser: the demo rig from stop to within, by a proposal and by hand; what
cannot be done says what it needs.
"""

import re
from importlib.resources import files

from playwright.sync_api import expect

from noxel.core.rig import dump_rig
from noxel.formats.rig_json import read_rig
from tests.browser.stage import PHONE, OnStage
from tests.truth import rig_of


class Adjusting(OnStage):
    def setUp(self) -> None:
        super().setUp()
        self.rig = self.rigs.add(
            dump_rig(read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes()))
        )

    def test_by_a_proposal_kept_and_put_to_work(self) -> None:
        page = self.page(f"/rigs/{self.rig}/adjust")
        verdict = page.locator("[data-adjusted]")
        expect(verdict).to_have_attribute("data-adjusted", "stop")
        expect(page.locator("[data-proposal]")).to_have_count(3)  # found without asking
        page.locator('[data-proposal="0"]').get_by_role("button", name="Try this one").click()
        expect(verdict).to_have_attribute("data-adjusted", "within")
        expect(page.locator('[data-change="vehicle.rear_axle"]')).to_have_attribute(
            "data-now", "within"
        )
        page.get_by_label("Name of this plan").fill("pier further back")
        page.get_by_role("button", name="Keep as a plan").click()
        expect(page.locator("[data-kept]")).to_contain_text("pier further back")
        page.get_by_role("button", name="Use in Pack").click()
        expect(page.get_by_text("Now in Pack")).to_be_visible()
        page.get_by_role("link", name="Pack").click()
        # its 190 lb at 84 in of 215 gave the tongue 116 lb; at 181 in, 8.1 ft further, they give 30
        pier = page.get_by_label("In the trailer").locator("details", has_text="pier and")
        expect(pier).to_contain_text("tongue +30")

    def test_by_hand_with_undo(self) -> None:
        page = self.page(f"/rigs/{self.rig}/adjust")
        verdict = page.locator("[data-adjusted]")
        form = page.get_by_role("form", name="Try a step")
        form.get_by_text("leave", exact=True).click()
        form.get_by_label("Which item").select_option(label="battery bank (vehicle)")
        form.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("1. Leave battery bank behind")).to_be_visible()
        expect(verdict).to_have_attribute("data-adjusted", "within")
        page.get_by_role("button", name=re.compile("^Undo: Leave battery bank")).click()
        expect(verdict).to_have_attribute("data-adjusted", "stop")
        form.get_by_text("tank", exact=True).click()
        form.get_by_label("Level").fill("300 %")
        form.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("Must lie between 0 and 100 %, not 300.0 %.")).to_be_visible()
        expect(form.get_by_label("Level")).to_have_value("300 %")
        form.get_by_text("move", exact=True).click()
        form.get_by_label("Which item").select_option(
            label="telescope tube in its cradle (trailer)"
        )
        form.get_by_role("button", name="over the axles").click()
        form.get_by_role("button", name="Try it").click()
        expect(
            page.get_by_text(re.compile("1. Move telescope tube in its cradle .* back"))
        ).to_be_visible()
        expect(verdict).to_have_attribute("data-adjusted", "within")

    def test_another_hitch_another_vehicle_and_more_drop(self) -> None:
        self.rigs.add(dump_rig(read_rig((files("noxel.demo") / "pottery.noxel.json").read_bytes())))
        page = self.page(f"/rigs/{self.rig}/adjust")
        form = page.get_by_role("form", name="Try a step")
        expect(
            page.get_by_text("1.5 in too high")
        ).to_be_visible()  # the ball stands at 22.5 in, the level coupler at 21
        form.get_by_text("ball height", exact=True).click()
        form.get_by_label("Lower by").fill("1.5")
        form.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("is where the level trailer wants it")).to_be_visible()
        form.get_by_text("another vehicle", exact=True).click()
        form.get_by_label("Which vehicle").select_option(label="Marl")
        form.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("2. Another vehicle: Marl")).to_be_visible()
        expect(page.locator('[data-change="vehicle.rear_axle"]')).to_have_attribute(
            "data-now", "within"
        )
        form.get_by_text("another hitch", exact=True).click()
        form.get_by_label("Which hitch").select_option(label="Bed hitch")
        form.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("3. Another hitch: Bed hitch")).to_be_visible()

    def test_what_is_never_touched_and_what_it_needs(self) -> None:
        units = {"mass": "lb", "length": "in"}
        bare = self.rigs.add(
            {"format": "noxel-rig", "version": 1, "units": units, "kind": "conventional"}
        )
        page = self.page(f"/rigs/{bare}/adjust")
        expect(page.get_by_text("Nothing to adjust yet")).to_be_visible()
        page.goto(f"{self.address}/rigs/{self.rig}/adjust")
        page.get_by_text("What the search must leave alone", exact=True).click()
        page.get_by_role("checkbox", name="never drain fresh water").click()
        expect(page.get_by_role("checkbox", name="never drain fresh water")).to_be_checked()
        expect(page.locator('[data-proposal="0"]')).to_be_visible()
        expect(page.locator("[data-proposal]").filter(has_text="Drain")).to_have_count(0)

    def test_from_one_pass_and_a_tongue_scale(self) -> None:
        """What must come off is told by sums; what needs a place asks for it, once; people are no
        ballast.
        """
        document = rig_of("check--two-passes-bars-slack")
        document["vehicle"].pop("geometry", None)
        document["trailer"].pop("geometry", None)
        document["loads"] = [
            {"name": "two people", "on": "vehicle", "mass": 340, "category": "people"},
            {"name": "telescope crate", "on": "trailer", "mass": 420},
        ]
        [weigh_in] = document["weigh_ins"]
        weigh_in["passes"] = [
            weigh_in for weigh_in in weigh_in["passes"] if weigh_in["config"] == "hitched"
        ][:1]
        weigh_in["tongue_measurements"] = [{"method": "scale", "value": 760, "resolution": 10}]
        gross = sum(weigh_in["passes"][0]["readings"].values())
        document["vehicle"]["ratings"]["gcwr"] = gross - 300
        page = self.page(f"/rigs/{self.rigs.add(document)}/adjust")
        lever = page.locator('[data-lever="combination.gross"]')
        lever.locator("summary").click()
        expect(lever).to_contain_text("off the trailer, spread as it is")
        lacking = page.locator('[data-part="lacking"]')
        expect(lacking.locator("input")).to_have_count(3)
        expect(lacking.get_by_text("Place of telescope crate")).to_be_visible()
        for path, inches in (
            ("vehicle.geometry.wheelbase", "145"),
            ("vehicle.geometry.hitch_offset", "50"),
            ("trailer.geometry.coupler_to_axles", "230"),
        ):
            lacking.locator(f'input[data-path="{path}"]').fill(inches)
            expect(lacking.locator(f'input[data-path="{path}"]')).to_have_count(0)
        form = page.get_by_role("form", name="Try a step")
        form.get_by_text("to the other", exact=True).click()
        form.get_by_label("Which item").select_option(label="two people (vehicle)")
        form.get_by_label("Place").fill("200")
        form.get_by_role("button", name="Try it").click()
        expect(page.get_by_text("people do not ride in a trailer")).to_be_visible()

    def test_by_thumb(self) -> None:
        page = self.page(f"/rigs/{self.rig}/adjust", PHONE)
        expect(page.locator("[data-adjusted]")).to_be_visible()
        self.fits(page)
