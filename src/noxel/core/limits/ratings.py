"""Limits: which rating each check is compared with, and what stands in when it was not entered."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from noxel.core.limits.specs import CHECKS, UNDER_LOAD, CheckId, single_axle
from noxel.core.limits.tires import AxleSet, axle_sets
from noxel.core.quantities import Mass
from noxel.core.rig import (
    HitchPart,
    Mode,
    RigFile,
    entry_at,
    on_its_wheels,
    on_pin,
    rating_in,
    rating_path,
)

Certainty = Literal["real", "guessed", "incomplete_chain", "optimistic", "conservative", "rough"]
"""How far to trust a limit: entered off a label or a manual; entered as a guess or as worked out;
of a hitch chain with a link unrated; or worked out from other ratings, too high, too low, or by a
rule of thumb.
"""
WORKED_OUT: tuple[Certainty, ...] = ("optimistic", "conservative", "rough")
UNSURE = ("guess", "worked_out")
"""Sources that make an entered rating confirm nothing."""

CUSHION_SCHOOL: Mapping[CheckId, float] = {"vehicle.tow_rating": 0.80, "trailer.cargo": 0.85}
"""The cushion school: 80 % of the tow rating, 85 % of the trailer's cargo."""


ROUGH_TONGUE = 0.10
"""Tongue limit as a share of the tow rating where none was entered; rough, for ball hitches only.
"""


@dataclass(slots=True, eq=False)
class LimitTerm:
    """One entered figure that a limit is made of. [kg]"""

    op: Literal["", "+", "−", "×"]
    label: str
    kg: float
    path: str


@dataclass(
    slots=True, eq=False
)  # not frozen: an answer has dozens, and a frozen one takes several times as long to build
class Limit:
    """A limit in kilograms, the name of its source, where that stands in the rig file, and how far
    to trust it.

    ``lacking`` names the links of a hitch chain that keep it from being known; ``base`` is the path
    of a guessed base weight that the load was worked out from.
    """

    kg: float
    source: str
    path: str
    certainty: Certainty = "real"
    terms: tuple[LimitTerm, ...] = ()
    lacking: tuple[str, ...] = ()
    base: str | None = None

    @property
    def worked_out(self) -> bool:
        """Whether it was worked out from other ratings rather than entered."""
        return self.certainty in WORKED_OUT

    @property
    def real(self) -> bool:
        """Whether a load can be called within it: entered, and neither guessed nor the least of a
        chain with a link unrated.
        """
        return self.certainty == "real"

    def resting_on(self, guess: str) -> "Limit":
        """The same limit for a load worked out from a base weight that is only a guess; ``guess``
        is that weight's path.
        """
        return replace(self, certainty="guessed", base=guess)


def unsure(rig: RigFile, path: str) -> bool:
    """Whether the figure at a path was entered as a guess or as worked out; a rating by mode may be
    marked as a whole.
    """
    whole = path.removesuffix(".carrying").removesuffix(".distributing")
    return any(
        (entry := entry_at(rig, spelling)) is not None and entry.source in UNSURE
        for spelling in {path, whole}
    )


def cushion(rig: RigFile, check: CheckId) -> float:
    """The share of a limit that the owner's policy lets be used; 1 is the full rating."""
    own = rig.policy.cushions.get(check)
    if own is not None:
        return own
    if rig.policy.tire_reserve and CHECKS[check].part == "tire":
        return 1 - rig.policy.tire_reserve
    return CUSHION_SCHOOL.get(check, 1.0) if rig.policy.school == "cushion" else 1.0


def _entered(rig: RigFile, mass: Mass | None, source: str, path: str) -> Limit | None:
    return (
        Limit(mass.kg, source, path, "guessed" if unsure(rig, path) else "real") if mass else None
    )


def _tow_entered(rig: RigFile) -> Limit | None:
    rating, mode = rig.vehicle.ratings.tow_rating, rig.hitch.mode
    return _entered(
        rig,
        rating_in(rating, mode),
        "tow_rating",
        f"vehicle.ratings.tow_rating{rating_path(rating, mode)}",
    )


