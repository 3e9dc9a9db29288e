"""The rig to scale and its loads as posts, black on white: one picture for the PDF and the print
view.

A post stands under its axle: its frame is the rating, its fill the load; what is over stands out
beyond the frame. Sums are bars as long as the posts that they add. An expected load is outlined
with dashes, never filled.
"""

import re
from collections.abc import Iterator
from typing import Any

from reportlab.graphics.shapes import Circle, Drawing, Group, Line, Path, PolyLine, Rect, String
from reportlab.lib.colors import Color, black, white
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth

from noxel.core.drawing import Half, Outline, Stroke
from noxel.formats.paper_fonts import BOLD, PLAIN, font_for, load_fonts
from noxel.formats.paper_parts import Paper, Post

_TOP, _WIDE = 17 * mm, 9 * mm
"""A post: its height, its width."""

_GAP = 33 * mm
"""Between the middles of two posts at least, so that their words fit."""

_BRACE, _BAR = 10.5 * mm, 2.6 * mm
"""One line of sums, and the bar in it."""

_BEYOND, _SHOWN_OVER = 6 * mm, 0.8 * mm
"""How far a load stands out beyond its frame at most, and how much of that any overload shows."""

_LEADER, _UNDER = 8 * mm, 9 * mm
"""From the ground to the frame of a post, and below it for its words."""

_METRE = 12 * mm
"""The largest scale."""

_AIR = 0.15
"""Of the ground's line before the rig and behind it. [m]"""

_FINE = 0.45
"""Of a stroke's width on a screen."""

_LOAD = Color(0.35, 0.35, 0.35)
_STEP = re.compile(r"([MLQZ])([^MLQZ]*)")


def rig_picture(paper: Paper, width: float) -> Drawing:
    """Draw what a paper says of the rig's loads.

    ``width``: of the picture [pt].

    Raises NotFound if the page, and with it the fonts, has not been built.
    """
    load_fonts()
    rig = paper.outline
    end = rig.trailer.end if paper.towing else rig.vehicle.end
    tall = max(rig.vehicle.tall, rig.trailer.tall if paper.towing else 0.0)
    front = rig.nose - _AIR
    scale = min(_METRE, width * 0.98 / (end - front))
    stands = {
        "vehicle.front_axle": 0.0,
        "vehicle.rear_axle": rig.rear,
        "hitch.tongue": rig.hitch,
        "trailer.axles": rig.centre,
    }
    posts = {post.check: post for post in paper.posts}
    on_rig = [check for check in stands if check in posts]
    places = dict(
        zip(
            on_rig,
            _spread([(stands[check] - front) * scale for check in on_rig], width),
            strict=True,
        )
    )
    sums = [[line for line in row if line[0] in posts] for row in _sums(places, width)]
    lines = [row for row in sums if row]
    foot = len(lines) * _BRACE + _UNDER
    ground = foot + _TOP + _LEADER
    picture = Drawing(width, ground + tall * scale)
    on_ground = Group(*_rig(rig, paper.towing), transform=(scale, 0, 0, scale, 0, ground))
    on_ground.translate(-front, 0)
    picture.add(on_ground)
    picture.add(Line(0, ground, (end + _AIR - front) * scale, ground, strokeWidth=0.9))
    for check, x in places.items():
        post = posts[check]
        head = foot + _TOP + (_BEYOND + mm if (post.used or 0) > 1 else mm)
        axle = (stands[check] - front) * scale
        picture.add(
            PolyLine([axle, ground, axle, ground - mm, x, head + mm, x, head], strokeWidth=0.6)
        )
        for shape in (*_post(post, x - _WIDE / 2, foot), *_words(post, x, foot)):
            picture.add(shape)
    for number, row in enumerate(lines, 1):
        for check, start, stop in row:
            for shape in _sum(posts[check], start, stop, (len(lines) - number) * _BRACE):
                picture.add(shape)
    return picture


