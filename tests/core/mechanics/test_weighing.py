"""Weighing: conservation, units, uncertainty, traps. Expected values: exact synthetic rigs, and
hand calculation.
"""

import copy
import math
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from noxel.core.evaluate import evaluate
from noxel.core.mechanics import weigh
from noxel.core.quantities import KG
from noxel.core.rig import parse_rig
from tests import some
from tests.truth import Document, exact_rigs, rig_of

RANK = {"within": 0, "tight": 1, "over": 2}


def in_pounds(document: Document) -> Document:
    """The same rig with every bare mass written in pounds."""
    copy_of_it = copy.deepcopy(document)
    copy_of_it["units"]["mass"] = "lb"

    def convert(node: Any, key: str = "") -> Any:
        if isinstance(node, dict):
            return {
                name: node[name]
                if name in ("geometry", "units", "version")
                else convert(node[name], name)
                for name in node
            }
        if isinstance(node, list):
            return [convert(here, key) for here in node]
        return (
            node / KG["lb"]
            if isinstance(node, int | float) and not isinstance(node, bool)
            else node
        )

    return convert(copy_of_it)  # type: ignore[no-any-return]


class ExactRigs(unittest.TestCase):
    @given(exact_rigs())
    def test_the_truth_comes_back(self, exact_rig: tuple[Document, dict[str, float]]) -> None:
        document, true = exact_rig
        rig = parse_rig(document)
        figures = weigh(rig, rig.weigh_ins[0]).figures
        self.assertAlmostEqual(figures["tongue_static"].value, true["tongue"], places=6)
        self.assertAlmostEqual(figures["trailer_gross"].value, true["gross"], places=6)
        self.assertAlmostEqual(
            figures["trailer_transfer"].value, true["moment"] / true["length"], places=6
        )
        # load is conserved: what leaves the vehicle when the bars are tensioned arrives on the
        # trailer's axles
        moved = figures["tongue_static"].value - figures["tongue_net"].value
        self.assertAlmostEqual(moved, figures["trailer_transfer"].value, places=6)
        self.assertAlmostEqual(
            figures["front_transfer"].value + figures["rear_transfer"].value,
            figures["tongue_net"].value,
        )

    @given(exact_rigs())
    def test_three_passes_and_moments_agree(
        self, exact_rig: tuple[Document, dict[str, float]]
    ) -> None:
        document, true = exact_rig
        del document["weigh_ins"][0]["passes"][1]
        rig = parse_rig(document)
        found = weigh(rig, rig.weigh_ins[0])
        self.assertEqual(found.tongue_source, "moment")
        self.assertAlmostEqual(found.figures["tongue_static"].value, true["tongue"], places=5)

    @given(exact_rigs())
    def test_the_unit_of_entry_never_changes_a_status(
        self, exact_rig: tuple[Document, dict[str, float]]
    ) -> None:
        document, _ = exact_rig
        kilograms, pounds = evaluate(parse_rig(document)), evaluate(parse_rig(in_pounds(document)))
        self.assertEqual(
            {row.id: row.status for row in kilograms.checks},
            {row.id: row.status for row in pounds.checks},
        )
        self.assertEqual(kilograms.verdict, pounds.verdict)

    @settings(max_examples=some(50))
    @given(exact_rigs(), st.floats(1, 900), st.sampled_from(["front", "rear", "trailer"]))
    def test_more_mass_never_heals(
        self, exact_rig: tuple[Document, dict[str, float]], mass: float, where: str
    ) -> None:
        document, _ = exact_rig
        before = {row.id: row.status for row in evaluate(parse_rig(document)).checks}
        for each in document["weigh_ins"][0]["passes"]:
            if where in each["readings"]:
                each["readings"][where] += mass
        for row in evaluate(parse_rig(document)).checks:
            if row.id != "tongue.share" and before[row.id] in RANK and row.status in RANK:
                self.assertGreaterEqual(RANK[row.status], RANK[before[row.id]], row.id)

    @given(exact_rigs(), st.floats(0.05, 0.9))
    def test_finer_graduation_shrinks_the_error(
        self, exact_rig: tuple[Document, dict[str, float]], finer: float
    ) -> None:
        document, _ = exact_rig
        document["weigh_ins"][0]["scale"]["accuracy"] = 0.001
        coarse = weigh(rig := parse_rig(document), rig.weigh_ins[0]).figures
        document["weigh_ins"][0]["scale"]["resolution"] *= finer
        document["weigh_ins"][0]["scale"]["accuracy"] *= finer  # both errors of the scale
        fine = weigh(rig := parse_rig(document), rig.weigh_ins[0]).figures
        for key, figure in coarse.items():
            self.assertAlmostEqual(
                fine[key].plus_minus,
                figure.plus_minus * finer,
                delta=1e-6 * figure.plus_minus + 1e-12,
            )


