"""What the labels of each region are called, and where they sit."""

from collections.abc import Mapping
from typing import Literal

from noxel.core.rig import TermSet

Sign = Literal[
    "certification",
    "placard",
    "addon",
    "guide",
    "receiver",
    "plate",
    "trailer",
    "cargo",
    "dealer",
]

_AMERICAN: dict[Sign, tuple[str, str]] = {
    "certification": (
        "Certification label",
        "On the driver's door frame: white, with the tire sizes.",
    ),
    "placard": (
        "Tire and loading placard",
        "Beside it, yellow and white: “occupants and cargo should never exceed …”.",
    ),
    "addon": (
        "Add-on payload label",
        "A second sticker near the placard, where options were fitted after it was built. Many "
        "vehicles have none.",
    ),
    "guide": (
        "Towing guide",
        "Owner's manual or guide: the row of this engine, axle ratio, cab, drive.",
    ),
    "receiver": (
        "Hitch label",
        "On the receiver under the bumper; both pairs of ratings, if it has two.",
    ),
    "plate": ("Hitch label", "On the hitch in the bed, on its head or its rail."),
    "trailer": ("Trailer label", "Outside, front left side."),
    "cargo": (
        "Trailer cargo label",
        "Near the door: “the weight of cargo should never exceed …”.",
    ),
    "dealer": (
        "Weight as built",
        "The dealer's sheet or the maker's label, with the options that are always fitted; not the "
        "brochure.",
    ),
}
_WORDS: Mapping[TermSet, Mapping[Sign, tuple[str, str]]] = {
    "north_america": _AMERICAN,
    "europe": _AMERICAN
    | {
        "certification": (
            "Maker's plate",
            "In a door frame or under the bonnet, four masses one below the other: alone, with "
            "trailer, front axle, rear axle.",
        ),
        "placard": (
            "Payload",
            "Seldom printed. Leave it open where no paper gives it; the kerb mass serves.",
        ),
        "addon": (
            "Conversion plate",
            "A second plate beside the maker's, where the vehicle was converted. Many have none.",
        ),
        "guide": (
            "Registration document",
            "O.1 is the braked trailer, O.2 the unbraked one; the train weight is the second line "
            "of the maker's plate.",
        ),
        "receiver": (
            "Coupling's plate",
            "On the tow bar and on the trailer's coupling: S is the noseweight, D the pull.",
        ),
        "trailer": (
            "Trailer's plate",
            "Near the door or on the drawbar: the total mass, then each axle.",
        ),
        "cargo": ("User payload", "In the handbook: the total mass less the mass as built."),
        "dealer": (
            "Mass as built",
            "The certificate of conformity or the weighbridge, with the options that are fitted.",
        ),
    },
    "australia": _AMERICAN
    | {
        "certification": (
            "Vehicle plate",
            "On a door pillar or under the bonnet; the owner's manual has what it leaves out.",
        ),
        "placard": (
            "Tyre placard",
            "On the driver's door pillar: sizes and pressures; some give a payload.",
        ),
        "addon": (
            "Second-stage plate",
            "A second plate beside it, where the ratings were changed. Many vehicles have none.",
        ),
        "guide": (
            "Towing figures",
            "Owner's manual: the line of this engine and gearbox.",
        ),
        "receiver": ("Tow bar's plate", "On the tow bar: its trailer mass and its ball load."),
        "trailer": ("Trailer plate", "On the drawbar: ATM, GTM, tare."),
        "cargo": ("Payload", "ATM less tare, both on the trailer plate."),
        "dealer": (
            "Tare",
            "On the trailer plate, or better from a weighbridge: options are often left out.",
        ),
    },
}


def sign_words(terms: TermSet, sign: Sign) -> tuple[str, str]:
    """What a label is called in a region, and where it sits."""
    return _WORDS[terms][sign]


def all_signs(terms: TermSet) -> dict[str, str]:
    """The same for every label, by ``label.certification`` and ``where.certification``."""
    words = _WORDS[terms].items()
    return {f"label.{sign}": title for sign, (title, _) in words} | {
        f"where.{sign}": where for sign, (_, where) in words
    }
