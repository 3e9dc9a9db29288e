"""Lists from spreadsheets: separators, decimal commas, headers in any order, bad lines by their
number, ten thousand rows.
"""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.rig import Units
from noxel.errors import InputError, TooLarge
from noxel.formats.items_csv import guess, header_units, read_items
from noxel.formats.lists import Layout, length_in


def read(text: str) -> list[dict[str, object]]:
    layout = guess(text)
    return read_items(
        text, layout, mass=header_units(text, layout)[0] or "kg", length="cm", on="vehicle"
    )


class Lists(unittest.TestCase):
    def test_the_first_bad_line_is_named_and_the_others_counted(self) -> None:
        text = "item,mass kg\nchairs,3\nstove,\ntable,-4\nlamp,heavy\n"
        with self.assertRaises(InputError) as refused:
            read(text)
        self.assertRegex(
            str(refused.exception), r"^Nothing was added\. line 3.* 2 more lines cannot be read\.$"
        )
        self.assertEqual(len(refused.exception.problems), 3)

    def test_as_different_spreadsheets_write_them(self) -> None:
        wanted = [
            {"name": "chairs", "mass": 3.5, "quantity": 4, "on": "vehicle"},
            {"name": "books, old", "mass": 18, "quantity": 2, "on": "vehicle"},
        ]
        for text in (
            'Item,Mass (kg),Qty\nchairs,3.5,4\n"books, old",18,2\n',
            "Qty;What;Weight kg\n4;chairs;3,5\n2;books, old;18\n",
            "chairs\t4\t3.5\nbooks, old\t2\t18",
            "mass|item|count\r\n3.5|chairs|4\r\n18|books, old|2\r\n",
        ):
            with self.subTest(text):
                layout = guess(text)
                # without a header the columns are a guess that the user corrects
                if not layout.header:
                    layout = Layout(
                        layout.delimiter,
                        layout.decimal_comma,
                        False,
                        {"name": 0, "quantity": 1, "mass": 2},
                    )
                self.assertEqual(
                    read_items(text, layout, mass="kg", length="cm", on="vehicle"), wanted
                )
        self.assertEqual(
            header_units("item,weight lbs\nx,3", guess("item,weight lbs\nx,3")), ("lb", None)
        )

    def test_the_headings_units_are_kept_where_the_rig_has_others(self) -> None:
        text = "thing;kg;place (cm)\nkiln shelves;12,5;80\nclay;25 lb;1 m\n"
        layout = guess(text)
        self.assertEqual(header_units(text, layout), ("kg", "cm"))
        inches = Units(mass="lb", length="in")
        items = read_items(text, layout, mass="kg", length="cm", on="trailer", into=inches)
        self.assertEqual(
            [(entry["mass"], entry["position"]) for entry in items],
            [("12.5 kg", "80 cm"), ("25 lb", "1 m")],
        )
        items = read_items(
            text, layout, mass="kg", length="cm", on="trailer", into=Units(mass="kg", length="cm")
        )
        self.assertEqual(
            [(entry["mass"], entry["position"]) for entry in items], [(12.5, 80), ("25 lb", "1 m")]
        )
        for heading, unit in (
            ("arm, inches", "in"),
            ("position m", "m"),
            ("behind (ft)", "ft"),
            ("in trailer", None),
            ("from", None),
        ):
            self.assertEqual(length_in(heading), unit, heading)

    def test_where_and_what_sort(self) -> None:
        read_back = read("name;mass;where;position;category\nkiln;95;trailer;4 ft;fixed\n")
        self.assertEqual(
            read_back,
            [
                {
                    "name": "kiln",
                    "mass": 95,
                    "on": "trailer",
                    "position": "4 ft",
                    "category": "fixed",
                }
            ],
        )

    def test_bad_lines_by_number_and_nothing_half_done(self) -> None:
        text = (
            "name,mass,quantity,where\na,12,1,vehicle\nb,heavy,1,vehicle\nc,5,-2,vehicle\n"
            "d,-7,1,vehicle\ne,3,1,boat\nf,,1,\n"
        )
        with self.assertRaises(InputError) as caught:
            read(text)
        by_path = {problem.path: problem.message for problem in caught.exception.problems}
        self.assertEqual(list(by_path), ["line 3", "line 4", "line 5", "line 6", "line 7"])
        for line, cause in (
            ("line 3", "heavy"),
            ("line 4", "-2"),
            ("line 5", "negative"),
            ("line 6", "boat"),
            ("line 7", "no mass"),
        ):
            self.assertIn(cause, by_path[line])
        for nothing in ("", "\n\n", "name,mass\n"):
            with self.assertRaises(InputError):
                read(nothing)
        with self.assertRaisesRegex(InputError, "which column is the mass"):
            read_items(
                "a;b", Layout(";", False, False, {"name": 0}), mass="kg", length="cm", on="vehicle"
            )

    def test_ten_thousand_rows_and_one_more(self) -> None:
        rows = "\n".join(f"thing {number},1" for number in range(10_000))
        self.assertEqual(len(read("name,mass\n" + rows)), 10_000)
        with self.assertRaises(TooLarge):
            read("name,mass\n" + rows + "\nx,1\ny,1")

    @given(st.text(max_size=300))
    def test_any_text_is_read_or_refused(self, text: str) -> None:
        try:
            read(text)
        except (InputError, TooLarge) as exc:
            self.assertTrue(exc.message)
