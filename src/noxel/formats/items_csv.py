"""Lists of items from spreadsheets: any usual separator, decimal points or commas, columns in any
order.
"""

import json
import re
from collections.abc import Callable, Mapping
from functools import partial
from typing import Any, Literal, get_args

from noxel.core.quantities import LengthUnit, MassUnit, read_typed
from noxel.core.rig import Units
from noxel.errors import InputError, Problem, QuantityError
from noxel.formats.lists import (
    Layout,
    as_understood,
    first_rows,
    guess_layout,
    heading,
    length_in,
    refuse,
    rows_of,
    unit_in,
)

Column = Literal[
    "name",
    "mass",
    "quantity",
    "position",
    "on",
    "category",
    "side",
    "height",
    "effort",
    "secured",
    "aboard",
    "sources",
]
COLUMNS: tuple[Column, ...] = get_args(Column)
_GUESSES: Mapping[str, str] = {
    "side": r"^side|right of|left of|beside the middle",
    "height": r"height|above (the )?floor",
    "effort": r"effort|trouble",
    "secured": r"secured|lashed|held by|tied",
    "aboard": r"aboard|comes along|packed",
    "sources": r"^sources$",
    "mass": r"mass|weight|kg|lbs?|pounds|gewicht|poids|peso",
    "quantity": r"qty|quantity|count|how many|number|pcs|anzahl",
    "position": r"position|place|distance|behind|arm|station",
    "on": r"^on$|where|vehicle|truck|trailer|location",
    "category": r"category|type|group|kind|sort",
    "name": r"name|item|what|thing|description|article",
}
_CATEGORIES = {
    "people": "people",
    "person": "people",
    "essential": "essential",
    "essentials": "essential",
    "comfort": "comfort",
    "fixed": "fixed",
    "fitted": "fixed",
}
_YES_NO = {"yes": True, "y": True, "x": True, "1": True, "no": False, "n": False, "0": False}
_PLACES = {
    "vehicle": "vehicle",
    "truck": "vehicle",
    "car": "vehicle",
    "van": "vehicle",
    "tow vehicle": "vehicle",
    "bed": "vehicle",
    "trailer": "trailer",
    "caravan": "trailer",
    "camper": "trailer",
}


def guess(text: str) -> Layout:
    """Guess how a list is written, from its first rows.

    ``text``: the whole list.

    Returns the separator that splits the first rows most evenly; a decimal comma where figures
    cannot be read without; columns by the words of the header, else by what stands in them.
    """
    layout = guess_layout(text, _GUESSES)
    columns, rows = (
        dict(layout.columns),
        [row for _, row in rows_of(first_rows(text), layout.delimiter)],
    )
    header = layout.header
    body = rows[1:] if header else rows
    width = max((len(row) for row in rows), default=0)
    numbers = [
        index
        for index in range(width)
        if body and all(re.match(r"[0-9.]", row[index]) for row in body if index < len(row))
    ]
    texts = [index for index in range(width) if index not in numbers]
    if "name" not in columns and texts:
        columns["name"] = next(
            (index for index in texts if index not in columns.values()), texts[0]
        )
    if "mass" not in columns and numbers:
        columns["mass"] = next(
            (index for index in numbers if index not in columns.values()), numbers[0]
        )
    return Layout(layout.delimiter, layout.decimal_comma, header, columns)


def header_units(text: str, layout: Layout) -> tuple[MassUnit | None, LengthUnit | None]:
    """The units that the headers of the mass and the position name, if they do."""
    return unit_in(heading(text, layout, "mass")), length_in(heading(text, layout, "position"))


