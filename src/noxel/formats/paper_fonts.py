"""The letters of the papers: western, Greek, Cyrillic and more; they come with the page."""

from functools import cache
from pathlib import Path

from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

from noxel.errors import NotFound

_FONTS = Path(__file__).parent.parent / "page" / "fonts"
PLAIN, BOLD = "DejaVuSansCondensed", "DejaVuSansCondensed-Bold"


@cache
def load_fonts() -> None:
    """Make the fonts known to the library that draws the papers.

    Raises
    ------
    NotFound
        If the page, and with it the fonts, has not been built.
    """
    for name in (PLAIN, BOLD):
        path = _FONTS / f"{name}.ttf"
        if not path.exists():
            raise NotFound("The fonts of the papers have not been built: run “make page”.")
        pdfmetrics.registerFont(TTFont(name, str(path)))
