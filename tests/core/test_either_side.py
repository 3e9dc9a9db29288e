"""Either side of what counts, in many rooms. Expected: by hand, as each test says."""

import datetime
import math
import unittest
from typing import Any, get_args

from noxel.core.adjust import TypedStep, baseline_of, do_steps, keep, read_step, state_of
from noxel.core.editing import Change, apply_changes
from noxel.core.evaluate import evaluate
from noxel.core.log import kept_answers
from noxel.core.match import how_much
from noxel.core.mechanics import predict, uncertainty
from noxel.core.plates import evaluate_plates
from noxel.core.practice.challenge import BUDGET
from noxel.core.practice.rigs import RigKind, make_rig
from noxel.core.rig import parse_rig
from noxel.errors import InputError
from tests.truth import rig_of

DAY = datetime.date(2026, 6, 1)


def caravan(**vehicle_and_trailer: Any) -> dict[str, Any]:
    """A European rig in whole kilograms, of which nothing else is known."""
    return {
        "format": "noxel-rig",
        "version": 1,
        "kind": "conventional",
        "terms": "europe",
        "units": {"mass": "kg", "length": "cm"},
        "vehicle": {"ratings": {"gvwr": 2500}},
        "trailer": {"ratings": {"gvwr": 1500}},
        **vehicle_and_trailer,
    }


