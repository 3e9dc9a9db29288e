"""The lever model: hand calculations, balance of forces and moments, and its own inverse."""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.match import ceiling
from noxel.core.mechanics import predict, predict_solo, statics
from noxel.core.rig import parse_rig
from noxel.errors import GeometryError, MissingInput
from tests.truth import rig_of

lengths = st.floats(0.5, 12)
offsets = st.floats(-1, 2)
masses = st.floats(0, 5000)


class Levers(unittest.TestCase):
    def test_by_hand(self) -> None:
        # 400 kg on a ball 1.2 m behind the rear axle of a 3.6 m wheelbase: 400 × 1.2 / 3.6 = 133.33
        # off the front
        change = statics.ball_load_transfer(400, 1.2, 3.6)
        self.assertAlmostEqual(change.front, -133.3333333)
        self.assertAlmostEqual(change.rear, 533.3333333)
        # 90 kg, 2 m behind the coupler, axles at 5 m: 90 × 3/5 on the tongue
        self.assertAlmostEqual(statics.item_on_tongue(90, 2, 5), 54)
        # a lever: 80 kg at 2.5 m against 0.8 m, beam 10 kg with its middle 0.6 m out: (200 + 6) /
        # 0.8
        self.assertAlmostEqual(statics.lever_tongue(80, 2.5, 0.8, 10, 0.6), 257.5)
        # a beam: (163 − 8) kg × 1.2 m / 0.4 m
        self.assertAlmostEqual(statics.beam_tongue(163, 8, 1.2, 0.4), 465)

    @given(masses, masses, offsets, lengths, lengths)
    def test_hitched_loads_balance(
        self, tongue: float, moment: float, b: float, a: float, length: float
    ) -> None:
        change = statics.hitched_change(tongue, moment, b, a, length)
        self.assertAlmostEqual(change.front + change.rear, tongue - moment / length, places=6)
        # moments about the front axle: rear·a carries T_net at a + b, less the bars' moment
        self.assertAlmostEqual(
            change.rear * a, (tongue - moment / length) * (a + b) - moment, places=4
        )

    @given(st.floats(10, 800), st.floats(0, 2000), st.floats(0.3, 2), lengths, lengths)
    def test_moments_bring_the_tongue_back(
        self, tongue: float, moment: float, b: float, a: float, length: float
    ) -> None:
        change = statics.hitched_change(tongue, moment, b, a, length)
        found = statics.tongue_by_moments(change.front + change.rear, change.front, b, a, length)
        self.assertAlmostEqual(found, tongue, places=5)

    @given(st.floats(0, 1), st.floats(10, 800), st.floats(0.3, 2), lengths, lengths)
    def test_restoration_is_what_it_says(
        self, share: float, tongue: float, b: float, a: float, length: float
    ) -> None:
        slack = statics.hitched_change(tongue, 0.0, b, a, length).front
        engaged = statics.hitched_change(
            tongue, statics.bar_moment(share, tongue, b, length), b, a, length
        ).front
        self.assertAlmostEqual(engaged - slack, -share * slack, places=6)

    def test_impossible_lengths(self) -> None:
        for wheelbase in (0.0, -1.0, float("inf"), float("nan")):
            with self.subTest(wheelbase), self.assertRaises(GeometryError):
                statics.split_item(100, 1, wheelbase)

    def test_what_is_missing_is_named(self) -> None:
        cuts: tuple[tuple[str, tuple[Any, ...]], ...] = (
            ("plan.vehicle_base.rear", ("plan", "vehicle_base", "rear")),
            ("vehicle.geometry.wheelbase", ("vehicle", "geometry", "wheelbase")),
            ("loads[0].position", ("loads", 0, "position")),
            ("trailer.dry_tongue", ("trailer", "dry_tongue")),
        )
        for path, cut in cuts:
            document = rig_of("predict--packed")
            here: Any = document
            for key in cut[:-1]:
                here = here[key]
            del here[cut[-1]]
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
        solo, ratings, geometry = predict_solo(rig), rig.vehicle.ratings, rig.vehicle.geometry
        tongue = found.limits["vehicle.rear_axle"] * share
        assert solo.rear is not None and solo.gross is not None  # noqa: S101
        assert geometry.hitch_offset and geometry.wheelbase  # noqa: S101
        assert ratings.gawr_rear and ratings.gvwr and ratings.gcwr  # noqa: S101
        b, a = geometry.hitch_offset.m, geometry.wheelbase.m
        rear = solo.rear + statics.ball_load_transfer(tongue, b, a).rear
        self.assertAlmostEqual(rear, ratings.gawr_rear.kg, places=6)
        gross = solo.gross + found.limits["vehicle.gross"] * share
        self.assertAlmostEqual(gross, ratings.gvwr.kg, places=6)
        combined = solo.gross + found.limits["combination.gross"]
        self.assertAlmostEqual(combined, ratings.gcwr.kg, places=6)
