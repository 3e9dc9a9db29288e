"""How far a prediction may be off: what is known of each mass, place and length, carried through
the lever model.

Causes are independent. Each is carried through the lever model, which is linear in masses (the
tongue share, the places and the lengths to first order), so that figures which share a cause stay
correlated.
"""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from noxel.core.mechanics import statics
from noxel.core.mechanics.aboard import SIDES, Aboard, Side, aboard, load_off
from noxel.core.mechanics.listed import LEVEL_OFF, hitch_mass, in_tank
from noxel.core.mechanics.predict import overhang, trailer_cargo
from noxel.core.mechanics.sources import share_off, source_at
from noxel.core.quantities import Mass, nominal, plus_minus
from noxel.core.rig import RigFile, TrailerBase

PLACE_OFF = 0.3
"""How far the place of an item may be off. [m]"""

TAPE_OFF = 0.02
"""How far a length may be off that was measured with a tape. [m]"""
RESTORED_OFF = 0.1
"""How far the bars, once set, may be from the share of the front axle's loss that they were to give
back.
"""

_Vector = tuple[float, float, float, float]
"""One cause's effect on front solo, rear solo, trailer gross and tongue. [kg]"""
_OF_VEHICLE, _OF_TRAILER = (0, 1, 4), (7, 8, 9)
"""Where the pairs within the vehicle, and within the trailer, are among :data:`_PAIRS`."""
_PAIRS = ((0, 0), (0, 1), (0, 2), (0, 3), (1, 1), (1, 2), (1, 3), (2, 2), (2, 3), (3, 3))


class _Spread:
    """The covariances of front solo, rear solo, trailer gross and tongue, of twice the standard
    uncertainties. [kg²]
    """

    def __init__(self, rig: RigFile) -> None:
        self.rig, wheelbase = rig, rig.vehicle.geometry.wheelbase
        coupler = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
        self.a, self.length = wheelbase.m if wheelbase else 0.0, coupler.m if coupler else 0.0
        self.c = [0.0] * len(_PAIRS)

    def add(self, vector: _Vector) -> None:
        for index, (i, j) in enumerate(_PAIRS):
            self.c[index] += vector[i] * vector[j]

    def base(self, path: str, mass: Mass | None, at: int, pm: Mass | None = None) -> None:
        """A weight that loads are added to: its own ± where it was weighed, else that of its
        source.
        """
        if mass is None:
            return
        off = pm.kg if pm is not None else mass.kg * share_off(source_at(self.rig, path), base=True)
        vector = [0.0] * 4
        vector[at] = off
        self.add((vector[0], vector[1], vector[2], vector[3]))

    def effect(self, on: str, kg: float, place: float) -> _Vector:
        """What a mass at a place adds. [kg]"""
        if on == "vehicle":
            change = statics.split_item(kg, place, self.a)
            return change.front, change.rear, 0.0, 0.0
        return 0.0, 0.0, kg, statics.item_on_tongue(kg, place, self.length) if self.length else 0.0

    def shift(self, on: str, kg: float, metres: float) -> _Vector:
        """What moving a mass back adds. [kg]"""
        if on == "vehicle":
            return -kg * metres / self.a, kg * metres / self.a, 0.0, 0.0
        return 0.0, 0.0, 0.0, -kg * metres / self.length if self.length else 0.0

    def item(self, on: str, kg: float, off: float, place: float) -> None:
        """The mass of an item may be off, and its place."""
        one, other, _, _ = (
            self.effect(on, off, place)
            if on == "vehicle"
            else (*self.effect(on, off, place)[2:], 0, 0)
        )
        moved = self.shift(on, kg, PLACE_OFF)
        first, second = (moved[0], moved[1]) if on == "vehicle" else (moved[2], moved[3])
        # an item loads one side only
        for index, product in zip(
            _OF_VEHICLE if on == "vehicle" else _OF_TRAILER,
            (
                one * one + first * first,
                one * other + first * second,
                other * other + second * second,
            ),
            strict=True,
        ):
            self.c[index] += product

    def items(self, on: Side, here: Aboard) -> None:
        """The same as :meth:`item` for every item of one side, from what they add up to."""
        flat, first, second = here.offs
        lever = self.a if on == "vehicle" else self.length
        if not lever:
            self.c[_OF_TRAILER[0]] += flat
            return
        ahead = flat - 2 * first / lever + second / lever**2  # of (1 − place ÷ lever)²
        moved = here.squares * (PLACE_OFF / lever) ** 2
        added = (
            (ahead + moved, first / lever - second / lever**2 - moved, second / lever**2 + moved)
            if on == "vehicle"
            else (flat, flat - first / lever, ahead + moved)
        )
        for index, each in zip(_OF_VEHICLE if on == "vehicle" else _OF_TRAILER, added, strict=True):
            self.c[index] += each

    def pm(self, f: float, r: float, g: float, t: float) -> float:
        """The ± of a linear combination of the four."""
        by = (f, r, g, t)
        total = sum(
            self.c[index] * by[i] * by[j] * (1 if i == j else 2)
            for index, (i, j) in enumerate(_PAIRS)
        )
        return math.sqrt(max(0.0, total))

    def figures(
        self, found: Mapping[str, float], levers: Iterable["_Effect"] = ()
    ) -> dict[str, float]:
        """The ± of every predicted figure, from masses and places and from each of the ``levers``.
        [kg], shares plain
        """
        made = self._of_masses(found)
        for effect in levers:
            for key, off in effect.items():
                if key in made:
                    made[key] = math.hypot(made[key], off)
        return made

    def _of_masses(self, found: Mapping[str, float]) -> dict[str, float]:
        """The part of the ± that masses and places bring. [kg], shares plain"""
        if not self.a:
            return {}
        rig, b, length = self.rig, overhang(self.rig) or 0.0, self.length
        made = {
            "front_solo": self.pm(1, 0, 0, 0),
            "rear_solo": self.pm(0, 1, 0, 0),
            "vehicle_solo": self.pm(1, 1, 0, 0),
        }
        if not length:
            return made
        restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
        moment = statics.bar_moment(restoration, 1.0, b, length) if restoration else 0.0
        # of one kilogram on the hitch
        change = statics.hitched_change(1.0, moment, b, self.a, length)
        front, rear = change.front, change.rear
        gross, share = found.get("trailer_gross", 0.0), found.get("tongue_share", 0.0)
        return made | {
            "trailer_gross": self.pm(0, 0, 1, 0),
            "tongue_static": self.pm(0, 0, 0, 1),
            "tongue_share": self.pm(0, 0, -share, 1) / gross if gross else 0.0,
            "front_hitched": self.pm(1, 0, 0, front),
            "rear_hitched": self.pm(0, 1, 0, rear),
            "vehicle_hitched": self.pm(1, 1, 0, front + rear),
            "trailer_axles": self.pm(0, 0, 1, -(front + rear)),
            "combination_gross": self.pm(1, 1, 1, 0),
            "payload_used": self.pm(1, 1, 0, 1),
        }


