"""Masses on a label or a ticket: the digits, the unit, the same figure in the other unit beside
it.
"""

import itertools
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from noxel.core.quantities import KG, MassUnit
from noxel.core.reading.pieces import Corners, Row

_LOOKALIKES = str.maketrans({"O": "0", "o": "0", "I": "1", "l": "1", "|": "1", "S": "5", "B": "8"})
_DIGITS = r"(?:\d[\dOo]{0,2}(?:[ ,.'’][\dOo]{3})+(?![\dOo])|\d[\dOolI|SB]{1,5})"
_UNIT = r"(?:pounds?|kilograms?|[l1I|][bB8][sS5]?|[kK][gG69][sS5]?)"
_MASS = re.compile(
    rf"(?<![\w/.,'’])(?P<digits>{_DIGITS})(?P<gap>\s{{0,2}})(?P<unit>{_UNIT}(?![A-Za-z0-9]))?"
    r"(?![.,]\d)(?!\s?(?:psi|kpa|bar|mm|cm|km|mph|kN|in\b|ft\b|gal|l\b|litre|v\b|%|°))(?![\w/])",
    re.IGNORECASE,
)
_JOINED = re.compile(r"^\s*(?:[/(\[=]|or\b|,)?\s*[(\[]?\s*$", re.IGNORECASE)


@dataclass(frozen=True, slots=True)
class Figure:
    """One mass: digits without marks, the unit that stands there, the same in the other unit, its
    row and where in it, and how sure its reading is.
    """

    digits: str
    unit: MassUnit | None
    other: "Figure | None"
    row: int
    start: int
    end: int
    sure: float
    corners: Corners

    @property
    def kg(self) -> float | None:
        """The mass, where a unit stands beside it. [kg]"""
        return int(self.digits) * KG[self.unit] if self.unit else None

    @property
    def pair_agrees(self) -> bool | None:
        """Whether it says the same in both units; None where it stands in one."""
        if self.kg is None or self.other is None or self.other.kg is None:
            return None
        rounding = 0.1 + self.half_step + self.other.half_step
        return abs(self.kg - self.other.kg) <= rounding

    @property
    def half_step(self) -> float:
        """Half of what it seems to be rounded to. [kg]"""
        step = next(step for step in (10, 5, 1) if int(self.digits) % step == 0)
        return 0.5 * step * (KG[self.unit] if self.unit else 1.0)

    def typed(self, unit: MassUnit) -> tuple[str, bool]:
        """What to type for a rig of that unit; whether the unit is assumed."""
        for figure in (self, self.other):
            if figure is not None and figure.unit == unit:
                return figure.digits, False
        return (self.digits, True) if self.unit is None else (f"{self.digits} {self.unit}", False)


def _unit_of(word: str | None) -> MassUnit | None:
    return None if not word else "kg" if word[0] in "kK" else "lb"


def _plain(digits: str) -> str:
    return re.sub(r"\D", "", digits.translate(_LOOKALIKES))


def figures_in(number: int, row: Row) -> list[Figure]:
    """Every mass of a row, left to right; a pair in two units is one."""
    return list(_paired(list(_singles(number, row)), row))


def _singles(number: int, row: Row) -> Iterator[Figure]:
    for match in _MASS.finditer(row.text):
        raw = match["digits"]
        real = sum(character.isdigit() for character in raw)
        if real < 2 or real * 2 < len(re.sub(r"[ ,.'’]", "", raw)):
            continue
        digits = _plain(raw)
        if len(digits) > 6 or int(digits) == 0:
            continue
        start, end = match.start("digits"), match.end()
        sure = row.sure(start, match.end("digits"))
        if _plain(raw) != re.sub(r"[ ,.'’]", "", raw):
            sure = min(sure, 0.4)  # a letter stood among the digits
        if digits[0] == "0":
            sure = min(sure, 0.4)  # the first digit was not seen
        corners = row.corners(start, end)
        yield Figure(digits, _unit_of(match["unit"]), None, number, start, end, sure, corners)


def _paired(figures: Sequence[Figure], row: Row) -> Iterator[Figure]:
    skip = False
    for figure, following in itertools.zip_longest(figures, figures[1:]):
        if skip:
            skip = False
            continue
        between = row.text[figure.end : following.start] if following else "x"
        if (
            following
            and _JOINED.fullmatch(between)
            and figure.unit
            and following.unit
            and figure.unit != following.unit
        ):
            skip = True
            yield Figure(
                figure.digits,
                figure.unit,
                following,
                figure.row,
                figure.start,
                following.end,
                min(figure.sure, following.sure),
                figure.corners,
            )
        else:
            yield figure
