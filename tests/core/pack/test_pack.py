"""The load plan. Expected values: exact rigs whose truth is known, and plain arithmetic."""

import copy
import math
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.mechanics import (
    BASE_OFF,
    PLACE_OFF,
    TAPE_OFF,
    plan_from_weigh_in,
    predict,
    uncertainty,
    weigh,
)
from noxel.core.mechanics.sources import OFF
from noxel.core.pack import PackAnswer, evaluate_pack, read_item
from noxel.core.rig import parse_rig
from noxel.errors import MissingInput, QuantityError
from tests.truth import Document, exact_rigs, rig_of

items = st.lists(
    st.tuples(
        st.sampled_from(["vehicle", "trailer"]),
        st.floats(1, 60),
        st.integers(1, 3),
        st.floats(0.1, 4),
    ),
    max_size=6,
)
listed = st.lists(
    st.fixed_dictionaries(
        {
            "on": st.sampled_from(["vehicle", "trailer"]),
            "mass": st.floats(1, 60),
            "quantity": st.integers(1, 3),
            "aboard": st.booleans(),
        },
        optional={
            "position": st.floats(-1, 9),
            "entered": st.sampled_from(["guess", "scale", "manual"]).map(
                lambda source: {"mass": {"source": source}}
            ),
        },
    ),
    max_size=12,
)


