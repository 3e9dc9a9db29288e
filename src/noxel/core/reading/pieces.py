"""A label or a ticket as lines of text with their places: read off a photograph, or pasted.

Lines stand in rows. A row's text is one string; every character of it has a place, so that words
and figures found in it can be compared by where they stand.
"""

import math
import statistics
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass

Point = tuple[float, float]
Corners = tuple[Point, Point, Point, Point]


@dataclass(frozen=True, slots=True)
class Piece:
    """A word or a line as it was read: its text, its corners from the top left clockwise [pixels],
    how sure the reading is, from 0 to 1, and the line that it is of, where words of one line are
    known to be.
    """

    text: str
    corners: Corners
    sure: float = 1.0
    line: int | None = None


@dataclass(frozen=True, slots=True)
class Row:
    """Pieces that stand side by side, left to right: their text, and for each character its piece
    and its two sides.
    """

    text: str
    pieces: tuple[Piece, ...]
    owner: tuple[int, ...]
    left: tuple[float, ...]
    right: tuple[float, ...]
    y: float
    height: float

    def sides(self, start: int, end: int) -> tuple[float, float]:
        """Where a part of the text begins and ends, across. [pixels]"""
        return self.left[start], self.right[max(start, end - 1)]

    def sure(self, start: int, end: int) -> float:
        """How sure the least sure piece of a part is."""
        return min(self.pieces[self.owner[index]].sure for index in range(start, end))

    def corners(self, start: int, end: int) -> Corners:
        """Where a part stands on the picture; a little wider, since an engine is not exact about
        where in a line a word begins.
        """
        top_left, bottom_left = self._edge(start, start, -BEFORE)
        top_right, bottom_right = self._edge(end - 1, end, AFTER)
        return top_left, top_right, bottom_right, bottom_left

    def _edge(self, within: int, index: int, more: float) -> tuple[Point, Point]:
        """Above and below a place in the text, within the piece that a character is of."""
        piece = self.pieces[self.owner[within]]
        first = self.owner.index(self.owner[within])
        share = (_wide(piece.text[: index - first]) + more) / _wide(piece.text)
        top_left, top_right, bottom_right, bottom_left = piece.corners
        return _between(top_left, top_right, share), _between(bottom_left, bottom_right, share)


BEFORE, AFTER = 1.4, 0.6
"""How much wider a frame is on each side. [characters]"""


def _plain(character: str) -> str:
    """A letter without its accent, which may be dirt; a speck is none."""
    return " " if character in "·•¸`´" else unicodedata.normalize("NFKD", character)[0]


def _wide(text: str) -> float:
    """How wide a text is, in usual characters: an engine says where a line is, not its letters."""
    narrow = sum(character in " .,:;'’|!()[]-/iIlj1" for character in text)
    return len(text) - 0.45 * narrow + 0.35 * sum(text.count(letter) for letter in "MW@%")


def _between(start: Point, other: Point, share: float) -> Point:
    return (start[0] + (other[0] - start[0]) * share, start[1] + (other[1] - start[1]) * share)


@dataclass(slots=True)
class _Level:
    """A piece turned level with the others: its two ends, and its height."""

    piece: Piece
    x0: float
    y0: float
    x1: float
    y1: float
    height: float


@dataclass(slots=True)
class _Line:
    """Pieces known to stand in one line, left to right."""

    levels: list[_Level]

    @property
    def first(self) -> _Level:
        return self.levels[0]

    @property
    def last(self) -> _Level:
        return self.levels[-1]

    @property
    def y(self) -> float:
        return (self.first.y0 + self.last.y1) / 2

    @property
    def slope(self) -> float:
        """How it falls or rises, where it is long enough to tell."""
        width = self.last.x1 - self.first.x0
        return (self.last.y1 - self.first.y0) / width if width > 3 * self.first.height else 0.0


def _levelled(pieces: Sequence[Piece]) -> list[_Level]:
    slopes = [
        math.atan2(
            piece.corners[1][1] - piece.corners[0][1], piece.corners[1][0] - piece.corners[0][0]
        )
        for piece in pieces
        if len(piece.text) > 3
    ]
    turn = -statistics.median(slopes) if slopes else 0.0
    cos, sin = math.cos(turn), math.sin(turn)
    level = []
    for piece in pieces:
        one, two, three, four = ((x * cos - y * sin, x * sin + y * cos) for x, y in piece.corners)
        left = ((one[0] + four[0]) / 2, (one[1] + four[1]) / 2)
        right = ((two[0] + three[0]) / 2, (two[1] + three[1]) / 2)
        height = (four[1] - one[1] + three[1] - two[1]) / 2
        level.append(_Level(piece, *left, *right, max(1.0, height)))
    return level


