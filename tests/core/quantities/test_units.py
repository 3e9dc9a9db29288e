"""Reading what people write. Expected values: the exact pound, inch and foot of 1959, and plain
arithmetic.
"""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.quantities import (
    KG,
    METRES,
    LengthUnit,
    fluid_density,
    print_length,
    print_mass,
    read_length,
    read_mass,
    read_typed,
)
from noxel.errors import QuantityError


class Reading(unittest.TestCase):
    def test_file_strings(self) -> None:
        for text, kg in (
            ("1380 kg", 1380.0),
            ("3,200 lb", 3200 * 0.45359237),
            ("1.38 t", 1380.0),
            ("-48 lb", -48 * 0.45359237),
        ):
            self.assertAlmostEqual(read_mass(text), kg, places=9, msg=text)
        self.assertAlmostEqual(read_length("150 mm"), 0.15)

    def test_what_a_file_string_must_not_be(self) -> None:
        for text in (
            "1,45 kg",
            "3200",
            "12,34 lb",
            "1e9 kg",
            "",
            "kg",
            "５ kg",
            "180+165 lb",
            "10 stone",
            "3 200 lb",
            "nan kg",
            "1..2 kg",
        ):
            with self.subTest(text), self.assertRaises(QuantityError):
                read_mass(text)

    def test_typed_texts(self) -> None:
        told = {
            ("1380 kg", "mass", "lb"): "1380 kg",
            ("3,200 lb", "mass", "lb"): 3200,
            ("3200lbs", "mass", "kg"): "3200 lb",
            ("180+165+60", "mass", "lb"): 405,
            ("180 + 20 kg", "mass", "lb"): "200 kg",
            ("3,060", "mass", "lb"): 3060,
            ("1 380 kg", "mass", "kg"): 1380,
            ("5 ft 4 in", "length", "in"): (5 * 12 + 4),
            ("3/4", "length", "in"): 0.75,
            ("5 3/8", "length", "in"): 5.375,
            ("12.5 %", "share", None): 0.125,
            ("400 − 20", "mass", "kg"): 380,
            ("2.5 tonnes", "mass", "kg"): "2.5 t",
        }
        for (text, dimension, default), value in told.items():
            with self.subTest(text):
                found = read_typed(text, dimension, default).value  # type: ignore[arg-type]
                if isinstance(value, int) and isinstance(found, float):
                    self.assertAlmostEqual(found, value)
                else:
                    self.assertEqual(found, value)

    def test_errors_name_the_cause(self) -> None:
        for text, cause in (
            ("32o0", "“o”"),
            ("1,5", "comma"),
            ("12 furlongs", "“furlongs”"),
            ("1e9", "“e”"),
            ("2 %", "“%”"),
            ("+", "not a mass"),
        ):
            with self.subTest(text), self.assertRaisesRegex(QuantityError, cause):
                read_typed(text, "mass", "lb")

    @given(st.integers(0, 400_000), st.sampled_from(["lb", "kg"]))
    def test_grouping_and_spacing_never_change_a_mass(self, amount: int, unit: str) -> None:
        for text in (f"{amount} {unit}", f"{amount:,}{unit}", f"  {amount:,}   {unit} "):
            self.assertEqual(read_mass(text), float(amount) * KG[unit])

    @given(st.floats(-1e5, 1e5).filter(lambda x: abs(x) >= 0.5))
    def test_printing_rounds_halves_away_from_zero(self, kg: float) -> None:
        whole = int(print_mass(kg, "kg").removesuffix(" kg").replace(",", "").replace("−", "-"))
        self.assertLessEqual(abs(whole - kg), 0.5)
        self.assertEqual(whole < 0, kg < 0)

    @given(st.floats(0.02, 50), st.sampled_from(["in", "ft", "cm", "mm", "m"]), st.booleans())
    def test_a_printed_length_is_read_again_as_close_as_a_tape_tells(
        self, metres: float, unit: LengthUnit, fine: bool
    ) -> None:
        again = read_length(print_length(metres, unit, fine=fine))
        # half of the last place printed
        most = {"in": 0.0127, "ft": 0.01524, "cm": 0.005, "mm": 0.0005, "m": 0.005}[unit]
        self.assertLessEqual(
            abs(again - metres), most * (0.1 if fine and unit not in ("mm", "m") else 1) + 1e-9
        )

    def test_what_a_litre_weighs(self) -> None:
        """As published for each: DEF 1.09 kg/l, diesel 0.84, gasoline 0.74, propane 0.50."""
        for fluid, kg in (
            *(("def", 1.09), ("diesel", 0.84), ("gasoline", 0.74)),
            *(("propane", 0.50), ("water", 1.0)),
        ):
            self.assertAlmostEqual(fluid_density(fluid), kg, delta=0.005, msg=fluid)

    def test_units_are_exact(self) -> None:
        self.assertEqual(KG["lb"], 0.45359237)
        self.assertAlmostEqual(METRES["ft"], 12 * METRES["in"], places=15)
