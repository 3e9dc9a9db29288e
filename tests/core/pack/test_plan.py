"""Tanks, phases, the prediction's ±, what a weigh-in teaches, stowage. Expected: by hand, or exact
rigs whose truth is known.
"""

import copy
import math
import random
import re
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from noxel.core.mechanics import (
    BASE_OFF,
    OFF,
    PLACE_OFF,
    RESTORED_OFF,
    TAPE_OFF,
    calibrate,
    in_phase,
    length_from_move,
    predict,
    uncertainty,
    weigh,
)
from noxel.core.pack import evaluate_pack, plan_vs_scale, start_from_weigh_in
from noxel.core.quantities import KG, nominal
from noxel.core.rig import PHASES, parse_rig
from noxel.errors import GeometryError, RigFileError
from tests import some
from tests.truth import Document, exact_rigs, rig_of

TANKS = [
    {
        "name": "fuel",
        "fluid": "gasoline",
        "on": "vehicle",
        "capacity": "26 gal",
        "position": 110,
        "levels": {"leaving": 1, "arriving": 0.25},
    },
    {
        "name": "fresh",
        "fluid": "fresh",
        "on": "trailer",
        "capacity": "46 gal",
        "position": 60,
        "levels": {"leaving": 1, "arriving": 0.5, "heading_home": 0},
    },
    {
        "name": "grey",
        "fluid": "grey",
        "on": "trailer",
        "capacity": 40,
        "position": 200,
        "levels": {"arriving": 0.5, "heading_home": 1},
    },
]

placed = st.lists(
    st.tuples(
        st.sampled_from(["vehicle", "trailer"]), st.floats(0.5, 80), st.floats(-1, 9), st.booleans()
    ),
    max_size=8,
)


class Conserved(unittest.TestCase):
    @settings(max_examples=some(150))
    @given(exact_rigs(), placed, st.sampled_from(PHASES), st.floats(0, 1.2))
    def test_every_load_lands_somewhere_once(
        self,
        made: tuple[Document, dict[str, float]],
        aboard: list[tuple[str, float, float, bool]],
        phase: str,
        restored: float,
    ) -> None:
        document, true = made
        document["loads"] = [
            {"on": on, "mass": kg, "position": x, "aboard": there} for on, kg, x, there in aboard
        ]
        document["tanks"] = [{**tank, "position": 2.0} for tank in TANKS]
        document["plan"] = {
            "phase": phase,
            "vehicle_base": {"front": true["front"], "rear": true["rear"], "hitch_fitted": True},
            "trailer_base": {"gross": true["gross"], "tongue": true["tongue"]},
            "front_restoration": restored,
        }
        rig = parse_rig(document)
        found = predict(rig)
        weighs = (
            true["front"]
            + true["rear"]
            + true["gross"]
            + sum(kg for _, kg, _, there in aboard if there)
        )
        weighs += sum(
            tank.full_kg() * (tank.level(rig.plan.phase) - tank.base_level) for tank in rig.tanks
        )
        self.assertAlmostEqual(found["combination_gross"], weighs)
        self.assertAlmostEqual(
            found["front_hitched"] + found["rear_hitched"] + found["trailer_axles"], weighs
        )
        self.assertAlmostEqual(found["vehicle_solo"] + found["trailer_gross"], weighs)


