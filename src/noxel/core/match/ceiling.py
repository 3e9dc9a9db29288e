"""The heaviest trailer that a vehicle, loaded as it is, can pull: the least of what each limit
allows.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits import Limit, cushion, exceeds, limit_of, limits
from noxel.core.mechanics import Solo, Weighing, anything_listed, predict_solo, weigh
from noxel.core.rig import RigFile, Trailer, on_its_wheels, share_range

_ANY_TRAILER = Trailer()
ASKED = (
    "vehicle.tow_rating",
    "combination.gross",
    "vehicle.gross",
    "vehicle.rear_axle",
    "vehicle.front_axle",
    "vehicle.payload",
    "hitch.trailer",
    "hitch.tongue",
)
"""The limits that the question knows; of equals the first counts."""
ShareWay = Literal["towed_car", "plan", "weighed", "dry", "policy"]
"""How the tongue share to plan with is known."""
BY_SHARE = (
    "vehicle.gross",
    "vehicle.rear_axle",
    "vehicle.front_axle",
    "vehicle.payload",
    "hitch.tongue",
)
"""The limits that a trailer uses through its tongue."""
NEVER_BINDS = ("rough",)
"""At a share above 10 % a tongue limit of 10 % of the tow rating would contradict the rating that
it came from.
"""


@dataclass(frozen=True, slots=True)
class Ceiling:
    """The heaviest trailer by each limit and the limiting one; which limits are not real, not
    placed, not known. [kg]
    """

    tongue_share: float
    share_way: ShareWay
    limits: dict[str, float]
    binding: str | None
    ceiling: float | None
    estimated: tuple[str, ...] = ()
    missing: tuple[str, ...] = ()
    unknown: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Use:
    """How a limit is used: what the vehicle already takes of it, and what each kilogram of trailer
    adds. [kg]
    """

    used: float
    slope: float


def share_planned(rig: RigFile) -> tuple[float, ShareWay]:
    """The tongue share to plan with, and how it is known: the plan's own, else as weighed last,
    else as built, else the high end of the range aimed at.

    A weighed or dry share below that range is raised to its low end: a trailer that light on the
    hitch is to be loaded otherwise.
    """
    low, high = share_range(rig)
    if on_its_wheels(rig):
        return 0.0, "towed_car"
    if rig.plan.tongue_share is not None:
        return rig.plan.tongue_share, "plan"
    weighing = weigh(rig, rig.weigh_ins[-1]) if rig.weigh_ins else Weighing()
    weighed = weighing.figures.get("tongue_share")
    if weighed is not None and 0 < weighed.value < 1 and not weighing.off_height:
        return max(low, weighed.value), "weighed"
    trailer = rig.trailer
    if trailer and trailer.dry_weight and trailer.dry_tongue is not None:
        return max(low, trailer.dry_tongue.kg / trailer.dry_weight.kg), "dry"
    return high, "policy"


def uses(solo: Solo, share: float) -> dict[str, Use]:
    """How a trailer at a tongue share uses each limit of the vehicle and its hitch, bars slack.

    Parameters
    ----------
    solo : Solo
        The vehicle as loaded, without the trailer; limits whose load is not known are left out.
    share : float
        Tongue share.

    Notes
    -----
    With wheelbase a and overhang b a trailer W puts s·W on the hitch, s·W·(1 + b/a) on the rear
    axle and −s·W·b/a on the front.
    """
    lever = solo.lever
    found = {
        "vehicle.tow_rating": (0.0, 1.0),
        "combination.gross": (solo.gross, 1.0),
        "vehicle.gross": (solo.gross, share),
        "vehicle.rear_axle": (solo.rear, None if lever is None else share * (1 + lever)),
        "vehicle.front_axle": (solo.front, None if lever is None else -share * lever),
        "vehicle.payload": (solo.cargo, share),
        "hitch.trailer": (0.0, 1.0),
        "hitch.tongue": (0.0, share),
    }
    return {
        check: Use(used, slope)
        for check, (used, slope) in found.items()
        if used is not None and slope is not None
    }


def every_use(rig: RigFile, solo: Solo, share: float) -> dict[str, Use]:
    """:func:`uses`, and each tire of the vehicle with its part of its axle."""
    found = uses(solo, share)
    for check, axle, tires in (
        ("tires.front", "vehicle.front_axle", rig.vehicle.tires.front),
        ("tires.rear", "vehicle.rear_axle", rig.vehicle.tires.rear),
    ):
        if tires and tires.count and axle in found:
            found[check] = Use(found[axle].used / tires.count, found[axle].slope / tires.count)
    return found


def in_front(rig: RigFile, used: Mapping[str, Use], known: Mapping[str, Limit | None]) -> list[Use]:
    """By how much the front axle is over its limit without a trailer, and what each kilogram of
    trailer takes off that.

    For itself and for its tires, as loads on the axle; only where a trailer relieves it, so that it
    is not a ceiling. [kg]
    """
    found, tires = [], rig.vehicle.tires.front
    for check, count in (
        ("vehicle.front_axle", 1),
        ("tires.front", (tires.count if tires else None) or 1),
    ):
        use, limit = used.get(check), known.get(check)
        if use is not None and limit is not None and use.slope <= 0:
            found.append(
                Use((use.used - cushion(rig, check) * limit.kg) * count, use.slope * count)
            )
    return found


def as_towing(rig: RigFile) -> RigFile:
    """The rig as one that tows, whether it has a trailer yet or not: its limits are those of a
    towing vehicle.
    """
    return rig if rig.trailer is not None else rig.model_copy(update={"trailer": _ANY_TRAILER})


def towing_limits(rig: RigFile) -> dict[str, Limit | None]:
    """The limits of the vehicle as one that tows; a payload that rests on a guessed curb weight
    counts as a guess.
    """
    towing = as_towing(rig)
    known = limits(towing)
    return {check: limit_of(towing, check, known, Weighing()) for check in known}


def ceiling_of(
    rig: RigFile,
    used: Mapping[str, Use],
    share: float,
    known: Mapping[str, Limit | None],
    way: ShareWay = "plan",
) -> Ceiling:
    """The heaviest trailer by every limit, with what a vehicle loaded so uses of each
    (:func:`ceiling`).
    """
    found: dict[str, float] = {}
    for check, use in used.items():
        limit = known.get(check)
        if limit is not None and use.slope > 0:
            found[check] = (cushion(rig, check) * limit.kg - use.used) / use.slope
    counted = [
        check for check in found if (limit := known[check]) and limit.certainty not in NEVER_BINDS
    ]
    least = min((found[check] for check in counted), default=0.0)
    binding = next((check for check in counted if not exceeds(found[check], least)), None)
    estimated = tuple(
        sorted(check for check in found if (limit := known[check]) and not limit.real)
    )
    found = {check: max(0.0, kg) for check, kg in found.items()}
    asked = [check for check in ASKED if share or check not in BY_SHARE]
    missing = [
        check
        for check in asked
        if known.get(check) is not None and check not in used and check != "vehicle.front_axle"
    ]
    if not anything_listed(rig, "vehicle") and not _based(rig):
        missing.append("loads")
    unknown = [
        check for check in asked if known.get(check) is None and check != "vehicle.front_axle"
    ]
    return Ceiling(
        share,
        way,
        found,
        binding,
        found[binding] if binding else None,
        estimated,
        tuple(sorted(missing)),
        tuple(sorted(unknown)),
    )


def _based(rig: RigFile) -> bool:
    """Whether the plan says what the vehicle carries without the list."""
    base = rig.plan.vehicle_base
    return base is not None and base.front is not None and base.rear is not None


def ceiling(rig: RigFile) -> Ceiling:
    """Work out the heaviest loaded trailer by every limit (rig-file format, ``ceiling``).

    Parameters
    ----------
    rig : RigFile
        The vehicle as :func:`noxel.core.mechanics.predict_solo` loads it; the trailer itself is not
        used.

    Returns
    -------
    Ceiling
        Limits taken at cushion × limit, loads as with slack bars, hitch ratings by mode; never
        below zero. [kg]

    Notes
    -----
    With tongue share s, wheelbase a and overhang b: payload, GVWR and tongue limits allow room/s;
    the rear axle allows room/(s·(1 + b/a)); the front axle, for a pin ahead of the rear axle,
    room/(s·(−b/a)). A rough tongue limit is listed and never the ceiling.
    """
    towing, (share, way) = as_towing(rig), share_planned(rig)
    used = uses(predict_solo(towing), share)
    return ceiling_of(towing, used, share, towing_limits(rig), way)
