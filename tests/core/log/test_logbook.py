"""The log and comparisons. Expected: differences by hand from the tickets, root sums of squares of
their ±.
"""

import copy
import math
import unittest
from typing import Any

from noxel.core.log import (
    Comparison,
    Recorded,
    WeighInRef,
    chart_of,
    compare_weigh_ins,
    facts_of,
    line_of,
    merge_weigh_ins,
    words_of,
)
from noxel.core.rig import parse_rig
from noxel.errors import InputError
from tests.truth import CASES, case, rig_of


class TheLog(unittest.TestCase):
    def setUp(self) -> None:
        # graduation 20 lb: each reading ± 2·20/√12 = 11.5
        self.document = rig_of("check--three-passes")
        first = self.document["weigh_ins"][0]
        second: dict[str, Any] = copy.deepcopy(first)
        second |= {"date": "2026-09-01", "place": "Alder Bend"}
        second["passes"][0]["readings"]["rear"] += 60
        second["passes"][0]["readings"]["trailer"] += 10
        self.document["weigh_ins"] = [first, second]

    def test_every_worked_case_has_its_verdict_in_the_log(self) -> None:
        for path in sorted(CASES.glob("check--*.json")):
            worked = case(path.stem)
            rig, last = parse_rig(worked["file"]), len(worked["file"].get("weigh_ins", ()))
            number = worked.get("weigh_in", last)
            if number:
                with self.subTest(path.stem):
                    facts = facts_of(rig, number)
                    self.assertEqual(facts.verdict, worked["expect"]["verdict"])

    def test_changes_are_called_out_only_beyond_the_scales_error(self) -> None:
        rig = parse_rig(self.document)
        run = [
            Recorded(number, facts_of(rig, number))
            for number, weigh_in in enumerate(rig.weigh_ins, 1)
        ]
        text = " ".join(line_of(rig, run[1], run[0].facts).changed)
        self.assertIn("Rear axle, hitched +60 lb", text)  # beyond √2 · 13.7 = 19.4
        self.assertNotIn("Trailer axles", text)  # 10 is not
        self.assertEqual(line_of(rig, run[0], None).changed, [])
        chart = chart_of(rig, run, 2)
        rear = next(series for series in chart.series if series.key == "rear_hitched")
        self.assertEqual(
            ([round(value or 0) for value in rear.values], chart.dates),
            ([3680, 3740], ["2026-05-02", "2026-09-01"]),
        )
        # its scale within 0.1 %
        self.assertAlmostEqual(rear.plus_minus[0] or 0, 2 * math.hypot(20 / math.sqrt(12), 3.68))
        self.assertEqual((rear.limit, rear.over), (3600, [True, True]))
        # 2,580 of 2,600
        self.assertEqual(
            next(series for series in chart.series if series.key == "front_hitched").over,
            [False, False],
        )

    def test_what_makes_two_weigh_ins_the_same(self) -> None:
        """Day, place and every reading to a gram; a pass that says nothing of bars has none."""
        document = rig_of("check--three-passes")
        document["hitch"]["weight_distribution"] = False
        own = document["weigh_ins"][0] | {"place": "Alder Bend"}
        own["passes"] = [own["passes"][1] | {"spring_bars": "none"}, own["passes"][2]]
        document["weigh_ins"] = [own]
        for change, same in (
            ({}, 1),
            ({"front": "2440.0002 lb"}, 1),  # 0.1 g more
            ({"front": "2440.003 lb"}, 0),  # 1.4 g more
        ):
            fresh = copy.deepcopy(own)
            del fresh["passes"][0]["spring_bars"]
            self.assertEqual(own["passes"][0]["readings"]["front"], 2440)
            fresh["passes"][0]["readings"] |= change
            self.assertEqual(merge_weigh_ins(document, [fresh])[1], same, change)
        for other in ({"place": "Tern Island"}, {"date": "2026-05-03"}):
            self.assertEqual(merge_weigh_ins(document, [own | other])[1], 0, other)

    def test_found_by_what_was_written(self) -> None:
        found = words_of(
            {
                "date": "2026-09-01",
                "place": "Alder Bend",
                "tags": ["Bars Tried"],
                "decided": "Move the BATTERIES",
                "passes": [{"config": "hitched", "aboard": "both of us"}, {"note": None}],
            }
        )
        for word in ("2026-09", "alder", "bars tried", "batteries", "both"):
            self.assertIn(word, found)
        self.assertNotIn("hitched", found)

    def compared(self, numbers: list[int]) -> Comparison:
        rig = parse_rig(self.document)
        return compare_weigh_ins([WeighInRef(rig, number, number) for number in numbers])

    def test_closure_and_another_rig(self) -> None:
        second = self.document["weigh_ins"][1]["passes"][0]["readings"]
        second["trailer"] -= (
            60  # what the rear axle gained, +60, now left the trailer's axles: +10 - 60 there
        )
        compared = self.compared([1, 2])
        # √(6 · 11.5² + 2 · 27.2²)
        self.assertIn("agrees with the first within 10 lb (± 48 lb)", compared.closure[0])
        second["trailer"] += 400
        self.assertIn(
            "is 410 lb (± 48 lb) more than in the first", self.compared([1, 2]).closure[0]
        )
        one, other = (
            parse_rig(self.document | {"name": "A"}),
            parse_rig(rig_of("check--kilograms") | {"name": "B"}),
        )
        compared = compare_weigh_ins([WeighInRef(one, 1, 1), WeighInRef(other, 1, 1)])
        self.assertTrue(compared.titles[1].startswith("B: "))
        gross = next(row for row in compared.rows if row.key == "combination_gross")
        kg = sum(mass.kg for mass in other.weigh_ins[0].passes[0].readings.values())
        self.assertAlmostEqual(gross.values[1] or 0, kg / 0.45359237)  # in the first one's unit
        self.assertTrue(any(line.startswith("Not the same") for line in compared.warnings))

    def test_compared_and_not_alike(self) -> None:
        compared = self.compared([1, 2])
        rows = {row.key: row for row in compared.rows}
        self.assertAlmostEqual(rows["rear_hitched"].differences[1] or 0, 60)
        self.assertEqual(
            (rows["rear_hitched"].real, rows["trailer_axles"].real), ([False, True], [False, False])
        )
        self.assertEqual([line for line in compared.warnings if "same place" not in line], [])
        other = self.document["weigh_ins"][1]
        other["scale"]["resolution"] = 50
        other["passes"][-1]["readings"]["rear"] += 200
        other["passes"][0]["fuel"] = "half"
        warnings = " ".join(self.compared([1, 2]).warnings)
        for cause in (
            "Not the same scale",
            "Fuel is noted differently",
            "The vehicle alone differs by 200 lb",
        ):
            self.assertIn(cause, warnings)
        for wrong in ([1], [1, 1], [1, 3], [1, 2, 3, 4, 5]):
            with self.assertRaises(InputError):
                self.compared(wrong)
