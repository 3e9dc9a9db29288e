"""What is listed aboard: its total with its ±, where it lies on average, tanks in the phase of the
trip looked at.
"""

import math
from typing import NamedTuple

from noxel.core.mechanics.aboard import Side, aboard
from noxel.core.mechanics.sources import entered
from noxel.core.quantities import Amount, Term, nominal, plus_minus, uncertain
from noxel.core.rig import Phase, RigFile, Tank

USUAL_PLACE = 0.75
"""Where the load in the vehicle lies when nothing listed says so, as a share of the wheelbase."""
LEVEL_OFF = 0.05
"""How far a tank's level may be off, as a share of the tank."""


def load_place(rig: RigFile) -> float:
    """Where a load in the vehicle lies on average, as a share of the wheelbase; the usual place
    when nothing is listed.
    """
    wheelbase, carried = rig.vehicle.geometry.wheelbase, aboard(rig, "vehicle")
    if not wheelbase or not carried.placed:
        return USUAL_PLACE
    return carried.moment / carried.placed / wheelbase.m


def items_kg(rig: RigFile, on: Side) -> float:
    """What the listed items that come along add up to on one side, tanks apart. [kg]"""
    return aboard(rig, on).kg


def listed_now(rig: RigFile) -> dict[str, float]:
    """What the listed items that come along add up to, in the vehicle and in the trailer. [kg]"""
    return {"vehicle": items_kg(rig, "vehicle"), "trailer": items_kg(rig, "trailer")}


def in_tank(rig: RigFile, tank: Tank) -> float:
    """What a tank adds to the plan's base in the phase looked at; less than nothing for fuel
    burned. [kg]
    """
    return tank.full_kg() * (tank.level(rig.plan.phase) - tank.base_level)


def hitch_mass(rig: RigFile) -> Amount:
    """What the hitch itself puts on the vehicle, with the ± of its source. [kg]"""
    hitch = rig.hitch
    if hitch.weight is not None:
        return entered(rig, "hitch.weight", hitch.weight.kg)
    amounts = [
        entered(rig, f"hitch.parts[{index}].weight", part.weight.kg)
        for index, part in enumerate(hitch.parts)
        if part.weight and "coupler" not in part.kind.lower()
    ]
    return sum(amounts, start=0.0)


class Listed(NamedTuple):
    """What is listed on one side: its mass [kg], and its moment about the coupler or the front
    axle, None where a place is not known [kg m].
    """

    mass: Amount
    moment: Amount | None


def listed_with_moment(rig: RigFile, on: Side) -> Listed:
    """All that is aboard on one side, the hitch apart, with its moment: both rest on the same
    masses.

    Notes ----- Any number of items comes down to two variables: one of the mass, and what the
    moment has beside it. With variances v of mass, w of moment and covariance c, moment = c/v·mass
    + a rest of variance w − c²/v.
    """
    carried = aboard(rig, on)
    mass, moment, variance = carried.kg, carried.moment, carried.variance
    (_, with_moment, of_moment), placed = carried.offs, not carried.unplaced
    for tank in rig.tanks:
        kg = in_tank(rig, tank) if tank.on == on else 0.0
        if tank.on != on:
            continue
        off = (tank.full_kg() * LEVEL_OFF) ** 2
        mass, variance = mass + kg, variance + off
        if tank.position is None:
            placed = placed and not kg
            continue
        moment += kg * tank.position.m
        with_moment += off * tank.position.m
        of_moment += off * tank.position.m**2
    if not variance:
        return Listed(mass, moment if placed else None)
    amount = uncertain(mass, math.sqrt(variance) / 2)
    rest = max(0.0, of_moment - with_moment**2 / variance)
    apart: Amount = uncertain(moment, math.sqrt(rest) / 2) if rest else moment
    along = with_moment / variance * (amount - mass) + apart
    return Listed(amount, along if placed else None)


def uncounted(rig: RigFile) -> list[Term]:
    """What the trailer's dry figure leaves out, each with the ± of its source. [kg]"""
    extras = enumerate(rig.trailer.dry_extras) if rig.trailer else ()
    return [
        Term(
            "+",
            extra.name or "extra",
            entered(rig, f"trailer.dry_extras[{index}].mass", extra.mass.kg),
        )
        for index, extra in extras
        if not extra.counted
    ]


SOMEBODY = 68.0
"""The least that a driver weighs: a vehicle with less listed is not ready to be driven. [kg]"""


def somebody_listed(rig: RigFile) -> bool:
    """Whether what is listed in the vehicle, the hitch apart, can be a driver."""
    kg = items_kg(rig, "vehicle") + sum(
        in_tank(rig, tank) for tank in rig.tanks if tank.on == "vehicle"
    )
    return kg >= SOMEBODY * (1 - 1e-9)


def listed(rig: RigFile, on: Side, *, with_hitch: bool = True) -> Amount:
    """All that is aboard on one side, tanks as in the phase looked at, and in the vehicle the
    hitch's own mass.

    Parameters
    ----------
    rig : RigFile
        Its loads, tanks and hitch.
    on : {"vehicle", "trailer"}
        Which side.
    with_hitch : bool
        Whether the hitch's own mass counts in the vehicle; not where the base has it already.

    Returns
    -------
    Amount
        Total with its ±; masses are independent. [kg]
    """
    carried = aboard(rig, on)
    kg, variance = carried.kg, carried.variance
    for tank in rig.tanks:
        if tank.on == on:
            kg += in_tank(rig, tank)
            variance += (tank.full_kg() * LEVEL_OFF) ** 2
    if on == "vehicle" and with_hitch:
        hitch = hitch_mass(rig)
        kg += nominal(hitch)
        variance += plus_minus(hitch) ** 2
    return uncertain(kg, math.sqrt(variance) / 2) if variance else kg


def anything_listed(rig: RigFile, on: Side) -> bool:
    """Whether anything is aboard on one side."""
    return bool(aboard(rig, on).kg) or any(
        tank.on == on and in_tank(rig, tank) for tank in rig.tanks
    )


def in_phase(rig: RigFile, phase: Phase) -> RigFile:
    """The rig with its plan looked at in another phase of the trip."""
    return rig.model_copy(update={"plan": rig.plan.model_copy(update={"phase": phase})})
