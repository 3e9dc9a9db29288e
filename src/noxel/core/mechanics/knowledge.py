"""What is known of each load: as weighed, else as expected, each with how it is known.

What is expected never clears anything (rig-file format, “What half the facts let us expect”).
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Literal

from uncertainties import ufloat

from noxel.core.mechanics.sources import entered, share_off, source_at
from noxel.core.mechanics.weighing import Weighing
from noxel.core.quantities import Amount, Figure, Mass, Term
from noxel.core.rig import (
    SETS,
    RigFile,
    source_words,
)

Way = Literal[
    "plan",
    "empty_weighed",
    "curb",
    "placard",
    "axles_and_tongue",
    "axles_and_share",
    "listed",
    "rating",
    "dry_share",
    "usual_share",
    "tongue_and_gross",
    "vehicle_and_tongue",
    "vehicle_and_trailer",
    "gross_and_tongue",
    "lever",
    "other_weigh_in",
]
"""How a load is known that was not weighed."""


RATIO_OFF = 0.03
"""How far the tongue's share of the loaded trailer may be from its dry share (two standard
uncertainties).
"""


MOVED = (0.0, 0.2)
"""Part of the tongue that tensioned spring bars move to the trailer's axles."""


RESTORED = (0.0, 1.0)
"""Part of the front axle's loss that they give back."""


LEVER_BALL, LEVER_PIN = (0.2, 0.5), (-0.1, 0.05)
"""Hitch point behind the rear axle, as a share of the wheelbase, where the lengths are not known.
"""


def between(low: float, high: float) -> Amount:
    """An amount of which only the ends are known: uniform between them."""
    return ufloat((low + high) / 2, (high - low) / 2 / math.sqrt(3))


@dataclass(slots=True, eq=False)
class Expected:
    """A load that was not weighed: the figure, and how it is known.

    ``on_trailer`` is whether it rests on what the trailer is expected to weigh by its rating or its
    list; ``weigh_in`` is the one that it comes from, from 1.
    """

    figure: Figure
    way: Way
    on_trailer: bool = False
    weigh_in: int | None = None


@dataclass(slots=True, eq=False)
class Knowledge:
    """What was weighed, and beside it what can be expected of the rest.

    ``empty`` is the vehicle without load by the first way open (weighed empty, curb weight,
    placard), ``dry`` the trailer's dry weight. [kg]
    """

    rig: RigFile
    weighing: Weighing
    empty: Figure | None
    dry: Figure | None
    expected: dict[str, Expected] = field(default_factory=dict)
    beside: dict[str, list[Expected]] = field(default_factory=dict)
    """The other ways that are open, for the loads that are expected."""

    def known(self, key: str) -> Figure | None:
        """A load as weighed, else as expected."""
        found = self.weighing.figures.get(key)
        if found is not None:
            return found
        expected = self.expected.get(key)
        return expected.figure if expected else None

    def rests_on_trailer(self, *keys: str) -> bool:
        """Whether any of these loads rests on what the trailer is expected to weigh by its rating
        or its list.
        """
        return any(key in self.expected and self.expected[key].on_trailer for key in keys)

    def way(self, key: str) -> Way | None:
        """How a load is known that was not weighed; None where it was, or cannot be expected."""
        return self.expected[key].way if key in self.expected else None


def curb_by_placard(rig: RigFile) -> Figure | None:
    """The empty vehicle by its labels: GVWR − payload + what add-on labels take away.

    Its ± is that of the less sure of GVWR and payload, as a share of the difference. [kg]
    """
    ratings = rig.vehicle.ratings
    if ratings.gvwr is None or ratings.payload is None:
        return None
    reduction = ratings.payload_reduction.kg if ratings.payload_reduction else 0.0
    kg = ratings.gvwr.kg - ratings.payload.kg + reduction
    if kg <= 0:
        return None
    paths = ("vehicle.ratings.gvwr", "vehicle.ratings.payload")
    off = kg * max(share_off(source_at(rig, path), base=True) for path in paths)
    terms = [
        Term("", SETS[rig.terms]["gvwr"], ratings.gvwr.kg, source=source_words(rig, paths[0])),
        Term(
            "−", SETS[rig.terms]["payload"], ratings.payload.kg, source=source_words(rig, paths[1])
        ),
    ]
    if reduction:
        terms.append(
            Term(
                "+",
                "add-on label",
                reduction,
                source=source_words(rig, "vehicle.ratings.payload_reduction"),
            )
        )
    return Figure(
        "curb_by_placard", ufloat(kg, off / 2), "GVWR − payload, by the labels", tuple(terms)
    )


def typed(rig: RigFile, key: str, path: str, kg: float) -> Figure:
    amount = entered(rig, path, kg, base=True)
    return Figure(
        key,
        amount,
        "as entered",
        (Term("", SETS[rig.terms].get(key, key), amount, source=source_words(rig, path)),),
    )


def base_weight(rig: RigFile, path: str, mass: Mass, pm: Mass | None) -> Amount:
    """A base of the plan: with the ± of the weigh-in it comes from, else that of its source."""
    return (
        ufloat(mass.kg, pm.kg / 2)
        if pm is not None and pm.kg
        else entered(rig, path, mass.kg, base=True)
    )


def source_of(figure: Figure) -> str | None:
    """Where a figure that was entered came from."""
    return figure.terms[0].source if len(figure.terms) == 1 else figure.formula


def curb_entered(rig: RigFile) -> Figure | None:
    """The curb weight as entered, with the ± of its source. [kg]"""
    curb = rig.vehicle.curb_weight
    return typed(rig, "curb_weight", "vehicle.curb_weight", curb.kg) if curb else None


def empty_by_label(rig: RigFile) -> Figure | None:
    """The empty vehicle without weighing it: its curb weight, else what its labels leave. [kg]"""
    return curb_entered(rig) or curb_by_placard(rig)


def dry_weight(rig: RigFile) -> Figure | None:
    dry = rig.trailer.dry_weight if rig.trailer else None
    return typed(rig, "dry_weight", "trailer.dry_weight", dry.kg) if dry else None


def expectation(
    key: str,
    way: Way,
    amount: Amount,
    formula: str,
    terms: Iterable[Term],
    *,
    on_trailer: bool = False,
) -> Expected:
    sort: Literal["mass", "share"] = "share" if key == "tongue_share" else "mass"
    return Expected(Figure(key, amount, formula, tuple(terms), sort), way, on_trailer)
