"""What is tried in Adjust with parts of the garage, and what a gap names. Expected: moments taken
by hand, not by the code under test.
"""

import random
import re
import unittest
from collections import Counter
from typing import Any

from hypothesis import assume, given
from hypothesis import strategies as st

from noxel.core.adjust import (
    CLEAR,
    Baseline,
    baseline_of,
    conditions,
    do_steps,
    state_of,
    try_steps,
)
from noxel.core.mechanics import predict, uncertainty, weigh
from noxel.core.pack import plan_vs_scale
from noxel.core.rig import RigFile, Step, parse_rig
from noxel.errors import MissingInput
from tests.truth import CASES, Document, case, exact_rigs

Exact = tuple[Document, dict[str, float]]


def coupled(
    solo: tuple[float, float],
    true: dict[str, float],
    tongue: float,
    a: float,
    b: float,
    *,
    held: bool = False,
) -> dict[str, float]:
    """Axle loads of a vehicle with this tongue on it, its bars giving back the same share of what
    the front axle loses, or ``held`` at their moment. [kg]
    """
    share = true["moment"] * (1 + true["b"] / true["length"]) / (true["tongue"] * true["b"])
    moment = true["moment"] if held else share * tongue * b / (1 + b / true["length"])
    net = tongue - moment / true["length"]
    front = solo[0] - net * b / a + moment / a
    return {
        "front_hitched": front,
        "rear_hitched": solo[0] + solo[1] + net - front,
        "combination_gross": solo[0] + solo[1] + true["gross"],
    }


class FromTheScale(unittest.TestCase):
    def test_it_starts_from_what_the_ticket_says(self) -> None:
        """Every load and every check as Margins has it, single axles and heaviest wheels too;
        expected: the worked cases.
        """
        seen = 0
        for path in CASES.glob("check--*.json"):
            each = case(path.stem)
            rig = parse_rig(each["file"])
            try:
                base = baseline_of(rig)
            except MissingInput:
                continue
            if not base.weighed or rig.weigh_ins[-1].added_since:
                continue  # trials start from the rig as it stands now
            seen += 1
            tried = try_steps(base, [])
            for key, kg in tried.loads_before.items():
                if key in each["expect"]["derived"]:
                    value = each["expect"]["derived"][key]["value"]
                    # the plan is kept to 0.001
                    self.assertAlmostEqual(kg, value, delta=0.002, msg=f"{path.stem} {key}")
            rows = {row.id: row for row in tried.checks_after}
            for row in each["expect"]["checks"]:
                if row["status"] == "unknown":
                    continue  # the lever model may know more
                with self.subTest(path.stem, check=row["id"]):
                    self.assertEqual(rows[row["id"]].status, row["status"])
                    for name in ("actual", "margin", "plus_minus"):
                        if row.get(name) is not None:
                            self.assertAlmostEqual(
                                getattr(rows[row["id"]], name), row[name], delta=0.002
                            )
            self.closes(base)
        self.assertGreater(seen, 20)

    def closes(self, base: Baseline) -> None:
        """Every check that can be made is a condition on the cure, and leaves what the check
        leaves, less the ± or the cushion.
        """
        rows = {row.id: row for row in base.checks(base.rig) if row.limit and row.actual}
        state = state_of(base)
        asked = {condition.check: condition for condition in conditions(base, list(rows.values()))}
        for check, row in rows.items():
            assert row.limit and row.actual  # noqa: S101
            cap = (
                row.limit.kg
                if not row.limit.real
                else min(row.cushion * row.limit.kg, row.limit.kg - row.actual.plus_minus)
            )
            change = asked[check]
            self.assertAlmostEqual(
                change.bound - float(change.coefs @ state),
                cap - row.actual.value - CLEAR,
                places=5,
                msg=check,
            )

    @given(exact_rigs())
    def test_without_a_slack_pass_moments_say_what_the_bars_give_back(self, exact: Exact) -> None:
        document, true = exact
        share = true["moment"] * (1 + true["b"] / true["length"]) / (true["tongue"] * true["b"])
        del document["weigh_ins"][0]["passes"][1]
        base = baseline_of(parse_rig(document))
        self.assertAlmostEqual(base.rig.plan.front_restoration or 0.0, share)
        slack = try_steps(base, [Step(kind="bars", level=0.0)]).loads_after
        lost = true["tongue"] * true["b"] / true["a"]
        self.assertAlmostEqual(slack["front_hitched"], true["front"] - lost, delta=0.01)

    @given(exact_rigs())
    def test_both_ends_of_what_bars_do_when_something_leaves_the_tongue(self, exact: Exact) -> None:
        """80 kg over the coupler stay at home. Bars are springs: their share may stay, or their
        moment M; then by moments front = solo − (T − 80 − M/L)·b/a + M/a.
        """
        document, true = exact
        assume(true["tongue"] > 200 and true["moment"] / (true["tongue"] * true["b"]) < 0.7)
        document["loads"] = [{"name": "generator", "on": "trailer", "mass": 80, "position": 0.0}]
        base = baseline_of(parse_rig(document))
        tried = try_steps(base, [Step(kind="leave", index=0)])
        front = (
            true["front"]
            - (true["tongue"] - 80 - true["moment"] / true["length"]) * true["b"] / true["a"]
            + true["moment"] / true["a"]
        )
        if abs(front - tried.loads_after["front_hitched"]) > 5:
            search = re.search(r"front axle ([\d,]+) kg", tried.bars or "")
            self.assertAlmostEqual(
                float(search[1].replace(",", "")) if search else 0.0, front, delta=0.6
            )
        self.assertIsNone(
            try_steps(base, [Step(kind="leave", index=0), Step(kind="bars", level=0.5)]).bars
        )


