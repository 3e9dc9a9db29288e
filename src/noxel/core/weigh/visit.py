"""The visit to the scale, a step at a time: what to do before it, on it and between the passes, for
this rig.

The order is that of the work: load, drive on, wait for the word, take the ticket, uncouple, drive
on again, couple up. What the rig lacks is left out. Every caution stands at the step where it
matters.
"""

from collections.abc import Iterator
from typing import Literal

from noxel.core.mechanics import describe_pass
from noxel.core.quantities import lower_first
from noxel.core.rig import Config, Pass, RigFile, SpringBars, on_its_wheels
from noxel.core.weigh.passes import ScaleKind, pass_title, plan_passes, settled_by
from noxel.core.weigh.trouble import (
    ASKED_AT_A_WEIGHBRIDGE,
    TROUBLE,
    Say,
    after_a_stop,
    asked_over_the_speaker,
    at_the_hitch,
)
from noxel.core.wording import (
    CHOCKS,
    CHOCKS_OFF,
    Answer,
    bars_off,
    coupled_up,
    parked,
    set_down,
    tensioned,
    term_name,
    vehicle_word,
)

VisitStepKind = Literal["list", "drive", "ticket", "tongue", "answer", "verdict"]
WALK_AROUND = "Walk around: nothing on the bumper, the steps or the ground; doors shut"
RECENT_LOADS = 6
"""How many of the listed items are named before the rest is counted."""


class VisitStep(Answer):
    """One step of the visit.

    ``lines`` are ticked one by one on a ``list``; ``platforms`` names what stands on each platform,
    in order; ``config`` and ``spring_bars`` say which pass a ``ticket`` is of. ``stop`` is what may
    be done on the spot when something is over.
    """

    key: str
    kind: VisitStepKind
    title: str
    lead: str
    lines: list[str] = []
    asked: list[Say] = []
    trouble: list[Say] = []
    platforms: list[str] = []
    stop: list[str] = []
    caution: str | None = None
    settles: str | None = None
    config: Config | None = None
    spring_bars: SpringBars | None = None
    first: bool = False
    done: str


def visit_steps(rig: RigFile, scale: ScaleKind, uncouple: bool) -> list[VisitStep]:
    """What to do at the scale, step by step.

    ``rig``: what it has: a trailer, bars, tanks, brakes, people on its list. ``scale``: what there
    is to weigh on. ``uncouple``: whether the trailer can be left standing there.
    """
    if scale == "tongue_scale":
        return [*_at_home(rig), _verdict(rig)]
    passes = [Pass.model_validate(document) for document in plan_passes(rig, scale, uncouple)]
    steps = [_before(rig, passes, scale)]
    for index, pass_ in enumerate(passes):
        if index and pass_.config == "hitched":
            steps.append(_slacken(rig))
        if pass_.config in ("vehicle_only", "trailer_only") and rig.towing:
            steps.append(_uncouple(rig, pass_))
        steps += [
            _drive(rig, pass_, scale, index == 0),
            _ticket(pass_, rig, index),
            _answer(index + 1 == len(passes)),
        ]
    uncoupled = any(pass_.config != "hitched" for pass_ in passes)
    if rig.towing and (uncoupled or any(pass_.spring_bars == "slack" for pass_ in passes)):
        steps.append(_couple_up(rig, uncoupled))
    return [*steps, _verdict(rig)]


def _verdict(rig: RigFile) -> VisitStep:
    return VisitStep(
        key="verdict",
        kind="verdict",
        title="What it says",
        lead="",
        stop=after_a_stop(rig),
        trouble=TROUBLE["answer"],
        done="See every check",
    )


