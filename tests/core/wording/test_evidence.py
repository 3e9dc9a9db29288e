"""Room left, additions since, corrections, plans, and what the passes prove. Expected values: by
hand, and properties.
"""

import copy
import math
import unittest
from collections.abc import Mapping
from typing import Any

from hypothesis import assume, given
from hypothesis import strategies as st

from noxel.core.editing.paths import drop
from noxel.core.evaluate import evaluate
from noxel.core.limits import limits
from noxel.core.mechanics import changes_since, load_place
from noxel.core.quantities import KG, Amount, nominal, plus_minus, read_typed
from noxel.core.rig import parse_rig, read_path
from noxel.core.weigh import plan, plan_passes
from noxel.core.wording import Evaluation
from tests.truth import CASES, Document, exact_rigs, rig_of


def status(evaluation: Evaluation, check: str) -> str:
    return next(row.status for row in evaluation.checks if row.id == check)


class Room(unittest.TestCase):
    @given(exact_rigs())
    def test_that_much_more_meets_the_named_limit_and_no_other(
        self, exact_rig: tuple[Document, dict[str, float]]
    ) -> None:
        document, true = exact_rig
        by_name = {room.where: room for room in evaluate(parse_rig(document)).rooms}
        room = by_name["trailer"]
        assume(abs(room.room) < 0.9 * true["gross"])  # negative is what must come off
        share, lever = true["tongue"] / true["gross"], true["b"] / true["a"]
        # load the trailer by that much, share kept, by hand
        for each in document["weigh_ins"][0]["passes"][:2]:
            more = room.room * share
            each["readings"]["front"] -= more * lever
            each["readings"]["rear"] += more * (1 + lever)
            each["readings"]["trailer"] += room.room * (1 - share)
        after = evaluate(parse_rig(document))
        margins = {row.id: row.margin for row in after.checks if row.margin is not None}
        self.assertAlmostEqual(margins[room.check], 0, places=6)
        counted = (
            "trailer.gross",
            "vehicle.tow_rating",
            "hitch.trailer",
            "combination.gross",
            "trailer.axles",
            "hitch.tongue",
            "vehicle.gross",
            "vehicle.rear_axle",
        )
        self.assertGreaterEqual(min(margins[check] for check in counted), -1e-6)

    def test_no_tire_and_no_single_axle_is_forgotten(self) -> None:
        """Every worked case loaded by its room, by hand: the named limit is met, and nothing that
        takes of it is exceeded.
        """
        met = set()
        weak = rig_of("check--room-everywhere")
        weak["vehicle"]["tires"] = {
            "rear": {
                "count": 2,
                "max_load": weak["weigh_ins"][-1]["passes"][0]["readings"]["rear"] / 2 + 60,
            }
        }
        for name, document in [
            *((path.stem, rig_of(path.stem)) for path in sorted(CASES.glob("check--*.json"))),
            ("weak tires", weak),
        ]:
            last = (
                document["weigh_ins"][-1]
                if document.get("weigh_ins")
                else {"passes": [{"config": "trailer_only"}]}
            )
            if {pass_["config"] for pass_ in last["passes"]} - {
                "hitched",
                "vehicle_only",
                "vehicle_empty",
            } or "tongue_measurements" in last:
                continue
            if any("unit" in pass_ for pass_ in last["passes"]):
                continue
            before = evaluate(parse_rig(document))
            for room in before.rooms:
                with self.subTest(name, where=room.where):
                    place = load_place(parse_rig(document))
                    loaded, adds = (
                        copy.deepcopy(document),
                        {"front": room.room * (1 - place), "rear": room.room * place},
                    )
                    if room.where == "trailer":
                        lengths = document["vehicle"].get("geometry", {})
                        if (
                            "wheelbase" not in lengths
                            or "hitch_offset" not in lengths
                            or before.derived.tongue_share is None
                        ):
                            continue
                        lever = lengths["hitch_offset"] / lengths["wheelbase"]
                        weighed, passes = before.derived, last["passes"]
                        slack = any(row.get("spring_bars") in ("slack", "none") for row in passes)
                        if (
                            slack and weighed.front_transfer and weighed.tongue_static
                        ):  # as the scale shows it
                            restored = weighed.front_restored
                            off = (restored.value if restored else 0) - weighed.front_transfer.value
                            lever = off / weighed.tongue_static.value
                        on_tongue = room.room * before.derived.tongue_share.value
                        adds = {
                            "front": -on_tongue * lever,
                            "rear": on_tongue * (1 + lever),
                            "trailer": room.room - on_tongue,
                        }
                    for each in loaded["weigh_ins"][-1]["passes"]:
                        if each["config"] == "hitched" or (each["config"], room.where) == (
                            "vehicle_only",
                            "vehicle",
                        ):
                            self.put(each["readings"], adds)
                    after = evaluate(parse_rig(loaded)).checks
                    entered = {
                        check
                        for check, limit in limits(parse_rig(loaded)).items()
                        if limit and limit.real
                    }
                    left = {
                        row.id: (row.cushion or 1) * row.limit - row.actual
                        for row in after
                        if row.actual is not None and row.limit is not None and row.id in entered
                    }
                    self.assertAlmostEqual(left[room.check], 0, places=5)
                    left = {
                        row.id: left[row.id]
                        for row in after
                        if row.id in left and row.status != "unconfirmed"
                    }
                    if room.where == "vehicle":  # what takes nothing of it may be over already
                        takes = (
                            "vehicle.",
                            "combination",
                            "tires.rear",
                            "tires.front",
                            "wheels.rear",
                            "assembly.rear",
                        )
                        left = {
                            check: kg
                            for check, kg in left.items()
                            if check.startswith(takes) and check != "vehicle.tow_rating"
                        }
                    else:
                        left = {
                            check: kg
                            for check, kg in left.items()
                            if check not in ("vehicle.front_axle", "tires.front")
                        }
                    self.assertGreaterEqual(min(left.values()), -1e-5, left)
                    met.add(room.check)
        self.assertLessEqual(
            {"tires.rear", "tires.trailer", "vehicle.payload", "hitch.tongue"}, met
        )

    def put(self, readings: dict[str, float], adds: dict[str, float]) -> None:
        """So much more on each axle, on its wheels as what is there already, and in the sums that
        were read.
        """
        for name, parts in (
            ("vehicle", ("front", "rear")),
            ("gross", ("front", "rear", "trailer")),
        ):
            if name in readings:
                readings[name] += sum(kg for group, kg in adds.items() if group in parts)
        for group, kg in adds.items():
            names = [name for name in readings if name.split("_")[0] == group]
            whole = sum(readings[name] for name in names)
            for name in names:
                readings[name] += kg * readings[name] / whole

    def test_over_says_what_must_come_off(self) -> None:
        # three passes: rear axle 3,680 of 3,600, nothing listed, so at 0.75 of the wheelbase; share
        # 960/8,220; slack, the tongue's 960 took 2,760 − 2,440 off the front
        by_name = {
            room.where: room for room in evaluate(parse_rig(rig_of("check--three-passes"))).rooms
        }
        self.assertEqual(
            (by_name["vehicle"].check, round(by_name["vehicle"].room)),
            ("vehicle.rear_axle", round(-80 / 0.75)),
        )
        self.assertEqual(
            round(by_name["trailer"].room), round(-80 / (960 / 8220 * (1 + 320 / 960)))
        )


