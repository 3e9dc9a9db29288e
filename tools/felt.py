"""How quick the page feels on a phone: first content, layout that shifts, typing, changing places.

Part of ``make bench``. The processor is slowed down four times and the network is a middling
wireless one, both by the browser itself.
"""

import statistics
from collections.abc import Callable

from playwright.sync_api import Browser, Page

SLOWER = 4
"""How many times slower than this machine's processor the phone's is."""

NETWORK = {
    "offline": False,
    "latency": 40,
    "downloadThroughput": 10e6 / 8,
    "uploadThroughput": 5e6 / 8,
}
"""A phone's network: latency. [ms], bytes a second both ways"""

_WATCH = """
  window.shifted = 0;
  new PerformanceObserver((list) => {
    for (const each of list.getEntries()) if (!each.hadRecentInput) window.shifted += each.value;
  }).observe({ type: "layout-shift", buffered: true });
"""
_PAINTED = 'performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? NaN'
_GOES = """async (name) => {
  const link = document.querySelector(`nav a[href^="/rigs/"][href*="/${name}"]`);
  await new Promise((done) => requestIdleCallback(done));  // nobody leaves before looking
  const title = () => document.querySelector("main h1")?.textContent;
  const [start, before] = [performance.now(), title()];
  link.click();
  const there = () => location.pathname.endsWith(`/${name}`) && title() && title() !== before;
  while (!there()) await new Promise(requestAnimationFrame);
  await new Promise(requestAnimationFrame);
  return performance.now() - start;
}"""
TYPING = """async (first) => {
  const input = document.querySelector('input[data-path="vehicle.ratings.gvwr"]');
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  const brace = () => document.querySelector('[data-brace="vehicle.gross"]').textContent;
  const spent = [];
  input.focus();
  for (let number = first; number < first + 30; number++) {
    const figure = String(number);
    const start = performance.now();
    set.call(input, figure);
    input.dispatchEvent(new Event("input", { bubbles: true }));
    const drawn = Number(figure).toLocaleString("en-US");
    while (!brace().includes(drawn)) await new Promise(requestAnimationFrame);
    spent.push(performance.now() - start);
  }
  return spent;
}"""
"""Type thirty figures into the GVWR; how long each takes to stand in the drawing. [ms]"""

Say = Callable[[str, str, str], None]


def _a_phone(browser: Browser, slower: int) -> Page:
    context = browser.new_context(
        viewport={"width": 390, "height": 844},
        device_scale_factor=2,
        is_mobile=True,
        has_touch=True,
        service_workers="block",
    )
    page = context.new_page()
    page.add_init_script(_WATCH)
    session = context.new_cdp_session(page)
    session.send("Network.enable")
    session.send("Network.emulateNetworkConditions", NETWORK)
    session.send("Emulation.setCPUThrottlingRate", {"rate": slower})
    return page


def first_look(browser: Browser, address: str, rig: str, say: Say) -> None:
    """First content and the layout's shift of four pages, each loaded anew."""
    for name, path in (
        ("first page", "/start"),
        ("Margins", f"/rigs/{rig}/margins"),
        ("Plates", f"/rigs/{rig}/plates"),
        ("Weigh", f"/rigs/{rig}/weigh"),
    ):
        painted, shifted = [], []
        for _ in range(5):
            page = _a_phone(browser, SLOWER)
            page.goto(address + path)
            page.get_by_role("heading", level=1).first.wait_for(state="attached")
            page.wait_for_load_state("load")
            painted.append(float(page.evaluate(_PAINTED)))
            page.mouse.wheel(0, 600)
            page.evaluate("new Promise((done) => setTimeout(done, 400))")
            shifted.append(float(page.evaluate("window.shifted")))
            page.context.close()
        say(
            f"{name} on a phone: first content, layout shift",
            f"{statistics.median(painted):.0f} ms, {statistics.median(shifted):.2f}",
            "limit 1000 ms, 0.10",
        )


def typing_and_going(browser: Browser, address: str, rig: str, say: Say) -> None:
    """A keystroke to its redrawn answer, and one place to the next, at both speeds."""
    for slower, keys, goes in ((1, "", "limit 200 ms"), (SLOWER, "limit 300 ms", "")):
        page = _a_phone(browser, slower)
        page.goto(f"{address}/rigs/{rig}/plates")
        page.wait_for_selector('input[data-path="vehicle.ratings.gvwr"]', state="attached")
        page.wait_for_selector('[data-brace="vehicle.gross"]')
        spent = page.evaluate(TYPING, 7300 + slower * 30)
        say(
            f"typing to redrawn answer, phone at {slower} ×",
            f"{statistics.median(spent):.0f} ms",
            keys,
        )
        places = ("weigh", "margins", "pack", "adjust", "log", "match", "plates")
        for place in places:  # each part of the script is fetched once
            page.evaluate(_GOES, place)
        gone = [float(page.evaluate(_GOES, place)) for place in places * 2]
        say(
            f"one place to the next, phone at {slower} ×",
            f"{statistics.median(gone):.0f} ms",
            goes,
        )
        page.context.close()
