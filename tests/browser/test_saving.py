"""How what was typed reaches the file: late answers, undo meanwhile, a server that does not answer,
a second page.
"""

import json
import re
import sqlite3

from playwright.sync_api import Route, expect

from tests.browser.stage import OnStage, at, saving
from tests.truth import rig_of


class Saving(OnStage):
    def setUp(self) -> None:
        super().setUp()
        document = rig_of("check--three-passes")
        document["weigh_ins"].append({**document["weigh_ins"][0], "place": "Alder Bend"})
        self.rig = self.rigs.add(document)

    def test_an_answer_that_comes_late_is_not_taken_for_another_weigh_in(self) -> None:
        page = self.page(f"/rigs/{self.rig}/weigh?weigh-in=1")
        looked_at = page.locator("[data-menu=weigh-in]")
        rear = at(page, "weigh_ins[0].passes[0].readings.rear")
        held: list[Route] = []

        def hold_a_change(route: Route) -> None:
            if route.request.method == "GET":
                route.continue_()
            else:
                held.append(route)

        page.route(f"**/api/rigs/{self.rig}**", hold_a_change)
        before = rear.input_value()
        rear.fill("3333")
        rear.blur()
        page.keyboard.press("]")
        expect(looked_at).to_contain_text("Alder Bend")
        held.pop().continue_()
        expect(page.locator("[data-part=saving]")).to_have_text("saved")
        expect(looked_at).to_contain_text("Alder Bend")
        page.get_by_role("button", name="Undo").click()
        page.keyboard.press("[")
        expect(looked_at).not_to_contain_text("Alder Bend")
        expect(rear).to_have_value("3,333")
        held.pop().continue_()
        expect(rear).to_have_value(before)
        expect(page.get_by_role("button", name="Nothing to undo")).to_be_visible()

    def test_another_weigh_in_is_not_shown_as_it_was_before_a_change(self) -> None:
        page = self.page(f"/rigs/{self.rig}/weigh?weigh-in=1")
        looked_at = page.locator("[data-menu=weigh-in]")
        expect(looked_at).to_be_visible()
        for key, place in (("]", True), ("[", False)):
            page.keyboard.press(key)
            (expect(looked_at).to_contain_text if place else expect(looked_at).not_to_contain_text)(
                "Alder Bend"
            )
        rear = at(page, "weigh_ins[0].passes[0].readings.rear")
        rear.fill("3333")
        rear.blur()
        undo = page.get_by_role("button", name="Undo", exact=False)
        expect(undo).to_be_enabled()
        held: list[Route] = []

        def hold(route: Route) -> None:
            held.append(route)

        page.route(f"**/api/rigs/{self.rig}?*", hold)
        with page.expect_request(f"**/api/rigs/{self.rig}?*"):
            page.keyboard.press("]")
        expect(page).to_have_url(re.compile("weigh-in=2|/weigh$"))
        expect(undo).to_be_enabled()  # what it was before the change would have nothing to undo
        held.pop().continue_()
        expect(looked_at).to_contain_text("Alder Bend")
        undo.click()
        expect(page.get_by_role("button", name="Nothing to undo")).to_be_visible()

    def test_a_visit_is_not_undone_by_an_answer_from_before_it_was_begun(self) -> None:
        page, visit = self.page("/"), f"/api/rigs/{self.rig}/visit"
        before = page.request.get(self.address + visit).text()
        late: list[Route] = []
        refused: list[int] = []

        def refuse_once_and_answer_late(route: Route) -> None:
            if route.request.method == "GET" and not late:
                late.append(route)
            elif route.request.method == "PUT" and not refused:
                refused.append(503)
                route.fulfill(status=503, json={})
            else:
                route.continue_()

        page.route(f"**{visit}**", refuse_once_and_answer_late)
        page.goto(f"{self.address}/rigs/{self.rig}/visit")
        heading, ahead = page.get_by_role("heading", level=1), page.locator("footer button").first
        with page.expect_response(lambda answer: answer.request.method == "PUT"):
            page.get_by_role("button", name="Begin").click()
        late[0].fulfill(body=before, content_type="application/json")
        expect(heading).to_have_text("Before you drive on")
        with page.expect_response(lambda answer: answer.request.method == "PUT") as kept:
            ahead.click()
        self.assertEqual((refused, kept.value.status), ([503], 204))
        page.reload()
        expect(heading).to_have_text(re.compile("^Roll on slowly"))

    def test_what_a_page_could_not_send_is_sent_once_by_another(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        page.route(
            f"**/api/rigs/{self.rig}**",
            lambda route: route.abort() if route.request.method == "PATCH" else route.continue_(),
        )
        at(page, "vehicle.ratings.gvwr").fill("7001")
        expect(page.get_by_text("not saved yet, trying again")).to_be_visible()
        other = page.context.new_page()
        other.goto(page.url)
        at(other, "vehicle.ratings.gcwr").fill("15001")
        expect(other.locator("[data-part=saving]")).to_have_text("saved")
        # that page is open and sends it itself
        self.assertNotIn("7001", json.dumps(self.rigs.open(self.rig).document))
        page.close()
        other.reload()
        expect(at(other, "vehicle.ratings.gvwr")).to_have_value("7,001")
        self.assertEqual(self.rigs.open(self.rig).undo, "GVWR")
        self.assertEqual(other.evaluate("Object.keys(localStorage)"), [])

    def test_a_change_that_cannot_be_saved_stands_aside(self) -> None:
        """The server fails over one change again and again; the rest goes on, and what was typed is
        kept through a reload.
        """
        page = self.page(f"/rigs/{self.rig}/plates")
        poisoned = "6789"

        def fail_over_it(route: Route) -> None:
            if poisoned in (route.request.post_data or ""):
                problem = {
                    "type": "urn:noxel:internal",
                    "title": "",
                    "status": 500,
                    "detail": "A bug.",
                    "code": "internal",
                    "errors": [],
                }
                route.fulfill(status=500, json=problem)
            else:
                route.continue_()

        page.route(f"**/api/rigs/{self.rig}**", fail_over_it)
        at(page, "vehicle.ratings.gvwr").fill(poisoned)
        at(page, "vehicle.ratings.gcwr").fill("15001")
        aside = page.locator('[data-aside="vehicle.ratings.gvwr"]')
        expect(aside).to_contain_text("“6789”. A bug.")
        expect(saving(page)).to_have_text("1 not saved")
        self.assertEqual(self.rigs.open(self.rig).document["vehicle"]["ratings"]["gcwr"], 15001)
        page.reload()
        expect(aside).to_contain_text("6789")
        expect(page.get_by_text("“6789” could not be saved")).to_be_visible()  # at the field
        page.unroute_all()
        aside.get_by_role("button", name="Try again").click()
        expect(aside).to_have_count(0)
        expect(at(page, "vehicle.ratings.gvwr")).to_have_value("6,789")
        self.assertEqual(page.evaluate("Object.keys(localStorage)"), [])

    def test_a_refused_change_can_be_kept_as_a_note(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        problem = {
            "type": "x",
            "title": "",
            "status": 409,
            "detail": "It does not fit.",
            "code": "conflict",
            "errors": [],
        }
        page.route(
            f"**/api/rigs/{self.rig}**",
            lambda route: (
                route.fulfill(status=409, json=problem)
                if "6,500" in (route.request.post_data or "")
                else route.continue_()
            ),
        )
        at(page, "vehicle.ratings.gvwr").fill("6,500")
        aside = page.locator("[data-aside]")
        expect(aside).to_contain_text("It does not fit.")
        page.unroute_all()
        aside.get_by_role("button", name="Keep as a note").click()
        expect(aside).to_have_count(0)
        expect(saving(page)).to_have_text("saved")
        self.assertIn("6,500", self.rigs.open(self.rig).document["note"])

    def test_a_damaged_rig_leaves_the_others_alone(self) -> None:
        sound = self.rigs.add(rig_of("check--kilograms"))
        with sqlite3.connect(self.database.path or "") as connection:
            connection.execute("UPDATE rigs SET document = '{' WHERE id = ?", (self.rig,))
        page = self.page("/")
        expect(page).to_have_url(re.compile(f"{sound}/margins"))
        page.goto(page.url.replace(sound, self.rig))
        expect(page.get_by_role("heading", level=1)).to_have_text("This rig cannot be shown")
        with page.expect_download() as given:
            page.get_by_role("button", name="Export it as it is").click()
        self.assertEqual(json.loads(given.value.path().read_text(encoding="utf-8"))["rig"], "{")
        page.get_by_role("button", name="Delete it").click()
        page.get_by_role("button", name="Delete it (removes it from the list)").click()
        expect(page).to_have_url(re.compile(f"{sound}/margins"))
