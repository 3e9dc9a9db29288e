"""One answer: what one room says of a rig, the others hold to, on random rigs, half of
them with facts left out.
"""

import copy
import random
import unittest
from collections import Counter

from noxel.core.adjust import Baseline, baseline_of
from noxel.core.editing import Change, apply_changes
from noxel.core.evaluate import evaluate, evaluate_at
from noxel.core.limits import CHECKS, Checked, Verdict, cushion, headroom, judge, limits
from noxel.core.match import how_much, match_pair, match_vehicle, trailer_of_rig
from noxel.core.mechanics import changes_since, load_place, planned
from noxel.core.pack import evaluate_pack
from noxel.core.quantities import nominal, plus_minus
from noxel.core.rig import Load, RigFile, parse_rig
from noxel.errors import MissingInput
from tests import some
from tests.campaign import Document, half_forgotten, true_rig

RIGS = some(500)


def rigs(seed: int, count: int = RIGS, spread: tuple[float, float] = (0.9, 1.3)) -> list[Document]:
    """Random rigs, every second with facts left out."""
    draw = random.Random(seed)
    made = []
    for number in range(count):
        true = true_rig(draw, spread=spread)
        made.append(half_forgotten(true, draw) if number % 2 else true.document)
    return made


def with_one_more(rig: RigFile, on: str, kg: float, place: float) -> RigFile:
    """The rig with one more thing in it. [kg, m]"""
    item = {"on": on, "mass": f"{kg:.9f} kg", "position": f"{place:.9f} m"}
    start = baseline_of(rig).rig
    return start.model_copy(update={"loads": (*start.loads, Load.model_validate(item))})


def row_of(base: Baseline, rig: RigFile, check: str) -> Checked:
    return next(row for row in base.checks(rig) if row.id == check)


