"""The words of the trade in three places. A quantity has one name in the file; what it is called on
screen may differ.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

TermSet = Literal["north_america", "australia", "europe"]


_NORTH_AMERICA: Mapping[str, str] = {
    "gvwr": "GVWR",
    "gawr_front": "front GAWR",
    "gawr_rear": "rear GAWR",
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
    "gawr_front": "front axle rating",
    "gawr_rear": "rear axle rating",
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
    "gawr_front": "front axle plate",
    "gawr_rear": "rear axle plate",
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


_MEANINGS: tuple[tuple[str, str], ...] = (
    (
        "gvwr",
        "Most the loaded vehicle may weigh: people, cargo, hitch and the load on the hitch "
        "included.",
    ),
    ("gawr_front", "Most the front axle may carry, weighed at the wheels."),
    (
        "gawr_rear",
        "Most the rear axle may carry. The load on the hitch lands here with leverage: often the "
        "first limit met.",
    ),
    ("gcwr", "Most vehicle and trailer together may weigh. The load on the hitch counts once."),
    (
        "tow_rating",
        "Most the trailer may weigh in total. It says nothing of axles, payload or hitch: one "
        "limit of many.",
    ),
    (
        "tongue_rating",
        "Most the vehicle may carry on its hitch point; the hitch's own parts may allow less.",
    ),
    (
        "payload",
        "Most that people, cargo, hitch and load on the hitch may weigh, for the vehicle as it "
        "left the factory.",
    ),
    (
        "curb_weight",
        "The vehicle with full fluids, nobody in it, no cargo. In Europe a 75 kg driver counts in.",
    ),
    (
        "trailer.gvwr",
        "Most the loaded trailer may weigh in total: what its wheels carry and what the hitch "
        "carries.",
    ),
    ("trailer.gawr", "Most one trailer axle may carry."),
    ("trailer.axle_group", "Most all trailer axles together may carry while coupled."),
    ("trailer.ccc", "What may be put in the trailer: its rating less what it weighs as built."),
    (
        "dry_weight",
        "The trailer as built. Its maker decides what counts: propane, battery, options may not.",
    ),
    (
        "tongue_weight",
        "The load that the coupled trailer puts on the hitch. Part of the vehicle's load and of "
        "the trailer's.",
    ),
    (
        "tongue_share",
        "That load as a share of the whole trailer. Too little invites sway, too much squats the "
        "vehicle.",
    ),
)
"""What each term means (handbook of the trade, in the order that they are met)."""


@dataclass(frozen=True, slots=True)
class Meaning:
    """One term: its key, its name in each set, what it means."""

    key: str
    names: dict[TermSet, str]
    meaning: str


def glossary() -> list[Meaning]:
    """Every term that the page may show, with its names in all three sets."""
    return [
        Meaning(key, {terms: names[key] for terms, names in SETS.items()}, meaning)
        for key, meaning in _MEANINGS
    ]