class WithTheGarage(unittest.TestCase):
    def near(self, loads: dict[str, float], expected: dict[str, float]) -> None:
        for key, value in expected.items():
            # lists keep lengths to a tenth of a millimetre
            self.assertAlmostEqual(loads[key], value, delta=0.05, msg=key)

    @given(exact_rigs(), exact_rigs(), st.floats(20, 150), st.floats(0.1, 1.2))
    def test_another_vehicle_carries_the_same_things(
        self, exact: Exact, others: Exact, kg: float, share: float
    ) -> None:
        (document, true), (other, own) = exact, others
        document["loads"] = [
            {"name": "battery bank", "on": "vehicle", "mass": kg, "position": share * true["a"]}
        ]
        other["vehicle"]["name"] = "the long one"
        tried = try_steps(
            baseline_of(parse_rig(document)),
            [Step(kind="vehicle", thing="v")],
            {"v": parse_rig(other)},
        )
        place = share * true["a"] / own["a"]
        solo = own["front"] + kg * (1 - place), own["rear"] + kg * place
        self.near(
            tried.loads_before,
            coupled((true["front"], true["rear"]), true, true["tongue"], true["a"], true["b"]),
        )
        self.near(tried.loads_after, coupled(solo, true, true["tongue"], own["a"], own["b"]))
        self.assertEqual(tried.says, ["Another vehicle: the long one"])
        rows = {row.id: row.limit for row in tried.checks_after}
        self.assertEqual(rows["vehicle.gross"], other["vehicle"]["ratings"]["gvwr"])
        self.assertEqual(rows["trailer.gross"], document["trailer"]["ratings"]["gvwr"])

    @given(exact_rigs(), st.floats(10, 60), st.floats(10, 60), st.floats(50, 400))
    def test_another_hitch_brings_its_own_mass_and_its_ratings(
        self, exact: Exact, was: float, now: float, rated: float
    ) -> None:
        document, true = exact
        document["hitch"]["weight"] = was
        parts = [{"kind": "receiver", "tongue": rated, "trailer": 2000}]
        other = {
            **document,
            "hitch": {
                "name": "the heavy one",
                "weight_distribution": True,
                "weight": now,
                "parts": parts,
            },
        }
        tried = try_steps(
            baseline_of(parse_rig(document)),
            [Step(kind="hitch", thing="h")],
            {"h": parse_rig(other)},
        )
        more, a, b = now - was, true["a"], true["b"]
        solo = true["front"] - more * b / a, true["rear"] + more * (a + b) / a
        self.near(tried.loads_after, coupled(solo, true, true["tongue"], a, b))
        row = next(row for row in tried.checks_after if row.id == "hitch.tongue")
        self.assertEqual(row.limit, min(rated, document["vehicle"]["ratings"]["tongue_rating"]))

    @given(
        exact_rigs(),
        st.floats(20, 200),
        st.floats(0.0, 1.4),
        st.sampled_from(["vehicle", "trailer"]),
    )
    def test_one_more_thing_lies_where_it_is_put(
        self, exact: Exact, kg: float, share: float, on: str
    ) -> None:
        document, true = exact
        position = share * true["a" if on == "vehicle" else "length"]
        step = Step.model_validate(
            {
                "kind": "add",
                "on": on,
                "mass": f"{kg:.6f} kg",
                "position": f"{position:.6f} m",
                "name": "kiln shelves",
            }
        )
        tried = try_steps(baseline_of(parse_rig(document)), [step])
        in_vehicle = kg if on == "vehicle" else 0.0
        solo = true["front"] + in_vehicle * (1 - share), true["rear"] + in_vehicle * share
        tongue = true["tongue"] + (kg - in_vehicle) * (1 - share)
        expected = coupled(solo, true, tongue, true["a"], true["b"], held=True)
        expected["combination_gross"] += kg - in_vehicle
        self.near(tried.loads_after, {**expected, "tongue_static": tongue})

    @given(exact_rigs())
    def test_a_lower_ball_weighs_nothing(self, exact: Exact) -> None:
        document, _ = exact
        document["hitch"]["ball_height"] = 0.6
        tried = try_steps(
            baseline_of(parse_rig(document)),
            [Step.model_validate({"kind": "drop", "position": "40 mm"})],
        )
        self.assertEqual(tried.says, ["0.04 m more drop"])
        self.near(tried.loads_after, tried.loads_before)


