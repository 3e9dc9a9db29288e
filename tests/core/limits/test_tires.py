"""Tires, worked-out figures, readiness, other units. Expected: the standard's figures, or worked by
hand beside them.
"""

import datetime
import unittest
from typing import Any

from noxel.core.editing import Change, apply_changes, switch_units
from noxel.core.evaluate import evaluate
from noxel.core.limits import age_years, axle_sets, made_on, pressure_for, read_load_index
from noxel.core.mechanics import predict
from noxel.core.plates import PlatesAnswer, evaluate_plates, read_table
from noxel.core.plates.readiness import readiness
from noxel.core.quantities import KG
from noxel.core.rig import LOAD_INDEX, AxleTires, parse_rig
from noxel.errors import InputError, RigFileError
from tests.truth import CASES, case, rig_of

TODAY = datetime.date(2026, 11, 23)


class Sidewall(unittest.TestCase):
    def test_load_index(self) -> None:
        for index, kg in {
            100: 800,
            110: 1060,
            115: 1215,
            120: 1400,
            121: 1450,
            126: 1700,
        }.items():  # as a tire's own sidewall prints both
            self.assertEqual(LOAD_INDEX[index], kg)
        self.assertEqual(
            [read_load_index("121/118", dual=dual) for dual in (False, True)], [1450, 1320]
        )
        loads = [LOAD_INDEX[index] for index in sorted(LOAD_INDEX)]
        self.assertEqual(loads, sorted(set(loads)))
        # a series of preferred numbers: ten times as much eighty steps on
        for index in range(60, 71):
            self.assertAlmostEqual(LOAD_INDEX[index + 80] / LOAD_INDEX[index], 10, delta=0.05)

    def test_single_or_dual_by_the_axles_that_are_known(self) -> None:
        """Four tires on one rated axle stand in pairs; on two, or where nothing says how many axles
        there are, they do not.
        """
        document = rig_of("check--three-passes")
        document["trailer"]["tires"] = {"count": 4, "load_index": "121/118", "assembly": 5000}
        for gawr, kg, parts in (([5200], 1320, 1), ([5200, 5200], 1450, 2), (None, 1450, None)):
            document["trailer"]["ratings"].pop("gawr", None)
            document["trailer"]["ratings"] |= {"gawr": gawr} if gawr else {}
            found = next(
                axle_set
                for axle_set in axle_sets(parse_rig(document))
                if axle_set.group == "trailer"
            )
            self.assertEqual(found.rating.kg if found.rating else 0, kg)
            assembly = dict(found.parts()).get("axle assembly")
            self.assertAlmostEqual(assembly or 0, 5000 * KG["lb"] * (parts or 0))
        for count, kg in ((6, 1450), (8, 1320)):  # nothing says how many axles: three, or two
            document["trailer"]["tires"]["count"] = count
            found = next(
                axle_set
                for axle_set in axle_sets(parse_rig(document))
                if axle_set.group == "trailer"
            )
            self.assertEqual(found.rating.kg if found.rating else 0, kg, count)

    def test_date_code(self) -> None:
        # 2019 began on a Tuesday: its first full week, Sunday to Saturday, begins on 6 January,
        # week 23 on 9 June
        self.assertEqual(made_on("DOT XXXX 2319"), datetime.date(2019, 6, 9))
        self.assertEqual(made_on("0123"), datetime.date(2023, 1, 1))  # a Sunday
        self.assertEqual(made_on("5319"), made_on("5219"))  # 2019 has 52 Sundays
        self.assertAlmostEqual(
            age_years("2319", TODAY), (TODAY - datetime.date(2019, 6, 9)).days / 365.25
        )

    def test_what_is_no_index_and_no_date_code(self) -> None:
        """Indices of the table have at most three digits; a year has at most 53 weeks."""
        for key, text in (
            ("load_index", "999"),
            ("load_index", "121/"),
            ("load_index", "121/999"),
            ("date_code", "5425"),
            ("date_code", "0025"),
            ("date_code", "DOT"),
        ):
            document = rig_of("check--three-passes")
            document["vehicle"]["tires"]["rear"] = {"count": 2, key: text}
            with self.subTest(text), self.assertRaisesRegex(RigFileError, f"rear.{key}: .*{text}"):
                parse_rig(document)

    def test_limits_from_index_and_p_metric(self) -> None:
        document = rig_of("check--three-passes")
        for tires, limit in (
            ({"count": 2, "load_index": "116"}, 1250.0),
            ({"count": 4, "load_index": "121/118"}, 1320.0),
            ({"count": 2, "max_load": "1100 kg", "p_metric": True}, 1000.0),
            ({"count": 2, "load_index": "116", "size": "P275/55"}, 1250 / 1.1),
        ):
            document["vehicle"]["tires"]["rear"] = tires
            row = next(
                row for row in evaluate(parse_rig(document)).checks if row.id == "tires.rear"
            )
            self.assertAlmostEqual((row.limit or 0) * KG["lb"], limit)
        document["vehicle"]["body"] = "wagon"  # on a passenger car the rule does not apply
        row = next(row for row in evaluate(parse_rig(document)).checks if row.id == "tires.rear")
        self.assertAlmostEqual((row.limit or 0) * KG["lb"], 1250)

    def test_pressure_for_a_load(self) -> None:
        rows = [
            {"pressure": f"{psi} psi", "load": f"{lb} lb"}
            for psi, lb in ((35, 1700), (50, 2200), (65, 2700), (80, 3200))
        ]

        def needed(load_lb: float, **more: Any) -> tuple[float | None, bool]:
            found = pressure_for(
                AxleTires.model_validate({"table": rows, **more}), load_lb * KG["lb"]
            )
            assert found  # noqa: S101
            return (
                None if found.kpa is None else round(found.kpa / 6.894757293),
                found.above_sidewall,
            )

        self.assertEqual(needed(1700), (35, False))
        self.assertEqual(needed(1701), (50, False))  # the next row, nothing between
        self.assertEqual(needed(1000, placard_pressure="45 psi"), (45, False))
        self.assertEqual(needed(3000, sidewall_pressure="65 psi"), (None, True))
        self.assertEqual(needed(1701, sidewall_pressure="50 psi"), (50, False))  # just that much
        self.assertEqual(needed(1701, sidewall_pressure="49 psi"), (None, True))
        self.assertEqual(needed(3300), (None, False))
        self.assertEqual(needed(1600, p_metric=True), (50, False))  # 1,600 × 1.10 = 1,760

    def test_a_pasted_table(self) -> None:
        for text in (
            "psi load\n35 1,820\n40 2,010",
            "35;1820\n40;2010",
            "35 psi, 1820 lb\n40 psi, 2010 lb",
            "35\t1,820\n40\t2,010\n",
        ):
            rows = read_table("trailer.tires.table", text)
            figures = [
                (row["pressure"].split()[0], row["load"].split()[0].replace(",", ""))
                for row in rows
            ]
            self.assertEqual(figures, [("35", "1820"), ("40", "2010")])
        with self.assertRaisesRegex(InputError, "line 3: “x 7” is not a pressure and a load"):
            read_table("trailer.tires.table", "35 1820\n\nx 7\n40")
        with self.assertRaisesRegex(InputError, "“nonsense” is not"):  # no heading of anything
            read_table("trailer.tires.table", "nonsense")
        self.assertEqual(read_table("trailer.tires.table", "\n"), [])  # taken away on purpose
        by_drop = read_table(
            "hitch.parts[1].by_drop", "drop trailer tongue\n4 in, 7,600 lb, 900 lb\n6\t6900"
        )
        self.assertEqual(
            by_drop,
            [
                {"drop": "4 in", "trailer": "7,600 lb", "tongue": "900 lb"},
                {"drop": "6", "trailer": "6900"},
            ],
        )
        with self.assertRaisesRegex(InputError, "no table"):
            read_table("vehicle.ratings.gvwr", "1 2")


