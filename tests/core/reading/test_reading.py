"""Labels, tickets and messages as text, and as lines with places. Expected: read by hand from each;
a question mark stands where the reader has to look twice.
"""

import unittest
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from noxel.core.reading import ReadFigure, part_of, read_text
from noxel.core.rig import RigFile, parse_rig

AT = {"pass": "P", "weigh_in": "W"}


def a_rig(unit: str = "lb", terms: str = "north_america", axles: int = 2) -> RigFile:
    document: dict[str, Any] = {"format": "noxel-rig", "version": 1, "name": "", "terms": terms}
    document |= {"units": {"mass": unit, "length": "in"}, "kind": "conventional"}
    return parse_rig(
        document | {"vehicle": {}, "hitch": {}, "trailer": {"ratings": {"gawr": [1] * axles}}}
    )


def corpus() -> Iterator[tuple[str, RigFile, str, str, dict[str, str]]]:
    """Each text of the corpus: name, rig, part, text, and what stands where."""
    for block in (Path(__file__).parent / "corpus.txt").read_text().split("== ")[1:]:
        head, _, rest = block.partition("\n")
        name, _, where = head.partition(" | ")
        text, _, wanted = rest.partition("-- ")
        part, *lines = wanted.rstrip("\n").split("\n")
        expected = dict(line.split(" = ") for line in lines if line)
        unit, terms = where.split()
        yield name, a_rig(unit, terms), part, text, expected


def shown(figures: list[ReadFigure]) -> dict[str, str]:
    short = {"W.date": "D"}
    return {
        short.get(each.path, each.path): each.text + (" ?" if each.doubt else "")
        for each in figures
    }


class Corpus(unittest.TestCase):
    def test_every_text(self) -> None:
        for name, rig, part, text, expected in corpus():
            with self.subTest(name):
                given_part = None if not part.endswith("?") else part[:-1]
                if given_part is None:
                    self.assertEqual(part_of(text), part)
                self.assertEqual(shown(read_text(rig, text, given_part, AT)), expected)  # type: ignore[arg-type]
