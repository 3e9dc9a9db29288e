"""Lessons beside the scale: before buying, fifth wheels, motorhomes."""

from noxel.core.practice.exercises import Exercise, Lesson, Line, Paper, Teller, labels, sum_lines
from noxel.core.practice.facts import Facts
from noxel.core.practice.lessons_weighing import ALONE, WEIGH
from noxel.core.practice.yard import Yard


def _before_buying(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    share = 0.07 if m.rig.terms == "europe" else 0.13
    left = f["payload"] - f["people"] - f["gear"] - f["hitch"]
    return Exercise(
        question=f"How heavy a trailer does the payload allow, with {m.share(share)} of it on the "
        "hitch?",
        right=left / share,
        give=max(4 * m.give, 0.002 * left / share),
        facts={**f, "share": share},
        ways=("tow_believed", "nobody_aboard", "hitch_forgotten", "payload_as_trailer"),
        papers=(
            *labels(m, f, "payload", "tow_rating", "people", "gear", "hitch"),
            Paper("Planned", (Line("share on the hitch", m.share(share)),)),
        ),
        working=(
            *sum_lines(
                m,
                ("left for the hitch", left),
                ("", m.term("payload"), f["payload"]),
                ("−", "people", f["people"]),
                ("−", "gear", f["gear"]),
                ("−", "hitch", f["hitch"]),
            ),
            Line("share on the hitch", m.share(share), "÷"),
            Line("trailer, at most", m(left / share), "="),
        ),
        because=(
            "People, gear and hitch take from the same payload as the tongue weight does. "
            + (
                "Here that ends sooner than the tow rating."
                if left / share < f["tow_rating"]
                else f"Here the tow rating ends sooner still, at {m(f['tow_rating'])}: the least "
                "of all limits counts."
            )
        ),
        hints=(
            "What else does the payload have to carry?",
            "What is left for the hitch is a share of the trailer.",
        ),
    )


def _pin(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    hitched, solo = f["front_h"] + f["rear_h"], f["front_s"] + f["rear_s"]
    europe = m.rig.terms == "europe"
    ball = "5 to 7" if europe else "10 to 15"
    return Exercise(
        question="What is the pin weight?",
        right=hitched - solo,
        give=m.give,
        facts=f,
        ways=(
            *(() if europe else ("ball_share_on_pin",)),
            *("ten_percent", "dry_tongue_believed", "hitched_for_tongue"),
        ),
        papers=labels(m, f, "t_gvwr", "dry_tongue"),
        working=sum_lines(
            m,
            ("pin weight", hitched - solo),
            ("", f"{m.word}, hitched", hitched),
            ("−", f"{m.word} alone", solo),
        ),
        because=(
            "A pin stands over the rear axle: nearly all of it lands there, and it is 15 to 25 % "
            f"of the trailer, not {ball}."
        ),
        hints=("The same way as with a ball: what did the vehicle gain?",),
    )


def _towed_car(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    solo = f["front_s"] + f["rear_s"]
    return Exercise(
        question=f"How heavy a car may this {m.word} tow, by its {m.term('gcwr')}, as it stands "
        "on the scale?",
        right=f["gcwr"] - solo,
        give=m.give,
        facts=f,
        ways=("gcwr_less_gvwr", "gcwr_less_curb", "tow_believed"),
        papers=labels(m, f, "gcwr", "gvwr", "tow_rating", "curb_weight"),
        working=sum_lines(
            m,
            ("left for the car", f["gcwr"] - solo),
            ("", m.term("gcwr"), f["gcwr"]),
            ("−", f"{m.word} alone", solo),
        ),
        because=(
            "A car on its own wheels rests nothing on the hitch: its share is none. The tow "
            "rating, the "
            "hitch and the maker's rule on brakes are limits of their own."
        ),
        hints=(
            f"Everything together may weigh {m(f['gcwr'])}.",
            f"The {m.word} takes its part of that as it stands, not as the brochure has it.",
        ),
    )


LESSONS = (
    Lesson(
        "buying",
        "Before buying: which trailer",
        "A placard, a towing guide and a list, and no trailer yet.",
        _before_buying,
        kind="plain",
        school="Plan at the trailer's rating, or at what you will put in it? The rating is the "
        "cautious school.",
    ),
    Lesson(
        "pin",
        "Fifth wheel and pin",
        "A fifth wheel, weighed hitched and alone.",
        _pin,
        kind="pin",
        preset=(*WEIGH, *ALONE),
        school="15 to 25 %, some say 20 to 25. Your maker's figure comes first.",
    ),
    Lesson(
        "towed-car",
        "Motorhome and towed car",
        "The motorhome was weighed alone.",
        _towed_car,
        kind="motorhome",
        preset=ALONE,
    ),
)
