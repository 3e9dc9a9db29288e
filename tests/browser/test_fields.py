"""Every field of every place writes what was typed to the path that it shows, and nothing else.

Expected: for each field another figure than was there, read from the database; all else as it was.
Which path belongs to which label is kept as text and was read through by a person.
"""

from collections.abc import Iterator
from typing import Any

from playwright.sync_api import expect

from noxel.core.editing import Document, PathParts, value_at
from noxel.core.editing.paths import kind_of
from noxel.core.rig import read_path
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
  .map((field) => [(field.closest("fieldset, section")?.querySelector("legend, h2, h3, summary")?.textContent ?? "")
    + " · " + [...field.labels].map((label) => label.textContent).join(", "), field.dataset.path])"""
"""What each field is called, and the path that it shows."""
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


class Fields(OnStage):
    def type_into_each(self, rig: str, place: str, fewest: int) -> None:
        page = self.page(f"/rigs/{rig}/{place}")
        fields = page.locator("main input[data-path]")
        expect(fields.first).to_be_attached()
        page.evaluate(_OPEN)
        named = page.evaluate(_NAMED)
        paths = sorted({path for _, path in named})
        same_text(self, f"fields/{place}", "\n".join(f"{name} → {path}" for name, path in named))
        before = self.rigs.open(rig).document
        expected = dict(_figures(before))
        for path in paths:
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
        observatory = load_demo(self.rigs)[-1]
        for place, fewest in (("plates", 120), ("pack", 80), ("weigh", 30)):
            with self.subTest(place=place):
                self.type_into_each(observatory, place, fewest)
