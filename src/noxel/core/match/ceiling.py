"""The heaviest trailer that a vehicle, loaded as it is, can pull: the least of what each limit
allows.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits import (
    CHECKS,
    CheckId,
    Limit,
    cushion,
    drive_part,
    exceeds,
    limit_of,
    limits,
    row_for,
    tongue_rows,
)
from noxel.core.match.loaded_vehicle import Solo, solo_planned
from noxel.core.match.own_share import Share, ShareWay, share_planned
from noxel.core.mechanics import (
    Levers,
    Weighing,
    anything_listed,
    empty_by_label,
    load,
    loads,
    weigh,
)
from noxel.core.rig import RigFile, Trailer

_ANY_TRAILER = Trailer()
ASKED: tuple[CheckId, ...] = (
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
BY_SHARE: tuple[CheckId, ...] = (
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
    limits: dict[CheckId, float]
    binding: CheckId | None
    ceiling: float | None
    estimated: tuple[CheckId, ...] = ()
    missing: tuple[CheckId | Literal["loads"], ...] = ()
    unknown: tuple[CheckId, ...] = ()


@dataclass(frozen=True, slots=True)
class Use:
    """How a limit is used: what the vehicle already takes of it [kg], and what each kilogram of
    trailer adds; both with their ±.
    """

    used: float
    slope: float
    used_off: float = 0.0
    slope_off: float = 0.0

    def load(self, trailer: float, off: float = 0.0) -> tuple[float, float]:
        """The load with a trailer of so much, and its ±. [kg]"""
        apart = math.hypot(self.used_off, self.slope_off * trailer, self.slope * off)
        return self.used + self.slope * trailer, apart

    def part(self, share: float) -> "Use":
        """What one tire has of an axle."""
        return Use(
            share * self.used, share * self.slope, share * self.used_off, share * self.slope_off
        )


_SOLO = {
    "front_hitched": "front_solo",
    "rear_hitched": "rear_solo",
    "vehicle_hitched": "vehicle_solo",
    "combination_gross": "vehicle_solo",
    "payload_used": "vehicle_solo",
}
"""Which load of the vehicle alone a hitched one rests on."""


def uses(solo: Solo, share: Share) -> dict[CheckId, Use]:
    """How a trailer at a tongue share uses each limit of the vehicle and its hitch, bars slack.

    Parameters
    ----------
    solo : Solo
        The vehicle as loaded, without the trailer; limits whose load is not known are left out.
    share : Share
        Tongue share.
    """
    trailer = solo.levers.at_share(1.0, share.value, restored=0.0)
    tongue = solo.levers.on_hitch(share.off, restored=0.0)
    used_by = {}
    for check in ASKED:
        key = "payload_used" if check == "vehicle.payload" else CHECKS[check].load
        used, slope = load(solo.state, key), load(trailer, key)
        if used is not None and slope is not None:
            off = solo.off.get(_SOLO.get(key, ""), 0.0)
            used_by[check] = Use(used, slope, off, abs(load(tongue, key) or 0.0))
    return used_by


def every_use(rig: RigFile, solo: Solo, share: Share) -> dict[CheckId, Use]:
    """:func:`uses`, and each tire of the vehicle with its part of its axle."""
    used_by = uses(solo, share)
    pairs: tuple[tuple[CheckId, CheckId], ...] = (
        ("tires.front", "vehicle.front_axle"),
        ("tires.rear", "vehicle.rear_axle"),
    )
    for check, axle in pairs:
        part = tire_share(rig, check)
        if part and axle in used_by:
            used_by[check] = used_by[axle].part(part)
    return used_by


def tire_share(rig: RigFile, check: CheckId) -> float:
    """What one of the vehicle's tires has of its axle; 0 where their number is not known."""
    tires = rig.vehicle.tires.front if check == "tires.front" else rig.vehicle.tires.rear
    part = drive_part(rig, CHECKS[check].group or "")
    return part / tires.count if tires and tires.count else 0.0


def trailer_uses(trailer: Trailer, share: Share) -> dict[CheckId, Use]:
    """How a trailer uses its own limits, bars slack."""
    change = loads(Levers(None, None, None).at_share(1.0, share.value))
    on_axles = Use(0.0, change["trailer_axles"], 0.0, share.off)
    used_by: dict[CheckId, Use] = {"trailer.gross": Use(0.0, 1.0), "trailer.axles": on_axles}
    if trailer.tires and trailer.tires.count:
        used_by["tires.trailer"] = on_axles.part(1 / trailer.tires.count)
    return used_by


