"""Plates that contradict each other, terms, and labels that give both units. Expected: each
contradiction made by hand.
"""

import datetime
import unittest
from typing import Any

from noxel.core.editing import Change, apply_changes
from noxel.core.evaluate import evaluate
from noxel.core.plates import contradictions
from noxel.core.quantities import read_typed
from noxel.core.rig import SETS, parse_rig, share_range
from noxel.errors import QuantityError
from tests.truth import CASES, case, rig_of


class Contradictions(unittest.TestCase):
    def found(self, **figures: Any) -> dict[str, str | None]:
        document = rig_of("check--three-passes")
        for path, value in figures.items():
            node: Any = document
            *parents, last = path.split("__")
            for part in parents:
                node = node[int(part)] if part.isdigit() else node.setdefault(part, {})
            node[last] = value
        return {
            contradiction.code: contradiction.path
            for contradiction in contradictions(parse_rig(document), datetime.date(2026, 11, 23))
        }

    def test_each_is_named_at_the_figure_to_read_again(self) -> None:
        # the case: GVWR 7,000, GAWR 2,600 + 3,600, GCWR 16,000, tow 11,450, payload 1,658, curb
        # 4,657; trailer 8,700, 2 × 4,300, dry 7,140
        sound = {"vehicle__ratings__gawr_front": 3450, "vehicle__tires__front__max_load": 1750}
        self.assertEqual(self.found(**sound), {})
        told: dict[str, tuple[dict[str, Any], str]] = {
            "axles_below_gvwr": ({"vehicle__ratings__gawr_front": 2600}, "vehicle.ratings.gvwr"),
            "axles_far_above_gvwr": (
                {
                    "vehicle__ratings__gvwr": 3200,
                    "vehicle__curb_weight": 2100,
                    "vehicle__ratings__payload": 1000,
                },
                "vehicle.ratings.gvwr",
            ),
            "curb_above_gvwr": ({"vehicle__curb_weight": 7020}, "vehicle.curb_weight"),
            "payload_above_gvwr": ({"vehicle__ratings__payload": 2700}, "vehicle.ratings.payload"),
            "gcwr_below_gvwr": (
                {"vehicle__ratings__gcwr": 6900, "vehicle__ratings__tow_rating": 2000},
                "vehicle.ratings.gcwr",
            ),
            "tow_above_gcwr": ({"vehicle__ratings__tow_rating": 12000}, "vehicle.ratings.gcwr"),
            "trailer_above_axles": ({"trailer__ratings__gvwr": 10300}, "trailer.ratings.gvwr"),
            "dry_above_gvwr": ({"trailer__dry_weight": 8800}, "trailer.dry_weight"),
            "ccc_above_gvwr": ({"trailer__ratings__ccc": 1700}, "trailer.ratings.ccc"),
            "dry_tongue_large": ({"trailer__dry_tongue": 3000}, "trailer.dry_tongue"),
            "tires_below_axle": (
                {"vehicle__tires__rear__max_load": 1700},
                "vehicle.tires.rear.max_load",
            ),
            "wheels_below_axle": (
                {"vehicle__tires__rear__wheel": 1750},
                "vehicle.tires.rear.wheel",
            ),  # 2 × 1,750 < 3,600
            "assembly_below_axle": (
                {"trailer__tires__assembly": 4200},
                "trailer.tires.assembly",
            ),  # 2 × 4,200 < 2 × 4,300
            "load_index_below_placard": (
                {
                    "vehicle__tires__rear__load_index": "112",
                    "vehicle__tires__rear__placard_load_index": "115",
                },
                "vehicle.tires.rear.load_index",
            ),
            "load_index_disagrees": (
                {"vehicle__tires__rear__load_index": "121"},
                "vehicle.tires.rear.max_load",
            ),  # 1,450 kg = 3,197 lb
            "pressure_below_placard": (
                {
                    "vehicle__tires__rear__pressure": 30,
                    "vehicle__tires__rear__placard_pressure": "240 kPa",
                },
                "vehicle.tires.rear.pressure",
            ),  # 240 kPa = 34.8 psi
            "pressure_above_sidewall": (
                {
                    "vehicle__tires__rear__pressure": 60,
                    "vehicle__tires__rear__sidewall_pressure": 51,
                },
                "vehicle.tires.rear.pressure",
            ),
            "tire_old": (
                {"trailer__tires__date_code": "4720"},
                "trailer.tires.date_code",
            ),  # 16 November 2020: six years and a week
            "tire_from_the_future": (
                {"trailer__tires__date_code": "0227"},
                "trailer.tires.date_code",
            ),
            "ball_size": (
                {
                    "hitch__parts": [
                        {"kind": "ball", "size": 2},
                        {"kind": "coupler", "size": "50 mm"},
                    ]
                },
                "hitch.parts[0].size",
            ),
            "hitch_parts_heavier": (
                {"hitch__weight": 60, "hitch__parts__0__weight": 70},
                "hitch.weight",
            ),
            "bars_forbidden": (
                {"vehicle__distribution": {"rule": "forbidden"}},
                "hitch.weight_distribution",
            ),
            "brakes_required": (
                {"policy__brakes_above": 3000, "trailer__brakes": "none"},
                "policy.brakes_above",
            ),
            "ten_times": ({"trailer__ratings__gawr": [4300, 430]}, "trailer.ratings.gawr[1]"),
            "modes_swapped": (
                {"hitch__parts__0__trailer": {"carrying": 11900, "distributing": 8800}},
                "hitch.parts[0].trailer.carrying",
            ),
        }
        for code, (figures, path) in told.items():
            with self.subTest(code):
                self.assertEqual(self.found(**{**sound, **figures}).get(code), path)

    def test_the_first_axle_of_several_may_have_been_typed_alone(self) -> None:
        """8,700 lb with 15 % on the tongue leaves 7,395 lb: two of 4,300, three of 2,500; four of
        1,900 are not guessed at. A change as offered leaves nothing to say.
        """
        for gawr, wanted in ((4300, 2), ("1950 kg", 2), (2500, 3), (1900, None), (8000, None)):
            document = rig_of("check--three-passes")
            document["trailer"]["ratings"]["gawr"] = [gawr]
            by_code = {
                contradiction.code: contradiction
                for contradiction in contradictions(parse_rig(document))
            }
            text = by_code.get("trailer_above_axles")
            self.assertEqual(text is None, gawr == 8000)
            if text is None or wanted is None:
                self.assertIsNone(text.fix if text else None)
                continue
            assert text.fix  # noqa: S101
            self.assertRegex(text.fix.label, rf"^{wanted} axles of [\d,]+ lb each$")
            changes = [Change(each.path, value=each.value, op="set") for each in text.fix.changes]
            edited = apply_changes(document, changes)
            self.assertEqual(edited.document["trailer"]["ratings"]["gawr"], [gawr] * wanted)
            left = {contradiction.code for contradiction in contradictions(edited.rig)}
            self.assertNotIn("trailer_above_axles", left)

    def test_what_is_said_names_both_figures(self) -> None:
        """2 5/16 in are 58.7 mm and 1 7/8 in 47.6; parts of 70 and 35 lb are more than 60 by 45."""
        document = rig_of("check--three-passes")
        document["hitch"] = {"weight": 60, "parts": [
            {"kind": "ball", "size": "58.7 mm", "weight": 70},
            {"kind": "ball mount", "weight": 35},
            {"kind": "coupler", "size": "47.6 mm", "weight": 12},
        ]}  # fmt: skip
        document["weigh_ins"] = []
        by_code = {
            contradiction.code: contradiction
            for contradiction in contradictions(parse_rig(document))
        }
        self.assertIn("58.7 mm across (2 5/16 in)", by_code["ball_size"].message)
        self.assertIn("47.6 mm (1 7/8 in)", by_code["ball_size"].message)
        self.assertIn("add up to 105 lb, more than", by_code["hitch_parts_heavier"].message)

    def test_half_filled_labels_contradict_nothing(self) -> None:
        bare = {
            "format": "noxel-rig",
            "version": 1,
            "units": {"mass": "kg"},
            "kind": "conventional",
            "trailer": {},
        }
        self.assertEqual(contradictions(parse_rig(bare)), [])
        for key, value in rig_of("check--three-passes")["vehicle"]["ratings"].items():
            self.assertEqual(
                contradictions(parse_rig({**bare, "vehicle": {"ratings": {key: value}}})), []
            )

    def test_bars_required_above_a_mass(self) -> None:
        # the case's trailer is rated 4,025 kg
        for above, expected in ((4000, True), (4025, False), (9000, False)):
            document = rig_of("check--kilograms")
            document["vehicle"]["distribution"] = {"rule": "required", "above": above}
            document["hitch"]["weight_distribution"] = False
            document["weigh_ins"] = []
            by_code = {contradiction.code for contradiction in contradictions(parse_rig(document))}
            self.assertEqual("bars_required" in by_code, expected, above)


