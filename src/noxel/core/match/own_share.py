"""The tongue share that a rig is planned at, and how it is known."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.mechanics import RATIO_OFF, Weighing, anything_listed, planned, uncertainty
from noxel.core.rig import RigFile, on_its_wheels, share_range

ShareWay = Literal["towed_car", "plan", "weighed", "places", "dry", "policy", "typed"]
"""How a tongue share to plan with is known."""


SHARE_WORDS: Mapping[ShareWay, str] = {
    "towed_car": "on its own wheels",
    "plan": "as planned",
    "weighed": "as weighed",
    "places": "by the places on your list",
    "dry": "as built, empty",
    "policy": "the most you aim at",
    "typed": "as set here",
}


@dataclass(frozen=True, slots=True)
class Share:
    """A tongue share with its ±; what is only aimed at has none."""

    value: float
    way: ShareWay
    off: float = 0.0


def share_planned(rig: RigFile, weighing: Weighing, *, places: bool = False) -> Share:
    """The tongue share to plan with: the plan's own, else as weighed, else as built, else the high
    end of the range aimed at (rig-file format, ``ceiling``).

    Parameters
    ----------
    rig : RigFile
        A towed car on its wheels has none.
    weighing : Weighing
        What was weighed; a tongue measured at another height does not count.
    places : bool
        Whether the share by the places of what is listed goes before the one as built.

    Notes
    -----
    One that is known and below the range aimed at is raised to its low end: a trailer that light on
    the hitch is to be loaded otherwise.
    """
    low, high = share_range(rig)
    if on_its_wheels(rig):
        return Share(0.0, "towed_car")
    if rig.plan.tongue_share is not None:
        return Share(rig.plan.tongue_share, "plan", RATIO_OFF)
    return share_known(rig, weighing, low, places=places) or Share(high, "policy")


def share_known(
    rig: RigFile, weighing: Weighing, low: float, *, places: bool = False
) -> Share | None:
    """The share as weighed, else by places where that is asked for, else as built; not below
    ``low``.
    """
    weighed, trailer = weighing.figures.get("tongue_share"), rig.trailer
    if weighed is not None and 0 < weighed.value < 1 and not weighing.off_height:
        return _raised(Share(weighed.value, "weighed", weighed.plus_minus), low)
    if places and anything_listed(rig, "trailer"):
        by_places = planned(rig).loads().get("tongue_share")
        if by_places is not None and 0 < by_places < 1:
            off = uncertainty(rig).get("tongue_share", 0.0)
            return _raised(Share(by_places, "places", off), low)
    if trailer and trailer.dry_weight and trailer.dry_tongue is not None:
        return _raised(Share(trailer.dry_tongue.kg / trailer.dry_weight.kg, "dry", RATIO_OFF), low)
    return None


def _raised(share: Share, low: float) -> Share:
    return share if share.value >= low else Share(low, share.way)