class Packing(unittest.TestCase):
    def test_items_as_jotted_down(self) -> None:
        told: dict[str, tuple[str, Any, int]] = {
            "4 chairs 3 kg": ("chairs", "3 kg", 4),
            "full water 30 gal": ("full water", 250.2, 1),  # 8.34 lb a gallon
            "toolbox 62": ("toolbox", 62, 1),
            "2 x gas bottles 37 lb": ("gas bottles", 37, 2),
            "her 2nd toolbox 1,012.5 kg": ("her 2nd toolbox", "1012.5 kg", 1),
            "12 books 1.5 each": ("books", 1.5, 12),
            "spare 30+4": ("spare", 34, 1),
        }
        for text, (name, mass, quantity) in told.items():
            with self.subTest(text):
                item = read_item(text, "lb")
                self.assertEqual(
                    (item["name"], item["mass"], item["quantity"]), (name, mass, quantity)
                )
        for text in ("dog", "3 kg", "", "chairs 3 stone", "12"):
            with self.subTest(text), self.assertRaises(QuantityError):
                read_item(text, "lb")

    @given(exact_rigs(), listed)
    def test_a_long_list_is_answered_as_if_item_by_item(
        self, exact_rig: tuple[Document, dict[str, float]], aboard: list[Document]
    ) -> None:
        """The sums and slopes that a keystroke is answered from, beside the plain form: each item
        by its own moments.
        """
        document, truth = exact_rig
        a, b, length = truth["a"], truth["b"], truth["length"]
        document["loads"] = aboard
        document["vehicle"]["ratings"]["payload"] = 600
        document["plan"] = {
            "vehicle_base": {"front": truth["front"], "rear": truth["rear"]},
            "trailer_base": {"gross": truth["gross"], "tongue": truth["tongue"]},
        }
        rig = parse_rig(document)
        answer = evaluate_pack(rig)
        bases = (truth["rear"], truth["gross"], truth["tongue"])
        spread = [(BASE_OFF * base) ** 2 for base in bases]
        on_rear = on_axles = 0.0
        for item, each in zip(answer.items, aboard, strict=True):
            kg = each["mass"] * each["quantity"] if each["aboard"] else 0.0
            self.assertAlmostEqual(item.mass, kg)
            place = each.get("position")
            loads = (item.front, item.rear, item.tongue, item.trailer_axles)
            if place is None:
                self.assertEqual(loads, (None,) * 4)
                continue
            off = kg * OFF[each.get("entered", {}).get("mass", {}).get("source")]
            if each["on"] == "vehicle":
                plain: tuple[float | None, ...] = (kg * (1 - place / a), kg * place / a, None, None)
                by_mass = (off * place / a, 0.0, 0.0)
                by_place = (kg * PLACE_OFF / a, 0.0, 0.0)
                on_rear += kg * place / a
            else:
                tongue = kg * (1 - place / length)
                plain = (-tongue * b / a, tongue * (1 + b / a), tongue, kg - tongue)
                by_mass = (0.0, off, off * (1 - place / length))
                by_place = (0.0, 0.0, -kg * PLACE_OFF / length)
                on_axles += kg * place / length
            for found, expected in zip(loads, plain, strict=True):
                if expected is None:
                    self.assertIsNone(found)
                else:
                    self.assertAlmostEqual(found or 0.0, expected)
            for cause in (by_mass, by_place):
                spread = [all_ + spread**2 for all_, spread in zip(spread, cause, strict=True)]
        # a length measured too short: what lies in its place loads the other end more
        spread[0] += (on_rear * (a / (a + TAPE_OFF) - 1)) ** 2
        spread[2] += (on_axles * (1 - length / (length + TAPE_OFF))) ** 2
        off_by = uncertainty(rig)
        for key, square in zip(
            ("rear_solo", "trailer_gross", "tongue_static"), spread, strict=True
        ):
            if key in off_by:
                self.assertAlmostEqual(off_by[key], math.sqrt(square), places=6)
        if answer.whole:
            self.takes_as_said(answer, aboard)
        else:
            self.assertEqual({item.takes for item in answer.items} - {None}, set())

    def takes_as_said(self, answer: PackAnswer, aboard: list[Document]) -> None:
        """Each item names the limit of whose room it takes the largest share."""
        adds = {
            "Front axle": ("front", "front"),
            "Rear axle": ("rear", "rear"),
            "Payload": ("mass", "tongue"),
        }
        rooms: dict[str, list[tuple[str, float]]] = {"vehicle": [], "trailer": []}
        pairs = list(zip(answer.items, aboard, strict=True))
        for check in answer.checks:
            if check.label in adds and check.limit is not None and check.actual is not None:
                names = dict(zip(rooms, adds[check.label], strict=True))
                total = sum(getattr(item, names[load["on"]]) or 0.0 for item, load in pairs)
                for on, name in names.items():
                    rooms[on].append((name, check.limit - check.actual + total))
        self.assertTrue(rooms["vehicle"])
        for item, pair in pairs:
            shares = [
                (getattr(item, name) or 0.0) / room for name, room in rooms[pair["on"]] if room > 0
            ]
            share = float(item.takes.split(" %")[0]) / 100 if item.takes else 0.0
            self.assertGreaterEqual(share, max(shares, default=0.0) - 0.0051)

    @given(exact_rigs(), items)
    def test_a_plan_from_a_weigh_in_reproduces_its_third_pass(
        self,
        exact_rig: tuple[Document, dict[str, float]],
        aboard: list[tuple[str, float, int, float]],
    ) -> None:
        document, _ = exact_rig
        document["loads"] = [
            {"on": on, "mass": mass, "quantity": n, "position": place}
            for on, mass, n, place in aboard
        ]
        rig = parse_rig(document)
        try:
            plan = plan_from_weigh_in(rig)
        except MissingInput as exc:
            self.assertIn("negative", exc.message)
            return
        planned = copy.deepcopy(document)
        planned["plan"] = {
            "vehicle_base": {
                "front": plan["plan.vehicle_base.front"],
                "rear": plan["plan.vehicle_base.rear"],
                "hitch_fitted": True,
            },
            "trailer_base": {
                "gross": plan["plan.trailer_base.gross"],
                "tongue": plan["plan.trailer_base.tongue"],
            },
            "front_restoration": plan["plan.front_restoration"],
            "effective_overhang": plan["plan.effective_overhang"],
        }
        predicted, weighed = predict(parse_rig(planned)), weigh(rig, rig.weigh_ins[0]).figures
        for key in (
            "front_hitched",
            "rear_hitched",
            "trailer_axles",
            "trailer_gross",
            "tongue_static",
            "combination_gross",
        ):
            self.assertAlmostEqual(predicted[key], weighed[key].value, places=6, msg=key)

    def test_payload_is_counted_once(self) -> None:
        document = rig_of("predict--packed")
        packed = evaluate_pack(parse_rig(document))
        check = next(row for row in packed.checks if row.id == "vehicle.payload")
        # curb weight from the plate, load by the lever model: the lines add up to the same load as
        # the check's
        self.assertAlmostEqual(packed.payload_used, check.actual or 0, places=6)
        self.assertAlmostEqual(
            sum(line.mass for line in packed.payload),
            packed.predicted["vehicle_hitched"] - document["vehicle"]["curb_weight"],
        )
        self.assertEqual(sum("tongue" in line.label for line in packed.payload), 1)

    def test_each_item_says_what_it_does(self) -> None:
        document = rig_of("predict--packed")
        before = evaluate_pack(parse_rig(document)).predicted
        for index, effect in enumerate(evaluate_pack(parse_rig(document)).items):
            document["loads"][index]["quantity"], kept = 0, document["loads"][index]["quantity"]
            after = evaluate_pack(parse_rig(document)).predicted
            document["loads"][index]["quantity"] = kept
            key = "tongue_static" if effect.tongue is not None else "rear_solo"
            self.assertAlmostEqual(
                before[key] - after[key],
                effect.tongue if effect.tongue is not None else effect.rear or 0,
                places=6,
            )

    def test_what_is_missing_is_named_and_the_rest_is_said(self) -> None:
        document = rig_of("predict--packed")
        del document["plan"]
        packed = evaluate_pack(parse_rig(document))
        self.assertEqual(
            [missing.path for missing in packed.missing],
            ["plan.vehicle_base.front", "plan.vehicle_base.rear"],
        )
        self.assertEqual((packed.whole, packed.verdict), (False, "incomplete"))
        payload = next(row for row in packed.checks if row.id == "vehicle.payload")
        self.assertIsNotNone(payload.expected)  # a sum: it needs neither base nor place
        self.assertTrue(packed.schools and packed.items and packed.payload)
        self.assertEqual([school.highest for school in packed.schools].count(True), 1)

    def test_usual_places_lie_in_the_rig_front_to_rear(self) -> None:
        """Names in the order from front to rear; nothing rides ahead of the front axle or farther
        behind it than 1.3 wheelbases, nothing farther behind the coupler than half as far again as
        the axles; by a wheelbase of 4 m, axles at 6 m and a hitch 1.2 m behind.
        """
        document = rig_of("check--room-everywhere")
        document["units"]["length"] = "m"
        document["vehicle"]["geometry"], document["trailer"]["geometry"] = (
            {"wheelbase": 4, "hitch_offset": 1.2},
            {"coupler_to_axles": 6},
        )
        for body in ("pickup", "suv", "wagon", "van", "motorhome"):
            document["vehicle"]["body"] = body
            places = evaluate_pack(parse_rig(document)).places
            inside = [
                float(place.text.split()[0])
                for place in places
                if place.on == "vehicle" and place.name not in ("roof", "at the hitch")
            ]
            behind = [float(place.text.split()[0]) for place in places if place.on == "trailer"]
            self.assertEqual((inside, behind), (sorted(inside), sorted(behind)))
            self.assertTrue(
                inside[0] > 0
                and inside[-1] < 1.3 * 4
                and behind[0] > 0
                and 6 < behind[-1] < 1.5 * 6,
                (body, inside, behind),
            )
            hitch = next(place.text for place in places if place.name == "at the hitch")
            self.assertEqual(hitch, "5.20 m")
