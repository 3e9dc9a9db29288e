"""How much more can go in, before the first limit is met: the usable room, which is that limit's
and no larger.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from noxel.core.limits.checks import Checked, exceeds
from noxel.core.limits.rules import row_for, tongue_rows
from noxel.core.mechanics import (
    Levers,
    Side,
    State,
    Weighing,
    anything_listed,
    empty_by_label,
    levers_as_weighed,
    load_place,
    loads,
    usual_lever,
)
from noxel.core.quantities import nominal
from noxel.core.rig import RigFile


@dataclass(slots=True, eq=False)
class Headroom:
    """Room for more in one place: the least over all limits, and which limit that is; ``by_table``
    where the vehicle maker's tongue table sets it. Negative: what to remove. [kg]
    """

    where: Side
    kg: float
    check: Checked
    unknown: int
    listed: bool = True
    by_table: bool = False


Changes = Mapping[str, float]


def _changes(rig: RigFile, weighing: Weighing) -> Mapping[Side, Changes]:
    """What one more kilogram in each place adds to each load.

    In the vehicle, where its listed load lies on average; in the trailer, spread as it is now, so
    that the tongue share stays; the bars as they are.
    """
    place = load_place(rig)
    changes: dict[Side, Changes] = {"vehicle": loads(State(vehicle=1.0, rear=place, cargo=1.0))}
    share = weighing.figures.get("tongue_share")
    if share is not None:
        levers = levers_as_weighed(rig, weighing)
        if levers.wheelbase is None or levers.overhang is None:
            levers = Levers(1.0, nominal(usual_lever(rig)), None)
        changes["trailer"] = loads(levers.at_share(1.0, share.value, restored=0.0))
    return changes


def _slope(row: Checked, change: Changes, weighing: Weighing) -> float:
    """What a check takes of each kilogram more; a tire or a single axle takes the share of its
    axles that it has now.
    """
    spec = row.spec
    slope = change.get(spec.load, 0.0)
    whole = weighing.figures.get(spec.load)
    if spec.part not in ("tire", "wheel", "assembly", "axle") or row.actual is None:
        return slope
    return slope * row.actual.value / whole.value if whole and whole.value else 0.0


def _room(
    rig: RigFile, weighing: Weighing, row: Checked, change: Changes
) -> tuple[float, bool] | None:
    """How much more a check leaves [kg], and whether by its maker's table; None where it leaves no
    end to it, or cannot be told.
    """
    if row.spec.part == "share":
        return None
    slope, rooms = _slope(row, change, weighing), list[tuple[float, bool]]()
    if slope > 0 and row.actual is not None and row.limit is not None and row.limit.real:
        rooms.append(((row.cushion * row.limit.kg - row.actual.value) / slope, False))
    if row.id == "hitch.tongue" and (by_table := _by_table(rig, weighing, slope)) is not None:
        rooms.append((by_table, True))
    return min(rooms, key=lambda room: room[0], default=None)


def _by_table(rig: RigFile, weighing: Weighing, slope: float) -> float | None:
    """How much more the vehicle maker's tongue table leaves: on the tongue, or in the vehicle until
    the row ends that still allows this tongue. What both may be by their ± counts. [kg]
    """
    rows, figures = tongue_rows(rig), weighing.figures
    solo, tongue = figures.get("vehicle_solo"), figures.get("tongue_static")
    empty = figures.get("curb_measured") or empty_by_label(rig)
    if not rows or solo is None or tongue is None or empty is None:
        return None
    carried, most = solo.value + solo.plus_minus - empty.value, tongue.value + tongue.plus_minus
    if slope > 0:
        return (row_for(rows, carried).tongue.kg - most) / slope
    allows = [row.load.kg for row in rows if not exceeds(most, row.tongue.kg)]
    return max(allows) - carried if allows else 0.0  # no load in it would do


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
    unknown = sum(1 for row in rows if row.required and row.status in ("unknown", "unconfirmed"))
    rooms = []
    for where, change in _changes(rig, weighing).items():
        room: Headroom | None = None
        for row in rows:
            left = _room(rig, weighing, row, change)
            if left is not None and (room is None or left[0] < room.kg):
                kg, by_table = left
                listed = anything_listed(rig, "vehicle")
                room = Headroom(where, kg, row, unknown, listed, by_table)
        if room is not None:
            rooms.append(room)
    return rooms
