"""Lessons at the scale: tickets, platforms, passes, the trailer in total, the tongue."""

from noxel.core.practice.exercises import Exercise, Lesson, Line, Option, Teller, labels, sum_lines
from noxel.core.practice.facts import Facts
from noxel.core.practice.yard import Yard
from noxel.core.quantities import KG, print_mass

WEIGH = ("on", "ask", "wait", "off")
ALONE = ("chock", "uncouple", *WEIGH)
SLACKEN = ("chock", "slack", "unchock")
ALONE_WITH_BARS = ("chock", "slack", "uncouple", *WEIGH)


def _ticket(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    return Exercise(
        question="What stands on the rear axle?",
        right=f["rear_h"],
        give=m.give,
        facts=f,
        ways=("line_front", "line_trailer", "line_gross", "rear_and_trailer"),
        working=(Line("platform 2", m(f["rear_h"])),),
        because=(
            "Platform 1 carries the front axle, platform 2 the rear axle, platform 3 the "
            "trailer's axles; "
            "the gross is all of them."
        ),
        hints=(
            "A ticket prints a line for each platform, and their sum.",
            "The front axle rolled on first and stands on platform 1.",
        ),
    )


def _hitched(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    right = f["front_h"] + f["rear_h"]
    return Exercise(
        question=f"What does the {m.word} weigh with the trailer on its hitch?",
        right=right,
        give=m.give,
        facts=f,
        ways=("line_gross", "line_front", "line_rear", "rear_and_trailer", "line_trailer"),
        working=sum_lines(
            m,
            (f"{m.word}, hitched", right),
            ("", "platform 1", f["front_h"]),
            ("+", "platform 2", f["rear_h"]),
        ),
        because=f"Whatever the {m.word}'s own axles carry is its weight, the load on the hitch "
        "included.",
        hints=(
            f"Which platforms carry the {m.word}'s own wheels?",
            "Two lines of the ticket belong to it, the third does not.",
        ),
    )


def _two_passes(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    right = f["front_s"] + f["rear_s"]
    return Exercise(
        question=f"What does the {m.word} weigh alone?",
        right=right,
        give=m.give,
        facts=f,
        ways=("still_hitched", "solo_front", "solo_rear"),
        working=sum_lines(
            m,
            (f"{m.word} alone", right),
            ("", "front axle", f["front_s"]),
            ("+", "rear axle", f["rear_s"]),
        ),
        because=(
            "The same people and the same fuel in both passes, the hitch head still on: then the "
            "difference "
            "is the trailer's doing alone."
        ),
        hints=(
            "Set the chocks, slacken the bars, uncouple.",
            "Drive on, ask, wait for the word. Only then drive off.",
            "Add the two lines of the second ticket.",
        ),
    )


def _tongue(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    hitched, solo = f["front_h"] + f["rear_h"], f["front_s"] + f["rear_s"]
    return Exercise(
        question=f"What is the {m.term('tongue_weight')}?",
        right=hitched - solo,
        give=m.give,
        facts=f,
        ways=(
            "rear_gain",
            "front_gain",
            "ten_percent",
            "tenth_of_trailer",
            "dry_tongue_believed",
            "hitched_for_tongue",
        ),
        papers=labels(m, f, "t_gvwr", "dry_tongue"),
        working=sum_lines(
            m,
            (m.term("tongue_weight"), hitched - solo),
            ("", f"{m.word}, hitched", hitched),
            ("−", f"{m.word} alone", solo),
        ),
        because=f"What the {m.word} gained when the trailer was coupled is the load on its hitch: "
        "both axles together.",
        hints=(
            f"By how much did the {m.word} get heavier?",
            "Add both axles in each pass, then take the difference.",
            f"Hitched {m(hitched)}, alone {m(solo)}.",
        ),
    )


def _trailer(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    solo = f["front_s"] + f["rear_s"]
    right = f["gross_h"] - solo
    net = f["front_h"] + f["rear_h"] - solo
    return Exercise(
        question="What does the trailer weigh, all of it?",
        right=right,
        give=m.give,
        facts=f,
        ways=(
            "tongue_left_out",
            "tongue_twice",
            "rear_gain_added",
            "brochure_trailer",
            "rating_for_weight",
            "line_gross",
        ),
        papers=labels(m, f, "t_gvwr", "dry_weight"),
        working=(
            *sum_lines(
                m,
                ("trailer, in total", right),
                ("", "gross, hitched", f["gross_h"]),
                ("−", f"{m.word} alone", solo),
            ),
            Line(f"or platform 3 + {m.term('tongue_weight')}", f"{m(f['trailer_h'])} + {m(net)}"),
        ),
        because=f"{m(f['trailer_h'])} is what stands on the platform; the {m(net)} on the hitch "
        "belongs to the trailer too.",
        hints=(
            "Part of the trailer stands on its wheels. Where is the rest?",
            f"Take the {m.word} alone off everything together.",
        ),
    )


def _engaged(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    slack, solo = f["front_k"] + f["rear_k"], f["front_s"] + f["rear_s"]
    return Exercise(
        question=f"What is the {m.term('tongue_weight')}?",
        right=slack - solo,
        give=m.give,
        facts=f,
        ways=(
            "net_with_bars",
            "slack_rear_gain",
            "rear_gain",
            "ten_percent",
            "dry_tongue_believed",
        ),
        papers=labels(m, f, "t_gvwr", "dry_tongue"),
        working=sum_lines(
            m,
            (m.term("tongue_weight"), slack - solo),
            ("", f"{m.word} hitched, bars slack", slack),
            ("−", f"{m.word} alone", solo),
        ),
        because=(
            f"Engaged bars had carried {m(slack - f['front_h'] - f['rear_h'])} over to the "
            "trailer's axles. "
            f"Only the slack pass shows the whole load on the hitch."
        ),
        hints=(
            "Three tickets: which of the hitched ones has all of the tongue weight on the vehicle?",
            "Use the pass with slack bars and the one alone.",
        ),
    )


def _one_pass(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    options = (
        Option(
            "trailer",
            f"The trailer weighs {m(f['trailer_h'])}.",
            "That is its wheels alone. The load on the hitch is somewhere in the vehicle's lines.",
            "tongue_left_out",
        ),
        Option("least", f"The trailer weighs at least {m(f['trailer_h'])}.", ""),
        Option(
            "tongue",
            f"The {m.term('tongue_weight')} is {m(0.12 * f['trailer_h'])}.",
            "That is a rule of thumb. This ticket does not show it.",
            "ten_percent",
        ),
        Option(
            "nothing",
            "It proves nothing of the trailer.",
            "Its wheels alone can prove that it is too heavy.",
            "",
        ),
    )
    return Exercise(
        question="You have this one ticket, hitched. What does it prove of the trailer?",
        form="choice",
        choice="least",
        options=options,
        facts=f,
        working=(
            Line("trailer, at least", m(f["trailer_h"])),
            Line("load on the hitch", "not known"),
        ),
        because=(
            "The wheels carry a part of the trailer; the hitch carries the rest. So the platform "
            "is the "
            "least it can weigh, enough to prove an overload and never enough to clear one."
        ),
        hints=(
            "Where is the rest of the trailer?",
            "Could it weigh less than what stands on platform 3? Could it weigh more?",
        ),
    )


def _share(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    solo = f["front_s"] + f["rear_s"]
    net, trailer = f["front_h"] + f["rear_h"] - solo, f["gross_h"] - solo
    return Exercise(
        question=f"What is the {m.term('tongue_share')}, in per cent?",
        form="share",
        right=net / trailer,
        give=0.0006,
        facts=f,
        ways=("share_of_axles", "share_of_dry", "share_of_rating", "share_of_gvwr"),
        papers=labels(m, f, "tow_rating", "t_gvwr", "dry_weight"),
        working=(
            Line(m.term("tongue_weight"), m(net)),
            Line("trailer, in total", m(trailer), "÷"),
            Line(m.term("tongue_share"), m.share(net / trailer), "="),
        ),
        because="The share is of the whole trailer as weighed: too little invites sway, too much "
        "squats the vehicle.",
        hints=("Of what is it a share?", f"{m(net)} of {m(trailer)}."),
    )


def _units(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    factor, other = KG[m.unit], "kg" if m.unit == "lb" else "lb"
    kg = round(f["rear_h"] / KG[other] / 10) * 10 * KG[other]
    printed = print_mass(kg, "kg" if other == "kg" else "lb")
    up = KG[other] / factor
    return Exercise(
        question=f"A farm scale prints “{printed}” for the rear axle. What is that in {m.unit}?",
        right=kg,
        give=max(m.give, 0.002 * kg),
        facts={**f, "printed": kg / KG[other] * factor},
        ways=("unconverted", "wrong_way", "twice", "digits"),
        working=(
            Line("printed", printed),
            Line(f"{m.unit} in a {other}", f"{up:.4f}", "×"),
            Line("rear axle", m(kg), "="),
        ),
        because="A pound is 0.45359237 kg exactly; a kilogram is 2.2046 lb. The figure in pounds "
        "is always the larger one.",
        hints=("Which of the two units is the larger one?", "A kilogram is 2.2046 lb."),
    )


LESSONS = (
    Lesson(
        "ticket",
        "Read a ticket",
        "The rig has just been weighed, hitched. Here is the ticket.",
        _ticket,
        preset=WEIGH,
        minutes=2,
    ),
    Lesson(
        "platforms",
        "Which platform is which",
        "Hitched, on three platforms.",
        _hitched,
        preset=WEIGH,
        minutes=3,
    ),
    Lesson(
        "two-passes",
        "The two passes",
        "The hitched pass is done. Weigh the vehicle alone: mind the order, and wait for the word.",
        _two_passes,
        preset=WEIGH,
        solution=ALONE_WITH_BARS,
        allowed=("drive", "scale", "couple"),
        minutes=8,
        school=(
            "Weigh as travelled, or with full tanks and everyone aboard? Both are done. What "
            "counts is that "
            "both passes are alike."
        ),
    ),
    Lesson(
        "tongue",
        "Tongue weight from two passes",
        "A trailer without spring bars, weighed hitched and alone.",
        _tongue,
        kind="plain",
        preset=(*WEIGH, *ALONE),
    ),
    Lesson(
        "trailer",
        "What the trailer really weighs",
        "Two tickets: hitched, and the vehicle alone.",
        _trailer,
        kind="plain",
        preset=(*WEIGH, *ALONE),
    ),
    Lesson(
        "engaged",
        "Tongue weight with bars engaged",
        "Spring bars change what the scale shows. Three tickets: bars engaged, bars slack, "
        "vehicle alone.",
        _engaged,
        preset=(*WEIGH, *SLACKEN, *WEIGH, *ALONE),
    ),
    Lesson(
        "one-pass",
        "What one pass cannot prove",
        "There was no time to uncouple.",
        _one_pass,
        preset=WEIGH,
        minutes=3,
    ),
    Lesson(
        "share",
        "The share on the hitch",
        "Two tickets of a trailer without spring bars.",
        _share,
        kind="plain",
        preset=(*WEIGH, *ALONE),
        school="On a ball 10 to 15 %, some say 10 to 12; in Europe 5 to 7. Your maker's figure "
        "comes first.",
    ),
    Lesson(
        "units",
        "Kilograms, pounds, and a digit too many",
        "Weighed where the other unit is spoken.",
        _units,
        preset=WEIGH,
        minutes=3,
    ),
)
