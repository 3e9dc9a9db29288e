"""What is said of every kind of rig in every set of terms, weighed, half weighed and only expected:
kept word for word.

The kept text was read through by a person. Whoever changes a sentence on purpose writes it anew
(``make kept``) and reads the difference.
"""

import re
import unittest
from collections.abc import Iterator

from noxel.core.evaluate import evaluate
from noxel.core.practice import Run, begin, do_act
from noxel.core.practice.rigs import RigKind
from noxel.core.practice.yard import seen_rig
from noxel.core.quantities import MassUnit
from noxel.core.rig import RigFile, TermSet
from tests.kept import same_text

WEIGH = ("on", "ask", "wait", "off")
LEAK = re.compile(r"\b(GVWR|GCWR|GAWR|CCC|tongue|curb|dry weight|tow rating)\b", re.IGNORECASE)
KINDS: tuple[RigKind, ...] = ("bars", "plain", "pin", "caravan", "motorhome")
PLACES: tuple[tuple[TermSet, MassUnit], ...] = (
    ("north_america", "lb"),
    ("australia", "kg"),
    ("europe", "kg"),
)


def rigs() -> Iterator[tuple[str, RigFile]]:
    """Every kind in every place: not weighed, one hitched pass, all passes; within, and over its
    rear axle or its trailer's rating.
    """
    for kind in KINDS:
        for terms, unit in PLACES:
            slack = ("chock", "slack", "unchock", *WEIGH) if kind == "bars" else ()
            for state, over, acts in (
                ("not weighed", "nothing", ()), ("one pass", "rear_axle", WEIGH),
                ("all passes", "nothing", (*WEIGH, *slack, "chock", "uncouple", *WEIGH)),
                ("all passes", "trailer", (*WEIGH, *slack, "chock", "uncouple", *WEIGH)),
            ):  # fmt: skip
                yard = begin(Run(kind, unit, terms, over, "golden"))  # type: ignore[arg-type]
                for act in acts:
                    yard = do_act(yard, act)
                yield f"{kind}, {terms}, {state}, over: {over}", seen_rig(yard)


def said() -> str:
    """All of it as one text."""
    blocks = []
    for name, rig in rigs():
        evaluation = evaluate(rig)
        lines = [
            f"# {name}: {evaluation.verdict}",
            " ".join(
                [evaluation.headline.lead, evaluation.headline.sentence, *evaluation.headline.rest]
            ),
        ]
        for check in evaluation.checks:
            lines.append(f"  {check.id} {check.status}: {check.sentence}")
            if check.settled_by:
                lines.append(f"    {check.settled_by}")
            if check.expected:
                lines.append(f"    {check.expected.outlook}: {check.expected.sentence}")
        lines += [
            f"  {advisory.level} {advisory.code}: {advisory.message}"
            for advisory in evaluation.advisories
        ]
        lines += [
            f"  open {question.what}: {question.low or 0:.0f} to {question.high or 0:.0f}; "
            f"{question.settled_by}"
            for question in evaluation.open
        ]
        blocks.append("\n".join(lines))
    return "\n\n".join(blocks) + "\n"


class Golden(unittest.TestCase):
    maxDiff = 4000

    def test_every_sentence_as_it_was_read(self) -> None:
        blocks = said().split("\n\n")
        for block in blocks:  # the words of one place do not leak into another's
            if not block.split(", ")[1].startswith("north"):
                spoken = re.sub(r"^ +\S+ \w+: ", "", block, flags=re.MULTILINE)
                self.assertIsNone(LEAK.search(spoken), block[:60])
        for place in ("north_america", "europe"):  # half weighed, the rear axle over
            same = [block for block in blocks if f", {place}, one pass" in block]
            same_text(self, f"sentences/{place}", "\n\n".join(same))
