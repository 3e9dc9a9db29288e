"""What a sum hides: axles weighed as one group, and the two sides of an axle that was not weighed
by wheel.
"""

from collections.abc import Iterable, Iterator

from noxel.core.limits import UNDER_LOAD, Checked, axle_sets
from noxel.core.quantities import print_share
from noxel.core.weigh.notes import Notes
from noxel.core.wording import Advisory

THIN_GROUP = 0.12
"""How much more than an even share one axle of a group may have to carry before the group is said
to hide nothing.
"""
THIN_SIDES = 0.08
"""The same for one side of an axle."""
_COUNT = {2: "two", 3: "three", 4: "four"}


def axle_split(notes: Notes) -> Iterator[Advisory]:
    """Which share of the group one axle may carry, where the room is thin.

    Notes
    -----
    One axle is over once its share of the group is more than its rating ÷ the group's load; an even
    share is 1 ÷ n. Of trailers with two axles that are within as a group, one axle is over in a
    third of cases where the axles differ by 12 %.
    """
    axles, trailer, hitched = (
        notes.weighing.figures.get("trailer_axles"),
        notes.rig.trailer,
        notes.weighing.hitched,
    )
    ratings = [gawr.kg for gawr in trailer.ratings.gawr] if trailer else []
    count = len(ratings)
    if (
        axles is None
        or hitched is None
        or count < 2
        or hitched.single_axles
        or axles.value <= 0
        or axles.value > sum(ratings)
    ):
        return
    least = min(ratings)
    share = least / axles.value
    if share >= (1 + THIN_GROUP) / count:
        return
    sentence = (
        f"The trailer's {_COUNT.get(count, count)} axles were weighed as one. One of them is over "
        f"its {notes.mass(least)} rating once it carries "
        f"more than {print_share(share)} of the {notes.mass(axles.value)}; an even share is "
        f"{print_share(1 / count)}. "
    )
    if max(ratings) > least:
        sentence += (
            f"Their ratings differ: axles that share evenly count as {count} × "
            f"{notes.mass(least)}. "
        )
    sentence += "Weigh the axles singly where one of them can stand on a platform alone."
    yield notes.say(
        "axles_in_group",
        sentence,
        notes.path(hitched, "readings.trailer"),
        note=True,
        rating=least,
        load=axles.value,
    )


def tag_split(notes: Notes) -> Iterator[Advisory]:
    """Which share of the rear axles the drive axle and the tag axle may carry, where the room is
    thin.

    Notes
    -----
    The scale weighs both as one. Each is over once its share is more than its rating ÷ the load of
    both.
    """
    ratings, rear, hitched = (
        notes.rig.vehicle.ratings,
        notes.weighing.figures.get("rear_hitched"),
        notes.weighing.hitched,
    )
    if (
        rear is None
        or hitched is None
        or not ratings.gawr_rear
        or not ratings.gawr_tag
        or rear.value <= 0
    ):
        return
    drive, tag = ratings.gawr_rear.kg, ratings.gawr_tag.kg
    if (drive + tag) / rear.value >= 1 + THIN_GROUP:
        return
    sentence = (
        f"The drive axle and the tag axle were weighed as one, {notes.mass(rear.value)}. The "
        "drive axle is over once it carries more than "
        f"{print_share(drive / rear.value)} of it, the tag axle once it carries more than "
        f"{print_share(tag / rear.value)}. Weigh them "
        "singly where one of them can stand on a platform alone."
    )
    yield notes.say(
        "axles_in_group",
        sentence,
        notes.path(hitched, "readings.rear"),
        note=True,
        rating=drive + tag,
        load=rear.value,
    )


def side_split(notes: Notes, rows: Iterable[Checked]) -> Iterator[Advisory]:
    """Up to which split between left and right the tires of an axle hold, where the room is thin.

    Notes
    -----
    A side is over once its share of the axle is more than its tires' ratings together ÷ the axle's
    load.
    """
    hitched = notes.weighing.hitched
    if hitched is None or any(name.endswith("_left") for name in hitched.readings):
        return
    known = {row.id: row for row in rows}
    for axle_set in axle_sets(notes.rig):
        row, count = known.get(UNDER_LOAD[axle_set.group][0]), axle_set.tires.count
        if (
            row is None
            or row.actual is None
            or row.limit is None
            or not count
            or row.actual.value <= 0
        ):
            continue
        share = 0.5 * row.limit.kg / row.actual.value
        if 0.5 < share < 0.5 + THIN_SIDES / 2:
            axles = "trailer's axles" if axle_set.group == "trailer" else f"{axle_set.group} axle"
            sentence = (
                f"Weighed as one, the tires of the {axles} are within only while neither side "
                "carries more than "
                f"{print_share(share)} of it. Wheel by wheel would tell."
            )
            yield notes.say(
                "tires_by_side",
                sentence,
                f"{axle_set.path}.max_load",
                note=True,
                rating=row.limit.kg,
                load=row.actual.value,
            )