class TheGap(unittest.TestCase):
    def reasons(self, rig: RigFile) -> list[str]:
        predicted = predict(rig)
        gap = plan_vs_scale(rig, predicted, uncertainty(rig), weigh(rig, rig.weigh_ins[0]))
        return gap.reasons if gap else []

    def plan(self, exact: Exact, **off: float) -> Any:
        """The exact rig with a plan that misses the truth by so much."""
        document, true = exact
        document["plan"] = {
            "vehicle_base": {
                "front": true["front"] + off.get("front", 0),
                "rear": true["rear"] + off.get("rear", 0),
                "hitch_fitted": True,
            },
            "trailer_base": {
                "gross": true["gross"] + off.get("gross", 0),
                "tongue": true["tongue"] + off.get("tongue", 0),
            },
            "front_restoration": true["moment"]
            * (1 + true["b"] / true["length"])
            / (true["tongue"] * true["b"]),
        }
        return parse_rig(document)

    @given(exact_rigs(), st.floats(40, 100), st.booleans())
    def test_a_load_that_lies_elsewhere(self, exact: Exact, kg: float, back: bool) -> None:
        """The same mass, kg of it on the other axle; on the trailer as 100 kg moved by kg × L ÷
        100, or 200 kg where that would be more than half of L.
        """
        sign = -1 if back else 1
        reasons = self.reasons(self.plan(exact, front=-sign * kg, rear=sign * kg))
        self.assertIn(
            f"its load lies {'further back' if back else 'further forward'}: as if "
            f"{kg + 1e-9:.0f} kg",
            reasons[0],
        )
        assume(exact[1]["tongue"] > kg)
        reasons = self.reasons(self.plan(exact, tongue=-sign * kg))
        some = 100 if kg <= 50 else 200
        moved = kg * exact[1]["length"] / some
        self.assertIn(
            f"further {'forward' if not back else 'back'}: {kg + 1e-9:.0f} kg "
            f"{'less' if back else 'more'} on the hitch",
            reasons[0],
        )
        told = re.search(rf"as {some} kg moved ([\d.]+) m would do", reasons[0])
        # to two places; half a centimetre may go either way
        self.assertAlmostEqual(float(told[1]) if told else 0.0, moved, delta=0.00501)

    @given(exact_rigs(), st.floats(60, 100))
    def test_no_one_place_explains_what_would_lie_off_the_rig(
        self, exact: Exact, kg: float
    ) -> None:
        """All of what is missing would have to lie three lengths behind the coupler, or two
        wheelbases behind the front axle."""
        assume(exact[1]["tongue"] > 2 * kg)
        for rig in (
            self.plan(exact, gross=-kg, tongue=2 * kg),  # L (1 + 2)
            self.plan(exact, gross=-kg, tongue=-2 * kg),  # L (1 − 2)
            self.plan(exact, front=kg, rear=-2 * kg),  # 2 a ÷ (2 − 1)
        ):
            reasons = self.reasons(rig)[0]
            self.assertIn(
                f"carries {kg + 1e-9:.0f} kg more than listed. No one item in any", reasons
            )

    @given(exact_rigs())
    def test_a_plan_that_is_right_says_so(self, exact: Exact) -> None:
        self.assertIn("Every axle agrees with the plan", self.reasons(self.plan(exact))[0])


