"""Every field of every place writes what was typed to the path that it shows, and nothing else.

Expected: for each field another figure than was there, read from the database; all else as it was.
Which path belongs to which label is kept as text and was read through by a person.
"""

import re
from collections.abc import Iterator
from itertools import groupby
from typing import Any

from playwright.sync_api import expect

from noxel.core.editing import Document, PathParts, value_at
from noxel.core.editing.paths import kind_of
from noxel.core.rig import read_path, write_path
from noxel.demo import load_demo
from tests.browser.stage import OnStage, saving
from tests.kept import same_text

_TYPED = {"mass": 411, "length": 31, "pressure": 51, "volume": 12, "share": 0.05, "number": 2}
"""Where nothing stands yet: small enough for any rig."""
_TEXTS = {
    "kind": "receiver, coupler and mount",  # so that all fields of a hitch's part stay
    "load_index": "112",
    "placard_load_index": "110",
    "date_code": "2319",
    "date": "2026-11-02",
}
_PAIRED = ("policy", "tongue_share")
"""A text waits here until the other one is there."""
_TYPE = """([path, text]) => {
  const field = document.querySelector(`main input[data-path="${CSS.escape(path)}"]`);
  field.focus();
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(field, text);
  field.dispatchEvent(new Event("input", { bubbles: true }));
  field.blur();
}"""
"""As a person types, but all at once: there are some 250 fields."""
_NAMED = """() => [...document.querySelectorAll("main input[data-path]")]
  .filter((field) => field.checkVisibility())
  .map((field) => [
    field.closest("fieldset, section")?.querySelector("legend, h2, h3, summary")?.textContent ?? "",
    [...field.labels].map((label) => label.textContent).join(", "),
    field.dataset.path,
  ])"""
"""In which section each field is, what it is called, and the path that it shows."""
_OPEN = "document.querySelectorAll('main details').forEach((fold) => { fold.open = true; })"


def _figures(node: Any, path: PathParts = ()) -> Iterator[tuple[PathParts, Any]]:
    """Every figure of a document by its path, without how it was entered."""
    for key, value in node.items() if isinstance(node, dict) else enumerate(node):
        if isinstance(value, dict | list):
            if key != "entered":
                yield from _figures(value, (*path, key))
        else:
            yield (*path, key), value


def _another(document: Document, parts: PathParts) -> tuple[str, Any]:
    """What to type at a path, and what is stored then."""
    present, dimension = value_at(document, parts), kind_of(document, parts).dimension
    if dimension in ("text", "choice") and not isinstance(present, int | float):
        text = _TEXTS.get(str(parts[-1]), f"as typed at {len(parts)}")
        return text, text
    if not isinstance(present, int | float):
        figure: float = _TYPED[dimension]
    elif dimension == "number":
        figure = present + 2
    else:
        figure = round(present * 0.9, 4) if present < 1 else round(present * 1.02)
    return str(figure), figure


_CONTROLS = """async () => {
  document.querySelectorAll("main details").forEach((fold) => { fold.open = true; });
  await new Promise((done) => setTimeout(() => requestAnimationFrame(() => setTimeout(done))));
  const text = (node) =>
    node.getAttribute("aria-label") ?? (node.labels?.[0] ?? node).textContent;
  const names = (node) => [
    node.closest("fieldset, section, details")?.querySelector("legend, h2, h3, summary")
      ?.textContent,
    node.closest("[role=radiogroup]")?.getAttribute("aria-label"),
    text(node),
  ];
  window.controls = [...document.querySelectorAll("main button, main input[type=checkbox]")]
    .filter((node) => node.checkVisibility() && !node.disabled && !node.ariaHasPopup);
  return window.controls.map((node) => names(node).filter(Boolean).join(" · "));
}"""
"""What can be pressed or chosen, by its words."""
_PRESS = """(index) => new Promise((done) => {
  (window.controls[index] ?? document.querySelector("[aria-label^='Undo ']")).click();
  setTimeout(() => requestAnimationFrame(() => setTimeout(done)));
})"""
_NO_EFFECT = re.compile(
    r"What .* means$|where is it|^over:|^within:|Connect the simulator|^Before it rolls"
)
"""Words of these, or what they do, depend on the day, or nothing is stored by them."""


