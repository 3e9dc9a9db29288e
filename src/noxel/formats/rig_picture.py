"""The rig to scale and its loads as posts, black on white: one picture for the PDF and the print
view.

A post's frame is the rating, its fill the load; what is over stands out beyond the frame. An
expected load is outlined with dashes, never filled.
"""

import re
from collections.abc import Iterator
from typing import Any

from reportlab.graphics.shapes import Circle, Drawing, Group, Line, Path, PolyLine, Rect, String
from reportlab.lib.colors import Color, black, white
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth

from noxel.core.drawing import Half, Outline, Stroke
from noxel.formats.paper_fonts import BOLD, PLAIN, load_fonts
from noxel.formats.paper_parts import Paper, Post

_BASE, _TOP, _WIDE = 8 * mm, 18 * mm, 9 * mm
"""A post: from the lower edge to its foot, its height, its width."""

_GROUND = 46 * mm
_BEYOND, _SHOWN_OVER = 6 * mm, 0.8 * mm
"""How far a load stands out beyond its frame at most, and how much of that any overload shows."""

_METRE = 9 * mm
"""The largest scale."""

_AIR = 0.15
"""Of the ground's line before the rig and behind it. [m]"""

_FINE = 0.45
"""Of a stroke's width on a screen."""

_LOAD = Color(0.35, 0.35, 0.35)
_STEP = re.compile(r"([MLQZ])([^MLQZ]*)")


def rig_picture(sentence: Paper, width: float) -> Drawing:
    """Draw what a paper says of the rig's loads.

    Parameters
    ----------
    width : float
        Of the picture. [pt]

    Raises
    ------
    NotFound
        If the page, and with it the fonts, has not been built.
    """
    load_fonts()
    rig = sentence.outline
    end = rig.trailer.end if sentence.towing else rig.vehicle.end
    tall = max(rig.vehicle.tall, rig.trailer.tall if sentence.towing else 0.0)
    front = rig.nose - _AIR
    scale = min(_METRE, width * 0.75 / (end - front))
    picture = Drawing(width, _GROUND + tall * scale)
    on_ground = Group(*_rig(rig, sentence.towing), transform=(scale, 0, 0, scale, 0, _GROUND))
    on_ground.translate(-front, 0)
    picture.add(on_ground)
    picture.add(Line(0, _GROUND, (end + _AIR - front) * scale, _GROUND, strokeWidth=0.9))
    stands = {
        "vehicle.front_axle": 0.0,
        "vehicle.rear_axle": rig.rear,
        "hitch.tongue": rig.hitch,
        "trailer.axles": rig.centre,
    }
    step = width / max(1, len(sentence.posts))
    for index, post in enumerate(sentence.posts):
        x = index * step + 2 * mm
        if post.check in stands:
            picture.add(_leader((stands[post.check] - front) * scale, x, post))
        for shape in (*_post(post, x), *_words(post, x, step - 3 * mm)):
            picture.add(shape)
    return picture


def _rig(rig: Outline, towing: bool) -> Iterator[Path | Circle]:
    """The strokes in metres; a nose over the bed is drawn behind the vehicle."""
    halves = [rig.vehicle, *([rig.trailer] if towing else [])]
    if rig.pin:
        halves.reverse()
    for half in halves:
        yield from map(_stroke, half.strokes)
    if towing:
        yield from map(_stroke, rig.coupling)
        if not rig.pin:
            yield Circle(rig.hitch, 0.55, 0.085, fillColor=black, strokeColor=None)
    yield from (wheel for half in halves for wheel in _wheels(half))


def _wheels(half: Half) -> Iterator[Circle]:
    for wheel in half.wheels:
        for part in (1.0, 0.42):
            yield Circle(
                wheel.at, wheel.radius, wheel.radius * part, fillColor=white, strokeWidth=0.03
            )


def _stroke(stroke: Stroke) -> Path:
    """A stroke of the outline; a curve with one control point becomes one with two."""
    path = Path(
        fillColor=None if stroke.paint == "line" else white,
        strokeWidth=stroke.weight * _FINE / _METRE,
        strokeLineJoin=1,
    )
    x = y = 0.0
    for name, texts in _STEP.findall(stroke.d):
        numbers = [float(text) for text in texts.split()]
        if name == "Z":
            path.closePath()
            continue
        if name == "Q":
            cx, cy, to_x, to_y = numbers
            path.curveTo(
                x + (cx - x) * 2 / 3,
                -(y + (cy - y) * 2 / 3),
                to_x + (cx - to_x) * 2 / 3,
                -(to_y + (cy - to_y) * 2 / 3),
                to_x,
                -to_y,
            )
        else:
            (path.moveTo if name == "M" else path.lineTo)(numbers[0], -numbers[1])
        x, y = numbers[-2:]
    return path


def _leader(stands: float, x: float, post: Post) -> PolyLine:
    """The dotted line from where a load rests on the rig to its post."""
    head = _BASE + _TOP
    end = head + (_BEYOND + mm if (post.used or 0) > 1 else mm)
    return PolyLine(
        [stands, _GROUND, x + _WIDE / 2, head + 8 * mm, x + _WIDE / 2, end],
        strokeWidth=0.4,
        strokeDashArray=[1, 1.5],
    )


def _post(post: Post, x: float) -> Iterator[Rect]:
    if post.used is not None:
        look: dict[str, Any] = (
            {"fillColor": None, "strokeWidth": 0.8, "strokeDashArray": [2, 2]}
            if post.expected
            else {"fillColor": _LOAD, "strokeColor": None}
        )
        yield Rect(x, _BASE, _WIDE, _TOP * min(1.0, post.used), **look)
        if post.used > 1:
            high = min(_BEYOND, _TOP * (post.used - 1) + _SHOWN_OVER)
            over = look if post.expected else look | {"fillColor": black}
            yield Rect(x - mm, _BASE + _TOP, _WIDE + 2 * mm, high, **over)
    frame: dict[str, Any] = {"fillColor": None, "strokeWidth": 0.8}
    if post.used is None:
        frame["strokeDashArray"] = [1, 2]
    yield Rect(x, _BASE, _WIDE, _TOP, **frame)


def _words(post: Post, x: float, room: float) -> Iterator[String]:
    """Below a post: what it is and what it says, as large as its room allows."""
    for text, font, size, drop in (
        (post.label, PLAIN, 6.5, 3.2 * mm),
        (post.says, BOLD, 7.5, 6.4 * mm),
    ):
        wide = stringWidth(text, font, size)
        yield String(
            x, _BASE - drop, text, fontName=font, fontSize=size * min(1.0, room / max(wide, 1))
        )
