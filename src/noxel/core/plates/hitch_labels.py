"""Labels of the hitch, and what must fit between its links, the vehicle and the trailer."""

from collections.abc import Callable, Iterator

from noxel.core.plates.looked_at import LABEL_ROUNDING, Labels, above
from noxel.core.quantities import print_length
from noxel.core.rig import on_pin, rating_in
from noxel.core.wording import Advisory, term_name

BALL_SIZE_TOLERANCE = 0.0003
"""Balls of 50 mm and of 2 in (50.8 mm) are different sizes. [m]"""


PIN_BEHIND = 0.05
"""A pin this far behind the rear axle is behind it, not over it. [m]"""


def _hitch(plates: Labels) -> Iterator[Advisory]:
    for index, part in enumerate(plates.rig.hitch.parts):
        for field in ("trailer", "tongue"):
            rating = getattr(part, field)
            carrying, distributing = (
                getattr(rating, "carrying", None),
                getattr(rating, "distributing", None),
            )
            if carrying and distributing and carrying.kg > distributing.kg:
                yield plates.say(
                    "modes_swapped",
                    f"hitch.parts[{index}].{field}.carrying",
                    f"The {part.kind}'s weight-carrying figure {plates.mass(carrying.kg)} is "
                    "above its weight-distributing one "
                    f"{plates.mass(distributing.kg)}: usually it is the other way round.",
                    carrying=carrying.kg,
                    distributing=distributing.kg,
                )


def _motorhome(plates: Labels) -> Iterator[Advisory]:
    """A motorhome drives near its GVWR: what it may tow then is the rest of its GCWR, whatever its
    hitch is rated at.
    """
    rig, ratings = plates.rig, plates.rig.vehicle.ratings
    if (
        rig.kind != "motorhome"
        or not ratings.gcwr
        or not ratings.gvwr
        or ratings.gcwr.kg <= ratings.gvwr.kg
    ):
        return
    left = ratings.gcwr.kg - ratings.gvwr.kg
    hitch = [rating_in(part.trailer, rig.hitch.mode) for part in rig.hitch.parts]
    rated = [
        rating.kg for rating in (rating_in(ratings.tow_rating, rig.hitch.mode), *hitch) if rating
    ]
    if rated and above(min(rated), left):
        yield plates.say(
            "hitch_above_gcwr_left",
            "vehicle.ratings.gcwr",
            f"A motorhome loaded to its {term_name(rig, 'gvwr')} has {plates.mass(left)} of its "
            f"{term_name(rig, 'gcwr')} left for what it tows: less than the "
            f"{plates.mass(min(rated))} that its hitch and {term_name(rig, 'tow_rating')} allow.",
            note=True,
            rated=min(rated),
            left=left,
        )


def _pin(plates: Labels) -> Iterator[Advisory]:
    """A pin belongs over the rear axle or ahead of it."""
    rig, offset = plates.rig, plates.rig.vehicle.geometry.hitch_offset
    if on_pin(rig) and offset is not None and offset.m > PIN_BEHIND:
        yield plates.say(
            "pin_behind_axle",
            "vehicle.geometry.hitch_offset",
            f"The pin stands {print_length(offset.m, rig.units.lengths)} behind the rear axle: it "
            "lifts the front axle, and the rear "
            "axle carries more than the pin weight. Hitch makers ask for it over the axle or "
            "ahead of it. Measure again; a point "
            "ahead of the axle is typed with a minus.",
        )


def _chain_fits(plates: Labels) -> Iterator[Advisory]:
    """What must fit between the links, and what the vehicle's maker says of weight distribution."""
    rig = plates.rig
    hitch, rule = rig.hitch, rig.vehicle.distribution
    sized = [(index, part) for index, part in enumerate(hitch.parts) if part.size]
    balls = [(index, part) for index, part in sized if "coupler" not in part.kind.lower()]
    couplers = [(index, part) for index, part in sized if "coupler" in part.kind.lower()]
    for index, ball in balls:
        for _, coupler in couplers:
            if (
                ball.size
                and coupler.size
                and abs(ball.size.m - coupler.size.m) > BALL_SIZE_TOLERANCE
            ):
                yield plates.say(
                    "ball_size",
                    f"hitch.parts[{index}].size",
                    f"The ball is {ball.size.m * 1000:.1f} mm across ({_inches(ball.size.m)}), "
                    "the coupler takes "
                    f"{coupler.size.m * 1000:.1f} mm ({_inches(coupler.size.m)}). A ball of "
                    "another size can come off or jam. "
                    "Both sizes are stamped on them.",
                )
    added = sum(
        part.weight.kg for part in hitch.parts if part.weight and "coupler" not in part.kind.lower()
    )
    if hitch.weight and added > hitch.weight.kg * (1 + LABEL_ROUNDING):
        yield plates.say(
            "hitch_parts_heavier",
            "hitch.weight",
            f"Its parts add up to {plates.mass(added)}, more than the hitch as a whole, "
            f"{plates.mass(hitch.weight.kg)}.",
            parts=added,
            whole=hitch.weight.kg,
        )
    if rule is None or rig.trailer is None:
        return
    if rule.rule == "forbidden" and hitch.weight_distribution:
        yield plates.say(
            "bars_forbidden",
            "hitch.weight_distribution",
            "The vehicle's maker forbids weight distribution, and this hitch has it. "
            "Ask the maker before towing with the bars.",
        )
    trailer = rig.trailer.ratings.gvwr or rig.trailer.dry_weight
    if rule.rule == "required" and trailer and not hitch.weight_distribution:
        above = rule.above.kg if rule.above else 0.0
        if trailer.kg > above:
            beyond = f" above {plates.mass(above)}" if above else ""
            yield plates.say(
                "bars_required",
                "hitch.weight_distribution",
                f"The vehicle's maker requires weight distribution{beyond}, and this hitch has "
                "none; the trailer is rated "
                f"{plates.mass(trailer.kg)}.",
                above=above,
                trailer=trailer.kg,
            )


def _inches(metres: float) -> str:
    """A diameter in inches and sixteenths, as balls are stamped."""
    sixteenths = round(metres / 0.0254 * 16)
    whole, rest = divmod(sixteenths, 16)
    below = 16
    while rest and rest % 2 == 0:
        rest, below = rest // 2, below // 2
    return f"{whole} {rest}/{below} in" if rest else f"{whole} in"


def _brakes(plates: Labels) -> Iterator[Advisory]:
    trailer, above = plates.rig.trailer, plates.rig.policy.brakes_above
    gvwr = trailer.ratings.gvwr if trailer else None
    if trailer and above and gvwr and trailer.brakes == "none" and gvwr.kg > above.kg:
        yield plates.say(
            "brakes_required",
            "policy.brakes_above",
            f"You set trailer brakes as required above {plates.mass(above.kg)}; this trailer is "
            f"rated {plates.mass(gvwr.kg)} and has "
            "none. That figure is local law: check it where you travel.",
            above=above.kg,
            gvwr=gvwr.kg,
        )


OF_THE_HITCH: tuple[Callable[[Labels], Iterator[Advisory]], ...] = (
    _hitch,
    _motorhome,
    _pin,
    _chain_fits,
    _brakes,
)
"""Every look at the hitch, in the order they are listed."""
