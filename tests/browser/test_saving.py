"""How what was typed reaches the file: late answers, undo meanwhile, a server that does not answer, a second page."""

import json
import re

from playwright.sync_api import Route, expect

from tests.browser.stage import OnStage, at
from tests.truth import rig_of


class Saving(OnStage):
    def setUp(self) -> None:
        super().setUp()
        document = rig_of("check--three-passes")
        document["weigh_ins"].append({**document["weigh_ins"][0], "place": "Alder Bend"})
        self.rig = self.rigs.add(document)

    def test_an_answer_that_comes_late_is_not_taken_for_another_weigh_in(self) -> None:
        page = self.page(f"/rigs/{self.rig}/weigh?weigh-in=1")
        looked_at = page.get_by_role("button", name="Weigh-in", exact=True)
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
        expect(page.get_by_role("status")).to_have_text("saved")
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
        looked_at = page.get_by_role("button", name="Weigh-in", exact=True)
        expect(looked_at).to_be_visible()
        for key, place in (("]", True), ("[", False)):
            page.keyboard.press(key)
            (expect(looked_at).to_contain_text if place else expect(looked_at).not_to_contain_text)("Alder Bend")
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

    def test_what_a_page_could_not_send_is_sent_once_by_another(self) -> None:
        page = self.page(f"/rigs/{self.rig}/plates")
        page.route(
            f"**/api/rigs/{self.rig}**", lambda route: route.abort() if route.request.method == "PATCH" else route.continue_()
        )
        at(page, "vehicle.ratings.gvwr").fill("7001")
        expect(page.get_by_role("status")).to_have_text("not saved yet, trying again")
        other = page.context.new_page()
        other.goto(page.url)
        at(other, "vehicle.ratings.gcwr").fill("15001")
        expect(other.get_by_role("status")).to_have_text("saved")
        self.assertNotIn("7001", json.dumps(self.rigs.open(self.rig).document))  # that page is open and sends it itself
        page.close()
        other.reload()
        expect(at(other, "vehicle.ratings.gvwr")).to_have_value("7,001")
        self.assertEqual(self.rigs.open(self.rig).undo, "GVWR")
        self.assertEqual(other.evaluate("Object.keys(localStorage)"), [])
