"""Proposals: re-checked by the ordinary checks on random rigs, against exhaustive search, and
infeasible ones proved so.
"""

import datetime
import itertools
import unittest
from typing import Any
from unittest.mock import patch

import numpy as np
from highspy import HighsVarType
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from noxel.core.adjust import (
    Baseline,
    Programme,
    actions,
    bar_curve,
    baseline_of,
    conditions,
    cured,
    do_steps,
    forms,
    keep,
    levers,
    propose,
    solve_model,
    state_of,
    steps_of,
    try_steps,
)
from noxel.core.editing import switch_units
from noxel.core.log import kept_answers
from noxel.core.mechanics import predict
from noxel.core.quantities import KG, LITRES
from noxel.core.rig import RigFile, Step, parse_rig
from noxel.errors import InputError
from tests import some
from tests.truth import Document, exact_rigs, rig_of

items = st.lists(
    st.tuples(
        st.sampled_from(["vehicle", "trailer"]),
        st.floats(15, 140),
        st.floats(0.15, 1.3),
        st.sampled_from(["comfort", "essential", "people", None]),
    ),
    min_size=1,
    max_size=6,
)
FIGURES = {
    "vehicle.front_axle": "front_hitched",
    "vehicle.rear_axle": "rear_hitched",
    "vehicle.gross": "vehicle_hitched",
    "combination.gross": "combination_gross",
    "trailer.axles": "trailer_axles",
    "trailer.gross": "trailer_gross",
    "hitch.tongue": "tongue_static",
}


def laden(
    exact_rig: tuple[Document, dict[str, float]], aboard: Any, tight: float
) -> Document | None:
    """An exact rig with items listed that it can carry, its ratings set so that some of them are a
    little exceeded.
    """
    document, true = exact_rig
    loads = []
    for on, kg, share, category in aboard:
        place = share * (true["a"] if on == "vehicle" else true["length"])
        loads.append(
            {
                "name": f"{on} {kg:.0f}",
                "on": on,
                "mass": kg,
                "position": place,
                **({"category": category} if category else {}),
            }
        )
    document["loads"] = loads
    document["tanks"] = [
        {
            "fluid": "fresh",
            "on": "trailer",
            "capacity": "150 l",
            "position": 0.4 * true["length"],
            "levels": {"leaving": 0.7},
        }
    ]
    try:
        predicted = predict(baseline_of(parse_rig(document)).rig)
    except InputError:
        return None
    if predicted["tongue_static"] <= 0 or baseline_of(parse_rig(document)).weighed is False:
        return None
    ratings = document["vehicle"]["ratings"]
    ratings |= {
        "gvwr": predicted["vehicle_hitched"] * tight,
        "gawr_front": predicted["front_hitched"] * 1.3,
        "gawr_rear": predicted["rear_hitched"] * tight * 1.01,
        "gcwr": predicted["combination_gross"] * 1.05,
        "tow_rating": predicted["trailer_gross"] * 1.1,
        "tongue_rating": predicted["tongue_static"] * 1.2,
    }
    document["hitch"]["parts"] = [{"kind": "receiver", "trailer": predicted["trailer_gross"] * 1.2}]
    document["trailer"]["ratings"] = {
        "gvwr": predicted["trailer_gross"] * 1.02,
        "gawr": [predicted["trailer_axles"]] * 2,
    }
    document["policy"] = {"tongue_share": [0.05, 0.22]}
    return document


def least_effort(base: Baseline) -> float | None:
    """By brute force: every set of switches that may stand together, the amounts by linear
    programming.
    """
    rows = base.checks(base.rig)
    programme = Programme(state_of(base), actions(base), conditions(base, rows))
    model = programme.model()
    model.integrality_ = [HighsVarType.kContinuous] * model.num_col_
    upper = list(model.col_upper_)
    switches = [act.columns["switch"] for act in programme.acts]
    groups: dict[tuple[str, int], list[int]] = {}
    for act in programme.acts:
        groups.setdefault(
            ("load", act.index) if act.kind in ("leave", "move", "swap") else (act.kind, act.index),
            [],
        ).append(act.columns["switch"])
    best: float | None = None
    for chosen in itertools.product(*[[None, *columns] for columns in groups.values()]):
        on = {column for column in chosen if column is not None}
        off = set(switches) - on
        model.col_lower_ = [float(column in on) for column in range(len(upper))]
        model.col_upper_ = [0.0 if column in off else high for column, high in enumerate(upper)]
        solved = solve_model(model)
        if solved is not None and (best is None or solved.cost < best):
            best = solved.cost
    return best


