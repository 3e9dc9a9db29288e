"""A weighing place that is not level, where axles are weighed one after the other."""

from collections.abc import Iterator

from noxel.core.quantities import print_share
from noxel.core.weigh.notes import Notes
from noxel.core.wording import Advisory, vehicle_word

HEIGHT = 0.75
"""How high a loaded vehicle's centre of mass usually lies. [m]"""
NOTICED = 0.005
"""A place that falls less is level enough."""


def on_a_slope(notes: Notes) -> Iterator[Advisory]:
    """By how much a slope shifts load between the axles of the vehicle.

    Notes
    -----
    Moments about the lower axle: load · height · slope ÷ wheelbase leaves the upper axle for the
    lower one. The total does not change.
    """
    slope = notes.weigh_in.scale.slope if notes.weigh_in.scale else None
    whole, wheelbase = (
        notes.weighing.figures.get("vehicle_hitched"),
        notes.rig.vehicle.geometry.wheelbase,
    )
    if not slope or slope < NOTICED or whole is None or wheelbase is None:
        return
    shift = whole.value * HEIGHT * slope / wheelbase.m
    sentence = (
        f"The place falls by {print_share(slope)}: about {notes.mass(shift)} of the "
        f"{vehicle_word(notes.rig)} rest on the lower axle instead of "
        "the upper one. The total is right; for the axles weigh facing the other way too, and "
        "take the middle of both."
    )
    yield notes.say(
        "on_a_slope",
        sentence,
        f"{notes.at}.scale.slope",
        note=shift < 0.01 * whole.value,
        shift=shift,
    )
