"""A rig packed by typing, pasting, dragging and keyboard, in a real browser; the predicted axle loads answer."""

import re

from playwright.sync_api import Page, expect

from tests.browser.stage import PHONE, OnStage
from tests.truth import rig_of


def load(page: Page, post: str) -> int:
    text = page.locator(f'[data-post="{post}"] text').nth(1).text_content() or ""
    return int(re.sub(r"\D", "", text))


class Packing(OnStage):
    def setUp(self) -> None:
        super().setUp()
        document = rig_of("predict--packed")
        document["loads"] = []
        self.rig = self.rigs.add(document)

    def test_typing_pasting_dragging_and_keys(self) -> None:
        page = self.page(f"/rigs/{self.rig}/pack")
        expect(page.locator("[data-predicted]")).to_be_visible()
        rear, tongue = load(page, "rear"), load(page, "tongue")
        box, place = page.get_by_label("What, and its mass"), page.get_by_label("Behind the front axle")
        place.fill("140")
        box.fill("4 chairs 30")
        box.press("Enter")
        expect(page.locator("[data-total=vehicle]")).to_contain_text("120")
        self.assertGreater(load(page, "rear"), rear)
        page.get_by_role("radio", name="in the trailer").click()
        page.get_by_label("Behind the coupler").fill("60")
        box.fill("books 200\nkiln heavy\nwater 20 gal of water")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_text("line 2")).to_be_visible()  # all or nothing, and what was pasted is still there
        expect(page.locator("[data-total=trailer]")).to_contain_text("0")
        expect(box).to_have_value(re.compile("kiln heavy"))
        box.fill("books 200\nwater 20 gal of water")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.locator("[data-total=trailer]")).to_contain_text("367")  # 200 + 20 × 8.34
        heavier = load(page, "tongue")
        self.assertGreater(heavier, tongue)
        books = page.get_by_role("slider", name="books")
        at = books.bounding_box()
        assert at  # noqa: S101
        page.mouse.move(at["x"] + at["width"] / 2, at["y"] + at["height"] / 2)
        page.mouse.down()
        page.mouse.move(at["x"] + 150, at["y"] + 5, steps=6)
        page.mouse.up()
        expect(page.get_by_role("status")).to_have_text("saved")
        lighter = load(page, "tongue")
        self.assertLess(lighter, heavier)
        books.focus()
        for _ in range(5):
            page.keyboard.press("ArrowRight")
        expect(page.get_by_role("status")).to_have_text("saved")
        self.assertLess(load(page, "tongue"), lighter)
        page.locator('[data-load="0"] summary').click()
        page.locator('[data-load="0"]').get_by_role("button", name="into the trailer").click()
        expect(page.get_by_text("Not predicted yet")).to_be_visible()  # its place in the trailer is not known yet
        page.get_by_label("In the trailer").locator('[data-load="0"] summary').click()
        page.locator('input[data-path="loads[0].position"]').fill("200")
        expect(page.locator("[data-predicted]")).to_be_visible()

    def test_from_the_last_weigh_in_and_on_a_phone(self) -> None:
        rig = self.rigs.add({**rig_of("check--three-passes"), "plan": {}})
        page = self.page(f"/rigs/{rig}/pack", PHONE)
        expect(page.get_by_text("Not predicted yet")).to_be_visible()
        page.get_by_role("button", name="Take it from the last weigh-in").click()
        expect(page.locator("[data-predicted]")).to_be_visible()
        # narrow labels start with the figure itself; the pass with bars engaged weighed 2,580 and 3,680, the tongue 960
        found = [page.locator(f'[data-post="{post}"] text').first.text_content() or "" for post in ("front", "rear", "tongue")]
        for text, figure in zip(found, ("2,58", "3,6", "960"), strict=True):
            self.assertIn(figure, text)
        self.fits(page)
