"""How much, and every vehicle with every trailer, in a real browser: the ceiling read, the sliders
moved, a garage of three and four matched.
"""

import re

from playwright.sync_api import Page, expect

from tests.browser.stage import PHONE, OnStage
from tests.truth import case, rig_of


def ceiling(page: Page) -> int:
    return int(re.sub(r"\D", "", page.locator("[data-ceiling]").text_content() or "0"))


class HowMuch(OnStage):
    def test_the_ceiling_and_the_sliders(self) -> None:
        worked = case("ceiling--how-much")
        rig = self.rigs.add(worked["file"])
        page = self.page(f"/rigs/{rig}/match")
        expect(page.locator("[data-ceiling]")).to_have_text(
            f"{round(worked['expect']['ceiling']):,} lb"
        )
        expect(page.locator(f'[data-bar="{worked["expect"]["binding"]}"]')).to_have_attribute(
            "data-binding", "true"
        )
        before = ceiling(page)
        slider = page.get_by_role("slider", name=re.compile("People and gear"))
        slider.focus()
        with page.expect_response("**/how-much?*"):
            page.keyboard.press("End")
        expect(page.locator("[data-ceiling]")).not_to_have_text(f"{before:,} lb")
        self.assertLess(ceiling(page), before)
        page.get_by_role("button", name="as it was").click()
        expect(page.locator("[data-ceiling]")).to_have_text(f"{before:,} lb")
        page.locator('[data-bar="vehicle.payload"] summary').click()
        expect(page.locator('[data-bar="vehicle.payload"]')).to_contain_text("already there")

    def test_half_the_facts_answer_and_name_what_is_not_counted(self) -> None:
        document = rig_of("ceiling--how-much")
        del document["plan"]
        rig = self.rigs.add(document)
        page = self.page(f"/rigs/{rig}/match")
        # GCWR 12,900 − curb 5,290 − listed 556 − hitch 95
        expect(page.locator("[data-ceiling]")).to_have_text("6,959 lb")
        expect(page.locator("[data-part=ceiling]")).to_contain_text(
            "the load on it is not known: rear axle"
        )

    def test_three_vehicles_and_four_trailers(self) -> None:
        first = self.rigs.add(rig_of("check--three-passes"))
        for name in ("check--kilograms", "check--fifth-wheel"):
            self.rigs.add(rig_of(name))
        page = self.page(f"/rigs/{first}/match")
        expect(page.locator("[data-pair]").first).to_be_visible()
        # only the place scrolls
        self.assertEqual(page.evaluate("document.documentElement.scrollHeight - innerHeight"), 0)
        expect(page.locator("[data-pair]")).to_have_count(9)
        page.get_by_role("button", name="A trailer from a brochure").click()
        page.get_by_label("What you call it").fill("Pea Pod")
        page.get_by_label("GVWR").fill("3,5oo")
        page.get_by_role("button", name="Put it in the garage").click()
        expect(page.get_by_text("“oo” was not understood")).to_be_visible()
        page.get_by_label("GVWR").fill("3,500")
        page.get_by_role("button", name="Put it in the garage").click()
        expect(page.locator("[data-pair]")).to_have_count(12)
        light = page.locator("[data-pair]").filter(has_text="room").first
        light.click()
        expect(page.get_by_role("heading", name="One pair in full")).to_be_visible()
        page.locator("[data-pair]").last.click()
        expect(page.get_by_role("heading", name="Side by side")).to_be_visible()
        expect(page.locator("[data-part=compared]")).to_contain_text("leaves")
        page.get_by_label("only what may work").check()
        expect(
            page.locator(
                '[data-pair][data-verdict="within"], [data-pair][data-verdict="incomplete"]'
            ).first
        ).to_be_visible()

    def test_by_thumb(self) -> None:
        rig = self.rigs.add(rig_of("ceiling--how-much"))
        page = self.page(f"/rigs/{rig}/match", PHONE)
        expect(page.locator("[data-ceiling]")).to_be_visible()
        self.fits(page)
