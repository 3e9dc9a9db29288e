"""Whole answers: workings that add up, sentences that name what binds, and no input that brings the
evaluation down.

Expected values: the answers' own numbers put together by hand-written rules, and the words that
must never be said.
"""

import contextlib
import copy
import json
import math
import random
import re
import unittest
from collections.abc import Iterator
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from noxel.core.evaluate import evaluate
from noxel.core.log import kept_answers
from noxel.core.match import how_much
from noxel.core.pack import evaluate_pack
from noxel.core.rig import dump_rig, parse_rig
from noxel.errors import NotFound, NoxelError, RigFileError
from noxel.formats.rig_json import read_rig
from tests import some
from tests.at_large import document_at_large
from tests.truth import CASES, case, rig_of

NAMES = sorted(path.stem for path in CASES.glob("check--*.json"))
MASS = st.one_of(
    st.integers(0, 20_000), st.floats(0, 20_000), st.sampled_from(["1380 kg", "3,200 lb", "1.2 t"])
)
JUNK = st.one_of(
    st.none(),
    st.booleans(),
    st.integers(-5, 10**9),
    st.floats(allow_nan=True),
    st.text(max_size=6),
    st.just([]),
    st.just({}),
    st.sampled_from(
        [
            "1,5 kg",
            "engaged",
            "hitched",
            "1380 kg",
            "-3 lb",
            "2026-13-01",
            {"carrying": 5},
            ["x"],
            [3, 4],
        ]
    ),
)


