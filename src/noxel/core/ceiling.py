"""The heaviest trailer that a vehicle, loaded as it is, can pull: the least of what each limit allows."""

from dataclasses import dataclass

from noxel.core.predict import predict_solo
from noxel.core.ratings import cushion, limits, share_range
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
    towing = rig if rig.trailer is not None else rig.model_copy(update={"trailer": _ANY_TRAILER})
    solo = predict_solo(towing)
    share = rig.plan.tongue_share or share_range(rig)[1]
    lever = solo.overhang / solo.wheelbase
    use: dict[str, tuple[float, float]] = {  # what the vehicle already uses of a limit, what each kg of trailer adds
        "vehicle.tow_rating": (0.0, 1.0),
        "combination.gross": (solo.gross, 1.0),
        "vehicle.gross": (solo.gross, share),
        "vehicle.rear_axle": (solo.rear, share * (1 + lever)),
        "vehicle.front_axle": (solo.front, -share * lever),
        "vehicle.payload": (solo.cargo, share),
        "hitch.trailer": (0.0, 1.0),
        "hitch.tongue": (0.0, share),
    }
    known = limits(towing)
    found: dict[str, float] = {}
    for check, (used, slope) in use.items():
        limit = known.get(check)
        if limit is not None and slope > 0:
            found[check] = max(0.0, (cushion(rig, check) * limit.kg - used) / slope)
    binding = min(found, key=lambda check: found[check], default=None)
    estimated = tuple(sorted(check for check in found if (limit := known[check]) and limit.worked_out))
    return Ceiling(share, found, binding, found[binding] if binding else None, estimated)
