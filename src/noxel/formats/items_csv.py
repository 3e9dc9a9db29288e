"""Lists of items from spreadsheets: any usual separator, decimal points or commas, columns in any
order.
"""

import re
from collections.abc import Mapping
from typing import Any, Literal

from noxel.core.quantities import LengthUnit, MassUnit, read_typed
from noxel.core.rig import Units
from noxel.errors import InputError, Problem, QuantityError
from noxel.formats.lists import (
    Layout,
    first_rows,
    guess_layout,
    heading,
    length_in,
    refuse,
    rows_of,
    unit_in,
)

Column = Literal["name", "mass", "quantity", "position", "on", "category"]
COLUMNS: tuple[Column, ...] = ("name", "mass", "quantity", "position", "on", "category")
_GUESSES: Mapping[str, str] = {
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

    Parameters
    ----------
    text : str
        The whole list.

    Returns
    -------
    Layout
        The separator that splits the first rows most evenly; a decimal comma where figures cannot
        be read without; columns by the words of the header, else by what stands in them.
    """
    found = guess_layout(text, _GUESSES)
    columns, rows = (
        dict(found.columns),
        [row for _, row in rows_of(first_rows(text), found.delimiter)],
    )
    header = found.header
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
    return Layout(found.delimiter, found.decimal_comma, header, columns)


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

    Parameters
    ----------
    text : str
        The whole list.
    layout : Layout
        How it is written; it needs a mass column.
    mass, length
        Units of bare figures.
    on : {"vehicle", "trailer"}
        Where an item goes that does not say.
    into : Units or None
        The units of the rig that they go to: a bare figure in another one keeps its own.

    Returns
    -------
    list of dict
        Loads as a rig file keeps them.

    Raises
    ------
    InputError
        With one problem for each bad line, by its number.
    TooLarge
        If there are more rows than are read at once.
    """
    columns = layout.columns
    if "mass" not in columns:
        raise InputError(
            "Say which column is the mass.", [Problem("columns.mass", "is missing", "missing")]
        )
    problems: list[Problem] = []
    found = []
    for line, row in layout.body(text):
        try:
            item = _item(row, layout, mass, length, on)
            if into:
                item |= {
                    name: f"{item[name]} {unit}"
                    for name, unit, own in (
                        ("mass", mass, into.mass),
                        ("position", length, into.length),
                    )
                    if unit != own and isinstance(item.get(name), int | float)
                }
            found.append(item)
        except QuantityError as exc:
            problems.append(Problem(f"line {line}", exc.message, exc.code))
    refuse(problems, empty=not found)
    return found


def _item(
    row: list[str], layout: Layout, mass: MassUnit, length: LengthUnit, on: str
) -> dict[str, Any]:
    def cell(name: Column) -> str:
        return layout.cell(row, name)

    made: dict[str, Any] = {"name": cell("name")[:200], "on": on}
    if not cell("mass"):
        raise QuantityError("has no mass")
    made["mass"] = read_typed(layout.figure(row, "mass"), "mass", mass).value
    if isinstance(made["mass"], int | float) and made["mass"] < 0:
        raise QuantityError(f"“{cell('mass')}” is a negative mass")
    if cell("quantity"):
        count = read_typed(layout.figure(row, "quantity"), "number", None).value
        if not isinstance(count, int | float) or not 0 <= count <= 100_000:
            raise QuantityError(f"“{cell('quantity')}” is not a number of items")
        made["quantity"] = count
    if cell("position"):
        made["position"] = read_typed(layout.figure(row, "position"), "length", length).value
    if cell("on"):
        place = _PLACES.get(cell("on").lower())
        if place is None:
            raise QuantityError(f"“{cell('on')}” is not a place: write vehicle or trailer")
        made["on"] = place
    if cell("category"):
        category = _CATEGORIES.get(cell("category").lower())
        if category is None:
            raise QuantityError(
                f"“{cell('category')}” is not a category (people, essential, comfort, fixed)"
            )
        made["category"] = category
    return made
