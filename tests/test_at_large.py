"""Every room and the yard, asked about rigs put together at random: each answers, and nothing
that a person reads is “None” or no number. What comes out for each rig is kept in two lines.
"""

import re
import unittest
from collections.abc import Iterator

from noxel.core.adjust import baseline_of, levers
from noxel.core.evaluate import evaluate
from noxel.core.match import how_much
from noxel.core.pack import evaluate_pack
from noxel.core.rig import RigFile, parse_rig
from noxel.errors import InputError
from tests import some
from tests.at_large import PRACTICE, ROOMS, SELDOM, answer, document_at_large
from tests.kept import as_kept, texts_of

NOTHING = re.compile(r"(?<!fill: )\b(None|nan|inf)\b")
KEPT = 17


def _facts(rig: RigFile) -> Iterator[str]:
    """The verdict, the margins that are known, what is expected, and what each room comes to."""
    evaluation = evaluate(rig)
    yield evaluation.verdict
    for check in evaluation.checks:
        if check.margin is not None:
            yield f"{check.id.rpartition('.')[2]} {check.margin:.3g} ±{check.plus_minus or 0:.2g}"
        elif check.expected:
            yield f"{check.id.rpartition('.')[2]} {check.expected.outlook}"
    yield from (advisory.code for advisory in evaluation.advisories)
    much = how_much(rig)
    yield f"tows {much.ceiling or 0:.4g}"
    yield from (f"{need.key} {need.value:.4g}" for need in much.needs)
    pack = evaluate_pack(rig)
    yield f"pack {pack.verdict} {pack.payload_used or 0:.4g}"
    try:
        base = baseline_of(rig)
        for lever in levers(base, base.checks(base.rig)):
            yield f"off {lever.check} {lever.excess:.3g}"
    except InputError as refused:
        yield str(refused)


class AtLarge(unittest.TestCase):
    maxDiff = 3000

    def ask(self, *rooms: str) -> None:
        for number in range(some(60)):
            for room in rooms:
                if number % SELDOM.get(room, 1) == 0:
                    for text in texts_of(answer(room, number)):
                        self.assertNotRegex(text, NOTHING, f"{room} {number}")

    def test_rooms(self) -> None:
        self.ask(*(room for room in ROOMS if room != "files"))

    def test_practice(self) -> None:
        self.ask(*PRACTICE)

    def test_what_comes_out(self) -> None:
        rigs = (parse_rig(document_at_large(number)) for number in range(KEPT))
        lines = [f"{number}: {'; '.join(_facts(rig))}" for number, rig in enumerate(rigs)]
        as_kept(self, "at-large", lines)


if __name__ == "__main__":
    unittest.main()
