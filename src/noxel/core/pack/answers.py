"""What the load plan answers with. Masses are in the rig file's unit, unrounded; shares are
fractions.
"""

from dataclasses import dataclass

from noxel.core.limits import Verdict
from noxel.core.wording import Answer, Headline, MissingFigure, Shaped


@dataclass(slots=True, kw_only=True)
class ItemEffect:
    """What one item does: its whole mass, and its share on each axle and the tongue where its place
    is known.

    ``metres`` is its place behind the front axle (vehicle) or the coupler (trailer), for the
    drawing; ``takes`` says of which limit's room it takes the largest share.
    """

    index: int
    metres: float | None
    mass: float
    front: float | None
    rear: float | None
    tongue: float | None
    trailer_axles: float | None
    takes: str | None = None


class TankAnswer(Answer):
    """A tank in the phase looked at: what is in it, and what that adds to the tongue or the rear
    axle.
    """

    index: int
    metres: float | None
    full: float
    now: float
    level: float
    levels: dict[str, float]


class PhaseAnswer(Answer):
    """One phase of a trip as predicted: its verdict and limiting rating."""

    code: str
    name: str
    verdict: Verdict
    sentence: str
    used: float
    worst: bool


class Stowage(Answer):
    """How the cargo lies: ahead of and behind the trailer's axles, left and right, heavy and
    high.
    """

    ahead: float
    behind: float
    ahead_share: float | None
    cargo_tongue: float
    left: float
    right: float
    high: list[str]
    says: list[str]


class GapRow(Answer):
    """One load as predicted and as weighed; ``spread`` is the prediction's ±."""

    key: str
    label: str
    predicted: float
    measured: float
    plus_minus: float
    spread: float
    difference: float


class Gap(Answer):
    """How far off the plan was, and what would explain it."""

    rows: list[GapRow]
    reasons: list[str]


class CalibrationAnswer(Answer):
    """What the weigh-in teaches the lever model; lengths in the file's unit."""

    overhang: float | None
    overhang_pm: float | None
    tape: float | None
    in_use: bool
    agrees: bool
    says: list[str]


class UsualPlace(Answer):
    """A place that people name instead of measuring, with about where it is: ``text`` is what to
    type.
    """

    on: str
    name: str
    text: str


class CategoryTotal(Answer):
    """What the items of one category weigh together."""

    category: str
    mass: float


class PayloadLine(Answer):
    """One part of what the vehicle carries; each kilogram stands in one line only."""

    label: str
    mass: float


class School(Answer):
    """The tongue weight as one school of practice would estimate it."""

    code: str
    title: str
    value: float
    highest: bool


class PackAnswer(Answer):
    """The rig as planned: predicted loads, every check of them, what each item does.

    ``whole`` is whether the lever model predicts every load; else the checks hold what is expected
    from labels and lists. ``list_complete`` is whether the owner has said that the trailer's list
    is complete.
    """

    missing: list[MissingFigure]
    predicted: dict[str, float]
    whole: bool
    verdict: Verdict
    headline: Headline
    checks: list[Shaped]
    items: list[ItemEffect]
    payload: list[PayloadLine]
    payload_used: float
    payload_limit: float | None
    on_vehicle: float
    on_trailer: float
    schools: list[School]
    categories: list[CategoryTotal]
    tanks: list[TankAnswer]
    phase: str
    phases: list[PhaseAnswer]
    places: list[UsualPlace]
    stowage: Stowage | None
    gap: Gap | None
    calibration: CalibrationAnswer | None
    list_complete: bool
