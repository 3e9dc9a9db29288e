"""The rig from its left side: a few strokes for each kind of vehicle and trailer, drawn to its
lengths, for the page and for every paper.

Metres throughout: x counts back from the front axle, y up from the ground.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from noxel.core.rig import Kind

Paint = Literal["body", "glass", "line"]
Corner = tuple[float, float] | tuple[float, float, float]
"""A point of a stroke; a third number is the radius that rounds it. [m]"""

_PINS = ("fifth_wheel", "gooseneck")
_ROOFS = {"van": 2.2, "suv": 1.86, "wagon": 1.6}
_MOST_AXLES = 5
_TWO_WINDOWS = 2.2
"""Where a cab with two windows ends at least, behind the front axle. [m]"""

_SPREAD, _CAR_WHEELBASE = 0.86, 2.6
"""From one trailer axle to the next; of a car towed on its own wheels. [m]"""


@dataclass(frozen=True, slots=True)
class Stroke:
    """One line of the drawing: ``d`` is the path of an SVG in metres, in which y counts down;
    ``weight`` is its width on a screen [px].
    """

    paint: Paint
    weight: float
    d: str


@dataclass(frozen=True, slots=True)
class Wheel:
    """A wheel on the ground, with what it turns on."""

    axle: Literal["front", "rear", "trailer"]
    at: float
    radius: float


@dataclass(frozen=True, slots=True)
class Half:
    """One half of the rig: its strokes in the order they are drawn, how far back it reaches, and
    the height it takes with air above it. [m]
    """

    strokes: tuple[Stroke, ...]
    wheels: tuple[Wheel, ...]
    end: float
    tall: float


@dataclass(frozen=True, slots=True)
class Outline:
    """The rig as drawn; the tongue comes down at ``hitch``, the trailer's axles together at
    ``centre``. ``pin`` says that the trailer's nose stands over the bed: it is drawn first.
    """

    nose: float
    rear: float
    hitch: float
    centre: float
    pin: bool
    vehicle: Half
    trailer: Half
    coupling: tuple[Stroke, ...]


@dataclass(frozen=True, slots=True)
class Lengths:
    """What an outline is drawn from. Lengths in metres."""

    kind: Kind
    body: str
    style: str
    wheelbase: float
    hitch_offset: float
    coupler_to_axles: float
    trailer_axles: int


@lru_cache(maxsize=64)
def outline_of(rig: Lengths) -> Outline:
    """Draw a rig, its trailer with it, whether or not one is behind it."""
    hitch, pin = rig.wheelbase + rig.hitch_offset, rig.kind in _PINS
    bar = _stroke("line", 2.6, [(rig.wheelbase + 0.5, 0.45), (hitch, 0.45)], closed=False)
    return Outline(
        nose=-0.95,
        rear=rig.wheelbase,
        hitch=hitch,
        centre=hitch + rig.coupler_to_axles,
        pin=pin,
        vehicle=_vehicle(rig, pin),
        trailer=_trailer(rig, hitch, pin),
        coupling=() if pin else (bar,),
    )


def _stroke(
    paint: Paint, weight: float, corners: Sequence[Corner], *, closed: bool = True
) -> Stroke:
    """A stroke through points; each corner with a radius is rounded, at most to the middle of its
    sides.
    """
    steps: list[str] = []
    for index, corner in enumerate(corners):
        x, y, radius = (*corner, 0.0)[:3]
        before, after = corners[index - 1], corners[(index + 1) % len(corners)]
        steps.append(("L" if steps else "M") + _toward(x, y, before, radius))
        if radius:
            steps.append(f"Q{_at(x, y)} {_toward(x, y, after, radius)}")
    return Stroke(paint, weight, "".join(steps) + ("Z" if closed else ""))


def _at(x: float, y: float) -> str:
    return f"{x:.2f} {0.0 - y:.2f}"


def _toward(x: float, y: float, other: Corner, radius: float) -> str:
    """The point so far from a corner toward the next, at most halfway."""
    part = min(0.5, radius / (math.dist((x, y), other[:2]) or 1.0))
    return _at(x + (other[0] - x) * part, y + (other[1] - y) * part)


def _body(corners: Sequence[Corner], weight: float = 1.8) -> Stroke:
    return _stroke("body", weight, corners)


def _glass(corners: Sequence[Corner]) -> Stroke:
    return _stroke("glass", 1.1, corners)


def _thin(*corners: Corner, closed: bool = False, weight: float = 1.0) -> Stroke:
    return _stroke("line", weight, corners, closed=closed)


def _window(front: float, back: float, sill: float, top: float) -> Stroke:
    """A window with its upper corners rounded."""
    return _glass([(front, sill), (front, top, 0.08), (back, top, 0.08), (back, sill)])


def _vehicle(rig: Lengths, pin: bool) -> Half:
    back = 1.1 if pin else max(0.55, min(1.2, rig.hitch_offset - 0.22))
    tail = rig.wheelbase + back
    if rig.kind == "slide_in":
        strokes = *_pickup(rig.wheelbase, tail), _camper(rig.wheelbase, tail)
    elif rig.body == "motorhome":
        strokes = _motorhome(rig.wheelbase, tail)
    elif rig.body in _ROOFS:
        strokes = _car_body(rig.wheelbase, tail, _ROOFS[rig.body])
    else:
        strokes = _pickup(rig.wheelbase, tail)
    return Half(
        strokes,
        (Wheel("front", 0.0, 0.38), Wheel("rear", rig.wheelbase, 0.38)),
        rig.wheelbase + 1.15,
        3.15 if rig.kind in ("motorhome", "slide_in") else 2.95,
    )


def _motorhome(a: float, tail: float) -> tuple[Stroke, ...]:
    return (
        _body(
            [
                (tail, 0.5),
                (tail, 2.95, 0.25),
                (0.1, 2.95, 0.5),
                (-0.55, 1.75),
                (-0.92, 1.15, 0.2),
                (-0.95, 0.5),
            ]
        ),
        _glass([(-0.35, 1.75), (0.12, 2.5), (0.55, 2.5), (0.55, 1.75)]),
        _window(a * 0.45, a * 0.78, 1.75, 2.4),
        _thin((0.95, 0.62), (0.95, 2.45), (1.6, 2.45), (1.6, 0.62), closed=True),
    )


def _car_body(a: float, tail: float, roof: float) -> tuple[Stroke, ...]:
    """A van, a utility vehicle or a car, by the height of its roof."""
    return (
        _body(
            [
                (tail, 0.45),
                (tail, 1.05, 0.1),
                (tail - 0.28, roof, 0.3),
                (1.35, roof, 0.45),
                (0.62, 1.14, 0.2),
                (-0.7, 0.98, 0.3),
                (-0.9, 0.45),
            ]
        ),
        _glass([(0.98, 1.14), (1.5, roof - 0.16), (a * 0.55, roof - 0.16), (a * 0.55, 1.14)]),
        _glass(
            [
                (a * 0.59, 1.14),
                (a * 0.59, roof - 0.16),
                (tail - 0.5, roof - 0.16),
                (tail - 0.3, 1.14),
            ]
        ),
        _thin((a * 0.57, 1.1), (a * 0.57, 0.5)),
    )


def _cab(a: float) -> float:
    return max(1.9, a - 1.2)


def _pickup(a: float, tail: float) -> tuple[Stroke, ...]:
    """A pickup; its cab has a second window where there is room for one."""
    cab = _cab(a)
    door = (cab + 1.2) / 2
    windows = [_glass([(0.98, 1.27), (1.52, 1.76), (cab - 0.28, 1.74), (cab - 0.2, 1.27)])]
    if cab > _TWO_WINDOWS:
        windows = [
            _glass([(0.98, 1.27), (1.52, 1.76), (door, 1.76), (door, 1.27)]),
            _glass(
                [(door + 0.1, 1.27), (door + 0.1, 1.76), (cab - 0.26, 1.76), (cab - 0.18, 1.27)]
            ),
        ]
    return (
        _body(
            [
                (tail, 0.5),
                (tail, 1.26, 0.05),
                (cab, 1.26),
                (cab - 0.1, 1.86, 0.2),
                (1.45, 1.88, 0.35),
                (0.72, 1.28),
                (-0.84, 1.14, 0.28),
                (-0.97, 0.92, 0.08),
                (-0.97, 0.48, 0.05),
            ]
        ),
        *windows,
        _thin((cab, 1.26), (cab, 0.5)),
        _thin((cab + 0.06, 1.08), (tail, 1.08)),
    )


def _camper(a: float, tail: float) -> Stroke:
    """A camper in the bed of a pickup."""
    cab = _cab(a) + 0.05
    return _body(
        [
            (tail + 0.5, 1.1),
            (tail + 0.5, 3.0, 0.2),
            (0.5, 3.0, 0.35),
            (0.75, 2.05),
            (cab, 2.05),
            (cab, 1.1),
        ]
    )


def _trailer(rig: Lengths, hitch: float, pin: bool) -> Half:
    length, car = rig.coupler_to_axles, rig.style == "towed_car"
    centre = hitch + length
    behind = length * 0.5 if pin else 2.3 if car else max(1.4, (length - 1) * 0.68)
    count = max(1, min(rig.trailer_axles, _MOST_AXLES))
    apart = _CAR_WHEELBASE if car else _SPREAD
    axles = [centre + (index - (count - 1) / 2) * apart for index in range(count)]
    tail = max(centre + behind, axles[-1] + 0.6)
    if pin:
        strokes = _over_the_bed(hitch, tail, length)
    elif rig.style == "box":
        strokes = _box(hitch, tail, length)
    elif car:
        strokes = _towed_car(hitch, tail, axles[0])
    else:
        strokes = _on_a_deck(rig.style, hitch, tail, length)
    return Half(
        strokes, tuple(Wheel("trailer", x, 0.34) for x in axles), tail, 3.65 if pin else 2.95
    )


def _over_the_bed(hitch: float, tail: float, length: float) -> tuple[Stroke, ...]:
    """A trailer on a pin or a ball in the bed."""
    step = hitch + min(1.9, length * 0.25)
    span = tail - step
    door = step + span * 0.12
    return (
        _body(
            [
                (tail, 0.62),
                (tail, 3.45, 0.2),
                (hitch - 0.2, 3.45, 0.6),
                (hitch - 1.0, 2.5, 0.35),
                (hitch - 0.85, 1.78),
                (step - 0.15, 1.78, 0.2),
                (step, 0.62),
            ]
        ),
        _window(hitch - 0.25, hitch + 0.7, 2.25, 2.9),
        _window(step + span * 0.55, step + span * 0.85, 1.85, 2.75),
        _thin((door, 0.75), (door, 2.7), (door + 0.7, 2.7), (door + 0.7, 0.75), closed=True),
        _stroke(
            "body",
            1.8,
            [
                (hitch - 0.12, 1.78),
                (hitch - 0.12, 1.34),
                (hitch + 0.12, 1.34),
                (hitch + 0.12, 1.78),
            ],
            closed=False,
        ),
    )


def _box(hitch: float, tail: float, length: float) -> tuple[Stroke, ...]:
    front = hitch + min(1.05, length * 0.24)
    span = tail - front
    door = front + span * 0.38
    return (
        _body([(hitch, 0.56), (front + 0.1, 0.66), (front + 0.1, 0.54), (hitch, 0.46)]),
        _thin((hitch + 0.38, 0.85), (hitch + 0.38, 0.16)),
        _thin((hitch + 0.26, 0.16), (hitch + 0.5, 0.16)),
        _body(
            [
                (tail, 0.55),
                (tail, 2.78, 0.45),
                (front + 0.1, 2.78, 0.7),
                (front, 1.2, 0.4),
                (front + 0.12, 0.55),
            ]
        ),
        _thin((front + 0.03, 1.05), (tail, 1.05)),
        _window(front + 0.42, front + span * 0.3, 1.55, 2.25),
        _window(front + span * 0.68, front + span * 0.88, 1.55, 2.25),
        _body(
            [(door, 0.68), (door, 2.4, 0.12), (door + 0.66, 2.4, 0.12), (door + 0.66, 0.68)], 1.1
        ),
    )


def _car(front: float, back: float, sill: float, weight: float = 1.8) -> Stroke:
    """A car from nose to tail between two points, its sill so far above the ground."""
    long = back - front
    return _body(
        [
            (back, sill),
            (back, sill + 0.6, 0.15),
            (front + long * 0.86, sill + 1.05, 0.25),
            (front + long * 0.42, sill + 1.05, 0.25),
            (front + long * 0.27, sill + 0.58, 0.1),
            (front + 0.1, sill + 0.46, 0.25),
            (front, sill),
        ],
        weight,
    )


def _towed_car(hitch: float, tail: float, first_axle: float) -> tuple[Stroke, ...]:
    nose = first_axle - 0.9
    return _thin((hitch, 0.5), (nose + 0.1, 0.5), weight=2.4), _car(nose, tail, 0.38)


def _on_a_deck(style: str, hitch: float, tail: float, length: float) -> tuple[Stroke, ...]:
    """What is not a box: a boat, a car on a carrier, an open bed."""
    front = hitch + min(1.3, length * 0.3)
    span = tail - front
    under = (
        _body([(hitch, 0.54), (front + 0.1, 0.6), (front + 0.1, 0.48), (hitch, 0.46)]),
        _body([(tail, 0.5), (tail, 0.68), (front, 0.68), (front, 0.5)]),
    )
    if style == "boat":
        hull: list[Corner] = [
            (tail + 0.1, 0.8, 0.1),
            (tail + 0.1, 1.75),
            (front + span * 0.45, 1.7),
            (front - 0.1, 2.05),
            (front + 0.7, 0.95, 0.7),
        ]
        shield = [
            (front + span * 0.5, 1.72),
            (front + span * 0.42, 2.2),
            (front + span * 0.46, 2.2),
            (front + span * 0.58, 1.73),
        ]
        return *under, _body(hull), _glass(shield)
    if style == "car_carrier":
        tires = (_tire(x, 0.98, 0.3) for x in (front + 1.05, tail - 1.05))
        return *under, _car(front + 0.2, tail - 0.2, 0.98, 1.2), *tires
    return (
        *under,
        _thin((front, 0.68), (front, 1.2), (tail, 1.2), (tail, 0.68)),
        _thin(((front + tail) / 2, 0.68), ((front + tail) / 2, 1.2)),
    )


def _tire(x: float, y: float, radius: float) -> Stroke:
    """A wheel of a car that is carried: eight corners, rounded as far as their sides reach."""
    far, around = radius * 1.04, [math.pi * (eighth + 0.5) / 4 for eighth in range(8)]
    return _body(
        [(x + far * math.cos(angle), y + far * math.sin(angle), radius) for angle in around], 1.2
    )
