"""The heaviest trailer that a vehicle, loaded as it is, can pull: the least of what each limit allows."""

from collections.abc import Mapping
from dataclasses import dataclass

from noxel.core.predict import Solo, predict_solo
from noxel.core.ratings import Limit, cushion, limits, share_range
from noxel.core.rig import Trailer
from noxel.core.rigfile import RigFile

_ANY_TRAILER = Trailer()


@dataclass(frozen=True, slots=True)
class Ceiling:
    """The heaviest trailer by each limit, the binding one, and which limits were worked out. [kg]"""

    tongue_share: float
    limits: dict[str, float]
    binding: str | None
    ceiling: float | None
    estimated: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Use:
    """How a limit is used: what the vehicle already takes of it, and what each kilogram of trailer adds. [kg]"""

    used: float
    slope: float


def share_planned(rig: RigFile) -> float:
    """The tongue share to reckon with: the plan's own, else the high end of the range aimed at."""
    return rig.plan.tongue_share or share_range(rig)[1]


def uses(solo: Solo, share: float) -> dict[str, Use]:
    """How a trailer at a tongue share uses each limit of the vehicle and its hitch, bars slack.

    Parameters
    ----------
    solo : Solo
        The vehicle as loaded, without the trailer.
    share : float
        Tongue share.

    Notes
    -----
    With wheelbase a and overhang b a trailer W puts s·W on the hitch, s·W·(1 + b/a) on the rear axle and −s·W·b/a on the front.
    """
    lever = solo.overhang / solo.wheelbase
    return {
        "vehicle.tow_rating": Use(0.0, 1.0),
        "combination.gross": Use(solo.gross, 1.0),
        "vehicle.gross": Use(solo.gross, share),
        "vehicle.rear_axle": Use(solo.rear, share * (1 + lever)),
        "vehicle.front_axle": Use(solo.front, -share * lever),
        "vehicle.payload": Use(solo.cargo, share),
        "hitch.trailer": Use(0.0, 1.0),
        "hitch.tongue": Use(0.0, share),
    }


def every_use(rig: RigFile, solo: Solo, share: float) -> dict[str, Use]:
    """:func:`uses`, and each tire of the vehicle with its part of its axle."""
    found = uses(solo, share)
    for check, axle, tires in (
        ("tires.front", "vehicle.front_axle", rig.vehicle.tires.front),
        ("tires.rear", "vehicle.rear_axle", rig.vehicle.tires.rear),
    ):
        if tires and tires.count:
            found[check] = Use(found[axle].used / tires.count, found[axle].slope / tires.count)
    return found


def in_front(rig: RigFile, used: Mapping[str, Use], known: Mapping[str, Limit | None]) -> list[Use]:
    """By how much the front axle is over its limit without a trailer, and what each kilogram of trailer takes off that.

    For itself and for its tires, as loads on the axle; only where a trailer relieves it: it ends nothing there. [kg]
    """
    found, tires = [], rig.vehicle.tires.front
    for check, count in (("vehicle.front_axle", 1), ("tires.front", (tires.count if tires else None) or 1)):
        use, limit = used.get(check), known.get(check)
        if use is not None and limit is not None and use.slope <= 0:
            found.append(Use((use.used - cushion(rig, check) * limit.kg) * count, use.slope * count))
    return found


def as_towing(rig: RigFile) -> RigFile:
    """The rig as one that tows, whether it has a trailer yet or not: its limits are those of a towing vehicle."""
    return rig if rig.trailer is not None else rig.model_copy(update={"trailer": _ANY_TRAILER})


def ceiling_of(rig: RigFile, used: Mapping[str, Use], share: float, known: Mapping[str, Limit | None]) -> Ceiling:
    """The heaviest trailer by every limit, with what a vehicle loaded so uses of each (:func:`ceiling`)."""
    found: dict[str, float] = {}
    for check, use in used.items():
        limit = known.get(check)
        if limit is not None and use.slope > 0:
            found[check] = max(0.0, (cushion(rig, check) * limit.kg - use.used) / use.slope)
    binding = min(found, key=lambda check: found[check], default=None)
    estimated = tuple(sorted(check for check in found if (limit := known[check]) and limit.worked_out))
    return Ceiling(share, found, binding, found[binding] if binding else None, estimated)


def ceiling(rig: RigFile) -> Ceiling:
    """Work out the heaviest loaded trailer by every limit (rig-file format, ``ceiling``).

    Parameters
    ----------
    rig : RigFile
        The vehicle as :func:`noxel.core.predict.predict_solo` loads it; the trailer itself is not used.

    Returns
    -------
    Ceiling
        Limits taken at cushion × limit, loads as with slack bars, hitch ratings by mode; never below zero. [kg]

    Raises
    ------
    MissingInput
        Naming the base, length or position that is not there.

    Notes
    -----
    With tongue share s, wheelbase a and overhang b: payload, GVWR and tongue limits allow room/s; the rear axle allows
    room/(s·(1 + b/a)); the front axle, for a pin ahead of the rear axle, room/(s·(−b/a)).
    """
    towing = as_towing(rig)
    share = share_planned(rig)
    return ceiling_of(towing, uses(predict_solo(towing), share), share, limits(towing))