def paths(node: Any, at: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place in a document."""
    inside = (
        node.items()
        if isinstance(node, dict)
        else enumerate(node)
        if isinstance(node, list)
        else ()
    )
    return [at, *(path for key, value in inside for path in paths(value, (*at, key)))]


class Workings(unittest.TestCase):
    def test_every_working_adds_up_to_its_figure(self) -> None:
        for name in NAMES:
            evaluation = evaluate(parse_rig(case(name)["file"]))
            for key, working in evaluation.working.items():
                with self.subTest(name=name, key=key):
                    for line in working.lines:
                        self.assertTrue(
                            line.ref is None or line.ref in evaluation.working or line.ref == key,
                            line,
                        )
                    if {line.op for line in working.lines} <= {"", "+", "−"}:
                        added = sum(
                            -line.value if line.op == "−" else line.value for line in working.lines
                        )
                    elif [line.op for line in working.lines] in (["", "÷"], ["", "×", "÷"]):
                        first, *rest = working.lines
                        added = first.value
                        for line in rest:
                            added = added * line.value if line.op == "×" else added / line.value
                    else:
                        continue  # beam, lever and moments are worked by hand in test_statics
                    self.assertTrue(
                        math.isclose(added, working.value, rel_tol=1e-9, abs_tol=1e-9),
                        (added, working.value),
                    )

    def test_limits_add_up_and_margins_follow(self) -> None:
        for name in NAMES:
            for row in evaluate(parse_rig(case(name)["file"])).checks:
                if row.limit_lines and row.limit is not None:
                    added = sum(
                        -line.value if line.op == "−" else line.value for line in row.limit_lines
                    )
                    self.assertAlmostEqual(added, row.limit, msg=f"{name} {row.id}")
                if row.margin is not None and row.limit is not None and row.actual is not None:
                    self.assertAlmostEqual(
                        row.margin, row.limit - row.actual, msg=f"{name} {row.id}"
                    )


class Words(unittest.TestCase):
    def test_a_weigh_in_that_is_not_there(self) -> None:
        document = case("check--three-passes")["file"]
        for number in (0, 2, -1):
            with self.assertRaisesRegex(
                NotFound, rf"^There is no weigh-in {number}; the rig has 1\.$"
            ):
                evaluate(parse_rig(document), number)
        with self.assertRaisesRegex(NotFound, "no weigh-in 1; the rig has none"):
            evaluate(parse_rig(document | {"weigh_ins": []}), 1)

    def test_sentences_carry_the_numbers_and_never_promise(self) -> None:
        for name in NAMES:
            evaluation = evaluate(parse_rig(case(name)["file"]))
            sentence = [
                evaluation.headline.sentence,
                *evaluation.headline.rest,
                *(row.sentence for row in evaluation.checks),
                *(advisory.message for advisory in evaluation.advisories),
                *(room.sentence for room in evaluation.rooms),
            ]
            for text in sentence:
                self.assertNotRegex(
                    text.lower(), r"\bsafe|\bpassed\b|good to go|\bnan\b|\bnone\b", name
                )
                self.assertNotRegex(text, r"\{|\}|\.\.|  ", name)
            for row in evaluation.checks:
                if row.status == "over" and row.margin is not None and abs(row.margin) >= 1:
                    self.assertIn(
                        f"{math.floor(abs(row.margin) + 0.5):,} {evaluation.units.mass} over",
                        row.sentence,
                    )

    def test_the_lead_follows_the_verdict_and_names_what_is_wrong(self) -> None:
        leads = {
            "stop": "Stop.",
            "incomplete": "Not settled.",
            "caution": "Caution.",
            "within": "Within every rating entered.",
        }
        for name in NAMES:
            evaluation = evaluate(parse_rig(case(name)["file"]))
            self.assertEqual(evaluation.headline.lead, leads[evaluation.verdict])
            worst = [row for row in evaluation.checks if row.status in ("over", "low")]
            if worst:
                plain = [re.sub(r", [a-z ]+ included,", "", row.sentence) for row in worst]
                headline = re.sub(r", [a-z ]+ included,", "", evaluation.headline.sentence)
                self.assertTrue(any(text.startswith(headline) for text in plain), name)
                every = " ".join([evaluation.headline.sentence, *evaluation.headline.rest])
                every = re.sub(r", [a-z ]+ included,", "", every)
                firsts = [re.split(r"(?<=[a-z].) (?=[A-Z])", text)[0] for text in plain]
                self.assertTrue(all(text in every for text in firsts), name)

    def test_a_headline_is_one_line_and_the_rest_follows(self) -> None:
        """At most 110 characters, so that it can be read at a glance."""
        for number in range(200):
            evaluation = evaluate(parse_rig(document_at_large(number)))
            self.assertLessEqual(len(evaluation.headline.sentence), 110, number)
            self.assertTrue(evaluation.headline.sentence.endswith("."), number)

    def test_a_stop_names_what_else_is_expected(self) -> None:
        worked = case("check--a-stop-and-what-else-is-expected")
        tow = next(row for row in worked["expect"]["checks"] if row["id"] == "vehicle.tow_rating")[
            "expected"
        ]
        rest = " ".join(evaluate(parse_rig(worked["file"])).headline.rest)
        self.assertIn(f"The trailer is expected {-tow['margin']:.0f} lb over", rest)
        self.assertIn("not weighed", rest)

    def test_no_room_for_a_trailer_and_no_rating_where_none_is(self) -> None:
        over = how_much(parse_rig(rig_of("ceiling--how-much-never-below-nothing"))).says
        self.assertTrue(over.startswith("Over even without a trailer, by the GVWR."), over)
        document = rig_of("ceiling--how-much-from-the-placard")
        document["vehicle"]["ratings"] |= {"tow_rating": None, "gvwr": 7_000, "gcwr": 12_000}
        says = how_much(parse_rig(document)).says  # 12,000 − 7,000 is nobody's tow rating
        self.assertNotIn("lb tow rating", says)
        self.assertIn("GCWR", says)

    def test_an_answer_that_is_not_settled_says_a_mass_first(self) -> None:
        """By hand: 3,120 + 3,940 = 7,060; + 5,460 = 12,520; 7,200 − 7,060 = 140; 4,150 − 3,940 =
        210.
        """
        document: dict[str, Any] = {
            "format": "noxel-rig",
            "version": 1,
            "kind": "conventional",
            "units": {"mass": "lb"},
            "trailer": {},
        }
        weighed = {"config": "hitched", "readings": {"front": 3120, "rear": 3940, "trailer": 5460}}
        alone = {"config": "vehicle_only", "readings": {"front": 3320, "rear": 3060}}
        one, both = [weighed], [weighed, alone]
        for passes, ratings, says in (
            ([], {}, "Nothing has been weighed yet. 10 required checks cannot be made yet."),
            (
                [{"config": "hitched", "readings": {"gross": 12520}}],
                {"gvwr": 7200},
                "Weighed: combination 12,520 lb. 10 required checks cannot be made yet.",
            ),
            (
                one,
                {},
                "Weighed: truck 7,060 lb, trailer axles 5,460 lb, combination 12,520 lb. 10 "
                "required checks cannot be made yet.",
            ),
            (
                one,
                {"gawr_rear": 4150},
                "The rear axle has 210 lb left of its 4,150 lb rating. 9 required checks cannot be "
                "made yet.",
            ),
            (
                both,
                {"gawr_rear": 4150, "gvwr": 7200},
                "The truck has 140 lb left of its 7,200 lb GVWR. It is the tightest of 3 checks by "
                "what was weighed.",
            ),
        ):
            with self.subTest(says):
                rig = {**document, "vehicle": {"body": "pickup", "ratings": ratings}}
                if passes:
                    rig["weigh_ins"] = [{"scale": {"resolution": 20}, "passes": passes}]
                self.assertEqual(evaluate(parse_rig(rig)).headline.sentence, says)

    def test_checks_stand_tightest_first(self) -> None:
        rank = {
            "over": 0,
            "low": 0,
            "high": 1,
            "tight": 2,
            "unknown": 3,
            "unconfirmed": 4,
            "within": 4,
        }
        for name in NAMES:
            ranks = [
                rank[row.status]
                for row in evaluate(parse_rig(case(name)["file"])).checks
                if row.required or row.status != "unknown"
            ]
            self.assertEqual(ranks, sorted(ranks), name)


def _figures(node: Any) -> Iterator[tuple[Any, Any, float]]:
    """Every figure of a document, with what holds it and its key there."""
    for key, value in node.items() if isinstance(node, dict) else enumerate(node):
        if isinstance(value, dict | list):
            yield from _figures(value)
        elif isinstance(value, int | float) and not isinstance(value, bool) and key != "version":
            yield node, key, value


class NothingBringsItDown(unittest.TestCase):
    @settings(max_examples=some(300))
    @given(st.sampled_from(NAMES), st.data())
    def test_junk_anywhere_is_named_or_understood(self, name: str, data: st.DataObject) -> None:
        document = rig_of(name)
        for _ in range(data.draw(st.integers(1, 3))):
            *parents, last = data.draw(st.sampled_from([path for path in paths(document) if path]))
            node: Any = document
            for key in parents:
                node = node[key]
            if data.draw(st.booleans()):
                node[last] = copy.deepcopy(data.draw(JUNK))
            elif isinstance(node, dict):
                del node[last]
        try:
            rig = parse_rig(document)
        except RigFileError as exc:
            self.assertTrue(exc.problems and all(problem.message for problem in exc.problems))
            return
        self.assertIn(evaluate(rig).verdict, ("stop", "incomplete", "caution", "within"))
        evaluate_pack(rig)
        self.assertEqual(dump_rig(parse_rig(dump_rig(rig))), dump_rig(rig))

    def test_figures_that_stand_in_each_others_place(self) -> None:
        """Figures of one worked case changed among each other, or to nothing: each answer comes."""
        draw = random.Random(2026)
        for _ in range(400):
            document = rig_of(draw.choice(NAMES))
            figures = list(_figures(document))
            for _ in range(draw.randint(1, 4)):
                holder, key, _ = draw.choice(figures)
                holder[key] = draw.choice((draw.choice(figures)[2], draw.choice((0, 1, 99_999))))
            try:
                rig = parse_rig(document)
            except NoxelError:
                continue
            for answer in (evaluate, evaluate_pack, how_much, kept_answers):
                with contextlib.suppress(NoxelError):
                    answer(rig)

    @settings(max_examples=some(150))
    @given(st.sampled_from(NAMES), st.integers(0, 5000), st.binary(max_size=4))
    def test_damaged_files_are_refused_with_a_reason(self, name: str, at: int, junk: bytes) -> None:
        whole = json.dumps(case(name)["file"]).encode()
        damaged = whole[: at % len(whole)] + junk + whole[at % len(whole) + len(junk) :]
        try:
            evaluate(read_rig(damaged))
        except NoxelError as exc:
            self.assertTrue(re.search(r"\w", exc.message))

    @settings(max_examples=some(100))
    @given(
        st.lists(
            st.sampled_from(["hitched", "vehicle_only", "vehicle_empty", "trailer_only"]),
            max_size=6,
        ),
        st.data(),
    )
    def test_passes_of_any_kind_order_and_number(
        self, configs: list[str], data: st.DataObject
    ) -> None:
        document = copy.deepcopy(rig_of("check--three-passes"))
        passes: list[dict[str, Any]] = []
        for config in configs:
            names = {"hitched": ["front", "rear", "trailer"], "trailer_only": ["trailer"]}.get(
                config, ["front", "rear"]
            )
            readings = {
                draw: data.draw(MASS)
                for draw in data.draw(st.lists(st.sampled_from(names), unique=True, max_size=3))
            }
            bars = (
                {"spring_bars": data.draw(st.sampled_from(["engaged", "slack", "none"]))}
                if config == "hitched"
                else {}
            )
            passes.append({"config": config, "readings": readings, **bars})
        document["weigh_ins"][0]["passes"] = passes
        evaluation = evaluate(parse_rig(document))
        self.assertEqual(len(evaluation.passes), len(passes))
        kinds = {(pass_["config"], pass_.get("spring_bars") == "engaged") for pass_ in passes}
        self.assertEqual(
            sum(pass_.counts for pass_ in evaluation.passes),
            len(kinds),
            "the last of each kind counts",
        )
