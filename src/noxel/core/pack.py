"""The load plan: what every item does to every axle, the whole rig as predicted, and every check of it.

A prediction is as good as the weights typed into it; it carries no ± of a scale and never replaces a weighing.
"""

import re
from dataclasses import replace

from noxel.core import answers, statics, words
from noxel.core.checks import run_checks, tightest_first, verdict
from noxel.core.figures import Figure
from noxel.core.predict import predict
from noxel.core.printing import Printer, check_answer
from noxel.core.quantities import Mass
from noxel.core.ratings import payload_limit, share_range
from noxel.core.rig import Plan, TrailerBase, VehicleBase
from noxel.core.rigfile import RigFile
from noxel.core.tickets import Pass
from noxel.core.units import MassUnit, print_share, read_typed
from noxel.core.weighing import PassLoads, Weighing, weigh
from noxel.errors import MissingInput, QuantityError

_COUNT = re.compile(r"\s*([0-9]{1,5})\s*[x×]?\s+(?=\D)")
_GAP = re.compile(r"(?<=\S)\s+(?=[0-9.])")


def read_item(text: str, default: MassUnit) -> dict[str, object]:
    """Read an item as people jot it down: ``4 chairs 3 kg``, ``toolbox 62``, ``water 26 gal of water``.

    Parameters
    ----------
    text : str
        How many (optional), what, and the mass of one.
    default : {"lb", "kg"}
        The unit of a bare mass.

    Returns
    -------
    dict
        ``name``, ``mass`` as a rig file keeps it, ``quantity``, and the mass ``text`` as typed.

    Raises
    ------
    QuantityError
        If there is no mass in it, or it cannot be read.
    """
    match = _COUNT.match(text)
    rest = text[match.end() :].strip() if match else text.strip()
    why = f"“{text.strip()}”: write what it is and its mass, such as “4 chairs 3 kg”"
    for gap in _GAP.finditer(rest):  # “2nd toolbox 12.5 kg”: the first place from which the rest reads as a mass
        name, mass = rest[: gap.start()].strip(), rest[gap.end() :].removesuffix("each").strip()
        try:
            value = read_typed(mass, "mass", default).value
        except QuantityError as exc:
            why = exc.message
            continue
        return {"name": name, "mass": value, "quantity": int(match[1]) if match else 1, "text": mass}
    raise QuantityError(why)


def _weighing(rig: RigFile, found: dict[str, float]) -> Weighing:
    keys = ("front_hitched", "rear_hitched", "vehicle_hitched", "trailer_axles", "combination_gross", "trailer_gross", "tongue_static",
            "tongue_share", "front_solo", "rear_solo", "vehicle_solo")  # fmt: skip
    if not rig.towing:
        found = found | {f"{key}_hitched": found[f"{key}_solo"] for key in ("front", "rear", "vehicle")}
    figures = {
        key: Figure(key, found[key], "predicted by the lever model", sort="share" if key == "tongue_share" else "mass")
        for key in keys
        if key in found
    }
    stands = Pass(config="hitched" if rig.towing else "vehicle_only")
    loads = PassLoads(0, stands, {}, figures.get("front_hitched"), figures.get("rear_hitched"), figures.get("trailer_axles"))
    return Weighing(figures, hitched=loads)


def _effects(rig: RigFile, to: Printer) -> list[answers.ItemEffect]:
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    a = geometry.wheelbase.m if geometry.wheelbase else None
    b = geometry.hitch_offset.m if geometry.hitch_offset else None
    length = trailer.geometry.coupler_to_axles.m if trailer and trailer.geometry.coupler_to_axles else None
    found = []
    for index, load in enumerate(rig.loads):
        mass = load.mass.kg * load.quantity
        front = rear = tongue = axles = None
        if load.on == "vehicle" and a and load.position is not None:
            change = statics.split_item(mass, load.position.m, a)
            front, rear = change.front, change.rear
        elif load.on == "trailer" and a and b is not None and length and load.position is not None:
            tongue = statics.item_on_tongue(mass, load.position.m, length)
            change = statics.ball_load_transfer(tongue, b, a)
            front, rear, axles = change.front, change.rear, mass - tongue
        parts = {"mass": mass, "front": front, "rear": rear, "tongue": tongue, "trailer_axles": axles}
        found.append(
            answers.ItemEffect(
                index=index,
                metres=load.position.m if load.position else None,
                **{key: None if kg is None else kg / to.mass for key, kg in parts.items()},
            )
        )
    return found


def _aboard(rig: RigFile, where: str) -> float:
    return sum(load.mass.kg * load.quantity for load in rig.loads if load.on == where)


def _payload(rig: RigFile, found: dict[str, float] | None, to: Printer) -> list[answers.PayloadLine]:
    aboard = _aboard(rig, "vehicle")
    hitch = rig.hitch.own_mass
    lines = [answers.PayloadLine(label="people and things in the vehicle", mass=aboard / to.mass)]
    if hitch:
        lines.append(answers.PayloadLine(label="the hitch's own mass", mass=hitch / to.mass))
    if found and "tongue_static" in found:
        lines.append(
            answers.PayloadLine(label=f"the trailer's {words.term(rig, 'tongue')}", mass=found["tongue_static"] / to.mass)
        )
        moved = found["vehicle_hitched"] - found["vehicle_solo"] - found["tongue_static"]
        if abs(moved) > 0.5:
            lines.append(answers.PayloadLine(label="moved onto the trailer's axles by the bars", mass=moved / to.mass))
        other = found["cargo"] - aboard - hitch
        if abs(other) > 0.5:
            lines.append(answers.PayloadLine(label="fitted or aboard beyond the curb weight", mass=other / to.mass))
    return lines


