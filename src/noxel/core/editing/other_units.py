"""A rig in other units: every figure keeps its value and says its own unit from then on."""

import re
from collections.abc import Mapping
from decimal import Decimal
from types import MappingProxyType
from typing import Any

from noxel.core.editing.entries import units_in_force
from noxel.core.editing.paths import Document, PathParts, copied, kind_of
from noxel.core.quantities import LengthUnit, MassUnit, PressureUnit
from noxel.core.rig import read_path, write_path
from noxel.errors import InputError


def spell_out(document: Document, under: Mapping[str, str] = MappingProxyType({})) -> Document:
    """Write every bare figure with its own unit, so that the document means the same under any
    units, or under those given: a figure whose unit stays is left as it is.

    ``document``: a valid rig file; it is not changed. A pass keeps its bare readings and gets its
    unit instead.
    """
    switched: Document = copied(document)
    in_force = units_in_force(document)
    units = {name: unit for name, unit in in_force.items() if under.get(name) != unit}

    def unit_at(parts: PathParts) -> str | None:
        try:
            return units.get(kind_of(document, parts).dimension)
        except InputError:
            return None

    def walk(node: Any, path: PathParts) -> Any:
        if path[2:3] == ("passes",) and len(path) == 4 and "mass" in units:
            return {"unit": units["mass"], **node}
        if isinstance(node, dict):
            inner = {
                key: walk(value, (*path, key)) for key, value in node.items() if key != "entered"
            }
            if "entered" in node:
                inner["entered"] = _texts(node["entered"], path, unit_at)
            return inner
        if isinstance(node, list):
            return [walk(value, (*path, index)) for index, value in enumerate(node)]
        if isinstance(node, int | float) and not isinstance(node, bool):
            unit = unit_at(path)
            return f"{Decimal(repr(node)):f} {unit}" if unit else node
        return node

    for key in switched:
        if key not in ("format", "version", "units", "entered"):
            switched[key] = walk(switched[key], (key,))
    return switched


def _texts(entered: dict[str, Any], path: PathParts, unit_at: Any) -> dict[str, Any]:
    """Texts as typed: one that ends in a bare figure gets the unit it was typed in."""
    texts = {}
    for key, entry in entered.items():
        text, unit = entry.get("text"), unit_at((*path, *read_path(key)))
        if text and unit and re.search(r"[0-9.]\s*$", text):
            entry = {**entry, "text": f"{text.strip()} {unit}"}
        texts[write_path(read_path(key))] = entry
    return texts


def switch_units(
    document: Document,
    mass: MassUnit,
    length: LengthUnit | None = None,
    pressure: PressureUnit | None = None,
) -> Document:
    """The same rig under other units; nothing that was typed is lost or rounded.

    ``document``: a valid rig file. ``mass`` and ``length`` and ``pressure``: the new units; None
    leaves length and pressure to the usual ones of the mass unit.
    """
    units: dict[str, str] = {"mass": mass, "length": length or ("in" if mass == "lb" else "cm")}
    if pressure:
        units["pressure"] = pressure
    return {**spell_out(document, units_in_force({"units": units})), "units": units}
