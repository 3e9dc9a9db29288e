"""Takes the pictures in docs/screenshots from the demo data: ``make shots``."""

import random
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import FilePayload, Page

from noxel.demo import open_demo
from noxel.store.rigs import Rigs
from tools.labels import Label
from tools.photos import photograph
from tools.stage import a_browser, a_folder, serving

FOLDER = Path(__file__).parent.parent / "docs/screenshots"
WIDE, NARROW = (1280, 800), (390, 844)


def _rear(page: Page) -> None:
    page.locator('input[data-path="weigh_ins[1].passes[0].readings.rear"]').focus()


def _proof(page: Page) -> None:
    page.get_by_role("button", name="Connect the simulator").click()
    page.get_by_role("button", name="Drive on for pass 1").click()
    page.wait_for_selector("[data-channel=trailer][data-stable=true]")
    page.evaluate("document.querySelector('main').scrollTo(0, 640)")


def _found(page: Page) -> None:
    page.wait_for_selector("[data-proposal]")


def _pairs(page: Page) -> None:
    page.wait_for_selector("[data-pair]")


def _door(page: Page) -> None:
    page.get_by_role("button", name="Can it tow that?").click()


def _on_the_platforms(page: Page) -> None:
    page.get_by_role("button", name="Begin").click()
    page.get_by_role("button", name="Ready to drive on").click()
    page.get_by_text("The voice will ask").wait_for()


def _slip(page: Page) -> None:
    page.get_by_label("Your answer").fill(page.locator("[data-ticket] dd").nth(2).inner_text())
    page.get_by_role("button", name="Answer").click()
    page.get_by_text("This slip has a name").wait_for()


def _uncoupled_at_once(page: Page) -> None:
    page.locator("[data-act=uncouple]").click()
    page.get_by_role("alert").wait_for()


def _read(page: Page) -> None:
    rows = [
        [(0.05, "MFD BY WANDERER TRUCK WORKS"), (0.7, "DATE: 04/24")],
        [(0.05, "GVWR:"), (0.3, "7000 LB (3175 KG)")],
        [(0.05, "FRONT GAWR:"), (0.3, "3650 LB (1656 KG)"), (0.66, "WITH 265/70R17")],
        [(0.05, "REAR GAWR:"), (0.3, "4025 LB (1826 KG)"), (0.66, "WITH 265/70R17")],
        [(0.05, "THIS VEHICLE CONFORMS TO ALL APPLICABLE STANDARDS")],
    ]
    picture = photograph(Label(rows, {}), "perspective", random.Random(4))[0]
    box = page.locator("[data-photos='certification label'] input").first
    box.set_input_files(FilePayload(name="p.jpg", mimeType="image/jpeg", buffer=picture))
    page.locator("[data-read]").first.wait_for(timeout=90_000)


def _nothing(_page: Page) -> None:
    return


SHOTS: tuple[tuple[str, str, str, tuple[int, int], str, Callable[[Page], None]], ...] = (
    ("start-390x844", "Juniper", "/start", NARROW, "day", _door),
    ("margins-1280x800", "Juniper", "margins", WIDE, "day", _nothing),
    ("margins-390x844", "Juniper", "margins", NARROW, "day", _nothing),
    ("margins-fifth-wheel-night-1280x800", "Marl", "margins", WIDE, "night", _nothing),
    ("margins-kilograms-1280x800", "Fen", "margins", WIDE, "day", _nothing),
    ("plates-1280x800", "Juniper", "plates", WIDE, "day", _nothing),
    ("plates-390x844", "Juniper", "plates", NARROW, "day", _nothing),
    ("garage-1280x800", "Juniper", "/garage", WIDE, "day", _nothing),
    ("pack-1280x800", "Juniper", "pack", WIDE, "day", _nothing),
    ("adjust-1280x800", "Juniper", "adjust", WIDE, "day", _found),
    ("log-1280x800", "Juniper", "log", WIDE, "day", _nothing),
    ("read-390x844", "Juniper", "plates", NARROW, "day", _read),
    ("match-1280x800", "Juniper", "match", WIDE, "day", _pairs),
    ("weigh-1280x800", "Juniper", "weigh", WIDE, "day", _nothing),
    ("weigh-proof-1280x800", "Juniper", "weigh", WIDE, "day", _proof),
    ("weigh-390x844", "Juniper", "weigh", NARROW, "day", _rear),
    ("visit-390x844", "Juniper", "visit", NARROW, "day", _on_the_platforms),
    ("practice-1280x800", "Juniper", "/practice/lessons/trailer?seed=7", WIDE, "day", _slip),
    (
        "practice-390x844",
        "Juniper",
        "/practice/lessons/two-passes?seed=7",
        NARROW,
        "day",
        _uncoupled_at_once,
    ),
)


def main() -> None:
    """Take them all."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with a_folder() as folder, a_browser() as browser:
        database = open_demo(folder / "demo.db")
        ids = {rig.vehicle: rig.id for rig in Rigs(database).summaries()}
        with serving(database) as address:
            for name, vehicle, place, (width, height), theme, act in SHOTS:
                context = browser.new_context(
                    viewport={"width": width, "height": height},
                    color_scheme="dark" if theme == "night" else "light",
                    has_touch=width == NARROW[0],
                    is_mobile=width == NARROW[0],
                )
                page = context.new_page()
                page.goto(
                    address + place
                    if place.startswith("/")
                    else f"{address}/rigs/{ids[vehicle]}/{place}"
                )
                page.wait_for_selector(
                    "article"
                    if place in ("/garage", "log")
                    else "main h1"
                    if place in ("/start", "visit")
                    else "main svg:not(.shrink-0)"
                )
                # polling would need eval, which the page's policy forbids
                page.evaluate("document.fonts.ready.then(() => true)")
                act(page)
                page.screenshot(path=FOLDER / f"{name}.png")
                page.goto("about:blank")  # says that it was left
                context.close()
                print(f"docs/screenshots/{name}.png")
        database.close()


if __name__ == "__main__":
    main()
