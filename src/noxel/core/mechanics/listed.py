"""What is listed aboard: its total with its ±, where it lies on average, tanks in the phase of the
trip looked at.
"""

import math
from typing import Literal

from uncertainties import ufloat

from noxel.core.mechanics.sources import OFF, entered
from noxel.core.quantities import Amount, nominal, plus_minus
from noxel.core.rig import Load, Phase, RigFile, Source, Tank

USUAL_PLACE = 0.75
"""Where the load in the vehicle lies when nothing listed says so, as a share of the wheelbase."""
LEVEL_OFF = 0.05
"""How far a tank's level may be off, as a share of the tank."""
Side = Literal["vehicle", "trailer"]


def load_place(rig: RigFile) -> float:
    """Where a load in the vehicle lies on average, as a share of the wheelbase; the usual place
    when nothing is listed.
    """
    wheelbase = rig.vehicle.geometry.wheelbase
    placed = [
        (load.kg, load.position.m)
        for load in rig.loads
        if load.on == "vehicle" and load.position and load.kg
    ]
    total = sum(kg for kg, _ in placed)
    if not wheelbase or not total:
        return USUAL_PLACE
    return sum(kg * x for kg, x in placed) / total / wheelbase.m


def items_kg(rig: RigFile, on: Side) -> float:
    """What the listed items that come along add up to on one side, tanks apart. [kg]"""
    return sum(load.kg for load in rig.loads if load.on == on)


def listed_now(rig: RigFile) -> dict[str, float]:
    """What the listed items that come along add up to, in the vehicle and in the trailer. [kg]"""
    return {"vehicle": items_kg(rig, "vehicle"), "trailer": items_kg(rig, "trailer")}


def in_tank(rig: RigFile, tank: Tank) -> float:
    """What a tank adds to the plan's base in the phase looked at; less than nothing for fuel
    burned. [kg]
    """
    return tank.full_kg() * (tank.level(rig.plan.phase) - tank.base_level)


def load_source(rig: RigFile, index: int, load: Load) -> Source | None:
    """Where the mass of a listed item came from, if that was said."""
    entry = load.entered.get("mass") or (
        rig.entered.get(f"loads[{index}].mass") if rig.entered else None
    )
    return entry.source if entry else None


def load_off(rig: RigFile, index: int, load: Load) -> float:
    """How far the mass of a listed item may be off (two standard uncertainties). [kg]"""
    return load.kg * OFF[load_source(rig, index, load)]


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
    kg, variance = 0.0, 0.0
    for index, load in enumerate(rig.loads):
        if load.on == on:
            kg += load.kg
            variance += load_off(rig, index, load) ** 2
    for tank in rig.tanks:
        if tank.on == on:
            kg += in_tank(rig, tank)
            variance += (tank.full_kg() * LEVEL_OFF) ** 2
    if on == "vehicle" and with_hitch:
        hitch = hitch_mass(rig)
        kg += nominal(hitch)
        variance += plus_minus(hitch) ** 2
    return ufloat(kg, math.sqrt(variance) / 2) if variance else kg


def anything_listed(rig: RigFile, on: Side) -> bool:
    """Whether anything is aboard on one side."""
    return any(load.on == on and load.kg for load in rig.loads) or any(
        tank.on == on and in_tank(rig, tank) for tank in rig.tanks
    )


def gathered(rig: RigFile) -> RigFile:
    """The rig with all that is listed on one side as one item where it lies on average: every
    prediction is the same.

    Only where every item that comes along has its place.
    """
    made = []
    for on in ("vehicle", "trailer"):
        placed = [
            (load.kg, load.position.m)
            for load in rig.loads
            if load.on == on and load.position and load.kg
        ]
        kg = sum(mass for mass, _ in placed)
        if kg:
            centre = sum(mass * x for mass, x in placed) / kg
            made.append(
                Load.model_validate(
                    {"on": on, "mass": f"{kg:.9f} kg", "position": f"{centre:.9f} m"}
                )
            )
    return rig.model_copy(update={"loads": tuple(made)})


def in_phase(rig: RigFile, phase: Phase) -> RigFile:
    """The rig with its plan looked at in another phase of the trip."""
    return rig.model_copy(update={"plan": rig.plan.model_copy(update={"phase": phase})})