class Covered(unittest.TestCase):
    """The ± that is printed after something was moved holds the true load as often as two standard
    uncertainties should.
    """

    KEYS = ("front_hitched", "rear_hitched", "trailer_axles", "tongue_static", "trailer_gross")

    def one(self, lot: random.Random) -> dict[str, bool]:
        """A rig whose figures are typed as its owner knows them: tape, list and scale each a little
        off. [kg, m]
        """
        a, b, length = lot.uniform(3, 4.2), lot.uniform(1, 1.6), lot.uniform(4, 7)
        in_vehicle, x = lot.uniform(20, 120), lot.uniform(1.5, a + 0.8)
        in_trailer, y, to = lot.uniform(40, 200), lot.uniform(1, length + 1), lot.uniform(1, length)
        front, rear, gross = (
            lot.uniform(1100, 1600),
            lot.uniform(1000, 1500),
            lot.uniform(1800, 3200),
        )
        tongue = gross * lot.uniform(0.10, 0.15)
        gain = 1 + lot.gauss(0, 0.001)

        def read(kg: float) -> float:
            return round(kg * gain / 10) * 10

        def tape(metres: float) -> float:
            return metres + lot.gauss(0, 0.01)

        hitched = {
            "front": read(front - tongue * b / a),
            "rear": read(rear + tongue + tongue * b / a),
            "trailer": read(gross - tongue),
        }
        where = lot.gauss(0, 0.15), lot.gauss(0, 0.15)
        wheelbase, overhang, coupler = tape(a), tape(b), tape(length)
        document = {
            "format": "noxel-rig",
            "version": 1,
            "units": {"mass": "kg", "length": "m"},
            "name": "moved",
            "kind": "conventional",
            "vehicle": {
                "geometry": {"wheelbase": wheelbase, "hitch_offset": overhang},
                "ratings": {"gvwr": 3500},
            },
            "trailer": {
                "ratings": {"gvwr": 3500, "gawr": [2000, 2000]},
                "geometry": {"coupler_to_axles": coupler},
            },
            "loads": [
                {
                    "name": "box",
                    "on": "vehicle",
                    "mass": in_vehicle * (1 + lot.gauss(0, 0.05)),
                    "position": x + where[0],
                },
                {
                    "name": "crate",
                    "on": "trailer",
                    "mass": in_trailer * (1 + lot.gauss(0, 0.05)),
                    "position": y + where[1],
                },
            ],
            "weigh_ins": [
                {
                    "scale": {"resolution": 10},
                    "passes": [
                        {"config": "hitched", "readings": hitched},
                        {
                            "config": "vehicle_only",
                            "readings": {"front": read(front), "rear": read(rear)},
                        },
                    ],
                }
            ],
        }
        base = baseline_of(parse_rig(document))
        # moved by so much, as measured from where it was thought to lie; the rest of the ± is the
        # tape's
        by = to - (y + where[1])
        steps = [Step(kind="leave", index=0), Step(kind="move", index=1, position=f"{to} m")]
        rig, _ = do_steps(base.rig, steps)
        rows = {row.actual.key: row.actual for row in base.checks(rig) if row.actual is not None}
        front, rear = front - in_vehicle * (1 - x / a), rear - in_vehicle * x / a
        tongue -= in_trailer * (by + lot.gauss(0, 0.075)) / length
        true = {
            "front_hitched": front - tongue * b / a,
            "rear_hitched": rear + tongue + tongue * b / a,
            "trailer_axles": gross - tongue,
            "tongue_static": tongue,
            "trailer_gross": gross,
        }
        return {
            key: abs(rows[key].value - true[key]) <= rows[key].plus_minus
            for key in self.KEYS
            if key in rows
        }

    def test_after_something_was_moved(self) -> None:
        lot, rigs = random.Random(16), 2000
        covered: Counter[str] = Counter()
        counter: Counter[str] = Counter()
        for _ in range(rigs):
            for key, held in self.one(lot).items():
                counter[key] += 1
                covered[key] += held
        self.assertGreaterEqual(len(counter), 4)
        for key in counter:
            self.assertGreaterEqual(covered[key] / counter[key], 0.93, key)
            self.assertLessEqual(covered[key] / counter[key], 0.985, key)


if __name__ == "__main__":
    unittest.main()
