"""How far it is from nothing to an answer on a phone: taps, fields, keys and scrolling.

Part of ``make bench``. A walk does what its person would do: it taps what leads on, types what is
on the papers, and scrolls only as far as it must.
"""

import random
import re
import tempfile
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from playwright.sync_api import FilePayload, Locator, Page, ViewportSize, expect

from noxel.store.database import Database
from tools.labels import MONO, Label
from tools.photos import photograph
from tools.stage import a_browser, serving

PHONE: ViewportSize = {"width": 390, "height": 844}
_SCROLLED = """() => {
  let all = window.scrollY;
  for (const each of document.querySelectorAll("main, [class*=overflow-y-auto]"))
    all += each.scrollTop;
  return all;
}"""
USEFUL = re.compile(r"\d[\d,]* (lb|kg)")
"""An answer that says a mass is one to do something with."""


@dataclass
class Walk:
    """One way through the page, counted."""

    page: Page
    taps: int = 0
    fields: int = 0
    keys: int = 0
    scrolled: float = 0.0
    useful: tuple[int, int] | None = None

    def _reach(self, what: Locator) -> None:
        expect(what).to_be_visible()
        before = float(self.page.evaluate(_SCROLLED))
        what.scroll_into_view_if_needed()
        self.scrolled += abs(float(self.page.evaluate(_SCROLLED)) - before)

    def tap(self, what: Locator) -> None:
        """Tap something, wherever it is."""
        self._reach(what)
        what.click()
        self.taps += 1

    def button(self, name: str) -> None:
        """Tap a button or a link by its words."""
        words = re.compile(name)
        self.tap(
            self.page.get_by_role("button", name=words)
            .or_(self.page.get_by_role("link", name=words))
            .first
        )

    def type(self, figures: Sequence[tuple[str, str]]) -> None:
        """Type figures into their fields: a field is tapped where Enter does not lead to it."""
        for path, text in figures:
            box = self.page.locator(f'input[data-path="{path}"]').first
            self._reach(box)
            if not box.evaluate("each => each === document.activeElement"):
                box.click()
                self.taps += 1
            box.fill(text)
            self.fields += 1
            self.keys += len(text) + 1
            box.press("Enter")
            self.look()

    def photograph(self, name: str, picture: bytes) -> None:
        """Photograph something, and take what was read: a tap each."""
        label = self.page.locator("label", has_text=name).filter(visible=True).first
        self._reach(label)
        box = label.locator("input")
        box.set_input_files(FilePayload(name="p.jpg", mimeType="image/jpeg", buffer=picture))
        take = self.page.get_by_role("button", name=re.compile("^Take th"))
        expect(take).to_be_enabled(timeout=90_000)
        self.taps += 2
        take.click()
        expect(self.page.get_by_role("dialog")).to_have_count(0)
        self.settle()

    def settle(self) -> None:
        """Wait for the answer to what was typed last."""
        expect(self.page.get_by_text("saved", exact=True)).to_be_visible()
        self.look()

    def look(self) -> None:
        """Note how far it was to the first useful sentence."""
        bar = self.page.locator("[data-part=verdict-bar]")
        expect(bar.and_(self.page.locator("[data-settled=false]"))).to_have_count(0)
        if self.useful is None and bar.count() and USEFUL.search(bar.inner_text()):
            self.useful = (self.fields, self.taps)


Figures = Sequence[tuple[str, str]]
DOOR = ("GVWR:", "FRONT GAWR:", "REAR GAWR:")


