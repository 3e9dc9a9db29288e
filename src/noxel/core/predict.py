"""The lever model on a whole rig: what its axles will carry, loaded as planned (rig-file format, ``predict``)."""

from collections.abc import Mapping
from dataclasses import dataclass

from noxel.core import statics
from noxel.core.loads import Tank, TrailerBase
from noxel.core.rigfile import RigFile
from noxel.errors import MissingInput


@dataclass(frozen=True, slots=True)
class Solo:
    """The vehicle as loaded, without the trailer. [kg]"""

    front: float
    rear: float
    cargo: float
    wheelbase: float
    overhang: float

    @property
    def gross(self) -> float:
        """Front and rear axle together. [kg]"""
        return self.front + self.rear


def overhang(rig: RigFile) -> float | None:
    """Hitch point behind the rear axle: as a slack pass showed it, else by the tape. [m]"""
    known = rig.plan.effective_overhang or rig.vehicle.geometry.hitch_offset
    return known.m if known else None


def _in_tank(rig: RigFile, tank: Tank) -> float:
    """What a tank adds to the plan's base in the phase looked at; less than nothing for fuel burned. [kg]"""
    return tank.full_kg() * (tank.level(rig.plan.phase) - tank.base_level)


def _place(tank: Tank, at: str, behind: str) -> float:
    if tank.position is None:
        raise MissingInput(f"{at}.position", f"is needed: how far behind {behind} it is")
    return tank.position.m


def predict_solo(rig: RigFile) -> Solo:
    """Load the vehicle: its base, the listed items, the hitch's own mass at the hitch point.

    Parameters
    ----------
    rig : RigFile
        ``plan.vehicle_base``, ``loads``, ``vehicle.geometry``, ``hitch.weight`` are used.

    Returns
    -------
    Solo
        Axle loads and cargo. Cargo is measured from the curb weight, or, where that is not known, is the items and
        the hitch's mass. [kg]

    Raises
    ------
    MissingInput
        Naming the base, length or position that is not there.
    """
    base, geometry = rig.plan.vehicle_base, rig.vehicle.geometry
    if base is None or base.front is None or base.rear is None:
        side = "front" if base is None or base.front is None else "rear"
        raise MissingInput(f"plan.vehicle_base.{side}", "is needed: what this axle carries without the listed loads")
    if geometry.wheelbase is None:
        raise MissingInput("vehicle.geometry.wheelbase", "is needed to split loads between the axles")
    a = geometry.wheelbase.m
    front, rear, items = base.front.kg, base.rear.kg, 0.0
    for index, load in enumerate(rig.loads):
        if load.on != "vehicle" or not load.aboard:
            continue
        if load.position is None:
            raise MissingInput(f"loads[{index}].position", "is needed: how far behind the front axle it is")
        change = statics.split_item(load.kg, load.position.m, a)
        front, rear, items = front + change.front, rear + change.rear, items + load.kg
    for index, tank in enumerate(rig.tanks):
        kg = _in_tank(rig, tank) if tank.on == "vehicle" else 0.0
        if not kg:
            continue
        change = statics.split_item(kg, _place(tank, f"tanks[{index}]", "the front axle"), a)
        front, rear, items = front + change.front, rear + change.rear, items + kg
    hitch = rig.hitch.own_mass
    if overhang(rig) is None and (rig.towing or (hitch and not base.hitch_fitted)):
        raise MissingInput("vehicle.geometry.hitch_offset", "is needed: how far behind the rear axle the hitch point is")
    b = overhang(rig) or 0.0
    if hitch and not base.hitch_fitted:
        change = statics.ball_load_transfer(hitch, b, a)
        front, rear = front + change.front, rear + change.rear
    curb = rig.vehicle.curb_weight
    cargo = front + rear - curb.kg if curb else items + hitch
    return Solo(front, rear, cargo, a, b)


def predict(rig: RigFile) -> Mapping[str, float]:
    """Predict every load of the rig as planned.

    Parameters
    ----------
    rig : RigFile
        As for :func:`predict_solo`, and for the trailer ``plan.trailer_base`` (else its dry figures) and geometry.

    Returns
    -------
    Mapping
        ``front_solo`` … ``payload_used``, in kilograms, and ``tongue_share``. Without a trailer the trailer's and the
        hitched keys are absent.

    Raises
    ------
    MissingInput
        Naming the base, length or position that is not there.
    """
    solo = predict_solo(rig)
    found = {"front_solo": solo.front, "rear_solo": solo.rear, "vehicle_solo": solo.gross, "cargo": solo.cargo}
    trailer = rig.trailer
    if trailer is None:
        return found | {"payload_used": solo.cargo}
    if trailer.geometry.coupler_to_axles is None:
        raise MissingInput("trailer.geometry.coupler_to_axles", "is needed: coupler to the middle of the axles")
    length = trailer.geometry.coupler_to_axles.m
    base = rig.plan.trailer_base or TrailerBase(gross=trailer.dry_weight, tongue=trailer.dry_tongue)
    gross_base, tongue_base = base.gross, base.tongue
    where = ("plan.trailer_base.gross", "plan.trailer_base.tongue")
    if rig.plan.trailer_base is None:
        where = ("trailer.dry_weight", "trailer.dry_tongue")
    if gross_base is None:
        raise MissingInput(where[0], "is needed: what the trailer weighs without the listed loads")
    if tongue_base is None:
        raise MissingInput(where[1], "is needed: the tongue weight without the listed loads")
    gross, tongue = gross_base.kg, tongue_base.kg
    for index, extra in enumerate(trailer.dry_extras if rig.plan.trailer_base is None else ()):
        if extra.counted:
            continue
        if extra.position is None:
            raise MissingInput(f"trailer.dry_extras[{index}].position", "is needed: how far behind the coupler it is")
        gross += extra.mass.kg
        tongue += statics.item_on_tongue(extra.mass.kg, extra.position.m, length)
    for index, load in enumerate(rig.loads):
        if load.on != "trailer" or not load.aboard:
            continue
        if load.position is None:
            raise MissingInput(f"loads[{index}].position", "is needed: how far behind the coupler it is")
        gross, tongue = gross + load.kg, tongue + statics.item_on_tongue(load.kg, load.position.m, length)
    for index, tank in enumerate(rig.tanks):
        kg = _in_tank(rig, tank) if tank.on == "trailer" else 0.0
        if kg:
            place = _place(tank, f"tanks[{index}]", "the coupler")
            gross, tongue = gross + kg, tongue + statics.item_on_tongue(kg, place, length)
    restoration = (rig.plan.front_restoration or 0.0) if rig.hitch.weight_distribution else 0.0
    moment = statics.bar_moment(restoration, tongue, solo.overhang, length) if restoration else 0.0
    change = statics.hitched_change(tongue, moment, solo.overhang, solo.wheelbase, length)
    front, rear = solo.front + change.front, solo.rear + change.rear
    axles = gross - (change.front + change.rear)
    return found | {
        "trailer_gross": gross,
        "tongue_static": tongue,
        "tongue_share": tongue / gross,
        "front_hitched": front,
        "rear_hitched": rear,
        "vehicle_hitched": front + rear,
        "trailer_axles": axles,
        "combination_gross": front + rear + axles,
        "payload_used": solo.cargo + tongue,
    }