class OneAnswer(unittest.TestCase):
    def test_what_may_be_added_stands_exactly_at_its_limit(self) -> None:
        """Margins' room, put in by Adjust: the load is at what may be used of its limit."""
        tried: Counter[str] = Counter()
        for document in rigs(11, spread=(1.02, 1.6)):
            rig = parse_rig(document)
            geometry, trailer = rig.vehicle.geometry, rig.trailer
            judged = judge(rig)
            try:
                base = baseline_of(rig)
            except MissingInput:
                continue
            if not base.weighed:
                continue
            for room in headroom(rig, judged.weighing, judged.rows):
                coupler = trailer.geometry.coupler_to_axles if trailer else None
                if room.kg <= 0:
                    continue  # what must come off
                if room.where == "vehicle":
                    if geometry.wheelbase is None:
                        continue
                    place = load_place(rig) * geometry.wheelbase.m
                else:
                    share = judged.weighing.figures["tongue_share"].value
                    if coupler is None or geometry.wheelbase is None:
                        continue
                    place = coupler.m * (1 - share)
                changed = with_one_more(rig, room.where, room.kg, place)
                row = row_of(base, changed, room.check.id)
                assert row.actual and row.limit  # noqa: S101
                self.assertAlmostEqual(
                    row.actual.value, row.cushion * row.limit.kg, delta=0.02, msg=row.id
                )
                tried[room.where] += 1
        self.assertGreater(min(tried["vehicle"], tried["trailer"]), RIGS / 5, tried)

    def test_a_trailer_as_heavy_as_the_ceiling_is_at_its_limit(self) -> None:
        """And the pair of the rig's own vehicle and trailer says the same ceiling."""
        tried = 0
        for document in rigs(12):
            document = {**document, "weigh_ins": []}
            rig = parse_rig(document)
            answer = how_much(rig, start="plan")
            vehicle = match_vehicle("v", "V", rig, None)
            trailer = trailer_of_rig("t", "T", rig, in_a_rig=True)
            assert trailer is not None  # noqa: S101
            pair = match_pair(vehicle, trailer, None, rig.units.mass)
            self.assertEqual(pair.share, answer.share)
            bound = {bar.check for bar in answer.bars if bar.binding}
            self.assertEqual({pair.binding} - {None}, bound)
            if answer.ceiling is None:
                self.assertIsNone(pair.ceiling)
                continue
            self.assertAlmostEqual(pair.ceiling or 0.0, answer.ceiling)
            if not answer.ceiling:
                continue
            heavy = copy.deepcopy(document)
            heavy["loads"] = [item for item in heavy["loads"] if item["on"] == "vehicle"]
            heavy["plan"] = {
                **heavy.get("plan", {}),
                "front_restoration": 0,
                "trailer_base": {"gross": answer.ceiling, "tongue": answer.ceiling * answer.share},
            }
            loads, [limiting] = planned(parse_rig(heavy)).loads(), bound
            beyond = limiting == "vehicle.payload"
            load = loads.get("payload_used" if beyond else CHECKS[limiting].load)
            limit = limits(rig)[limiting]
            if load is None or limit is None:
                continue
            tried += 1
            self.assertAlmostEqual(load, limit.kg * cushion(rig, limiting), places=4, msg=limiting)
        self.assertGreater(tried, RIGS / 2)

    def test_packs_payload_line_is_what_the_check_expects(self) -> None:
        tried = 0
        for document in rigs(13):
            rig = parse_rig({**document, "weigh_ins": []})
            pack = evaluate_pack(rig)
            row = next((row for row in pack.checks if row.id == "vehicle.payload"), None)
            if row is None:
                continue
            expected = row.actual if row.actual is not None else None
            if row.expected is not None:
                expected = row.expected.actual
            if expected is not None:
                tried += 1
                self.assertAlmostEqual(pack.payload_used, expected, places=4)
        self.assertGreater(tried, RIGS / 4)

    def test_a_fact_left_out_never_clears_anything(self) -> None:
        """Leaving out a figure turns no stop or caution into within; no rating or rule entered is
        among what is left out.
        """
        draw, worst = random.Random(14), {"stop": 3, "incomplete": 2, "caution": 1, "within": 0}
        tried: Counter[Verdict] = Counter()
        for document in rigs(15):
            before = judge(parse_rig(document)).verdict
            if before == "within" or "weigh_ins" not in document:
                continue
            less = copy.deepcopy(document)
            passes = less["weigh_ins"][0]["passes"]
            forget = draw.choice(("pass", "reading", "item", "length", "hitch mass"))
            if forget == "pass":
                passes.pop(draw.randrange(len(passes)))
            elif forget == "reading":
                readings = draw.choice(passes)["readings"]
                readings.pop(draw.choice(sorted(readings)))
            elif forget == "item":
                less["loads"] = []
            elif forget == "length":
                less["vehicle"].pop("geometry", None)
            else:
                less["hitch"].pop("weight", None)
            after = judge(parse_rig(less)).verdict
            tried[before] += 1
            self.assertGreater(worst[after], 0, (forget, before, less))
        self.assertGreater(tried["stop"] + tried["caution"], RIGS / 4)

    def test_every_face_says_the_same_verdict(self) -> None:
        """The page's evaluation and Adjust before any step, from the same weigh-in."""
        for document in rigs(16, RIGS // 4):
            rig = parse_rig(document)
            evaluation = evaluate(rig)
            self.assertEqual(evaluation.verdict, judge(rig).verdict)
            try:
                base = baseline_of(rig)
            except MissingInput:
                continue
            if base.weighed:
                shown = {row.id: row.status for row in evaluation.checks}
                for row in base.checks(base.rig):
                    self.assertEqual(row.status, shown[row.id], row.id)

    def test_what_came_aboard_since_is_covered_by_its_uncertainty(self) -> None:
        """Masses a tenth off and places 0.3 m (two standard deviations), things in the vehicle and
        in the trailer; the true change by moments, by hand.
        """
        draw, covered, count = random.Random(17), Counter[str](), 0
        for document in rigs(18, RIGS // 4)[::2]:
            rig = parse_rig(document)
            geometry, trailer = rig.vehicle.geometry, rig.trailer
            assert geometry.wheelbase and geometry.hitch_offset and trailer  # noqa: S101
            assert trailer.geometry.coupler_to_axles  # noqa: S101
            a, b = geometry.wheelbase.m, geometry.hitch_offset.m
            length = trailer.geometry.coupler_to_axles.m
            since: list[Document] = []
            true = dict.fromkeys(("front_hitched", "rear_hitched", "trailer_axles"), 0.0)
            for on in ("vehicle", "trailer"):
                kg, place = draw.uniform(20, 150), draw.uniform(0.2, 1.2)
                place *= a if on == "vehicle" else length
                since.append({"on": on, "mass": f"{kg:.6f} kg", "position": f"{place:.6f} m"})
                kg *= 1 + draw.gauss(0, 0.05)
                place += draw.gauss(0, 0.15)
                if on == "vehicle":
                    true["front_hitched"] += kg * (1 - place / a)
                    true["rear_hitched"] += kg * place / a
                else:
                    tongue = kg * (1 - place / length)
                    true["front_hitched"] -= tongue * b / a
                    true["rear_hitched"] += tongue * (1 + b / a)
                    true["trailer_axles"] += kg - tongue
            weigh_in = {**document["weigh_ins"][0], "added_since": since}
            noted = parse_rig({**document, "weigh_ins": [weigh_in]})
            changes = changes_since(noted, noted.weigh_ins[0])
            count += 1
            for key, kg in true.items():
                change = changes[key]
                assert change is not None  # noqa: S101
                covered[key] += abs(nominal(change) - kg) <= plus_minus(change)
        for key, inside in covered.items():
            self.assertGreaterEqual(inside / count, 0.93 if count > 100 else 0.8, key)

    def test_a_weigh_in_just_begun_changes_no_answer(self) -> None:
        """Until something is read in it, every room answers from the one before and says so."""
        for document in rigs(19, 40):
            if "weigh_ins" not in document:
                continue
            begun = {"date": "2026-06-01", "scale": {"resolution": 20}}
            before = parse_rig(document)
            after = parse_rig({**document, "weigh_ins": [*document["weigh_ins"], begun]})
            now, then = evaluate_at(after, 2), evaluate_at(before, 1)
            self.assertEqual((now.headline, now.checks), (then.headline, then.checks))
            self.assertEqual((now.weigh_in, now.passes, then.of), (2, [], None))
            self.assertRegex(now.of or "", "^As weighed 2 May 2026; the weigh-in that you began")
            self.assertEqual(how_much(after), how_much(before))
            self.assertEqual(evaluate_pack(after, 2), evaluate_pack(before, 1))

    def test_a_pass_of_another_day_is_joined_in_one_tap(self) -> None:
        """The vehicle alone weighed in May, on a finer scale, and the whole rig in June: joined,
        they say what one visit with both would, each reading with the ± of its own scale.
        """
        document = true_rig(random.Random(20)).document
        passes = document["weigh_ins"][0]["passes"]
        fine = {"resolution": 2}
        may = {"date": "2026-05-02", "place": "Flint Quay", "scale": fine, "passes": passes[2:]}
        june = {"date": "2026-06-01", "scale": {"resolution": 20}, "passes": passes[1:2]}
        rig = parse_rig({**document, "weigh_ins": [may, june]})
        [advisory] = [
            advisory for advisory in evaluate(rig).advisories if advisory.code == "join_pass"
        ]
        self.assertIn("alone was weighed 2 May 2026, Flint Quay", advisory.message)
        assert advisory.fix  # noqa: S101
        [added] = advisory.fix.changes
        change = Change(added.path, op="insert", value=added.value)
        joined = apply_changes({**document, "weigh_ins": [may, june]}, [change]).rig
        both = [*passes[1:2], {**passes[2], "scale": fine}]
        at_once = parse_rig({**document, "weigh_ins": [{**june, "passes": both}]})
        now, then = evaluate(joined, 2), evaluate(at_once)
        self.assertEqual((now.verdict, now.derived), (then.verdict, then.derived))
        self.assertNotIn("join_pass", [advisory.code for advisory in now.advisories])
