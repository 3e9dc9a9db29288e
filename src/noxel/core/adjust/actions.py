"""What may be done to a rig, each with its effort and what it does to the state: items left, moved,
swapped, tanks, bars.
"""

from dataclasses import dataclass, field
from heapq import nlargest

import numpy as np

from noxel.core.adjust.linear_model import MOMENT, TONGUE, Vector, in_trailer, in_vehicle, state_of
from noxel.core.mechanics import lever_lengths, statics
from noxel.core.rig import Category, Load, RigFile, Trouble

_DEFAULTS: dict[
    Category | None, tuple[float | None, float | None, float | None]
] = {  # leave, move, swap; None is never
    "people": (None, None, None),
    "fixed": (None, None, None),
    "essential": (60.0, 4.0, 7.0),
    "comfort": (20.0, 3.0, 5.0),
    None: (30.0, 4.0, 6.0),
}


_DRAIN = {"fresh": 2.0, "grey": 1.0, "black": 3.0, "hot_water": 3.0}


_BARS = 8.0


MOST_ITEMS = 150
"""How many items a search looks at, the heaviest; a light one more or less changes no verdict, and
a search must end.
"""


@dataclass(slots=True)
class Action:
    """Something that may be done: a switch with its effort, and what it does to the state."""

    kind: str
    index: int
    cost: float
    name: str
    fixed: Vector | None = None  # done by the switch alone
    place: float = 0.0
    per_unit: Vector | None = None  # done by an amount that the switch allows
    most: float = 0.0
    per_cost: float = 0.0
    columns: dict[str, int] = field(default_factory=dict)


def _effort_of(given: Trouble | None, usual: float | None) -> float | None:
    if given is None:
        return usual
    return None if given == "never" else float(given)


def _load_actions(rig: RigFile, index: int, load: Load) -> list[Action]:
    if not load.kg or load.position is None:
        return []
    at, x, name = lever_lengths(rig), load.position.m, load.name or "an item"
    usual = _DEFAULTS[load.category]
    effort = load.effort
    leave = _effort_of(effort.leave if effort else None, usual[0])
    move = _effort_of(effort.move if effort else None, usual[1])
    swap = _effort_of(effort.swap if effort else None, usual[2])
    here = in_vehicle(rig, load.kg, x) if load.on == "vehicle" else in_trailer(rig, load.kg, x)
    found = []
    if leave is not None:
        found.append(Action("leave", index, leave, name, -here))
    if move is not None:
        low, high = (
            (0.35 * at.a, 1.22 * at.a)
            if load.on == "vehicle"
            else (0.12 * at.length, 1.5 * at.length)
        )
        put = in_vehicle if load.on == "vehicle" else in_trailer
        per_metre = put(rig, load.kg, x + 1.0) - here
        for sign, most in ((1.0, high - x), (-1.0, x - low)):
            if most > 0.05:
                found.append(
                    Action(
                        "move",
                        index,
                        move,
                        name,
                        None,
                        x,
                        sign * per_metre,
                        most,
                        0.02 * load.kg / 10,
                    )
                )
    if swap is not None and rig.trailer is not None:
        place = 1.0 * at.length if load.on == "vehicle" else 1.06 * at.a
        there = (
            in_trailer(rig, load.kg, place)
            if load.on == "vehicle"
            else in_vehicle(rig, load.kg, place)
        )
        found.append(Action("swap", index, swap, name, there - here, place))
    return found


def considered(rig: RigFile) -> list[int]:
    """The places in the list of the items that a search looks at: all of them, or the heaviest
    where there are very many.
    """
    placed = [
        index for index, load in enumerate(rig.loads) if load.kg and load.position is not None
    ]
    return sorted(nlargest(MOST_ITEMS, placed, key=lambda index: rig.loads[index].kg))


def actions(rig: RigFile) -> list[Action]:
    """Everything that the owner allows: items left, moved, put in the other vehicle; tanks drained;
    bars set.
    """
    found: list[Action] = []
    for index in considered(rig):
        found += _load_actions(rig, index, rig.loads[index])
    for index, tank in enumerate(rig.tanks):
        cost = _effort_of(tank.effort, _DRAIN.get(tank.fluid))
        level = tank.level(rig.plan.phase)
        if cost is None or tank.position is None or level <= 0:
            continue
        full = tank.full_kg()
        per_level = -(in_vehicle if tank.on == "vehicle" else in_trailer)(
            rig, full, tank.position.m
        )
        found.append(
            Action(
                "tank",
                index,
                cost,
                tank.name or tank.fluid,
                None,
                level,
                per_level,
                level,
                0.01 * full / 10,
            )
        )
    bars = _effort_of(rig.plan.bars_effort, _BARS)
    at = lever_lengths(rig)
    if bars is not None and rig.hitch.weight_distribution and rig.trailer is not None and at.b > 0:
        moment = np.zeros(5)
        moment[MOMENT] = 1.0
        now, per_kg = float(state_of(rig)[MOMENT]), statics.bar_moment(1.0, 1.0, at.b, at.length)
        room = max(0.0, most_restoration(rig) * per_kg * float(state_of(rig)[TONGUE]) - now)
        for sign, most in ((1.0, room), (-1.0, now)):
            if most > 1e-6:
                found.append(Action("bars", 0, bars, "bars", None, now, sign * moment, most, 1e-4))
    return found


def most_restoration(rig: RigFile) -> float:
    """How far the bars may be tightened: to the maker's target, else until the front axle has its
    solo load; never less than now.
    """
    target = rig.hitch.target_restoration
    return max(1.0 if target is None else target, rig.plan.front_restoration or 0.0)
