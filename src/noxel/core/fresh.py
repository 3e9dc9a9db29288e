"""What a new rig and a new weigh-in start from."""

import datetime
from typing import Any

from noxel.core.rig import Kind
from noxel.core.rigfile import RigFile
from noxel.core.units import MassUnit

USUAL_GRADUATION: dict[str, int] = {"lb": 20, "kg": 10}
"""Truck scales usually print steps of 20 lb or 10 kg; the ticket or the scale's plate says (NIST Handbook 44, 2.20)."""


def new_rig(name: str, kind: Kind, mass: MassUnit) -> dict[str, Any]:
    """The document of a rig about which nothing is known yet."""
    towing = kind in ("conventional", "fifth_wheel", "gooseneck")
    chain = (
        ("receiver", "ball mount", "ball")
        if kind == "conventional"
        else ("fifth-wheel hitch",)
        if kind == "fifth_wheel"
        else ()
    )
    document: dict[str, Any] = {
        "format": "noxel-rig",
        "version": 1,
        "units": {"mass": mass, "length": "in" if mass == "lb" else "cm"},
        "name": name,
        "kind": kind,
        "vehicle": {"body": "motorhome" if kind == "motorhome" else "pickup"},
    }
    if towing:
        document["hitch"] = {"weight_distribution": False, "parts": [{"kind": part} for part in chain or ("gooseneck ball",)]}
        document["trailer"] = {}
    return document


def new_weigh_in(rig: RigFile, today: datetime.date) -> dict[str, Any]:
    """The document of a weigh-in on a truck scale, with its usual two passes, nothing read yet.

    The graduation is the usual one and is marked as a guess until somebody reads it off the ticket.
    """
    unit = rig.weigh_ins[-1].passes[-1].unit if rig.weigh_ins and rig.weigh_ins[-1].passes else None
    of_unit = unit or rig.units.mass
    graduation = f"{USUAL_GRADUATION[of_unit]} {of_unit}" if of_unit != rig.units.mass else USUAL_GRADUATION[of_unit]
    scale = {"kind": "truck_scale", "resolution": graduation, "entered": {"resolution": {"source": "guess"}}}
    passes: list[dict[str, Any]] = [{"config": "vehicle_only", "readings": {}}]
    if rig.towing:
        bars = "engaged" if rig.hitch.weight_distribution else "none"
        passes.insert(0, {"config": "hitched", "spring_bars": bars, "readings": {}})
    for each in passes:
        if unit:
            each["unit"] = unit
    return {"date": today.isoformat(), "scale": scale, "passes": passes}