class Phases(unittest.TestCase):
    def document(self) -> Document:
        return {**rig_of("predict--packed"), "tanks": copy.deepcopy(TANKS)}

    def test_levels_by_hand(self) -> None:
        """46 gal × 8.34 = 383.64 lb of fresh water, full on the way out; 26 gal × 6.2 = 161.2 lb of
        fuel, in the base when full.
        """
        rig = parse_rig(self.document())
        before = predict(parse_rig({**self.document(), "tanks": []}))
        gross = {
            phase: (predict(in_phase(rig, phase))["trailer_gross"] - before["trailer_gross"])
            / KG["lb"]
            for phase in PHASES
        }
        for phase, lb in {
            "leaving": 383.64,
            "half_way": 383.64,
            "arriving": 191.82 + 166.8,
            "heading_home": 333.6,
        }.items():
            self.assertAlmostEqual(gross[phase], lb, places=6)  # type: ignore[index]
        solo = [
            predict(in_phase(rig, phase))["vehicle_solo"] - before["vehicle_solo"]
            for phase in PHASES
        ]
        self.assertEqual([round(kg / KG["lb"], 2) for kg in solo], [0, 0, -120.9, -120.9])

    def test_the_worst_phase_is_named(self) -> None:
        found = evaluate_pack(parse_rig(self.document()))
        self.assertEqual([phase.code for phase in found.phases], list(PHASES))
        self.assertEqual([phase.worst for phase in found.phases].count(True), 1)
        for phase in found.phases:  # each is what the plan says when it is looked at
            document = self.document()
            document["plan"]["phase"] = phase.code
            self.assertEqual(evaluate_pack(parse_rig(document)).verdict, phase.verdict)

    def test_an_overfull_tank_is_named(self) -> None:
        document = self.document()
        document["tanks"][1]["levels"]["leaving"] = 3
        with self.assertRaisesRegex(
            RigFileError, r"tanks\[1\].levels.leaving: must lie between 0 and 100 %, not 300"
        ):
            parse_rig(document)


class Spread(unittest.TestCase):
    def test_against_drawing_by_lot(self) -> None:
        """Every mass, place, length and the bars' setting drawn by lot within its ±: the spread
        found is the spread computed.
        """
        document = rig_of("predict--packed")
        document["hitch"]["weight_distribution"], document["plan"]["front_restoration"] = True, 0.6
        for index, source in enumerate(("scale", "guess", None)):
            if source and index < len(document["loads"]):
                document["loads"][index]["entered"] = {"mass": {"source": source}}
        rig = parse_rig(document)
        computed = uncertainty(rig)
        lot = random.Random(7)
        drawn: dict[str, list[float]] = {
            "front_hitched": [],
            "rear_hitched": [],
            "trailer_axles": [],
            "tongue_share": [],
        }
        for _ in range(4000):
            made = copy.deepcopy(document)
            base, trailer = made["plan"]["vehicle_base"], made["trailer"]
            for holder, key in (
                (base, "front"),
                (base, "rear"),
                (trailer, "dry_weight"),
                (trailer, "dry_tongue"),
            ):
                holder[key] *= 1 + lot.gauss(0, BASE_OFF / 2)
            for load in made["loads"]:
                source = load.get("entered", {}).get("mass", {}).get("source")
                load["mass"] = max(0.0, load["mass"] * (1 + lot.gauss(0, OFF[source] / 2)))
                load["position"] += lot.gauss(0, PLACE_OFF / 2) / 0.0254
            made["hitch"]["weight"] *= 1 + lot.gauss(0, OFF[None] / 2)
            for holder, key in (
                (made["vehicle"], "wheelbase"),
                (made["vehicle"], "hitch_offset"),
                (trailer, "coupler_to_axles"),
            ):
                holder["geometry"][key] += lot.gauss(0, TAPE_OFF / 2) / 0.0254
            made["plan"]["front_restoration"] += lot.gauss(0, RESTORED_OFF / 2)
            found = predict(parse_rig(made))
            for key, values in drawn.items():
                values.append(found[key])
        for key, values in drawn.items():
            mean = sum(values) / len(values)
            sigma = math.sqrt(sum((value - mean) ** 2 for value in values) / len(values))
            self.assertLess(abs(2 * sigma / computed[key] - 1), 0.06, key)


