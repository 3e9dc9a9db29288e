"""What may be done to a rig, each with its effort and what it does to the state: items left, moved,
swapped, tanks, bars.
"""

import math
from dataclasses import dataclass, field
from heapq import nlargest

from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import (
    Vector,
    amount,
    in_trailer,
    in_vehicle,
    state_of,
    vector,
)
from noxel.core.mechanics import Levers
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


def _effort_of(trouble: Trouble | None, usual: float | None) -> float | None:
    if trouble is None:
        return usual
    return None if trouble == "never" else float(trouble)


def _reach(levers: Levers, on: str) -> tuple[float, float]:
    """From where to where something can lie on one side; nothing without its length. [m]"""
    if on == "vehicle":
        a = levers.wheelbase or 0.0
        return 0.35 * a, 1.22 * a
    length = levers.coupler or 0.0
    return 0.12 * length, 1.5 * length


def _load_actions(base: Baseline, index: int, load: Load) -> list[Action]:
    if not load.kg:
        return []
    levers, name = base.levers, load.name or "an item"
    x = load.position.m if load.position else math.nan
    usual = _DEFAULTS[load.category]
    effort = load.effort
    leave = _effort_of(effort.leave if effort else None, usual[0])
    move = _effort_of(effort.move if effort else None, usual[1])
    swap = _effort_of(effort.swap if effort else None, usual[2])
    place_here, put_over = (
        (in_vehicle, in_trailer) if load.on == "vehicle" else (in_trailer, in_vehicle)
    )
    staying = place_here(base, load.kg, x)
    ways = []
    if leave is not None:
        ways.append(Action("leave", index, leave, name, -staying))
    if move is not None and load.position is not None:
        low, high = _reach(levers, load.on)
        per_metre = place_here(base, load.kg, x + 1.0) - staying
        per_cost = 0.02 * load.kg / 10
        for sign, most in ((1.0, high - x), (-1.0, x - low)):
            if most > 0.05:
                step = sign * per_metre
                ways.append(Action("move", index, move, name, None, x, step, most, per_cost))
    aboard = load.category == "people"  # never ballast, whatever effort is entered
    if swap is not None and not aboard and levers.coupler and levers.wheelbase:
        place = levers.coupler if load.on == "vehicle" else 1.06 * levers.wheelbase
        moved = put_over(base, load.kg, place)
        ways.append(Action("swap", index, swap, name, moved - staying, place))
    return ways


def considered(rig: RigFile) -> list[int]:
    """The places in the list of the items that a search looks at: all of them, or the heaviest
    where there are very many.
    """
    some = [index for index, load in enumerate(rig.loads) if load.kg]
    return sorted(nlargest(MOST_ITEMS, some, key=lambda index: rig.loads[index].kg))


def actions(base: Baseline) -> list[Action]:
    """Everything that the owner allows: items left, moved, put in the other vehicle; tanks drained;
    bars set.
    """
    possible: list[Action] = []
    rig = base.rig
    for index in considered(rig):
        possible += _load_actions(base, index, rig.loads[index])
    for index, tank in enumerate(rig.tanks):
        cost = _effort_of(tank.effort, _DRAIN.get(tank.fluid))
        level = tank.level(rig.plan.phase)
        if cost is None or level <= 0:
            continue
        place = tank.position.m if tank.position else math.nan
        full = tank.full_kg()
        per_level = -(in_vehicle if tank.on == "vehicle" else in_trailer)(base, full, place)
        possible.append(
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
    bars, levers = _effort_of(rig.plan.bars_effort, _BARS), base.levers
    fitted = rig.towing and rig.hitch.weight_distribution and base.bars_known
    if bars is not None and fitted and (levers.overhang or 0.0) > 0:
        state, per_kg = state_of(base), vector(levers.tighten(1.0))
        now = amount(state, "returned")
        room = max(0.0, most_restoration(rig) * amount(state, "lifted") - now)
        for sign, most in ((1.0, room), (-1.0, now)):
            if most > 1e-6:
                possible.append(
                    Action("bars", 0, bars, "bars", None, now, sign * per_kg, most, 3e-4)
                )
    return possible


def most_restoration(rig: RigFile) -> float:
    """How far the bars may be tightened: to the maker's target, else until the front axle has its
    solo load; never less than now.
    """
    target = rig.hitch.target_restoration
    return max(1.0 if target is None else target, rig.plan.front_restoration or 0.0)
