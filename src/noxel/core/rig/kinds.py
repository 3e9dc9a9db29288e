"""What follows from the kind of rig: ball or pin, a tongue or none, the usual tongue share."""

from noxel.core.rig.rigfile import RigFile

BALL_SHARE = (0.10, 0.15)
PIN_SHARE = (0.15, 0.25)
"""Usual tongue share on a ball, and pin share on a fifth wheel or gooseneck."""


def on_pin(rig: RigFile) -> bool:
    """Whether the trailer sits on a pin above the vehicle's axle rather than on a ball behind
    it.
    """
    return rig.kind in ("fifth_wheel", "gooseneck")


def on_its_wheels(rig: RigFile) -> bool:
    """Whether a car is towed on its own four wheels: it puts nothing on the hitch, and has no
    tongue share.
    """
    return rig.trailer is not None and rig.trailer.style == "towed_car"


def usual_share(rig: RigFile) -> tuple[float, float]:
    """The usual tongue share of this kind of hitch, low and high."""
    return PIN_SHARE if on_pin(rig) else BALL_SHARE


def share_range(rig: RigFile) -> tuple[float, float]:
    """The tongue share aimed at, low and high: the policy's own, else the usual one."""
    return rig.policy.tongue_share or usual_share(rig)