_Effect = Mapping[str, float]
"""What one cause does to each predicted figure. [kg], shares plain"""


@dataclass(frozen=True, slots=True)
class _Levers:
    """Wheelbase, overhang and coupler to axles [m], and the share of the front axle's loss that the
    bars give back.
    """

    a: float
    b: float
    length: float
    restored: float

    def coupled(self, tongue: float) -> tuple[float, float]:
        """What coupling up adds to the front and the rear axle. [kg]"""
        moment = (
            statics.bar_moment(self.restored, tongue, self.b, self.length) if self.restored else 0.0
        )
        change = statics.hitched_change(tongue, moment, self.b, self.a, self.length)
        return nominal(change.front), nominal(change.rear)


def _lever_effects(rig: RigFile, found: Mapping[str, float]) -> list[_Effect]:
    """What each length and the setting of the bars does to every predicted figure, when it is off.
    None without a trailer's length.

    An item stays where it is when the wheelbase is measured too short, so Σ m·x/a changes by −Σ
    m·x/a · δ/a; likewise in the trailer.
    """
    geometry, trailer, base = rig.vehicle.geometry, rig.trailer, rig.plan.vehicle_base
    coupler = trailer.geometry.coupler_to_axles if trailer else None
    if (
        geometry.wheelbase is None
        or "rear_solo" not in found
        or "tongue_static" not in found
        or coupler is None
        or trailer is None
    ):
        return []
    bars = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    at = _Levers(geometry.wheelbase.m, overhang(rig) or 0.0, coupler.m, bars)
    based = base.rear.kg if base is not None and base.rear is not None else 0.0
    start = rig.plan.trailer_base or TrailerBase(tongue=trailer.dry_tongue)
    tongue, share = found["tongue_static"], found.get("tongue_share", 0.0)
    on_axles = trailer_cargo(rig) - (tongue - (start.tongue.kg if start.tongue else 0.0))
    hitch = 0.0 if base is not None and base.hitch_fitted else nominal(hitch_mass(rig))
    lever = rig.hitch.own_lever
    items_rear = found["rear_solo"] - based - hitch * (at.a + at.b + lever) / at.a
    before = at.coupled(tongue)
    made: list[_Effect] = []
    others = (
        replace(at, a=at.a + TAPE_OFF),
        replace(at, b=at.b + TAPE_OFF),
        replace(at, length=at.length + TAPE_OFF),
        replace(at, restored=bars + RESTORED_OFF if bars else 0.0),
    )
    for other in others:
        rear = items_rear * (at.a / other.a - 1) + hitch * (
            (other.b + lever) / other.a - (at.b + lever) / at.a
        )
        more = on_axles * (1 - at.length / other.length)
        after = other.coupled(tongue + more)
        front, back = after[0] - before[0] - rear, after[1] - before[1] + rear
        made.append(
            {
                "front_solo": -rear,
                "rear_solo": rear,
                "tongue_static": more,
                "front_hitched": front,
                "rear_hitched": back,
                "vehicle_hitched": front + back,
                "trailer_axles": -(front + back),
                "payload_used": more,
                "tongue_share": more / found["trailer_gross"] if share else 0.0,
            }
        )
    return made


