"""Lists of things from spreadsheets: any usual separator, decimal points or commas, columns in any order."""

import csv
import io
import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from noxel.core.units import LengthUnit, MassUnit, read_typed
from noxel.errors import InputError, Problem, QuantityError, TooLarge

Column = Literal["name", "mass", "quantity", "position", "on", "category"]
COLUMNS: tuple[Column, ...] = ("name", "mass", "quantity", "position", "on", "category")
MOST = 10_000
"""Rows that are read at once."""

_DELIMITERS = (";", "\t", ",", "|")
_GUESSES: Mapping[Column, str] = {
    "mass": r"mass|weight|kg|lbs?|pounds|gewicht|poids|peso", "quantity": r"qty|quantity|count|how many|number|pcs|anzahl",
    "position": r"position|place|distance|behind|arm|station", "on": r"^on$|where|vehicle|truck|trailer|location",
    "category": r"category|type|group|kind", "name": r"name|item|what|thing|description|article",
}  # fmt: skip
_CATEGORIES = {"people": "people", "person": "people", "essential": "essential", "essentials": "essential", "comfort": "comfort",
               "fixed": "fixed", "fitted": "fixed"}  # fmt: skip
_PLACES = {"vehicle": "vehicle", "truck": "vehicle", "car": "vehicle", "van": "vehicle", "tow vehicle": "vehicle", "bed": "vehicle",
           "trailer": "trailer", "caravan": "trailer", "camper": "trailer"}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Layout:
    """How a list is written: its separator, its decimal sign, whether the first row is a header, which column is what."""

    delimiter: str
    decimal_comma: bool
    header: bool
    columns: Mapping[Column, int] = field(default_factory=dict)


def _rows(text: str, delimiter: str) -> list[tuple[int, list[str]]]:
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter)
    try:
        found = [(reader.line_num, [cell.strip() for cell in row]) for row in reader if any(cell.strip() for cell in row)]
    except csv.Error as exc:
        raise InputError(f"This list cannot be read: {exc}.", [Problem(f"line {reader.line_num}", str(exc), "csv")]) from exc
    if len(found) > MOST + 1:
        raise TooLarge(f"{len(found):,} rows are too many at once: at most {MOST:,}.")
    return found


def guess(text: str) -> Layout:
    """Guess how a list is written, from its first rows.

    Parameters
    ----------
    text : str
        The whole list.

    Returns
    -------
    Layout
        The separator that splits the first rows most evenly; a decimal comma where figures cannot be read without; columns by
        the words of the header, else by what stands in them.
    """
    first = [line for line in text.splitlines() if line.strip()][:20]
    widths = {each: [len(next(csv.reader([line], delimiter=each))) for line in first] for each in _DELIMITERS}
    even = {each: min(found, default=0) for each, found in widths.items()}
    delimiter = max(_DELIMITERS, key=lambda each: (even[each], -_DELIMITERS.index(each)))
    rows = [row for _, row in _rows("\n".join(first), delimiter)]
    cells = [cell for row in rows for cell in row]
    comma = any(re.fullmatch(r"[0-9]+,(?:[0-9]{1,2}|[0-9]{4,})(\s*[a-z]+)?", cell) for cell in cells)
    header = bool(rows) and not any(re.match(r"[0-9]", cell) for cell in rows[0])
    columns: dict[Column, int] = {}
    if header:
        for name, words in _GUESSES.items():
            for index, cell in enumerate(rows[0]):
                if index not in columns.values() and re.search(words, cell, re.IGNORECASE):
                    columns[name] = index
                    break
    body = rows[1:] if header else rows
    width = max((len(row) for row in rows), default=0)
    numbers = [
        index for index in range(width) if body and all(re.match(r"[0-9.]", row[index]) for row in body if index < len(row))
    ]
    texts = [index for index in range(width) if index not in numbers]
    if "name" not in columns and texts:
        columns["name"] = next((index for index in texts if index not in columns.values()), texts[0])
    if "mass" not in columns and numbers:
        columns["mass"] = next((index for index in numbers if index not in columns.values()), numbers[0])
    return Layout(delimiter, comma, header, columns)


