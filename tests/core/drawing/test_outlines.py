"""The rig's outline, of every kind and style, at lengths from tiny to long; expected: the lengths
that it is drawn from.
"""

import re
import unittest
from itertools import product

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.drawing import geometry_of
from noxel.core.drawing.outlines import Lengths, Outline, outline_of
from noxel.core.editing import new_rig
from noxel.core.rig import Kind, parse_rig
from tests.kept import as_kept

PINS = ("fifth_wheel", "gooseneck")
KINDS = (*PINS, "conventional", "motorhome", "slide_in")
BODIES = ("pickup", "van", "suv", "wagon", "motorhome")
STYLES = ("box", "boat", "utility", "car_carrier", "towed_car")
POINT = r"-?\d+\.\d\d -?\d+\.\d\d"
PATH = re.compile(f"M{POINT}(L{POINT}|Q{POINT} {POINT})*Z?")
"""What any reader of SVG takes: one start, then lines and curves, at most one end."""


def points(d: str) -> list[tuple[float, float]]:
    """Every point of a stroke, x back and y up. [m]"""
    each = [float(text) for text in re.findall(r"-?\d+\.\d+", d)]
    return [(x, -y) for x, y in zip(each[::2], each[1::2], strict=True)]


class Outlines(unittest.TestCase):
    def test_every_kind_body_and_style_stays_in_its_frame(self) -> None:
        for kind, body, style in product(KINDS, BODIES, STYLES):
            with self.subTest(kind=kind, body=body, style=style):
                self.holds(
                    outline_of(Lengths(kind, body, style, 3.6, 1.2, 5.1, 2)),  # type: ignore[arg-type]
                    (3.6, 4.8, 9.9, 2),
                )

    @given(
        st.sampled_from(KINDS),
        st.sampled_from(STYLES),
        st.floats(2.2, 6.5),
        st.floats(0.6, 1.6),
        st.floats(2.5, 11.0),
        st.integers(1, 9),
    )
    def test_any_lengths(
        self, kind: str, style: str, wheelbase: float, offset: float, coupler: float, axles: int
    ) -> None:
        offset = -0.1 if kind in PINS else offset
        drawn = outline_of(
            Lengths(kind, "pickup", style, wheelbase, offset, coupler, axles)  # type: ignore[arg-type]
        )
        hitch = wheelbase + offset
        self.holds(drawn, (wheelbase, hitch, hitch + coupler, min(axles, 5)))

    def test_each_shape_as_it_was_looked_at(self) -> None:
        """Seen as pictures side by side: strokes where they belong, nothing across another."""
        shapes = {
            f"{kind}, {body}, {style}": outline_of(
                Lengths(kind, body, style, 3.6, -0.1 if kind in PINS else 1.2, 5.1, 2)  # type: ignore[arg-type]
            )
            for kind, body, style in (
                *(("conventional", "pickup", style) for style in STYLES),
                *((kind, body, "utility") for kind, body in zip(KINDS, BODIES, strict=False)),
            )
        }
        as_kept(self, "drawing/shapes", shapes)

    def test_usual_lengths_stand_in_and_are_named(self) -> None:
        """Half-ton truck and box trailer; a pin a hand's breadth ahead of the axle. [m]"""
        usual: dict[Kind, tuple[float, ...]] = {
            "conventional": (3.7, 1.3, 5.2),
            "fifth_wheel": (3.7, -0.05, 8.0),
        }
        for kind, lengths in usual.items():
            drawn = geometry_of(parse_rig(new_rig("", kind, "lb")))
            wheelbase = (drawn.wheelbase, drawn.hitch_offset, drawn.coupler_to_axles)
            self.assertEqual(wheelbase, lengths)
            self.assertEqual(
                drawn.assumed, ["wheelbase", "hitch_offset", "coupler_to_axles", "trailer_axles"]
            )
            self.assertEqual((drawn.body, drawn.style, drawn.trailer_axles), ("pickup", "box", 2))

    def holds(self, drawn: Outline, expected: tuple[float, float, float, int]) -> None:
        rear, hitch, centre, axles = expected
        self.assertEqual((drawn.rear, drawn.hitch), (rear, hitch))
        front, back = drawn.vehicle.wheels
        self.assertEqual((front.at, back.at), (0, rear))
        wheels = [wheel.at for wheel in drawn.trailer.wheels]
        self.assertEqual(len(wheels), axles)
        self.assertAlmostEqual(sum(wheels) / axles, centre)
        for side in (drawn.vehicle, drawn.trailer):
            for stroke in (*side.strokes, *drawn.coupling):
                self.assertTrue(PATH.fullmatch(stroke.d), stroke.d)
            for x, y in (index for stroke in side.strokes for index in points(stroke.d)):
                self.assertTrue(0 <= y <= side.tall, (x, y))
                self.assertGreaterEqual(x, drawn.nose - 0.05)
                self.assertLessEqual(x, side.end + 0.6)  # a camper's tail, a boat's engine
        self.assertTrue(all(wheel.at < drawn.trailer.end for wheel in drawn.trailer.wheels))


if __name__ == "__main__":
    unittest.main()
