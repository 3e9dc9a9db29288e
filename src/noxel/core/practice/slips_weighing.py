"""Ways to err with what was weighed: a ticket read, the trailer in total, the tongue, its share."""

from collections.abc import Mapping

from noxel.core.practice.way_to_err import WayToErr, front_lost, hitched, net, trailer

WEIGHED: Mapping[str, WayToErr] = {
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
        hitched,
        "That is the vehicle with the trailer on its hitch: the tongue weight is still in it.",
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
        "tongue weight left out",
        lambda f: f["trailer_h"],
        "That is what stands on platform 3. The tongue weight is not on it: it rests on the "
        "vehicle.",
    ),
    "tongue_twice": WayToErr(
        "tongue weight counted twice",
        lambda f: trailer(f) + net(f),
        "The load on the hitch is in it twice: once in the trailer in total, once more on top.",
    ),
    "rear_gain_added": WayToErr(
        "rear axle's gain for the tongue weight",
        lambda f: f["trailer_h"] + f["rear_h"] - f["rear_s"],
        "You added what the rear axle gained. Only both axles together are the tongue.",
        front_lost,
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
        "rear axle's gain for the tongue weight",
        lambda f: f["rear_h"] - f["rear_s"],
        "That is what the rear axle gained. Both axles count.",
        front_lost,
    ),
    "slack_rear_gain": WayToErr(
        "rear axle's gain for the tongue weight",
        lambda f: f["rear_k"] - f["rear_s"],
        "That is what the rear axle gained with slack bars. What the front axle lost or gained "
        "belongs in it too.",
    ),
    "net_with_bars": WayToErr(
        "net load with the bars engaged",
        net,
        "That is what the engaged bars left on the vehicle. Take the slack pass.",
        lambda f: (
            "The bars had carried a part over to the trailer's axles."
            if f["trailer_h"] > f["trailer_k"]
            else ""
        ),
    ),
    "ten_percent": WayToErr(
        "a rule of thumb for a measurement",
        lambda f: 0.10 * f["t_gvwr"],
        "That is a tenth of the trailer's rating: a rule of thumb, not what your tickets say.",
    ),
    "tenth_of_trailer": WayToErr(
        "a rule of thumb for a measurement",
        lambda f: 0.10 * trailer(f),
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
        "That is 13 % of the rating, the share of a ball. Yours is a pin, and it was weighed.",
        lambda f: "It carries more." if net(f) > 0.13 * f["t_gvwr"] else "",
    ),
    "front_gain": WayToErr(
        "front axle's change for the tongue weight",
        lambda f: f["front_s"] - f["front_h"],
        "That is the front axle's change. It is a part of what happened, not the load on the "
        "hitch.",
    ),
    "hitched_for_tongue": WayToErr(
        "trailer platform for the tongue weight",
        lambda f: f["trailer_h"],
        "Platform 3 carries the trailer's wheels. The tongue weight is what is not on it.",
    ),
    # the share
    "share_of_axles": WayToErr(
        "share of the wrong base",
        lambda f: net(f) / f["trailer_h"],
        "You divided by the trailer's axles. The share is of the trailer in total, tongue "
        "included.",
    ),
    "share_of_dry": WayToErr(
        "share of the wrong base",
        lambda f: net(f) / f["dry_weight"],
        "You divided by the dry weight. The share is of the trailer as loaded.",
    ),
    "share_of_rating": WayToErr(
        "share of the wrong base",
        lambda f: net(f) / f["tow_rating"],
        "You divided by the tow rating. The share is of the trailer as weighed.",
    ),
    "share_of_gvwr": WayToErr(
        "share of the wrong base",
        lambda f: net(f) / f["t_gvwr"],
        "You divided by the trailer's rating. The share is of the trailer as weighed.",
    ),
}
