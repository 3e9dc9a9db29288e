"""What came aboard after the weighing, as changes on every axle: an estimate, from the lever model.

A place that is not known is not guessed: the share that goes to an axle is then uniform over what
is possible, and the ± of everything downstream says so.
"""

import math
from dataclasses import dataclass

from uncertainties import ufloat

from noxel.core.mechanics import statics
from noxel.core.quantities import Amount
from noxel.core.rig import Added, RigFile, WeighIn


@dataclass(frozen=True, slots=True)
class AddedLoads:
    """Changes since a weighing: on the vehicle alone, on the vehicle through the tongue, on the
    trailer. [kg]
    """

    front: Amount = 0.0
    rear: Amount = 0.0
    front_by_tongue: Amount = 0.0
    rear_by_tongue: Amount = 0.0
    trailer_axles: Amount = 0.0
    tongue: Amount = 0.0

    def on(self, which: str, *, coupled: bool) -> Amount:
        """The change of one load of a pass, with the trailer coupled or not. [kg]"""
        if which == "vehicle":
            return self.on("front", coupled=coupled) + self.on("rear", coupled=coupled)
        if which == "gross":
            return self.on("vehicle", coupled=coupled) + (self.trailer_axles if coupled else 0.0)
        if which == "trailer":
            return self.trailer_axles if coupled else self.trailer_axles + self.tongue
        own, carried = (
            (self.front, self.front_by_tongue)
            if which == "front"
            else (self.rear, self.rear_by_tongue)
        )
        return own + carried if coupled else own


def _share(low: float, high: float) -> Amount:
    """A share of which only the ends are known: uniform between them."""
    return ufloat((low + high) / 2, (high - low) / 2 / math.sqrt(3))


RACK = 1.0
"""How far behind the ball a rack on the receiver may carry. [m]"""


def _on_front(rig: RigFile, added: Added) -> Amount:
    """The front axle's share. A place not known lies anywhere from the front axle to a rack behind
    the hitch.
    """
    wheelbase, hitch = rig.vehicle.geometry.wheelbase, rig.vehicle.geometry.hitch_offset
    if wheelbase is None or added.position is None:
        return _share(
            -((hitch.m if hitch else 1.3) + RACK) / (wheelbase.m if wheelbase else 3.6), 1.0
        )
    return statics.split_item(1.0, added.position.m, wheelbase.m).front


def _on_tongue(rig: RigFile, added: Added) -> Amount:
    """The tongue's share. A place not known lies anywhere from the coupler to a rack behind the
    trailer's tail.
    """
    length = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
    if length is None or added.position is None:
        return _share(-0.6, 1.0)
    return statics.item_on_tongue(1.0, added.position.m, length.m)


def added_loads(rig: RigFile, weigh_in: WeighIn) -> AddedLoads:
    """Add up what was added since a weighing.

    Parameters
    ----------
    rig : RigFile
        For its lengths; without them a place counts as not known.
    weigh_in : WeighIn
        Its ``added_since``.

    Returns
    -------
    AddedLoads
        Changes on each axle. [kg]
    """
    front: Amount = 0.0
    rear: Amount = 0.0
    tongue: Amount = 0.0
    axles: Amount = 0.0
    for added in weigh_in.added_since:
        if added.on == "vehicle":
            share = _on_front(rig, added)
            front, rear = front + added.mass.kg * share, rear + added.mass.kg * (1 - share)
        else:
            share = _on_tongue(rig, added)
            tongue, axles = tongue + added.mass.kg * share, axles + added.mass.kg * (1 - share)
    geometry = rig.vehicle.geometry
    if geometry.wheelbase and geometry.hitch_offset:
        split = statics.ball_load_transfer(tongue, geometry.hitch_offset.m, geometry.wheelbase.m)
        return AddedLoads(front, rear, split.front, split.rear, axles, tongue)
    lever = _share(0.0, 0.5)  # a ball lies up to half a wheelbase behind the rear axle
    return AddedLoads(front, rear, -tongue * lever, tongue * (1 + lever), axles, tongue)
