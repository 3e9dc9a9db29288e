"""Reminders. Expected: days counted on a calendar by hand; sums of the items listed."""

import datetime
import unittest
from typing import Any

from noxel.core.log import changed_since, months_after, reminders
from noxel.core.rig import parse_rig
from noxel.core.weigh import new_weigh_in
from tests.truth import rig_of

DAY = datetime.date


class WhatComesRound(unittest.TestCase):
    def setUp(self) -> None:
        self.document = rig_of("check--three-passes")  # weighed on 2026-05-02, lb

    def found(self, today: DAY, **wanted: Any) -> dict[str, tuple[DAY | None, str]]:
        made = reminders(parse_rig({**self.document, "reminders": wanted}), today)
        return {entry.key: (entry.due, entry.state) for entry in made}

    def test_months_end_where_the_month_does(self) -> None:
        self.assertEqual(months_after(DAY(2026, 8, 31), 6), DAY(2027, 2, 28))
        self.assertEqual(months_after(DAY(2027, 12, 31), 2), DAY(2028, 2, 29))
        self.assertEqual(
            self.found(DAY(2026, 11, 1), months=6), {"months": (DAY(2026, 11, 2), "coming")}
        )
        self.assertEqual(self.found(DAY(2026, 11, 2), months=6)["months"][1], "due")
        del self.document["weigh_ins"][0]["date"]
        self.assertEqual(
            self.found(DAY(2026, 11, 2), months=6), {"months": (DAY(2026, 11, 2), "due")}
        )

    def test_a_trip_is_weighed_for_within_the_fortnight(self) -> None:
        trips = [
            {"date": "2026-05-16", "name": "Tern Island"},
            {"date": "2026-06-01"},
            {"date": "2026-04-01"},
        ]
        made = self.found(DAY(2026, 5, 3), trips=trips)
        # weighed 14 days before
        self.assertEqual(made["trip 2026-05-16 Tern Island"], (DAY(2026, 5, 2), "done"))
        self.assertEqual(made["trip 2026-06-01 "], (DAY(2026, 5, 18), "coming"))
        self.assertEqual(len(made), 2)  # the third is over

    def test_what_came_aboard_since_counts_in_either_direction(self) -> None:
        self.document["loads"] = [
            {"on": "vehicle", "mass": 100, "quantity": 2},
            {"on": "trailer", "mass": "50 kg"},
        ]
        self.document["weigh_ins"] = [new_weigh_in(parse_rig(self.document), DAY(2026, 9, 1))]
        # 200 lb out of the vehicle, into the trailer
        self.document["loads"][0] |= {"on": "trailer"}
        self.document["loads"][1]["aboard"] = False  # 110.2 lb stay at home
        self.document["weigh_ins"][0]["added_since"] = [{"on": "vehicle", "mass": -30}]
        rig = parse_rig(self.document)
        expected = 200 + (200 - 110.231) + 30
        self.assertAlmostEqual(
            changed_since(rig, rig.weigh_ins[0]) / 0.45359237, expected, delta=0.1
        )
        self.assertEqual(
            self.found(DAY(2026, 10, 1), added=319)["added"], (DAY(2026, 10, 1), "due")
        )
        self.assertEqual(self.found(DAY(2026, 10, 1), added=321)["added"], (None, "coming"))

    def test_tires_by_their_date_code(self) -> None:
        # 2020's first Sunday was 5 January: week 10 began on 8 March
        self.document["trailer"]["tires"] = {"date_code": "1020"}
        self.assertEqual(
            self.found(DAY(2026, 3, 8), tire_years=6), {"tires trailer": (DAY(2026, 3, 8), "due")}
        )