class Linear(unittest.TestCase):
    @given(exact_rigs(), items)
    def test_the_linear_map_is_the_lever_model(
        self, exact_rig: tuple[Document, dict[str, float]], aboard: Any
    ) -> None:
        document = laden(exact_rig, aboard, 0.97)
        if document is None:
            return
        engaged = document["weigh_ins"][0]["passes"][0]["readings"]
        engaged["rear"], engaged["trailer"] = engaged["rear"] + 20, engaged["trailer"] - 20
        base = baseline_of(parse_rig(document))
        loads, state = base.loads(base.rig), state_of(base)
        for check, (coefs, constant) in forms(base).items():
            if check in FIGURES:
                self.assertAlmostEqual(
                    float(coefs @ state) + constant, loads[FIGURES[check]], places=5, msg=check
                )


class Proposals(unittest.TestCase):
    @settings(max_examples=some(100), suppress_health_check=[HealthCheck.too_slow])
    @given(exact_rigs(), items, st.floats(0.9, 1.0), st.floats(-30, 30))
    def test_every_proposal_is_right_when_checked_again(
        self, exact_rig: tuple[Document, dict[str, float]], aboard: Any, tight: float, apart: float
    ) -> None:
        """Also where the scale found the bars to do something else than the lever model has it."""
        document = laden(exact_rig, aboard, tight)
        if document is None:
            return
        engaged = document["weigh_ins"][0]["passes"][0]["readings"]
        engaged["rear"], engaged["trailer"] = engaged["rear"] + apart, engaged["trailer"] - apart
        base = baseline_of(parse_rig(document))
        self.assertAlmostEqual(base.loads(base.rig)["rear_hitched"], engaged["rear"], places=2)
        proposals = propose(base)
        for proposal in proposals.proposals:
            changed, says = do_steps(base.rig, proposal.steps)
            self.assertTrue(cured(base.checks(changed)), says)
            tried = try_steps(base, proposal.steps)
            self.assertFalse(
                [row.check for row in tried.changes if row.now in ("over", "low", "high", "tight")]
            )
        self.assertEqual(
            [proposal.effort for proposal in proposals.proposals],
            sorted(proposal.effort for proposal in proposals.proposals),
        )

    @settings(max_examples=some(10), suppress_health_check=[HealthCheck.too_slow])
    @given(exact_rigs(), items.map(lambda found: found[:2]), st.floats(0.86, 0.99))
    def test_never_costlier_than_exhaustive_search(
        self, exact_rig: tuple[Document, dict[str, float]], aboard: Any, tight: float
    ) -> None:
        document = laden(exact_rig, aboard, tight)
        if document is None:
            return
        base = baseline_of(parse_rig(document))
        if cured(base.checks(base.rig)):
            return
        # what is moved is known exactly: the programme's own ± is all there is
        with patch("noxel.core.adjust.baseline.norms", return_value={}):
            proposals, best = propose(base), least_effort(base)
        if best is None:  # proved by search: nothing allowed does it
            self.assertEqual(proposals.proposals, [])
            self.assertTrue(proposals.unmet or proposals.movable == 0)
        elif proposals.proposals:
            self.assertLessEqual(proposals.proposals[0].effort, best + 1e-3)
        self.assertEqual(best is None, not proposals.proposals)

    @settings(max_examples=some(20), suppress_health_check=[HealthCheck.too_slow])
    @given(exact_rigs(), items.map(lambda found: found[:2]), st.floats(0.86, 0.97))
    def test_where_it_finds_nothing_neither_does_trying(
        self, exact_rig: tuple[Document, dict[str, float]], aboard: Any, tight: float
    ) -> None:
        """With the ± that the steps bring: every set of actions, each done halfway or as far as
        it goes.
        """
        document = laden(exact_rig, aboard, tight)
        if document is None:
            return
        base = baseline_of(parse_rig(document))
        proposals = propose(base)
        if proposals.proposals or not proposals.needed or proposals.given_up:
            return
        acts = actions(base)
        programme = Programme(state_of(base), acts, [])
        width = programme.columns()
        parts = {act.kind: (0.5, 1) if "amount" in act.columns else (1,) for act in acts}
        for chosen in itertools.product(*[(0, *parts[act.kind]) for act in acts]):
            values = np.zeros(width)
            for act, part in zip(acts, chosen, strict=True):
                values[act.columns["switch"]] = part > 0
                if "amount" in act.columns:
                    values[act.columns["amount"]] = part * act.most
            on = [
                act.index
                for act in acts
                if act.kind in ("leave", "move", "swap") and values[act.columns["switch"]]
            ]
            if len(on) == len(set(on)):
                changed, says = do_steps(base.rig, steps_of(base, programme, values, rounded=False))
                self.assertFalse(cured(base.checks(changed)), says)

    def test_steps_are_rounded_to_what_people_can_do_and_never_fall_short(self) -> None:
        """To an inch or 5 cm, a gallon or 5 l, 5 % of restoration; at most as far as it goes."""
        packed = rig_of("predict--packed")
        packed["tanks"] = [
            {
                "fluid": "fresh",
                "on": "trailer",
                "capacity": 40,
                "position": 200,
                "levels": {"leaving": 0.9},
            }
        ]
        for document, way, part in itertools.product(
            (packed, switch_units(packed, "kg", "cm")), (1, -1), (0.11, 0.37, 0.5, 0.93, 1.0)
        ):
            base = baseline_of(parse_rig(document))
            every = [act for act in actions(base) if act.kind in ("move", "tank", "bars")]
            chosen = {(act.kind, act.index): act for act in every[::way]}  # back, or forward
            programme = Programme(state_of(base), [*chosen.values()], [])
            values = np.zeros(programme.columns())
            for act in chosen.values():
                values[act.columns["switch"]] = 1.0
                values[act.columns["amount"]] = part * act.most
            exact, rounded = (
                steps_of(base, programme, values, rounded=each) for each in (False, True)
            )
            self.assertEqual({rounded.kind for rounded in rounded}, {"move", "tank", "bars"})
            for one, other in zip(exact, rounded, strict=True):
                done, got = _done(base.rig, one), _done(base.rig, other)
                pounds, grain = document is packed, 0.05
                limit = 1.0
                if one.kind == "move":
                    grain, limit = 0.0254 if pounds else 0.05, chosen["move", one.index or 0].most
                elif one.kind == "tank":
                    grain, limit = LITRES["gal"] if pounds else 5.0, 0.9 * 40 * LITRES["gal"]
                elif done < (base.rig.plan.front_restoration or 0.0):  # slacker: rounded down
                    self.assertTrue(done - grain <= got <= done + 1e-6, (one, other))
                    continue
                self.assertTrue(done - 1e-3 <= got <= done + grain, (one, other))
                if got < limit - 1e-3:
                    self.assertAlmostEqual(got / grain, round(got / grain), 2, str(other))

    def test_what_cannot_be_cured_names_the_limit_and_proves_it(self) -> None:
        document = rig_of("check--three-passes")
        document["loads"] = [{"name": "cooler", "on": "trailer", "mass": 40, "position": 60}]
        document["vehicle"]["geometry"] = {"wheelbase": 140, "hitch_offset": 50}
        document["trailer"]["geometry"] = {"coupler_to_axles": 220}
        document["vehicle"]["ratings"]["gawr_rear"] = 3000  # weighed at 3,680
        proposals = propose(baseline_of(parse_rig(document)))
        self.assertEqual(proposals.proposals, [])
        unmet = {unmet.check: unmet for unmet in proposals.unmet}
        self.assertIn("vehicle.rear_axle", unmet)
        self.assertIn(
            "another truck", unmet["vehicle.rear_axle"].says.replace("tow vehicle", "truck")
        )
        self.assertTrue(
            any("still above its limit of 3,000 lb" in line for line in proposals.proof),
            proposals.proof,
        )

    def test_never_is_never(self) -> None:
        document = rig_of("check--three-passes")
        document["vehicle"]["geometry"] = {"wheelbase": 140, "hitch_offset": 50}
        document["trailer"]["geometry"] = {"coupler_to_axles": 220}
        document["plan"] = {"bars_effort": "never"}
        document["loads"] = [
            {
                "name": "telescope",
                "on": "trailer",
                "mass": 400,
                "position": 40,
                "effort": {"leave": "never", "move": "never", "swap": "never"},
            }
        ]
        proposals = propose(baseline_of(parse_rig(document)))
        self.assertEqual((proposals.proposals, proposals.movable), ([], 0))
        self.assertIn("Nothing may be moved", proposals.says)