class AtTheEdge(unittest.TestCase):
    def status(
        self, rear: float, limit: float, school: str = "plate", cushion: float | None = None
    ) -> str:
        document = rig_of("check--motorhome")
        document["vehicle"]["ratings"]["gawr_rear"] = limit
        document["weigh_ins"][0]["passes"][0]["readings"]["rear"] = rear
        document["policy"] = {
            "school": school,
            **({"cushions": {"vehicle.rear_axle": cushion}} if cushion else {}),
        }
        return next(
            row.status
            for row in evaluate(parse_rig(document)).checks
            if row.id == "vehicle.rear_axle"
        )

    def test_status_rule(self) -> None:
        # ± of one 20 lb reading at 3,986 lb, its scale within 0.1 %: 2·√(20²/12 + 3.986²) = 14.03
        # lb
        pm = 2 * math.hypot(20 / math.sqrt(12), 3.986)
        self.assertEqual(self.status(4000, 4000), "tight", "exactly at the rating is not over")
        self.assertEqual(self.status(4000.001, 4000), "over")
        self.assertEqual(self.status(4000 - pm + 0.02, 4000), "tight")
        self.assertEqual(self.status(4000 - pm - 0.02, 4000), "within")
        self.assertEqual(self.status(3700, 4000, cushion=0.9), "tight")
        self.assertEqual(self.status(3600, 4000, cushion=0.9), "within")

    def test_a_part_in_kilograms_is_the_same_load(self) -> None:
        document = rig_of("check--motorhome")
        document["weigh_ins"][0]["passes"][0]["readings"] = {
            "front": "3110 lb",
            "rear": f"{2390 * 0.45359237} kg",
        }
        vehicle_hitched = evaluate(parse_rig(document)).derived.vehicle_hitched
        self.assertAlmostEqual(vehicle_hitched.value if vehicle_hitched else 0, 5500, places=6)


