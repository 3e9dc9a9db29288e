"""Which figure belongs to which words, by where both stand.

A figure belongs to the words before it in its row; to the heading above it; to words at the end of
the row above, when a sentence was wrapped; to words after it, where nothing else claims them. No
figure has two owners.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from noxel.core.reading.figures import Figure
from noxel.core.reading.pieces import Row
from noxel.core.reading.words import Word


@dataclass(frozen=True, slots=True)
class Key:
    """Words that stand on a label: in which row, and where in it; ``last`` is the row where they
    end.
    """

    word: Word
    row: int
    start: int
    last: int
    end: int
    text: str


def keys_in(rows: Sequence[Row], words: Sequence[Word]) -> list[Key]:
    """Every known word on a label, the longest of those that overlap; words may run on into the
    next row.
    """
    whole = "\n".join(row.text for row in rows)
    starts = [0]
    for row in rows:
        starts.append(starts[-1] + len(row.text) + 1)
    spans = [
        (match.start(), match.start() + len(match[0].rstrip()), word, match[0].rstrip())
        for word in words
        for match in word.pattern.finditer(whole)
        if match[0].strip()
    ]
    kept: list[tuple[int, int, Word, str]] = []
    for span in sorted(spans, key=lambda span: (span[0] - span[1], span[0])):
        if all(span[1] <= start or end <= span[0] for start, end, _, _ in kept):
            kept.append(span)
    keys = []
    for start, end, word, text in sorted(kept, key=lambda span: span[0]):
        first = max(index for index in range(len(rows)) if starts[index] <= start)
        last = max(index for index in range(len(rows)) if starts[index] <= end - 1)
        keys.append(Key(word, first, start - starts[first], last, end - starts[last], text))
    return keys


def owners(
    rows: Sequence[Row], keys: Sequence[Key], figures: Sequence[Figure]
) -> list[tuple[Key, Figure]]:
    """Each figure with the words that it belongs to, in the order of the label."""
    costs = sorted(
        (
            (cost, number, index)
            for number, figure in enumerate(figures)
            for index, key in enumerate(keys)
            for cost in _cost(rows, keys, figures, key, figure)
        ),
        key=lambda cost: cost[0],
    )
    owners: dict[int, int] = {}
    for _, number, index in costs:
        if number not in owners and index not in owners.values():
            owners[number] = index
    return [(keys[index], figures[number]) for number, index in sorted(owners.items())]


def _cost(
    rows: Sequence[Row],
    keys: Sequence[Key],
    figures: Sequence[Figure],
    key: Key,
    figure: Figure,
) -> Iterator[float]:
    """How far a figure is from being of those words; nothing where it cannot be of them."""
    row, keys_here = rows[figure.row], _in_row(keys, figure.row)
    before = [other for other in keys_here if _end_in(other, figure.row) <= figure.start]
    beside = [other for other in figures if other.row == figure.row]
    if key.last == figure.row and _end_in(key, figure.row) <= figure.start:
        between = [
            other for other in beside if _end_in(key, figure.row) <= other.start < figure.start
        ]
        blocked = any(_end_in(other, figure.row) > _end_in(key, figure.row) for other in before)
        if not blocked and not between:
            gap = row.left[figure.start] - row.right[_end_in(key, figure.row) - 1]
            yield max(0.0, gap / row.height) * 0.05
        return
    if key.last < figure.row and not before:
        yield from _from_above(rows, keys, figures, key, figure)
    if (
        key in keys_here
        and _figures_first(keys_here, beside, figure.row)
        and beside.index(figure) == keys_here.index(key)
    ):
        yield 0.8


def _figures_first(keys: Sequence[Key], beside: Sequence[Figure], row: int) -> bool:
    """Whether a row has its figures before its words: “7,050 lb GVWR”."""
    return (
        0 < len(keys) == len(beside)
        and all(key.row == row for key in keys)
        and all(figure.end <= key.start for figure, key in zip(beside, keys, strict=True))
    )


def _in_row(keys: Sequence[Key], row: int) -> list[Key]:
    return [key for key in keys if key.row <= row <= key.last]


def _end_in(key: Key, row: int) -> int:
    return key.end if key.last == row else 1 << 30


def _from_above(
    rows: Sequence[Row],
    keys: Sequence[Key],
    figures: Sequence[Figure],
    key: Key,
    figure: Figure,
) -> Iterator[float]:
    """A heading with its figure below it, or the last words of a wrapped line."""
    above, below = rows[key.last], rows[figure.row]
    down = (below.y - above.y) / above.height
    beside = [other for other in figures if other.row == key.last]
    if down > 4.5 or _figures_first(_in_row(keys, key.last), beside, key.last):
        return
    x0, x1 = above.sides(key.start if key.row == key.last else 0, key.end)
    y0, y1 = below.sides(figure.start, figure.end)
    off = abs((x0 + x1) - (y0 + y1)) / 2
    overlap = min(x1, y1) - max(x0, y0)
    after = [other for other in figures if other.row == key.last and other.start >= key.end]
    between = range(key.last + 1, figure.row)
    if overlap > 0 and not after:
        crossed = any(
            min(rows[index].sides(other.start, other.end)[1], x1)
            - max(rows[index].sides(other.start, other.end)[0], x0)
            > 0
            for index in between
            for other in figures
            if other.row == index
        )
        if not crossed:
            yield 1.0 + 0.2 * down + 0.05 * off / above.height
    wrapped = figure.row == key.last + 1 and not after
    first = figure.start == min(other.start for other in figures if other.row == figure.row)
    following = [other for other in keys if other.row == key.last and other.start >= key.end]
    if wrapped and first and not following:
        yield 2.0 + 0.2 * down
