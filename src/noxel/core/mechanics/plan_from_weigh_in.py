"""The plan that reproduces a weigh-in: its loads with the listed items taken out."""

from noxel.core.mechanics.calibrate import calibrate
from noxel.core.mechanics.model import load
from noxel.core.mechanics.predict import levers_of, predict
from noxel.core.mechanics.weighing import Weighing, weigh
from noxel.core.quantities import Mass
from noxel.core.rig import Plan, RigFile, TrailerBase, VehicleBase
from noxel.errors import MissingInput

_NOTHING = Mass(0, 0.0)


def plan_from_weigh_in(rig: RigFile, number: int = 0) -> dict[str, float]:
    """Start the plan from what was weighed last instead of from brochures, the listed items taken
    out of it.

    Parameters
    ----------
    rig : RigFile
        Its items and tanks need places, its lengths must be known; tanks count as full as in the
        phase looked at.
    number : int
        Which weigh-in, from 1; 0 is the last. It needs a vehicle-only pass.

    Returns
    -------
    dict
        Paths of the plan and their masses in kilograms (shares as they are, lengths in metres); the
        hitch counts as fitted.

    Raises
    ------
    MissingInput
        Naming the pass, place or length that is not there.

    Notes
    -----
    The plan then reproduces that weigh-in, but for what the bars do beyond the lever model, and
    predicts from it what a change of the load does.
    """
    weighing = weigh(rig, rig.weigh_ins[number - 1] if rig.weigh_ins else None)
    weighed = weighing.figures
    if "front_solo" not in weighed or "rear_solo" not in weighed:
        raise MissingInput("weigh_ins", "needs a weigh-in with a pass of the vehicle alone")
    base = VehicleBase(front=_NOTHING, rear=_NOTHING, hitch_fitted=True)
    bare = Plan(
        phase=rig.plan.phase,
        vehicle_base=base,
        trailer_base=TrailerBase(gross=Mass(1, 1.0), tongue=_NOTHING),
    )
    hitch = rig.hitch.model_copy(update={"weight_distribution": False})
    items = predict(rig.model_copy(update={"plan": bare, "hitch": hitch}))
    plan = {
        "plan.vehicle_base.front": weighed["front_solo"].value - items["front_solo"],
        "plan.vehicle_base.rear": weighed["rear_solo"].value - items["rear_solo"],
    }
    if rig.towing and "trailer_gross" in weighed and "tongue_static" in weighed:
        plan["plan.trailer_base.gross"] = weighed["trailer_gross"].value - (
            items["trailer_gross"] - 1.0
        )
        plan["plan.trailer_base.tongue"] = weighed["tongue_static"].value - items["tongue_static"]
    learned = calibrate(rig, weighing).overhang
    if learned is not None:
        plan["plan.effective_overhang"] = learned.value
    share = given_back(rig, weighing)
    if share is not None:
        plan["plan.front_restoration"] = share
    for path, kg in plan.items():
        if kg < 0 and path != "plan.effective_overhang":
            raise MissingInput(
                path,
                "would be negative: the listed items weigh more than the scale found. Check their "
                "masses and places",
            )
    return plan


def given_back(rig: RigFile, weighing: Weighing) -> float | None:
    """The share of the front axle's loss that the bars give back, by a slack pass; where none shows
    it, by what the front axle would lose without them, T·b/a. From 0 to 2.
    """
    shown = weighing.figures.get("front_restoration")
    share = shown.value if shown is not None else _by_levers(rig, weighing)
    return None if share is None else max(0.0, min(2.0, share))


def _by_levers(rig: RigFile, weighing: Weighing) -> float | None:
    figures, levers = weighing.figures, levers_of(rig)
    tongue, change = figures.get("tongue_static"), figures.get("front_transfer")
    if weighing.engaged is None or weighing.slack is not None or tongue is None or change is None:
        return None
    slack = load(levers.on_hitch(tongue.value, restored=0.0), "front_hitched")
    return 1 - change.value / slack if slack is not None and slack < 0 else None