def _spread(axles: list[float], width: float) -> list[float]:
    """Where the posts stand: under their axles, or as near to them as their words allow."""
    places: list[float] = []
    for axle in axles:
        places.append(max(axle, _GAP / 2, (places[-1] + _GAP) if places else 0.0))
    last = width - _GAP / 2
    for index in range(len(places) - 1, -1, -1):
        places[index] = min(places[index], last)
        last = places[index] - _GAP
    return places


def _sums(places: dict[str, float], width: float) -> list[list[tuple[str, float, float]]]:
    """Which posts a sum reaches over, line by line."""
    ends = [x - _GAP * 0.45 for x in places.values()], [x + _GAP * 0.45 for x in places.values()]
    if not places:
        return []
    whole = (max(0.0, ends[0][0]), min(width, ends[1][-1]))
    if "trailer.axles" not in places:
        return [[("vehicle.gross", *whole)], [("combination.gross", *whole)]]
    behind = next(x for check, x in places.items() if check in ("hitch.tongue", "trailer.axles"))
    split = behind - _GAP * 0.47
    return [
        [("vehicle.gross", whole[0], split - mm), ("trailer.gross", split + mm, whole[1])],
        [("combination.gross", *whole)],
    ]


def _sum(post: Post, start: float, stop: float, y: float) -> Iterator[Any]:
    """A sum as a bar as long as the posts that it adds: the frame is the rating, what is over is
    black and beyond it.
    """
    long = stop - start - _BEYOND
    top = y + _BRACE - 4.2 * mm
    text = f"{post.label}  {post.says}"
    font = font_for(text, BOLD)
    yield String(start, top + 1.1 * mm, text, fontName=font, fontSize=8.5)
    bar = top - _BAR
    if post.used is not None:
        look, over_look = _looks(post)
        yield Rect(start, bar, long * min(1.0, post.used), _BAR, **look)
        if post.used > 1:
            over = min(_BEYOND, long * (post.used - 1) + _SHOWN_OVER)
            yield Rect(
                start + long,
                bar - 0.7 * mm,
                over,
                _BAR + 1.4 * mm,
                **over_look,
            )
    yield Rect(start, bar, long, _BAR, **_frame(post))


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


def _looks(post: Post) -> tuple[dict[str, Any], dict[str, Any]]:
    """How a load is drawn within its frame, and beyond it."""
    if post.expected:
        dashed = {"fillColor": None, "strokeWidth": 0.8, "strokeDashArray": [2, 2]}
        return dashed, dashed
    filled = {"fillColor": _LOAD, "strokeColor": None}
    return filled, filled | {"fillColor": black}


def _frame(post: Post) -> dict[str, Any]:
    dashed = {"strokeDashArray": [1, 2]} if post.used is None else {}
    return {"fillColor": None, "strokeWidth": 0.8} | dashed


def _post(post: Post, x: float, base: float) -> Iterator[Rect]:
    if post.used is not None:
        look, over_look = _looks(post)
        yield Rect(x, base, _WIDE, _TOP * min(1.0, post.used), **look)
        if post.used > 1:
            high = min(_BEYOND, _TOP * (post.used - 1) + _SHOWN_OVER)
            yield Rect(x - mm, base + _TOP, _WIDE + 2 * mm, high, **over_look)
    yield Rect(x, base, _WIDE, _TOP, **_frame(post))


def _words(post: Post, x: float, base: float) -> Iterator[String]:
    """Below a post: what it is and what it says, as large as its room allows."""
    for text, face, size, drop in (
        (post.label, PLAIN, 8.0, 3.2 * mm),
        (post.says, BOLD, 8.5, 6.4 * mm),
    ):
        font = font_for(text, face)
        wide = stringWidth(text, font, size)
        fitting = size * min(1.0, (_GAP - 2 * mm) / max(wide, 1))
        yield String(x, base - drop, text, fontName=font, fontSize=fitting, textAnchor="middle")