@dataclass(frozen=True)
class Drawn:
    """A ticket or a label to be photographed: its words, and a figure beside each."""

    figures: tuple[str, ...]
    words: tuple[str, ...]

    def ticket(self) -> bytes:
        """A weigh ticket."""
        return self._photographed([[(0.2, "WEIGHT TICKET")]], MONO)

    def label(self) -> bytes:
        """A label."""
        return self._photographed([[(0.05, "MFD BY WANDERER TRUCK WORKS")]], MONO)

    def _photographed(self, rows: list[list[tuple[float, str]]], font: str) -> bytes:
        lines = zip(self.words, self.figures, strict=False)
        rows += [[(0.05, word), (0.6, figure)] for word, figure in lines]
        return photograph(Label(rows, {}, font=font), "plain", random.Random(1))[0]


def tickets_and_labels(
    walk: Walk, hitched: Figures, alone: Figures, labels: Sequence[Figures]
) -> None:
    """From the start of a weigh-in to the answer: a ticket hitched, one of the vehicle alone, then
    one label after the other.
    """
    walk.tap(walk.page.locator("[data-shape=axles]"))
    for number, ticket in enumerate((hitched, alone)):
        if number:
            walk.button("Next pass")
        path = f"weigh_ins[0].passes[{number}].readings"
        walk.type([(f"{path}.{name}", text) for name, text in ticket])
    walk.button("Now the labels")
    for label in labels:
        walk.type(label)
    walk.button("See it all")


def two_tickets(walk: Walk) -> None:
    """Two tickets of a truck and a trailer on a ball, and their labels."""
    walk.button("I have weigh tickets")
    walk.button("trailer on a ball")
    of = "vehicle.ratings"
    tickets_and_labels(
        walk,
        (("front", "3120"), ("rear", "3940"), ("trailer", "5460")),
        (("front", "3320"), ("rear", "3060")),
        (
            ((f"{of}.gvwr", "7200"), (f"{of}.gawr_front", "3750"), (f"{of}.gawr_rear", "4150")),
            (
                ("trailer.ratings.gvwr", "6600"),
                ("trailer.ratings.gawr[0]", "3200"),
                ("trailer.ratings.gawr[1]", "3200"),
            ),
            ((f"{of}.gcwr", "14100"), (f"{of}.tow_rating", "8300"), (f"{of}.tongue_rating", "830")),
            (
                ("hitch.parts[0].trailer", "9000"),
                ("hitch.parts[0].tongue", "900"),
                ("hitch.parts[2].trailer", "8000"),
            ),
        ),
    )


def by_photograph(walk: Walk) -> None:
    """Two tickets and two labels, each photographed and read: typed is what no label says."""
    walk.button("I have weigh tickets")
    walk.button("trailer on a ball")
    walk.tap(walk.page.locator("[data-shape=axles]"))
    truck = Drawn(("3,120", "3,940", "5,460"), ("STEER AXLE", "DRIVE AXLE", "TRAILER AXLE"))
    walk.photograph("read it from a photo", truck.ticket())
    walk.button("Next pass")
    walk.photograph("read it from a photo", Drawn(("3,320", "3,060"), truck.words).ticket())
    walk.button("Now the labels")
    walk.photograph("from a photo", Drawn(("7200 LB", "3750 LB", "4150 LB"), DOOR).label())
    trailer = ("GVWR", "GAWR FRONT AXLE", "GAWR REAR AXLE", "TYPE:")
    walk.photograph(
        "from a photo", Drawn(("6600 LB", "3200 LB", "3200 LB", "TRAILER"), trailer).label()
    )
    walk.button("See it all")


def brochures(walk: Walk) -> None:
    """A truck's labels and a trailer's brochure: can it tow that?"""
    walk.button("Can it tow that?")
    walk.button("trailer on a ball")
    walk.type([("vehicle.ratings.gvwr", "7000")])
    walk.button("^Next$")
    walk.type([("vehicle.ratings.payload", "1500")])
    walk.button("I don’t have this")
    people = walk.page.get_by_label("All of it")
    expect(people).to_be_visible()
    people.fill("200+170+60")
    people.press("Enter")
    walk.fields, walk.keys = walk.fields + 1, walk.keys + 11
    walk.type([("trailer.ratings.gvwr", "9000")])
    walk.settle()
    walk.button("See it all")


