"""What each item does to every load, and of which limit's room it takes most."""

import math
from collections.abc import Mapping
from operator import attrgetter

from noxel.core.limits import Checked
from noxel.core.mechanics import SIDES, Side, aboard, overhang, statics
from noxel.core.pack.answers import ItemEffect
from noxel.core.quantities import lower_first
from noxel.core.rig import RigFile
from noxel.core.wording import Printer, check_label

_ON = ("mass", "front", "rear", "tongue", "trailer_axles")
_Slope = tuple[float, float]
"""What one unit of mass adds at the origin, and how much more for each metre behind it."""


def _slopes(rig: RigFile) -> Mapping[str, Mapping[str, _Slope]]:
    """What an item in the vehicle, and one in the trailer, adds to each load, as far as the lengths
    are known; each is linear in the item's place, so two places give it.
    """
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    coupler = trailer.geometry.coupler_to_axles if trailer else None
    if geometry.wheelbase is None:
        return {"vehicle": {}, "trailer": {}}
    a, b = geometry.wheelbase.m, overhang(rig)
    near, far = (statics.split_item(1.0, x, a) for x in (0.0, 1.0))
    vehicle = {
        "front": (near.front, far.front - near.front),
        "rear": (near.rear, far.rear - near.rear),
    }
    if b is None or coupler is None:
        return {"vehicle": vehicle, "trailer": {}}
    first, second = (statics.item_on_tongue(1.0, x, coupler.m) for x in (0.0, 1.0))
    passed_on = statics.ball_load_transfer(1.0, b, a)
    tongue = (first, second - first)
    trailer_side = {
        "tongue": tongue,
        "front": (tongue[0] * passed_on.front, tongue[1] * passed_on.front),
        "rear": (tongue[0] * passed_on.rear, tongue[1] * passed_on.rear),
        "trailer_axles": (1.0 - tongue[0], -tongue[1]),
    }
    return {"vehicle": vehicle, "trailer": trailer_side}


def effects(rig: RigFile, to: Printer) -> list[ItemEffect]:
    """What every item does. There may be thousands: a keystroke waits for this."""
    slopes, unit, none = _slopes(rig), to.mass, (0.0, 0.0)
    (front, front_by), (rear, rear_by) = (
        slopes["vehicle"].get(name, none) for name in ("front", "rear")
    )
    (before, before_by), (behind, behind_by), (tongue, tongue_by), (axles, axles_by) = (
        slopes["trailer"].get(name, none) for name in _ON[1:]
    )
    found = []
    for index, load in enumerate(rig.loads):
        mass, place = load.kg / unit, load.position.m if load.position else None
        effect = ItemEffect(
            index=index,
            metres=place,
            mass=mass,
            front=None,
            rear=None,
            tongue=None,
            trailer_axles=None,
        )
        found.append(effect)
        if place is None or not slopes[load.on]:
            continue
        if load.on == "vehicle":
            effect.front = mass * (front + front_by * place)
            effect.rear = mass * (rear + rear_by * place)
        else:
            effect.front = mass * (before + before_by * place)
            effect.rear = mass * (behind + behind_by * place)
            effect.tongue = mass * (tongue + tongue_by * place)
            effect.trailer_axles = mass * (axles + axles_by * place)
    return found


ADDS: Mapping[str, tuple[str, str]] = {
    "vehicle.front_axle": ("front", "front"),
    "vehicle.rear_axle": ("rear", "rear"),
    "vehicle.gross": ("mass", "tongue"),
    "vehicle.payload": ("mass", "tongue"),
    "combination.gross": ("mass", "mass"),
    "vehicle.tow_rating": ("", "mass"),
    "trailer.gross": ("", "mass"),
    "hitch.trailer": ("", "mass"),
    "trailer.cargo": ("", "mass"),
    "trailer.axles": ("", "trailer_axles"),
    "hitch.tongue": ("", "tongue"),
}
"""What an item in the vehicle, and one in the trailer, adds to a check."""


def say_takes(rig: RigFile, items: list[ItemEffect], rows: list[Checked], to: Printer) -> None:
    """Say of each item of which limit's room it takes the largest share; the room is what the limit
    leaves to all items.
    """
    sums = [_added(rig, on, to) for on in SIDES]
    tightest: list[dict[str, tuple[float, str]]] = [{}, {}]
    for row in rows:
        if row.id not in ADDS or not row.limit or not row.actual or row.limit.worked_out:
            continue
        taken = sum(added[name] for added, name in zip(sums, ADDS[row.id], strict=True) if name)
        room = (row.cushion * row.limit.kg - row.actual.value) / to.mass + taken
        label = lower_first(check_label(rig, row.id))
        for name, rooms in zip(ADDS[row.id], tightest, strict=True):
            # the tightest check is first: of rooms that are equal but for rounding, its own counts
            if name and 0 < room < rooms.get(name, (math.inf, ""))[0] * (1 - 1e-9):
                rooms[name] = (room, label)
    by = {
        on: [(attrgetter(name), room, label) for name, (room, label) in rooms.items()]
        for on, rooms in zip(SIDES, tightest, strict=True)
    }
    for item in items:
        share, says = 0.0, ""
        for add, room, label in by[rig.loads[item.index].on]:
            part = (add(item) or 0.0) / room
            if part > share:
                share, says = part, label
        item.takes = f"{share * 100:.0f} % of the room of {says}" if share >= 0.005 else None


def _added(rig: RigFile, on: Side, to: Printer) -> Mapping[str, float]:
    """What all items of one side add to each load, in the rig's unit."""
    here = aboard(rig, on)
    added = {
        name: (near * here.placed + more * here.moment) / to.mass
        for name, (near, more) in _slopes(rig)[on].items()
    }
    return {**dict.fromkeys(_ON, 0.0), **added, "mass": here.kg / to.mass}
