"""How far a prediction may be off: each cause carried through the lever model as a change of state.

Causes are independent; a load's ± is the norm over what each of them does to it. Masses and places
are linear; lengths and the bars' share are tried at their value and one ± above it. Figures that
share a cause stay correlated.
"""

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace

from noxel.core.mechanics.aboard import SIDES, Side, aboard
from noxel.core.mechanics.knowledge import empty_weights
from noxel.core.mechanics.listed import LEVEL_OFF, hitch_mass, in_tank
from noxel.core.mechanics.model import SUMS, Levers, State, load
from noxel.core.mechanics.predict import Planned, planned
from noxel.core.mechanics.sources import share_off, source_at
from noxel.core.quantities import Mass, plus_minus
from noxel.core.rig import RigFile, Tank

PLACE_OFF = 0.3
"""How far the place of an item may be off. [m]"""

TAPE_OFF = 0.02
"""How far a length may be off that was measured with a tape. [m]"""
RESTORED_OFF = 0.1
"""How far the bars, once set, may be from the share of the front axle's loss that they were to give
back.
"""


def _base_off(rig: RigFile, path: str, mass: Mass | None, pm: Mass | None = None) -> float:
    """A weight that loads are added to: its own ± where it was weighed, else that of its source."""
    if mass is None:
        return 0.0
    return pm.kg if pm is not None else mass.kg * share_off(source_at(rig, path), base=True)


def _of_bases(rig: RigFile, levers: Levers) -> Iterator[State]:
    base, own = rig.plan.vehicle_base, rig.plan.trailer_base
    if base is not None:
        front = _base_off(rig, "plan.vehicle_base.front", base.front, base.front_pm)
        rear = _base_off(rig, "plan.vehicle_base.rear", base.rear, base.rear_pm)
        yield State(vehicle=front, cargo=front)
        yield State(vehicle=rear, rear=rear, cargo=rear)
    if base is None or base.front is None or base.rear is None:
        yield from (State(vehicle=empty.plus_minus) for empty in empty_weights(rig)[:1])
    if rig.trailer is None:
        return
    if own is not None:
        gross = _base_off(rig, "plan.trailer_base.gross", own.gross, own.gross_pm)
        tongue = _base_off(rig, "plan.trailer_base.tongue", own.tongue, own.tongue_pm)
    else:
        gross = _base_off(rig, "trailer.dry_weight", rig.trailer.dry_weight)
        tongue = _base_off(rig, "trailer.dry_tongue", rig.trailer.dry_tongue)
    yield State(trailer=gross)
    yield levers.on_hitch(tongue)


def _of_items(rig: RigFile, levers: Levers, on: Side) -> Iterator[State]:
    """All listed items of one side: any number of masses and places come down to two causes, of
    mass and moment together and of moment alone.
    """
    carried = aboard(rig, on)
    flat, first, second = carried.offs
    second += carried.squares * PLACE_OFF**2
    if not flat:
        yield levers.item(on, 0.0, math.sqrt(second))
        return
    off = math.sqrt(flat)
    yield levers.item(on, off, first / off)
    yield levers.item(on, 0.0, math.sqrt(max(0.0, second - first**2 / flat)))


def _of_thing(levers: Levers, on: Side, kg: float, off: float, place: float) -> Iterator[State]:
    """A mass that may be off, and its place."""
    yield levers.item(on, off, off * place)
    yield levers.item(on, 0.0, kg * PLACE_OFF)


def _of_tank(levers: Levers, tank: Tank, kg: float) -> Iterator[State]:
    """What is in a tank, or was filled in: its level may be off."""
    if tank.position is not None:
        off = tank.full_kg() * LEVEL_OFF
        yield from _of_thing(levers, tank.on, kg, off, tank.position.m)


LEVERS_OFF = {
    "wheelbase": TAPE_OFF,
    "overhang": TAPE_OFF,
    "coupler": TAPE_OFF,
    "restored": RESTORED_OFF,
}
"""How far each lever may be off. [m], the share plain"""


def _of_lever(plan: Planned, name: str) -> State:
    """What it does when one lever is off: an item stays where it is when a length is measured too
    short.
    """
    value = getattr(plan.levers, name)
    if not value and (name == "restored" or value is None):
        return State()
    off = replace(plan.levers, **{name: value + LEVERS_OFF[name]})
    return plan.state(off).less(plan.state())


def _causes(rig: RigFile, plan: Planned) -> Iterator[State]:
    levers = plan.levers
    yield from _of_bases(rig, levers)
    if plan.hitch:
        yield levers.at_hitch(plus_minus(hitch_mass(rig)), plan.hitch_behind)
    for on in SIDES:
        yield from _of_items(rig, levers, on)
    for tank in rig.tanks:
        yield from _of_tank(levers, tank, in_tank(rig, tank))
    yield from (_of_lever(plan, name) for name in LEVERS_OFF)


def norms(causes: Iterable[State], known: Mapping[str, float]) -> dict[str, float]:
    """The ± that causes bring to every known load [kg], and to the tongue share."""
    every, share = [cause for cause in causes if any(cause)], known.get("tongue_share")
    off = {
        key: math.hypot(*(load(cause, key) or 0.0 for cause in every))
        for key in known
        if key in SUMS
    }
    if share is not None:
        gross = known["trailer_gross"]
        apart = (
            (load(cause, "tongue_static") or 0.0) - share * (load(cause, "trailer_gross") or 0.0)
            for cause in every
        )
        off["tongue_share"] = math.hypot(*apart) / abs(gross)
    return off


def uncertainty(rig: RigFile) -> dict[str, float]:
    """The ± of every figure that can be predicted.

    Parameters
    ----------
    rig : RigFile
        As for :func:`noxel.core.mechanics.predict_known`.

    Returns
    -------
    dict
        Two standard uncertainties by the prediction's keys. [kg], shares plain
    """
    plan = planned(rig)
    return norms(_causes(rig, plan), plan.loads())