def _at_home(rig: RigFile) -> Iterator[VisitStep]:
    """The load on the ball, measured at home with a tongue scale."""
    lines = ["Everything packed in the trailer as for the road, doors shut"]
    tanks = [
        tank.name or tank.fluid.replace("_", " ") for tank in rig.tanks if tank.on == "trailer"
    ]
    if tanks:
        lines.append(f"Tanks as you travel with them{_named(tanks)}: note how full each is")
    lines += ["Level, firm ground; the vehicle's brake on", f"{CHOCKS}, before anything else"]
    yield VisitStep(
        key="before",
        kind="list",
        title="Before you measure",
        lines=lines,
        trouble=TROUBLE["before"][2:],
        done="The trailer is chocked and loaded",
        lead=f"A {term_name(rig, 'tongue_scale')} says what rests on the ball. It says nothing "
        "of the axles: for those go to a scale.",
    )
    lines = [
        *bars_off(rig),
        "Plug, breakaway cable and chains off; coupler open; raise it clear of the ball, move the "
        "vehicle away",
        "The scale on firm ground under the coupler, upright, a block under it where it is too low",
        "Let the coupler down onto it, to the height that it has on the ball: the trailer level",
        "Jack clear of the ground, nobody in or on the trailer; wait until it rests, read it, "
        "write the unit down",
    ]
    yield VisitStep(
        key="measure",
        kind="list",
        title="The coupler on the scale",
        lines=lines,
        lead="Nose up or down changes the figure.",
        caution="Never uncouple a trailer that is not chocked, and never reach under a coupler "
        "that only a jack holds.",
        trouble=[
            Say(
                what="It reads more than the scale is made for",
                say="Jack it up at once. Use a truck scale, or a beam and two supports.",
            ),
            Say(
                what="The trailer is not level",
                say="Lower or raise the scale; a few centimetres of coupler height matter.",
            ),
            Say(
                what="It reads something else each time",
                say="Lift it off, let it down again, take the middle of three.",
            ),
        ],
        done="It is read",
    )
    yield VisitStep(
        key="ticket",
        kind="tongue",
        title="What it read",
        lead="The figure with its unit, and a photograph of the dial.",
        first=True,
        settles="the load on the hitch",
        trouble=TROUBLE["answer"],
        done="Keep it",
    )
    yield _answer(last=True)
    yield _couple_up(rig, uncoupled=True)


def _before(rig: RigFile, passes: list[Pass], scale: ScaleKind) -> VisitStep:
    word = vehicle_word(rig)
    lines = ["Fuel tank full, or note how full it is"]
    people = [load.name for load in rig.loads if load.category == "people" and load.name]
    lines.append(f"Everyone aboard who rides along{_named(people)}; note who is not")
    tanks = [
        tank.name or tank.fluid.replace("_", " ") for tank in rig.tanks if tank.on == "trailer"
    ]
    if tanks:
        lines.append(f"Tanks as you travel with them{_named(tanks)}: note how full each is")
    lines.append(
        "Everything packed as for the road, in the "
        f"{word}{' and the trailer' if rig.towing else ''}"
    )
    lines.append("Tire pressures set cold, at home")
    if rig.towing and any(pass_.config in ("vehicle_only", "trailer_only") for pass_ in passes):
        reason = "towed car will be left" if on_its_wheels(rig) else "trailer will be set down"
        lines.append(f"Chocks and gloves at hand: the {reason}. Ask first where you may")
    elif any(pass_.spring_bars == "slack" for pass_ in passes):
        lines.append("Chocks and gloves at hand: the bars come off. Ask first where you may")
    if rig.hitch.weight_distribution:
        lines.append("Spring bars tensioned as for the road")
    if rig.vehicle.self_levelling:
        lines.append(
            "Air bags or self-levelling as for the road, and alike in every pass; no rating "
            "changes with them"
        )
    lines.append("A pen: write down who is aboard and each figure with its unit")
    order = ", then ".join(pass_title(pass_, word).lower() for pass_ in passes)
    place = {
        "truck_scale": "Take the lane of the truck scale, not of the fuel pumps."
        if rig.terms == "north_america"
        else "Ask at the weighbridge's office first.",
        "single_platform": "Ask at the office whether you may weigh axle by axle.",
        "wheel_pads": "Find level ground: the pads and the wheels must be at one height.",
        "trailer_platform": "Bring the trailer to the platform and set it down there.",
    }[scale]
    return VisitStep(
        key="before",
        kind="list",
        title="Before you drive on",
        lines=lines,
        trouble=TROUBLE["before"],
        done="Ready to drive on",
        lead=f"{len(passes)} {'pass' if len(passes) == 1 else 'passes'}: {order}. {place}",
    )


def _named(names: list[str]) -> str:
    """Names of the rig's own list, in brackets; the rest counted."""
    if not names:
        return ""
    more = len(names) - RECENT_LOADS
    return f" ({', '.join(names[:RECENT_LOADS])}{f' and {more} more' if more > 0 else ''})"


