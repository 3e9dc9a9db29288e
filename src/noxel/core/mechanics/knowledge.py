"""What is known of each load: as weighed, else as expected, each with how it is known.

What is expected never clears anything (rig-file format, “What half the facts let us expect”).
"""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.mechanics.pass_loads import SAME
from noxel.core.mechanics.sources import BASE_OFF, between, entered, share_off, source_at
from noxel.core.mechanics.weighing import Weighing
from noxel.core.quantities import Amount, Figure, Mass, Term, uncertain
from noxel.core.rig import (
    SETS,
    RigFile,
    on_pin,
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
    "planned_share",
    "places",
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


MOVED_OF_RESTORED = (0.10, 0.25)
"""Part of the tongue that tensioned spring bars move to the trailer's axles, for each part of the
front axle's loss that they give back, where the lengths are not known.
"""
PLACES_OFF = 0.01
"""How far a tongue worked out from places may be off, as a share of the trailer (two standard
uncertainties).
"""


RESTORED = (0.0, 1.0)
"""Part of the front axle's loss that they give back."""


LEVER_BALL, LEVER_PIN = (0.2, 0.5), (-0.1, 0.05)
"""Hitch point behind the rear axle, as a share of the wheelbase, where the lengths are not known.
"""


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

    ``empties`` are the vehicle without load by each way open, the one to use first (weighed empty,
    then the heavier of curb weight and placard); ``dries`` likewise the trailer as built (the
    heavier of dry weight and cargo label). [kg]
    """

    rig: RigFile
    weighing: Weighing
    empties: list[tuple[Way, Figure]] = field(default_factory=list)
    dries: list[Figure] = field(default_factory=list)
    expected: dict[str, Expected] = field(default_factory=dict)
    beside: dict[str, list[Expected]] = field(default_factory=dict)
    """The other ways that are open, for the loads that are expected."""
    net_on_hitch: Amount | None = None
    """What of the tongue stays on the vehicle, weighed or expected. [kg]"""

    @property
    def empty(self) -> Figure | None:
        """The vehicle without load, by the first way open. [kg]"""
        return self.empties[0][1] if self.empties else None

    def known(self, key: str) -> Figure | None:
        """A load as weighed, else as expected."""
        figure = self.weighing.figures.get(key)
        if figure is not None:
            return figure
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


def _by_label(
    rig: RigFile,
    key: str,
    formula: str,
    whole: tuple[str, float],
    *less: tuple[str, str, str, float],
) -> Figure | None:
    """An empty weight that a label makes: a rating less another. Its ± is that of the less sure of
    the sources that are said, as of a base weight. [kg]
    """
    kg = whole[1] + sum(-part if op == "−" else part for op, _, _, part in less)
    if kg <= 0:
        return None
    sources = [source_at(rig, path) for path in (whole[0], less[0][2])]
    off = max((share_off(source) for source in sources if source), default=BASE_OFF)
    words = SETS[rig.terms]
    terms = [Term("", words[_LABEL_WORDS[key]], whole[1], source=source_words(rig, whole[0]))]
    for op, label, path, part in less:
        sign: Literal["+", "−"] = "−" if op == "−" else "+"
        terms.append(Term(sign, words.get(label, label), part, source=source_words(rig, path)))
    return Figure(key, uncertain(kg, kg * off / 2), formula, tuple(terms))


_LABEL_WORDS = {"curb_by_placard": "gvwr", "dry_by_label": "trailer.gvwr"}


def curb_by_placard(rig: RigFile) -> Figure | None:
    """The empty vehicle by its labels: GVWR − payload + what add-on labels take away. [kg]"""
    ratings = rig.vehicle.ratings
    if ratings.gvwr is None or ratings.payload is None:
        return None
    less = [("−", "payload", "vehicle.ratings.payload", ratings.payload.kg)]
    if ratings.payload_reduction and ratings.payload_reduction.kg:
        path = "vehicle.ratings.payload_reduction"
        less.append(("+", "add-on label", path, ratings.payload_reduction.kg))
    whole = ("vehicle.ratings.gvwr", ratings.gvwr.kg)
    return _by_label(rig, "curb_by_placard", "GVWR − payload, by the labels", whole, *less)


def dry_by_label(rig: RigFile) -> Figure | None:
    """The trailer as built by its own label: GVWR − CCC. [kg]"""
    ratings = rig.trailer.ratings if rig.trailer else None
    if ratings is None or ratings.gvwr is None or ratings.ccc is None:
        return None
    less = ("−", "ccc", "trailer.ratings.ccc", ratings.ccc.kg)
    whole = ("trailer.ratings.gvwr", ratings.gvwr.kg)
    return _by_label(rig, "dry_by_label", "trailer GVWR − CCC, by the labels", whole, less)


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
        uncertain(mass.kg, pm.kg / 2)
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


def dry_entered(rig: RigFile) -> Figure | None:
    """The dry weight as entered, with the ± of its source. [kg]"""
    dry = rig.trailer.dry_weight if rig.trailer else None
    return typed(rig, "dry_weight", "trailer.dry_weight", dry.kg) if dry else None


def heavier_first(
    rig: RigFile, brochure: Figure | None, label: Figure | None, path: str
) -> list[Figure]:
    """A brochure's figure and the label's own, the heavier first; one off a scale always is."""
    both = [weight for weight in (brochure, label) if weight is not None]
    if brochure is None or label is None or source_at(rig, path) == "scale":
        return both
    heavier = label.value > brochure.value * (1 + SAME)  # of equals the brochure's
    return [label, brochure] if heavier else both


def empty_weights(rig: RigFile) -> list[Figure]:
    """The empty vehicle without weighing it, the figure to use first. [kg]"""
    return heavier_first(rig, curb_entered(rig), curb_by_placard(rig), "vehicle.curb_weight")


def dry_weights(rig: RigFile) -> list[Figure]:
    """The trailer as built without weighing it, the figure to use first. [kg]"""
    return heavier_first(rig, dry_entered(rig), dry_by_label(rig), "trailer.dry_weight")


def empty_by_label(rig: RigFile) -> Figure | None:
    """The empty vehicle as entered: the curb weight, else what its labels leave. [kg]"""
    return curb_entered(rig) or curb_by_placard(rig)


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


def usual_lever(rig: RigFile) -> Amount:
    """Overhang over wheelbase where the lengths are not known."""
    return between(*(LEVER_PIN if on_pin(rig) else LEVER_BALL))