class BeforeItRolls(unittest.TestCase):
    def lines(self, **parts: Any) -> dict[str, tuple[str, str, str]]:
        document = rig_of("check--three-passes")
        for part, values in parts.items():
            document[part] = (
                {**document.get(part, {}), **values} if isinstance(values, dict) else values
            )
        rig = parse_rig(document)
        return {
            readiness.code: (readiness.text, readiness.fact, readiness.state)
            for readiness in readiness(rig, evaluate(rig), TODAY)
        }

    def test_the_coupling_as_it_was_measured(self) -> None:
        """The ball half an inch above the level coupler over 240 in: 0.2 % nose-up, level."""
        self.assertEqual(self.lines()["heights"][2], "ask")
        geometry = {"geometry": {"coupler_to_axles": 240, "coupler_height": 20}}
        text, _, state = self.lines(hitch={"ball_height": 20.5}, trailer=geometry)["heights"]
        self.assertEqual(state, "plain")
        self.assertIn("20.5 in and 20 in high", text)
        # 3 in over 240 in, 1.25 %, is nose-up
        self.assertEqual(
            self.lines(hitch={"ball_height": 23}, trailer=geometry)["heights"][2], "missing"
        )

    def test_what_is_secured_has_a_line_of_its_own(self) -> None:
        strap = {"on": "trailer", "mass": 40, "secured": "two straps"}
        loads: Any = [
            {"name": "Mount", **strap},
            {"name": "mount", **strap},
            {"name": "Tripod", **strap, "aboard": False},
            {"name": "Rug", **strap, "secured": ""},
        ]
        by_name = {
            code: text
            for code, (text, _, _) in self.lines(loads=loads).items()
            if code.startswith("secured")
        }
        self.assertEqual(
            by_name, {"secured_mount": "Mount: two straps", "secured_mount_2": "mount: two straps"}
        )


