"""What a new rig starts from."""

from typing import Any

from noxel.core.quantities import MassUnit
from noxel.core.rig import Kind, TermSet


def _body(kind: Kind, terms: TermSet) -> str:
    """What such a rig usually is: in Europe a car tows."""
    if kind == "motorhome":
        return "motorhome"
    return "wagon" if terms == "europe" and kind == "conventional" else "pickup"


def new_rig(
    name: str,
    kind: Kind,
    mass: MassUnit,
    terms: TermSet = "north_america",
    *,
    alone: bool = False,
) -> dict[str, Any]:
    """The document of a rig about which nothing is known yet; ``alone`` is one that tows nothing so
    far.
    """
    document: dict[str, Any] = {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": mass, "length": "in" if mass == "lb" else "cm"},
        "name": name,
        "kind": kind,
        "vehicle": {"body": _body(kind, terms)},
    }
    if terms != "north_america":
        document["terms"] = terms
    if kind in _CHAIN and not alone:
        parts = [{"kind": part} for part in _CHAIN[kind]]
        document |= {"hitch": {"weight_distribution": False, "parts": parts}, "trailer": {}}
    return document


_CHAIN = {
    "conventional": ("receiver", "ball mount", "ball"),
    "fifth_wheel": ("fifth-wheel hitch",),
    "gooseneck": ("gooseneck ball",),
}