class Found(unittest.TestCase):
    def said(self, document: Document, code: str) -> list[str]:
        evaluation = evaluate(parse_rig(document))
        notes = [(finding.code, finding.message) for finding in evaluation.findings]
        notes += [(advisory.code, advisory.message) for advisory in evaluation.advisories]
        return [message for own, message in notes if own == code]

    def test_payload_by_the_scale_on_either_side_of_the_gvwr(self) -> None:
        """2,580 and 3,680 lb on the vehicle's axles are 6,260."""
        document = rig_of("check--three-passes")
        for gvwr, expected in (
            (6260, "0 lb left to"),
            (6240, "20 lb over"),
            (6280, "20 lb left to"),
        ):
            document["vehicle"]["ratings"]["gvwr"] = gvwr
            message = f"Payload by the scale: {expected} the GVWR, as the tow vehicle stands."
            self.assertEqual(self.said(document, "payload_by_scale"), [message])

    def test_a_guessed_rating_on_either_side(self) -> None:
        """The same 6,260 lb."""
        document = rig_of("check--three-passes")
        document["vehicle"]["entered"] = {"ratings.gvwr": {"source": "guess"}}
        for gvwr, expected in ((6260, "0 lb under"), (6280, "20 lb under"), (6240, "20 lb over")):
            document["vehicle"]["ratings"]["gvwr"] = gvwr
            row = next(
                row for row in evaluate(parse_rig(document)).checks if row.id == "vehicle.gross"
            )
            self.assertIn(f"The tow vehicle is {expected} its {gvwr:,} lb GVWR.", row.sentence)

    def test_how_far_below_their_ratings_and_what_a_limit_is_summed_of(self) -> None:
        """Three tenths of 4,300 lb for each of two axles are 2,580."""
        document = rig_of("check--three-passes")
        del document["trailer"]["dry_weight"]
        document["weigh_ins"][0]["passes"][0]["readings"]["trailer"] = 2580
        (message,) = self.said(document, "trailer_far_below")
        self.assertIn("read 2,580 lb, 30.0 % of their ratings", message)
        row = next(row for row in evaluate(parse_rig(document)).checks if row.id == "trailer.axles")
        lines = [(line.op, line.label, line.value) for line in row.limit_lines or ()]
        self.assertEqual(lines, [("", "axle 1", 4300), ("+", "axle 2", 4300)])

    def test_the_empty_weight_against_the_one_entered(self) -> None:
        """2,600 and 2,000 lb, empty, are 4,600."""
        document = rig_of("check--three-passes")
        empty = {"config": "vehicle_empty", "readings": {"front": 2600, "rear": 2000}}
        document["weigh_ins"][0]["passes"].append(empty)
        for curb, expected in (
            (4000, "600 lb more than"),
            (4600, "as much as"),
            (5000, "400 lb less"),
        ):
            document["vehicle"]["curb_weight"] = curb
            (message,) = self.said(document, "curb")
            self.assertIn(f"weighs 4,600 lb, {expected}", message)


