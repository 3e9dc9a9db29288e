"""The ``entered`` map of each part: how a figure was typed, and typed texts that are not figures
yet.
"""

from dataclasses import dataclass
from typing import Any

from noxel.core.editing.paths import Document, PathParts, kind_of, put, value_at
from noxel.core.quantities import read_typed, with_thousands
from noxel.core.rig import Entry, RigFile, read_path, write_path


@dataclass(frozen=True, slots=True)
class FieldState:
    """How a field stands: as typed, what was understood, and what is wrong with it."""

    path: str
    entry: Entry
    problem: str | None = None


@dataclass(frozen=True, slots=True)
class Edited:
    """A rig after changes, with every field whose text is remembered."""

    document: Document
    rig: RigFile
    fields: tuple[FieldState, ...]


_NESTED = frozenset((dict, list))
"""What an element of a list must hold if anything is remembered in it."""


def units_in_force(document: Document) -> dict[str, str]:
    """The units of bare figures, by dimension; that of lengths may be missing."""
    units: dict[str, str] = document.get("units", {})
    pounds = units.get("mass", "lb") == "lb"
    usual = {"mass": "lb", "pressure": "psi", "volume": "gal"}
    return (usual if pounds else {"pressure": "kPa", "volume": "l"}) | units


def unit_of(document: Document, parts: PathParts, dimension: str) -> str | None:
    """The unit of a bare figure at a path: a pass may have its own."""
    own = value_at(document, (*parts[:4], "unit")) if parts[2:3] == ("passes",) else None
    units = units_in_force(document)
    return own if own and dimension == "mass" else units.get(dimension)


def understand(document: Document, parts: PathParts, text: str) -> Any:
    kind = kind_of(document, parts)
    if kind.dimension == "text" or kind.dimension == "choice":
        return text
    if kind.dimension == "mass" and _is_heavy(parts):
        text = with_thousands(text)
    return read_typed(text, kind.dimension, unit_of(document, parts, kind.dimension)).value


def _is_heavy(parts: PathParts) -> bool:
    """Whether a figure is of a whole axle or vehicle: a rating, a reading, an empty weight."""
    return not {"ratings", "readings", "curb_weight", "dry_weight", "printed_gross"}.isdisjoint(
        map(str, parts)
    )


def entries_of(document: Document) -> dict[PathParts, dict[str, Any]]:
    """Every remembered entry with the path of its figure."""
    entries: dict[PathParts, dict[str, Any]] = {}

    def walk(node: dict[str, Any], path: PathParts) -> None:
        entered = node.get("entered")
        for key, entry in entered.items() if isinstance(entered, dict) else ():
            if isinstance(entry, dict):  # anything else is refused with the part it is in
                entries[(*path, *read_path(key))] = entry
        for key, value in node.items():
            if type(value) is dict and key != "entered":
                walk(value, (*path, key))
            elif type(value) is list and key != "entered":
                walk_list(value, (*path, key))

    def walk_list(node: list[Any], path: PathParts) -> None:
        for index, value in enumerate(node):
            if type(value) is list:
                walk_list(value, (*path, index))
            elif type(value) is dict and not _NESTED.isdisjoint(map(type, value.values())):
                walk(value, (*path, index))

    walk(document, ())
    return entries


def remember(document: Document, parts: PathParts, **keep: Any) -> None:
    """Keep or clear what is remembered about a figure; an entry that says nothing is taken away."""
    holder = kind_of(document, parts).holder
    if value_at(document, holder) is None:
        put(document, holder, {})
    part = value_at(document, holder)
    entered = part.setdefault("entered", {})
    key = write_path(parts[len(holder) :])
    entry = {**entered.get(key, {}), **keep}
    entry = {name: value for name, value in entry.items() if value is not None}
    if entry:
        entered[key] = entry
    else:
        entered.pop(key, None)
    if not entered:
        part.pop("entered")


def as_text(value: Any) -> str:
    return value if isinstance(value, str) else repr(value)


def must_stay(document: Document, parts: PathParts) -> bool:
    """Whether a figure cannot simply go: the format requires it, or its neighbours in a list would
    move up.
    """
    return kind_of(document, parts).required or isinstance(parts[-1], int)


def entry_order(item: tuple[PathParts, Any]) -> list[str]:
    return [f"{part:09d}" if isinstance(part, int) else part for part in item[0]]