def spread_of_loads(rig: RigFile) -> tuple[float, ...]:
    """The part of the covariances that the listed items bring, for :func:`uncertainty`; the same in
    every phase of a trip. [kg²]
    """
    spread = _Spread(rig)
    if spread.a:
        for on in SIDES:
            spread.items(on, aboard(rig, on))
    return tuple(spread.c)


def uncertainty(
    rig: RigFile, found: Mapping[str, float], loads: tuple[float, ...] | None = None
) -> dict[str, float]:
    """The ± of every predicted figure.

    Parameters
    ----------
    rig : RigFile
        As it was predicted.
    found : mapping
        The prediction (:func:`noxel.core.mechanics.predict`).
    loads : tuple of float or None
        :func:`spread_of_loads`, where it is known already.

    Returns
    -------
    dict
        Two standard uncertainties by the prediction's keys; empty without a wheelbase. [kg], shares
        plain
    """
    spread, base, trailer = _Spread(rig), rig.plan.vehicle_base, rig.trailer
    if not spread.a:
        return {}
    if base is not None:
        spread.base("plan.vehicle_base.front", base.front, 0, base.front_pm)
        spread.base("plan.vehicle_base.rear", base.rear, 1, base.rear_pm)
    hitch = hitch_mass(rig)
    if nominal(hitch) and not (base is not None and base.hitch_fitted):
        spread.add(
            spread.effect(
                "vehicle",
                plus_minus(hitch),
                spread.a + (overhang(rig) or 0.0) + rig.hitch.own_lever,
            )
        )
    if trailer is not None:
        own = rig.plan.trailer_base
        if own is not None:
            spread.base("plan.trailer_base.gross", own.gross, 2, own.gross_pm)
            spread.base("plan.trailer_base.tongue", own.tongue, 3, own.tongue_pm)
        else:
            spread.base("trailer.dry_weight", trailer.dry_weight, 2)
            spread.base("trailer.dry_tongue", trailer.dry_tongue, 3)
    spread.c = [
        own + more for own, more in zip(spread.c, loads or spread_of_loads(rig), strict=True)
    ]
    for tank in rig.tanks:
        if tank.position is not None:
            spread.item(
                tank.on, abs(in_tank(rig, tank)), tank.full_kg() * LEVEL_OFF, tank.position.m
            )
    return spread.figures(found, _lever_effects(rig, found))


def _changed_levers(
    before: RigFile, after: RigFile, was: Mapping[str, float], found: Mapping[str, float]
) -> list[_Effect]:
    """A length that is off is off before and after: it matters for the change only. Bars set anew
    are off by themselves.
    """
    first, then = _lever_effects(before, was), _lever_effects(after, found)
    if not first or not then:
        return then
    set_anew = before.plan.front_restoration != after.plan.front_restoration
    made: list[_Effect] = [
        {key: other[key] - one[key] for key in other}
        for one, other in zip(first[:3], then[:3], strict=True)
    ]
    return [*made, then[3] if set_anew else {key: then[3][key] - first[3][key] for key in then[3]}]


def change_uncertainty(
    before: RigFile, after: RigFile, was: Mapping[str, float], found: Mapping[str, float]
) -> dict[str, float]:
    """The ± that a change of the load brings with it: the masses and places of what was taken, put
    in, moved, filled or drained.

    Parameters
    ----------
    before, after : RigFile
        The same rig before and after; items and tanks stand in the same order.
    was, found : mapping
        The prediction before and after.

    Returns
    -------
    dict
        Two standard uncertainties by the prediction's keys. What was weighed where it lay stays as
        well known as the scale says; only the change is uncertain. [kg], shares plain
    """
    spread = _Spread(after)
    if not spread.a:
        return {}
    for index, load in enumerate(after.loads):
        old = before.loads[index] if index < len(before.loads) else None
        if old == load:
            continue
        off = load_off(after, index, load.model_copy(update={"aboard": True}))
        gone: _Vector = (0.0, 0.0, 0.0, 0.0)
        if old is not None and old.kg and old.position is not None:
            gone = spread.effect(old.on, off, old.position.m)
        come: _Vector = (0.0, 0.0, 0.0, 0.0)
        if load.kg and load.position is not None:
            come = spread.effect(load.on, off, load.position.m)
        spread.add((come[0] - gone[0], come[1] - gone[1], come[2] - gone[2], come[3] - gone[3]))
        ends = [
            each
            for each in (old, load)
            if each is not None and each.kg and each.position is not None
        ]
        # measured from where it lay: better known than where it lies
        same_side = len(ends) == 2 and ends[0].on == ends[1].on
        for each in ends:
            spread.add(spread.shift(each.on, each.kg, PLACE_OFF / 2 if same_side else PLACE_OFF))
    for held, tank in zip(before.tanks, after.tanks, strict=False):
        moved = in_tank(after, tank) - in_tank(before, held)
        if moved and tank.position is not None:
            spread.item(tank.on, moved, tank.full_kg() * LEVEL_OFF, tank.position.m)
    return spread.figures(found, _changed_levers(before, after, was, found))