def motorhome(walk: Walk) -> None:
    """One ticket of a motorhome that tows nothing, and its labels."""
    walk.button("I have weigh tickets")
    walk.button("motorhome")
    walk.tap(walk.page.locator("[data-shape=axles]"))
    path = "weigh_ins[0].passes[0].readings"
    walk.type(((f"{path}.front", "6980"), (f"{path}.rear", "14220")))
    walk.button("Now the labels")
    of = "vehicle.ratings"
    walk.type(((f"{of}.gvwr", "22000"), (f"{of}.gawr_front", "8000"), (f"{of}.gawr_rear", "14500")))
    walk.settle()
    walk.button("See it all")


def fifth_wheel(walk: Walk) -> None:
    """Two tickets of a truck and a fifth wheel in kilograms, and their labels."""
    walk.button("I have weigh tickets")
    walk.tap(walk.page.get_by_role("radio", name="kg"))
    walk.button("fifth wheel")
    of = "vehicle.ratings"
    tickets_and_labels(
        walk,
        (("front", "1980"), ("rear", "2760"), ("trailer", "4210")),
        (("front", "1950"), ("rear", "1640")),
        (
            ((f"{of}.gvwr", "4850"), (f"{of}.gawr_front", "2450"), (f"{of}.gawr_rear", "2950")),
            (
                ("trailer.ratings.gvwr", "5750"),
                ("trailer.ratings.gawr[0]", "2350"),
                ("trailer.ratings.gawr[1]", "2350"),
            ),
            (
                (f"{of}.gcwr", "10400"),
                (f"{of}.tow_rating", "6350"),
                (f"{of}.tongue_rating", "1450"),
            ),
            (("hitch.parts[0].trailer", "7900"), ("hitch.parts[0].tongue", "1950")),
        ),
    )


def one_total(walk: Walk) -> None:
    """Somebody drove over a scale that prints one figure for truck and trailer, and has looked at
    the door label.
    """
    walk.button("I have weigh tickets")
    walk.button("trailer on a ball")
    walk.tap(walk.page.locator("[data-shape=gross]"))
    walk.type([("weigh_ins[0].passes[0].readings.gross", "12540")])
    walk.settle()
    walk.button("I have no more tickets")
    of = "vehicle.ratings"
    walk.type(((f"{of}.gvwr", "7200"), (f"{of}.gawr_front", "3750"), (f"{of}.gawr_rear", "4150")))
    walk.settle()
    walk.button("See it all")


WALKS: dict[str, Callable[[Walk], None]] = {
    "two tickets and their labels": two_tickets,
    "labels and a brochure": brochures,
    "a motorhome alone": motorhome,
    "a fifth wheel in kilograms": fifth_wheel,
    "one total and a door label": one_total,
    "two tickets and two labels by photograph": by_photograph,
}


def walk_all(say: Callable[[str, str, str], None]) -> None:
    """Walk every walk, each from an empty folder, and say what it took."""
    with a_browser() as browser, tempfile.TemporaryDirectory() as folder:
        for number, (name, walk) in enumerate(WALKS.items()):
            with serving(Database(Path(folder) / f"{number}.db")) as address:
                page = browser.new_page(viewport=PHONE)
                page.goto(address)
                made = Walk(page)
                walk(made)
                page.close()
            took = (
                f"{made.taps} taps, {made.fields} fields, {made.keys} keys, {made.scrolled:.0f} px"
            )
            limit = 14 if walk is by_photograph else 12
            say(f"{name}, on a phone", took, f"limit {limit} taps, 17 fields, 900 px")
            if made.useful:
                fields, taps = made.useful
                say("  to the first mass that is said", f"{fields} fields, {taps} taps", "")


if __name__ == "__main__":
    walk_all(lambda what, found, limit: print(f"{what:<44} {found}   {limit}"))