class Fields(OnStage):
    def observatory(self) -> str:
        """The demo's first rig, with two of its items."""
        rig = load_demo(self.rigs)[-1]
        self.rigs.change(rig, "two items", lambda rig: {**rig, "loads": rig["loads"][2:4]})
        return rig

    def press_each(self, rig: str, place: str) -> list[str]:
        """What each control does to what is stored, in words; each is undone."""
        page = self.page(f"/rigs/{rig}/{place}")
        expect(page.locator("main input[data-path]").first).to_be_attached()
        names: list[str] = []
        for _ in range(200):  # until nothing comes any more
            if names and all(page.evaluate(_CONTROLS) == names for _ in range(10)):
                break
            names = page.evaluate(_CONTROLS)
        before = dict(_figures(self.rigs.open(rig).document))
        effects, pressed = [], set()
        for index, name in enumerate(names):
            if name in pressed or _NO_EFFECT.search(name):
                continue
            pressed.add(name)
            if page.evaluate(_CONTROLS) != names:  # a panel or a dialog was opened
                page.goto(f"{self.address}/rigs/{rig}/{place}")
                expect(page.locator("main input[data-path]").first).to_be_attached()
                back = any(page.evaluate(_CONTROLS) == names for _ in range(300))
                self.assertTrue(back, f"not the same controls as before: {name}")
            page.evaluate(_PRESS, index)
            expect(saving(page)).to_have_text(re.compile("^saved$|not saved"))
            aside = page.locator("[data-aside]")
            if aside.count():
                effects.append(f"{name}: {aside.locator('p').inner_text()}")
                aside.get_by_role("button").last.click()  # discard it
                continue
            stored = self.rigs.open(rig)
            after = dict(_figures(stored.document))
            changes = [
                f"{write_path(path)} {before.get(path)} → {after.get(path)}"
                for path in sorted(before.keys() | after.keys(), key=str)
                if before.get(path) != after.get(path) and path[-1] != "id"
            ]
            if changes:
                more = f" and {len(changes) - 3} more" if len(changes) > 3 else ""
                effects.append(f"{name}: {'; '.join(changes[:3])}{more}")
                page.evaluate(_PRESS, None)
                expect(saving(page)).to_have_text("saved")
                again = dict(_figures(self.rigs.open(rig).document))
                left = dict(again.items() ^ before.items())
                self.assertEqual(left, {}, name)
        page.context.close()
        return effects

    def test_what_each_control_does(self) -> None:
        rig = self.observatory()
        for place in ("plates", "pack", "weigh"):
            with self.subTest(place=place):
                same_text(self, f"fields/{place}-controls", "\n".join(self.press_each(rig, place)))

    def type_into_each(self, rig: str, place: str, fewest: int) -> None:
        page = self.page(f"/rigs/{rig}/{place}")
        fields = page.locator("main input[data-path]")
        expect(fields.first).to_be_attached()
        page.evaluate(_OPEN)
        named = page.evaluate(_NAMED)
        paths = sorted({path for *_, path in named})
        sections = groupby(named, lambda field: field[0])
        lines = (
            f"{section}: {' · '.join(f'{name} → {path}' for _, name, path in fields)}"
            for section, fields in sections
        )
        same_text(self, f"fields/{place}", "\n".join(lines))
        before = self.rigs.open(rig).document
        expected = dict(_figures(before))
        for index, path in enumerate(paths):
            if index % 10 == 0:  # a slow machine keeps up
                expect(saving(page)).to_have_text("saved")
            parts = read_path(path)
            if parts[:-1] == _PAIRED:
                continue
            text, expected[parts] = _another(before, parts)
            page.evaluate(_TYPE, [path, text])
        expect(saving(page)).to_have_text("saved")
        self.assertGreaterEqual(len(paths), fewest)
        self.assertEqual(dict(_figures(self.rigs.open(rig).document)), expected)
        page.context.close()

    def test_in_every_place(self) -> None:
        observatory = self.observatory()
        for place, fewest in (("plates", 120), ("pack", 40), ("weigh", 30)):
            with self.subTest(place=place):
                self.type_into_each(observatory, place, fewest)
