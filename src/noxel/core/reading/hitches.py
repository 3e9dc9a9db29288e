"""A hitch's label: two ratings for the load carried, two for the load distributed."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from noxel.core.reading.figures import Figure
from noxel.core.reading.pieces import Row

Mode = Literal["carrying", "distributing"]
_MODES: tuple[tuple[Mode, re.Pattern[str]], ...] = (
    ("carrying", re.compile(r"weight[\s-]*carrying|\bcarrying\b|\bW\.?C\.?\b", re.IGNORECASE)),
    (
        "distributing",
        re.compile(
            r"weight[\s-]*distribut(?:ing|ion)|\bdistribut(?:ing|ion)\b|\bW\.?D\.?\b", re.IGNORECASE
        ),
    ),
)
_FIELDS: tuple[tuple[str, re.Pattern[str]], ...] = (
    ("tongue", re.compile(r"tongue|vertical|\bT\.?W\.?\b|\bS(?=\s*[:=]?\s*\d)", re.IGNORECASE)),
    ("trailer", re.compile(r"trailer|\bG\.?T\.?W\.?\b|\bgross\b|\btowing\b", re.IGNORECASE)),
)


def receiver_among(parts: Sequence[Mapping[str, object]]) -> int:
    """Which part a hitch's label is of: the receiver; one more than there are where it is none of
    them yet.
    """
    kinds = [part.get("kind") for part in parts]
    return kinds.index("receiver") if "receiver" in kinds else len(kinds)


@dataclass(frozen=True, slots=True)
class _Sign:
    """A word that says what figures are of: its row, and where it stands there."""

    says: str
    row: int
    start: int
    end: int


def _signs(rows: Sequence[Row], words: Sequence[tuple[str, re.Pattern[str]]]) -> list[_Sign]:
    return [
        _Sign(says, number, match.start(), match.end())
        for number, row in enumerate(rows)
        for says, pattern in words
        for match in pattern.finditer(row.text)
    ]


def _governing(rows: Sequence[Row], signs: Sequence[_Sign], figure: Figure) -> str | None:
    """The sign that a figure stands under: before it in its row, above it in its column, else the
    last one above.
    """
    row = rows[figure.row]
    before = [sign for sign in signs if sign.row == figure.row and sign.end <= figure.start]
    if before:
        return max(before, key=lambda sign: sign.end).says
    above = [sign for sign in signs if sign.row < figure.row]
    x0, x1 = row.sides(figure.start, figure.end)

    def off(sign: _Sign) -> float:
        left, right = rows[sign.row].sides(sign.start, sign.end)
        return abs((left + right) - (x0 + x1)) / 2

    if not above:
        return None
    last = max(sign.row for sign in above)
    side_by_side = [sign for sign in above if sign.row == last]
    return min(side_by_side, key=off).says


def read_hitch(
    rows: Sequence[Row], figures: Sequence[Figure]
) -> Iterator[tuple[str, str, Figure, str, str | None]]:
    """Field below the part, its name, the figure, the words of its row, and why to look twice."""
    modes = _signs(rows, [(mode, pattern) for mode, pattern in _MODES])
    fields = _signs(rows, _FIELDS)
    for figure in figures:
        mode, field = _governing(rows, modes, figure), _governing(rows, fields, figure)
        if field is None:
            field = _by_size(rows, modes, figures, figure, mode)
        if field is None:
            continue
        name = "Trailer rating" if field == "trailer" else "Tongue rating"
        path = f"{field}.{mode}" if mode else field
        label = f"{name}, {mode}" if mode else name
        doubt = "for carrying or for distributing?" if modes and not mode else None
        yield path, label, figure, " ".join(rows[figure.row].text.split()), doubt


def _by_size(
    rows: Sequence[Row],
    modes: Sequence[_Sign],
    figures: Sequence[Figure],
    figure: Figure,
    mode: str | None,
) -> str | None:
    """Of two figures of one mode without words the trailer's is the larger by far."""
    alike = [other for other in figures if _governing(rows, modes, other) == mode]
    if len(alike) != 2:
        return None
    low, high = sorted(int(other.digits) for other in alike)
    if high < 4 * low:
        return None
    return "trailer" if int(figure.digits) == high else "tongue"
