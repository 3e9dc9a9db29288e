"""A rig in other units: every figure keeps its value and says its own unit from then on."""

import re
from decimal import Decimal
from typing import Any

from noxel.core.editing.paths import Document, PathParts, copied, kind_of
from noxel.core.quantities import LengthUnit, MassUnit, PressureUnit
from noxel.core.rig import read_path, write_path
from noxel.errors import InputError


def _in_force(document: Document) -> dict[str, str]:
    units = document.get("units", {})
    mass = units.get("mass", "lb")
    return {
        "mass": mass,
        "length": units.get("length", ""),
        "pressure": units.get("pressure", "psi" if mass == "lb" else "kPa"),
        "volume": units.get("volume", "gal" if mass == "lb" else "l"),
    }


def spell_out(document: Document) -> Document:
    """Write every bare figure with its own unit, so that the document means the same under any
    units.

    Parameters
    ----------
    document : dict
        A valid rig file; it is not changed. A pass keeps its bare readings and gets its unit
        instead.
    """
    made: Document = copied(document)
    units = _in_force(document)

    def unit_at(parts: PathParts) -> str | None:
        try:
            return units.get(kind_of(document, parts).dimension)
        except InputError:
            return None

    def walk(here: Any, at: PathParts) -> Any:
        if at[2:3] == ("passes",) and len(at) == 4:
            return {"unit": units["mass"], **here}
        if isinstance(here, dict):
            found = {
                key: walk(value, (*at, key)) for key, value in here.items() if key != "entered"
            }
            if "entered" in here:
                found["entered"] = _texts(here["entered"], at, unit_at)
            return found
        if isinstance(here, list):
            return [walk(value, (*at, index)) for index, value in enumerate(here)]
        if isinstance(here, int | float) and not isinstance(here, bool):
            unit = unit_at(at)
            return f"{Decimal(repr(here)):f} {unit}" if unit else here
        return here

    for key in made:
        if key not in ("format", "version", "units", "entered"):
            made[key] = walk(made[key], (key,))
    return made


def _texts(entered: dict[str, Any], at: PathParts, unit_at: Any) -> dict[str, Any]:
    """Texts as typed: one that ends in a bare figure gets the unit it was typed in."""
    found = {}
    for key, entry in entered.items():
        text, unit = entry.get("text"), unit_at((*at, *read_path(key)))
        if text and unit and re.search(r"[0-9.]\s*$", text):
            entry = {**entry, "text": f"{text.strip()} {unit}"}
        found[write_path(read_path(key))] = entry
    return found


def switch_units(
    document: Document,
    mass: MassUnit,
    length: LengthUnit | None = None,
    pressure: PressureUnit | None = None,
) -> Document:
    """The same rig under other units; nothing that was typed is lost or rounded.

    Parameters
    ----------
    document : dict
        A valid rig file.
    mass, length, pressure
        The new units; None leaves length and pressure to the usual ones of the mass unit.
    """
    made = spell_out(document)
    units = {"mass": mass, "length": length or ("in" if mass == "lb" else "cm")}
    made["units"] = {**units, "pressure": pressure} if pressure else units
    return made
