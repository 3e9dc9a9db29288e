"""How much, and every vehicle with every trailer. Expected: the region against the ordinary checks
at sampled points; figures by hand.
"""

import copy
import itertools
import unittest
from typing import Any

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from noxel.core.match import (
    MatchTrailer,
    explain,
    how_much,
    match_pair,
    match_vehicle,
    trailer_of_rig,
)
from noxel.core.mechanics import load_place
from noxel.core.pack import evaluate_pack
from noxel.core.quantities import KG
from noxel.core.rig import RigFile, dump_rig, parse_rig
from tests import some
from tests.truth import case, rig_of

SHARE = 0.13


def loaded(document: dict[str, Any], load: float, trailer: float, place: float) -> dict[str, Any]:
    """The rig with so much in it at that place and a trailer of that mass, bars slack."""
    wheelbase = document["vehicle"]["geometry"]["wheelbase"]
    made = {
        **document,
        "loads": [{"name": "load", "on": "vehicle", "mass": load, "position": wheelbase * place}],
        "weigh_ins": [],
        "plan": {
            **document["plan"],
            "front_restoration": 0,
            "trailer_base": {"gross": trailer, "tongue": trailer * SHARE},
        },
    }
    made["policy"] = {**document.get("policy", {}), "tongue_share": [0.05, 0.3]}
    return made


def on_tires(document: dict[str, Any]) -> dict[str, Any]:
    """The rig with tires that carry less than the axles above them."""
    ratings, trailer = document["vehicle"]["ratings"], document.get("trailer", {})
    document["vehicle"]["tires"] = {
        end: {"count": 2, "max_load": 0.47 * ratings[f"gawr_{end}"]} for end in ("front", "rear")
    }
    if "gvwr" in trailer.get("ratings", {}):
        trailer["tires"] = {"count": 4, "max_load": 0.19 * trailer["ratings"]["gvwr"]}
    return document


def at(document: dict[str, Any], load: float, trailer: float, place: float) -> dict[str, str]:
    """The ordinary checks of the rig loaded so."""
    packed = evaluate_pack(parse_rig(loaded(document, load, trailer, place)))
    return {
        row.id: "over"
        if row.margin is not None and row.margin < -1e-6 * (row.limit or 1)
        else "fine"
        for row in packed.checks
    }


def inside(region: list[tuple[float, float]], x: float, y: float) -> bool:
    """Whether a point lies in a polygon: a ray to the right crosses its edge an odd number of
    times.
    """
    crossed = False
    for (x1, y1), (x2, y2) in itertools.pairwise([*region, region[0]]):
        if (y1 > y) != (y2 > y) and x < x1 + (y - y1) * (x2 - x1) / (y2 - y1):
            crossed = not crossed
    return crossed


