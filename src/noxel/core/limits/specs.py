"""The table of checks: what each judges, where its rating is entered, what would settle it.

Nothing else takes a check's id apart.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from noxel.core.mechanics import GROUPS
from noxel.core.rig import Limited

AxleGroup = Literal["front", "rear", "trailer"]
SingleAxle = Literal[
    "trailer.axle_1",
    "trailer.axle_2",
    "trailer.axle_3",
    "trailer.axle_4",
    "trailer.axle_5",
    "trailer.axle_6",
    "trailer.axle_7",
    "trailer.axle_8",
    "trailer.axle_9",
]
CheckId = Literal[Limited, SingleAxle, "tongue.share"]
Part = Literal["load", "beyond_empty", "beyond_dry", "share", "tire", "wheel", "assembly", "axle"]
Subject = Literal["vehicle", "trailer", "hitch", "combination", "tires"]


@dataclass(frozen=True, slots=True)
class CheckSpec:
    """What a check is.

    ``load`` is the key of the load that it rests on, and ``part`` what it judges of that: the load
    as it stands, what goes beyond the empty vehicle or the trailer as built, the tongue's share, or
    what one tire, wheel, assembly or axle of the ``group`` carries; ``axle`` is that axle's number.
    ``subject`` is the part of the rig that it belongs to. ``rating`` is where its rating is
    entered, ``floor`` what the load is at least, when towing, where it is not known. ``required``
    is when it must be made. ``settled_by`` is what must be known of the trailer to make it.
    """

    load: str
    subject: Subject
    part: Part = "load"
    group: AxleGroup | None = None
    axle: int | None = None
    rating: str | None = None
    floor: str | None = None
    required: Literal["always", "towing"] | None = None
    settled_by: Literal["gross", "tongue"] | None = None

    @property
    def may_be_negative(self) -> bool:
        """Differences and shares may be; a load itself is never below nothing."""
        return self.part in ("beyond_empty", "beyond_dry", "share")


UNDER_LOAD: Mapping[AxleGroup, tuple[CheckId, CheckId, CheckId]] = {
    "front": ("tires.front", "wheels.front", "assembly.front"),
    "rear": ("tires.rear", "wheels.rear", "assembly.rear"),
    "trailer": ("tires.trailer", "wheels.trailer", "assembly.trailer"),
}
"""The checks of what stands under each group of axles: tire, wheel, axle assembly."""
_PARTS: tuple[Part, ...] = ("tire", "wheel", "assembly")


_SINGLE: tuple[SingleAxle, ...] = get_args(SingleAxle)

CHECKS: Mapping[CheckId, CheckSpec] = {
    "vehicle.front_axle": CheckSpec(
        "front_hitched",
        "vehicle",
        group="front",
        rating="vehicle.ratings.gawr_front",
        required="always",
    ),
    "vehicle.rear_axle": CheckSpec(
        "rear_hitched",
        "vehicle",
        group="rear",
        rating="vehicle.ratings.gawr_rear",
        floor="rear_solo",
        required="always",
    ),
    "vehicle.gross": CheckSpec(
        "vehicle_hitched",
        "vehicle",
        rating="vehicle.ratings.gvwr",
        floor="vehicle_solo",
        required="always",
    ),
    "vehicle.tow_rating": CheckSpec(
        "trailer_gross",
        "combination",
        rating="vehicle.ratings.tow_rating",
        floor="trailer_axles",
        required="towing",
        settled_by="gross",
    ),
    "combination.gross": CheckSpec(
        "combination_gross",
        "combination",
        rating="vehicle.ratings.gcwr",
        floor="vehicle_solo",
        required="towing",
    ),
    "trailer.gross": CheckSpec(
        "trailer_gross",
        "trailer",
        rating="trailer.ratings.gvwr",
        floor="trailer_axles",
        required="towing",
        settled_by="gross",
    ),
    "trailer.axles": CheckSpec(
        "trailer_axles",
        "trailer",
        group="trailer",
        rating="trailer.ratings.gawr[0]",
        required="towing",
    ),
    "hitch.trailer": CheckSpec(
        "trailer_gross",
        "hitch",
        rating="hitch.parts[0].trailer",
        floor="trailer_axles",
        required="towing",
        settled_by="gross",
    ),
    "hitch.tongue": CheckSpec(
        "tongue_static",
        "hitch",
        rating="vehicle.ratings.tongue_rating",
        floor="tongue_net",
        required="towing",
        settled_by="tongue",
    ),
    "tongue.share": CheckSpec(
        "tongue_share", "hitch", "share", required="towing", settled_by="tongue"
    ),
    "vehicle.payload": CheckSpec("vehicle_hitched", "vehicle", "beyond_empty"),
    "trailer.cargo": CheckSpec("trailer_gross", "trailer", "beyond_dry", settled_by="gross"),
    **{
        check: CheckSpec(GROUPS[group], "tires", part, group)
        for group, checks in UNDER_LOAD.items()
        for check, part in zip(checks, _PARTS, strict=True)
    },
    **{
        check: CheckSpec("trailer_axles", "trailer", "axle", "trailer", number)
        for number, check in enumerate(_SINGLE, 1)
    },
}
"""Every check, by its id; those that may be required first, in the order of the answers."""


def single_axle(number: int) -> CheckId:
    """The check of one of the trailer's axles, counted from the front, from 1."""
    return _SINGLE[number - 1]
