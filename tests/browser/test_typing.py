"""What is typed is what is kept, at the pace of a hand and over a slow network; and every tap acts.

Expected: the figures as typed, read from the database, not from the screen.
"""

import re
from typing import Any

from playwright.sync_api import Page, Route, expect
from tools.stage import Slowly

from tests.browser.stage import PHONE, OnStage, at, saving, unfolded
from tests.truth import rig_of

PACES = (0, 80, 200, 450)
"""Between two keys. [ms]"""
LATE = (0, 300)
"""How late each answer comes. [ms]"""
LANDSCAPE = (844, 390)


def deaf(page: Page) -> None:
    """The page hears of nothing that others do, as while a connection is lost."""
    page.add_init_script(
        "window.EventSource = class {}; window.BroadcastChannel = class { postMessage() {} }"
    )
    page.reload()


class Typing(OnStage):
    def blank(self, **more: Any) -> str:
        document = {
            "format": "noxel-rig",
            "version": 1,
            "units": {"mass": "lb", "length": "in"},
            "kind": "conventional",
            "trailer": {},
        }
        return self.rigs.add({**document, **more})

    def stored(self, rig: str) -> dict[str, Any]:
        return self.rigs.open(rig).document

    def late(self, page: Page, milliseconds: int) -> None:
        """Each answer comes so much later; nothing here waits meanwhile."""
        page.context.set_extra_http_headers({Slowly.HEADER: str(milliseconds)})

    def test_a_label_at_every_pace(self) -> None:
        for late in LATE:
            for pace in PACES:
                with self.subTest(late=late, pace=pace):
                    rig = self.blank()
                    page = self.page(f"/rigs/{rig}/path?door=labels&step=2")
                    self.late(page, late)
                    at(page, "trailer.ratings.gvwr").click()
                    page.keyboard.type("6600", delay=pace)
                    page.keyboard.press("Enter")
                    for _ in range(2):
                        page.keyboard.type("3200", delay=pace)
                        page.keyboard.press("Enter")
                    expect(saving(page)).to_have_text("saved")
                    trailer = self.stored(rig)["trailer"]
                    self.assertEqual(trailer["ratings"], {"gvwr": 6600, "gawr": [3200, 3200]})
                    page.context.close()

    def test_two_tickets_of_a_visit_at_every_pace(self) -> None:
        tickets = [
            {"front": "3140", "rear": "4060", "trailer": "5880", "ticket_number": "A11"},
            {"front": "3300", "rear": "3180", "ticket_number": "A12"},
        ]
        for late, pace in ((0, 0), (300, 80), (0, 450)):
            with self.subTest(late=late, pace=pace):
                rig = self.blank()
                page = self.page(f"/rigs/{rig}/visit", PHONE, touch=True)
                self.late(page, late)
                page.get_by_role("button", name="Begin").tap()
                for ticket in tickets:
                    form = page.get_by_label("Jot a ticket")
                    while not form.is_visible():
                        step = page.get_by_role("heading", level=1).inner_text()
                        page.locator("footer button").first.tap()
                        expect(page.get_by_role("heading", level=1)).not_to_have_text(step)
                    for name, text in ticket.items():
                        box = page.locator(f'[data-jot="{name}"]')
                        expect(box).to_have_value("")  # nothing of the other ticket
                        box.tap()
                        page.keyboard.type(text, delay=pace)
                    page.get_by_role("button", name="Keep this ticket").tap()
                    expect(form).to_have_count(0)
                expect(page.get_by_text("to be sent")).to_have_count(0)
                [weigh_in] = self.stored(rig)["weigh_ins"]
                kept = [
                    {
                        **{n: str(v) for n, v in weigh_in["readings"].items()},
                        "ticket_number": weigh_in["ticket_number"],
                    }
                    for weigh_in in weigh_in["passes"]
                ]
                self.assertEqual(kept, tickets)
                page.context.close()

    def test_a_lost_answer_is_no_second_change(self) -> None:
        rig = self.blank(trailer={"ratings": {"gawr": [3200, 3200]}})
        page = self.page(f"/rigs/{rig}/plates")
        lost: list[str] = []

        def lose_the_first(route: Route) -> None:
            answer = route.fetch()
            if route.request.method == "PATCH" and not lost:
                lost.append(route.request.url)
                route.abort()
            else:
                route.fulfill(response=answer)

        page.route(f"**/api/rigs/{rig}**", lose_the_first)
        page.get_by_role("button", name="one more axle").click()
        expect(page.get_by_text("not saved yet, trying again")).to_be_visible()
        expect(saving(page)).to_have_text("saved")
        self.assertEqual(self.stored(rig)["trailer"]["ratings"]["gawr"], [3200, 3200, 3200])

    def test_one_question_for_one_field(self) -> None:
        rig = self.blank(vehicle={"ratings": {"gvwr": 7000}})
        page = self.page(f"/rigs/{rig}/plates")
        page.add_init_script(
            "window.EventSource = class {}; window.BroadcastChannel = class { postMessage() {} }"
        )
        page.reload()
        other = self.page(f"/rigs/{rig}/plates")
        at(other, "vehicle.ratings.gvwr").fill("7100")
        expect(saving(other)).to_have_text("saved")
        at(page, "vehicle.ratings.gvwr").click()
        page.keyboard.type("7777", delay=80)
        expect(page.locator("[data-aside]")).to_have_count(1)
        expect(page.locator("[data-aside]")).to_contain_text("“7777”")
        self.assertEqual(self.stored(rig)["vehicle"]["ratings"]["gvwr"], 7100)
        page.get_by_role("button", name="Use mine").click()
        expect(page.locator("[data-aside]")).to_have_count(0)
        expect(saving(page)).to_have_text("saved")
        self.assertEqual(self.stored(rig)["vehicle"]["ratings"]["gvwr"], 7777)

    def test_what_was_taken_away_can_be_added_again(self) -> None:
        items = [{"name": name, "on": "vehicle", "mass": 40} for name in ("table", "dome")]
        rig = self.blank(loads=items)
        page = self.page(f"/rigs/{rig}/pack")
        page.add_init_script(
            "window.EventSource = class {}; window.BroadcastChannel = class { postMessage() {} }"
        )
        page.reload()
        other = self.page(f"/rigs/{rig}/pack")
        other.locator("summary").filter(has_text="table").click()
        other.get_by_role("button", name="take it off the list").click()
        expect(saving(other)).to_have_text("saved")
        page.locator("summary").filter(has_text="table").click()
        at(page, "loads[0].mass").fill("66")
        aside = page.locator("[data-aside]")
        expect(aside).to_contain_text("taken away elsewhere")
        expect(aside.get_by_role("button", name="Try again")).to_have_count(0)
        aside.get_by_role("button", name="Add again").click()
        expect(saving(page)).to_have_text("saved")
        loads = [(stored["name"], stored["mass"]) for stored in self.stored(rig)["loads"]]
        self.assertEqual(loads, [("dome", 40), ("table", 66)])

    def test_readings_left_out_are_kept_aside(self) -> None:
        rig = self.rigs.add(rig_of("check--two-passes-bars-slack"))
        page = self.page(f"/rigs/{rig}/weigh")
        first = page.locator("[data-pass='1']")
        readings = self.stored(rig)["weigh_ins"][0]["passes"][0]["readings"]
        first.get_by_role("combobox", name="read").select_option("wheels")
        expect(first.locator("[data-part=kept-aside]")).to_contain_text(str(readings["front"]))
        expect(saving(page)).to_have_text("saved")
        page.reload()
        first.get_by_role("combobox", name="read").select_option("axles")
        expect(first.locator("[data-part=kept-aside]")).to_have_count(0)
        expect(saving(page)).to_have_text("saved")
        self.assertEqual(self.stored(rig)["weigh_ins"][0]["passes"][0]["readings"], readings)


