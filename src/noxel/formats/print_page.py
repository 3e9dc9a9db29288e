"""A page of one file that prints without any server: words, posts, table, workings; black on white,
no script, nothing from elsewhere. The template lies beside this module.
"""

import datetime
import re
from collections.abc import Sequence

from jinja2 import Environment, PackageLoader, StrictUndefined
from reportlab.graphics import renderSVG
from reportlab.lib.units import mm

from noxel.core.rig import RigFile
from noxel.formats.paper_parts import Paper, prepare
from noxel.formats.rig_picture import rig_picture

_WIDE = 182 * mm
_SVG = re.compile(r"<svg .*</clipPath>(.*)</svg>", re.DOTALL)

_PAGES = Environment(
    loader=PackageLoader("noxel", "formats"),
    autoescape=True,
    undefined=StrictUndefined,
    trim_blocks=True,
    lstrip_blocks=True,
)


def _svg(paper: Paper) -> str:
    """The picture of the papers as part of a page, without what only a file of its own needs."""
    picture = rig_picture(paper, _WIDE)
    drawn = _SVG.search(renderSVG.drawToString(picture))
    shapes = drawn[1].replace(' style="clip-path: url(#clip)"', "") if drawn else ""
    return f'<svg viewBox="0 0 {picture.width:.1f} {picture.height:.1f}">{shapes}</svg>'


def print_page(
    rig: RigFile,
    weigh_in: int | None = None,
    *,
    today: datetime.date | None = None,
    to_do: Sequence[tuple[str, str]] = (),
) -> str:
    """A weigh-in as one HTML file that needs nothing else.

    ``rig``: in its own terms and units. ``weigh_in``: which weigh-in, from 1; None is the last.
    ``today``: printed on it; None is the machine's own date. ``to_do``: lines to tick before it
    rolls: what to do, and when and by whom it was done, if it was.

    Raises NotFound if the rig has no weigh-in of that number.
    """
    paper = prepare(rig, weigh_in, today)
    page = _PAGES.get_template("print_page.html.j2")
    return page.render(paper=paper, picture=_svg(paper), to_do=to_do)