class EitherSide(unittest.TestCase):
    def codes(self, document: dict[str, Any]) -> dict[str, str]:
        return {each.code: each.message for each in evaluate(parse_rig(document)).advisories}

    def test_brakes_are_asked_for_above_the_mass_and_not_at_it(self) -> None:
        for above, asked in ((1500, False), (1499, True)):
            rig = parse_rig(caravan(policy={"brakes_above": above}))
            lines = {each.code for each in evaluate_plates(rig, evaluate(rig)).ready}
            self.assertEqual("brakes_law" in lines, asked, above)

    def test_a_licence_covers_as_much_as_it_says(self) -> None:
        """2,500 + 1,750 = 4,250 kg, which B96 covers still."""
        for trailer, kind in ((1750, "B96"), (1751, "BE")):
            document = caravan(trailer={"ratings": {"gvwr": trailer}}, weigh_ins=[WEIGHED])
            self.assertIn(f"{kind} covers", self.codes(document)["licence_masses"])
        light = caravan(trailer={"ratings": {"gvwr": 750}}, weigh_ins=[WEIGHED])
        self.assertNotIn("licence_masses", self.codes(light))

    def test_a_reading_of_zero_is_no_reading(self) -> None:
        for reading, asked in ((0, True), (1, False)):
            document = rig_of("check--three-passes")
            document["weigh_ins"][0]["passes"][0]["readings"]["front"] = reading
            self.assertEqual("reading_zero" in self.codes(document), asked, reading)

    def test_a_kept_plan_did_what_was_predicted_within_twice_the_scales_error(self) -> None:
        document = rig_of("check--three-passes")
        found = evaluate(parse_rig(document)).derived.combination_gross
        assert found  # noqa: S101
        for off, says in ((1.99, "within"), (-1.99, "within"), (2.01, "below"), (-2.01, "above")):
            plan = {
                "name": "books at home",
                "date": "2026-05-01",
                "steps": [],
                "said": [],
                "predicted": {"combination_gross": found.value + off * found.plus_minus},
            }
            document["kept_plans"] = [plan]
            document["weigh_ins"][0]["date"] = "2026-06-01"
            self.assertIn(says, kept_answers(parse_rig(document))[0].verdict_says, off)

    def test_what_the_bars_moved_is_known_by_four_readings(self) -> None:
        """The pass of the vehicle alone cancels: four readings in steps of 20 lb, u = √4 · 20/√12.
        (2,440 + 3,880) − (2,580 + 3,680) = 60.
        """
        moved = evaluate(parse_rig(rig_of("check--three-passes"))).bars_moved
        assert moved  # noqa: S101
        self.assertAlmostEqual(moved.value, 60)
        self.assertAlmostEqual(
            moved.plus_minus, 2 * 2 * 20 / math.sqrt(12), places=2
        )  # its gain: 60

    def test_an_emptied_part_goes_with_its_last_figure(self) -> None:
        document = caravan(vehicle={"ratings": {"gvwr": 2500}, "name": "Heron"})
        made = apply_changes(document, [Change("vehicle.ratings.gvwr", "")]).document
        self.assertEqual(made["vehicle"], {"name": "Heron"})

    def test_more_drop_lowers_the_ball(self) -> None:
        """63 − 4 = 59 cm."""
        rig = parse_rig(caravan(hitch={"ball_height": 63, "parts": [{"kind": "ball"}]}))
        step = read_step(rig, TypedStep(kind="drop", place="4 cm"))
        changed, said = do_steps(rig, [step])
        height = changed.hitch.ball_height
        self.assertAlmostEqual(height.m if height else 0, 0.59)
        self.assertIn("more drop", said[0])
        with self.assertRaisesRegex(InputError, "how much lower"):
            do_steps(rig, [read_step(rig, TypedStep(kind="drop", place="63 cm"))])

    def test_bars_of_which_nothing_is_said_have_no_moment(self) -> None:
        document = rig_of("check--three-passes")
        document.pop("plan", None)
        state = state_of(baseline_of(parse_rig(document), 1).rig)
        self.assertEqual(len(state), 5)
        bare = {**document, "hitch": {**document["hitch"], "weight_distribution": False}}
        for each in bare["weigh_ins"][0]["passes"]:
            each.pop("spring_bars", None)
        self.assertEqual(state_of(baseline_of(parse_rig(bare), 1).rig)[4], 0)

    def test_a_hitch_that_was_weighed_with_the_base_adds_nothing_to_the_error(self) -> None:
        """The base's rear is ± 24. A hitch of 400 kg, its source not said, is ± 40, and its lever
        makes that 40 · (290 + 110)/290 = 55.2 on the rear axle; √(24² + 55.2²) = 60.2.
        """
        for fitted, off in ((True, 24.0), (False, 60.2)):
            base = {**BASE["plan"]["vehicle_base"], "hitch_fitted": fitted}
            made = {
                **BASE,
                "hitch": {"weight": 400},
                "plan": {**BASE["plan"], "vehicle_base": base},
            }
            rig = parse_rig(made)
            self.assertAlmostEqual(
                uncertainty(rig, dict(predict(rig)))["rear_solo"], off, delta=0.1
            )

    def test_a_combination_rated_as_much_as_its_vehicle_is_odd_and_not_wrong(self) -> None:
        """It leaves a trailer nothing; that once divided by zero."""
        for gcwr, wrong in ((2500, False), (2499, True)):
            found = evaluate(parse_rig(caravan(vehicle={"ratings": {"gvwr": 2500, "gcwr": gcwr}})))
            codes = {each.code for each in found.plates}
            self.assertEqual("gcwr_below_gvwr" in codes, wrong, gcwr)

    def test_the_lower_of_group_and_axles_is_what_the_tires_must_carry(self) -> None:
        """Four tires of 380 kg carry 1,520."""
        for gawr, group, less in (
            ([1500], 2000, False),
            ([1600], 1500, False),
            ([1600], 1530, True),
            ([], 1530, True),
            ([], 1510, False),
        ):
            ratings = {"gawr": gawr, "axle_group": group}
            trailer = {"ratings": ratings, "tires": {"count": 4, "max_load": 380}}
            rig = parse_rig(caravan(trailer=trailer))
            (tires,) = evaluate_plates(rig, evaluate(rig)).tires
            said = any("carry less than" in each for each in tires.says)
            self.assertEqual(said, less, (gawr, group))

    def test_what_a_dry_weight_leaves_out_is_named_in_the_working(self) -> None:
        extras = [{"name": "awning", "mass": 30, "counted": False}, {"mass": 20, "counted": False}]
        rig = parse_rig(caravan(trailer={"dry_weight": 1100, "dry_extras": extras}))
        lines = [
            (line.label, line.value)
            for each in evaluate(rig).working.values()
            for line in each.lines
        ]
        self.assertIn(("awning", 30), lines)
        self.assertIn(("extra", 20), lines)

    def test_all_of_the_trailer_on_the_hitch_leaves_its_wheels_nothing(self) -> None:
        """Of 1,050 lb that the hitch may carry, a share of 1 leaves a trailer of 1,050 at most."""
        found = how_much(parse_rig(rig_of("check--three-passes")), share=1.0)
        heaviest = {each.check: each.heaviest for each in found.bars}
        self.assertAlmostEqual(heaviest["hitch.tongue"], 1050)
        self.assertNotIn("trailer.axles", heaviest)

    def test_a_harder_challenge_gives_less_time_and_money(self) -> None:
        self.assertTrue(all(hard < easy for hard, easy in zip(BUDGET[3], BUDGET[1], strict=True)))

    def test_invented_rigs_are_such_as_there_are(self) -> None:
        """Ball hitches hang 0.9 to 1.5 m behind the rear axle (a motorhome's to 2.7 m), a pin is
        within 0.2 m of it; wheelbases are 2.5 to 7 m; a trailer's axles stand 2 to 10 m back.
        """
        hangs = {"pin": (-0.2, 0.2), "motorhome": (2.0, 2.7)}
        for kind in get_args(RigKind):
            low, high = hangs.get(kind, (0.9, 1.5))
            for seed in range(25):
                rig = make_rig(kind, str(seed))
                at = rig.vehicle.geometry
                offset = at.hitch_offset.m if at.hitch_offset else 0.0
                self.assertTrue(low <= offset <= high, (kind, seed, offset))
                base = at.wheelbase.m if at.wheelbase else 0.0
                self.assertTrue(2.5 <= base <= 7, (kind, seed, base))
                back = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
                self.assertTrue(2 <= (back.m if back else 2) <= 10, (kind, seed, back))


WEIGHED = {
    "scale": {"resolution": 10},
    "passes": [{"config": "hitched", "readings": {"front": 1000, "rear": 1100, "trailer": 1200}}],
}
BASE = caravan(
    vehicle={"ratings": {"gvwr": 2500}, "geometry": {"wheelbase": 290, "hitch_offset": 110}},
    trailer={"ratings": {"gvwr": 1500}, "geometry": {"coupler_to_axles": 420}},
    plan={
        "vehicle_base": {"front": 1000, "rear": 800},
        "trailer_base": {"gross": 1200, "tongue": 80},
    },
)


class Kept(unittest.TestCase):
    def test_a_plan_is_kept_with_its_steps_in_words(self) -> None:
        document = {
            **BASE,
            "loads": [{"name": "books", "on": "vehicle", "mass": 50, "position": 200}],
        }
        base = baseline_of(parse_rig(document))
        step = read_step(base.rig, TypedStep(kind="leave", index=0))
        kept = keep(base, "books at home", [step], DAY)
        self.assertIn("books", " ".join(kept.said))
        key = "vehicle_hitched"
        before, after = dict(predict(base.rig))[key], kept.predicted[key].kg
        self.assertAlmostEqual(before - after, 50)


if __name__ == "__main__":
    unittest.main()