def _sum(
    rig: RigFile, source: str, path: str, *terms: LimitTerm, certainty: Certainty = "real"
) -> Limit:
    kg = sum(-term.kg if term.op == "−" else term.kg for term in terms)
    if certainty == "real" and any(unsure(rig, term.path) for term in terms):
        certainty = "guessed"
    return Limit(kg, source, path, certainty, terms if len(terms) > 1 else ())


def _derated(rig: RigFile, limit: Limit | None) -> Limit | None:
    """A rating less the share that its maker takes off for the altitude one drives at."""
    share = rig.policy.gcwr_derate
    if not share or limit is None:
        return limit
    lost = LimitTerm("−", "altitude", share * limit.kg, "policy.gcwr_derate")
    terms = limit.terms or (LimitTerm("", limit.source, limit.kg, limit.path),)
    return replace(limit, kg=limit.kg - lost.kg, terms=(*terms, lost))


def combination_limit(rig: RigFile) -> Limit | None:
    """GCWR, else GVWR + tow rating, which is optimistic: the published one is often lower."""
    ratings = rig.vehicle.ratings
    tow = _tow_entered(rig)
    if ratings.gcwr:
        return _derated(rig, _entered(rig, ratings.gcwr, "gcwr", "vehicle.ratings.gcwr"))
    if ratings.gvwr and tow:
        gvwr = LimitTerm("", "gvwr", ratings.gvwr.kg, "vehicle.ratings.gvwr")
        added = LimitTerm("+", "tow_rating", tow.kg, tow.path)
        worked_out = _sum(
            rig, "gvwr+tow_rating", "vehicle.ratings.gcwr", gvwr, added, certainty="optimistic"
        )
        return _derated(rig, worked_out)
    return None


def tow_limit(rig: RigFile) -> Limit | None:
    """The tow rating, or the one for trailers without brakes where it has none; else GCWR − GVWR,
    usually conservative: a hitch or cooling limit can still be lower.

    A tow rating beside none for trailers without brakes is for trailers with brakes: it confirms
    nothing for one without.
    """
    ratings = rig.vehicle.ratings
    entered = _tow_entered(rig)
    if rig.trailer and rig.trailer.brakes == "none":
        bare = ratings.tow_unbraked
        if bare and (entered is None or bare.kg <= entered.kg):
            return _entered(rig, bare, "tow_unbraked", "vehicle.ratings.tow_unbraked")
        if entered is not None and bare is None:
            return replace(entered, certainty="guessed")
    if entered or not (ratings.gcwr and ratings.gvwr):
        return entered
    gcwr = LimitTerm("", "gcwr", ratings.gcwr.kg, "vehicle.ratings.gcwr")
    gvwr = LimitTerm("−", "gvwr", ratings.gvwr.kg, "vehicle.ratings.gvwr")
    share = rig.policy.gcwr_derate or 0.0
    lost = LimitTerm("−", "altitude", share * gcwr.kg, "policy.gcwr_derate")
    terms = (gcwr, gvwr, lost) if share else (gcwr, gvwr)
    return _sum(rig, "gcwr-gvwr", "vehicle.ratings.tow_rating", *terms, certainty="conservative")


def payload_limit(rig: RigFile) -> Limit | None:
    """The placard's payload less what add-on labels take away; with a trailer more, by what the
    maker adds to the GVWR then.
    """
    ratings = rig.vehicle.ratings
    if not ratings.payload:
        return None
    terms = [LimitTerm("", "placard", ratings.payload.kg, "vehicle.ratings.payload")]
    if ratings.payload_reduction and ratings.payload_reduction.kg:
        terms.append(
            LimitTerm(
                "−",
                "add-on label",
                ratings.payload_reduction.kg,
                "vehicle.ratings.payload_reduction",
            )
        )
    more, gvwr = ratings.gvwr_towing, ratings.gvwr
    if rig.towing and more and gvwr and more.kg > gvwr.kg:
        terms += [
            LimitTerm("+", "gvwr_towing", more.kg, "vehicle.ratings.gvwr_towing"),
            LimitTerm("−", "gvwr", gvwr.kg, "vehicle.ratings.gvwr"),
        ]
    return _sum(rig, "payload", "vehicle.ratings.payload", *terms)