class Learning(unittest.TestCase):
    @given(exact_rigs())
    def test_overhang_and_moment_of_an_exact_rig(
        self, made: tuple[Document, dict[str, float]]
    ) -> None:
        document, true = made
        rig = parse_rig(document)
        found = calibrate(rig, weigh(rig, rig.weigh_ins[0]))
        self.assertAlmostEqual(found.overhang.value if found.overhang else 0, true["b"])
        for moment in (found.moment_front, found.moment_trailer):
            self.assertAlmostEqual(moment.value if moment else 0, true["moment"], places=5)
        self.assertTrue(found.agrees)
        document["weigh_ins"][0]["passes"][0]["readings"]["trailer"] += (
            90  # an axle half on the next platform
        )
        rig = parse_rig(document)
        self.assertFalse(calibrate(rig, weigh(rig, rig.weigh_ins[0])).agrees)

    @given(
        exact_rigs(),
        st.floats(60, 300),
        st.floats(-0.5, 4),
        st.floats(60, 300),
        st.floats(0.1, 1.7),
    )
    def test_an_unlisted_thing_is_found_by_mass_and_place(
        self,
        made: tuple[Document, dict[str, float]],
        in_vehicle: float,
        x: float,
        in_trailer: float,
        along: float,
    ) -> None:
        """The plan is the truth less one item in the vehicle and one in the trailer; the gap names
        both.
        """
        document, true = made
        a, length = true["a"], true["length"]
        y = along * length
        rear = in_vehicle * x / a
        document["plan"] = {
            "vehicle_base": {
                "front": true["front"] - (in_vehicle - rear) + 500,
                "rear": true["rear"] - rear + 500,
                "hitch_fitted": True,
            },
            "trailer_base": {"gross": true["gross"], "tongue": true["tongue"]},
        }
        # 500 kg more on each axle, so that no base is negative
        for each in document["weigh_ins"][0]["passes"]:
            each["readings"]["front"] += 500
            each["readings"]["rear"] += 500
            if "trailer" in each["readings"]:
                each["readings"]["trailer"] += in_trailer * y / length
                each["readings"]["rear"] += in_trailer * (length - y) / length
        if any(
            value < 0
            for each in document["weigh_ins"][0]["passes"]
            for value in each["readings"].values()
        ):
            return
        rig = parse_rig(document)
        found = predict(rig)
        gap = plan_vs_scale(rig, found, uncertainty(rig), weigh(rig, rig.weigh_ins[0]))
        said = " ".join(gap.reasons if gap else [])
        masses = [
            float(each) for each in re.findall(r"carries ([\d.,]+) kg more than listed", said)
        ]
        places = [
            float(each) if side == "behind" else -float(each)
            for each, side in re.findall(
                r"as if it lay ([\d.]+) m (behind|ahead of) the (?:front axle|coupler)", said
            )
        ]
        self.assertEqual((len(masses), len(places)), (2, 2), said)
        for shown, true_value, half_a_digit in zip(
            masses + places, (in_vehicle, in_trailer, x, y), (0.5, 0.5, 0.005, 0.005), strict=True
        ):
            self.assertLessEqual(abs(shown - true_value), half_a_digit + 1e-6, said)

    def test_two_positions_one_length(self) -> None:
        self.assertAlmostEqual(nominal(length_from_move(100, 2.0, 400, 360)), 5.0)  # 100 × 2 ÷ 40
        with self.assertRaises(GeometryError):
            length_from_move(100, 2.0, 360, 400)

    def test_a_plan_started_from_a_weigh_in_is_marked_weighed_and_undone_in_one_step(self) -> None:
        rig = parse_rig({**rig_of("check--three-passes"), "plan": {}, "loads": []})
        changes = {(change.path, change.op): change for change in start_from_weigh_in(rig)}
        self.assertEqual(changes["plan.vehicle_base.front", "set"].value, 2760)
        self.assertEqual(changes["plan.vehicle_base.front", "source"].source, "scale")


class StowageSense(unittest.TestCase):
    def test_sides_height_and_the_rule_of_thumb(self) -> None:
        document = rig_of("predict--packed")
        document["trailer"]["geometry"]["coupler_to_axles"] = 200
        document["loads"] = [
            {
                "name": "books",
                "on": "trailer",
                "mass": 300,
                "position": 100,
                "side": -20,
                "height": "1.4 m",
            },
            {"name": "kiln", "on": "trailer", "mass": 200, "position": 280, "side": 20},
        ]
        found = evaluate_pack(parse_rig(document)).stowage
        assert found  # noqa: S101
        self.assertAlmostEqual(found.ahead_share or 0, 0.6)
        self.assertAlmostEqual(found.cargo_tongue, 300 * 0.5 - 200 * 0.4)
        self.assertEqual((round(found.left), round(found.right), found.high), (300, 200, ["books"]))
        self.assertTrue(any("left side carries 100 lb more" in line for line in found.says))
        self.assertTrue(any("kiln" in line and "Far behind" in line for line in found.says))

    def test_an_item_says_what_room_it_takes(self) -> None:
        found = evaluate_pack(parse_rig(rig_of("predict--packed")))
        self.assertTrue(
            all(
                item.takes and "% of the room of" in item.takes
                for item in found.items
                if item.mass > 20
            )
        )
