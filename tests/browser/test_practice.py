"""The practice yard in the browser: lessons by thumb and by keyboard, a challenge, one's own rig, a
class sheet.

Expected: the figures on the tickets in the page itself, added up here.
"""

import re
from importlib.resources import files

from playwright.sync_api import Page, expect

from noxel.core.rig import dump_rig
from noxel.formats.rig_json import read_rig
from tests.browser.stage import DESK, PHONE, OnStage


def ticket(page: Page, number: int) -> dict[str, int]:
    """The lines of a ticket, by their labels."""
    rows = page.locator("[data-ticket]").nth(number).locator("dl > div").all()
    return {
        row.locator("dt").inner_text(): int(row.locator("dd").inner_text().replace(",", ""))
        for row in rows
    }


class Practising(OnStage):
    def act(self, page: Page, *acts: str) -> None:
        for each in acts:
            before = page.locator("[data-part=said]").inner_text()
            page.locator(f"[data-act='{each}']").click()
            expect(page.locator("[data-part=said]")).not_to_have_text(before)

    def fits_across(self, page: Page) -> None:
        wide = page.evaluate(
            "[document.documentElement.scrollWidth, document.querySelector('main').scrollWidth, "
            "window.innerWidth]"
        )
        self.assertLessEqual(max(wide[:2]), wide[2])

    def test_what_the_trailer_weighs_by_thumb(self) -> None:
        page = self.page("/practice", PHONE)
        page.get_by_text("Keep my progress").click()
        page.get_by_label("Name").fill("Bo")
        page.get_by_role("button", name="Add").click()
        expect(page.get_by_role("radio", name="Bo", exact=True)).to_be_checked()
        page.get_by_role("link", name="What the trailer really weighs").click()
        expect(page.locator("[data-ticket]")).to_have_count(2)
        hitched, alone = ticket(page, 0), ticket(page, 1)
        answer, reply = page.get_by_label("Your answer"), page.locator("[data-part=reply]")
        for given, expected in (
            (str(hitched["platform 3"]), "Tongue weight left out"),
            ("quite heavy", "“quite heavy” is not a mass"),
            (f"{hitched['gross'] - alone['gross']}0", "A digit too many"),
        ):
            answer.fill(given)
            page.get_by_role("button", name="Answer").click()
            expect(reply).to_contain_text(expected)
            expect(answer).to_have_value(given)
        expect(page.locator("[data-part=truth]")).to_have_count(0)
        page.get_by_role("button", name="A hint").click()
        expect(page.get_by_text("Where is the rest?")).to_be_visible()
        answer.fill(f"{hitched['gross']} - {alone['gross']}")
        page.get_by_role("button", name="Answer").click()
        expect(reply).to_contain_text("That is right.")
        expect(page.locator("[data-part=truth]")).to_contain_text("Trailer, in total")
        self.fits_across(page)
        page.get_by_role("link", name=re.compile("lesson 5")).click()
        expect(page.get_by_role("link", name="What the trailer really weighs")).to_be_visible()
        expect(page.locator("main")).to_contain_text("right 1 ×")

    def test_two_passes_by_keyboard_with_the_dangers_on_the_way(self) -> None:
        page = self.page("/practice/lessons/two-passes?seed=7", DESK)
        expect(page.get_by_text("Weigh the vehicle alone first")).to_be_visible()
        page.locator("[data-act=uncouple]").press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("Chocks are not set")
        # quicker than they are answered: none is lost
        for act in ("chock", "slack", "uncouple", "on", "ask"):
            page.locator(f"[data-act={act}]").press("Enter")
        expect(page.locator("[data-act=wait]")).to_be_visible()
        page.locator("[data-act=off]").press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("has not been taken")
        page.locator("[data-act=wait]").press("Enter")
        expect(page.locator("[data-ticket]")).to_have_count(2)
        page.reload()  # a run goes on where it was left
        expect(page.locator("[data-ticket]")).to_have_count(2)
        page.get_by_label("Your answer").fill(str(ticket(page, 1)["gross"]))
        page.get_by_label("Your answer").press("Enter")
        expect(page.locator("[data-part=reply]")).to_contain_text("That is right.")
        page.get_by_role("link", name="Next lesson").press("Enter")
        expect(page.get_by_role("heading", level=1)).to_have_text("Tongue weight from two passes")

    def test_a_challenge_at_both_sizes(self) -> None:
        for size in (PHONE, DESK):
            with self.subTest(size):
                page = self.page("/practice", size)
                page.get_by_role("radio", name="one trap").click()
                page.get_by_role("button", name="Today's").click()
                expect(page.get_by_role("button", name="Weigh it first")).to_be_disabled()
                self.act(page, "on", "ask", "wait", "off")
                for entry in page.get_by_role("radio", name="cannot tell").all():
                    entry.click()
                page.get_by_role("button", name="Judge me").click()
                expect(page.get_by_text(re.compile("^A trap that"))).to_be_visible()
                expect(page.locator("[data-judged]").first).to_contain_text("Truly")
                expect(page.locator("[data-part=truth]")).to_be_visible()
                page.get_by_role("button", name="Look at the fix").click()
                expect(
                    page.get_by_role("status").filter(has_text=re.compile("over"))
                ).to_be_visible()
                self.fits_across(page)

    def test_my_own_rig_in_the_yard(self) -> None:
        rig = self.rigs.add(
            dump_rig(read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes()))
        )
        page = self.page(f"/rigs/{rig}/margins", DESK)
        page.locator("[data-menu=rig]").click()
        page.get_by_role("menuitem", name="Try this rig in the practice yard").click()
        self.act(page, "on", "ask", "wait", "off")
        expect(page.locator("[data-ticket]")).to_have_count(1)
        page.get_by_text("This run as a text").click()
        run = page.locator("[data-part=run]").inner_text()
        page.goto(self.address + "/practice")
        page.get_by_label("A run as a text").fill("yard9/bars.lb.north_america/1/")
        page.get_by_role("button", name="Play it").click()
        expect(page.get_by_role("alert")).to_contain_text("A newer Noxel may have made it")
        page.goto(self.address + "/practice")
        page.get_by_label("A run as a text").fill(run)
        page.get_by_role("button", name="Play it").click()
        expect(page.locator("[data-ticket]")).to_have_count(1)

    def test_a_sheet_for_a_class(self) -> None:
        page = self.page("/practice", DESK)
        with page.expect_download() as sheet:
            page.get_by_role("link", name="Make the sheet").click()
        self.assertTrue(sheet.value.path().read_bytes().startswith(b"%PDF"))