_BY_PLACE = {"tongue_static", "front_hitched", "rear_hitched", "vehicle_hitched", "trailer_axles"}
"""What a thing in the trailer changes only by its place."""


class Since(unittest.TestCase):
    def setUp(self) -> None:
        self.document = rig_of("check--three-passes")
        self.weigh_in: dict[str, Any] = self.document["weigh_ins"][0]

    def test_known_places_follow_the_lever(self) -> None:
        # 155.9 lb on the rear axle adds itself there; 233.5 lb, 23.35 in ahead of the axles, puts a
        # tenth on the tongue
        self.weigh_in["added_since"] = [
            {"on": "vehicle", "mass": 100, "position": 155.9},
            {"on": "trailer", "mass": 233.5, "position": 233.5 * 0.9},
        ]
        changes = self.changes()
        for key, pounds in (
            ("rear_solo", 100),
            ("tongue_static", 23.35),
            ("trailer_gross", 233.5),
            ("rear_hitched", 100 + 23.35 * (1 + 50.5 / 155.9)),
            ("front_hitched", -23.35 * 50.5 / 155.9),
        ):
            change = changes[key]
            assert change is not None  # noqa: S101
            self.assertAlmostEqual(nominal(change) / KG["lb"], pounds)
        # 10 % of the mass, 0.3 m (11.81 in) of its place: on the rear axle 10 and 100 · 11.81/155.9
        self.assertAlmostEqual(
            plus_minus(changes["rear_solo"] or 0.0) / KG["lb"],
            math.hypot(10, 100 * (0.3 / 0.0254) / 155.9),
        )

    def changes(self) -> Mapping[str, Amount | None]:
        rig = parse_rig(self.document)
        return changes_since(rig, rig.weigh_ins[0])

    def test_nothing_is_guessed_without_a_place_or_a_length(self) -> None:
        self.weigh_in["added_since"] = [{"on": "trailer", "mass": 200, "position": 233.5 * 0.9}]
        for path, untold in (
            ("vehicle.geometry.wheelbase", {"front_hitched", "rear_hitched"}),
            ("vehicle.geometry.hitch_offset", {"front_hitched", "rear_hitched"}),
            ("weigh_ins[0].added_since[0].position", _BY_PLACE),
            ("trailer.geometry.coupler_to_axles", _BY_PLACE),
        ):
            kept = copy.deepcopy(self.document)
            drop(self.document, read_path(path))
            changes = self.changes()
            without = {key for key, change in changes.items() if change is None}
            self.assertEqual(without - {"payload_used"}, untold)  # that goes with the tongue
            self.document, self.weigh_in = kept, kept["weigh_ins"][0]

    def test_the_estimate_stands_beside_what_was_weighed(self) -> None:
        self.weigh_in["added_since"] = [
            {"what": "books", "on": "vehicle", "mass": 700, "position": 120}
        ]
        evaluation = evaluate(parse_rig(self.document))
        assert evaluation.estimate  # noqa: S101
        self.assertEqual(status(evaluation, "vehicle.gross"), "within")
        gross = next(row for row in evaluation.estimate.checks if row.id == "vehicle.gross")
        # 40 lb are left, and a tenth of 700 lb is ± 70
        self.assertEqual((round(gross.actual or 0), gross.status), (6960, "tight"))
        self.assertEqual(evaluation.verdict, evaluation.estimate.verdict)
        self.assertEqual(self.changes()["tongue_static"], 0.0)

    @given(
        st.sampled_from(
            [
                ("12 gal diesel", 84),
                ("10 gal of water", 83.4),
                ("-5 gal gasoline", -31),
                ("100 l propane", 110.952),
            ]
        )
    )
    def test_fluids_by_volume(self, told: tuple[str, float]) -> None:
        # densities per US gallon as in docs/formulas.md; 1 gal = 3.785411784 l
        self.assertAlmostEqual(float(read_typed(told[0], "mass", "lb").value), told[1], places=2)


