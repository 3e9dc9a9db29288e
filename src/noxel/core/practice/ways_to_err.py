"""Ways to err: how a wrong figure can be come by, each a formula, so that it can be recognised and
answered by name.

The ways are those heard among practitioners; docs/formulas.md lists them. Which of them may answer
a question is said by the lesson.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from noxel.core.practice.facts import Facts
from noxel.core.quantities import KG


@dataclass(frozen=True, slots=True)
class WayToErr:
    """One way: its short name, the figure that it leads to, and what to answer. Masses in
    kilograms.

    ``says`` may name facts in braces; they are written in the reader's unit.
    """

    name: str
    figure: Callable[[Facts], float]
    says: str


def _solo(f: Facts) -> float:
    return f["front_s"] + f["rear_s"]


def _hitched(f: Facts) -> float:
    return f["front_h"] + f["rear_h"]


def _net(f: Facts) -> float:
    return _hitched(f) - _solo(f)


def _trailer(f: Facts) -> float:
    return f["gross_h"] - _solo(f)


WAYS: Mapping[str, WayToErr] = {
    # reading a ticket
    "line_front": WayToErr(
        "the front axle's line",
        lambda f: f["front_h"],
        "{front_h} is what stands on platform 1: the front axle.",
    ),
    "line_rear": WayToErr(
        "the rear axle's line",
        lambda f: f["rear_h"],
        "{rear_h} is what stands on platform 2: the rear axle alone.",
    ),
    "line_trailer": WayToErr(
        "the trailer platform's line",
        lambda f: f["trailer_h"],
        "{trailer_h} is what stands on platform 3: the trailer's wheels.",
    ),
    "line_gross": WayToErr(
        "the gross", lambda f: f["gross_h"], "{gross_h} is the gross: all platforms together."
    ),
    "rear_and_trailer": WayToErr(
        "platforms 2 and 3",
        lambda f: f["rear_h"] + f["trailer_h"],
        "That is platforms 2 and 3. The front axle is part of the vehicle, the trailer's wheels "
        "are not.",
    ),
    "still_hitched": WayToErr(
        "still hitched",
        _hitched,
        "That is the vehicle with the trailer on its hitch: the tongue is still in it.",
    ),
    "solo_rear": WayToErr(
        "one axle for both",
        lambda f: f["rear_s"],
        "{rear_s} is its rear axle alone. The front axle counts too.",
    ),
    "solo_front": WayToErr(
        "one axle for both",
        lambda f: f["front_s"],
        "{front_s} is its front axle alone. The rear axle counts too.",
    ),
    # the trailer in total
    "tongue_left_out": WayToErr(
        "tongue left out",
        lambda f: f["trailer_h"],
        "That is what stands on platform 3. The tongue is not on it: it rests on the vehicle.",
    ),
    "tongue_twice": WayToErr(
        "tongue counted twice",
        lambda f: _trailer(f) + _net(f),
        "The load on the hitch is in it twice: once in the trailer in total, once more on top.",
    ),
    "rear_gain_added": WayToErr(
        "rear axle's gain for the tongue",
        lambda f: f["trailer_h"] + f["rear_h"] - f["rear_s"],
        "You added what the rear axle gained. The front axle lost some: only both together are "
        "the tongue.",
    ),
    "brochure_trailer": WayToErr(
        "brochure believed",
        lambda f: f["dry_weight"],
        "{dry_weight} is the trailer as built, without what was put in it since.",
    ),
    "rating_for_weight": WayToErr(
        "rating for a weight",
        lambda f: f["t_gvwr"],
        "{t_gvwr} is what it may weigh, not what it weighs.",
    ),
    # the tongue
    "rear_gain": WayToErr(
        "rear axle's gain for the tongue",
        lambda f: f["rear_h"] - f["rear_s"],
        "That is what the rear axle gained. The front axle lost some of it: a lever lifts there. "
        "Both axles count.",
    ),
    "slack_rear_gain": WayToErr(
        "rear axle's gain for the tongue",
        lambda f: f["rear_k"] - f["rear_s"],
        "That is what the rear axle gained with slack bars. The front axle's loss belongs in it "
        "too.",
    ),
    "net_with_bars": WayToErr(
        "net load with the bars engaged",
        _net,
        "The bars had carried a part over to the trailer's axles: this is only what was left on "
        "the "
        "vehicle. Take the slack pass.",
    ),
    "ten_percent": WayToErr(
        "a rule of thumb for a measurement",
        lambda f: 0.10 * f["t_gvwr"],
        "That is a tenth of the trailer's rating: a rule of thumb, not what your tickets say.",
    ),
    "tenth_of_trailer": WayToErr(
        "a rule of thumb for a measurement",
        lambda f: 0.10 * _trailer(f),
        "That is a tenth of the trailer: a rule of thumb, not what your tickets say.",
    ),
    "dry_tongue_believed": WayToErr(
        "brochure believed",
        lambda f: f["dry_tongue"],
        "{dry_tongue} is the brochure's figure, for the trailer as built.",
    ),
    "ball_share_on_pin": WayToErr(
        "a ball's share on a pin",
        lambda f: 0.13 * f["t_gvwr"],
        "That is 13 % of the rating, the share of a ball. A pin carries more, and yours was "
        "weighed.",
    ),
    "front_gain": WayToErr(
        "front axle's change for the tongue",
        lambda f: f["front_s"] - f["front_h"],
        "That is what the front axle lost. It is a part of what happened, not the load on the "
        "hitch.",
    ),
    "hitched_for_tongue": WayToErr(
        "trailer platform for the tongue",
        lambda f: f["trailer_h"],
        "Platform 3 carries the trailer's wheels. The tongue is what is not on it.",
    ),
    # the share
    "share_of_axles": WayToErr(
        "share of the wrong base",
        lambda f: _net(f) / f["trailer_h"],
        "You divided by the trailer's axles. The share is of the trailer in total, tongue "
        "included.",
    ),
    "share_of_dry": WayToErr(
        "share of the wrong base",
        lambda f: _net(f) / f["dry_weight"],
        "You divided by the dry weight. The share is of the trailer as loaded.",
    ),
    "share_of_rating": WayToErr(
        "share of the wrong base",
        lambda f: _net(f) / f["tow_rating"],
        "You divided by the tow rating. The share is of the trailer as weighed.",
    ),
    "share_of_gvwr": WayToErr(
        "share of the wrong base",
        lambda f: _net(f) / f["t_gvwr"],
        "You divided by the trailer's rating. The share is of the trailer as weighed.",
    ),
    # totals and payload
    "solo_over": WayToErr(
        "tongue not carried by the vehicle",
        lambda f: abs(_solo(f) - f["gvwr"]),
        "You took the vehicle alone. What the trailer rests on the hitch counts against its "
        "rating.",
    ),
    "axles_as_gvwr": WayToErr(
        "sum of the axle ratings as the total",
        lambda f: abs(f["gawr_front"] + f["gawr_rear"] - _hitched(f)),
        "You compared with the axle ratings added up. Frame, brakes and wheels have a limit of "
        "their own: the plated total.",
    ),
    "rear_margin": WayToErr(
        "one axle for the vehicle",
        lambda f: abs(f["gawr_rear"] - f["rear_h"]),
        "That is the rear axle's margin. The total is another limit, checked apart.",
    ),
    "placard_people": WayToErr(
        "hitch and tongue forgotten",
        lambda f: f["payload"] - f["people"] - f["gear"],
        "You took people and gear off the placard. The hitch's own mass and the tongue count "
        "against it too.",
    ),
    "placard_all": WayToErr(
        "the placard believed",
        lambda f: f["payload"] - f["people"] - f["gear"] - f["hitch"] - _net(f),
        "All of it is taken off, but the placard is for the vehicle as it left the factory; what "
        "was fitted since is heavier.",
    ),
    "solo_room": WayToErr(
        "tongue not carried by the vehicle",
        lambda f: f["gvwr"] - _solo(f),
        "That is what is left of the vehicle alone. The tongue still comes onto it.",
    ),
    "placard_itself": WayToErr(
        "the placard believed",
        lambda f: f["payload"],
        "{payload} is on the placard: for a vehicle as it left the factory, with nobody in it.",
    ),
    "gcwr_tongue_twice": WayToErr(
        "tongue counted twice",
        lambda f: f["gcwr"] - _hitched(f) - _trailer(f),
        "The vehicle hitched and the trailer in total both hold the tongue. It counts once.",
    ),
    "gcwr_no_tongue": WayToErr(
        "tongue left out",
        lambda f: f["gcwr"] - _solo(f) - f["trailer_h"],
        "The vehicle alone and platform 3: the tongue is in neither.",
    ),
    "gcwr_made_up": WayToErr(
        "a sum believed for a rating",
        lambda f: f["gvwr"] + f["tow_rating"] - f["gross_h"],
        "The total of vehicle and tow rating is no rating. The published one is often lower, and "
        "it is lower here.",
    ),
    "tow_room": WayToErr(
        "not the limiting rating",
        lambda f: f["tow_rating"] - _trailer(f),
        "That is what is left of the tow rating. The limit that ends first is another.",
    ),
    "best_margin": WayToErr(
        "the best margin for the room",
        lambda f: max(
            f["gawr_front"] - f["front_h"],
            f["gawr_rear"] - f["rear_h"],
            f["gvwr"] - _hitched(f),
            f["gcwr"] - f["gross_h"],
        ),
        "That is the largest margin. The least one ends the loading.",
    ),
    "percent_of_load": WayToErr(
        "per cent of the wrong base",
        lambda f: (_hitched(f) - f["gvwr"]) / _hitched(f),
        "You divided by the load. Per cent over is of the rating.",
    ),
    "percent_with_ten": WayToErr(
        "“a few per cent are fine”",
        lambda f: (_hitched(f) - 1.1 * f["gvwr"]) / f["gvwr"],
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
        "trailer rating for tongue rating",
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
        "That is what the scale shows. The beam carries most of it to the support.",
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
        "Back makes the tongue lighter; you made it heavier.",
    ),
    "ratio_turned": WayToErr(
        "ratio upside down",
        lambda f: f["tongue"] - f["m"] * f["length"] / f["d"],
        "The ratio is upside down: the move is divided by the length from coupler to axles.",
    ),
    "all_of_it": WayToErr(
        "all of it off the tongue",
        lambda f: f["tongue"] - f["m"],
        "The item is still in the trailer. Only a part of it moved off the tongue.",
    ),
    "nothing_changes": WayToErr(
        "no change", lambda f: f["tongue"], "The total does not change, but where it rests does."
    ),
    "water_all": WayToErr(
        "all of it off the tongue",
        lambda f: f["m"],
        "That is all of the water. The axles carried most of it; only its share by the lever was "
        "on the tongue.",
    ),
    "water_other_arm": WayToErr(
        "the axles' share for the tongue's",
        lambda f: f["m"] * f["x"] / f["length"],
        "That is what the axles lose. The tongue loses the rest.",
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
        "{tow_rating} is the tow rating: one limit of many. The payload ends sooner.",
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
        "Close, but the hitch's own mass counts as payload too.",
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
        "That row carries less than the tire does. Take the first one that carries it.",
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
        "You counted the gear alone. People, hitch and tongue are load too.",
    ),
    "other_side": WayToErr(
        "the other figure",
        lambda f: f["other"],
        "That is the change of another axle. Read the line again.",
    ),
    "trailer_lost": WayToErr(
        "all of what left the trailer",
        lambda f: f["m"],
        "That is what was left behind. The hitch carried only a part of it.",
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
