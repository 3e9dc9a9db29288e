"""How much of the screen is left for what a person reads and types, place by place, at rest and
scrolled. Expected: the shares that the design names.
"""

import unittest

from noxel.demo import load_demo
from tests.browser.stage import OnStage

PLACES = ("plates", "pack", "weigh", "margins", "adjust", "log", "match")
SHARES = {
    (1280, 800): 0.85,
    (390, 844): 0.70,
    (844, 390): 0.85,
    (768, 1024): 0.85,
    (320, 568): 0.55,
    (320, 256): 0.50,
}
_LEFT = """() => {
  const main = document.querySelector("main#content"), room = main.getBoundingClientRect();
  main.scrollTo(0, 400);
  const pinned = [...main.querySelectorAll("*")]
    .filter((element) => getComputedStyle(element).position === "sticky")
    .map((element) => element.getBoundingClientRect())
    .filter((box) => box.width > room.width / 2)
    .reduce((most, box) => Math.max(most, box.height), 0);
  main.scrollTo(0, 0);
  return (room.height - pinned) / innerHeight;
}"""


class Room(OnStage):
    def test_most_of_the_screen_is_left(self) -> None:
        rig = load_demo(self.rigs)[-1]
        for size, least in SHARES.items():
            page = self.page("/", size)
            for place in PLACES:
                page.goto(f"{self.address}/rigs/{rig}/{place}")
                page.locator("#content h2, #content section").first.wait_for()
                with self.subTest(size=size, place=place):
                    self.assertGreaterEqual(page.evaluate(_LEFT), least)
            page.context.close()


if __name__ == "__main__":
    unittest.main()
