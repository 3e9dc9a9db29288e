"""Lessons with a lever: measuring the tongue, moving things, water, height, bars, and the easiest
fix.
"""

from noxel.core.practice.acts import do_act
from noxel.core.practice.challenge import still_over
from noxel.core.practice.exercises import (
    Exercise,
    Lesson,
    Line,
    Option,
    Paper,
    Teller,
    labels,
    sum_lines,
)
from noxel.core.practice.facts import Facts
from noxel.core.practice.lessons_limits import BOTH
from noxel.core.practice.lessons_weighing import WEIGH
from noxel.core.practice.yard import Yard
from noxel.core.quantities import KG


def _bars(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    right = f["trailer_h"] - f["trailer_k"]
    return Exercise(
        question="How much did the bars carry over to the trailer's axles?",
        right=right,
        give=m.give,
        facts=f,
        ways=("all_to_front", "rear_relief"),
        working=sum_lines(
            m,
            ("onto the trailer's axles", right),
            ("", "platform 3, bars engaged", f["trailer_h"]),
            ("−", "platform 3, bars slack", f["trailer_k"]),
        ),
        because=(
            f"The rear axle lost {m(f['rear_k'] - f['rear_h'])}; of that "
            f"{m(f['front_h'] - f['front_k'])} "
            f"came back to the front axle, the rest to the trailer's. Nothing left the rig."
        ),
        hints=(
            "Compare the two hitched tickets line by line.",
            "Platform 3 with and without tension.",
        ),
    )


def _bars_cure(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    options = (
        Option(
            "less_tongue",
            f"The {m.term('tongue_weight')} gets smaller, so a hitch part that was over is within.",
            "The load on the coupler stays; only where it is felt changes. The weakest link "
            "carries what it carried.",
            "the bars believed to cure",
        ),
        Option(
            "rating_up",
            "The vehicle may carry more: the bars raise its rating.",
            "No bar, bag or spring changes a label.",
            "the bars believed to cure",
        ),
        Option(
            "moves",
            "They move load from the rear axle to the front axle and to the trailer's axles. "
            "Every rating stays.",
            "",
        ),
        Option(
            "past_solo",
            "Tighten them until the front axle carries more than it does alone.",
            "That lifts the rear axle too far: less grip behind, and more strain on frame and "
            "hitch. Up to "
            "its solo load at most, and by the maker's target.",
            "front axle restored past its solo load",
        ),
    )
    return Exercise(
        question="What do spring bars do for a vehicle that is too heavy?",
        form="choice",
        choice="moves",
        options=options,
        facts=f,
        working=(
            Line("front axle, slack → engaged", f"{m(f['front_k'])} → {m(f['front_h'])}"),
            Line("rear axle", f"{m(f['rear_k'])} → {m(f['rear_h'])}"),
            Line("trailer's axles", f"{m(f['trailer_k'])} → {m(f['trailer_h'])}"),
        ),
        because="All three lines together are the same with the bars slack or engaged, to within "
        "the scale.",
        hints=("Add up each of the two hitched tickets.",),
    )


def _compare(yard: Yard, f: Facts, m: Teller) -> Exercise:
    hitched = [ticket for ticket in yard.tickets if ticket.config == "hitched"]
    if len(hitched) < 2:
        raise KeyError("ticket:hitched")
    unit = KG[m.unit]
    before, after = hitched[0].readings, hitched[-1].readings
    right, other = (
        (before["rear"] - after["rear"]) * unit,
        (before["trailer"] - after["trailer"]) * unit,
    )
    dropped = sum(load.mass.kg * load.quantity for load in yard.rig.loads if not load.aboard)
    return Exercise(
        question="Something was left behind between the two hitched tickets. How much lighter is "
        "the rear axle now?",
        right=right,
        give=m.give,
        facts={**f, "other": other, "m": dropped},
        ways=("other_side", "trailer_lost"),
        papers=(Paper("Left behind", (Line("at the yard", m(dropped)),)),),
        working=sum_lines(
            m,
            ("lighter", right),
            ("", "rear axle, first ticket", before["rear"] * unit),
            ("−", "rear axle, second ticket", after["rear"] * unit),
        ),
        because=(
            "Each reading moves in steps, so a change of one step may be none at all. What left "
            "the trailer "
            "took only its share off the hitch."
        ),
        hints=("The same line on both tickets.",),
    )


def _cure(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    return Exercise(
        question="Bring every limit within: move, leave behind, drain. Then say that it is done.",
        form="done",
        facts=f,
        papers=labels(m, f, "gvwr", "gawr_front", "gawr_rear", "gcwr", "t_gvwr", "t_gawr"),
        working=(
            Line("rear axle's rating", m(f["gawr_rear"])),
            Line("rear axle, as it came", m(f["rear_h"])),
        ),
        because=(
            "What lies behind the rear axle loads it by more than its own weight: begin with "
            "that, forward or left behind."
        ),
        hints=(
            "Which load is over, and what lies near it?",
            f"In the {m.word}, what lies behind the rear axle loads it by more than its weight.",
            "Leave the heaviest item of the bed behind.",
        ),
    )


def cure_acts(yard: Yard) -> tuple[str, ...]:
    """What cures the rear axle in the lesson: what lies in the bed stays behind, heaviest first,
    then the water goes.
    """
    loads = yard.rig.loads
    bed = sorted(
        (
            index
            for index, load in enumerate(loads)
            if load.on == "vehicle" and load.category == "comfort"
        ),
        key=lambda index: -loads[index].kg,
    )
    acts = [*(f"drop:{index}" for index in bed), "tank:0:0"]
    for count in range(1, len(acts) + 1):
        tried = yard
        for act in acts[:count]:
            tried = do_act(tried, act)
        if not still_over(tried):
            return tuple(acts[:count])
    return tuple(acts)


def _leave_heaviest(yard: Yard) -> tuple[str, ...]:
    """Leave the item behind that loads the tongue most, then weigh again."""
    trailer = yard.rig.trailer
    length = (
        trailer.geometry.coupler_to_axles.m
        if trailer and trailer.geometry.coupler_to_axles
        else 1.0
    )
    on_tongue = {
        index: load.kg * (length - load.position.m)
        for index, load in enumerate(yard.rig.loads)
        if load.on == "trailer" and load.position
    }
    return (f"drop:{max(on_tongue, key=lambda index: on_tongue[index])}", *WEIGH)


LESSONS = (
    Lesson(
        "bars",
        "What the bars do",
        "Two hitched tickets, with the bars slack and engaged.",
        _bars,
        preset=BOTH,
    ),
    Lesson(
        "bars-cure",
        "What the bars do not do",
        "The same two tickets.",
        _bars_cure,
        preset=BOTH,
        minutes=3,
    ),
    Lesson(
        "compare",
        "Weigh again and compare",
        "Something stayed behind, and the rig was weighed again.",
        _compare,
        kind="plain",
        preset=WEIGH,
        extra=_leave_heaviest,
        minutes=4,
    ),
    Lesson(
        "cure",
        "Cure it at the least trouble",
        "The rear axle is over its rating.",
        _cure,
        kind="plain",
        over="rear_axle",
        preset=WEIGH,
        allowed=("load",),
        minutes=10,
    ),
)
