"""Limits: which rating each check is held against, and what stands in when it was not entered."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.quantities import Mass
from noxel.core.rig import ByMode, HitchPart, rating_in, rating_path
from noxel.core.rigfile import RigFile
from noxel.core.tires import AxleSet, axle_sets

Certainty = Literal["real", "optimistic", "conservative", "rough"]

CUSHION_SCHOOL: Mapping[str, float] = {"vehicle.tow_rating": 0.80, "trailer.cargo": 0.85}
"""The cushion school: 80 % of the tow rating, 85 % of the trailer's cargo."""
BALL_SHARE = (0.10, 0.15)
PIN_SHARE = (0.15, 0.25)
"""Expected tongue share on a ball, and pin share on a fifth wheel or gooseneck; editable by policy."""
ROUGH_TONGUE = 0.10
"""Tongue limit as a share of the tow rating where none was entered; rough, for ball hitches only."""


RATING_PATHS = {
    "vehicle.front_axle": "vehicle.ratings.gawr_front", "vehicle.rear_axle": "vehicle.ratings.gawr_rear",
    "vehicle.gross": "vehicle.ratings.gvwr", "combination.gross": "vehicle.ratings.gcwr",
    "vehicle.tow_rating": "vehicle.ratings.tow_rating", "trailer.gross": "trailer.ratings.gvwr",
    "trailer.axles": "trailer.ratings.gawr[0]", "hitch.trailer": "hitch.parts[0].trailer",
    "hitch.tongue": "vehicle.ratings.tongue_rating",
}  # fmt: skip
"""Where the rating of each required check is entered."""


@dataclass(slots=True, eq=False)
class LimitTerm:
    """One entered figure that a limit is made of. [kg]"""

    op: Literal["", "+", "−", "×"]
    label: str
    kg: float
    path: str


@dataclass(
    slots=True, eq=False
)  # not frozen: there are dozens in an answer, and a frozen one takes several times as long to build
class Limit:
    """A limit in kilograms, the name of its source, where that stands in the rig file, and how far to trust it."""

    kg: float
    source: str
    path: str
    certainty: Certainty = "real"
    terms: tuple[LimitTerm, ...] = ()

    @property
    def worked_out(self) -> bool:
        """Whether it was worked out from other ratings rather than entered."""
        return self.certainty != "real"


def on_pin(rig: RigFile) -> bool:
    """Whether the trailer sits on a pin above the vehicle's axle rather than on a ball behind it."""
    return rig.kind in ("fifth_wheel", "gooseneck")


def on_its_wheels(rig: RigFile) -> bool:
    """Whether what is towed is a car on its own four wheels: it puts nothing on the hitch, and has no tongue share."""
    return rig.trailer is not None and rig.trailer.style == "towed_car"


def share_range(rig: RigFile) -> tuple[float, float]:
    """The tongue share aimed at: the policy's own, else the usual range of the kind of hitch."""
    return rig.policy.tongue_share or (PIN_SHARE if on_pin(rig) else BALL_SHARE)


def cushion(rig: RigFile, check: str) -> float:
    """The share of a limit that the owner's policy lets be used; 1 is the full rating."""
    own = rig.policy.cushions.get(check)
    if own is not None:
        return own
    return CUSHION_SCHOOL.get(check, 1.0) if rig.policy.school == "cushion" else 1.0


def _entered(mass: Mass | None, source: str, path: str) -> Limit | None:
    return Limit(mass.kg, source, path) if mass else None


def _tow_entered(rig: RigFile) -> Limit | None:
    rating, mode = rig.vehicle.ratings.tow_rating, rig.hitch.mode
    return _entered(rating_in(rating, mode), "tow_rating", f"vehicle.ratings.tow_rating{rating_path(rating, mode)}")


def _sum(source: str, path: str, *terms: LimitTerm, certainty: Certainty = "real") -> Limit:
    kg = sum(-term.kg if term.op == "−" else term.kg for term in terms)
    return Limit(kg, source, path, certainty, terms if len(terms) > 1 else ())


def combination_limit(rig: RigFile) -> Limit | None:
    """GCWR, else GVWR + tow rating, which is optimistic: the published one is often lower."""
    ratings = rig.vehicle.ratings
    tow = _tow_entered(rig)
    if ratings.gcwr:
        return Limit(ratings.gcwr.kg, "gcwr", "vehicle.ratings.gcwr")
    if ratings.gvwr and tow:
        gvwr = LimitTerm("", "gvwr", ratings.gvwr.kg, "vehicle.ratings.gvwr")
        added = LimitTerm("+", "tow_rating", tow.kg, tow.path)
        return _sum("gvwr+tow_rating", "vehicle.ratings.gcwr", gvwr, added,
                    certainty="optimistic")  # fmt: skip
    return None