def _lines(pieces: Sequence[Piece]) -> list[_Line]:
    lines: dict[object, list[_Level]] = {}
    for number, level in enumerate(_levelled(pieces)):
        line = level.piece.line
        lines.setdefault(("alone", number) if line is None else line, []).append(level)
    return [_Line(sorted(levels, key=lambda level: level.x0)) for levels in lines.values()]


def rows_of(pieces: Sequence[Piece]) -> list[Row]:
    """Pieces in rows, top to bottom; in a row left to right. A picture that is a little askew is
    turned level first, and a row may run a little up or down.
    """
    rows: list[list[_Line]] = []
    for line in sorted(
        _lines([piece for piece in pieces if piece.text.strip()]), key=lambda line: line.y
    ):
        off, best = min(
            ((_off(row, line), number) for number, row in enumerate(rows)), default=(1.0, -1)
        )
        if off < 0.55:
            rows[best].append(line)
        else:
            rows.append([line])
    rows.sort(key=lambda row: statistics.fmean(line.y for line in row))
    levels = [[level for line in row for level in line.levels] for row in rows]
    return [_row(sorted(row, key=lambda level: level.x0)) for row in levels]


def _off(row: Sequence[_Line], line: _Line) -> float:
    """How far a line is from continuing a row, across the gap to its neighbour there. [heights]"""
    near = min(row, key=lambda other: _apart(other, line))
    overlap = min(near.last.x1, line.last.x1) - max(near.first.x0, line.first.x0)
    widths = (near.last.x1 - near.first.x0, line.last.x1 - line.first.x0)
    if overlap > 0.3 * min(widths):
        return 9.0  # one above the other
    left, right = (near, line) if near.first.x0 < line.first.x0 else (line, near)
    gap = right.first.x0 - left.last.x1
    slope = left.slope if widths[0 if left is near else 1] >= max(widths) else right.slope
    expected = left.last.y1 + slope * gap
    return abs(right.first.y0 - expected) / min(left.last.height, right.first.height)


def _apart(line: _Line, other: _Line) -> float:
    return max(0.0, max(line.first.x0, other.first.x0) - min(line.last.x1, other.last.x1))


def _row(levels: list[_Level]) -> Row:
    text, owner = "", list[int]()
    left, right = list[float](), list[float]()
    for number, level in enumerate(levels):
        if text:
            text += "  "
            owner += [number, number]
            left += [level.x0, level.x0]
            right += [level.x0, level.x0]
        width = (level.x1 - level.x0) / _wide(level.piece.text)
        x = level.x0
        for character in level.piece.text:
            owner.append(number)
            left.append(x)
            x += width * _wide(character)
            right.append(x)
        text += "".join(map(_plain, level.piece.text))
    return Row(
        text,
        tuple(level.piece for level in levels),
        tuple(owner),
        tuple(left),
        tuple(right),
        statistics.fmean((level.y0 + level.y1) / 2 for level in levels),
        statistics.median(level.height for level in levels),
    )


COLUMN, LINE = 10.0, 20.0
"""How wide a character and how high a line of pasted text are taken to be."""


def pieces_of(text: str) -> list[Piece]:
    """Pasted text as pieces: each stretch of a line that no wide gap interrupts."""
    pieces = []
    for number, line in enumerate(text.expandtabs(8).splitlines()):
        start = 0
        while start < len(line):
            gap = line.find("   ", start)
            end = len(line) if gap < 0 else gap
            part = line[start:end]
            if part.strip():
                begin = start + len(part) - len(part.lstrip())
                words = part.strip()
                x0, x1 = begin * COLUMN, (begin + len(words)) * COLUMN
                y0, y1 = number * LINE * 1.4, number * LINE * 1.4 + LINE
                pieces.append(Piece(words, ((x0, y0), (x1, y0), (x1, y1), (x0, y1))))
            start = end + 3 if gap >= 0 else len(line)
    return pieces