class TheRoom(unittest.TestCase):
    @settings(max_examples=some(200))
    @given(
        st.floats(0.02, 0.98),
        st.floats(0.03, 1.3),
        st.sampled_from(["predict--packed", "predict--packed-fifth-wheel-kg"]),
        st.booleans(),
    )
    def test_the_region_agrees_with_the_checks(
        self, across: float, up: float, name: str, weak: bool
    ) -> None:
        document = on_tires(rig_of(name)) if weak else rig_of(name)
        document["loads"] = [
            document for document in document["loads"] if document["on"] == "vehicle"
        ]
        document.pop("policy", None)
        rig = parse_rig(document)
        chart = how_much(rig, start="plan", share=SHARE).chart
        assert chart  # noqa: S101
        x = chart.most_load * across
        y = chart.most_trailer * up
        assume(y > 20)
        edge = [abs(y - line.start - (line.end - line.start) * across) for line in chart.lines]
        assume(min(edge) > 1e-3 * chart.most_trailer)  # not on a line, where rounding decides
        status = at(document, x, y, load_place(rig))
        drawn = {line.check for line in chart.lines}
        self.assertEqual({"tires.rear", "tires.trailer"} <= drawn, weak)
        over = {check for check, status in status.items() if status == "over" and check in drawn}
        if inside(chart.region, x, y):
            self.assertEqual(over, set())
            return
        named = {
            line.check
            for line in chart.lines
            if (y > line.start + (line.end - line.start) * across) != line.relieved
        }
        self.assertTrue(over, (x, y))
        self.assertEqual(over, named)

    @settings(max_examples=some(150))
    @given(
        st.floats(0, 1),
        st.floats(0, 1),
        st.floats(0.1, 0.9),
        st.sampled_from(
            [
                "predict--packed",
                "predict--packed-fifth-wheel-kg",
                "predict--packed-from-last-weigh-in",
            ]
        ),
        st.booleans(),
    )
    def test_a_point_outside_is_told_so_and_what_alone_brings_it_in(
        self, across: float, up: float, place: float, name: str, weak: bool
    ) -> None:
        """Against the ordinary checks: exceeded there, fine with that much less, and not with a
        little less than that.
        """
        document = on_tires(rig_of(name)) if weak else rig_of(name)
        rating = document["vehicle"]["ratings"]["gvwr"]
        x, y = 0.5 * rating * across, 20 + 1.6 * rating * up
        document = loaded(document, x, y, place)
        answer = how_much(parse_rig(document), start="plan", share=SHARE)
        chart = answer.chart
        assert chart and chart.point and answer.ceiling is not None  # noqa: S101
        self.assertAlmostEqual(chart.point.load, x)
        self.assertAlmostEqual(chart.point.trailer, y)
        drawn = {line.check for line in chart.lines} | set(chart.exceeded)

        def over(load: float, trailer: float) -> set[str]:
            return {
                check
                for check, expected in at(document, load, trailer, place).items()
                if expected == "over"
            } & drawn

        rooms = [
            more_load
            for more_load in (chart.more_load, chart.more_trailer)
            if more_load is not None
        ]
        assume(min(abs(room) for room in rooms) > 2)  # not on a line, where rounding decides
        self.assertEqual(set(chart.exceeded), over(x, y))
        self.assertEqual(" is exceeded" in chart.says, bool(chart.exceeded))
        if answer.ceiling > 1:
            # on a pin ahead of the rear axle the front axle ends it
            ends = {line.check for line in chart.lines if not line.relieved}
            front = {"vehicle.front_axle", "tires.front"} - ends
            in_front, alone = front & over(x, answer.ceiling), front & over(x, 1e-3)
            self.assertEqual("Even with that trailer the front axle" in answer.says, bool(in_front))
            self.assertEqual("With less than" in answer.says, bool(alone and not in_front))
        if chart.off_trailer is not None:
            self.assertEqual(over(x, y - chart.off_trailer), set())
            self.assertTrue(over(x, y - (chart.off_trailer - 1)))
        if chart.off_load is not None:
            self.assertEqual(over(x - chart.off_load, y), set())
            self.assertTrue(over(x - (chart.off_load - 1), y))
        if chart.exceeded and chart.off_trailer is None:
            self.assertTrue(all(over(x, y * part / 8) for part in range(1, 9)))
        if chart.exceeded and chart.off_load is None:
            self.assertTrue(all(over(x * part / 8, y) for part in range(9)))

    def test_sliders_and_break_even_by_hand(self) -> None:
        document = case("ceiling--how-much")["file"]
        rig = parse_rig(document)
        first = how_much(rig, start="plan")
        expected = case("ceiling--how-much")["expect"]
        self.assertAlmostEqual(first.ceiling or 0, expected["ceiling"])
        self.assertEqual(next(bar.check for bar in first.bars if bar.binding), expected["binding"])
        share = first.share
        payload = next(bar for bar in first.bars if bar.check == "vehicle.payload")
        heavier = next(
            bar
            for bar in how_much(rig, start="plan", added=100 * KG["lb"]).bars
            if bar.check == "vehicle.payload"
        )
        # each pound aboard costs 1/share of trailer
        self.assertAlmostEqual(payload.heaviest - heavier.heaviest, 100 / share)
        lower = next(
            bar
            for bar in how_much(rig, start="plan", share=share / 2).bars
            if bar.check == "vehicle.payload"
        )
        self.assertAlmostEqual(lower.heaviest, 2 * payload.heaviest)
        meets = payload.break_even or 0.0
        both = {bar.check: bar.heaviest for bar in how_much(rig, start="plan", share=meets).bars}
        fixed = min(
            both[check]
            for check in ("vehicle.tow_rating", "combination.gross", "hitch.trailer")
            if check in both
        )
        self.assertAlmostEqual(both["vehicle.payload"], fixed)

    def test_backwards_is_forwards(self) -> None:
        """A vehicle with exactly the needed figures has the trailer's rating as its ceiling."""
        document = rig_of("predict--packed")
        needs = {
            need.key: need.value
            for need in how_much(parse_rig(document), start="plan", share=SHARE).needs
        }
        ratings = document["vehicle"]["ratings"]
        keys = {
            "vehicle.payload": "payload",
            "vehicle.tow_rating": "tow_rating",
            "combination.gross": "gcwr",
            "vehicle.gross": "gvwr",
            "vehicle.rear_axle": "gawr_rear",
            "vehicle.front_axle": "gawr_front",
        }
        for check, key in keys.items():
            ratings[key] = needs[check]
        ratings.pop("payload_reduction", None)
        ratings["tongue_rating"] = needs["hitch.tongue"]
        document["hitch"]["parts"] = [
            {"kind": "receiver", "trailer": needs["hitch.trailer"], "tongue": needs["hitch.tongue"]}
        ]
        answer = how_much(parse_rig(document), start="plan", share=SHARE)
        for bar in answer.bars:
            self.assertAlmostEqual(
                bar.heaviest, document["trailer"]["ratings"]["gvwr"], msg=bar.check
            )
        self.assertTrue(all(need.enough for need in answer.needs))

    def test_the_weigh_in_looked_at_is_what_it_starts_from(self) -> None:
        document = rig_of("check--three-passes")
        first, later = document["weigh_ins"][0], copy.deepcopy(document["weigh_ins"][0])
        for weigh_in in later["passes"]:
            weigh_in["readings"]["rear"] += 200
        document["weigh_ins"] = [first, later]
        answer, two, last = (
            how_much(parse_rig(document), number=number) for number in (1, 2, None)
        )
        self.assertEqual(answer, how_much(parse_rig(document | {"weigh_ins": [first]})))
        self.assertEqual(two, last)
        by_one, by_two = (
            {bar.check: bar.heaviest for bar in found.bars} for found in (answer, two)
        )
        self.assertAlmostEqual(by_one["combination.gross"] - by_two["combination.gross"], 200)

    def test_missing_ratings_are_named_never_silent(self) -> None:
        document = rig_of("predict--packed")
        document["vehicle"]["ratings"] = {"tow_rating": 9000}
        document["hitch"]["parts"] = []
        answer = how_much(parse_rig(document), start="plan")
        self.assertIn("payload", answer.missing)
        self.assertIn("may be lower", answer.says)


