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
    "tow_unbraked": "unbraked tow rating",
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
    "tongue_scale": "tongue scale",
}


_AUSTRALIA: Mapping[str, str] = {
    "gvwr": "GVM",
    "gawr_front": "front axle rating",
    "gawr_rear": "rear axle rating",
    "gcwr": "GCM",
    "tow_rating": "braked towing capacity",
    "tow_unbraked": "unbraked towing capacity",
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
    "tongue_scale": "tow ball scale",
}


_EUROPE: Mapping[str, str] = {
    "gvwr": "MAM",
    "gawr_front": "front axle plate",
    "gawr_rear": "rear axle plate",
    "gcwr": "gross train weight",
    "tow_rating": "max. braked towable mass",
    "tow_unbraked": "max. unbraked towable mass",
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
    "tongue_scale": "noseweight gauge",
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
    ("tow_unbraked", "The same for a trailer that has no brakes of its own."),
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
"""What each term means, in the order that they are met."""


_ON_LABELS: Mapping[str, str] = {
    "gvwr": "gross vehicle weight rating, max. gross weight, GVW (strictly the weight itself)",
    "gawr_front": "front axle capacity",
    "gawr_rear": "rear axle capacity",
    "gcwr": "gross combination weight rating, GCW, gross train mass",
    "tow_rating": "max. trailer weight, towing capacity",
    "tongue_rating": "max. hitch load, vertical load, S",
    "payload": "“the combined weight of occupants and cargo should never exceed …”, occupant and "
    "cargo carrying capacity",
    "curb_weight": "kerb weight, vehicle curb weight",
    "trailer.gvwr": "gross vehicle weight rating, on the trailer's own label",
    "trailer.ccc": "cargo carrying capacity, “the weight of cargo should never exceed …”",
    "dry_weight": "UVW, unloaded vehicle weight, shipping weight",
    "tongue_weight": "hitch weight; pin weight on a fifth wheel or gooseneck",
}
"""What labels, manuals and brochures write for the same thing."""


_OTHERS: tuple[tuple[str, str, str], ...] = (
    (
        "pin_weight",
        "pin weight",
        "The tongue weight of a fifth wheel or gooseneck. It stands over or just ahead of the rear "
        "axle and takes much of the payload.",
    ),
    (
        "limiting_rating",
        "limiting rating",
        "Of all ratings, the one that is reached first. Only what brings its load down helps.",
    ),
    ("margin", "left, over", "The rating less the load: what is left, or by how much it is over."),
    (
        "cushion",
        "cushion",
        "A share of each rating that you choose to leave unused. It is your own rule; past it a "
        "check reads “too close”, past the rating it is over all the same.",
    ),
    (
        "plus_minus",
        "±",
        "How far off a figure may be: the scale's graduation and gain, a taped length, a guess. In "
        "95 of 100 cases the true figure lies within it.",
    ),
    (
        "working",
        "working",
        "How a figure was worked out, line by line, down to the readings and the labels.",
    ),
    (
        "expected",
        "expected",
        "A load that was not weighed but follows from labels, lists and other loads. It warns; it "
        "never says “within”.",
    ),
    (
        "doubt",
        "doubt",
        "Figures that cannot both be right. Until one is corrected or found right, nothing is "
        "confirmed.",
    ),
    (
        "spring_bars",
        "spring bars",
        "Bars of a weight-distribution hitch. Under tension they move part of the load from the "
        "rear axle to the front axle and the trailer's axles. They raise no rating.",
    ),
    (
        "bars_engaged",
        "bars engaged",
        "Tensioned as for the road. What such a pass shows on the vehicle is the tongue weight "
        "less what the bars moved to the trailer.",
    ),
    (
        "bars_slack",
        "bars slack",
        "Fitted, but without tension. Such a pass shows the whole tongue weight.",
    ),
    (
        "restoration",
        "restoration",
        "Which share of the load that the front axle lost the bars give back to it. The maker's "
        "instructions say how much to aim at.",
    ),
    (
        "weakest_link",
        "weakest link",
        "Receiver, ball mount, ball and coupler each have ratings. The lowest one counts.",
    ),
    (
        "d_value",
        "D-value",
        "A European coupling's strength in kN: it limits vehicle and trailer together, not one of "
        "them alone.",
    ),
    (
        "correction",
        "correction",
        "A mass that was aboard in one pass and not in the other, stated so that the passes "
        "compare.",
    ),
)
"""Words that are the same in all places: key, name, meaning."""


_WITHOUT_TRAILER = frozenset(
    (
        "gvwr",
        "gawr_front",
        "gawr_rear",
        "payload",
        "curb_weight",
        "limiting_rating",
        "margin",
        "cushion",
        "plus_minus",
        "working",
        "expected",
        "doubt",
        "correction",
    )
)
"""The terms that mean something for a vehicle that tows nothing."""


@dataclass(frozen=True, slots=True)
class Meaning:
    """One term: its key, its name in each set, what it means, whether it needs a trailer, what
    labels write for it.
    """

    key: str
    names: dict[TermSet, str]
    meaning: str
    towing: bool
    on_labels: str | None = None


def glossary() -> list[Meaning]:
    """Every term that the page may show, with its names in all three sets; ratings and weights
    first.
    """
    trade = [
        Meaning(
            key,
            {terms: names[key] for terms, names in SETS.items()},
            meaning,
            key not in _WITHOUT_TRAILER,
            _ON_LABELS.get(key),
        )
        for key, meaning in _MEANINGS
    ]
    return trade + [
        Meaning(key, dict.fromkeys(SETS, name), meaning, key not in _WITHOUT_TRAILER)
        for key, name, meaning in _OTHERS
    ]
