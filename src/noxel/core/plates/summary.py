"""A piece of equipment in the garage in a few figures."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from noxel.core.quantities import KG, Length, LengthUnit, Mass, MassUnit, print_length, print_mass
from noxel.core.rig import SETS, ByMode, RigFile


@dataclass(frozen=True, slots=True)
class Fact:
    """One figure of a piece of equipment: its name, and the figure in its own unit."""

    label: str
    text: str


def _figures(kind: str, rig: RigFile) -> Iterator[tuple[str, object]]:
    names = SETS[rig.terms]
    if kind == "vehicle":
        ratings = rig.vehicle.ratings
        yield names["gvwr"], ratings.gvwr
        yield names["gawr_rear"], ratings.gawr_rear
        yield names["payload"], ratings.payload
        yield names["tow_rating"], ratings.tow_rating
        yield "wheelbase", rig.vehicle.geometry.wheelbase
    elif kind == "hitch":
        yield "parts", ", ".join(part.kind for part in rig.hitch.parts) or None
        yield "spring bars", "yes" if rig.hitch.weight_distribution else "no"
        yield "its own mass", rig.hitch.weight
    elif rig.trailer is not None:
        yield names["trailer.gvwr"], rig.trailer.ratings.gvwr
        yield names["dry_weight"], rig.trailer.dry_weight
        yield names["trailer.ccc"], rig.trailer.ratings.ccc
        yield "axles", str(len(rig.trailer.ratings.gawr) or "") or None


def _text(value: object, mass: MassUnit, length: LengthUnit) -> str | None:
    if isinstance(value, ByMode):
        value = value.distributing or value.carrying
    if isinstance(value, Mass):
        return print_mass(value.kg, mass) if value.kg >= KG[mass] else None
    if isinstance(value, Length):
        return print_length(value.m, length)
    return str(value) if value else None


def describe(kind: str, part: dict[str, Any], units: dict[str, str]) -> list[Fact]:
    """The few figures by which a piece of equipment is known; what was not entered is left out.

    ``kind``: what it is. ``part``: its part of a rig file. ``units``: the units of its bare
    figures.
    """
    frame = {"units": units, "kind": "conventional", kind: part}
    rig = RigFile.model_validate(frame)
    mass: MassUnit = rig.units.mass
    length = rig.units.lengths
    texts = ((label, _text(value, mass, length)) for label, value in _figures(kind, rig))
    return [Fact(label, text) for label, text in texts if text]
