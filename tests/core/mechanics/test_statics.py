"""The lever model: hand calculations, balance of forces and moments, and its own inverse."""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.match import ceiling
from noxel.core.mechanics import SUMS, Levers, State, load, loads, planned, predict, statics
from noxel.core.quantities import nominal
from noxel.core.rig import parse_rig
from noxel.errors import GeometryError, MissingInput
from tests.truth import rig_of

lengths = st.floats(0.5, 12)
offsets = st.floats(-1, 2)
masses = st.floats(0, 5000)


def kg_of(state: State, key: str) -> float:
    """A load that is known. [kg]"""
    kg = load(state, key)
    assert kg is not None  # noqa: S101
    return kg


class ByMoments(unittest.TestCase):
    def test_by_hand(self) -> None:
        # 400 kg on a ball 1.2 m behind the rear axle of a 3.6 m wheelbase: 400 × 1.2 / 3.6 = 133.33
        # off the front
        levers = Levers(3.6, 1.2, 5.0)
        coupled = levers.on_hitch(400)
        self.assertAlmostEqual(kg_of(coupled, "front_hitched"), -133.3333333)
        self.assertAlmostEqual(kg_of(coupled, "rear_hitched"), 533.3333333)
        # 90 kg, 2 m behind the coupler, axles at 5 m: 90 × 3/5 on the tongue
        self.assertAlmostEqual(kg_of(levers.in_trailer(90, 180), "tongue_static"), 54)
        # a lever: 80 kg at 2.5 m against 0.8 m, beam 10 kg with its middle 0.6 m out: (200 + 6) /
        # 0.8
        self.assertAlmostEqual(nominal(statics.lever_tongue(80, 2.5, 0.8, 10, 0.6)), 257.5)
        # a beam: (163 − 8) kg × 1.2 m / 0.4 m
        self.assertAlmostEqual(nominal(statics.beam_tongue(163, 8, 1.2, 0.4)), 465)

    @given(masses, st.floats(0, 1), offsets, lengths, lengths)
    def test_hitched_loads_balance(
        self, tongue: float, restored: float, b: float, a: float, length: float
    ) -> None:
        change = Levers(a, b, length, restored).on_hitch(tongue)
        front, rear = (kg_of(change, f"{axle}_hitched") for axle in ("front", "rear"))
        moment = restored * tongue * b / (1 + b / length)  # what the bars apply
        net = tongue - moment / length
        self.assertAlmostEqual(front + rear, net, places=6)
        self.assertAlmostEqual(kg_of(change, "trailer_axles"), -net, places=6)
        # moments about the front axle: rear·a carries T_net at a + b, less the bars' moment
        self.assertAlmostEqual(rear * a, net * (a + b) - moment, places=4)

    @given(st.floats(10, 800), st.floats(0, 1), st.floats(0.3, 2), lengths, lengths)
    def test_moments_bring_the_tongue_back(
        self, tongue: float, restored: float, b: float, a: float, length: float
    ) -> None:
        change = Levers(a, b, length, restored).on_hitch(tongue)
        front, rear = (kg_of(change, f"{axle}_hitched") for axle in ("front", "rear"))
        again = nominal(statics.tongue_by_moments(front + rear, front, b, a, length))
        self.assertAlmostEqual(again, tongue, places=5)

    @given(st.floats(0, 1), st.floats(10, 800), st.floats(0.3, 2), lengths, lengths)
    def test_tightened_bars_give_back_what_a_share_says(
        self, share: float, tongue: float, b: float, a: float, length: float
    ) -> None:
        levers = Levers(a, b, length, share)
        slack, set_by_share = levers.on_hitch(tongue, restored=0.0), levers.on_hitch(tongue)
        tightened = slack.plus(levers.tighten(share * tongue * b / a))
        for key in SUMS:
            self.assertAlmostEqual(kg_of(tightened, key), kg_of(set_by_share, key), places=6)
        back = kg_of(set_by_share, "front_hitched") - kg_of(slack, "front_hitched")
        self.assertAlmostEqual(back, -share * kg_of(slack, "front_hitched"), places=6)

    @given(masses, masses, st.floats(0, 6), lengths, offsets, lengths, st.sampled_from(range(3)))
    def test_what_is_not_known_is_not_guessed(
        self, mass: float, tongue: float, x: float, a: float, b: float, length: float, without: int
    ) -> None:
        """Without a length, what needs it is None and the rest is as with it."""
        whole = [a, b, length]
        some: list[Any] = [*whole]
        some[without] = None
        levers, fewer = Levers(a, b, length), Levers(*some)
        for shown, other in (
            (levers.on_hitch(tongue), fewer.on_hitch(tongue)),
            (levers.item("vehicle", mass, mass * x), fewer.item("vehicle", mass, mass * x)),
            (levers.item("trailer", mass, mass * x), fewer.item("trailer", mass, mass * x)),
        ):
            for key, kg in loads(other).items():
                if kg is not None:
                    self.assertEqual(kg, kg_of(shown, key))
            self.assertIsNotNone(loads(other)["combination_gross"])

    def test_impossible_lengths(self) -> None:
        for coupler in (0.0, -1.0, float("inf"), float("nan")):
            with self.subTest(coupler), self.assertRaises(GeometryError):
                statics.tongue_by_moments(100, -30, 1.0, 3.6, coupler)

    def test_what_is_missing_is_named(self) -> None:
        cuts: tuple[tuple[str, tuple[Any, ...]], ...] = (
            ("plan.vehicle_base.rear", ("plan", "vehicle_base", "rear")),
            ("vehicle.geometry.wheelbase", ("vehicle", "geometry", "wheelbase")),
            ("loads[0].position", ("loads", 0, "position")),
            ("trailer.dry_tongue", ("trailer", "dry_tongue")),
        )
        for path, cut in cuts:
            document = rig_of("predict--packed")
            node: Any = document
            for key in cut[:-1]:
                node = node[key]
            del node[cut[-1]]
            with self.subTest(path), self.assertRaises(MissingInput) as caught:
                predict(parse_rig(document))
            self.assertEqual(caught.exception.problems[0].path, path)

    @given(st.floats(0.05, 0.3))
    def test_at_the_ceiling_the_binding_limit_is_met(self, share: float) -> None:
        document = rig_of("ceiling--how-much")
        document["plan"]["tongue_share"] = share
        rig = parse_rig(document)
        found = ceiling(rig)
        self.assertEqual(found.ceiling, min(found.limits.values()))
        # couple a trailer of each limit's own weight, slack: that limit is then used to the last
        # pound
        plan, ratings = planned(rig), rig.vehicle.ratings
        tongue = found.limits["vehicle.rear_axle"] * share
        solo = plan.solo()
        assert ratings.gawr_rear and ratings.gvwr and ratings.gcwr  # noqa: S101
        rear = kg_of(solo.plus(plan.levers.on_hitch(tongue, restored=0.0)), "rear_hitched")
        self.assertAlmostEqual(rear, ratings.gawr_rear.kg, places=6)
        gross = kg_of(solo, "vehicle_solo") + found.limits["vehicle.gross"] * share
        self.assertAlmostEqual(gross, ratings.gvwr.kg, places=6)
        combined = kg_of(solo, "vehicle_solo") + found.limits["combination.gross"]
        self.assertAlmostEqual(combined, ratings.gcwr.kg, places=6)
