"""A page of one file that prints without any server: words, posts, table, workings; black on white,
no script, nothing from elsewhere. The template lies beside this module.
"""

import datetime
from collections.abc import Sequence
from dataclasses import dataclass

from jinja2 import Environment, PackageLoader, StrictUndefined

from noxel.core.rig import RigFile
from noxel.formats.paper_drawing import View
from noxel.formats.paper_parts import Paper, Post, prepare

_STEP, _WIDE, _TALL = 100, 34, 84
_BEYOND, _SHOWN_OVER = 20.0, 3.0
"""How far a load stands out above its frame at most, and how much of that is shown at once."""

_PAGES = Environment(
    loader=PackageLoader("noxel", "formats"),
    autoescape=True,
    undefined=StrictUndefined,
    trim_blocks=True,
    lstrip_blocks=True,
)


@dataclass(frozen=True, slots=True)
class _Box:
    x: float
    y: float
    width: float
    height: float


@dataclass(frozen=True, slots=True)
class _Post:
    """A post as drawn: the frame is the rating, the box in it the load, what is over stands out."""

    rating: _Box
    load: _Box | None
    beyond: _Box | None
    led: str | None
    expected: bool
    words: tuple[tuple[str, float, int], ...]


@dataclass(frozen=True, slots=True)
class _Drawn:
    """The rig to scale on its line, and its posts below."""

    width: int
    height: int
    ground: float
    fits: int
    lines: list[str]
    wheels: list[tuple[float, float]]
    posts: list[_Post]


def _path(line: Sequence[tuple[float, float]], scale: float) -> str:
    """A line of the rig; y counts up from the ground."""
    return "M" + "L".join(f"{x * scale:.1f} {-y * scale:.1f}" for x, y in line)


def _post(post: Post, x: float, top: float, led: str | None) -> _Post:
    load = beyond = None
    if post.used is not None:
        tall = _TALL * min(1.0, post.used)
        load = _Box(x, round(top + _TALL - tall, 1), _WIDE, round(tall, 1))
        if post.used > 1:
            high = min(_BEYOND, _TALL * (post.used - 1) + _SHOWN_OVER)
            beyond = _Box(x - 4, round(top - high, 1), _WIDE + 8, round(high, 1))
    words = (
        (post.label, round(top + _TALL + 14, 1), 400),
        (post.says, round(top + _TALL + 28, 1), 700),
    )
    return _Post(_Box(x, round(top, 1), _WIDE, _TALL), load, beyond, led, post.expected, words)


def _led(view: View, post: Post, scale: float, x: float, ground: float, top: float) -> str | None:
    """The dotted line from where a load rests on the rig to its post."""
    stands = view.stands.get(post.check)
    if stands is None:
        return None
    end = top - (_BEYOND + 4 if (post.used or 0) > 1 else 3)
    return f"M{stands * scale:.1f} {ground:.1f}L{x + _WIDE / 2} {top - 28:.1f}V{end:.1f}"


def _draw(said: Paper) -> _Drawn:
    wide = max(1, len(said.posts)) * _STEP
    scale = min(34.0, wide * 0.75 / said.view.length)
    ground = round(said.view.height * scale + 4, 1)
    top = ground + 54
    posts = []
    for index, post in enumerate(said.posts):
        x = index * _STEP + 8
        posts.append(_post(post, x, top, _led(said.view, post, scale, x, ground, top)))
    lines = [
        f"M0 0H{said.view.length * scale:.1f}",
        *(_path(line, scale) for line in said.view.lines),
    ]
    wheels = [(round(x * scale, 1), round(radius * scale, 1)) for x, radius in said.view.wheels]
    return _Drawn(wide + 8, round(top + _TALL + 34), ground, _STEP - 10, lines, wheels, posts)


def print_page(
    rig: RigFile,
    weigh_in: int | None = None,
    *,
    today: datetime.date | None = None,
    to_do: Sequence[tuple[str, str]] = (),
) -> str:
    """A weigh-in as one HTML file that needs nothing else.

    Parameters
    ----------
    rig : RigFile
        In its own terms and units.
    weigh_in : int or None
        Which weigh-in, from 1; None is the last.
    today : date or None
        Printed on it; None is the machine's own date.
    to_do : sequence of (str, str)
        Lines to tick before it rolls: what to do, and when and by whom it was done, if it was.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    said = prepare(rig, weigh_in, today)
    page = _PAGES.get_template("print_page.html.j2")
    return page.render(said=said, drawn=_draw(said), to_do=to_do)
