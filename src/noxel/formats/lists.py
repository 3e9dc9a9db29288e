"""Tables from spreadsheets as text: any usual separator, decimal points or commas, columns in any
order.
"""

import csv
import io
import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

from noxel.core.quantities import Dimension, LengthUnit, MassUnit, read_typed
from noxel.errors import InputError, Problem, QuantityError, TooLarge

MOST = 10_000
"""Rows that are read at once."""

_DELIMITERS = (";", "\t", ",", "|")


@dataclass(frozen=True, slots=True)
class Layout:
    """How a list is written: its separator, its decimal sign, whether the first row is a header,
    which column is what.
    """

    delimiter: str
    decimal_comma: bool
    header: bool
    columns: Mapping[str, int] = field(default_factory=dict)

    def cell(self, row: Sequence[str], name: str) -> str:
        """What a row has in a column, by the column's meaning; nothing where there is no such
        column.
        """
        index = self.columns.get(name)
        return row[index] if index is not None and index < len(row) else ""

    def figure(self, row: Sequence[str], name: str) -> str:
        """The same for a figure: with a decimal point."""
        cell = self.cell(row, name)
        return cell.replace(".", "").replace(",", ".") if self.decimal_comma else cell

    def body(self, text: str) -> list[tuple[int, list[str]]]:
        """The rows below the header, each with the number of its line.

        Raises InputError or TooLarge as :func:`rows_of`.
        """
        rows = rows_of(text, self.delimiter)
        return rows[1:] if self.header else rows


def rows_of(text: str, delimiter: str) -> list[tuple[int, list[str]]]:
    """The rows with anything in them, each with the number of its line.

    Raises InputError if it is no such table; TooLarge if there are more than :data:`MOST` rows.
    """
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        columns = [
            (reader.line_num, [_plain(cell) for cell in row])
            for row in reader
            if any(cell.strip() for cell in row)
        ]
    except csv.Error as exc:
        raise InputError(
            f"This list cannot be read: {exc}.",
            [Problem(f"line {reader.line_num}", str(exc), "csv")],
        ) from exc
    if len(columns) > MOST + 1:
        raise TooLarge(f"{len(columns):,} rows are too many at once: at most {MOST:,}.")
    return columns


def _plain(cell: str) -> str:
    """A cell without the mark that keeps a spreadsheet from taking it for a formula."""
    text = cell.strip()
    return text[1:] if re.match(r"'[=+\-@]", text) else text


def first_rows(text: str) -> str:
    """The first lines that have anything in them."""
    return "\n".join([line for line in text.splitlines() if line.strip()][:20])


def _width(line: str, delimiter: str) -> int:
    """How many cells a line has; one that cannot be read is refused with its list, by
    :func:`rows_of`.
    """
    try:
        return len(next(csv.reader([line], delimiter=delimiter)))
    except csv.Error:
        return 1


def guess_layout(text: str, words: Mapping[str, str]) -> Layout:
    """Guess how a list is written, from its first rows.

    ``text``: the whole list. ``words``: for each column the words that its heading may have, as a
    pattern; in the order they are tried.

    Returns the separator that splits the first rows most evenly; a decimal comma where figures
    cannot be read without; columns by the words of the header.
    """
    first = first_rows(text).splitlines()
    widths = {delimiter: [_width(line, delimiter) for line in first] for delimiter in _DELIMITERS}
    even = {delimiter: min(counts, default=0) for delimiter, counts in widths.items()}
    delimiter = max(
        _DELIMITERS, key=lambda candidate: (even[candidate], -_DELIMITERS.index(candidate))
    )
    rows = [row for _, row in rows_of("\n".join(first), delimiter)]
    comma = any(
        re.fullmatch(r"[0-9][0-9.]*,(?:[0-9]{1,2}|[0-9]{4,})(\s*[a-z]+)?", cell)
        for row in rows
        for cell in row
    )
    header = bool(rows) and not any(re.match(r"[0-9]", cell) for cell in rows[0])
    columns: dict[str, int] = {}
    for name, pattern in words.items() if header else ():
        for index, cell in enumerate(rows[0]):
            if index not in columns.values() and re.search(pattern, cell, re.IGNORECASE):
                columns[name] = index
                break
    return Layout(delimiter, comma, header, columns)


def refuse(problems: list[Problem], *, empty: bool) -> None:
    """All or nothing: refuse a list with bad lines, or with no row at all.

    Raises InputError with one problem for each bad line, by its number.
    """
    if empty and not problems:
        problems = [Problem("", "there is no row in it", "empty")]
    if problems:
        more = f" {len(problems) - 1} more lines cannot be read." if len(problems) > 1 else ""
        raise InputError(f"Nothing was added. {problems[0]}.{more}", problems[:200])


def unit_in(text: str) -> MassUnit | None:
    """The unit of mass that a heading names, if it does."""
    word = text.lower()
    return (
        "kg" if re.search(r"\bkg", word) else "lb" if re.search(r"\blbs?\b|pound", word) else None
    )


_LENGTHS: Mapping[LengthUnit, str] = {
    "mm": "mm|millimet(?:re|er)s?",
    "cm": "cm|centimet(?:re|er)s?",
    "in": "in|inch(?:es)?|″",
    "ft": "ft|feet|foot",
    "m": "m|met(?:re|er)s?",
}


def length_in(text: str) -> LengthUnit | None:
    """The unit of length that a heading ends with, if it does: “place (cm)”, “arm, inches”."""
    word = text.lower()
    return next(
        (
            unit
            for unit, words in _LENGTHS.items()
            if re.search(rf"(?:^|[^a-z])(?:{words})[)\].]*\s*$", word)
        ),
        None,
    )


def heading(text: str, layout: Layout, name: str) -> str:
    """The heading of a column, by the column's meaning; nothing where there is none."""
    rows = rows_of(first_rows(text), layout.delimiter) if layout.header else []
    return layout.cell(rows[0][1], name) if rows else ""


def preview(text: str, layout: Layout, reads: Callable[[str, list[str]], str]) -> list[list[str]]:
    """The first rows as they are understood, the header as it stands; ``reads`` says what a row has
    in a column.
    """
    rows = [list(row) for _, row in rows_of(text, layout.delimiter)[:8]]
    for row in rows[layout.header :]:
        for name, index in layout.columns.items():
            if index < len(row):
                row[index] = reads(name, row)
    return rows


def as_understood(text: str, dimension: Dimension, unit: str) -> str:
    """A figure as it is read, with its unit; a text that cannot be read as it stands."""
    try:
        value = read_typed(text, dimension, unit).value
    except QuantityError:
        return text
    return f"{value:,} {unit}" if isinstance(value, int | float) else value
