"""What to do at each pass over the scale, and what the pass will settle."""

import datetime
from typing import Any, Literal

from noxel.core.mechanics import Weighing, describe_pass, listed_now
from noxel.core.quantities import KG, upper_first
from noxel.core.rig import Pass, RigFile, on_its_wheels, on_pin
from noxel.core.wording import PassAnswer, term_name, terms_of, vehicle_word


def pass_title(pass_: Pass, word: str) -> str:
    """What a pass is called, such as “Hitched, bars slack”."""
    if pass_.config == "hitched":
        return {"engaged": "Hitched, bars engaged", "slack": "Hitched, bars slack"}.get(
            pass_.spring_bars or "", "Hitched"
        )
    return {
        "vehicle_only": f"{upper_first(word)} only",
        "vehicle_empty": f"{upper_first(word)} empty",
    }.get(pass_.config, "Trailer only")


_HOW = {
    "single_platform": "One axle at a time: stop on the platform, wait, roll on to the next.",
    "wheel_pads": "A pad under every wheel of the axle; roll on straight and stop without braking "
    "hard.",
}


def _instruction(pass_: Pass, rig: RigFile, scale: str | None) -> str:
    how = _HOW.get(scale or "", "Each axle on its own platform.")
    if pass_.config == "hitched":
        bars = {
            "engaged": " Bars tensioned as for the road.",
            "slack": " Bars slack: inside the scale yard only, and tension them again before you "
            "leave.",
        }.get(pass_.spring_bars or "", "")
        return (
            f"Loaded as for the road, everyone aboard. {how} Wait for the weight before you "
            f"roll.{bars}"
        )
    if pass_.config == "vehicle_only":
        if not rig.towing:
            return (
                "Loaded as for the road, everyone aboard. Each axle on its own platform. Wait "
                "for the weight before you roll."
            )
        chock = "Chock the trailer's wheels before uncoupling."
        left = "hitch head and bars on" if rig.hitch.weight_distribution else "hitch as it is"
        return f"{chock} The same people and the same fuel as before. Leave the {left}."
    if pass_.config == "vehicle_empty":
        return "Driver only, no cargo, tanks full. Enter the driver's weight as a correction."
    return "Chock the wheels. The whole trailer on the platform, jack and all."


def settled_by(pass_: Pass, rig: RigFile, word: str) -> str:
    """What a pass of this kind settles, in words."""
    terms = terms_of(rig)
    if pass_.config == "hitched":
        if not rig.towing:
            return "every axle and the total"
        behind = "towed car" if on_its_wheels(rig) else "trailer"
        together = f"every axle, {word} and {behind} together, {terms['gvwr']} and {terms['gcwr']}"
        return {"slack": f"true {terms['tongue_weight']}, what the bars do"}.get(
            pass_.spring_bars or "", together
        )
    return {
        "vehicle_only": "the towed car in total"
        if on_its_wheels(rig)
        else f"{terms['tongue_weight']}, trailer in total"
        if rig.towing
        else "every axle and the total",
        "vehicle_empty": "what is aboard, against the payload placard",
    }.get(pass_.config, "the trailer in total, directly")


def pass_answers(rig: RigFile, number: int | None, weighing: Weighing) -> list[PassAnswer]:
    """Each pass of a weigh-in: its title, what to do, what it settles, what its platforms add up
    to.

    ``number``: which weigh-in, from 1. ``weighing``: what it lets us know.
    """
    if number is None:
        return []
    word = vehicle_word(rig)
    weigh_in = rig.weigh_ins[number - 1]
    used = {
        id(loads.each)
        for loads in (
            weighing.engaged,
            weighing.slack,
            weighing.solo,
            weighing.empty,
            weighing.trailer_only,
        )
        if loads
    }
    notes = []
    for index, pass_ in enumerate(weigh_in.passes, 1):
        added = sum(mass.kg for mass in pass_.readings.values())
        notes.append(
            PassAnswer(
                number=index,
                name=describe_pass(pass_, index),
                title=pass_title(pass_, word),
                instruction=_instruction(
                    pass_, rig, weigh_in.scale.kind if weigh_in.scale else None
                ),
                settles=settled_by(pass_, rig, word),
                unit=pass_.unit or rig.units.mass,
                total=added / KG[pass_.unit or rig.units.mass] if pass_.readings else None,
                counts=id(pass_) in used,
            )
        )
    return notes


ScaleKind = Literal[
    "truck_scale", "single_platform", "wheel_pads", "trailer_platform", "tongue_scale"
]