def axles_limit(rig: RigFile) -> Limit | None:
    """The lesser of the trailer axles' ratings added up and the rating of the group."""
    if rig.trailer is None:
        return None
    ratings = rig.trailer.ratings
    terms = [
        LimitTerm(
            "+" if index else "", f"axle {index + 1}", rating.kg, f"trailer.ratings.gawr[{index}]"
        )
        for index, rating in enumerate(ratings.gawr)
    ]
    added = _sum(rig, "trailer.gawr", "trailer.ratings.gawr[0]", *terms) if terms else None
    if ratings.axle_group and (added is None or ratings.axle_group.kg < added.kg):
        return _entered(rig, ratings.axle_group, "trailer.axle_group", "trailer.ratings.axle_group")
    return added


def _least(limits: list[Limit]) -> Limit | None:
    return min(limits, key=lambda limit: limit.kg, default=None)  # min keeps the first of equals


Field = Literal["trailer", "tongue"]


def is_ball(part: HitchPart) -> bool:
    """Whether a part is the ball itself; a ball mount is not."""
    return part.kind.strip().lower().endswith("ball")


def is_coupler(part: HitchPart) -> bool:
    """Whether a part is the trailer's coupler."""
    return "coupler" in part.kind.lower()


def part_rating(part: HitchPart, field: Field, mode: Mode) -> tuple[Mass | None, str]:
    """A hitch part's rating in force and where it stands in the part: its own, or what its maker
    leaves at the drop it is set to.

    Of the table the first row that reaches the drop counts; beyond the last one, the last.
    """
    rating = part.trailer if field == "trailer" else part.tongue
    own = rating_in(rating, mode)
    rows = sorted(enumerate(part.by_drop), key=lambda entry: entry[1].drop.m)
    if part.drop is not None and rows:
        reach = part.drop.m * (1 - 1e-9)
        index, row = next((entry for entry in rows if entry[1].drop.m >= reach), rows[-1])
        left = row.trailer if field == "trailer" else row.tongue
        if left is not None and (own is None or left.kg < own.kg):
            return left, f"by_drop[{index}].{field}"
    return own, f"{field}{rating_path(rating, mode)}"


def _parts(rig: RigFile, field: Field) -> list[Limit]:
    limits = []
    for index, part in enumerate(rig.hitch.parts):
        mass, path = part_rating(part, field, rig.hitch.mode)
        if mass:
            path = f"hitch.parts[{index}].{path}"
            left = part.extension_leaves or 1.0
            lost = LimitTerm(
                "−", "extension", (1 - left) * mass.kg, f"hitch.parts[{index}].extension_leaves"
            )
            limits.append(
                Limit(
                    left * mass.kg,
                    part.kind,
                    path,
                    terms=(LimitTerm("", part.kind, mass.kg, path), lost) if left < 1 else (),
                )
            )
    return limits


def unrated_links(rig: RigFile, field: Field) -> tuple[str, ...]:
    """The links of the hitch chain that keep its limit from being known.

    A listed part without a rating in the mode used (balls and couplers need none for the tongue),
    one whose rating is a guess, and on a ball the receiver (or tow bar) where none is listed.
    """
    limits = []
    for index, part in enumerate(rig.hitch.parts):
        rating, place = part_rating(part, field, rig.hitch.mode)
        if rating is None:
            if field == "trailer" or not (is_ball(part) or is_coupler(part)):
                limits.append(part.kind)
        elif unsure(rig, f"hitch.parts[{index}].{place}"):
            limits.append(part.kind)
    if not on_pin(rig) and not any(
        word in part.kind.lower()
        for part in rig.hitch.parts
        for word in ("receiver", "tow bar", "towbar")
    ):
        limits.append("receiver")
    return tuple(limits)


def _of_chain(rig: RigFile, field: Field, least: Limit | None) -> Limit | None:
    """The least rating of the chain, marked where a link of it is not known."""
    if least is None:
        return None
    lacking = unrated_links(rig, field)
    if lacking:
        least.certainty, least.lacking = "incomplete_chain", lacking
    return least


def hitch_trailer_limit(rig: RigFile) -> Limit | None:
    """The least trailer rating in the hitch chain, in the mode used."""
    return _of_chain(rig, "trailer", _least(_parts(rig, "trailer")))


