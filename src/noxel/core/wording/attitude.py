"""How level the coupled trailer rides."""

import math

from noxel.core.quantities import METRES, print_length
from noxel.core.rig import RigFile, on_pin
from noxel.core.wording.answers import Answer

NOSE_UP, NOSE_DOWN = 0.005, 0.02
"""From these slopes on, a trailer's attitude is worth a caution: level, or a little nose-down, is
what makers ask for.
"""


class Attitude(Answer):
    """How the coupled trailer rides: nose up is positive. ``drop`` is how much lower the ball must
    come, minus higher.
    """

    drop: float
    slope: float
    level: bool
    says: str


def attitude(rig: RigFile) -> Attitude | None:
    """How the coupled trailer rides, and how much lower the ball must come for it to be level."""
    trailer, ball = rig.trailer, rig.hitch.ball_height
    if trailer is None or ball is None or trailer.geometry.coupler_height is None:
        return None
    drop = ball.m - trailer.geometry.coupler_height.m
    length = trailer.geometry.coupler_to_axles
    slope = drop / length.m if length else 0.0
    unit = rig.units.lengths
    by = print_length(abs(drop), unit, fine=True)
    part = "hitch plate" if on_pin(rig) else "ball"
    level = -NOSE_DOWN <= slope <= NOSE_UP if length else math.isclose(drop, 0.0, abs_tol=0.02)
    if abs(drop) < 0.001:
        says = f"The {part} is where the level trailer wants it."
    elif drop > 0:
        says = (
            f"The {part} is {by} too high for a level trailer: it rides nose-up. {by} more "
            "drop would level it."
        )
    else:
        says = (
            f"The {part} is {by} too low for a level trailer: it rides nose-down. {by} more "
            "rise would level it."
        )
    if not level:
        says += (
            f" Nose-up {_nose_up(rig)}."
            if drop > 0
            else " Far nose-down, the tail and the brakes suffer."
        )
    return Attitude(drop=drop / METRES[unit], slope=slope, level=level, says=says)


def _nose_up(rig: RigFile) -> str:
    """What riding nose-up does: two axles on torsion springs do not share their load, and the
    tongue's may go either way.
    """
    torsion = rig.trailer is not None and rig.trailer.suspension == "torsion"
    if torsion and len(rig.trailer.ratings.gawr if rig.trailer else ()) > 1:
        return "puts more on one axle than on the other and changes the load on the hitch: weigh it"
    return "takes load off the hitch and invites sway"
