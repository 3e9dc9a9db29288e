"""Where an answer changes: each figure of some rigs is made smaller and larger. The whole figures
between which a status, a code or the form of a sentence comes are kept, and read by a person.
"""

import re
import unittest
from collections.abc import Iterator
from typing import Any

from pydantic_core import to_jsonable_python

from noxel.core.editing.paths import copied
from noxel.core.evaluate import evaluate
from noxel.core.plates import contradictions, evaluate_plates
from noxel.core.rig import RigFile, parse_rig
from noxel.errors import InputError, RigFileError
from tests.core.wording.test_golden_rooms import TODAY
from tests.kept import as_kept, texts_of
from tests.truth import At, Document, figures_of, put_at, rig_of

TIMES = (0.3, 0.6, 0.8, 0.9, 0.97, 1, 1.03, 1.1, 1.25, 1.6, 3)


def forms(answer: Any) -> set[str]:
    """Every text in an answer, without its figures."""
    return {re.sub(r"\d[\d,.]*", "#", text) for text in texts_of(to_jsonable_python(answer))}


def margins(rig: RigFile) -> set[str]:
    """Statuses, codes, and the forms of what is said first."""
    evaluation = evaluate(rig)
    plates = evaluate_plates(rig, evaluation, TODAY)
    alarms = (*evaluation.advisories, *contradictions(rig, TODAY))
    return {
        *(f"{check.id} {check.status}" for check in evaluation.checks),
        *(f"{check.id} {check.expected.outlook}" for check in evaluation.checks if check.expected),
        *(f"{name} by {expected.way}" for name, expected in (evaluation.expected or {}).items()),
        *(alarm.code for alarm in alarms),
        *(finding.code for finding in evaluation.findings),
        *(step.code for step in plates.ready),
        *forms([evaluation.headline, evaluation.rooms, plates.beside, plates.tires]),
    }


def changes(document: Document, path: At, figure: float) -> Iterator[str]:
    """Between which figures something comes, and what."""
    whole = path[-1] == "count"  # which takes nothing else
    grain = 1.0 if whole or abs(figure) >= 20 else 0.01

    def seen(at: float) -> set[str]:
        changed = copied(document)
        put_at(changed, path, round(at) if whole else round(at * grain, 2))
        try:
            return margins(parse_rig(changed))
        except (InputError, RigFileError):
            return {"refused"}

    points = sorted({round(figure * times / grain) for times in TIMES})
    looks = [seen(index) for index in points]
    for low, high, before, after in zip(points, points[1:], looks, looks[1:], strict=False):
        if before == after:
            continue
        while high - low > 1:
            middle = (low + high) // 2
            found = seen(middle)
            if found == before:
                low = middle
            else:
                high, after = middle, found
        more, less = sorted(after - before), sorted(before - after)
        yield f"  {low * grain:g} → {high * grain:g}: {' | '.join(more or ['no more', *less])}"


class GoldenThresholds(unittest.TestCase):
    maxDiff = 3000

    def kept(self, name: str, document: Document) -> None:
        lines: list[str] = []
        for path, figure in figures_of(document, ()):
            found = list(changes(document, path, figure))
            lines += [".".join(map(str, path)) + f" {figure:g}", *found] if found else []
        as_kept(self, f"thresholds/{name}", lines)

    def test_three_passes(self) -> None:
        self.kept("three-passes", rig_of("check--three-passes"))


if __name__ == "__main__":
    unittest.main()