def tongue_limit(rig: RigFile) -> Limit | None:
    """The least tongue rating of vehicle and hitch chain; without any, roughly a tenth of an
    entered tow rating.
    """
    rating, mode = rig.vehicle.ratings.tongue_rating, rig.hitch.mode
    path = f"vehicle.ratings.tongue_rating{rating_path(rating, mode)}"
    own = _entered(rig, rating_in(rating, mode), "tongue_rating", path)
    least = _of_chain(rig, "tongue", _least(([own] if own else []) + _parts(rig, "tongue")))
    tow = _tow_entered(rig)
    if least or on_pin(rig) or on_its_wheels(rig) or tow is None:
        return least
    return Limit(
        ROUGH_TONGUE * tow.kg, "10% of tow_rating", "vehicle.ratings.tongue_rating", "rough"
    )


def _under_load(rig: RigFile, axles: AxleSet) -> dict[CheckId, Limit | None]:
    """Limits of tires, wheels and axle assembly: for one tire, one wheel, one axle."""
    rating, tires = axles.rating, axles.tires
    one_tire, wheel, assembly = UNDER_LOAD[axles.group]
    tire = Limit(rating.kg, rating.source, f"{axles.path}.{rating.field}") if rating else None
    if tire is not None and unsure(rig, tire.path):
        tire.certainty = "guessed"
    return {
        one_tire: tire,
        wheel: _entered(rig, tires.wheel, "wheel", f"{axles.path}.wheel"),
        assembly: _entered(rig, tires.assembly, "assembly", f"{axles.path}.assembly"),
    }


def _while_towing(
    rig: RigFile, rating: Mass | None, towing: Mass | None, name: str
) -> Limit | None:
    """A rating of the vehicle; with a trailer the larger one that its maker grants then, if it
    grants one.
    """
    if towing is not None and rig.towing and (rating is None or towing.kg > rating.kg):
        return _entered(rig, towing, f"{name}_towing", f"vehicle.ratings.{name}_towing")
    return _entered(rig, rating, name, f"vehicle.ratings.{name}")


def _rear_limit(rig: RigFile) -> Limit | None:
    """The rear axle's rating; with a tag axle both ratings added up, since the scale weighs both as
    one.
    """
    ratings = rig.vehicle.ratings
    rear, tag = (
        _while_towing(rig, ratings.gawr_rear, ratings.gawr_rear_towing, "gawr_rear"),
        ratings.gawr_tag,
    )
    if rear is None or tag is None:
        return rear
    both = (
        LimitTerm("", rear.source, rear.kg, rear.path),
        LimitTerm("+", "gawr_tag", tag.kg, "vehicle.ratings.gawr_tag"),
    )
    return _sum(rig, "gawr_rear+gawr_tag", rear.path, *both)


def limits(rig: RigFile) -> dict[CheckId, Limit | None]:
    """Every check's limit, by its id; the checks of single trailer axles included."""
    ratings, trailer = rig.vehicle.ratings, rig.trailer
    limits: dict[CheckId, Limit | None] = {
        "vehicle.front_axle": _entered(
            rig, ratings.gawr_front, "gawr_front", "vehicle.ratings.gawr_front"
        ),
        "vehicle.rear_axle": _rear_limit(rig),
        "vehicle.gross": _while_towing(rig, ratings.gvwr, ratings.gvwr_towing, "gvwr"),
        "vehicle.payload": payload_limit(rig),
    }
    for axle_set in axle_sets(rig):
        limits |= _under_load(rig, axle_set)
    if trailer is None:
        return limits
    limits |= {
        "combination.gross": combination_limit(rig),
        "vehicle.tow_rating": tow_limit(rig),
        "trailer.gross": _entered(
            rig, trailer.ratings.gvwr, "trailer.gvwr", "trailer.ratings.gvwr"
        ),
        "trailer.axles": axles_limit(rig),
        "trailer.cargo": _entered(rig, trailer.ratings.ccc, "trailer.ccc", "trailer.ratings.ccc"),
        "hitch.trailer": hitch_trailer_limit(rig),
        "hitch.tongue": tongue_limit(rig),
    }
    for index, rating in enumerate(trailer.ratings.gawr):
        limits[single_axle(index + 1)] = _entered(
            rig, rating, "trailer.gawr", f"trailer.ratings.gawr[{index}]"
        )
    return limits
