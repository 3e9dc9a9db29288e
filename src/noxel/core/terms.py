"""The words of the trade in three places. One thing has one name in the file; what it is called on screen may differ."""

from collections.abc import Mapping
from typing import Literal

TermSet = Literal["north_america", "australia", "europe"]

_NORTH_AMERICA: Mapping[str, str] = {
    "gvwr": "GVWR",
    "gawr_front": "GAWR front",
    "gawr_rear": "GAWR rear",
    "gcwr": "GCWR",
    "tow_rating": "tow rating",
    "tongue_rating": "tongue limit",
    "payload": "payload",
    "curb_weight": "curb weight",
    "trailer.gvwr": "GVWR",
    "trailer.gawr": "GAWR",
    "trailer.axle_group": "axle group rating",
    "trailer.ccc": "CCC",
    "dry_weight": "dry weight",
    "dry_tongue": "dry tongue weight",
    "tongue": "tongue",
    "tongue_weight": "tongue weight",
    "tongue_share": "tongue share",
}

_AUSTRALIA: Mapping[str, str] = {
    "gvwr": "GVM",
    "gawr_front": "axle rating front",
    "gawr_rear": "axle rating rear",
    "gcwr": "GCM",
    "tow_rating": "braked towing capacity",
    "tongue_rating": "tow ball limit",
    "curb_weight": "kerb mass",
    "trailer.gvwr": "ATM",
    "trailer.gawr": "axle rating",
    "trailer.axle_group": "GTM",
    "trailer.ccc": "payload",
    "dry_weight": "tare",
    "dry_tongue": "tow ball mass, tare",
    "tongue": "tow ball",
    "tongue_weight": "tow ball mass",
    "tongue_share": "ball load share",
}

_EUROPE: Mapping[str, str] = {
    "gvwr": "MAM",
    "gawr_front": "axle plate front",
    "gawr_rear": "axle plate rear",
    "gcwr": "gross train weight",
    "tow_rating": "max. braked towable mass",
    "tongue_rating": "noseweight limit",
    "curb_weight": "kerb mass",
    "trailer.gvwr": "MTPLM",
    "trailer.gawr": "axle plate",
    "trailer.axle_group": "axle group plate",
    "trailer.ccc": "user payload",
    "dry_weight": "MIRO",
    "dry_tongue": "noseweight, MIRO",
    "tongue": "nose",
    "tongue_weight": "noseweight",
    "tongue_share": "noseweight share",
}

SETS: Mapping[TermSet, Mapping[str, str]] = {
    "north_america": _NORTH_AMERICA,
    "australia": {**_NORTH_AMERICA, **_AUSTRALIA},
    "europe": {**_NORTH_AMERICA, **_EUROPE},
}
"""Each set whole: what a place has no word of its own for keeps the North American one."""