def in_front(
    rig: RigFile, used: Mapping[CheckId, Use], known: Mapping[CheckId, Limit | None]
) -> list[Use]:
    """By how much the front axle is over its limit without a trailer, and what each kilogram of
    trailer takes off that.

    For itself and for its tires, as loads on the axle; only where a trailer relieves it, so that it
    is not a ceiling. [kg]
    """
    limits, tires = [], rig.vehicle.tires.front
    counted: tuple[tuple[CheckId, int], ...] = (
        ("vehicle.front_axle", 1),
        ("tires.front", (tires.count if tires else None) or 1),
    )
    for check, count in counted:
        use, limit = used.get(check), known.get(check)
        if use is not None and limit is not None and use.slope <= 0:
            limits.append(
                Use((use.used - cushion(rig, check) * limit.kg) * count, use.slope * count)
            )
    return limits


def as_towing(rig: RigFile) -> RigFile:
    """The rig as one that tows, whether it has a trailer yet or not: its limits are those of a
    towing vehicle.
    """
    return rig if rig.trailer is not None else rig.model_copy(update={"trailer": _ANY_TRAILER})


def towing_limits(rig: RigFile, solo: Solo | None = None) -> dict[CheckId, Limit | None]:
    """The limits of the vehicle as one that tows; a payload that rests on a guessed curb weight
    counts as a guess.

    With ``solo``, what the vehicle carries, its maker's tongue table counts too.
    """
    towing = as_towing(rig)
    known = limits(towing)
    judged_by = {check: limit_of(towing, check, known, Weighing()) for check in known}
    if solo is not None and rig.vehicle.tongue_table:
        judged_by["hitch.tongue"] = _by_table(rig, solo, judged_by["hitch.tongue"])
    return judged_by


def _by_table(rig: RigFile, solo: Solo, other: Limit | None) -> Limit:
    """The lesser of the tongue limit and what the maker's table leaves for what the vehicle
    carries; its last row, which then confirms nothing, where that is not known or beyond it.
    """
    rows, carried = tongue_rows(rig), load(solo.state, "cargo")
    most = None if carried is None else carried + solo.off.get("vehicle_solo", 0.0)
    ends = most is None or empty_by_label(rig) is None or exceeds(most, rows[-1].load.kg)
    row = rows[-1] if ends or most is None else row_for(rows, most)
    table = Limit(
        row.tongue.kg, "tongue_table", "vehicle.tongue_table", "guessed" if ends else "real"
    )
    if other is None or other.certainty in NEVER_BINDS or table.kg < other.kg:
        return table
    return other


def ceiling_of(
    rig: RigFile,
    used: Mapping[CheckId, Use],
    share: Share,
    known: Mapping[CheckId, Limit | None],
) -> Ceiling:
    """The heaviest trailer by every limit, with what a vehicle loaded so uses of each
    (:func:`ceiling`).
    """
    heaviest: dict[CheckId, float] = {}
    for check, use in used.items():
        limit = known.get(check)
        if limit is not None and use.slope > 0:
            heaviest[check] = (cushion(rig, check) * limit.kg - use.used) / use.slope
    counted = [
        check
        for check in heaviest
        if (limit := known[check]) and limit.certainty not in NEVER_BINDS
    ]
    least = min((heaviest[check] for check in counted), default=0.0)
    binding = next((check for check in counted if not exceeds(heaviest[check], least)), None)
    estimated = tuple(
        sorted(check for check in heaviest if (limit := known[check]) and not limit.real)
    )
    heaviest = {check: max(0.0, kg) for check, kg in heaviest.items()}
    asked = [check for check in ASKED if share.value or check not in BY_SHARE]
    missing: list[CheckId | Literal["loads"]] = [
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
        share.value,
        share.way,
        heaviest,
        binding,
        heaviest[binding] if binding else None,
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
        The vehicle as planned; the trailer itself is not used.

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
    towing = as_towing(rig)
    share = share_planned(rig, weigh(rig, rig.weigh_ins[-1] if rig.weigh_ins else None))
    used = uses(solo_planned(towing), share)
    return ceiling_of(towing, used, share, towing_limits(rig))
