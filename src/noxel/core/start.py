"""The plan started from a weigh-in: what the scale found, with the listed things taken out of it."""

from noxel.core.calibrate import calibrate
from noxel.core.edit import Change
from noxel.core.loads import Plan, TrailerBase, VehicleBase
from noxel.core.predict import predict
from noxel.core.quantities import Mass
from noxel.core.rigfile import RigFile
from noxel.core.units import KG, METRES
from noxel.core.weighing import weigh
from noxel.errors import MissingInput

_NOTHING = Mass(0, 0.0)


def plan_from_weigh_in(rig: RigFile, number: int = 0) -> dict[str, float]:
    """Start the plan from what was weighed last instead of from brochures, the listed items taken out of it.

    Parameters
    ----------
    rig : RigFile
        Its items and tanks need places, its lengths must be known; tanks count as full as in the phase looked at.
    number : int
        Which weigh-in, from 1; 0 is the last. It needs a vehicle-only pass.

    Returns
    -------
    dict
        Paths of the plan and their masses in kilograms (shares as they are, lengths in metres); the hitch counts as fitted.

    Raises
    ------
    MissingInput
        Naming the pass, place or length that is not there.

    Notes
    -----
    The plan then reproduces that weigh-in, and predicts from it what a change of the load does.
    """
    weighing = weigh(rig, rig.weigh_ins[number - 1] if rig.weigh_ins else None)
    weighed = weighing.figures
    if "front_solo" not in weighed or "rear_solo" not in weighed:
        raise MissingInput("weigh_ins", "needs a weigh-in with a pass of the vehicle alone")
    base = VehicleBase(front=_NOTHING, rear=_NOTHING, hitch_fitted=True)
    bare = Plan(phase=rig.plan.phase, vehicle_base=base, trailer_base=TrailerBase(gross=Mass(1, 1.0), tongue=_NOTHING))
    hitch = rig.hitch.model_copy(update={"weight_distribution": False})
    items = predict(rig.model_copy(update={"plan": bare, "hitch": hitch}))
    plan = {"plan.vehicle_base.front": weighed["front_solo"].value - items["front_solo"],
            "plan.vehicle_base.rear": weighed["rear_solo"].value - items["rear_solo"]}  # fmt: skip
    if rig.towing and "trailer_gross" in weighed and "tongue_static" in weighed:
        plan["plan.trailer_base.gross"] = weighed["trailer_gross"].value - (items["trailer_gross"] - 1.0)
        plan["plan.trailer_base.tongue"] = weighed["tongue_static"].value - items["tongue_static"]
    learned = calibrate(rig, weighing).overhang
    if learned is not None:
        plan["plan.effective_overhang"] = learned.value
    if "front_restoration" in weighed:
        plan["plan.front_restoration"] = max(0.0, min(2.0, weighed["front_restoration"].value))
    for path, kg in plan.items():
        if kg < 0 and path != "plan.effective_overhang":
            raise MissingInput(
                path, "would be negative: the listed items weigh more than the scale found. Check their masses and places"
            )
    return plan


def start_from_weigh_in(rig: RigFile, number: int = 0) -> list[Change]:
    """The changes that start the plan from a weigh-in, in the file's units to three decimals, marked as weighed.

    Raises
    ------
    MissingInput
        As :func:`plan_from_weigh_in`.
    """
    length = rig.units.length or ("in" if rig.units.mass == "lb" else "cm")
    changes = []
    for path, si in plan_from_weigh_in(rig, number).items():
        if path.endswith("overhang"):
            changes.append(Change(path, op="set", value=f"{si / METRES[length]:.3f} {length}"))
        else:
            changes.append(
                Change(path, op="set", value=round(si if path.endswith("restoration") else si / KG[rig.units.mass], 3))
            )
        if "_base." in path:
            changes.append(Change(path, op="source", source="scale"))
    return [*changes, Change("plan.vehicle_base.hitch_fitted", op="set", value=True)]