def tow_limit(rig: RigFile) -> Limit | None:
    """The tow rating, else GCWR − GVWR, usually conservative: a hitch or cooling limit can still be lower."""
    ratings = rig.vehicle.ratings
    entered = _tow_entered(rig)
    if entered or not (ratings.gcwr and ratings.gvwr):
        return entered
    gcwr = LimitTerm("", "gcwr", ratings.gcwr.kg, "vehicle.ratings.gcwr")
    gvwr = LimitTerm("−", "gvwr", ratings.gvwr.kg, "vehicle.ratings.gvwr")
    return _sum("gcwr-gvwr", "vehicle.ratings.tow_rating", gcwr, gvwr, certainty="conservative")


def payload_limit(rig: RigFile) -> Limit | None:
    """The placard's payload less what add-on labels take away."""
    ratings = rig.vehicle.ratings
    if not ratings.payload:
        return None
    terms = [LimitTerm("", "placard", ratings.payload.kg, "vehicle.ratings.payload")]
    if ratings.payload_reduction and ratings.payload_reduction.kg:
        terms.append(LimitTerm("−", "add-on label", ratings.payload_reduction.kg, "vehicle.ratings.payload_reduction"))
    return _sum("payload", "vehicle.ratings.payload", *terms)


def axles_limit(rig: RigFile) -> Limit | None:
    """The lesser of the trailer axles' ratings added up and the rating of the group."""
    if rig.trailer is None:
        return None
    ratings = rig.trailer.ratings
    terms = [
        LimitTerm("+" if index else "", f"axle {index + 1}", rating.kg, f"trailer.ratings.gawr[{index}]")
        for index, rating in enumerate(ratings.gawr)
    ]
    added = _sum("trailer.gawr", "trailer.ratings.gawr[0]", *terms) if terms else None
    if ratings.axle_group and (added is None or ratings.axle_group.kg < added.kg):
        return Limit(ratings.axle_group.kg, "trailer.axle_group", "trailer.ratings.axle_group")
    return added


def _least(limits: list[Limit]) -> Limit | None:
    return min(limits, key=lambda limit: limit.kg, default=None)  # min keeps the first of equals


def _parts(rig: RigFile, rating: Callable[[HitchPart], Mass | ByMode | None], field: str) -> list[Limit]:
    found = []
    for index, part in enumerate(rig.hitch.parts):
        mass = rating_in(rating(part), rig.hitch.mode)
        if mass:
            at = f"hitch.parts[{index}].{field}{rating_path(rating(part), rig.hitch.mode)}"
            found.append(Limit(mass.kg, part.kind, at))
    return found


def hitch_trailer_limit(rig: RigFile) -> Limit | None:
    """The least trailer rating in the hitch chain, in the mode used."""
    return _least(_parts(rig, lambda part: part.trailer, "trailer"))


def tongue_limit(rig: RigFile) -> Limit | None:
    """The least tongue rating of vehicle and hitch chain; without any, roughly a tenth of an entered tow rating."""
    rating, mode = rig.vehicle.ratings.tongue_rating, rig.hitch.mode
    own = _entered(rating_in(rating, mode), "tongue_rating", f"vehicle.ratings.tongue_rating{rating_path(rating, mode)}")
    least = _least(([own] if own else []) + _parts(rig, lambda part: part.tongue, "tongue"))
    tow = _tow_entered(rig)
    if least or on_pin(rig) or on_its_wheels(rig) or tow is None:
        return least
    return Limit(ROUGH_TONGUE * tow.kg, "10% of tow_rating", "vehicle.ratings.tongue_rating", "rough")  # fmt: skip


def _tire_limit(each: AxleSet) -> Limit | None:
    rating = each.rating
    return Limit(rating.kg, rating.source, f"{each.path}.{rating.field}") if rating else None


def limits(rig: RigFile) -> dict[str, Limit | None]:
    """Every check's limit, by its id; the checks of single trailer axles included."""
    ratings, trailer = rig.vehicle.ratings, rig.trailer
    found: dict[str, Limit | None] = {
        "vehicle.front_axle": _entered(ratings.gawr_front, "gawr_front", "vehicle.ratings.gawr_front"),
        "vehicle.rear_axle": _entered(ratings.gawr_rear, "gawr_rear", "vehicle.ratings.gawr_rear"),
        "vehicle.gross": _entered(ratings.gvwr, "gvwr", "vehicle.ratings.gvwr"),
        "vehicle.payload": payload_limit(rig),
    }
    for each in axle_sets(rig):
        found[f"tires.{each.group}"] = _tire_limit(each)
    if trailer is None:
        return found
    found |= {
        "combination.gross": combination_limit(rig),
        "vehicle.tow_rating": tow_limit(rig),
        "trailer.gross": _entered(trailer.ratings.gvwr, "trailer.gvwr", "trailer.ratings.gvwr"),
        "trailer.axles": axles_limit(rig),
        "trailer.cargo": _entered(trailer.ratings.ccc, "trailer.ccc", "trailer.ratings.ccc"),
        "hitch.trailer": hitch_trailer_limit(rig),
        "hitch.tongue": tongue_limit(rig),
    }
    for index, rating in enumerate(trailer.ratings.gawr):
        found[f"trailer.axle_{index + 1}"] = Limit(rating.kg, "trailer.gawr", f"trailer.ratings.gawr[{index}]")
    return found