def trailer_in(rig: RigFile) -> MatchTrailer:
    """The rig's own trailer."""
    trailer = trailer_of_rig("t", "T", rig, in_a_rig=True)
    assert trailer is not None  # noqa: S101
    return trailer


class WhichWithWhich(unittest.TestCase):
    def rig(self, **ratings: Any) -> RigFile:
        document = rig_of("predict--packed")
        document["vehicle"]["ratings"] |= ratings
        return parse_rig(document)

    def test_a_pair_agrees_with_the_ceiling(self) -> None:
        rig = self.rig()
        assert rig.trailer  # noqa: S101
        match = match_pair(
            match_vehicle("v", "V", rig, None),
            trailer_in(rig),
            SHARE,
            "lb",
        )
        answer = how_much(rig, start="plan", share=SHARE)
        self.assertAlmostEqual(match.ceiling or 0, answer.ceiling or 0)
        self.assertAlmostEqual(
            match.room or 0,
            (answer.ceiling or 0) - rig.trailer.ratings.gvwr.kg / KG["lb"]
            if rig.trailer.ratings.gvwr
            else 0,
        )
        over = [row.check for row in match.rows if row.status == "over"]
        self.assertEqual(match.verdict == "stop", bool(over))
        self.assertEqual(match.verdict == "stop", (match.room or 0) < 0)

    def test_what_is_missing_bounds_the_answer(self) -> None:
        bare = parse_rig(
            {
                "format": "noxel-rig",
                "version": 1,
                "units": {"mass": "lb"},
                "kind": "conventional",  # as a brochure has it
                "vehicle": {
                    "ratings": {"tow_rating": 9000, "payload": 1500, "tongue_rating": 1500}
                },
                "trailer": {"ratings": {"gvwr": 7000}},
            }
        )
        assert bare.trailer  # noqa: S101
        match = match_pair(
            match_vehicle("v", "V", bare, 500 * KG["lb"]),
            trailer_in(bare),
            0.125,
            "lb",
        )
        self.assertAlmostEqual(match.ceiling or 0, 8000)  # (1,500 − 500) ÷ 12.5 %
        self.assertEqual(match.verdict, "incomplete")
        self.assertTrue(any("Rear axle" in line for line in match.missing))
        heavier = match_pair(
            match_vehicle("v", "V", bare, 800 * KG["lb"]),
            trailer_in(bare),
            0.125,
            "lb",
        )
        # (1,500 − 800) ÷ 12.5 % = 5,600 < 7,000, whatever else is missing
        self.assertEqual(heavier.verdict, "stop")
        known = {
            "trailer": {"ratings": {"gvwr": 7000}, "dry_weight": 5000},
            "plan": {"trailer_by": "listed"},
        }
        for cargo, expected in ((500, "incomplete"), (700, "stop")):  # 5,500 and 5,700 as loaded
            aboard = {"loads": [{"on": "trailer", "mass": cargo}]}
            loaded = trailer_in(parse_rig({**dump_rig(bare), **known, **aboard}))
            match = match_pair(match_vehicle("v", "V", bare, 800 * KG["lb"]), loaded, 0.125, "lb")
            self.assertEqual((match.verdict, match.verdict_expected), ("stop", expected))

    def test_both_schools_and_the_difference_explained(self) -> None:
        rig, other = self.rig(), self.rig(payload=5000, gawr_rear=6000)
        assert rig.trailer  # noqa: S101
        a, b = match_vehicle("a", "A", rig, None), match_vehicle("b", "B", other, None)
        light = trailer_in(rig)
        first_match, two = match_pair(a, light, 0.2, "lb"), match_pair(b, light, 0.2, "lb")
        if (first_match.room or 0) < 0 <= (first_match.room_expected or -1):
            self.assertIn("the cautious school never couples such a pair", first_match.says)
        says = explain(first_match, two, {"a": a, "b": b}, {"t": light}, "lb")
        rows = {row.check: row.margin for row in two.rows}
        by = (rows["vehicle.payload"] or 0) - next(
            row.margin or 0 for row in first_match.rows if row.check == "vehicle.payload"
        )
        self.assertIn("Same trailer: the other", says[0])
        self.assertIn(f"payload {by:,.0f} lb more", says[0])

    def test_each_trailer_at_its_own_share_and_only_on_a_hitch_that_takes_it(self) -> None:
        """The share weighed, else as built, never below what is aimed at; a pin is not judged on
        a ball's hitch.
        """
        ball = parse_rig(rig_of("check--two-passes-bars-slack"))
        weighed = case("check--two-passes-bars-slack")["expect"]["derived"]["tongue_share"]["value"]
        one = trailer_of_rig("b", "B", ball, in_a_rig=True)
        pin = trailer_of_rig(
            "p", "P", parse_rig({**rig_of("check--fifth-wheel"), "weigh_ins": []}), in_a_rig=True
        )
        bare = trailer_of_rig("c", "C", ball, in_a_rig=False)
        light = trailer_of_rig("l", "L", parse_rig(rig_of("check--share-low")), in_a_rig=True)
        assert one and pin and bare and light  # noqa: S101
        self.assertAlmostEqual(one.share.value, weighed)
        dry = {
            name: rig_of(name)["trailer"]
            for name in ("check--fifth-wheel", "check--two-passes-bars-slack")
        }
        by_label = [
            max(low, trailer["dry_tongue"] / trailer["dry_weight"])
            for low, trailer in zip((0.15, 0.10), dry.values(), strict=True)
        ]
        shares = (pin.share, bare.share, light.share)
        self.assertEqual([share.value for share in shares], [*by_label, 0.10])
        self.assertEqual([share.way for share in shares], ["dry", "dry", "weighed"])
        puller = match_vehicle("v", "V", self.rig(), None)
        match = match_pair(puller, pin, None, "lb")
        self.assertEqual((match.share, match.verdict == "within"), (by_label[0], False))
        said = (
            "its hitch is behind the rear axle, this trailer needs one above it: plan it with "
            "that hitch"
        )
        for check in ("vehicle.rear_axle", "hitch.trailer", "hitch.tongue"):
            row = next(row for row in match.rows if row.check == check)
            self.assertEqual((row.margin, row.missing), (None, said))
        gross = next(row for row in match.rows if row.check == "vehicle.gross")
        at_ball = next(
            row for row in match_pair(puller, pin, 0.13, "lb").rows if row.check == "vehicle.gross"
        )
        assert pin.rated and gross.margin is not None and at_ball.margin is not None  # noqa: S101
        self.assertAlmostEqual(
            at_ball.margin - gross.margin, (by_label[0] - 0.13) * pin.rated / KG["lb"]
        )

    def test_rows_are_the_checks_of_a_plan(self) -> None:
        """A pair's rows are what the ordinary checks make of the same rig planned with that trailer
        at its rating.

        Its tires, weaker than their axles, are held too; the front axle, relieved by a trailer on a
        ball, stays over its limit.
        """
        document = on_tires(rig_of("predict--packed"))
        document["vehicle"]["ratings"]["gawr_front"] = 2700
        rig = parse_rig(document)
        assert rig.trailer and rig.trailer.ratings.gvwr  # noqa: S101
        gvwr = document["trailer"]["ratings"]["gvwr"]
        match = match_pair(
            match_vehicle("v", "V", rig, None),
            trailer_in(rig),
            SHARE,
            "lb",
        )
        planned = {
            **document,
            "loads": [document for document in document["loads"] if document["on"] == "vehicle"],
        }
        planned["plan"] = {
            **document["plan"],
            "front_restoration": 0,
            "trailer_base": {"gross": gvwr, "tongue": gvwr * SHARE},
        }
        checks = {row.id: row for row in evaluate_pack(parse_rig(planned)).checks}
        held = {row.check: row.margin for row in match.rows if row.margin is not None}
        self.assertLessEqual(
            {"vehicle.front_axle", "tires.front", "tires.rear", "vehicle.rear_axle"}, set(held)
        )
        for check, margin in held.items():
            self.assertAlmostEqual(margin, checks[check].margin or 0, places=6, msg=check)
        front = max(-held["vehicle.front_axle"], -2 * held["tires.front"])
        self.assertAlmostEqual(match.in_front or 0, front)
        self.assertEqual(match.verdict, "stop")
        self.assertIn(f"The front axle stays {front:,.0f} lb over its limit", match.says)
