"""Half the facts in a real browser: labels to an outlook, one total to an answer, kilograms typed
as pounds to their repair.
"""

from playwright.sync_api import Page, expect

from tests.browser.stage import PHONE, OnStage, at
from tests.truth import case, rig_of


class HalfTheFacts(OnStage):
    def checks(self, page: Page, name: str) -> None:
        """Margins shows the statuses and outlooks that the worked case expects."""
        for row in case(name)["expect"]["checks"]:
            shown = page.locator(f'tr[data-check="{row["id"]}"]')
            if "expected" in row:
                expect(shown.locator("[data-outlook]")).to_have_attribute(
                    "data-outlook", row["expected"]["outlook"]
                )
            else:
                expect(shown).to_have_attribute("data-status", row["status"])

    def test_from_door_label_and_brochure_to_an_outlook(self) -> None:
        worked = rig_of("check--brochure-payload-over")
        ratings = worked["vehicle"].pop("ratings")
        bare = {**worked, "vehicle": {}, "hitch": {}, "trailer": {}, "loads": []}
        page = self.page(f"/rigs/{self.rigs.add(bare)}/plates")
        typed = {
            **{f"vehicle.ratings.{key}": rating for key, rating in ratings.items()},
            "vehicle.curb_weight": 5582,
            "hitch.weight": 95,
            "trailer.ratings.gvwr": 6690,
        }
        for path, figure in typed.items():
            at(page, path).first.fill(str(figure))
        page.get_by_role("link", name="Pack").click()
        page.get_by_label("What, and its mass").fill("people 466\ngear 300")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.locator("[data-total=vehicle]")).to_contain_text("766")
        page.get_by_role("link", name="Margins").click()
        heading = page.get_by_role("heading", level=1)
        expect(heading).to_contain_text(
            "595 lb over the 1,102 lb payload rating if the trailer is at its rating"
        )
        self.checks(page, "check--brochure-payload-over")
        page.get_by_role("link", name="rear GAWR").click()  # what is not known leads to its field
        expect(at(page, "vehicle.ratings.gawr_rear")).to_be_focused()

    def test_from_one_total_to_an_answer_on_a_phone(self) -> None:
        worked = rig_of("check--combination-as-one-total")
        alone = worked["weigh_ins"][0]["passes"].pop()
        worked["weigh_ins"][0]["passes"][0]["readings"] = {
            "front": 3000,
            "rear": 3000,
            "trailer": 3000,
        }
        worked["weigh_ins"][0]["passes"].append(alone)
        page = self.page(f"/rigs/{self.rigs.add(worked)}/weigh", PHONE)
        page.get_by_role("combobox", name="read").first.select_option(label="one total only")
        at(page, "weigh_ins[0].passes[0].readings.gross").fill("15300")
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        self.fits(page)
        page.get_by_role("link", name="Margins").click()
        expect(page.locator('tr[data-check="combination.gross"]')).to_have_attribute(
            "data-status", "within"
        )
        # 15,300 − 6,620 less the dry weight is 996; less what the GVWR and the CCC leave, nothing
        expect(page.get_by_role("heading", level=1)).to_contain_text(
            "The trailer's cargo is 102 lb over its 894 lb CCC."
        )
        expect(page.locator("[data-verdict]")).to_contain_text("By its own label it is 2,320")
        self.fits(page)

    def test_from_kilograms_typed_as_pounds_to_their_repair(self) -> None:
        rig = self.rigs.add(rig_of("check--kilograms-typed-as-pounds"))
        page = self.page(f"/rigs/{rig}/margins")
        expect(page.locator("[data-verdict]")).to_have_attribute("data-verdict", "caution")
        expect(page.locator("[data-part=doubts]")).to_contain_text("Kilograms typed as pounds?")
        page.get_by_role("button", name="These are kilograms").first.click()
        expect(page.locator("[data-part=doubts]")).to_have_count(0)
        kept = self.rigs.open(rig).document["weigh_ins"][0]["passes"]
        self.assertEqual([entry.get("unit") for entry in kept], ["kg", "kg"])
        # 1,450 kg ÷ 0.45359237
        expect(page.locator('tr[data-check="vehicle.front_axle"]')).to_contain_text("3,197")
        page.keyboard.press("u")
        expect(page.locator("[data-part=doubts]")).to_be_visible()
