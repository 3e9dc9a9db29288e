"""Towing guides. Expected: the table of the test itself, read by eye; 13,300 lb are 6,032.8 kg by
0.45359237.
"""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.plates import look_up, read_guide
from noxel.errors import InputError

TABLE = """Engine;Axle ratio;Cab;Drive;Wheelbase;GCWR (lb);Max. trailer;Tongue
3.5 V6;3.31;crew;4x2;145 in;13,300;8,200;820
3.5 V6;3.55;crew;4x2;145 in;15,900;10,700;1,070
3.5 V6;3.55;crew;4x4;145 in;15,900;10,400;-
5.0 V8;3.55;crew;4x2;145 in;14,700;9,500;950
"""
OURS = {"engine": "3.5 v6", "axle_ratio": "3.55", "drive": "4x2"}


class Guides(unittest.TestCase):
    def test_the_row_of_a_vehicle_and_those_easily_read_instead(self) -> None:
        rows = read_guide(TABLE, "lb")
        self.assertEqual([row.number for row in rows], [2, 3, 4, 5])
        self.assertEqual(
            rows[0].ratings,
            {"gcwr": "13,300 lb", "tow_rating": "8,200 lb", "tongue_rating": "820 lb"},
        )
        self.assertAlmostEqual(rows[0].kg["gcwr"], 6032.778521)
        self.assertNotIn("tongue_rating", rows[2].ratings)
        found = look_up(rows, OURS)
        self.assertEqual([row.number for row in found.rows], [3])
        self.assertEqual(
            [(alike.row.number, alike.differs) for alike in found.alike],
            [(2, "axle_ratio"), (4, "drive"), (5, "engine")],
        )

    def test_what_would_tell_which_row_it_is(self) -> None:
        rows = read_guide(TABLE, "lb")
        self.assertEqual(look_up(rows, {"engine": "3.5 V6"}).ask, ("axle_ratio", "drive"))
        self.assertEqual(look_up(rows, {}).ask, ("engine", "axle_ratio", "drive"))
        # what is known is not asked for again
        lacking = read_guide("Engine;Cab;GCWR\nV8;crew;14,000\nV8;;15,000\n", "lb")
        self.assertEqual(
            (len(look_up(lacking, {"cab": "crew"}).rows), look_up(lacking, {"cab": "crew"}).ask),
            (2, ()),
        )
        none = look_up(rows, {**OURS, "cab": "regular"})
        self.assertEqual((none.rows, none.alike), ((), ()))

    def test_other_marks_between_cells_and_other_units(self) -> None:
        for mark in ("\t", "|", "   "):
            self.assertEqual(
                read_guide(TABLE.replace(";", mark), "lb"), read_guide(TABLE, "lb"), repr(mark)
            )
        kilograms = read_guide("Motor,GCM (kg),Towing,Ball\n2.8,5850,3500 kg,350\n", "lb")[0]
        self.assertEqual(
            kilograms.ratings,
            {"gcwr": "5,850 kg", "tow_rating": "3500 kg", "tongue_rating": "350 lb"},
        )

    def test_tables_that_are_none(self) -> None:
        for text, words in (
            ("", "a line of headings"),
            ("GCWR\n", "a row below"),
            ("Colour;Price\nred;3\n", "No column of the first line is a rating"),
            ("Engine;GCWR\nV8;heavy\n", "Line 2, GCWR: “heavy”"),
            ("Engine;GCWR\nV8;\n", "No row of the table gives a rating"),
            ("GCWR;x\n" + "1;2\n" * 2000, "2,001 rows; 2,000 are read"),
            ("x" * 200_001, "200,000 characters"),
        ):
            with self.assertRaisesRegex(InputError, words):
                read_guide(text, "lb")
        self.assertEqual(len(read_guide("GCWR;x\n" + "1;2\n" * 1999, "lb")), 1999)

    @given(st.text(max_size=400), st.sampled_from(["lb", "kg"]))
    def test_any_text_is_a_guide_or_says_why_not(self, text: str, unit: str) -> None:
        try:
            rows = read_guide(text, "lb" if unit == "lb" else "kg")
        except InputError as exc:
            self.assertTrue(exc.problems)
            return
        self.assertTrue(all(row.ratings for row in rows))