class Proof(unittest.TestCase):
    def test_ways_to_the_tongue_stand_side_by_side(self) -> None:
        document = rig_of("check--three-passes")
        beam = {
            "method": "beam_scale",
            "reading": 330,
            "tare": 10,
            "span": 36,
            "coupler_from_support": 12,
            "resolution": 1,
            "coupler_from_support_pm": 0.25,
        }
        document["weigh_ins"][0]["tongue_measurements"] = [
            beam,
            {"method": "scale", "value": 1100, "resolution": 5},
        ]
        ways = evaluate(parse_rig(document)).tongue
        self.assertEqual([way.source for way in ways], ["passes", "direct", "direct"])
        self.assertAlmostEqual(ways[1].value, 960)  # (330 − 10) × 36/12
        # a quarter inch of uncertainty on 12 in: 960 × 2 × 0.25/√3 / 12
        self.assertAlmostEqual(
            ways[1].budget["support to coupler"], 960 * 2 * 0.25 / 3**0.5 / 12, places=6
        )
        self.assertEqual([way.used for way in ways], [False, False, True])
        self.assertEqual([way.agrees for way in ways], [False, False, True])

    def test_what_is_open_says_what_settles_it(self) -> None:
        evaluation = evaluate(parse_rig(rig_of("check--hitched-pass-only")))
        self.assertEqual(
            [question.what for question in evaluation.open], ["Tongue weight", "Trailer, in total"]
        )
        self.assertIn("vehicle alone", evaluation.open[0].settled_by)
        self.assertIn("trailer.axles", evaluation.open[0].standing)
        self.assertEqual(evaluate(parse_rig(rig_of("check--three-passes"))).open, [])

    def test_a_warning_found_right_stays_as_a_note(self) -> None:
        document = rig_of("check--three-passes")
        document["weigh_ins"][0]["passes"][0]["printed_gross"] = 13000
        before = evaluate(parse_rig(document))
        self.assertIn(
            ("ticket_total_differs", "warning"),
            [(advisory.code, advisory.level) for advisory in before.advisories],
        )
        document["weigh_ins"][0]["accepted"] = [
            {"code": "ticket_total_differs", "path": "passes[0].printed_gross", "note": "smudged"}
        ]
        note = next(
            advisory
            for advisory in evaluate(parse_rig(document)).advisories
            if advisory.code == "ticket_total_differs"
        )
        self.assertEqual((note.level, note.accepted_note), ("note", "smudged"))

    def test_plans(self) -> None:
        rig = parse_rig(rig_of("check--three-passes"))
        bars = [
            (plan_pass["config"], plan_pass.get("spring_bars"))
            for plan_pass in plan_passes(rig, "truck_scale", True)
        ]
        self.assertEqual(
            bars, [("hitched", "engaged"), ("hitched", "slack"), ("vehicle_only", None)]
        )
        self.assertEqual(len(plan_passes(rig, "truck_scale", False)), 2)
        self.assertIn("One axle at a time", plan(rig, "single_platform", True)[0].instruction)
        self.assertIn("Chock", plan(rig, "truck_scale", True)[2].instruction)