class Traps(unittest.TestCase):
    """Each trap of the scale yard is caught by its code, beside its field; none of them changes the
    verdict's arithmetic.
    """

    def codes(self, change: Any, name: str = "check--three-passes") -> dict[str, str | None]:
        document = rig_of(name)
        change(document["weigh_ins"][0]["passes"], document)
        advisories = evaluate(parse_rig(document), 1).advisories
        return {entry.code: entry.path for entry in reversed(advisories)}

    def test_traps(self) -> None:
        def swapped(passes: Any, _: Any) -> None:
            passes[0]["printed_gross"] = 13580 + 90

        def misread(passes: Any, _: Any) -> None:
            passes[0]["printed_gross"] = 13000

        def kilograms(passes: Any, _: Any) -> None:
            passes[2]["unit"] = "kg"

        def backwards(passes: Any, _: Any) -> None:
            passes[2]["readings"] = {"front": 2600, "rear": 4100}

        def tightened(passes: Any, _: Any) -> None:
            passes[0]["readings"].update(front=2900, rear=3360)

        def lost(passes: Any, _: Any) -> None:
            passes[1]["readings"]["rear"] -= 160

        def typo(passes: Any, _: Any) -> None:
            passes[0]["readings"]["rear"] = 36800

        def wrong_platform(passes: Any, document: Any) -> None:
            document["hitch"]["weight_distribution"] = False
            passes[:] = [
                {
                    **passes[1],
                    "spring_bars": "none",
                    "readings": {"front": 2900, "rear": 3420, "trailer": 7260},
                },
                passes[2],
            ]

        def drove_off(passes: Any, _: Any) -> None:
            passes[0]["readings"]["trailer"] = 3660

        def light_nose(passes: Any, _: Any) -> None:
            passes[0]["readings"].update(front=2400)

        def soft_tires(_: Any, document: Any) -> None:
            document["vehicle"]["tires"]["rear"] |= {
                "pressure": "60 psi",
                "table": [
                    {"pressure": "60 psi", "load": 1750},
                    {"pressure": "65 psi", "load": 1850},
                ],
            }

        def beyond_the_table(_: Any, document: Any) -> None:
            document["vehicle"]["tires"]["rear"]["table"] = [{"pressure": "60 psi", "load": 1839}]

        def other_way_round(passes: Any, document: Any) -> None:
            # 60 % on the front axle, empty
            document["plan"] = {"vehicle_base": {"front": 3000, "rear": 2000}}
            passes[2]["readings"] = {"front": 2400, "rear": 3400}  # 41 %: 59 % when exchanged

        def old_ticket(_: Any, document: Any) -> None:
            document["weigh_ins"].append({**document["weigh_ins"][0], "date": "2024-05-04"})

        def ticket_typed_twice(passes: Any, _: Any) -> None:
            passes[2]["readings"] = {k: passes[0]["readings"][k] for k in ("front", "rear")}
            passes[0]["readings"] = passes[2]["readings"]

        def one_number(passes: Any, _: Any) -> None:
            passes[1]["ticket_number"] = passes[0]["ticket_number"] = "4711"

        def half_on(passes: Any, document: Any) -> None:
            del document["trailer"]["dry_weight"]
            passes[0]["readings"]["trailer"] = 0.3 * sum(document["trailer"]["ratings"]["gawr"])

        expected = {
            other_way_round: ("axles_swapped", "weigh_ins[0].passes[2].readings.front"),
            old_ticket: ("pass_repeated", "weigh_ins[0].passes[0]"),
            ticket_typed_twice: ("pass_repeated", "weigh_ins[0].passes[2]"),
            one_number: ("pass_repeated", "weigh_ins[0].passes[1].ticket_number"),
            half_on: ("trailer_far_below", "weigh_ins[0].passes[0].readings.trailer"),
            soft_tires: ("pressure_below_need", "vehicle.tires.rear.pressure"),
            beyond_the_table: ("pressure_none_carries", "vehicle.tires.rear.pressure"),
            swapped: ("ticket_total_differs", "weigh_ins[0].passes[0].printed_gross"),
            misread: ("ticket_total_differs", "weigh_ins[0].passes[0].printed_gross"),
            kilograms: ("unit_slip", "weigh_ins[0].passes[2].unit"),
            backwards: ("solo_heavier", "weigh_ins[0].passes[2]"),
            tightened: ("front_over_restored", "weigh_ins[0].passes[0].readings.front"),
            lost: ("passes_do_not_close", "weigh_ins[0].passes[1]"),
            typo: ("ten_times", "weigh_ins[0].passes[0].readings.rear"),
            wrong_platform: ("front_gains", "weigh_ins[0].passes[0].readings.front"),
            drove_off: ("trailer_too_light", "weigh_ins[0].passes[0].readings.trailer"),
            light_nose: ("front_lightened", "weigh_ins[0].passes[0].readings.front"),
        }
        for change, (code, path) in expected.items():
            with self.subTest(change.__name__):
                codes = self.codes(change)
                self.assertEqual(codes.get(code), path, codes)

    def test_a_sound_weigh_in_raises_no_warning(self) -> None:
        document = rig_of("check--three-passes")
        document["weigh_ins"][0]["passes"][0]["printed_gross"] = 13580
        document["vehicle"]["ratings"]["gvwr"] = 6700  # the axle ratings add up to 6,200
        document["vehicle"]["tires"]["rear"] |= {
            "wheel": 1840,
            "pressure": "65 psi",
            "table": [  # 3,680 lb on two, just carried
                {"pressure": "60 psi", "load": 1750},
                {"pressure": "65 psi", "load": 1840},
            ],
        }
        self.assertEqual(
            [
                advisory.code
                for advisory in evaluate(parse_rig(document)).advisories
                if advisory.level == "warning"
            ],
            [],
        )

    def test_one_pass_says_what_it_proves(self) -> None:
        evaluation = evaluate(parse_rig(rig_of("check--hitched-pass-only")))
        note = next(
            advisory
            for advisory in evaluation.advisories
            if advisory.code == "missing_vehicle_only"
        )
        axles = evaluation.derived.trailer_axles
        self.assertIsNotNone(axles)
        # at 10 and 15 % on the tongue the axles carry 90 and 85 % of the trailer
        self.assertAlmostEqual(note.numbers["least"], (axles.value if axles else 0) / 0.9)
        self.assertAlmostEqual(note.numbers["most"], (axles.value if axles else 0) / 0.85)


