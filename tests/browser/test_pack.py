"""A rig packed by typing, pasting, dragging and keyboard, in a real browser; the predicted axle
loads answer.
"""

import re

from playwright.sync_api import Page, expect

from tests.browser.stage import PHONE, OnStage
from tests.truth import rig_of


def load(page: Page, post: str) -> int:
    text = page.locator(f'[data-post="{post}"] text').nth(1).text_content() or ""
    match = re.match(r"[0-9,]+", text)
    return int(match[0].replace(",", "")) if match else 0


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
        box, place = (
            page.get_by_label("What, and its mass"),
            page.get_by_label("Behind the front axle"),
        )
        place.fill("140")
        box.fill("4 chairs 30")
        box.press("Enter")
        expect(page.locator("[data-total=vehicle]")).to_contain_text("120")
        self.assertGreater(load(page, "rear"), rear)
        page.get_by_role("radio", name="in the trailer").click()
        page.get_by_label("Behind the coupler").fill("60")
        box.fill("books 200\nkiln heavy\nwater 20 gal of water")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(
            page.get_by_text("line 2")
        ).to_be_visible()  # all or nothing, and what was pasted is still there
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
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        lighter = load(page, "tongue")
        self.assertLess(lighter, heavier)
        books.focus()
        for _ in range(5):
            page.keyboard.press("ArrowRight")
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        self.assertLess(load(page, "tongue"), lighter)
        page.locator('[data-load="0"] summary').click()
        page.locator('[data-load="0"]').get_by_role("button", name="into the trailer").click()
        expect(
            page.get_by_text("Expected from labels and lists")
        ).to_be_visible()  # its place in the trailer is not known yet
        page.get_by_label("In the trailer").locator('[data-load="0"] summary').click()
        page.locator('input[data-path="loads[0].position"]').fill("200")
        expect(page.locator("[data-predicted]")).to_be_visible()

    def test_ordinary_things_tanks_and_a_drag_past_the_hitch(self) -> None:
        page = self.page(f"/rigs/{self.rig}/pack")
        expect(page.locator("[data-predicted]")).to_be_visible()
        page.get_by_label("Behind the front axle").fill("140")
        page.get_by_role("button", name="ordinary items").click()
        page.get_by_label("Look for").fill("generator")
        page.get_by_role("button", name=re.compile("generator, small")).click()
        expect(
            page.get_by_role("button", name=re.compile("generator, small")).get_by_text("1 listed")
        ).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.locator("[data-total=vehicle]")).to_contain_text("49")  # 22 kg
        trailer = load(page, "trailer")
        generator = page.get_by_role("slider", name="generator, small")
        box, ball = generator.bounding_box(), page.locator('[data-post="trailer"]').bounding_box()
        assert box and ball  # noqa: S101
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        page.mouse.move(ball["x"], box["y"], steps=8)
        page.mouse.up()
        expect(page.locator("[data-total=trailer]")).to_contain_text("49")
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        self.assertGreater(load(page, "trailer"), trailer)
        generator.focus()  # and by keyboard, past the hitch and back
        for key, there in (("Shift+ArrowLeft", "vehicle"), ("Shift+ArrowRight", "trailer")):
            for _ in range(8):
                page.keyboard.press(key)
            expect(page.locator(f"[data-total={there}]")).to_contain_text("49")
            expect(page.locator("[data-part=saving]")).to_have_text("saved")
        page.locator('[data-load="0"] summary').click()
        page.get_by_role("button", name="leave it at home this time").click()
        expect(page.locator("[data-total=trailer]")).not_to_contain_text("49")
        page.get_by_role("button", name="Add a tank").click()
        page.get_by_label("Holds").fill("46 barrels")
        page.get_by_label("Behind the coupler").last.fill("60")
        page.get_by_role("button", name="Add it").click()
        expect(page.get_by_text("“barrels” was not understood")).to_be_visible()
        page.get_by_label("Holds").fill("46")
        page.get_by_role("button", name="Add it").click()
        expect(page.locator('[data-tank="0"]')).to_contain_text("384")  # 46 gal × 8.34 lb
        expect(page.locator("[data-phase]")).to_have_count(4)
        full = load(page, "trailer")
        page.get_by_role("radio", name="heading home").click()
        expect(page.locator('[data-tank="0"]')).not_to_contain_text("384")
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        self.assertLess(load(page, "trailer"), full)
        page.locator('[data-tank="0"] summary').click()
        page.locator('input[data-path="tanks[0].levels.heading_home"]').fill("300 %")
        expect(page.get_by_text("must lie between 0 and 100 %, not 300 %")).to_be_visible()

    def test_a_list_of_ten_thousand_and_one_that_is_broken(self) -> None:
        page = self.page(f"/rigs/{self.rig}/pack")
        page.get_by_role("button", name="a list from a spreadsheet").click()
        broken = "what;kg;how many\nkiln;95;1\nclay;12,5;8\nwheel;heavy;1\n"
        page.get_by_label("List file").set_input_files(
            {"name": "list.csv", "mimeType": "text/csv", "buffer": broken.encode("cp1252")}
        )
        expect(page.locator("[data-part=list-problems]")).to_contain_text("line 4")
        expect(page.get_by_role("button", name="Add them all")).to_be_disabled()
        page.get_by_label("The list").fill(
            "what;kg;how many;place (cm)\nkiln;95;1;80\nclay;12,5;8;\n"
        )
        expect(page.get_by_text("2 items, 430 lb in all")).to_be_visible()  # (95 + 100) kg
        expect(page.get_by_role("radio", name="cm", exact=True)).to_be_checked()
        page.get_by_role("button", name="Add them all").click()
        expect(page.locator("[data-total=vehicle]")).to_contain_text("430")
        many = "name,kg,position\n" + "\n".join(
            f"thing {number},0.01,300" for number in range(10_000)
        )
        page.get_by_role("button", name="a list from a spreadsheet").click()
        page.get_by_label("List file").set_input_files(
            {"name": "many.csv", "mimeType": "text/csv", "buffer": many.encode()}
        )
        expect(page.get_by_text("10,000 items")).to_be_visible(timeout=60_000)
        page.get_by_role("button", name="Add them all").click()
        # ten thousand: however long it takes
        expect(page.get_by_text("more are listed")).to_be_visible(timeout=60_000)
        expect(page.locator("[data-total=vehicle]")).to_contain_text("650")  # and 100 kg more

    def test_two_positions_one_length(self) -> None:
        page = self.page(f"/rigs/{self.rig}/pack")
        page.get_by_text("The lever length from two readings").click()
        for label, text in (
            ("What was moved weighs", "100"),
            ("Moved back by", "80"),
            ("Load on the hitch before", "700"),
            ("Load on the hitch after", "740"),
        ):
            page.get_by_label(label, exact=True).fill(text)
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_text("must make the tongue lighter")).to_be_visible()
        page.get_by_label("Load on the hitch after").fill("660")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_text("200 in ± 0 in")).to_be_visible()  # 100 × 80 ÷ 40
        page.get_by_role("button", name="Use it").click()
        page.get_by_role("link", name="Plates").click()
        expect(page.locator('input[data-path="trailer.geometry.coupler_to_axles"]')).to_have_value(
            "200.0 in"
        )

    def test_from_the_last_weigh_in_and_on_a_phone(self) -> None:
        rig = self.rigs.add({**rig_of("check--three-passes"), "plan": {}})
        page = self.page(f"/rigs/{rig}/pack", PHONE)
        expect(page.get_by_text("Expected from labels and lists")).to_be_visible()
        page.get_by_role("button", name="Take it from the last weigh-in").click()
        expect(page.get_by_text("Predicted, not weighed")).to_be_visible()
        # narrow labels start with the figure itself; the pass with bars engaged weighed 2,580 and
        # 3,680, the tongue 960
        found = [
            page.locator(f'[data-post="{post}"] text').first.text_content() or ""
            for post in ("front", "rear", "tongue")
        ]
        for text, figure in zip(found, ("2,58", "3,6", "960"), strict=True):
            self.assertIn(figure, text)
        self.fits(page)
