"""Typing into a rig: nothing typed is lost, the document is always valid, and every message names
its field.
"""

import json
import re
import unittest

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.editing import Change, Document, Edited, apply_changes, settle
from noxel.core.rig import dump_rig, parse_rig
from noxel.errors import InputError, RigFileError
from tests.truth import rig_of

GVWR = "vehicle.ratings.gvwr"


def typed(document: Document, *changes: tuple[str, str]) -> Edited:
    return apply_changes(document, [Change(path, text) for path, text in changes])


def problems(edited: Edited) -> dict[str, str]:
    return {field.path: field.problem for field in edited.fields if field.problem}


class Typing(unittest.TestCase):
    def setUp(self) -> None:
        self.document = rig_of("check--three-passes")

    def test_a_text_that_says_more_than_its_figure_is_kept(self) -> None:
        made = typed(
            self.document,
            (GVWR, "3,200 kg"),
            ("vehicle.curb_weight", "4500+157"),
            ("vehicle.ratings.payload", "1600"),
        )
        self.assertEqual(made.document["vehicle"]["ratings"]["gvwr"], "3200 kg")
        self.assertEqual(made.document["vehicle"]["curb_weight"], 4657)
        self.assertEqual(
            made.document["vehicle"]["entered"],
            {"ratings.gvwr": {"text": "3,200 kg"}, "curb_weight": {"text": "4500+157"}},
        )

    def test_a_point_before_three_digits_is_a_thousands_mark_where_nothing_is_so_light(
        self,
    ) -> None:
        for path, text, value in (
            (GVWR, "1.060", 1060),
            (GVWR, "1.060 kg", "1060 kg"),
            (GVWR, "12.500 lb", 12500),
            (GVWR, "22.500", 22500),
            (GVWR, "7,2", None),
            (GVWR, "1060.5", 1060.5),
            ("loads[0].mass", "1.250 kg", "1.25 kg"),  # an item may be as light as that
            ("loads[0].mass", "0.805 kg", "0.805 kg"),
        ):
            document = self.document | {"loads": [{"name": "x", "on": "vehicle", "mass": 9}]}
            made = typed(document, (path, text)).document
            entry = (
                made["loads"][0]["mass"] if path != GVWR else made["vehicle"]["ratings"].get("gvwr")
            )
            self.assertEqual(entry, value, text)

    def test_what_is_not_understood_waits_and_the_figure_is_left_out(self) -> None:
        made = typed(self.document, (GVWR, "72oo"))
        self.assertIsNone(made.rig.vehicle.ratings.gvwr)
        self.assertIn("“oo”", problems(made)[GVWR])
        self.assertEqual(
            settle(json.loads(json.dumps(made.document))), made, "it is all in the document"
        )
        self.assertEqual(problems(typed(made.document, (GVWR, "7200"))), {})

    def test_what_no_typed_figure_explains_is_refused_and_counted(self) -> None:
        for left_out, more in (((), ""), (("kind",), r" \(and 1 more\)")):
            document = rig_of("check--three-passes") | {"terms": "martian"}
            for key in left_out:
                del document[key]
            with self.assertRaisesRegex(RigFileError, rf"^(kind|terms): [^()]*{more}$"):
                settle(document)

    def test_bad_figures_are_named(self) -> None:
        for text, cause in (
            ("-50", "negative|above zero"),
            ("0", "above zero"),
            ("7,2", "comma"),
            ("1000000000", "200 t"),
            ("seven", "“seven”"),
        ):
            with self.subTest(text):
                self.assertRegex(problems(typed(self.document, (GVWR, text)))[GVWR], cause)
        for text in ("2.5", "0", "two"):
            made = typed(self.document, ("vehicle.tires.rear.count", text))
            self.assertEqual(list(problems(made)), ["vehicle.tires.rear.count"], text)

    def test_a_figure_that_cannot_go_stays_and_says_so(self) -> None:
        path = "weigh_ins[0].scale.resolution"
        for text in ("", "fine", "0"):
            with self.subTest(text):
                made = typed(self.document, (path, text))
                self.assertIn("Still using 20", problems(made)[path])
        made = typed(self.document, ("trailer.ratings.gawr[0]", ""))
        assert made.rig.trailer  # noqa: S101
        self.assertEqual([gawr.written for gawr in made.rig.trailer.ratings.gawr], [4300, 4300])

    def test_one_wheel_of_a_pair_waits_for_the_other(self) -> None:
        path = "weigh_ins[0].passes[2].readings"
        made = typed(self.document, (f"{path}.front", ""), (f"{path}.front_left", "1400"))
        self.assertIn("front_right", problems(made)[f"{path}.front_left"])
        made = typed(made.document, (f"{path}.front_right", "1360"))
        self.assertEqual(
            made.document["weigh_ins"][0]["passes"][2]["readings"],
            {"rear": 2600, "front_left": 1400, "front_right": 1360},
        )
        made = typed(made.document, (f"{path}.front_right", ""))
        self.assertEqual(
            list(problems(made)),
            [f"{path}.front_left"],
            "and waits again when the other is taken away",
        )

    def test_contradicting_figures_wait_on_the_typed_one(self) -> None:
        made = typed(self.document, ("vehicle.ratings.payload_reduction", "1,700"))
        self.assertEqual(list(problems(made)), ["vehicle.ratings.payload_reduction"])

    def test_a_source_outlives_a_new_figure(self) -> None:
        edited = apply_changes(
            self.document, [Change(GVWR, op="source", source="plate", note="driver's door")]
        )
        edited = typed(edited.document, (GVWR, "7100"))
        self.assertEqual(
            edited.document["vehicle"]["entered"],
            {"ratings.gvwr": {"source": "plate", "note": "driver's door"}},
        )

    def test_a_text_does_not_come_back_over_what_was_set_or_removed(self) -> None:
        path = "trailer.ratings.gawr"
        made = typed(
            self.document,
            (f"{path}[0]", "3,900"),
            (f"{path}[1]", "1,950 kg"),
            ("vehicle.curb_weight", "4,700"),
        )
        made = apply_changes(made.document, [Change("vehicle.curb_weight", op="set", value=4850)])
        self.assertEqual(
            made.document["vehicle"], {**self.document["vehicle"], "curb_weight": 4850}
        )
        shorter = apply_changes(made.document, [Change(f"{path}[1]", op="remove")])
        self.assertEqual(shorter.document["trailer"]["ratings"]["gawr"], [3900])
        moved = apply_changes(made.document, [Change(f"{path}[0]", op="remove")])
        self.assertEqual(moved.document["trailer"]["ratings"]["gawr"], ["1950 kg"])
        longer = apply_changes(made.document, [Change(f"{path}[0]", op="insert", value=4100)])
        self.assertEqual(longer.document["trailer"]["ratings"]["gawr"], [4100, 3900, "1950 kg"])
        self.assertEqual(
            [(field.path, field.entry.text) for field in longer.fields],
            [(f"{path}[1]", "3,900"), (f"{path}[2]", "1,950 kg")],
        )
        self.assertEqual(
            [(field.path, field.entry.text) for field in moved.fields], [(f"{path}[0]", "1,950 kg")]
        )

    def test_spring_bars_later_do_not_rewrite_what_was_weighed(self) -> None:
        document = rig_of("check--two-passes-bars-slack")
        document["hitch"]["weight_distribution"] = False
        document["weigh_ins"][0]["passes"][0].pop("spring_bars")
        edited = apply_changes(
            document, [Change("hitch.weight_distribution", op="set", value=True)]
        )
        self.assertEqual(edited.document["weigh_ins"][0]["passes"][0]["spring_bars"], "none")
        with self.assertRaisesRegex(InputError, "contradicts this: spring bars cannot"):
            apply_changes(
                self.document, [Change("hitch.weight_distribution", op="set", value=False)]
            )

    def test_an_accepted_warning_stays_with_its_pass(self) -> None:
        weigh_in = self.document["weigh_ins"][0]
        weigh_in["accepted"] = [
            {"code": "a", "path": "passes[0].printed_gross"},
            {"code": "b", "path": "passes[1]"},
            {"code": "c"},
            {"code": "d", "path": "passes[2].readings.front"},
        ]

        def after(*changes: Change) -> list[tuple[str, str | None]]:
            document = apply_changes(self.document, changes).document["weigh_ins"][0]
            return [(entry["code"], entry.get("path")) for entry in document.get("accepted", [])]

        removed = after(Change("weigh_ins[0].passes[1]", op="remove"))
        self.assertEqual(
            removed,
            [("a", "passes[0].printed_gross"), ("c", None), ("d", "passes[1].readings.front")],
        )
        added = after(
            Change("weigh_ins[0].passes[1]", op="insert", value={"config": "vehicle_only"})
        )
        self.assertEqual(
            added[:2] + added[3:],
            [
                ("a", "passes[0].printed_gross"),
                ("b", "passes[2]"),
                ("d", "passes[3].readings.front"),
            ],
        )

    def test_paths_that_lead_nowhere(self) -> None:
        for path in (
            "",
            "vehicle.colour",
            "weigh_ins[0].passes[0].readings.frnt",
            "trailer.ratings.gawr.x",
        ):
            with self.subTest(path), self.assertRaises(InputError):
                made = typed(self.document, (path, "1"))
                if problems(made):  # a reading's name is only known to the pass as a whole
                    raise InputError(str(problems(made)))

    @given(
        st.lists(
            st.tuples(
                st.sampled_from(
                    [
                        GVWR,
                        "vehicle.ratings.payload",
                        "vehicle.ratings.payload_reduction",
                        "trailer.ratings.gawr[1]",
                        "weigh_ins[0].scale.resolution",
                        "weigh_ins[0].passes[2].readings.front",
                        "weigh_ins[0].passes[2].readings.front_left",
                        "weigh_ins[0].passes[2].readings.front_right",
                        "policy.tongue_share[0]",
                        "policy.tongue_share[1]",
                        "vehicle.geometry.hitch_offset",
                        "weigh_ins[0].date",
                    ]
                ),
                st.sampled_from(
                    [
                        "",
                        "0",
                        "12",
                        "1,400",
                        "-3",
                        "5 kg",
                        "4 ft 2 in",
                        "12 %",
                        "0.1",
                        "x",
                        "2026-02-30",
                        "9e9",
                    ]
                ),
            ),
            max_size=8,
        )
    )
    def test_anything_typed_leaves_a_valid_rig_and_every_text(
        self, changes: list[tuple[str, str]]
    ) -> None:
        document = self.document
        last: dict[str, str] = {}
        for path, text in changes:
            made = typed(document, (path, text))
            document, last[path] = made.document, text
        rig = parse_rig(document)
        self.assertEqual(dump_rig(rig), document)
        fields = {field.path: field.entry.text for field in settle(document).fields}
        for path, text in last.items():
            if text and fields.get(path) is None:
                self.assertRegex(
                    json.dumps(document), rf'[ "\[]{re.escape(text)}[",}}\]]', (path, text)
                )