class Corrections(unittest.TestCase):
    def test_who_stepped_out_counts_where_the_platforms_carry_the_vehicle(self) -> None:
        """180 lb, a third of it on the front axle: 60 and 120 on the axles, all of it on the
        vehicle and on a total, nothing on the trailer.
        """
        document = rig_of("check--three-passes")
        engaged = document["weigh_ins"][0]["passes"][0]
        engaged["adjustments"] = [{"what": "driver", "mass": 180, "front_share": 1 / 3}]
        for readings, more in (
            (engaged["readings"], {"front_hitched": 60, "rear_hitched": 120}),
            ({"vehicle": 6260, "trailer": 6060}, {"vehicle_hitched": 180, "trailer_axles": 0}),
            ({"gross": 12320}, {"combination_gross": 180}),
        ):
            engaged["readings"] = readings
            rig = parse_rig(document)
            figures = weigh(rig, rig.weigh_ins[0]).figures
            adjustments = engaged.pop("adjustments")
            rig = parse_rig(document)
            before = weigh(rig, rig.weigh_ins[0]).figures
            engaged["adjustments"] = adjustments
            for key, pounds in more.items():
                gained = (figures[key].value - before[key].value) / KG["lb"]
                self.assertAlmostEqual(gained, pounds, msg=key)


class NearTheLine(unittest.TestCase):
    """Either side of what counts, and how far a figure is to be trusted. Expected: by hand."""

    def test_two_ways_to_the_trailer_that_cannot_both_be_right(self) -> None:
        """Six readings in steps of 20 lb: u = √6 · 20/√12 = 14.14; twice that and half again
        are 42.4 lb. The scale's one gain cancels, since both ways come to the same.
        """
        for more, doubted in ((42, False), (43, True), (-42, False), (-43, True)):
            document = rig_of("check--room-everywhere")  # 6,840 lb by difference
            alone = {"config": "trailer_only", "readings": {"trailer": 6_840 + more}}
            document["weigh_ins"][0]["passes"].append(alone)
            doubts = evaluate(parse_rig(document)).doubts
            self.assertEqual("trailer_totals_disagree" in doubts, doubted, more)

    def test_a_digit_too_many_or_too_few_is_put_right_in_one_tap(self) -> None:
        for typed in (87_000, 870):
            document = rig_of("check--a-digit-too-many-in-gvwr")  # 8,700 is meant
            document["vehicle"]["ratings"]["gvwr"] = typed
            fixes = [
                advisory.fix
                for advisory in evaluate(parse_rig(document)).advisories
                if advisory.fix
            ]
            self.assertEqual([fix.label for fix in fixes], ["It is 8,700 lb"])
            self.assertEqual(
                [(each.path, each.value) for each in fixes[0].changes],
                [("vehicle.ratings.gvwr", 8700.0)],
            )

    def test_the_tare_of_a_beam_scale_has_an_error_too(self) -> None:
        """(300 − 40) · 60/20 = 780; two graduations: u = 3 · √2/√12, twice that is 2.449."""
        document = rig_of("check--room-everywhere")
        beam = {
            "method": "beam_scale",
            "reading": 300,
            "tare": 40,
            "span": 60,
            "coupler_from_support": 20,
        }
        document["weigh_ins"] = [
            {"tongue_measurements": [{**beam, "resolution": 1, "accuracy": 0}]}
        ]
        tongue_static = evaluate(parse_rig(document)).derived.tongue_static
        self.assertAlmostEqual(tongue_static.value if tongue_static else 0, 780)
        self.assertAlmostEqual(
            tongue_static.plus_minus if tongue_static else 0, 6 * math.sqrt(2 / 12)
        )

    def test_a_digit_too_few_says_how_little_it_is(self) -> None:
        """300 lb on an axle rated 2,600: 12 %. At 14 % nothing is said."""
        for reading, expected in ((300, ["12 %"]), (0.14 * 2_600, [])):
            document = rig_of("check--three-passes")
            document["weigh_ins"][0]["passes"][0]["readings"]["front"] = reading
            notes = [
                advisory.message
                for advisory in evaluate(parse_rig(document)).advisories
                if advisory.code == "tenth"
            ]
            self.assertEqual(
                [word for word in ["12 %"] for note in notes if word in note], expected
            )