class BesideThePlates(unittest.TestCase):
    def plates(self, document: dict[str, Any]) -> PlatesAnswer:
        rig = parse_rig(document)
        return evaluate_plates(rig, evaluate(rig), TODAY)

    def test_worked_out_figures_give_way_to_real_ones(self) -> None:
        # GVWR 7,000, payload 1,658, curb 4,657, trailer 8,700 − dry 7,140
        document = rig_of("check--three-passes")
        by_name = {way.path: way for way in self.plates(document).beside}
        self.assertAlmostEqual(by_name["vehicle.curb_weight"].value, 7000 - 1658)
        self.assertFalse(by_name["vehicle.curb_weight"].stands_in)
        self.assertIn("685 lb more", by_name["vehicle.curb_weight"].says)
        self.assertAlmostEqual(by_name["trailer.ratings.ccc"].value, 1560)
        gcwr = document["vehicle"]["ratings"].pop("gcwr")
        stands = next(
            way for way in self.plates(document).beside if way.path == "vehicle.ratings.gcwr"
        )
        self.assertTrue(stands.stands_in)
        self.assertEqual(stands.direction, "optimistic")
        document["vehicle"]["ratings"]["gcwr"] = gcwr
        self.assertNotIn("vehicle.ratings.gcwr", [way.path for way in self.plates(document).beside])

    def test_the_weakest_part_of_an_axle(self) -> None:
        document = rig_of("check--three-passes")
        document["vehicle"]["tires"]["rear"] = {
            "count": 2,
            "max_load": 2000,
            "wheel": 1750,
            "assembly": 4100,
        }
        rear = next(tire for tire in self.plates(document).tires if tire.group == "rear")
        self.assertEqual(
            {part.name: round(part.rating) for part in rear.parts},
            {"axle rating": 3600, "axle assembly": 4100, "wheels": 3500, "tires": 4000},
        )
        self.assertEqual(rear.weakest, "wheels")

    def test_attitude(self) -> None:
        document = rig_of("check--three-passes")
        document["hitch"]["ball_height"], document["trailer"]["geometry"] = (
            24,
            {"coupler_height": 21, "coupler_to_axles": 240},
        )
        attitude = self.plates(document).attitude
        assert attitude  # noqa: S101
        self.assertAlmostEqual(attitude.drop, 3)
        self.assertAlmostEqual(attitude.slope, 3 / 240)
        self.assertFalse(attitude.level)
        self.assertIn("nose-up", attitude.says)

    def test_what_the_maker_left_out_of_dry(self) -> None:
        document = rig_of("predict--packed")
        before = parse_rig(document)
        extras = [
            {"name": "propane", "mass": 60, "position": 12},
            {"name": "battery", "mass": 54, "counted": True},
        ]
        document["trailer"]["dry_extras"] = extras
        self.assertAlmostEqual(
            self.plates(document).planning_dry or 0, document["trailer"]["dry_weight"] + 60
        )
        document["plan"].pop("trailer_base", None)
        bare = {**document, "trailer": {**document["trailer"], "dry_extras": []}}
        moved = (
            predict(parse_rig(document))["tongue_static"]
            - predict(parse_rig(bare))["tongue_static"]
        )
        length = before.trailer.geometry.coupler_to_axles if before.trailer else None
        self.assertAlmostEqual(
            moved, 60 * KG["lb"] * (1 - 12 * 0.0254 / (length.m if length else 1))
        )

    def test_readiness_hangs_on_this_rigs_facts(self) -> None:
        document = rig_of("check--three-passes")
        document["trailer"] |= {"brakes": "electric", "geometry": {"width": 100}}
        document["vehicle"]["mirror_span"] = 96
        document["policy"] = {"brakes_above": 3000}
        document["ready"] = {"controller": "2026-11-20", "jack": "2026-05-01"}
        by_code = {step.code: step for step in self.plates(document).ready}
        self.assertEqual(by_code["mirrors"].state, "missing")  # 96 in of mirrors, 100 in of trailer
        self.assertEqual(
            (by_code["brakes_law"].state, by_code["controller"].done),
            ("plain", datetime.date(2026, 11, 20)),
        )
        self.assertEqual((by_code["controller"].stale, by_code["jack"].stale), (False, True))
        document["trailer"]["brakes"] = "none"
        by_code = {step.code: step for step in self.plates(document).ready}
        self.assertEqual(by_code["brakes_law"].state, "missing")
        self.assertNotIn("controller", by_code)

    def test_a_car_towed_on_its_own_wheels_has_no_tongue(self) -> None:
        document = rig_of("check--motorhome")
        document["trailer"] = {
            "style": "towed_car",
            "ratings": {"gvwr": 4500, "gawr": [2400, 2300]},
        }
        document["hitch"] = {"parts": [{"kind": "tow bar", "trailer": 6000}]}
        scale = document["weigh_ins"][0]["scale"]
        solo = document["weigh_ins"][0]["passes"][-1]["readings"]
        hitched = {"config": "hitched", "readings": {**solo, "trailer": 3900}}
        document["weigh_ins"] = [
            {"scale": scale, "passes": [hitched, {"config": "vehicle_only", "readings": solo}]}
        ]
        document["vehicle"]["ratings"] |= {"gcwr": 30000, "tow_rating": 5000}
        evaluation = evaluate(parse_rig(document))
        self.assertFalse({"tongue.share", "hitch.tongue"} & {row.id for row in evaluation.checks})
        self.assertEqual(
            next(row.actual for row in evaluation.checks if row.id == "trailer.gross"), 3900
        )
        towed = {
            row.id: row.status
            for row in evaluation.checks
            if row.group in ("trailer", "hitch", "combination")
        }
        self.assertEqual(set(towed.values()), {"within"}, towed)


