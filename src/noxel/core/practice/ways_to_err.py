"""Ways to err: how a wrong figure can be come by, each a formula, so that it can be recognised and
answered by name.

docs/formulas.md lists them. Which of them may answer a question is said by the lesson.
"""

from collections.abc import Mapping

from noxel.core.practice.slips_weighing import WEIGHED
from noxel.core.practice.way_to_err import WayToErr, ends, hitched, net, solo, trailer
from noxel.core.quantities import KG

WAYS: Mapping[str, WayToErr] = {
    **WEIGHED,
    # totals and payload
    "solo_over": WayToErr(
        "tongue weight not carried by the vehicle",
        lambda f: abs(solo(f) - f["gvwr"]),
        "You took the vehicle alone. What the trailer rests on the hitch counts against its "
        "rating.",
    ),
    "axles_as_gvwr": WayToErr(
        "sum of the axle ratings as the total",
        lambda f: abs(f["gawr_front"] + f["gawr_rear"] - hitched(f)),
        "You compared with the axle ratings added up. Frame, brakes and wheels have a limit of "
        "their own: the plated total.",
    ),
    "rear_margin": WayToErr(
        "one axle for the vehicle",
        lambda f: abs(f["gawr_rear"] - f["rear_h"]),
        "That is the rear axle's margin. The total is another limit, checked apart.",
    ),
    "placard_people": WayToErr(
        "hitch and tongue weight forgotten",
        lambda f: f["payload"] - f["people"] - f["gear"],
        "You took people and gear off the placard. The hitch's own mass and the tongue weight "
        "count against it too.",
    ),
    "placard_all": WayToErr(
        "the placard believed",
        lambda f: f["payload"] - f["people"] - f["gear"] - f["hitch"] - net(f),
        "All of it is taken off, but the placard is for the vehicle as it left the factory.",
        lambda f: (
            "As it stood on the scale it is heavier."
            if f["right"] < f["payload"] - f["people"] - f["gear"] - f["hitch"] - net(f)
            else "The scale knows what it weighs today."
        ),
    ),
    "solo_room": WayToErr(
        "tongue weight not carried by the vehicle",
        lambda f: f["gvwr"] - solo(f),
        "That is what is left of the vehicle alone. The tongue weight still comes onto it.",
    ),
    "placard_itself": WayToErr(
        "the placard believed",
        lambda f: f["payload"],
        "{payload} is on the placard: for a vehicle as it left the factory, with nobody in it.",
    ),
    "gcwr_tongue_twice": WayToErr(
        "tongue weight counted twice",
        lambda f: f["gcwr"] - hitched(f) - trailer(f),
        "The vehicle hitched and the trailer in total both hold the tongue. It counts once.",
    ),
    "gcwr_no_tongue": WayToErr(
        "tongue weight left out",
        lambda f: f["gcwr"] - solo(f) - f["trailer_h"],
        "The vehicle alone and platform 3: the tongue weight is in neither.",
    ),
    "gcwr_made_up": WayToErr(
        "a sum believed for a rating",
        lambda f: f["gvwr"] + f["tow_rating"] - f["gross_h"],
        "The total of vehicle and tow rating is no rating. The published one is often lower.",
        lambda f: "It is lower here." if f["gcwr"] < f["gvwr"] + f["tow_rating"] else "",
    ),
    "tow_room": WayToErr(
        "not the limiting rating",
        lambda f: f["tow_rating"] - trailer(f),
        "That is what is left of the tow rating.",
        ends(lambda f: f["tow_rating"] - trailer(f)),
    ),
    "best_margin": WayToErr(
        "the best margin for the room",
        lambda f: max(
            f["gawr_front"] - f["front_h"],
            f["gawr_rear"] - f["rear_h"],
            f["gvwr"] - hitched(f),
            f["gcwr"] - f["gross_h"],
        ),
        "That is the largest margin. The least one ends the loading.",
    ),
    "percent_of_load": WayToErr(
        "per cent of the wrong base",
        lambda f: (hitched(f) - f["gvwr"]) / hitched(f),
        "You divided by the load. Per cent over is of the rating.",
    ),
    "percent_with_ten": WayToErr(
        "“a few per cent are fine”",
        lambda f: (hitched(f) - 1.1 * f["gvwr"]) / f["gvwr"],
        "You allowed ten per cent more than the label does. Over is over, from the first pound.",
    ),
    # the hitch
    "receiver_only": WayToErr(
        "one link for the chain",
        lambda f: f["receiver_tongue"],
        "{receiver_tongue} is the receiver. The chain holds what its weakest part holds.",
    ),
    "strongest_link": WayToErr(
        "the strongest for the weakest",
        lambda f: f["strongest_tongue"],
        "That is the strongest part. The weakest one breaks first.",
    ),
    "tenth_of_tow": WayToErr(
        "a rule of thumb for a rating",
        lambda f: 0.1 * f["tow_rating"],
        "That is a tenth of the tow rating. The labels of the parts are there: they count.",
    ),
    "trailer_rating_link": WayToErr(
        "trailer rating for tongue limit",
        lambda f: f["weakest_trailer"],
        "That is a trailer rating. A part has two: what it may pull and what it may carry.",
    ),
    # levers
    "tare_forgotten": WayToErr(
        "beam's own weight left in",
        lambda f: f["reading"] * f["span"] / f["support"],
        "The beam itself stands on the scale. Take its reading alone off first.",
    ),
    "beam_upside_down": WayToErr(
        "lever upside down",
        lambda f: (f["reading"] - f["tare"]) * f["support"] / f["span"],
        "The ratio is upside down: the scale, further out, feels less than the tongue.",
    ),
    "reading_believed": WayToErr(
        "reading for the load",
        lambda f: f["reading"],
        "That is what the scale shows. The support carries the rest.",
    ),
    "reading_less_tare": WayToErr(
        "lever forgotten",
        lambda f: f["reading"] - f["tare"],
        "The beam's weight is off, but the lever is forgotten: the scale is further out than the "
        "coupler.",
    ),
    "lever_upside_down": WayToErr(
        "lever upside down",
        lambda f: f["weight"] * f["tongue_arm"] / f["arm"],
        "The arms are the wrong way round: a long arm makes a small weight strong.",
    ),
    "beam_left_out": WayToErr(
        "beam's own weight left out",
        lambda f: f["weight"] * f["arm"] / f["tongue_arm"],
        "The lever itself helps: its own weight acts at its middle.",
    ),
    "weight_believed": WayToErr(
        "counterweight for the load",
        lambda f: f["weight"],
        "That is the known weight. The arms make it strong.",
    ),
    # moving things
    "wrong_sign": WayToErr(
        "wrong direction",
        lambda f: f["tongue"] + f["m"] * f["d"] / f["length"],
        "Back makes the tongue weight smaller; you made it larger.",
    ),
    "ratio_turned": WayToErr(
        "ratio upside down",
        lambda f: f["tongue"] - f["m"] * f["length"] / f["d"],
        "The ratio is upside down: the move is divided by the length from coupler to axles.",
    ),
    "all_of_it": WayToErr(
        "all of it off the tongue weight",
        lambda f: f["tongue"] - f["m"],
        "The item is still in the trailer. Only a part of it moved off the hitch.",
    ),
    "nothing_changes": WayToErr(
        "no change", lambda f: f["tongue"], "The total does not change, but where it rests does."
    ),
    "water_all": WayToErr(
        "all of it off the tongue weight",
        lambda f: f["m"],
        "That is all of the water. The axles carried a part of it; only its share by the lever "
        "was on the tongue.",
        lambda f: (
            "Here the axles carried most of it."
            if f["x"] > 0.5 * f["length"]
            else "Here the tongue carried most of it."
        ),
    ),
    "water_other_arm": WayToErr(
        "the axles' share for the hitch's",
        lambda f: f["m"] * f["x"] / f["length"],
        "That is what the axles lose. The hitch loses the rest.",
    ),
    "level_first": WayToErr(
        "measured at another height",
        lambda f: f["first"],
        "{first} was read with the coupler raised. The height it is towed at counts.",
    ),
    "mean_of_both": WayToErr(
        "a mean of two different things",
        lambda f: (f["first"] + f["second"]) / 2,
        "A mean helps against chance. Here the height differs: only one of the two is the tongue "
        "as towed.",
    ),
    "all_to_front": WayToErr(
        "the front axle's part for all of it",
        lambda f: f["front_h"] - f["front_k"],
        "That is what came back to the front axle. The trailer's axles took a part too.",
    ),
    "rear_relief": WayToErr(
        "the rear axle's part for all of it",
        lambda f: f["rear_k"] - f["rear_h"],
        "That is what the rear axle lost. It went to two places; the question is about one.",
    ),
    # before buying, motorhomes, tires
    "tow_believed": WayToErr(
        "tow rating believed",
        lambda f: f["tow_rating"],
        "{tow_rating} is the tow rating: one limit of many.",
        ends(lambda f: f["tow_rating"]),
    ),
    "nobody_aboard": WayToErr(
        "people and gear forgotten",
        lambda f: f["payload"] / f["share"],
        "The whole payload went to the tongue. Who sits in the vehicle, and the hitch itself, "
        "come off first.",
    ),
    "hitch_forgotten": WayToErr(
        "the hitch's own mass forgotten",
        lambda f: (f["payload"] - f["people"] - f["gear"]) / f["share"],
        "The hitch's own mass counts as payload too.",
    ),
    "payload_as_trailer": WayToErr(
        "payload for trailer",
        lambda f: f["payload"] - f["people"] - f["gear"] - f["hitch"],
        "That is what may rest on the hitch. The trailer is what this is a share of.",
    ),
    "gcwr_less_gvwr": WayToErr(
        "worked out and then believed",
        lambda f: f["gcwr"] - f["gvwr"],
        "GCWR less GVWR holds only for a vehicle loaded to its rating. This one was weighed.",
    ),
    "gcwr_less_curb": WayToErr(
        "worked out and then believed",
        lambda f: f["gcwr"] - f["curb_weight"],
        "You took the empty vehicle. As it stood on the scale it is heavier.",
    ),
    "row_below": WayToErr(
        "one row too low",
        lambda f: f["row_below"],
        "That row carries less than this tire has to. Take the first one that carries it.",
    ),
    "placard_pressure": WayToErr(
        "the placard believed",
        lambda f: f["placard"],
        "That is the placard's pressure, for the vehicle as delivered. This axle carries more.",
    ),
    "sidewall": WayToErr(
        "the most for what is needed",
        lambda f: f["most"],
        "That is the most that the tire takes, not what this load needs.",
    ),
    "curb_room": WayToErr(
        "cargo alone against payload",
        lambda f: f["gvwr"] - f["curb_weight"] - f["gear"],
        "You counted the gear alone. People, hitch and tongue weight are load too.",
    ),
    "other_side": WayToErr(
        "the other figure",
        lambda f: f["other"],
        "That is the change of another axle. Read the line again.",
    ),
    "trailer_lost": WayToErr(
        "all of what left the trailer",
        lambda f: f["m"],
        "That is what was left behind. What one axle lost of it is on that axle's line.",
    ),
}

UNITS: Mapping[str, tuple[str, float, str]] = {
    "unconverted": ("unit not converted", 0.0, "That is the figure as printed, in the other unit."),
    "wrong_way": (
        "converted the wrong way round",
        KG["lb"],
        "That way a pound would be more than a kilogram.",
    ),
    "twice": ("× 2 for × 2.2", 0.0, "Twice is too rough: a kilogram is 2.2046 lb."),
    "digits": ("a digit too many", 10.0, "That is ten times as much: a digit too many."),
    "digit_lost": ("a digit lost", 0.1, "That is a tenth: a digit was lost."),
    "as_kg": (
        "kilograms and pounds confused",
        1 / KG["lb"],
        "That is the right figure taken for kilograms and made pounds once more.",
    ),
    "as_lb": (
        "kilograms and pounds confused",
        KG["lb"],
        "That is the right figure in the other unit.",
    ),
}
"""Slips of unit and digit that can happen to any figure: the factor on the right one, where it is
one.
"""
