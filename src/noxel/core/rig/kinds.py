"""What follows from the kind of rig: ball or pin, a tongue or none, the usual tongue share."""

from noxel.core.rig.rigfile import RigFile

BALL_SHARE = (0.10, 0.15)
PIN_SHARE = (0.15, 0.25)
"""Usual tongue share on a ball, and pin share on a fifth wheel or gooseneck."""
EUROPE_SHARE, EUROPE_USUAL = (0.05, 0.07), (0.04, 0.10)
"""What is aimed at on a ball in Europe, and what is usual there."""


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


def _european(rig: RigFile) -> bool:
    return rig.kind == "conventional" and rig.terms == "europe"


def usual_share(rig: RigFile) -> tuple[float, float]:
    """The tongue share that this kind of hitch usually has, low and high."""
    return PIN_SHARE if on_pin(rig) else EUROPE_USUAL if _european(rig) else BALL_SHARE


def share_range(rig: RigFile) -> tuple[float, float]:
    """The tongue share aimed at, low and high: the policy's own, else that of the kind of hitch."""
    own = rig.policy.tongue_share
    return own or (EUROPE_SHARE if _european(rig) else usual_share(rig))