def _slacken(rig: RigFile) -> VisitStep:
    return VisitStep(
        key="slacken",
        kind="list",
        title="Park, and slacken the bars",
        lead="Inside the scale yard only, chocks first.",
        lines=[
            *parked(rig),
            "Take the load off the bars with the jack before you release them",
            "Bars slack or off, all of them; jack up again",
            CHOCKS_OFF,
        ],
        caution="Stay clear of the bars while they are under load: they can strike. Do not drive "
        "on the road with slack bars where the maker requires them.",
        trouble=at_the_hitch(rig),
        done="The bars are slack",
    )


def _uncouple(rig: RigFile, weighed: Pass) -> VisitStep:
    wheels = on_its_wheels(rig)
    return VisitStep(
        key="uncouple",
        kind="list",
        title="Leave the towed car" if wheels else "Set the trailer down",
        lines=[*parked(rig), *set_down(rig), "The same people and the same fuel as before"],
        lead="Inside the yard, chocks first.",
        caution="Never uncouple a car that is not braked and chocked."
        if wheels
        else "Never uncouple a trailer that is not chocked, and never crawl under one that "
        "stands on its jack.",
        trouble=at_the_hitch(rig),
        done="The car stands"
        if wheels
        else "The trailer stands"
        if weighed.config == "vehicle_only"
        else "The trailer stands on the platform",
    )


def _drive(rig: RigFile, pass_: Pass, scale: ScaleKind, first: bool) -> VisitStep:
    axles = ["front", "rear"] if pass_.config != "trailer_only" else []
    if pass_.config in ("hitched", "trailer_only"):
        axles.append("trailer")
    title = {
        "truck_scale": "Roll on slowly. Front axle on platform 1.",
        "single_platform": "One axle at a time",
        "wheel_pads": "A pad under each wheel",
        "trailer_platform": "The trailer on the platform",
    }[scale]
    lead = {
        "truck_scale": "No wheel on a seam. Engine on, everyone stays aboard and still.",
        "single_platform": "Front axle, stop, read. Then the whole vehicle. Then the trailer's "
        "axles. Read aloud, write down at once, "
        "unit included.",
        "wheel_pads": "Roll on straight, stop without braking hard. Read each pad, left and right.",
        "trailer_platform": "All of it on the platform, jack and wheels, nothing coupled. Read "
        "the figure.",
    }[scale]
    truck = scale == "truck_scale"
    asked: list[Say] = []
    if truck and rig.terms == "north_america":
        asked = asked_over_the_speaker(first=first)
    elif truck:
        asked = ASKED_AT_A_WEIGHBRIDGE
    return VisitStep(
        key="drive",
        kind="drive",
        title=title,
        lead=lead,
        asked=asked,
        trouble=TROUBLE[scale],
        platforms=axles if scale != "trailer_platform" else ["trailer"],
        caution="Wait until they say that the weight is taken. If you did not hear it, ask again."
        if truck
        else None,
        settles=settled_by(pass_, rig, vehicle_word(rig)),
        config=pass_.config,
        spring_bars=pass_.spring_bars,
        first=first,
        done="The weight is taken" if truck else "Every figure is read",
    )


def _ticket(pass_: Pass, rig: RigFile, index: int) -> VisitStep:
    return VisitStep(
        key="ticket",
        kind="ticket",
        title=f"The ticket: {lower_first(pass_title(pass_, vehicle_word(rig)))}",
        lead="Off the scale first, then parked: fetch the ticket, type it, photograph it.",
        settles=describe_pass(pass_, index + 1),
        config=pass_.config,
        spring_bars=pass_.spring_bars,
        first=index == 0,
        trouble=TROUBLE["ticket"],
        done="Keep this ticket",
    )


def _answer(last: bool) -> VisitStep:
    return VisitStep(
        key="answer",
        kind="answer",
        title="What it says so far",
        lead="",
        trouble=TROUBLE["answer"],
        done="Go on" if last else "Go on to the next pass",
    )


def _couple_up(rig: RigFile, uncoupled: bool) -> VisitStep:
    return VisitStep(
        key="couple",
        kind="list",
        title="Couple up" if uncoupled else "Tension the bars again",
        lines=[*_coupled(rig, uncoupled), WALK_AROUND],
        lead="Before you leave the yard.",
        caution="Stay clear of the hitch, and of the bars under load."
        if rig.hitch.weight_distribution
        else None,
        trouble=at_the_hitch(rig),
        done="Coupled and walked around",
    )


def _coupled(rig: RigFile, uncoupled: bool) -> list[str]:
    if uncoupled:
        return list(coupled_up(rig))
    return [*parked(rig), tensioned(rig), "Jack up", CHOCKS_OFF]