def _schools(rig: RigFile, found: dict[str, float] | None, to: Printer) -> list[answers.School]:
    """The tongue by each school, side by side (the highest is what to plan for)."""
    trailer = rig.trailer
    if trailer is None:
        return []
    low, high = share_range(rig)
    schools: list[tuple[str, str, float | None]] = []
    if trailer.ratings.gvwr:
        gvwr = trailer.ratings.gvwr.kg
        schools.append(
            ("share_of_gvwr", f"{print_share(high)} of the trailer's {words.term(rig, 'trailer.gvwr')}", gvwr * high)
        )
        schools.append(
            ("low_share_of_gvwr", f"{print_share(low)} of the trailer's {words.term(rig, 'trailer.gvwr')}", gvwr * low)
        )
    loaded = found.get("trailer_gross") if found else None
    if loaded and trailer.dry_weight and trailer.dry_tongue:
        share = trailer.dry_tongue.kg / trailer.dry_weight.kg
        schools.append(("dry_share", f"dry share {print_share(share)} × what it will weigh", share * loaded))
    if found and "tongue_static" in found:
        schools.append(("lever", "lever model, from where things lie", found["tongue_static"]))
    highest = max((kg for _, _, kg in schools if kg), default=None)
    return [
        answers.School(code=code, title=title, value=(kg or 0.0) / to.mass, highest=kg == highest)
        for code, title, kg in schools
    ]


def evaluate_pack(rig: RigFile) -> answers.PackAnswer:
    """Predict the rig as planned, with every check that a weigh-in has.

    Parameters
    ----------
    rig : RigFile
        Its plan, loads, lengths and ratings.

    Returns
    -------
    PackAnswer
        In the file's unit. Where the prediction needs a figure that nobody has entered, ``missing`` names it, and
        whatever can be said without it is still there.
    """
    to = Printer(rig)
    found: dict[str, float] | None = None
    missing: list[answers.MissingFigure] = []
    try:
        found = dict(predict(rig))
    except MissingInput as exc:
        missing = [answers.MissingFigure(path=each.path, message=each.message) for each in exc.problems]
    lines, limit = _payload(rig, found, to), payload_limit(rig)
    made = answers.PackAnswer(
        missing=missing,
        predicted={key: kg if key == "tongue_share" else kg / to.mass for key, kg in (found or {}).items()},
        verdict=None,
        headline=None,
        checks=[],
        items=_effects(rig, to),
        payload=lines,
        payload_used=sum(line.mass for line in lines),
        payload_limit=limit.kg / to.mass if limit else None,
        on_vehicle=_aboard(rig, "vehicle") / to.mass,
        on_trailer=_aboard(rig, "trailer") / to.mass,
        schools=_schools(rig, found, to),
    )
    if found is None:
        return made
    weighing = _weighing(rig, found)
    rows = tightest_first(run_checks(rig, weighing))
    said = verdict(rows)
    checks = [replace(check_answer(rig, weighing, row, to), working=None, plus_minus=None) for row in rows]
    return made.model_copy(update={"verdict": said, "headline": words.headline(rig, rows, said), "checks": checks})


def plan_from_weigh_in(rig: RigFile) -> dict[str, float]:
    """Start the plan from what was weighed last instead of from brochures, the listed items taken out of it.

    Parameters
    ----------
    rig : RigFile
        Its last weigh-in with a vehicle-only pass; its items need places, its lengths must be known.

    Returns
    -------
    dict
        Paths of the plan and their masses in kilograms (shares as they are); the hitch counts as fitted.

    Raises
    ------
    MissingInput
        Naming the pass, place or length that is not there.

    Notes
    -----
    The plan then reproduces that weigh-in, and predicts from it what a change of the load does.
    """
    weighed = weigh(rig, rig.weigh_ins[-1] if rig.weigh_ins else None).figures
    if "front_solo" not in weighed or "rear_solo" not in weighed:
        raise MissingInput("weigh_ins", "needs a weigh-in with a pass of the vehicle alone")
    base = VehicleBase(front=_NOTHING, rear=_NOTHING, hitch_fitted=True)
    bare = Plan(vehicle_base=base, trailer_base=TrailerBase(gross=Mass(1, 1.0), tongue=_NOTHING))
    hitch = rig.hitch.model_copy(update={"weight_distribution": False})
    items = predict(rig.model_copy(update={"plan": bare, "hitch": hitch}))
    plan = {"plan.vehicle_base.front": weighed["front_solo"].value - items["front_solo"],
            "plan.vehicle_base.rear": weighed["rear_solo"].value - items["rear_solo"]}  # fmt: skip
    if rig.towing and "trailer_gross" in weighed and "tongue_static" in weighed:
        plan["plan.trailer_base.gross"] = weighed["trailer_gross"].value - (items["trailer_gross"] - 1.0)
        plan["plan.trailer_base.tongue"] = weighed["tongue_static"].value - items["tongue_static"]
    if "front_restoration" in weighed:
        plan["plan.front_restoration"] = max(0.0, min(2.0, weighed["front_restoration"].value))
    for path, kg in plan.items():
        if kg < 0:
            raise MissingInput(
                path, "would be negative: the listed items weigh more than the scale found. Check their masses and places"
            )
    return plan


_NOTHING = Mass(0, 0.0)
