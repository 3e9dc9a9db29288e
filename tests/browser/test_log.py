"""The log in a real browser: two weigh-ins compared, each paper downloaded, a logbook imported."""

import copy
import json
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.stage import PHONE, OnStage, at
from tests.truth import rig_of


class TheLog(OnStage):
    def setUp(self) -> None:
        super().setUp()
        document = rig_of("check--three-passes")
        later = copy.deepcopy(document["weigh_ins"][0])
        later |= {"date": "2026-09-01", "place": "Alder Bend"}
        later["passes"][0]["readings"]["rear"] -= 200
        document["weigh_ins"].append(later)
        self.rig = self.rigs.add(document)

    def test_two_compared_and_one_looked_at(self) -> None:
        self.rigs.add(rig_of("check--two-passes-bars-slack") | {"name": "The other hitch"})
        page = self.page(f"/rigs/{self.rig}/log")
        expect(page.locator("[data-entry]")).to_have_count(2)
        expect(page.locator('[data-entry="2"]')).to_contain_text("Rear axle, hitched −200 lb")
        for entry in ("1", "2"):
            page.locator(f'[data-entry="{entry}"]').get_by_role("checkbox").check()
        compared = page.locator("[data-part=compared]")
        expect(compared.locator('[data-compared="rear_hitched"]')).to_contain_text("−200")
        expect(compared.locator('[data-compared="front_hitched"]')).to_contain_text("same")
        expect(compared.locator("[data-part=closure]")).to_contain_text(
            "is 200 lb (± 47 lb) less than in the first"
        )
        page.get_by_label("Compare with another rig").select_option(label="The other hitch")
        expect(compared.locator("th")).to_have_count(4)
        page.get_by_role("button", name="Leave out The other hitch").click()
        expect(compared.locator("th")).to_have_count(3)
        # within its rating once, over it once
        expect(page.locator('[data-series="rear_hitched"] circle')).to_have_count(1)
        page.get_by_role("button", name="1 Sept 2026", exact=True).click()
        expect(page.get_by_role("heading", level=1)).to_be_visible()

    def test_notes_are_kept_and_found_in_a_long_log(self) -> None:
        document = self.rigs.open(self.rig).document
        document["weigh_ins"] = [
            {**document["weigh_ins"][0], "place": f"scale {n}"} for n in range(1, 46)
        ]
        rig = self.rigs.add(document)
        page = self.page(f"/rigs/{rig}/log")
        page.get_by_role("button", name="Show earlier ones").click()
        expect(page.locator("[data-entry]")).to_have_count(40)
        old = page.locator('[data-entry="8"]')
        old.get_by_role("button", name="Notes on").click()
        old.locator("textarea").nth(1).fill("Sell the anvil")
        old.get_by_label("Tags").fill("spring, heavy")
        old.get_by_role("button", name="Notes on").click()
        page.get_by_label("Find weigh-ins").fill("ANVIL heavy")
        expect(page.locator("[data-entry]")).to_have_count(1)
        expect(page.locator('[data-entry="8"]')).to_contain_text("Decided: Sell the anvil")
        kept = self.rigs.open(rig, entire=True).document["weigh_ins"]
        self.assertEqual(
            (kept[7]["decided"], kept[7]["tags"]), ("Sell the anvil", ["spring", "heavy"])
        )
        self.assertEqual([n for n, entry in enumerate(kept) if "decided" in entry], [7])
        page.locator('[data-entry="8"]').get_by_role("button", name="Notes on").click()
        page.get_by_role("button", name="Delete this weigh-in").click()
        page.get_by_role("button", name="Delete it").click()
        expect(page.get_by_role("heading", name="44 weigh-ins")).to_be_visible()
        self.assertNotIn("decided", json.dumps(self.rigs.open(rig, entire=True).document))
        page.get_by_role("button", name="Undo delete the weigh-in").click()
        expect(page.locator('[data-entry="8"]')).to_contain_text("Sell the anvil")
        page.get_by_role("button", name="2 May 2026", exact=True).click()
        expect(page.locator("[data-menu=weigh-in]")).to_contain_text("scale 8")
        page.keyboard.press("]")
        expect(page.locator("[data-menu=weigh-in]")).to_contain_text("scale 9")

    def test_tickets_from_a_spreadsheet(self) -> None:
        page = self.page(f"/rigs/{self.rig}/log")
        expect(page.locator("[data-series]").first).to_be_visible()
        page.get_by_role("button", name="Tickets from a spreadsheet").click()
        table = (
            "date;scale;setup;bars;front;rear;trailer\n3/4/2025;Tern "
            "Island;hitched;{bars};2.980,5;3700;5800\n"
        )
        page.get_by_label("The list").fill(table.format(bars="up"))
        expect(page.locator("[data-part=list-problems]")).to_contain_text("line 2")
        page.get_by_label("The list").fill(table.format(bars="tight"))
        expect(
            page.get_by_text("1 weigh-in with 1 pass. They go in by their dates.")
        ).to_be_visible()
        page.get_by_label("Order of dates").get_by_text("3 April").click()
        page.get_by_role("button", name="Add them all").click()
        expect(page.get_by_role("status").filter(has_text="1 weigh-in imported.")).to_be_visible()
        expect(page.locator('[data-entry="1"]')).to_contain_text("3 Apr 2025")
        first = self.rigs.open(self.rig, entire=True).document["weigh_ins"][0]
        self.assertEqual(
            first["passes"][0]["readings"], {"front": 2980.5, "rear": 3700, "trailer": 5800}
        )
        page.get_by_role("button", name="Undo imported tickets").click()
        expect(page.locator("[data-entry]")).to_have_count(2)

    def test_reminders_are_set_and_exported(self) -> None:
        page = self.page(f"/rigs/{self.rig}/log")
        page.get_by_role("button", name="Set reminders").click()
        listed = page.get_by_label("Reminders").locator("[data-reminder=months]")
        # one gesture is one step, and yet what is told follows every key
        for keys, due in (("1", "1 Oct"), ("20", "1 Sept 2036")):
            at(page, "reminders.months").press_sequentially(keys)
            expect(listed).to_contain_text(due)
        page.get_by_label("Day the trip starts").fill("2096-07-01")
        page.get_by_label("Name of the trip").fill("Tern Island")
        page.get_by_role("button", name="Add the trip").click()
        expect(page.locator("[data-reminder=trip]")).to_contain_text("from 17 Jun 2096")
        months = page.locator("[data-reminder=months]")  # weighed last on 1 September 2026
        expect(months).to_contain_text("1 Sept 2036")
        with page.expect_download() as download:
            page.get_by_role("link", name="Into a calendar").click()
        lines = Path(download.value.path()).read_text(encoding="utf-8").splitlines()
        self.assertIn("DTSTART;VALUE=DATE:20960617", lines)
        self.assertIn("DTSTART;VALUE=DATE:20360901", lines)

    def test_each_paper_and_the_logbook(self) -> None:
        page = self.page(f"/rigs/{self.rig}/log")
        papers = {
            "A page for the glove box": b"%PDF",
            "The full report": b"%PDF",
            "Tickets, CSV": b"weigh-in,",
            "Items, CSV": b"item,",
            "Workbook with formulas": b"PK",
            "This rig as a file": b"{",
            "Every rig in one file": b"{",
            "A backup of everything": b"SQLite format 3",
        }
        for name, start in papers.items():
            with page.expect_download() as download:
                page.get_by_role("link", name=name).or_(
                    page.get_by_role("button", name=name)
                ).click()
            self.assertTrue(Path(download.value.path()).read_bytes().startswith(start), name)
        with page.expect_popup() as opened:
            page.get_by_role("link", name="Print view").click()
        checks = opened.value.locator("table.checks")
        expect(checks.get_by_role("row").filter(has_text="Rear axle")).to_contain_text("3,480")
        book = {
            "format": "noxel-logbook",
            "version": 1,
            "rigs": [rig_of("check--kilograms"), self.rigs.open(self.rig).document],
        }
        box = page.get_by_label("Logbook file")
        box.set_input_files(
            {"name": "x.json", "mimeType": "application/json", "buffer": b'{"rigs": ['}
        )
        expect(page.get_by_text("Nothing was imported")).to_be_visible()
        box.set_input_files(
            {"name": "x.json", "mimeType": "application/json", "buffer": json.dumps(book).encode()}
        )
        expect(page.get_by_text("1 imported, 1 already present.")).to_be_visible()
        self.assertEqual(len(self.rigs.summaries()), 2)

    def test_a_long_logbook_shows_how_far_it_is(self) -> None:
        page = self.page(f"/rigs/{self.rig}/log")
        document = rig_of("check--three-passes") | {"name": "Long"}
        document["weigh_ins"] = document["weigh_ins"] * 4000
        book = {"format": "noxel-logbook", "version": 1, "rigs": [document]}
        box = page.get_by_label("Logbook file")
        box.set_input_files(
            {"name": "x.json", "mimeType": "application/json", "buffer": json.dumps(book).encode()}
        )
        expect(page.locator("[data-part=long]")).to_be_visible()
        expect(page.get_by_text("1 imported.")).to_be_visible(timeout=60_000)
        expect(page.locator("[data-part=long]")).to_have_count(0)

    def test_by_thumb(self) -> None:
        page = self.page(f"/rigs/{self.rig}/log", PHONE)
        expect(page.locator("[data-entry]").first).to_be_visible()
        self.fits(page)
