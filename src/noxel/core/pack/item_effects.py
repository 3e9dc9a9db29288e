"""What each item does to every load, and of which limit's room it takes most."""

import math
from collections.abc import Mapping

from noxel.core.limits import Checked
from noxel.core.mechanics import SIDES, Side, aboard, levers_of, loads
from noxel.core.pack.answers import ItemEffect
from noxel.core.quantities import lower_first
from noxel.core.rig import RigFile
from noxel.core.wording import Printer, check_label

_LOADS = {
    "front": "front_hitched",
    "rear": "rear_hitched",
    "tongue": "tongue_static",
    "trailer_axles": "trailer_axles",
}
"""What is said of an item, and the load that it is read from."""
_SAID: Mapping[Side, tuple[str, ...]] = {"vehicle": ("front", "rear"), "trailer": tuple(_LOADS)}
_Slope = tuple[float, float]
"""What one unit of mass adds at the origin, and how much more for each metre behind it."""


def _slopes(rig: RigFile, on: Side) -> Mapping[str, _Slope]:
    """What an item on one side adds to each load, as far as the lengths are known, the bars' moment
    kept; each is linear in the item's place, so two places give it.
    """
    levers = levers_of(rig)
    origin, behind = (loads(levers.item(on, 1.0, moment, restored=0.0)) for moment in (0.0, 1.0))
    return {key: (near, behind[key] - near) for key, near in origin.items()}


def effects(rig: RigFile, printer: Printer) -> list[ItemEffect]:
    """What every item does. There may be thousands: a keystroke waits for this."""
    unit = printer.mass
    slopes = {
        on: [(name, by[_LOADS[name]]) for name in _SAID[on] if _LOADS[name] in by]
        for on in SIDES
        for by in (_slopes(rig, on),)
    }
    every = []
    for index, item in enumerate(rig.loads):
        mass, place = item.kg / unit, item.position.m if item.position else None
        effect = ItemEffect(
            index=index,
            metres=place,
            mass=mass,
            front=None,
            rear=None,
            tongue=None,
            trailer_axles=None,
        )
        every.append(effect)
        if place is not None:
            for name, (near, more) in slopes[item.on]:
                setattr(effect, name, mass * (near + more * place))
    return every


_PARTS = ("load", "beyond_empty", "beyond_dry")
"""The checks that an item is said to take room of."""


def say_takes(rig: RigFile, items: list[ItemEffect], rows: list[Checked], printer: Printer) -> None:
    """Say of each item of which limit's room it takes the largest share; the room is what the limit
    leaves to all items.
    """
    slopes = {on: _slopes(rig, on) for on in SIDES}
    carried = {on: aboard(rig, on) for on in SIDES}
    tightest: dict[Side, dict[str, tuple[float, str]]] = {on: {} for on in SIDES}
    for row in rows:
        load = row.spec.load
        if row.spec.part not in _PARTS or not row.limit or not row.actual or row.limit.worked_out:
            continue
        kg = sum(
            near * (carried[on].placed if more else carried[on].kg) + more * carried[on].moment
            for on in SIDES
            for near, more in (slopes[on].get(load, (0.0, 0.0)),)
        )
        room = row.cushion * row.limit.kg - row.actual.value + kg
        for on, rooms in tightest.items():
            # the tightest check is first: of rooms that are equal but for rounding, its own counts
            least = rooms.get(load, (math.inf, ""))[0]
            if any(slopes[on].get(load, ())) and 0 < room < least * (1 - 1e-9):
                rooms[load] = room, lower_first(check_label(rig, row.id))
    for item in items:
        on, share, says = rig.loads[item.index].on, 0.0, ""
        for load, (room, label) in tightest[on].items():
            near, more = slopes[on][load]
            if more and item.metres is None:
                continue
            part = item.mass * printer.mass * (near + more * (item.metres or 0.0)) / room
            if part > share:
                share, says = part, label
        item.takes = f"{share * 100:.0f} % of the room of {says}" if share >= 0.005 else None
