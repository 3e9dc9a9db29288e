"""Where an answer changes: each figure of some rigs is made smaller and larger. The whole figures
between which a status, a code or the form of a sentence comes are kept, and read by a person.
"""

import copy
import re
import unittest
from collections.abc import Callable, Iterator
from typing import Any

from pydantic_core import to_jsonable_python

from noxel.core.adjust import bar_curve, baseline_of, levers
from noxel.core.editing.paths import copied
from noxel.core.evaluate import evaluate
from noxel.core.match import how_much
from noxel.core.pack import evaluate_pack
from noxel.core.plates import contradictions, evaluate_plates
from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.errors import InputError, RigFileError
from tests import quick
from tests.core.wording.test_golden_rooms import ROOMS, TODAY, household
from tests.kept import as_kept, texts_of
from tests.truth import At, Document, figures_of, put_at, rig_of

Look = Callable[[RigFile], set[str]]
TIMES = (0.3, 0.6, 0.8, 0.9, 0.97, 1, 1.03, 1.1, 1.25, 1.6, 3)


def forms(answer: Any) -> set[str]:
    """Every text in an answer, without its figures."""
    return {re.sub(r"\d[\d,.]*", "#", text) for text in texts_of(to_jsonable_python(answer))}


def pack(rig: RigFile) -> set[str]:
    """The forms of all that Pack says."""
    return forms(evaluate_pack(rig))


def later(rig: RigFile) -> set[str]:
    """The forms of what the log says, how much may be towed, and what each lever does alone."""
    base = baseline_of(rig)
    rows = base.checks(base.rig)
    alone = [how_much(rig), levers(base, rows), bar_curve(base, rows)]
    return forms([ROOMS["log"](rig), *alone])


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


def changes(document: Document, path: At, figure: float, look: Look) -> Iterator[str]:
    """Between which figures something comes, and what."""
    whole = path[-1] == "count"  # which takes nothing else
    grain = 1.0 if whole or abs(figure) >= 20 else 0.01

    def seen(at: float) -> set[str]:
        changed = copied(document)
        put_at(changed, path, round(at) if whole else round(at * grain, 2))
        try:
            return look(parse_rig(changed))
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

    def kept(self, name: str, document: Document, look: Look = margins) -> None:
        lines: list[str] = []
        for path, figure in figures_of(document, ()):
            found = list(changes(document, path, figure, look))
            lines += [".".join(map(str, path)) + f" {figure:g}", *found] if found else []
        as_kept(self, f"thresholds/{name}", lines)

    def test_three_passes(self) -> None:
        self.kept("three-passes", rig_of("check--three-passes"))

    @unittest.skipIf(quick, "one rig is a tenth")
    def test_a_pin(self) -> None:
        self.kept("fifth-wheel", rig_of("check--fifth-wheel"))

    @unittest.skipIf(quick, "one rig is a tenth")
    def test_labels_hitch_and_rules(self) -> None:
        """The crowded rig, of which the last weigh-in and the first item are enough."""
        document = dump_rig(household()["crowded"])
        document["weigh_ins"], document["loads"] = document["weigh_ins"][-1:], document["loads"][:1]
        del document["weigh_ins"][0]["added_since"]  # what it brings is estimated apart
        self.kept("crowded", document)

    @unittest.skipIf(quick, "one rig is a tenth")
    def test_pack(self) -> None:
        self.kept("pack", rig_of("predict--packed"), pack)

    @unittest.skipIf(quick, "one rig is a tenth")
    def test_log_levers_and_how_much(self) -> None:
        document = rig_of("check--three-passes")
        now = document["weigh_ins"][0]
        document["weigh_ins"] = [now, copy.deepcopy(now) | {"date": "2026-11-01"}]
        self.kept("later", document, later)


if __name__ == "__main__":
    unittest.main()