class Taps(OnStage):
    """Each tap below a figure that was just typed acts: nothing moves between press and release."""

    def test_below_a_focused_figure(self) -> None:
        rated, tongue = "vehicle.ratings.gawr_rear", "vehicle.ratings.tongue_rating"
        placard = re.compile("^Tire and loading placard")
        for size in (PHONE, LANDSCAPE):
            rig = self.rigs.add(rig_of("check--two-passes-bars-slack"))
            for place, path, what, seen in (
                ("path?door=labels", rated, "Next", "Step 2 of 5"),
                ("path?door=labels", rated, "I don’t have this", "Step 2 of 5"),
                ("path?door=tow&step=6", tongue, "Next", "Can it tow that?"),
                ("plates", rated, placard, "open"),
            ):
                if what is placard and size is LANDSCAPE:
                    continue  # nothing is folded there
                with self.subTest(size=size, what=what):
                    page = self.page(f"/rigs/{rig}/{place}", size, touch=True)
                    page.evaluate(_BUSY)
                    unfolded(page, path).tap()
                    page.keyboard.type("4150", delay=60)
                    button = page.get_by_role("button", name=what)
                    link = page.get_by_role("link", name=what)
                    fold = page.locator("summary").filter(has_text=what)
                    button.or_(link).or_(fold).first.tap()
                    if seen == "open":
                        expect(fold.locator("xpath=..")).to_have_attribute("open", "")
                    elif seen.startswith("/"):
                        expect(page).to_have_url(re.compile(seen))
                    else:
                        expect(page.get_by_text(seen)).to_be_visible()
                    expect(page.locator("[data-part=saving]")).to_have_text("saved")
            ratings = self.rigs.open(rig).document["vehicle"]["ratings"]
            self.assertEqual((ratings["gawr_rear"], ratings["tongue_rating"]), (4150, 4150))

    def test_every_button_of_every_place(self) -> None:
        """A click reaches what was tapped. It is stopped there, so that the next one finds the same
        page.
        """
        document = rig_of("check--two-passes-bars-slack")
        document["loads"] = [{"name": "dome", "on": "trailer", "mass": 90, "position": 60}]
        rig = self.rigs.add(document)
        for size in (PHONE, LANDSCAPE):
            for place in ("plates", "pack", "weigh", "margins", "log", "path?door=labels"):
                if (place, size) == ("plates", LANDSCAPE):
                    continue  # the same buttons, all unfolded
                page = self.page(f"/rigs/{rig}/{place}", size, touch=True)
                expect(page.locator("[data-part=saving]")).to_have_text("saved")
                page.evaluate(_STOP)
                field = page.locator("main input[data-path]:visible")
                for tapped in page.locator(_TAPPED).element_handles():
                    if not tapped.is_visible() or tapped.is_disabled():
                        continue
                    words = tapped.evaluate("each => each.outerHTML.slice(0, 160)")
                    with self.subTest(size=size, place=place, tapped=words):
                        if field.count():
                            field.first.tap()
                            page.keyboard.type("7")
                        tapped.scroll_into_view_if_needed()
                        box = tapped.bounding_box()
                        assert box  # noqa: S101
                        x, y = box["x"] + box["width"] / 2, box["y"] + min(box["height"] / 2, 24)
                        page.evaluate("window.clicked = null")
                        page.touchscreen.tap(x, y)
                        if tapped.get_attribute("aria-haspopup") == "menu":  # it acts when pressed
                            self.assertEqual(tapped.get_attribute("aria-expanded"), "true")
                            page.keyboard.press("Escape")
                            continue
                        page.wait_for_function("window.clicked !== null", timeout=10_000)
                        same = "each => window.clicked === each || each.contains(window.clicked)"
                        self.assertTrue(tapped.evaluate(same))
                page.context.close()


_BUSY = """() => window.addEventListener("touchend", () => {
  for (const end = performance.now() + 400; performance.now() < end; );
})"""
"""The page is busy as a finger lifts: its tap comes after that, as on a slow phone."""
_TAPPED = "main button, main a, main summary, main label:has(input), nav a, header button"
_STOP = """() => {
  window.clicked = null;
  window.addEventListener("click", (event) => {
    window.clicked ??= event.target;
    event.preventDefault();
    event.stopPropagation();
  }, true);
}"""


if __name__ == "__main__":
    import unittest

    unittest.main()
