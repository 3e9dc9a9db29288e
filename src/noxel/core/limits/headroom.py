"""How much more can go in, before the first limit is met: the usable room, which is that limit's
and no larger.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits.checks import Checked
from noxel.core.mechanics import Weighing, anything_listed, load_place
from noxel.core.rig import RigFile, on_pin


@dataclass(slots=True, eq=False)
class Headroom:
    """Room for more in one place: the least over all limits, and which limit that is. Negative:
    what to remove. [kg]
    """

    where: Literal["vehicle", "trailer"]
    kg: float
    check: Checked
    unknown: int
    listed: bool = True


def _slopes(
    rig: RigFile, weighing: Weighing
) -> Mapping[Literal["vehicle", "trailer"], Mapping[str, float]]:
    """What one more kilogram in each place adds to each check.

    In the vehicle, where its listed load lies on average; in the trailer, spread as it is now, so
    that the tongue share stays.
    """
    place = load_place(rig)
    in_vehicle = {
        "vehicle.front_axle": 1 - place,
        "vehicle.rear_axle": place,
        "vehicle.gross": 1.0,
        "vehicle.payload": 1.0,
        "combination.gross": 1.0,
    }
    known = weighing.figures.get("tongue_share")
    if known is None:
        return {"vehicle": in_vehicle}
    s = known.value
    geometry = rig.vehicle.geometry
    lever = (
        geometry.hitch_offset.m / geometry.wheelbase.m
        if geometry.wheelbase and geometry.hitch_offset
        else 0.35
    )
    if on_pin(rig) and not (geometry.wheelbase and geometry.hitch_offset):
        lever = 0.0
    in_trailer = {
        "trailer.gross": 1.0,
        "vehicle.tow_rating": 1.0,
        "hitch.trailer": 1.0,
        "combination.gross": 1.0,
        "trailer.cargo": 1.0,
        "trailer.axles": 1.0 - s,
        "hitch.tongue": s,
        "vehicle.gross": s,
        "vehicle.payload": s,
        "vehicle.rear_axle": s * (1 + lever),
        "vehicle.front_axle": -s * lever,
    }
    return {"vehicle": in_vehicle, "trailer": in_trailer}


_AXLE_OF = {
    f"{part}.{group}": axle
    for part in ("tires", "wheels", "assembly")
    for group, axle in (
        ("front", "vehicle.front_axle"),
        ("rear", "vehicle.rear_axle"),
        ("trailer", "trailer.axles"),
    )
}


def _slope(row: Checked, slopes: Mapping[str, float], loads: Mapping[str, float]) -> float:
    """What a check takes of each kilogram more; a tire or a single axle takes the share of its
    axles that it has now.
    """
    group = "trailer.axles" if row.id.startswith("trailer.axle_") else _AXLE_OF.get(row.id)
    if group is None:
        return slopes.get(row.id, 0.0)
    return (
        slopes.get(group, 0.0) * loads.get(row.id, 0.0) / loads[group] if loads.get(group) else 0.0
    )


def headroom(rig: RigFile, weighing: Weighing, checks: Iterable[Checked]) -> list[Headroom]:
    """The usable room in the vehicle, and in the trailer where its share of the tongue is known.

    Parameters
    ----------
    rig : RigFile
        For its lengths.
    weighing : Weighing
        For the share of the tongue.
    checks : iterable of Checked
        The checks made of it; only entered limits and known loads count, taken at the owner's
        cushion.

    Returns
    -------
    list of Headroom
        One for each place; ``unknown`` is how many required checks could not be counted. [kg]
    """
    rows = list(checks)
    loads = {row.id: row.actual.value for row in rows if row.actual is not None}
    unknown = sum(1 for row in rows if row.required and row.status in ("unknown", "unconfirmed"))
    found = []
    for where, slopes in _slopes(rig, weighing).items():
        room: Headroom | None = None
        for row in rows:
            slope = _slope(row, slopes, loads)
            if slope <= 0 or row.actual is None or row.limit is None or not row.limit.real:
                continue
            kg = (row.cushion * row.limit.kg - row.actual.value) / slope
            if room is None or kg < room.kg:
                room = Headroom(where, kg, row, unknown, anything_listed(rig, "vehicle"))
        if room is not None:
            found.append(room)
    return found
