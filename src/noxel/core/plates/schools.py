"""Where experienced people disagree: schools of tongue share and of cushion, each with its reasons.
The owner chooses.
"""

from dataclasses import dataclass
from typing import Literal

from noxel.core.rig import Kind


@dataclass(frozen=True, slots=True)
class ShareSchool:
    """A range of tongue share; ``kinds`` are the rigs it is meant for."""

    code: str
    title: str
    low: float
    high: float
    reasons: str
    kinds: tuple[Kind, ...]


@dataclass(frozen=True, slots=True)
class CushionSchool:
    """How much of a rating to use."""

    code: Literal["plate", "cushion"]
    title: str
    reasons: str


_BALL: tuple[Kind, ...] = ("conventional", "motorhome", "slide_in")


_PIN: tuple[Kind, ...] = ("fifth_wheel", "gooseneck")


SHARES = (
    ShareSchool(
        "ball_10_15",
        "10–15 %",
        0.10,
        0.15,
        "The usual North American range for a trailer on a ball. Below it trailers sway, above it "
        "the rear axle suffers.",
        _BALL,
    ),
    ShareSchool(
        "ball_10_12",
        "10–12 %",
        0.10,
        0.12,
        "For vehicles whose rear axle or payload is the first limit. Enough against sway, and the "
        "least load on the hitch.",
        _BALL,
    ),
    ShareSchool(
        "ball_12_15",
        "12–15 %",
        0.12,
        0.15,
        "For tall, long trailers in wind and traffic. More on the tongue steadies them; the "
        "vehicle must carry it.",
        _BALL,
    ),
    ShareSchool(
        "europe_5_7",
        "5–7 %",
        0.05,
        0.07,
        "European caravans are built and tested for a light nose, at lower speeds. Their "
        "noseweight limits would forbid more.",
        _BALL,
    ),
    ShareSchool(
        "pin_15_25",
        "15–25 %",
        0.15,
        0.25,
        "The usual range for a pin above the axle. It stands over the wheels, so more of the "
        "trailer may rest on it.",
        _PIN,
    ),
    ShareSchool(
        "pin_20_25",
        "20–25 %",
        0.20,
        0.25,
        "What loaded fifth wheels tend to weigh at the pin. Plan the truck's payload for the high "
        "end.",
        _PIN,
    ),
    ShareSchool(
        "pin_20",
        "about 20 %",
        0.18,
        0.22,
        "A middle figure for planning a fifth wheel. Weigh it: dry pins grow when the front "
        "storage is filled.",
        _PIN,
    ),
)
"""Schools of tongue share."""


CUSHIONS = (
    CushionSchool(
        "plate",
        "all of the rating",
        "Modern ratings are tested, grades and heat included. Within the rating is within the "
        "rating.",
    ),
    CushionSchool(
        "cushion",
        "with a cushion",
        "Trailer below 80 % of the tow rating, cargo below 85 % of what the label allows. "
        "Weights creep, and hills, wind and heat ask for more than a test did.",
    ),
)
"""Schools of cushion; own figures for each limit go beyond both. Over a rating is over in either.
"""


def shares_for(kind: Kind) -> list[ShareSchool]:
    """The schools that are meant for a kind of rig."""
    return [school for school in SHARES if kind in school.kinds]
