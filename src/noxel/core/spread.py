"""How far a prediction may be off: what is known of each mass and place, carried through the lever model.

The shares below are Noxel's own judgement of sources, not a standard's; a weighing replaces them.
"""

import math
from collections.abc import Iterator, Mapping

from noxel.core import statics
from noxel.core.base import Source
from noxel.core.predict import overhang
from noxel.core.rigfile import RigFile, entry_at

SHARE: Mapping[Source | None, float] = {
    "scale": 0.005, "plate": 0.03, "manual": 0.03, "worked_out": 0.05, None: 0.10, "guess": 0.25,
}  # fmt: skip
"""How far a figure may be off, as a share of it, by where it came from (two standard uncertainties)."""
BASE_SHARE = 0.03
"""The same for a base weight of which no source was said: brochures are this good at best."""
PLACE = 0.3
"""How far the place of a thing may be off. [m]"""
LEVEL = 0.05
"""How far a tank's level may be off, as a share of the tank."""

_Vector = tuple[float, float, float, float]
"""One cause's effect on front solo, rear solo, trailer gross and tongue. [kg]"""


def _source(rig: RigFile, path: str) -> Source | None:
    entry = entry_at(rig, path)
    return entry.source if entry else None


def _causes(rig: RigFile, a: float, length: float) -> Iterator[_Vector]:
    base, trailer = rig.plan.vehicle_base, rig.trailer
    for name, mass in (("front", base.front if base else None), ("rear", base.rear if base else None)):
        if mass:
            source = _source(rig, f"plan.vehicle_base.{name}")
            off = mass.kg * (SHARE[source] if source else BASE_SHARE)
            yield (off, 0, 0, 0) if name == "front" else (0, off, 0, 0)
    if trailer is not None:
        own = rig.plan.trailer_base
        gross, tongue = (own.gross, own.tongue) if own else (trailer.dry_weight, trailer.dry_tongue)
        at = ("plan.trailer_base.gross", "plan.trailer_base.tongue") if own else ("trailer.dry_weight", "trailer.dry_tongue")
        for mass, path, index in ((gross, at[0], 2), (tongue, at[1], 3)):
            if mass:
                source = _source(rig, path)
                off = mass.kg * (SHARE[source] if source else BASE_SHARE)
                yield (0, 0, off, 0) if index == 2 else (0, 0, 0, off)
    for index, load in enumerate(rig.loads):
        if load.position is None or not load.kg:
            continue
        off = load.kg * SHARE[_source(rig, f"loads[{index}].mass")]
        yield from _thing(load.on, load.kg, off, load.position.m, a, length)
    for tank in rig.tanks:
        if tank.position is not None:
            moved = abs(tank.full_kg() * (tank.level(rig.plan.phase) - tank.base_level))
            yield from _thing(tank.on, moved, tank.full_kg() * LEVEL, tank.position.m, a, length)


def _thing(on: str, kg: float, off: float, place: float, a: float, length: float) -> Iterator[_Vector]:
    """A thing's mass may be off, and its place."""
    if on == "vehicle":
        change = statics.split_item(off, place, a)
        yield (change.front, change.rear, 0, 0)
        yield (-kg * PLACE / a, kg * PLACE / a, 0, 0)
    elif length:
        yield (0, 0, off, statics.item_on_tongue(off, place, length))
        yield (0, 0, 0, kg * PLACE / length)


def spread(rig: RigFile, found: Mapping[str, float]) -> dict[str, float]:
    """The ± of every predicted figure.

    Parameters
    ----------
    rig : RigFile
        As it was predicted.
    found : mapping
        The prediction (:func:`noxel.core.predict.predict`).

    Returns
    -------
    dict
        Two standard uncertainties by the prediction's keys. [kg], shares plain

    Notes
    -----
    Causes are independent; each is carried through the lever model, which is linear in masses (the share and the places to
    first order), so figures that share a cause stay correlated.
    """
    wheelbase = rig.vehicle.geometry.wheelbase
    if wheelbase is None:
        return {}
    a, b = wheelbase.m, overhang(rig) or 0.0
    coupler = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
    length = coupler.m if coupler else 0.0
    c = [
        0.0
    ] * 10  # the causes' effects multiplied pairwise and added up: the covariances of the four, half of a symmetric table
    for f, r, g, t in _causes(rig, a, length):
        for index, product in enumerate((f * f, f * r, f * g, f * t, r * r, r * g, r * t, g * g, g * t, t * t)):
            c[index] += product

    def pm(f: float, r: float, g: float, t: float) -> float:
        squares = c[0] * f * f + c[4] * r * r + c[7] * g * g + c[9] * t * t
        crosses = c[1] * f * r + c[2] * f * g + c[3] * f * t + c[5] * r * g + c[6] * r * t + c[8] * g * t
        return math.sqrt(max(0.0, squares + 2 * crosses))

    made = {"front_solo": pm(1, 0, 0, 0), "rear_solo": pm(0, 1, 0, 0), "vehicle_solo": pm(1, 1, 0, 0)}
    if not length:
        return made
    moment = statics.bar_moment(rig.plan.front_restoration or 0.0, 1.0, b, length) if rig.hitch.weight_distribution else 0.0
    change = statics.hitched_change(1.0, moment, b, a, length)  # of one kilogram on the hitch; the model is linear in it
    front, rear = change.front, change.rear
    gross, share = found.get("trailer_gross", 0.0), found.get("tongue_share", 0.0)
    return made | {
        "trailer_gross": pm(0, 0, 1, 0),
        "tongue_static": pm(0, 0, 0, 1),
        "tongue_share": pm(0, 0, -share, 1) / gross if gross else 0.0,
        "front_hitched": pm(1, 0, 0, front),
        "rear_hitched": pm(0, 1, 0, rear),
        "vehicle_hitched": pm(1, 1, 0, front + rear),
        "trailer_axles": pm(0, 0, 1, -(front + rear)),
        "combination_gross": pm(1, 1, 1, 0),
        "payload_used": pm(1, 1, 0, 1),
    }
