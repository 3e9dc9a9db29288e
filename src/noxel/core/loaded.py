"""The vehicle as loaded, by the plan or by the scale, and the question that is asked of it."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from noxel.core.predict import Solo, overhang
from noxel.core.ratings import Limit
from noxel.core.rigfile import RigFile
from noxel.core.tickets import WeighIn
from noxel.core.units import print_mass
from noxel.core.weighing import weigh

USUAL_PLACE = 0.75
"""Where the load in the vehicle is taken to lie when nothing listed says so, as a share of the wheelbase."""
SLACK = 1e-6
"""On a limit is within it. [kg]"""
Start = Literal["plan", "weigh_in"]


@dataclass(frozen=True, slots=True)
class Asked:
    """How much can it tow: the vehicle as loaded, the tongue share, the limits known, where its load lies, what was weighed."""

    rig: RigFile
    solo: Solo
    share: float
    known: Mapping[str, Limit | None]
    place: float
    weigh_in: WeighIn | None = None

    def mass(self, kg: float) -> str:
        return print_mass(kg, self.rig.units.mass)


def load_place(rig: RigFile) -> float:
    """Where a load in the vehicle lies on the average, as a share of the wheelbase; the usual place when nothing is listed."""
    wheelbase = rig.vehicle.geometry.wheelbase
    placed = [(load.kg, load.position.m) for load in rig.loads if load.on == "vehicle" and load.position and load.kg]
    total = sum(kg for kg, _ in placed)
    if not wheelbase or not total:
        return USUAL_PLACE
    return sum(kg * x for kg, x in placed) / total / wheelbase.m


def weigh_in_numbered(rig: RigFile, number: int | None = None) -> WeighIn | None:
    """The weigh-in of a number, from 1, or the last; None where there is none at all."""
    return rig.weigh_ins[(number or 0) - 1] if rig.weigh_ins else None


def solo_from_weigh_in(rig: RigFile, weigh_in: WeighIn | None) -> Solo | None:
    """The vehicle as the scale found it without its trailer, or None when it was not weighed so."""
    figures = weigh(rig, weigh_in).figures
    wheelbase, b, curb = rig.vehicle.geometry.wheelbase, overhang(rig), rig.vehicle.curb_weight
    if "front_solo" not in figures or "rear_solo" not in figures or wheelbase is None or b is None:
        return None
    front, rear = figures["front_solo"].value, figures["rear_solo"].value
    empty = figures["curb_measured"].value if "curb_measured" in figures else curb.kg if curb else None
    listed = sum(load.kg for load in rig.loads if load.on == "vehicle") + rig.hitch.own_mass
    return Solo(front, rear, front + rear - empty if empty is not None else listed, wheelbase.m, b)


def with_load(solo: Solo, kg: float, place: float) -> Solo:
    """The vehicle with so much more in it, at a share of the wheelbase behind the front axle."""
    return replace(solo, front=solo.front + kg * (1 - place), rear=solo.rear + kg * place, cargo=solo.cargo + kg)


def small(label: str) -> str:
    """A label inside a sentence: its first letter small, unless it is an abbreviation."""
    return label if label[:2].isupper() else label[0].lower() + label[1:]
