"""Lessons on limits: which figure is compared with which rating, and what is left."""

import math
import random

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
from noxel.core.practice.lessons_weighing import ALONE, ALONE_WITH_BARS, SLACKEN, WEIGH
from noxel.core.practice.true_loads import ACCURACY, GRADUATION
from noxel.core.practice.yard import Yard
from noxel.core.quantities import KG
from noxel.core.rig import rating_in

BOTH = (*WEIGH, *SLACKEN, *WEIGH, *ALONE)


def _gvwr(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    hitched = f["front_h"] + f["rear_h"]
    return Exercise(
        question=f"By how much is the {m.word} over its {m.term('gvwr')}?",
        right=hitched - f["gvwr"],
        give=m.give,
        facts=f,
        ways=("solo_over", "axles_as_gvwr", "rear_margin"),
        papers=labels(m, f, "gvwr", "gawr_front", "gawr_rear"),
        working=sum_lines(
            m,
            ("over", hitched - f["gvwr"]),
            ("", f"{m.word}, hitched", hitched),
            ("−", m.term("gvwr"), f["gvwr"]),
        ),
        because=(
            "Both axles are within their ratings, and the vehicle is still over: frame, brakes and "
            "suspension as a whole have a limit of their own."
        ),
        hints=(
            f"The {m.word} as it drives: with the trailer on its hitch.",
            "Its two axles together against one rating.",
        ),
    )


def _percent(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    hitched = f["front_h"] + f["rear_h"]
    return Exercise(
        question=f"How many per cent is the {m.word} over its {m.term('gvwr')}?",
        form="share",
        right=(hitched - f["gvwr"]) / f["gvwr"],
        give=0.0006,
        facts=f,
        ways=("percent_of_load", "percent_with_ten"),
        papers=labels(m, f, "gvwr"),
        working=(
            Line("over", m(hitched - f["gvwr"])),
            Line(m.term("gvwr"), m(f["gvwr"]), "÷"),
            Line("per cent over", m.share(hitched / f["gvwr"] - 1), "="),
        ),
        because=(
            "Per cent over is of the rating. There is no share of a rating that “is fine”: over "
            "is over, and "
            "by how much is said."
        ),
        hints=("What is 100 per cent here?", "Divide what is too much by the rating."),
    )


def _payload(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    hitched = f["front_h"] + f["rear_h"]
    return Exercise(
        question=f"How much more may come into the {m.word}, by the scale?",
        right=f["gvwr"] - hitched,
        give=m.give,
        facts=f,
        ways=("placard_people", "placard_all", "solo_room", "placard_itself", "curb_room"),
        papers=labels(m, f, "gvwr", "payload", "curb_weight", "people", "gear", "hitch"),
        working=sum_lines(
            m,
            ("left", f["gvwr"] - hitched),
            ("", m.term("gvwr"), f["gvwr"]),
            ("−", f"{m.word}, hitched", hitched),
        ),
        because=(
            "The placard is for the vehicle as it left the factory. The scale has weighed what "
            "was fitted "
            "since, and the tongue weight as well."
        ),
        hints=(
            "The placard guesses at the empty vehicle. The scale does not.",
            f"{m.term('gvwr')} less what the axles carried, hitched.",
        ),
    )


def _link(yard: Yard, f: Facts, m: Teller) -> Exercise:
    mode = yard.rig.hitch.mode
    parts = [
        (part.kind, rating_in(part.tongue, mode), rating_in(part.trailer, mode))
        for part in yard.rig.hitch.parts
    ]
    tongues = {kind: tongue.kg for kind, tongue, _ in parts if tongue}
    own = rating_in(yard.rig.vehicle.ratings.tongue_rating, mode)
    if own is not None:
        tongues["vehicle"] = own.kg
    weakest = min(tongues, key=lambda kind: tongues[kind])
    trailers = {kind: trailer.kg for kind, _, trailer in parts if trailer}
    more = {
        "receiver_tongue": tongues["receiver"],
        "strongest_tongue": max(tongues.values()),
        "weakest_trailer": min(trailers.values()),
    }
    lines = [Line(f"{kind}, {m.term('tongue_weight')}", m(kg)) for kind, kg in tongues.items()]
    lines += [Line(f"{kind}, trailer", m(kg)) for kind, kg in trailers.items()]
    return Exercise(
        question=f"What is the most {m.term('tongue_weight')} that this hitch allows?",
        right=tongues[weakest],
        give=m.give,
        facts={**f, **more},
        ways=("receiver_only", "strongest_link", "tenth_of_tow", "trailer_rating_link"),
        papers=(Paper("On the parts", tuple(lines)), *labels(m, f, "tow_rating")),
        working=(Line(f"{weakest}, {m.term('tongue_weight')}", m(tongues[weakest])),),
        because=f"A chain holds what its weakest link holds: here the {weakest}.",
        hints=(
            "Every part has two ratings: what it may pull, and what may rest on it.",
            "Each part has a tongue limit: look for the smallest.",
        ),
    )


def _combined(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    return Exercise(
        question=f"How much is left of the {m.term('gcwr')}?",
        right=f["gcwr"] - f["gross_h"],
        give=m.give,
        facts=f,
        ways=("gcwr_tongue_twice", "gcwr_no_tongue", "gcwr_made_up", "tow_room"),
        papers=labels(m, f, "gcwr", "gvwr", "tow_rating"),
        working=sum_lines(
            m,
            ("left", f["gcwr"] - f["gross_h"]),
            ("", m.term("gcwr"), f["gcwr"]),
            ("−", "gross, hitched", f["gross_h"]),
        ),
        because="All platforms together are vehicle and trailer; the load on the hitch is in it "
        "once.",
        hints=(
            "One line of the first ticket is all you need.",
            f"The {m.term('gcwr')} less the gross.",
        ),
    )


def _binding(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    margins = {
        "front axle": f["gawr_front"] - f["front_h"],
        "rear axle": f["gawr_rear"] - f["rear_h"],
        f"{m.word}, in total": f["gvwr"] - f["front_h"] - f["rear_h"],
        "combination": f["gcwr"] - f["gross_h"],
    }
    least = min(margins, key=lambda name: margins[name])
    return Exercise(
        question="Four margins: front axle, rear axle, vehicle, combination. How large is the "
        "smallest?",
        right=margins[least],
        give=m.give,
        facts=f,
        ways=("tow_room", "best_margin", "solo_room"),
        papers=labels(m, f, "gawr_front", "gawr_rear", "gvwr", "gcwr", "tow_rating"),
        working=tuple(
            Line(name, m(kg), "=" if name == least else "") for name, kg in margins.items()
        ),
        because=f"The {least} ends first. A large room elsewhere is worth nothing until this one "
        "is mended.",
        hints=(
            "Take each load off its rating.",
            "The smallest of the four is the answer, not the largest and not their sum.",
        ),
        # margins of one ticket: the hitched one
    )


def _cannot_tell(_yard: Yard, f: Facts, m: Teller) -> Exercise:
    step = GRADUATION[m.unit] * KG[m.unit]
    rating = f["rear_h"] + 0.4 * step
    options = (
        Option(
            "within",
            "It is within.",
            "The margin is smaller than what the scale can be off. Its next ticket may say the "
            "opposite.",
            "margin believed",
        ),
        Option(
            "over",
            "It is over.",
            "The reading is below the rating. That is no proof of the opposite either.",
            "doubt taken for proof",
        ),
        Option("cannot_tell", "The scale cannot tell.", ""),
    )
    return Exercise(
        question=(
            f"The rear axle is rated {m(rating)}. The ticket says {m(f['rear_h'])}, in steps of "
            f"{m(step)}. What do you know?"
        ),
        form="choice",
        choice="cannot_tell",
        options=options,
        facts=f,
        working=(
            Line("margin", m(rating - f["rear_h"])),
            Line(
                "±, from the steps and the scale",
                m(math.hypot(0.577 * step, 2 * ACCURACY * f["rear_h"])),
            ),
        ),
        because=(
            "A reading in steps is anywhere within half a step, and the scale itself is off by a "
            "little. A "
            "margin below that is “cannot tell”: take something out, and weigh again."
        ),
        hints=(
            "How far could the true load be from what is printed?",
            "Compare the margin with one step of the scale.",
        ),
    )


def _pressure(yard: Yard, f: Facts, m: Teller) -> Exercise:
    psi = m.unit == "lb"
    tire = f["rear_h"] / 2
    least = random.Random(f"table/{yard.run.seed}").choice((0.70, 0.78, 0.86, 0.94))
    rows = [(40 + 5 * row, (least + 0.08 * row) * tire * 1.02) for row in range(7)]
    right = next(pressure for pressure, load in rows if load >= tire)
    name = "psi" if psi else "kPa"
    scaled = [
        (pressure if psi else round(pressure * 6.894757 / 10) * 10, load) for pressure, load in rows
    ]
    wanted = dict(
        zip((pressure for pressure, _ in rows), (pressure for pressure, _ in scaled), strict=True)
    )[right]
    placard = scaled[0][0]
    more = {
        "row_below": scaled[[p for p, _ in scaled].index(wanted) - 1][0],
        "placard": placard,
        "most": scaled[-1][0],
    }
    return Exercise(
        question="Two tires on the rear axle. Which cold pressure does each need, by the maker's "
        f"table, in {name}?",
        form="pressure",
        right=wanted,
        give=0.5,
        facts={**f, **more},
        ways=("row_below", "placard_pressure", "sidewall"),
        papers=(
            Paper(
                f"The tire maker's table, {name}",
                tuple(Line(f"{pressure}", m(load)) for pressure, load in scaled),
            ),
            Paper("Loading placard", (Line("rear, cold", f"{placard} {name}"),)),
            Paper("Tire sidewall", (Line("most, cold", f"{scaled[-1][0]} {name}"),)),
        ),
        working=(
            Line("rear axle", m(f["rear_h"])),
            Line("tires", "2", "÷"),
            Line("each tire", m(tire), "="),
            Line("first row that carries it", f"{wanted} {name}"),
        ),
        because="The first row that carries the load; never below the placard, never above the "
        "sidewall, set cold.",
        hints=("What does one tire carry?", "Go down the table until the load is carried."),
    )


LESSONS = (
    Lesson(
        "gvwr",
        "Vehicle rating against axle ratings",
        "Both axles are within their ratings.",
        _gvwr,
        kind="plain",
        over="gross",
        preset=(*WEIGH, *ALONE),
        school=(
            "“If both axles are within, the total does not matter” is heard. Here the total is "
            "checked too, and never waived."
        ),
    ),
    Lesson(
        "percent",
        "How far over",
        "The vehicle is over its rating. Say it in per cent.",
        _percent,
        kind="plain",
        over="gross",
        preset=WEIGH,
        minutes=3,
        school="“A few per cent over is fine” is heard. Over is over; by how much is said.",
    ),
    Lesson(
        "payload",
        "Payload by the scale, and the placard",
        "Two tickets, the placard, and your list.",
        _payload,
        kind="plain",
        preset=(*WEIGH, *ALONE),
    ),
    Lesson(
        "link",
        "The weakest link of the hitch",
        "Each part of the hitch has its own label.",
        _link,
        kind="plain",
        preset=(),
        minutes=4,
    ),
    Lesson(
        "combined",
        "The combination",
        "Vehicle and trailer against one rating.",
        _combined,
        kind="plain",
        preset=(*WEIGH, *ALONE),
    ),
    Lesson(
        "binding",
        "Which limit ends first",
        "One hitched ticket with the bars engaged, one alone, and all ratings.",
        _binding,
        preset=(*WEIGH, *ALONE_WITH_BARS),
    ),
    Lesson(
        "cannot-tell",
        "± and “cannot tell”",
        "A reading close to its rating.",
        _cannot_tell,
        kind="plain",
        preset=WEIGH,
        minutes=3,
        school=(
            "Use the full rating, or stay below 80 or 85 % of it? Both are done; a cushion is "
            "your choice, the rating is not."
        ),
    ),
    Lesson(
        "pressure",
        "Tire pressure for a load",
        "The rear axle was weighed; its tires have a maker's table.",
        _pressure,
        kind="plain",
        preset=WEIGH,
        minutes=4,
    ),
)