def read_items(
    text: str,
    layout: Layout,
    *,
    mass: MassUnit,
    length: LengthUnit,
    on: Literal["vehicle", "trailer"],
    into: Units | None = None,
) -> list[dict[str, Any]]:
    """Read a list of items, all of it or nothing.

    ``text``: the whole list. ``layout``: how it is written; it needs a mass column. ``mass`` and
    ``length``: units of bare figures. ``on``: where an item goes that does not say. ``into``: the
    units of the rig that they go to: a bare figure in another one keeps its own.

    Returns the loads as a rig file keeps them.

    Raises InputError with one problem for each bad line, by its number; TooLarge if there are more
    rows than are read at once.
    """
    columns = layout.columns
    if "mass" not in columns:
        raise InputError(
            "Say which column is the mass.", [Problem("columns.mass", "is missing", "missing")]
        )
    problems: list[Problem] = []
    items = []
    for line, row in layout.body(text):
        try:
            item = _item(row, layout, mass, length, on)
            if into:
                item |= {
                    name: f"{item[name]} {unit}"
                    for name, unit, own in (
                        ("mass", mass, into.mass),
                        *((name, length, into.length) for name in ("position", "side", "height")),
                    )
                    if unit != own and isinstance(item.get(name), int | float)
                }
            items.append(item)
        except QuantityError as exc:
            problems.append(Problem(f"line {line}", exc.message, exc.code))
    refuse(problems, empty=not items)
    return items


def understood(
    layout: Layout, mass: MassUnit, length: LengthUnit
) -> Callable[[str, list[str]], str]:
    """What a row of items has in a column, as it is read."""

    def reads(name: str, row: list[str]) -> str:
        text = layout.figure(row, name)
        if text and name == "mass":
            return as_understood(text, "mass", mass)
        if text and name in ("position", "side", "height"):
            return as_understood(text, "length", length)
        return layout.cell(row, name)

    return reads


def _item(
    row: list[str], layout: Layout, mass: MassUnit, length: LengthUnit, on: str
) -> dict[str, Any]:
    item: dict[str, Any] = {"name": layout.cell(row, "name")[:200], "on": on}
    if not layout.cell(row, "mass"):
        raise QuantityError("has no mass")
    item["mass"] = read_typed(layout.figure(row, "mass"), "mass", mass).value
    if isinstance(item["mass"], int | float) and item["mass"] < 0:
        raise QuantityError(f"“{layout.cell(row, 'mass')}” is a negative mass")
    for name in ("position", "side", "height"):
        if layout.cell(row, name):
            item[name] = read_typed(layout.figure(row, name), "length", length).value
    if layout.cell(row, "quantity"):
        item["quantity"] = _count(layout.figure(row, "quantity"))
    for name, read in _READ.items():
        if layout.cell(row, name):
            item["entered" if name == "sources" else name] = read(layout.cell(row, name))
    return item


def _count(text: str) -> int | float:
    count = read_typed(text, "number", None).value
    if not isinstance(count, int | float) or not 0 <= count <= 100_000:
        raise QuantityError(f"“{text}” is not a number of items")
    return count


def _one_of(words: Mapping[str, Any], wanted: str, text: str) -> Any:
    if text.lower() not in words:
        raise QuantityError(f"“{text}” is not {wanted}")
    return words[text.lower()]


def _effort(text: str) -> dict[str, int | float | str]:
    """What ``leave 3, move 1, swap never`` says."""
    effort: dict[str, int | float | str] = {}
    for name, trouble in re.findall(r"(leave|move|swap) ([^ ,]+)", text):
        effort[name] = "never" if trouble == "never" else _count(trouble)
    if not effort:
        raise QuantityError(f"“{text}” is not an effort: write it like leave 3, swap never")
    return effort


def _sources(text: str) -> Any:
    try:
        return json.loads(text)
    except ValueError as exc:
        raise QuantityError("has sources that cannot be read") from exc


_READ: Mapping[str, Callable[[str], Any]] = {
    "on": partial(_one_of, _PLACES, "a place: write vehicle or trailer"),
    "category": partial(_one_of, _CATEGORIES, "a category (people, essential, comfort, fixed)"),
    "aboard": partial(_one_of, _YES_NO, "yes or no"),
    "effort": _effort,
    "secured": lambda text: text[:200],
    "sources": _sources,
}
