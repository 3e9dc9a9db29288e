"""A rig weighed by each kind of scale, in a real browser. Expected verdicts: the worked cases."""

import copy
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.stage import DESK, PHONE, OnStage, at, saving
from tests.truth import Document, case, rig_of


class ByEachScale(OnStage):
    def unweighed(self, document: Document, size: tuple[int, int] = DESK) -> Page:
        """A page on Weigh with the rig of a case, never weighed."""
        bare = copy.deepcopy(document)
        bare["weigh_ins"] = []
        rig = self.rigs.add(bare)
        return self.page(f"/rigs/{rig}/weigh", size)

    def fill(self, page: Page, number: int, each: dict[str, Any]) -> None:
        for name, value in each["readings"].items():
            at(page, f"weigh_ins[0].passes[{number}].readings.{name}").fill(str(value))

    def agrees(self, page: Page, worked: dict[str, Any]) -> None:
        """Margins shows what the worked case expects."""
        page.get_by_role("link", name="Margins").click()
        for row in worked["expect"]["checks"]:
            expect(page.locator(f'tr[data-check="{row["id"]}"]')).to_have_attribute(
                "data-status", row["status"]
            )
        expect(page.locator("[data-verdict]")).to_have_attribute(
            "data-verdict", worked["expect"]["verdict"]
        )

    def test_a_small_platform_axle_by_axle_on_a_phone(self) -> None:
        worked = case("check--fifth-wheel-kg-per-axle")
        page = self.unweighed(worked["file"], PHONE)
        page.get_by_text("Small single platform").click()
        expect(page.get_by_label("The plan").get_by_text("One axle at a time")).to_have_count(1)
        page.get_by_role("button", name="Start a weigh-in").click()
        first, second = worked["file"]["weigh_ins"][0]["passes"]
        self.fill(page, 0, first)
        self.fits(page)
        page.get_by_role("button", name="Next pass").click()
        self.fill(page, 1, second)
        expect(
            page.get_by_text("±23 kg", exact=False)
        ).to_be_visible()  # 20 kg steps until the scale's plate says 10
        at(page, "weigh_ins[0].scale.resolution").fill("10")
        self.agrees(page, worked)
        self.fits(page)

    def test_wheel_pads(self) -> None:
        worked = case("check--wheel-by-wheel")
        page = self.unweighed(worked["file"])
        page.get_by_text("Wheel pads").click()
        page.get_by_role("button", name="Start a weigh-in").click()
        for number, each in enumerate(worked["file"]["weigh_ins"][0]["passes"]):
            self.fill(page, number, each)
        at(page, "weigh_ins[0].scale.resolution").fill(
            str(worked["file"]["weigh_ins"][0]["scale"]["resolution"])
        )
        self.agrees(page, worked)

    def test_the_trailer_alone_and_the_vehicle_empty(self) -> None:
        for name in ("check--trailer-weighed-alone", "check--measured-curb"):
            worked = case(name)
            passes = worked["file"]["weigh_ins"][0]["passes"]
            page = self.unweighed(worked["file"])
            page.get_by_role("button", name="Start a weigh-in").click()
            expect(page.locator("[data-pass]").first).to_be_visible()
            while page.get_by_role("button", name="take this pass out").count():
                count = page.locator("[data-pass]").count()
                page.get_by_role("button", name="take this pass out").first.click()
                expect(page.locator("[data-pass]")).to_have_count(count - 1)
                expect(page.locator("[data-part=saving]")).to_have_text("saved")
            labels = {
                "trailer_only": "Trailer only",
                "vehicle_only": "Vehicle only",
                "vehicle_empty": "Vehicle empty",
            }
            for number, pass_ in enumerate(passes):
                bars = (
                    f", bars {pass_.get('spring_bars')}"
                    if worked["file"]["hitch"]["weight_distribution"]
                    else ""
                )
                page.get_by_role("button", name="Add a pass", exact=True).click()
                page.get_by_role(
                    "menuitem", name=labels.get(pass_["config"], f"Hitched{bars}"), exact=True
                ).click()
                expect(page.locator("[data-pass]")).to_have_count(number + 1)
                self.fill(page, number, pass_)
                expect(page.locator("[data-part=saving]")).to_have_text("saved")
            self.agrees(page, worked)

    def test_the_tongue_by_a_beam_and_a_bathroom_scale(self) -> None:
        worked = case("check--beam-scale")
        document = copy.deepcopy(worked["file"])
        measured = document["weigh_ins"][0].pop("tongue_measurements")[0]
        rig = self.rigs.add(document)
        page = self.page(f"/rigs/{rig}/weigh")
        page.get_by_role("button", name="Bathroom scale and a beam").click()
        form = page.get_by_label("Tongue weight, directly").locator("form")
        for name, value in measured.items():
            if name != "method":
                form.locator(f'input[name="{name}"]').fill("x" if name == "span" else str(value))
        form.get_by_role("button", name="Add this measurement").click()
        expect(form.get_by_text("“x” is not a length")).to_be_visible()
        form.locator('input[name="span"]').fill("3 ft")
        form.get_by_role("button", name="Add this measurement").click()
        # (363 − 8) × 36/12
        expect(page.locator("[data-measurement] [data-part=answer]")).to_contain_text("1,065 ±35")
        expect(
            page.locator(f'[data-way="{worked["expect"]["derived"]["tongue_source"]}"]')
        ).to_contain_text("used")
        expect(page.locator('[data-way="direct"]')).to_contain_text("agrees")
        self.agrees(page, worked)

    def test_fuel_burned_between_the_passes(self) -> None:
        worked = case("check--fuel-burned-between-passes")
        document = copy.deepcopy(worked["file"])
        number, fixed = next(
            (n, document["adjustments"])
            for n, document in enumerate(document["weigh_ins"][0]["passes"])
            if "adjustments" in document
        )
        del document["weigh_ins"][0]["passes"][number]["adjustments"]
        rig = self.rigs.add(document)
        page = self.page(f"/rigs/{rig}/weigh")
        ticket = page.locator(f'[data-pass="{number + 1}"]')
        for each in fixed:
            ticket.get_by_role("button", name="correct for fuel burned").click()
            ticket.locator('input[name="what"]').fill(each["what"])
            ticket.locator('input[name="mass"]').fill(str(each["mass"]))
            ticket.locator('input[name="front_share"]').fill(
                f"{each.get('front_share', 0.5) * 100:g} %"
            )
            ticket.get_by_role("button", name="Add this correction").click()
            expect(ticket.locator('input[name="what"]')).to_have_count(0)
        self.agrees(page, worked)

    def test_a_warning_answered_and_things_come_aboard(self) -> None:
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/weigh")
        at(page, "weigh_ins[0].passes[0].printed_gross").fill("13000")
        warning = page.locator('[data-pass="1"] [data-advisory="ticket_total_differs"]')
        warning.get_by_role("button", name="it is right").click()
        warning.get_by_label("Why it is right").fill("smudged ticket")
        warning.get_by_role("button", name="keep it so").click()
        expect(warning).to_contain_text("smudged ticket")
        page.get_by_role("button", name="something in the vehicle").click()
        form = page.get_by_label("Came aboard since").locator("form")
        form.locator('input[name="what"]').fill("water")
        form.locator('input[name="mass"]').fill("100 gal of water")
        form.get_by_role("button", name="Add it").click()
        page.get_by_role("link", name="Margins").click()
        gross = page.locator('tr[data-check="vehicle.gross"]')
        expect(gross).to_contain_text("6,260")
        page.get_by_role("radio", name="with what was added since").click()
        expect(gross).to_contain_text("7,094")  # 6,260 + 100 gal × 8.34 lb
        expect(page.get_by_text("Estimated, not weighed")).to_be_visible()
        page.get_by_role("radio", name="by part").click()
        expect(page.get_by_text("The hitch", exact=True)).to_be_visible()

    def test_live_from_the_stand_in(self) -> None:
        page = self.unweighed(rig_of("check--three-passes"))
        page.get_by_role("button", name="Start a weigh-in").click()
        page.get_by_role("button", name="Connect the simulator").click()
        expect(page.locator('[data-live="live"]')).to_be_visible()
        page.get_by_role("button", name="Drive on for pass 1").click()
        keep = page.get_by_role("button", name="Keep these for pass 1")
        expect(page.locator('[data-channel="trailer"]')).to_have_attribute("data-stable", "true")
        keep.click()
        shown = page.locator('[data-channel="rear"] .font-cond').first.inner_text()
        expect(at(page, "weigh_ins[0].passes[0].readings.rear")).to_have_value(shown)
        page.get_by_role("button", name="Take the weight").click()
        page.get_by_role("button", name="Keep this ticket").click()
        expect(at(page, "weigh_ins[0].passes[0].ticket_number")).to_have_value("114-0001")
        fault = page.get_by_label("Fault to play")
        fault.select_option("overload")
        expect(page.locator('[data-channel="rear"]')).to_contain_text("overload")
        expect(keep).to_be_disabled()
        fault.select_option("rubbish")
        expect(page.get_by_text("The scale sent", exact=False)).to_be_visible()
        fault.select_option("hang")
        expect(page.locator('[data-live="silent"]')).to_be_visible()
        # a scale that hangs does not hang the page
        at(page, "weigh_ins[0].place").fill("Still typing")
        expect(saving(page).filter(has_text="saved")).to_be_visible()
        fault.select_option("drop")
        expect(page.locator('[data-live="live"]')).to_be_visible()  # connected again by itself
        page.get_by_role("button", name="Disconnect").click()
        expect(page.get_by_role("button", name="Connect the simulator")).to_be_visible()

    def test_live_pads_and_a_tongue_scale(self) -> None:
        page = self.unweighed(rig_of("check--three-passes"))
        page.get_by_text("Wheel pads").click()
        page.get_by_role("button", name="Start a weigh-in").click()
        page.get_by_role("button", name="Connect the simulator").click()
        page.get_by_role("button", name="Drive on for pass 1").click()
        expect(page.locator('[data-channel="trailer_2_right"]')).to_have_attribute(
            "data-stable", "true"
        )
        page.locator("body").press("c")
        shown = page.locator('[data-channel="front_left"] .font-cond').first.inner_text()
        expect(at(page, "weigh_ins[0].passes[0].readings.front_left")).to_have_value(shown)
        page.get_by_role("button", name="Keep the tongue").click()
        expect(page.locator("[data-measurement] [data-part=answer]")).to_be_visible()
        expect(page.locator('[data-way="direct"]')).to_contain_text("used")
