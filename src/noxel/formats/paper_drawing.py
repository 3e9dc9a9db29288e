"""The rig from its left side, to scale, as plain lines for any paper: the axles stand where they
stand.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from noxel.core.wording import Geometry

Point = tuple[float, float]
_WHEEL = 0.38
_SPREAD = 0.9
"""Radius of a wheel, and from one trailer axle to the next. [m]"""


@dataclass(frozen=True, slots=True)
class View:
    """Lines and wheels in metres: x behind the leftmost point, y above the ground; ``stands`` says
    where each load comes down.
    """

    length: float
    height: float
    lines: tuple[tuple[Point, ...], ...]
    wheels: tuple[tuple[float, float], ...]
    stands: Mapping[str, float]


def side_view(rig: Geometry, *, towing: bool) -> View:
    """Draw a rig from its lengths.

    Parameters
    ----------
    rig : Geometry
        Lengths that nobody entered are usual ones.
    towing : bool
        Whether there is a trailer.
    """
    nose = 0.95
    rear, hitch = nose + rig.wheelbase, nose + rig.wheelbase + rig.hitch_offset
    tail = max(hitch - 0.15, rear + 1.0)
    lines = [_vehicle(rig, nose, rear, tail)]
    wheels = [(nose, _WHEEL), (rear, _WHEEL)]
    stands = {"vehicle.front_axle": nose, "vehicle.rear_axle": rear}
    length = tail
    if towing:
        middle = hitch + rig.coupler_to_axles
        axles = [
            middle + (index - (rig.trailer_axles - 1) / 2) * _SPREAD
            for index in range(rig.trailer_axles)
        ]
        end = max(axles[-1] + 1.0, hitch + rig.coupler_to_axles * 1.45)
        lines += _trailer(rig, hitch, end)
        wheels += [(x, _WHEEL) for x in axles]
        stands |= {"hitch.tongue": hitch, "trailer.axles": middle}
        length = end
    return View(
        length,
        3.4 if rig.kind in ("fifth_wheel", "gooseneck") else 3.0,
        tuple(lines),
        tuple(wheels),
        stands,
    )


def _vehicle(rig: Geometry, nose: float, rear: float, tail: float) -> tuple[Point, ...]:
    if rig.kind == "motorhome":
        shape = [(0.0, 0.45), (0.1, 1.5), (0.5, 2.8), (tail, 2.8), (tail, 0.45)]
    elif rig.body == "pickup":
        cab = nose + (rear - nose) * 0.62
        shape = [
            (0.05, 0.45),
            (0.0, 1.0),
            (0.2, 1.1),
            (nose + 0.35, 1.15),
            (nose + 0.85, 1.8),
            (cab, 1.8),
            (cab + 0.15, 1.1),
            (tail, 1.1),
            (tail, 0.5),
        ]
    else:
        shape = [
            (0.05, 0.45),
            (0.0, 1.0),
            (0.25, 1.12),
            (nose + 0.35, 1.18),
            (nose + 0.9, 1.85),
            (tail - 0.1, 1.85),
            (tail, 1.1),
            (tail, 0.5),
        ]
    return (*shape, shape[0])


def _trailer(rig: Geometry, hitch: float, end: float) -> list[tuple[Point, ...]]:
    if rig.kind in ("fifth_wheel", "gooseneck"):
        drop = hitch + 1.9
        body = [
            (hitch - 0.8, 1.75),
            (hitch - 0.6, 3.2),
            (end, 3.2),
            (end, 0.6),
            (drop, 0.6),
            (drop, 1.6),
            (hitch, 1.6),
            (hitch, 1.2),
            (hitch, 1.6),
            (hitch - 0.8, 1.75),
        ]
        return [tuple(body)]
    front = hitch + min(1.1, rig.coupler_to_axles * 0.25)
    if rig.style == "towed_car":
        body = [
            (front, 0.45),
            (front, 1.0),
            (front + 0.9, 1.1),
            (front + 1.4, 1.6),
            (end - 0.5, 1.6),
            (end, 1.0),
            (end, 0.45),
            (front, 0.45),
        ]
    else:
        body = [
            (front, 0.55),
            (front, 2.5),
            (front + 0.25, 2.75),
            (end, 2.75),
            (end, 0.55),
            (front, 0.55),
        ]
    return [((hitch, 0.5), (front, 0.6)), tuple(body)]