def _done(rig: RigFile, step: Step) -> float:
    """How far a step goes: metres moved, litres drained, a share restored."""
    if step.kind == "move" and step.index is not None and step.position is not None:
        place = rig.loads[step.index].position
        return abs(step.position.m - (place.m if place else 0.0))
    level = step.level or 0.0
    if step.kind == "tank" and step.index is not None:
        tank = rig.tanks[step.index]
        return (tank.level("leaving") - level) * tank.capacity.litres
    return level


class OnTheBench(unittest.TestCase):
    def setUp(self) -> None:
        document = rig_of("check--three-passes")
        document["vehicle"]["geometry"] = {"wheelbase": 140, "hitch_offset": 50}
        document["trailer"]["geometry"] = {"coupler_to_axles": 220}
        document["loads"] = [{"name": "books", "on": "trailer", "mass": 220, "position": 44}]
        self.document = document
        self.base = baseline_of(parse_rig(document))

    def test_leaving_and_moving_by_hand(self) -> None:
        """220 lb at 44 in of 220: 176 lb of it on the tongue; moved over the axles, none."""
        lb = KG["lb"]
        left = try_steps(self.base, [Step(kind="leave", index=0)])
        self.assertAlmostEqual(
            left.loads_after["trailer_gross"] - left.loads_before["trailer_gross"], -220
        )
        self.assertAlmostEqual(
            left.loads_after["tongue_static"] - left.loads_before["tongue_static"], -176
        )
        step = Step.model_validate({"kind": "move", "index": 0, "position": f"{220 * 0.0254} m"})
        moved = try_steps(self.base, [step])
        self.assertAlmostEqual(
            moved.loads_after["trailer_gross"], moved.loads_before["trailer_gross"]
        )
        self.assertAlmostEqual(
            moved.loads_after["tongue_static"] - moved.loads_before["tongue_static"], -176
        )
        self.assertIn("14.7 ft back", moved.says[0])
        self.assertAlmostEqual(
            moved.loads_before["trailer_gross"] * lb, predict(self.base.rig)["trailer_gross"]
        )

    def test_steps_that_cannot_be_done_are_named(self) -> None:
        for step in (
            Step(kind="leave", index=9),
            Step(kind="move", index=0),
            Step(kind="tank", index=0, level=1),
            Step(kind="add", on="vehicle"),
        ):
            with self.assertRaises(InputError) as caught:
                try_steps(self.base, [Step(kind="take", index=0), step])
            self.assertEqual(caught.exception.problems[0].path, "steps[1]")

    def test_levers_and_bars(self) -> None:
        rows = self.base.checks(self.base.rig)
        by_name = {lever.check: lever for lever in levers(self.base, rows)}
        rear = by_name["vehicle.rear_axle"]
        nose = next(
            route for route in rear.routes if "nose" in route.name and route.name.startswith("off")
        )
        state = state_of(self.base)
        self.assertTrue(nose.amount and nose.amount > 0 and np.isfinite(state).all())
        curve = bar_curve(self.base, rows)
        assert curve  # noqa: S101
        self.assertLess(curve.points[-1].rear, curve.points[0].rear)
        # full restoration: the front axle's solo load
        self.assertAlmostEqual(curve.points[-1].front, curve.front_solo)
        said = 0
        for check, label in (
            ("vehicle.rear_axle", "Rear axle"),
            ("tires.rear", "Rear tires"),
            ("vehicle.gross", "Tow vehicle, loaded"),
            ("vehicle.payload", "Payload"),
        ):
            line = next(
                (
                    sentence
                    for sentence in curve.says
                    if sentence.startswith(f"{label}: within from")
                ),
                None,
            )
            # tightened so far in a plan, the check is on its limit, but for the rounding of the per
            # cent
            if line is not None:
                part = float(line.split("from ")[1].split(" %")[0]) / 100
                tried, _ = do_steps(self.base.rig, [Step(kind="bars", level=part)])
                row = next(row for row in self.base.checks(tried) if row.id == check)
                assert row.limit  # noqa: S101
                self.assertAlmostEqual((row.margin or 0.0) / row.limit.kg, 0.0, delta=0.005)
                said += 1
        self.assertGreaterEqual(said, 1, curve.says)
        totals = [point.front + point.rear + point.trailer for point in curve.points]
        self.assertAlmostEqual(max(totals), min(totals))

    def test_did_the_cure_do_what_was_predicted(self) -> None:

        plan = keep(
            self.base, "books at home", [Step(kind="leave", index=0)], datetime.date(2026, 5, 1)
        )
        rig = parse_rig(self.document).model_copy(update={"kept_plans": (plan,)})
        later = rig.weigh_ins[0].model_copy(update={"date": datetime.date(2026, 6, 1)})
        before = rig.weigh_ins[0].model_copy(update={"date": datetime.date(2026, 4, 1)})
        self.assertIsNone(kept_answers(rig.model_copy(update={"weigh_ins": (before,)}))[0].weigh_in)
        answer = kept_answers(rig.model_copy(update={"weigh_ins": (before, later)}))[0]
        self.assertEqual(answer.weigh_in, 2)
        # weighed again with the books still aboard
        self.assertIn("was measured", answer.verdict_says)
