"""What a change of the load does to the rig's state, and how far that may be off.

Only what was changed counts: an item that stays where it is needs no place.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from noxel.core.mechanics.aboard import Side, load_off
from noxel.core.mechanics.listed import LEVEL_OFF, hitch_mass, in_tank
from noxel.core.mechanics.model import Levers, State, together
from noxel.core.mechanics.uncertainty import LEVERS_OFF, PLACE_OFF
from noxel.core.quantities import nominal
from noxel.core.rig import Load, RigFile


@dataclass(frozen=True, slots=True)
class _Moved:
    """A mass that comes to one side, or leaves it when negative; ``off`` is the mass's ±, and
    ``place_off`` that of its place. [kg, m]
    """

    on: Side
    kg: float
    off: float
    place: float | None
    place_off: float = PLACE_OFF

    def state(self, levers: Levers, kg: float) -> State:
        """What so much of it does where it lies."""
        return levers.item(self.on, kg, None if self.place is None else kg * self.place)


def _of_item(old: Load | None, new: Load | None, off: float) -> list[_Moved]:
    """An item that was taken, put in or moved; measured from where it lay a place is better known
    than where it lies.
    """
    ends = [(sign, end) for sign, end in ((-1.0, old), (1.0, new)) if end is not None and end.kg]
    same_side = len(ends) == 2 and ends[0][1].on == ends[1][1].on
    return [
        _Moved(
            end.on,
            sign * end.kg,
            sign * off,
            end.position.m if end.position else None,
            PLACE_OFF / 2 if same_side else PLACE_OFF,
        )
        for sign, end in ends
    ]


def _moves(before: RigFile, after: RigFile) -> Iterator[list[_Moved]]:
    """All that was moved; what shares the ± of its mass together."""
    for index in range(max(len(before.loads), len(after.loads))):
        old = before.loads[index] if index < len(before.loads) else None
        new = after.loads[index] if index < len(after.loads) else None
        if old == new:
            continue
        rig, item = (after, new) if new is not None else (before, old)
        if item is not None:
            off = load_off(rig, index, item.model_copy(update={"aboard": True}))
            yield _of_item(old, new, off)
    for held, tank in zip(before.tanks, after.tanks, strict=False):
        moved = in_tank(after, tank) - in_tank(before, held)
        if moved:
            place = tank.position.m if tank.position else None
            yield [_Moved(tank.on, moved, tank.full_kg() * LEVEL_OFF, place)]


@dataclass(frozen=True, slots=True)
class Change:
    """A change of the state, and one more for each independent cause that it may be off by."""

    state: State
    causes: tuple[State, ...] = ()

    def plus(self, other: "Change") -> "Change":
        """Both, one independent of the other."""
        return Change(self.state.plus(other.state), self.causes + other.causes)


def _hitches(before: RigFile, after: RigFile, levers: Levers) -> State:
    """Another hitch in place of this one: its own mass at the hitch point."""
    now, then = before.hitch, after.hitch
    if (now.own_mass, now.own_lever) == (then.own_mass, then.own_lever):
        return State()
    return levers.at_hitch(nominal(hitch_mass(after)), then.own_lever).less(
        levers.at_hitch(nominal(hitch_mass(before)), now.own_lever)
    )


def change_between(before: RigFile, after: RigFile, levers: Levers) -> Change:
    """What it does to put in, take out, move, fill and drain.

    Parameters
    ----------
    before, after : RigFile
        The same rig before and after; items and tanks stand in the same order.
    levers : Levers
        Its lengths; ``restored`` is 0 where the bars stay as they are.

    Returns
    -------
    Change
        What was weighed where it lay stays as well known as the scale says; only the change is
        uncertain. A part that needs a place or a length that is not known is None. [kg]
    """
    moves = list(_moves(before, after))

    def state(levers: Levers) -> State:
        items = (item.state(levers, item.kg) for items in moves for item in items)
        return together(items).plus(_hitches(before, after, levers))

    change = state(levers)
    causes = []
    for items in moves:
        causes.append(together(item.state(levers, item.off) for item in items))
        causes += [levers.item(item.on, 0.0, item.kg * item.place_off) for item in items]
    for name, off in LEVERS_OFF.items():
        value = getattr(levers, name)
        if value:
            causes.append(state(replace(levers, **{name: value + off})).less(change))
    return Change(change, tuple(causes))