class OtherUnits(unittest.TestCase):
    def test_the_same_rig_in_other_units(self) -> None:
        for path in CASES.glob("check--*.json"):
            document = case(path.stem)["file"]
            mass = document["units"]["mass"]
            other: Any = "kg" if mass == "lb" else "lb"
            evaluation, two = (
                evaluate(parse_rig(document)),
                evaluate(parse_rig(switch_units(document, other))),
            )
            self.assertEqual(evaluation.verdict, two.verdict, path.stem)
            for a in evaluation.checks:  # the order of equals may differ by rounding
                b = next(row for row in two.checks if row.id == a.id)
                factor = 1.0 if a.low is not None else KG[mass] / KG[other]
                self.assertEqual((a.status, a.limit_source), (b.status, b.limit_source), path.stem)
                for x, y in (
                    (a.actual, b.actual),
                    (a.limit, b.limit),
                    (a.plus_minus, b.plus_minus),
                ):
                    self.assertAlmostEqual((x or 0) * factor, y or 0, places=6, msg=path.stem)

    def test_typed_texts_keep_their_meaning(self) -> None:
        typed = [
            Change("vehicle.ratings.gvwr", "3,400+3,600"),
            Change("vehicle.ratings.gcwr", "16,oo0"),
        ]
        document = apply_changes(rig_of("check--three-passes"), typed).document
        edited = apply_changes(switch_units(document, "kg"), [])
        gvwr = edited.rig.vehicle.ratings.gvwr
        self.assertAlmostEqual(gvwr.kg if gvwr else 0, 7000 * KG["lb"])
        kept = {field.path: field for field in edited.fields}
        self.assertEqual(kept["vehicle.ratings.gvwr"].entry.text, "3,400+3,600 lb")
        self.assertIn("oo", kept["vehicle.ratings.gcwr"].problem or "")
