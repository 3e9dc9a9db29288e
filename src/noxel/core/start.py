"""The plan started from a weigh-in: what the scale found, with the listed things taken out of it."""

import math
from collections.abc import Mapping

from uncertainties import ufloat

from noxel.core.calibrate import calibrate
from noxel.core.edit import Change
from noxel.core.figures import Figure
from noxel.core.lengths import lever_lengths
from noxel.core.loads import Plan, TrailerBase, VehicleBase
from noxel.core.predict import predict
from noxel.core.quantities import Mass
from noxel.core.rigfile import RigFile
from noxel.core.statics import length_from_move
from noxel.core.units import KG, METRES, read_length, read_mass, read_typed
from noxel.core.weighing import Weighing, weigh
from noxel.errors import GeometryError, InputError, MissingInput, Problem, QuantityError

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
    The plan then reproduces that weigh-in, but for what the bars do beyond the lever model, and predicts from it what a change
    of the load does.
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
    given_back = weighed["front_restoration"].value if "front_restoration" in weighed else _given_back(rig, weighing)
    if given_back is not None:
        plan["plan.front_restoration"] = max(0.0, min(2.0, given_back))
    for path, kg in plan.items():
        if kg < 0 and path != "plan.effective_overhang":
            raise MissingInput(
                path, "would be negative: the listed items weigh more than the scale found. Check their masses and places"
            )
    return plan


def _given_back(rig: RigFile, weighing: Weighing) -> float | None:
    """What the bars give back where no slack pass shows it: without them the front axle would lose T·b/a."""
    figures, at = weighing.figures, lever_lengths(rig)
    tongue, change = figures.get("tongue_static"), figures.get("front_transfer")
    if weighing.engaged is None or weighing.slack is not None or tongue is None or change is None or tongue.value * at.b <= 0:
        return None
    return 1 + change.value * at.a / (tongue.value * at.b)


def start_from_weigh_in(rig: RigFile, number: int = 0) -> list[Change]:
    """The changes that start the plan from a weigh-in, in the file's units to three decimals, marked as weighed.

    Raises
    ------
    MissingInput
        As :func:`plan_from_weigh_in`.
    """
    length = rig.units.lengths
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


def lever_length_typed(rig: RigFile, texts: Mapping[str, str]) -> Figure:
    """Coupler to axles from two tongue readings, as typed.

    Parameters
    ----------
    rig : RigFile
        For the units of bare figures.
    texts : mapping
        ``mass``, ``moved_back``, ``before``, ``after``, and the scale's ``resolution`` (blank for none).

    Returns
    -------
    Figure
        With the ± of two readings at that graduation. [m]

    Raises
    ------
    InputError
        Naming each text that cannot be read, or readings that moved the wrong way.
    """
    si: dict[str, float] = {"resolution": 0.0}
    problems = []
    for name in ("mass", "moved_back", "before", "after", "resolution"):
        length = name == "moved_back"
        if name == "resolution" and not texts.get(name, "").strip():
            continue
        try:
            value = read_typed(
                texts.get(name, ""), "length" if length else "mass", rig.units.lengths if length else rig.units.mass
            ).value
        except QuantityError as exc:
            problems.append(Problem(name, exc.message, exc.code))
            continue
        read, factor = (read_length, METRES[rig.units.lengths]) if length else (read_mass, KG[rig.units.mass])
        si[name] = read(value) if isinstance(value, str) else value * factor
    if problems:
        raise InputError(str(problems[0]), problems)
    u = si["resolution"] / math.sqrt(12)
    before, after = (ufloat(si[name], u) if u else si[name] for name in ("before", "after"))
    try:
        found = length_from_move(si["mass"], si["moved_back"], before, after)
    except GeometryError as exc:
        raise InputError(exc.message, [Problem("after", exc.message, exc.code)]) from exc
    return Figure("coupler_to_axles", found, "mass × moved back ÷ change of the tongue", sort="length")
