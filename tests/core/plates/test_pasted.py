"""Labels and weigh messages as phones read them off photographs. Expected: read by hand from the
words of each.
"""

import unittest

from noxel.core.plates import part_of, read_pasted
from noxel.core.rig import parse_rig

AT = {"pass": "weigh_ins[0].passes[0]", "weigh_in": "weigh_ins[0]"}
V, T, P = "vehicle.ratings.", "trailer.ratings.", "weigh_ins[0].passes[0]."


class Pasted(unittest.TestCase):
    def read(self, text: str, unit: str = "lb", at: dict[str, str] = AT) -> dict[str, str]:
        rig = parse_rig(
            {
                "format": "noxel-rig",
                "version": 1,
                "units": {"mass": unit, "length": "in"},
                "name": "",
                "kind": "conventional",
                "vehicle": {},
                "hitch": {},
                "trailer": {"ratings": {"gawr": [1, 1]}},
            }
        )
        return {each.path: each.text for each in read_pasted(rig, text, None, at)}

    def test_labels(self) -> None:
        for text, unit, expected in (
            (
                "GVWR: 7000 LB (3175 KG)\nFRONT GAWR: 3650 LB (1656 KG) WITH 265/70R17\nREAR "
                "GAWR: 4,025 LB (1826 KG)",
                "lb",
                {V + "gvwr": "7000", V + "gawr_front": "3650", V + "gawr_rear": "4025"},
            ),
            ("GVWR: 7000 LB (3175 KG)", "kg", {V + "gvwr": "3175"}),
            (
                "GVWR 3175 KG GAWR FRONT 1656 KG REAR 1826 KG",
                "lb",
                {V + "gvwr": "3175 kg", V + "gawr_front": "1656 kg", V + "gawr_rear": "1826 kg"},
            ),
            (
                "SEATING CAPACITY TOTAL 5. The combined weight of occupants and cargo should "
                "never exceed 708 kg or 1562 lbs.",
                "lb",
                {V + "payload": "1562"},
            ),
            ("LOAD CARRYING CAPACITY REDUCED BY 52 LB", "lb", {V + "payload_reduction": "52"}),
            (
                "GVWR 3289 KG (7250 LB) GAWR (EACH AXLE) 1769 KG (3900 LB) TIRES ST205/75R14 "
                "TYPE: TRAILER",
                "lb",
                {T + "gvwr": "7250", T + "gawr[0]": "3900", T + "gawr[1]": "3900"},
            ),
            (
                "THE WEIGHT OF CARGO SHOULD NEVER EXCEED 590 kg or 1300 lbs. A FULL LOAD OF WATER "
                "EQUALS 150 kg",
                "lb",
                {T + "ccc": "1300"},
            ),
            (
                "UVW 5,310\nhitch weight 702",
                "lb",
                {"trailer.dry_weight": "5310", "trailer.dry_tongue": "702"},
            ),
            (
                "ATM 1950 kg TARE MASS 1480 kg",
                "kg",
                {T + "gvwr": "1950", "trailer.dry_weight": "1480"},
            ),
            ("nothing of the kind, 12 times", "lb", {}),
        ):
            with self.subTest(text):
                self.assertEqual(self.read(text, unit), expected)

    def test_weigh_messages_in_any_order(self) -> None:
        readings = {
            P + "readings.front": "3020",
            P + "readings.rear": "4040",
            P + "readings.trailer": "5880",
            P + "printed_gross": "12940",
        }
        for text in (
            "STEER AXLE 3020 lb DRIVE AXLE 4040 lb TRAILER AXLE 5880 lb GROSS 12940 lb",
            "gross: 12,940\ntrailer: 5,880\nfront: 3,020\nrear: 4,040\nre-weigh",
        ):
            self.assertEqual(self.read(text), readings)
        self.assertEqual(
            self.read("steer 3020 lb", at={**AT, "unit": "kg"}),
            {P + "readings.front": "3020 lb"},
            "a pass in kilograms",
        )
        for day, read in (
            ("2026-11-14", "2026-11-14"),
            ("11/14/2026", "2026-11-14"),
            ("14/11/2026", "2026-11-14"),
            ("4/4/2026", "2026-04-04"),
            ("3/4/2026", None),
            ("2026-02-30", None),
        ):
            self.assertEqual(self.read(f"steer 3020, {day}").get("weigh_ins[0].date"), read, day)
        self.assertEqual(part_of("steer 3020"), "pass")

    def test_a_figure_without_a_unit_says_so(self) -> None:
        rig = parse_rig(
            {
                "format": "noxel-rig",
                "version": 1,
                "units": {"mass": "lb", "length": "in"},
                "name": "",
                "kind": "motorhome",
                "vehicle": {},
            }
        )
        (one,) = read_pasted(rig, "GVWR 7000", None, {})
        self.assertEqual((one.text, one.unit_assumed, one.words), ("7000", True, "GVWR 7000"))
        (other,) = read_pasted(rig, "GVWR 7000 lb", None, {})
        self.assertFalse(other.unit_assumed)
        self.assertEqual(read_pasted(rig, "9" * 50_000, "vehicle", {}), [])