class Terms(unittest.TestCase):
    def test_every_set_names_the_same_things(self) -> None:
        self.assertEqual(
            {frozenset(terms) for terms in SETS.values()}, {frozenset(SETS["north_america"])}
        )

    def test_terms_change_words_and_nothing_else(self) -> None:
        for path in CASES.glob("check--*.json"):
            document = case(path.stem)["file"]
            policy = {
                "tongue_share": list(share_range(parse_rig(document))),
                **document.get("policy", {}),
            }
            document["policy"] = policy
            plain, other = (
                evaluate(parse_rig(document)),
                # what is aimed at on a ball is another thing in Europe: the policy says it here
                evaluate(parse_rig({**document, "terms": "europe", "policy": policy})),
            )
            self.assertEqual(plain.derived, other.derived)
            numbers = [
                sorted(
                    (row.id, str(row.actual), str(row.limit), str(row.limit_source), row.status)
                    for row in load.checks  # the order follows what is expected
                )
                for load in (plain, other)
            ]
            self.assertEqual(*numbers)
            text = " ".join([other.headline.sentence, *(row.sentence for row in other.checks)])
            for word in ("GVWR", "GCWR", "CCC"):
                self.assertNotIn(word, text, path.stem)


class Labels(unittest.TestCase):
    def test_both_units_of_a_label(self) -> None:
        # 6,900 × 0.45359237 = 3,129.8
        self.assertEqual(read_typed("6,900 lb / 3130 kg", "mass", "kg").value, "6900 lb")
        with self.assertRaisesRegex(QuantityError, "do not agree"):
            read_typed("6,900 lb / 3310 kg", "mass", "lb")
        edited = apply_changes(
            rig_of("check--kilograms"), [Change("vehicle.ratings.gvwr", "6,900 lb / 3310 kg")]
        )
        self.assertIn("do not agree", edited.fields[0].problem or "")
