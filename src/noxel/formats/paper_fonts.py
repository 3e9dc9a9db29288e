"""The letters of the papers: the page's own, and for what it lacks, Greek, Cyrillic and more,
another; both come with the page.
"""

import io
from functools import cache
from pathlib import Path

from fontTools.ttLib import TTFont as OpenFont
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont

from noxel.errors import NotFound

_FONTS = Path(__file__).parent.parent / "page" / "fonts"
PLAIN, BOLD = "BarlowCondensed", "BarlowCondensed-SemiBold"
_FILES = {
    PLAIN: "barlow-condensed-latin-400-normal.woff",
    BOLD: "barlow-condensed-latin-600-normal.woff",
}
_OTHER = {PLAIN: "DejaVuSansCondensed", BOLD: "DejaVuSansCondensed-Bold"}


@cache
def load_fonts() -> dict[str, frozenset[int]]:
    """Make the fonts known to the library that draws the papers.

    Returns for each of the page's fonts the letters that it has.

    Raises NotFound if the page, and with it the fonts, has not been built.
    """
    letters = {}
    try:
        for name, file in _FILES.items():
            plain = io.BytesIO()
            font = OpenFont(_FONTS / file)
            letters[name] = frozenset(font.getBestCmap())
            font.flavor = None
            font.save(plain)
            plain.seek(0)
            pdfmetrics.registerFont(TTFont(name, plain))
        for name in _OTHER.values():
            pdfmetrics.registerFont(TTFont(name, str(_FONTS / f"{name}.ttf")))
    except FileNotFoundError as exc:
        raise NotFound("The fonts of the papers have not been built: run “make page”.") from exc
    return letters


def font_for(text: str, font: str) -> str:
    """The font, or the one that has letters which it lacks."""
    letters = load_fonts()[font]
    return font if all(ord(letter) in letters for letter in text) else _OTHER[font]
