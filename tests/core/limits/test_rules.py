"""Rules of makers and law that are no rating. Expected: by hand, on worked cases whose weights are known.

“room-everywhere” is within: the trailer weighs 6,840 lb, its bars restore 57.1 % ± 5.1 %. In “accuracy-shared” it weighs 4,700 lb.
"""

import unittest
from typing import Any

from noxel.core.adjust import baseline_of, propose
from noxel.core.evaluate import evaluate
from noxel.core.pack import evaluate_pack
from noxel.core.rig import parse_rig
from noxel.core.wording import Evaluation
from tests.truth import rig_of

RULES = ("brakes_missing", "bars_missing", "bars_forbidden", "bars_far_from_target")


def judged(case: str, **parts: dict[str, Any]) -> tuple[Evaluation, list[str]]:
    document = rig_of(case)
    for part, values in parts.items():
        document[part] = {**document.get(part, {}), **values}
    found = evaluate(parse_rig(document))
    return found, [each.code for each in found.advisories if each.code in RULES]


class Rules(unittest.TestCase):
    def test_each_rule_keeps_the_verdict_at_caution_and_leads_it(self) -> None:
        within, none = judged("check--room-everywhere")
        self.assertEqual((within.verdict, none), ("within", []))
        broken: tuple[tuple[str, dict[str, Any], str], ...] = (
            ("brakes_missing", {"trailer": {"brakes": "none"}, "policy": {"brakes_above": 6_839}},
             "required above 6,839 lb; the trailer weighs 6,840"),
            ("bars_forbidden", {"vehicle": {"distribution": {"rule": "forbidden"}}}, "forbids weight distribution"),
            ("bars_far_from_target", {"hitch": {"target_restoration": 1.0}}, "57.1 % of what the front axle had lost, far less"),
            ("bars_far_from_target", {"hitch": {"target_restoration": 0.4}}, "far more than the maker's target of 40"),
        )  # fmt: skip
        for code, parts, words in broken:
            found, codes = judged("check--room-everywhere", **parts)
            self.assertEqual((found.verdict, codes), ("caution", [code]), parts)
            self.assertIn(words, found.headline.sentence)
            self.assertTrue(found.headline.rest, "the limiting rating is still said")

    def test_what_is_kept_or_not_entered_says_nothing(self) -> None:
        every: tuple[dict[str, Any], ...] = (
            {"trailer": {"brakes": "none"}, "policy": {"brakes_above": 6_841}},
            {"trailer": {"brakes": "electric"}, "policy": {"brakes_above": 3_000}},
            {"trailer": {"brakes": "none"}},
            {"vehicle": {"distribution": {"rule": "required", "above": 5_000}}},
            {"vehicle": {"distribution": {"rule": "allowed"}}},
            {"hitch": {"target_restoration": 0.5}},  # 7.1 % away; 12.5 % may be
            {"hitch": {"target_restoration": 0.8}},  # 22.9 % away, 20 % may be, but the rest is within its ±
        )
        for parts in every:
            found, codes = judged("check--room-everywhere", **parts)
            self.assertEqual((found.verdict, codes), ("within", []), parts)

    def test_what_was_added_since_clears_no_rule(self) -> None:
        weighed = rig_of("check--room-everywhere")["weigh_ins"]
        weighed[-1]["added_since"] = [{"what": "chairs", "mass": 10, "on": "trailer", "position": 120}]
        document = {**rig_of("check--room-everywhere"), "weigh_ins": weighed, "policy": {"brakes_above": 3_000}}
        document["trailer"] = {**document["trailer"], "brakes": "none"}
        estimate = evaluate(parse_rig(document)).estimate
        self.assertEqual(estimate.verdict if estimate else None, "caution")

    def test_distribution_is_judged_by_what_was_weighed(self) -> None:
        for above, broken in ((4_699, ["bars_missing"]), (4_700, [])):
            rule = {"distribution": {"rule": "required", "above": above}}
            found, codes = judged(
                "check--accuracy-shared-by-all-readings",
                vehicle=rule,
            )
            self.assertEqual(codes, broken, above)
            if broken:
                said = next(each.message for each in found.advisories if each.code == "bars_missing")
                self.assertIn("requires weight distribution above 4,699 lb; the trailer weighs 4,700 lb", said)

    def test_without_brakes_the_smaller_tow_rating_applies(self) -> None:
        for brakes, over in (("none", 6_840 - 1_650), ("electric", None)):
            parts: dict[str, Any] = {
                "trailer": {"brakes": brakes},
                "vehicle": {"ratings": {**rig_of("check--room-everywhere")["vehicle"]["ratings"], "tow_unbraked": 1_650}},
            }
            found, _ = judged("check--room-everywhere", **parts)
            tow = next(each for each in found.checks if each.id == "vehicle.tow_rating")
            self.assertEqual(tow.status, "over" if over else "within")
            if over and tow.margin is not None:
                self.assertAlmostEqual(-tow.margin, over)
                self.assertIn("without trailer brakes", tow.limit_label or "")

    def test_what_is_planned_and_proposed_keeps_to_the_rules_too(self) -> None:
        document = rig_of("predict--packed")
        document["policy"] = {**document.get("policy", {}), "brakes_above": 1_000}
        for brakes, broken in (("none", True), ("electric", False)):
            document["trailer"] = {**document["trailer"], "brakes": brakes}
            rig = parse_rig(document)
            found = evaluate_pack(rig)
            said = " ".join([found.headline.sentence, *found.headline.rest])
            self.assertEqual("brakes are required above 1,000 lb" in said, broken, said)
            self.assertNotEqual((found.verdict, broken), ("within", True))
            proposed = propose(baseline_of(rig))
            for each in proposed.proposals:
                self.assertEqual(bool(each.rules), broken)
                self.assertNotEqual((each.verdict, broken), ("within", True))
            if not proposed.needed:
                self.assertEqual("required above 1,000 lb" in proposed.says, broken, proposed.says)
