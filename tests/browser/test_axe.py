"""What a machine can see of accessibility: axe, best practices included, on every place, size and
theme, empty to full.
"""

import unittest
from collections.abc import Iterator
from importlib.resources import files
from pathlib import Path

from playwright.sync_api import Page

from noxel.core.editing import new_rig
from noxel.core.rig import dump_rig
from noxel.formats.rig_json import read_rig
from tests.browser.stage import DESK, PHONE, OnStage

AXE = (Path(__file__).parents[2] / "web/node_modules/axe-core/axe.min.js").read_text()
TAGS = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]
RUN = """async (only) =>
  (await axe.run(document, { runOnly: only, resultTypes: ["violations"], preload: false }))
  .violations.flatMap((each) => each.nodes.map((node) =>
    `${each.id}: ${node.target} ${node.failureSummary} ${node.html.slice(0, 160)}`))"""
PLACES = ("plates", "pack", "weigh", "margins", "adjust", "log", "match", "visit", "path?door=tow")
ELSEWHERE = (
    "/garage",
    "/start",
    "/phones",
    "/help/order",
    "/help/traps",
    "/help/why",
    "/practice",
    "/practice/lessons/two-passes?seed=7",
    "/practice/lessons/one-pass?seed=7",
    "/practice/lessons/payload?seed=7",
    "/practice/challenge?run=yard1/challenge2.lb.north_america/1/on.ask.wait.off",
    "/practice/yard?run=yard1/bars.kg.europe/4c19/on.ask.wait.off.slack.chock.uncouple",
)
STILL = "Promise.allSettled(document.getAnimations().map((each) => each.finished))"
SMALL = """() => [...document.querySelectorAll("button, input, select, summary, a[href]")]
  .filter((each) => !each.closest("p, li, svg, [data-inline], .sr-only") && each.checkVisibility())
  .map((each) => [each, (each.closest("label:has(> input)") ?? each).getBoundingClientRect()])
  .filter(([, { width, height }]) => width > 1 && Math.min(width, height) < 43.9)
  .map(([each, { width, height }]) => `${width} × ${height} ${each.outerHTML.slice(0, 200)}`)"""
"""What is smaller than 44 px either way, but for words in a sentence and marks of the drawing,
which have a larger twin in a list."""
HALF = {
    "format": "noxel-rig",
    "version": 1,
    "kind": "conventional",
    "units": {"mass": "lb"},
    "name": "Half",
    "vehicle": {"ratings": {"gvwr": 7000, "payload": 1510}, "curb_weight": 5400},
    "trailer": {"ratings": {"gvwr": 7250}},
    "weigh_ins": [
        {
            "scale": {"resolution": 20},
            "passes": [
                {"config": "hitched", "readings": {"front": 3020, "rear": 4040, "trailer": 5880}}
            ],
        }
    ],
}


class EachPlace(OnStage):
    def rigs_to_see(self) -> Iterator[tuple[str, str]]:
        yield "empty", self.rigs.add(new_rig("Empty", "conventional", "lb"))
        yield "half", self.rigs.add(HALF)
        full = read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes())
        yield "full", self.rigs.add(dump_rig(full))

    def unfold(self, page: Page) -> None:
        page.get_by_role("heading").first.wait_for()
        for _ in range(2):  # what was folded may hold something folded
            page.evaluate(
                "document.querySelectorAll('details').forEach((each) => each.open = true)"
            )


class Axe(EachPlace):
    def violations(self, page: Page) -> list[str]:
        """At a desk and on a phone, by day and by night; the page follows at once, and at night
        only its colours differ.
        """
        texts: list[str] = []
        page.evaluate(AXE)
        for name, (width, height) in (("desk", DESK), ("phone", PHONE)):
            page.set_viewport_size({"width": width, "height": height})
            self.unfold(page)
            for theme, only in (("day", TAGS), ("night", ["color-contrast"])):
                page.emulate_media(color_scheme="dark" if theme == "night" else "light")
                page.locator(f"html[data-theme={theme}]").wait_for(state="attached")
                page.evaluate(STILL)
                texts += [
                    f"{name}, {theme}: {evaluation}" for evaluation in page.evaluate(RUN, only)
                ]
        return texts

    def test_axe_has_nothing_to_say(self) -> None:
        page = self.page("/")
        page.emulate_media(color_scheme="light", reduced_motion="reduce")
        fromkeys = dict.fromkeys(self.violations(page), "start")
        for name, rig in self.rigs_to_see():
            for place in PLACES:
                page.goto(f"{self.address}/rigs/{rig}/{place}")
                fromkeys = dict.fromkeys(self.violations(page), f"{name}, {place}") | fromkeys
        for path in ELSEWHERE:
            page.goto(self.address + path)
            fromkeys = dict.fromkeys(self.violations(page), path) | fromkeys
        self.assertFalse(
            fromkeys, "\n".join(f"{line} ({where})" for line, where in sorted(fromkeys.items()))
        )


class Thumbs(EachPlace):
    def test_what_is_tapped_is_as_large_as_a_thumb(self) -> None:
        page = self.page("/", PHONE, touch=True)
        small: set[str] = set()
        for _, rig in self.rigs_to_see():
            for place in PLACES:
                page.goto(f"{self.address}/rigs/{rig}/{place}")
                self.unfold(page)
                small |= {f"{place}: {evaluation}" for evaluation in page.evaluate(SMALL)}
                wide = page.evaluate("document.documentElement.scrollWidth")
                self.assertLessEqual(wide, PHONE[0], place)
        self.assertEqual(small, set())


if __name__ == "__main__":
    unittest.main()