def header_unit(text: str, layout: Layout) -> MassUnit | None:
    """The unit that the header of the mass column names, if it does."""
    if not layout.header or "mass" not in layout.columns:
        return None
    rows = _rows(text.split("\n", 1)[0], layout.delimiter)
    cell = rows[0][1][layout.columns["mass"]].lower() if rows and layout.columns["mass"] < len(rows[0][1]) else ""
    return "kg" if re.search(r"\bkg", cell) else "lb" if re.search(r"\blbs?\b|pound", cell) else None


def preview(text: str, layout: Layout, most: int = 8) -> list[list[str]]:
    """The first rows as they split, the header among them."""
    return [row for _, row in _rows(text, layout.delimiter)[:most]]


def _figure(cell: str, decimal_comma: bool) -> str:
    return cell.replace(".", "").replace(",", ".") if decimal_comma else cell


def read_items(
    text: str, layout: Layout, *, mass: MassUnit, length: LengthUnit, on: Literal["vehicle", "trailer"]
) -> list[dict[str, Any]]:
    """Read a list of things, all of it or nothing.

    Parameters
    ----------
    text : str
        The whole list.
    layout : Layout
        How it is written; it needs a mass column.
    mass, length
        Units of bare figures.
    on : {"vehicle", "trailer"}
        Where things are that do not say.

    Returns
    -------
    list of dict
        Loads as a rig file keeps them.

    Raises
    ------
    InputError
        With one problem for each bad line, by its number.
    TooLarge
        If there are more than :data:`MOST` rows.
    """
    columns = layout.columns
    if "mass" not in columns:
        raise InputError("Say which column is the mass.", [Problem("columns.mass", "is missing", "missing")])
    rows = _rows(text, layout.delimiter)
    problems: list[Problem] = []
    found = []
    for line, row in rows[1:] if layout.header else rows:
        try:
            found.append(_item(row, layout, mass, length, on))
        except QuantityError as exc:
            problems.append(Problem(f"line {line}", exc.message, exc.code))
    if not rows or (not found and not problems):
        problems.append(Problem("", "there is no row in it", "empty"))
    if problems:
        more = f" {len(problems) - 1} more lines cannot be read." if len(problems) > 1 else ""
        raise InputError(f"Nothing was added. {problems[0]}.{more}", problems[:200])
    return found


def _item(row: list[str], layout: Layout, mass: MassUnit, length: LengthUnit, on: str) -> dict[str, Any]:
    def cell(name: Column) -> str:
        index = layout.columns.get(name)
        return row[index] if index is not None and index < len(row) else ""

    made: dict[str, Any] = {"name": cell("name")[:200], "on": on}
    if not cell("mass"):
        raise QuantityError("has no mass")
    made["mass"] = read_typed(_figure(cell("mass"), layout.decimal_comma), "mass", mass).value
    if isinstance(made["mass"], int | float) and made["mass"] < 0:
        raise QuantityError(f"“{cell('mass')}” is a negative mass")
    if cell("quantity"):
        count = read_typed(_figure(cell("quantity"), layout.decimal_comma), "number", None).value
        if not isinstance(count, int | float) or not 0 <= count <= 100_000:
            raise QuantityError(f"“{cell('quantity')}” is no number of things")
        made["quantity"] = count
    if cell("position"):
        made["position"] = read_typed(_figure(cell("position"), layout.decimal_comma), "length", length).value
    if cell("on"):
        place = _PLACES.get(cell("on").lower())
        if place is None:
            raise QuantityError(f"“{cell('on')}” is no place that is known here (vehicle or trailer)")
        made["on"] = place
    if cell("category"):
        category = _CATEGORIES.get(cell("category").lower())
        if category is None:
            raise QuantityError(f"“{cell('category')}” is no category (people, essential, comfort, fixed)")
        made["category"] = category
    return made
