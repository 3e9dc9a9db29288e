"""A maker's towing guide, pasted once: its rows, the one of this vehicle, and those that are easily
read instead of it.

A guide is a table with a line of headings, whose words say what a column holds. A mass may have its
unit in the heading or in the cell. What is not understood is named and never guessed.
"""

import csv
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from noxel.core.quantities import KG, MassUnit, read_mass, read_typed
from noxel.errors import InputError, Problem, QuantityError

LONGEST_GUIDE, MOST_ROWS = 200_000, 2_000
KEYS: Mapping[str, str] = {
    "year": r"year",
    "engine": r"engine|motor",
    "axle_ratio": r"axle|ratio",
    "cab": r"cab|body|bed",
    "drive": r"drive|4x|2wd|4wd",
    "wheelbase": r"wheel ?base|\bwb\b",
}
"""What tells the rows apart, by the words of a heading; the first that fits counts."""
RATINGS: Mapping[str, str] = {
    "gcwr": r"gcwr|gcw|gcm|train|combin",
    "tongue_rating": r"tongue|ball|nose|hitch load",
    "tow_rating": r"tow|trailer",
}
"""What a row gives, the same way."""


@dataclass(frozen=True, slots=True)
class GuideRow:
    """A row: what tells it apart, as written, and its ratings, as they are to be typed."""

    number: int
    keys: Mapping[str, str]
    ratings: Mapping[str, str]
    kg: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class Alike:
    """A row that differs from the vehicle's own in one column only, and gives other ratings."""

    row: GuideRow
    differs: str


@dataclass(frozen=True, slots=True)
class Found:
    """The rows that fit the vehicle; those easily read instead, where one fits; else the columns
    that would tell which it is.
    """

    rows: tuple[GuideRow, ...]
    alike: tuple[Alike, ...]
    ask: tuple[str, ...]


def _cells(text: str) -> list[list[str]]:
    lines = [line for line in text.splitlines() if line.strip()]
    mark = next(
        (
            delimiter
            for delimiter in ("\t", ";", "|")
            if all(delimiter in line for line in lines[:2])
        ),
        None,
    )
    if mark:
        rows = list(csv.reader(lines, delimiter=mark))
    elif all(re.search(r"\S {2,}\S", line) for line in lines[:2]):
        rows = [re.split(r" {2,}", line.strip()) for line in lines]
    else:
        rows = list(csv.reader(lines))
    return [[cell.strip() for cell in row] for row in rows]


def _heading(text: str) -> str | None:
    words = text.lower()
    for name, pattern in (*RATINGS.items(), *KEYS.items()):
        if re.search(pattern, words) and not (name == "tow_rating" and "tongue" in words):
            return name
    return None


def _mass(text: str, heading: str, unit: MassUnit) -> tuple[str, float]:
    own = re.search(r"\b(lb|lbs|kg)\b", heading.lower())
    bare: MassUnit = unit if own is None else "kg" if own[1] == "kg" else "lb"
    value = read_typed(text, "mass", bare).value
    if isinstance(value, str):
        return value, read_mass(value)
    return f"{value:,g} {bare}", value * KG[bare]


def _wrong(says: str) -> InputError:
    return InputError(says, [Problem("text", says, "guide")])


def read_guide(text: str, unit: MassUnit) -> list[GuideRow]:
    """The rows of a pasted guide.

    ``text``: a line of headings, then a row a line; cells apart by tabs, semicolons, bars, two
    spaces or commas. ``unit``: what a mass without a unit is in.

    Raises InputError if there is no heading that is understood, no rating, or a cell that cannot be
    read as a mass; the message names the line and the column.
    """
    if len(text) > LONGEST_GUIDE:
        raise _wrong(f"The table is longer than {LONGEST_GUIDE:,} characters.")
    rows = _cells(text)
    if len(rows) < 2:
        raise _wrong("A guide needs a line of headings, and a row below it.")
    if len(rows) > MOST_ROWS:
        raise _wrong(f"The table has {len(rows):,} rows; {MOST_ROWS:,} are read.")
    headings = rows[0]
    columns = {
        column: name for column, heading in enumerate(headings) if (name := _heading(heading))
    }
    if not set(columns.values()) & set(RATINGS):
        raise _wrong(
            "No column of the first line is a rating (GCWR, tow rating, tongue): "
            f"{', '.join(headings)[:200]}."
        )
    guide_rows = []
    for number, row in enumerate(rows[1:], 2):
        keys = {
            columns[column]: cell
            for column, cell in enumerate(row)
            if columns.get(column) in KEYS and cell
        }
        ratings: dict[str, tuple[str, float]] = {}
        for column, cell in enumerate(row):
            name = columns.get(column)
            if name is None or name not in RATINGS or cell in ("", "-", "–", "n/a", "N/A"):
                continue
            try:
                ratings[name] = _mass(cell, headings[column], unit)
            except QuantityError as exc:
                raise _wrong(f"Line {number}, {headings[column]}: {exc.message}.") from exc
        if ratings:
            guide_rows.append(
                GuideRow(
                    number,
                    keys,
                    {name: text for name, (text, _) in ratings.items()},
                    {name: kg for name, (_, kg) in ratings.items()},
                )
            )
    if not guide_rows:
        raise _wrong("No row of the table gives a rating.")
    return guide_rows


def _plain(text: str) -> str:
    return re.sub(r"[^a-z0-9.]", "", text.lower())


def _fits(row: GuideRow, vehicle: Mapping[str, str]) -> bool:
    return all(
        _plain(row.keys[key]) == _plain(text) for key, text in vehicle.items() if key in row.keys
    )


def look_up(rows: Sequence[GuideRow], vehicle: Mapping[str, str]) -> Found:
    """The vehicle's row.

    ``rows``: the guide. ``vehicle``: what is known of the vehicle, by the names of :data:`KEYS`;
    blank texts count as not known.
    """
    known = {key: text for key, text in vehicle.items() if text.strip()}
    own = tuple(row for row in rows if _fits(row, known))
    if len(own) != 1:
        among = own or tuple(rows)
        ask = tuple(
            key
            for key in KEYS
            if len({_plain(row.keys.get(key, "")) for row in among}) > 1
            and (key not in known or not own)
        )
        return Found(own, (), ask)
    mine, alike = own[0], []
    for row in rows:
        apart = [
            key for key in KEYS if _plain(row.keys.get(key, "")) != _plain(mine.keys.get(key, ""))
        ]
        if row is not mine and len(apart) == 1 and row.kg != mine.kg:
            alike.append(Alike(row, apart[0]))
    return Found(own, tuple(alike), ())