SCALES: tuple[tuple[ScaleKind, str, str], ...] = (
    ("truck_scale", "Truck scale", "three platforms: front axle, rear axle, trailer axles at once"),
    (
        "single_platform",
        "Small single platform",
        "one axle, or one group of axles, at a time: dump, quarry, granary",
    ),
    ("wheel_pads", "Wheel pads", "a pad under each wheel: left and right, every axle singly"),
    (
        "trailer_platform",
        "A platform for the trailer alone",
        "the trailer uncoupled, all of it on one platform",
    ),
    (
        "tongue_scale",
        "A {tongue_scale}, at home",
        "the load on the ball alone, the trailer level and chocked",
    ),
)
"""What people weigh on."""


GRADUATIONS: dict[ScaleKind, dict[str, int]] = {
    "truck_scale": {"lb": 20, "kg": 10},
    "single_platform": {"lb": 50, "kg": 20},
    "wheel_pads": {"lb": 10, "kg": 5},
    "trailer_platform": {"lb": 50, "kg": 20},
    "tongue_scale": {"lb": 10, "kg": 5},
}
"""Usual steps of each; a guess until somebody reads the scale's own plate (NIST Handbook 44, 2.20
and 2.24).
"""


def plan_passes(rig: RigFile, scale: ScaleKind, uncouple: bool) -> list[dict[str, Any]]:
    """A short plan of passes for what there is to weigh on and what can be done there.

    ``rig``: whether it tows, and whether its hitch has spring bars. ``scale``: what there is to
    weigh on. ``uncouple``: whether the trailer can be left standing there.

    Returns the passes as documents, in the order to drive them, nothing read yet.
    """
    if scale == "tongue_scale":
        return []
    if not rig.towing:
        return [{"config": "vehicle_only", "readings": {}}]
    bars = rig.hitch.weight_distribution
    hitched: dict[str, Any] = {
        "config": "hitched",
        "spring_bars": "engaged" if bars else "none",
        "readings": {},
    }
    if scale == "trailer_platform":
        return [{"config": "trailer_only", "readings": {}}]
    passes = [hitched]
    if bars:
        passes.append({"config": "hitched", "spring_bars": "slack", "readings": {}})
    if uncouple:
        passes.append({"config": "vehicle_only", "readings": {}})
    return passes


def plan(rig: RigFile, scale: ScaleKind, uncouple: bool) -> list[PassAnswer]:
    """The plan of :func:`plan_passes` in words: what to do at each pass, what each settles."""
    word = vehicle_word(rig)
    steps = [Pass.model_validate(document) for document in plan_passes(rig, scale, uncouple)]
    return [
        PassAnswer(
            number=index,
            name=describe_pass(step, index),
            title=pass_title(step, word),
            instruction=_instruction(step, rig, scale),
            settles=settled_by(step, rig, word),
            unit=rig.units.mass,
            total=None,
            counts=True,
        )
        for index, step in enumerate(steps, 1)
    ]


def scales_for(rig: RigFile) -> list[tuple[ScaleKind, str, str]]:
    """What a rig can be weighed on: without a trailer no trailer's platform, and a tongue scale for
    a load on a ball only.
    """
    ball = rig.towing and not on_pin(rig) and not on_its_wheels(rig)
    return [
        (scale[0], scale[1].format(tongue_scale=term_name(rig, "tongue_scale")), scale[2])
        for scale in SCALES
        if (scale[0] != "trailer_platform" or rig.towing) and (scale[0] != "tongue_scale" or ball)
    ]


def new_weigh_in(
    rig: RigFile, today: datetime.date, scale: ScaleKind = "truck_scale", uncouple: bool = True
) -> dict[str, Any]:
    """The document of a weigh-in by plan, nothing read yet.

    Its graduation is the usual one of such a scale, marked as a guess until somebody reads it off
    the ticket.
    """
    last = rig.weigh_ins[-1].passes[-1].unit if rig.weigh_ins and rig.weigh_ins[-1].passes else None
    unit = last or rig.units.mass
    step = GRADUATIONS[scale][unit]
    graduation = step if unit == rig.units.mass else f"{step} {unit}"
    passes = plan_passes(rig, scale, uncouple)
    for pass_ in passes:
        if last:
            pass_["unit"] = last
    scale_document = {
        "kind": scale,
        "resolution": graduation,
        "entered": {"resolution": {"source": "guess"}},
    }
    document = {"date": today.isoformat(), "scale": scale_document, "passes": passes}
    if rig.loads:
        document["listed"] = {
            on: round(kg / KG[rig.units.mass], 1) for on, kg in listed_now(rig).items()
        }
    return document
