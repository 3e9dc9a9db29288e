"""From two paper tickets to a verdict, in a real browser, as the person at the table does it."""

import json
import tempfile
from pathlib import Path
from typing import Any

from playwright.sync_api import expect

from tests.browser.stage import PHONE, OnStage, at
from tests.truth import case, rig_of

CASE = "check--share-low"


def figures(node: Any, path: str = "") -> list[tuple[str, str]]:
    """Every figure of a document with its path, as somebody would copy it."""
    if isinstance(node, dict):
        return [
            figure
            for key, value in node.items()
            for figure in figures(value, f"{path}.{key}" if path else key)
        ]
    if isinstance(node, list):
        return [
            figure
            for index, value in enumerate(node)
            for figure in figures(value, f"{path}[{index}]")
        ]
    return (
        [(path, str(node))] if isinstance(node, int | float) and not isinstance(node, bool) else []
    )


class TwoTickets(OnStage):
    def test_from_nothing_to_a_verdict(self) -> None:
        worked = case(CASE)
        document = worked["file"]
        page = self.page()
        page.get_by_role("button", name="I have weigh tickets").click()
        page.get_by_role("button", name="trailer on a ball").click()
        expect(page.locator("[data-shape]")).to_have_count(4)  # the ticket first, by its looks
        page.get_by_role("link", name="Plates").click()
        for path, text in [
            *figures(document["vehicle"], "vehicle"),
            *figures(document["hitch"], "hitch"),
            *figures(document["trailer"], "trailer"),
        ]:
            if path == "trailer.ratings.gawr[1]":
                page.get_by_role("button", name="one more axle").click()
            if path.endswith(".carrying"):
                # without spring bars only the carrying figure counts
                path = path.removesuffix(".carrying")
            if path.endswith(".distributing"):
                continue
            expect(at(page, path)).to_be_visible()
            at(page, path).fill(text)
        page.keyboard.press("Escape")
        page.get_by_role("link", name="Weigh").click()
        page.get_by_role("button", name="Start a weigh-in").click()
        first, second = document["weigh_ins"][0]["passes"]
        at(page, "weigh_ins[0].passes[0].readings.front").click()
        for value in first[
            "readings"
        ].values():  # the whole ticket by keyboard: Enter goes to the next platform
            page.keyboard.type(str(value))
            page.keyboard.press("Enter")
        for name, value in second["readings"].items():
            at(page, f"weigh_ins[0].passes[1].readings.{name}").fill(str(value))
        expect(page.get_by_label("Pass 1: Hitched").locator("[data-part=sum]")).to_have_text(
            f"{sum(first['readings'].values()):,} lb"
        )
        page.get_by_role("link", name="Margins").click()
        expect(page.locator("[data-verdict]")).to_have_attribute(
            "data-verdict", worked["expect"]["verdict"]
        )
        for row in worked["expect"]["checks"]:
            expect(page.locator(f'tr[data-check="{row["id"]}"]')).to_have_attribute(
                "data-status", row["status"]
            )
        lowest = next(row for row in worked["expect"]["checks"] if row["id"] == "tongue.share")
        expect(page.get_by_role("heading", level=1)).to_contain_text(
            f"{lowest['actual'] * 100:.1f} %"
        )
        page.reload()
        expect(page.locator("[data-verdict]")).to_have_attribute(
            "data-verdict", worked["expect"]["verdict"]
        )

    def test_a_click_opens_the_working(self) -> None:
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/margins")
        page.locator('tr[data-check="trailer.gross"]').click()
        working = page.locator("aside [data-part=working]")
        # 13,580 − 5,360 = 8,220; 8,700 − 8,220 = 480
        for figure in ("13,580", "5,360", "8,220", "8,700", "480"):
            expect(working).to_contain_text(figure)
        working.get_by_role("button", name="vehicle only").click()
        for figure in ("2,760", "2,600", "5,360"):
            expect(working).to_contain_text(figure)
        page.locator('[data-post="rear"]').click()
        expect(working).to_contain_text("3,680")
        expect(page.locator('[data-post="rear"]')).to_have_attribute("data-status", "over")
        expect(page.locator('[data-brace="combination.gross"]')).to_contain_text("13,580")

    def test_wrong_entries_say_why_and_lose_nothing(self) -> None:
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/plates")
        for text, cause in (
            ("72oo", "“oo”"),
            ("-5", "above zero"),
            ("7,2", "comma"),
            ("9999999999", "200 t"),
        ):
            gvwr = at(page, "vehicle.ratings.gvwr")
            gvwr.fill(text)
            expect(page.get_by_text(cause)).to_be_visible()
            expect(page.locator('[data-brace="vehicle.gross"]')).to_have_attribute(
                "data-status", "unknown"
            )
            page.reload()
            expect(at(page, "vehicle.ratings.gvwr")).to_have_value(text)
            expect(page.get_by_text(cause)).to_be_visible()
        gvwr = at(page, "vehicle.ratings.gvwr")
        gvwr.fill("3200 kg")
        # 3200 / 0.45359237
        expect(page.locator('[data-brace="vehicle.gross"]')).to_contain_text("7,055")
        gvwr.blur()
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        for _ in range(self.rigs.open(rig).revision):
            with page.expect_response("**/undo"):
                page.get_by_role("button", name="Undo GVWR").click()
        expect(at(page, "vehicle.ratings.gvwr")).to_have_value("7,000")

    def test_a_ticket_that_does_not_add_up(self) -> None:
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/weigh")
        at(page, "weigh_ins[0].passes[0].printed_gross").fill("13850")
        expect(page.get_by_label("Pass 1").get_by_text("two digits swapped")).to_be_visible()
        at(page, "weigh_ins[0].passes[0].printed_gross").fill("13580")
        expect(page.get_by_text("two digits swapped")).to_have_count(0)
        page.get_by_role("radiogroup", name="Unit of pass 3").get_by_text("kg").click()
        slip = page.get_by_label("Pass 3").locator("[data-advisory=unit_slip]")
        expect(slip).to_contain_text("pounds typed as kilograms")

    def test_by_thumb(self) -> None:
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/weigh", PHONE)
        self.fits(page)
        expect(page.get_by_text("960 ±23 lb")).to_be_visible()
        page.get_by_role("button", name="Next pass: hitched, bars slack").click()
        reading = at(page, "weigh_ins[0].passes[1].readings.rear")
        reading.fill("3,900")
        expect(page.get_by_text("980 ±23 lb")).to_be_visible()
        for place in ("Plates", "Margins"):
            page.get_by_role("link", name=place).click()
            expect(page.locator("[data-part=drawing] svg")).to_be_visible()
            self.fits(page)
        page.locator('tr[data-check="hitch.tongue"]').click()
        expect(page.locator("tr [data-part=working]")).to_contain_text("980")
        self.fits(page)

    def test_files_come_in_and_go_out(self) -> None:
        document = rig_of("check--fifth-wheel-kg-per-axle")
        page = self.page()
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "rig.noxel.json"
            chooser = page.get_by_label("Rig file")
            document["vehicle"]["ratings"]["gvwr"] = "5,22 kg"
            path.write_text(json.dumps(document), encoding="utf-8")
            chooser.set_input_files(path)
            expect(page.get_by_text("vehicle.ratings.gvwr")).to_be_visible()
            self.assertEqual(self.rigs.summaries(), [])
            document["vehicle"]["ratings"]["gvwr"] = "5,225 kg"
            path.write_text(json.dumps(document), encoding="utf-8")
            chooser.set_input_files(path)
            expect(page.get_by_role("heading", level=1)).to_contain_text("Stop.")
            page.locator("[data-menu=rig]").click()
            with page.expect_download() as download:
                page.get_by_role("menuitem", name="Export this rig").click()
            self.assertEqual(
                json.loads(Path(download.value.path()).read_text(encoding="utf-8")), document
            )

    def test_keys(self) -> None:
        rig = self.rigs.add(rig_of("check--kilograms"))
        page = self.page(f"/rigs/{rig}/margins")
        expect(page.locator("[data-verdict]")).to_be_visible()
        for key, place in (
            ("1", "plates"),
            ("2", "pack"),
            ("3", "weigh"),
            ("5", "adjust"),
            ("6", "log"),
            ("7", "match"),
            ("4", "margins"),
        ):
            page.keyboard.press(key)
            expect(page).to_have_url(f"{self.address}/rigs/{rig}/{place}")
        page.keyboard.press("t")
        expect(page.locator("html")).to_have_attribute("data-theme", "night")
        page.keyboard.press("?")
        expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
        page.keyboard.press("Escape")
        page.locator('tr[data-check="trailer.axles"] button').focus()
        page.keyboard.press("Enter")
        expect(page.locator("aside [data-part=working]")).to_contain_text("Trailer axles")

    def test_a_deleted_rig_comes_back(self) -> None:
        rig = self.rigs.add(rig_of("check--kilograms"))
        page = self.page(f"/rigs/{rig}/margins")
        page.locator("[data-menu=rig]").click()
        page.get_by_role("menuitem", name="Delete this rig").click()
        page.get_by_role("button", name="Delete it").click()
        page.get_by_role("button", name="Bring back kilograms").click()
        expect(page.get_by_role("heading", level=1)).to_contain_text("Stop.")

    def test_typing_while_the_server_is_away_is_not_lost(self) -> None:
        rig = self.rigs.add(rig_of("check--three-passes"))
        page = self.page(f"/rigs/{rig}/plates")
        expect(at(page, "vehicle.ratings.gvwr")).to_have_value("7,000")
        page.route(
            "**/api/rigs/*",
            lambda route: route.abort() if route.request.method == "PATCH" else route.continue_(),
        )
        at(page, "vehicle.ratings.gvwr").fill("7321")
        at(page, "vehicle.ratings.gawr_rear").fill("3,777")
        expect(page.get_by_text("not saved yet, trying again")).to_be_visible()
        page.reload()
        expect(page.get_by_text("not saved yet, trying again")).to_be_visible()
        page.unroute("**/api/rigs/*")
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        expect(at(page, "vehicle.ratings.gvwr")).to_have_value("7,321")
        expect(at(page, "vehicle.ratings.gawr_rear")).to_have_value("3,777")
