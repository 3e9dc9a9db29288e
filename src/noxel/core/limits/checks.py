"""Checks: each load against its limit, and the verdict over all of them."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.limits.ratings import Limit, cushion, limits, unsure
from noxel.core.limits.specs import CHECKS, CheckId, CheckSpec, Part, single_axle
from noxel.core.limits.under_load import single_axles, under_load
from noxel.core.mechanics import (
    SAME,
    Weighing,
    curb_by_placard,
    curb_entered,
    dry_by_label,
    dry_entered,
    source_at,
)
from noxel.core.quantities import Figure, Term, total
from noxel.core.rig import RigFile, on_its_wheels, share_range, source_words

Status = Literal["over", "low", "high", "tight", "unconfirmed", "unknown", "within"]
Verdict = Literal["stop", "incomplete", "caution", "within"]
Outlook = Literal["over", "over_at_rating", "low", "high", "within", "open"]

BARS_MAY_MOVE = 0.25
"""Part of the tongue that bars may still move to the trailer's axles, once they are tensioned."""


def required_checks(rig: RigFile) -> tuple[CheckId, ...]:
    """Which checks must be made; a car towed on its own wheels has no tongue to judge."""
    when = ("always", "towing") if rig.towing else ("always",)
    tongue = not on_its_wheels(rig)
    return tuple(
        check
        for check, spec in CHECKS.items()
        if spec.required in when and (tongue or spec.settled_by != "tongue")
    )


@dataclass(slots=True, eq=False)
class Foreseen:
    """What a check that cannot be made is expected to find. Margin in kilograms, None for the
    tongue share.
    """

    actual: Figure
    margin: float | None
    outlook: Outlook


@dataclass(slots=True, eq=False)
class Checked:
    """One check: the load, its limit, and what that makes of it. Masses in kilograms.

    ``margin`` is what is left below the limit, negative when over; ``used`` the share of the limit
    that is used. ``expected`` is what a check that cannot be made yet is expected to find.
    """

    id: CheckId
    actual: Figure | None
    limit: Limit | None
    status: Status
    required: bool
    cushion: float = 1.0
    at_least: Figure | None = None
    range: tuple[float, float] | None = None
    expected: Foreseen | None = None
    by_other_label: Figure | None = None

    margin: float | None = field(init=False)
    used: float | None = field(init=False)

    @property
    def spec(self) -> CheckSpec:
        """What the check is."""
        return CHECKS[self.id]

    @property
    def rating_path(self) -> str | None:
        """Where its rating is entered."""
        return self.limit.path if self.limit else self.spec.rating

    def __post_init__(self) -> None:
        self.margin = self.used = None
        believed = self.actual is not None and not impossible(self.id, self.actual)
        if self.actual is not None and believed and self.limit is not None:
            most = self.limit.kg
            self.margin = most - self.actual.value
            self.used = 1 - self.margin / most if most > 0 else None

    @property
    def expected_share(self) -> float | None:
        """The share of the limit that is expected to be used; infinite where the limit leaves
        nothing, such as a GCWR no larger than the GVWR.
        """
        if self.expected is None or self.limit is None:
            return None
        most = self.limit.kg
        return self.expected.actual.value / most if most > 0 else math.inf


def exceeds(actual: float, limit: float) -> bool:
    """Whether a load is above a limit by more than the rounding of unit conversions."""
    return actual - limit > SAME * max(abs(actual), abs(limit))


def impossible(check: CheckId, actual: Figure) -> bool:
    """Whether a load is below nothing by more than its ±."""
    return not CHECKS[check].may_be_negative and actual.value + actual.plus_minus < 0


def status_of(
    check: CheckId,
    actual: Figure | None,
    limit: Limit | None,
    cushioned: float,
    by_other_label: Figure | None = None,
) -> Status:
    """The status of a load against its limit; ``cushioned`` is the share of it that may be used."""
    if limit is None or actual is None or impossible(check, actual):
        return "unknown"
    over = exceeds(actual.value, limit.kg)
    if by_other_label is not None and exceeds(by_other_label.value, limit.kg) != over:
        return "unconfirmed"
    return status_at(actual.value, actual.plus_minus, limit, cushioned)


def status_at(load: float, plus_minus: float, limit: Limit, cushioned: float) -> Status:
    """The status of a load and its ± against a limit. [kg]"""
    if exceeds(load, limit.kg) and (not limit.worked_out or limit.certainty == "optimistic"):
        return "over"
    if not limit.real:
        return "unconfirmed"
    near = limit.kg - load <= plus_minus + SAME * limit.kg
    return "tight" if near or exceeds(load, cushioned * limit.kg) else "within"


def share_status(figure: Figure | None, low: float, high: float) -> Status:
    """The status of a tongue share against the range aimed at."""
    if figure is None:
        return "unknown"
    if exceeds(low, figure.value):
        return "low"
    if exceeds(figure.value, high):
        return "high"
    nearest = min(figure.value - low, high - figure.value)
    return "tight" if nearest < figure.plus_minus * (1 - SAME) else "within"


def payload_used(rig: RigFile, loaded: Figure | None, empty: Figure | None) -> Figure | None:
    """What people, cargo, hitch and tongue weigh: the loaded vehicle less the empty one. [kg]"""
    if loaded is None or empty is None:
        return None
    names = {
        "curb_measured": "vehicle empty, weighed",
        "curb_weight": "curb weight",
        "curb_by_placard": "empty weight by the labels",
    }
    name = names[empty.key]
    source = source_words(rig, "vehicle.curb_weight") if empty.key == "curb_weight" else None
    terms = [loaded.term("", "loaded vehicle"), Term("−", name, empty.amount, source=source)]
    return total("payload_used", f"loaded vehicle − {name}", terms)


def cargo_used(rig: RigFile, gross: Figure | None, dry: Figure | None) -> Figure | None:
    """What the trailer carries: the trailer in total less its weight as built. [kg]"""
    if gross is None or dry is None:
        return None
    name = "dry weight" if dry.key == "dry_weight" else "empty weight by the label"
    source = source_words(rig, "trailer.dry_weight") if dry.key == "dry_weight" else None
    terms = [gross.term("", "trailer in total"), Term("−", name, dry.amount, source=source)]
    return total("cargo_used", f"trailer in total − {name}", terms)


@dataclass(frozen=True, slots=True)
class Bases:
    """The empty weights that payload and cargo are counted from, as they were entered and without a
    ±: the one used, and the label's own beside a brochure's. [kg]
    """

    empty: Figure | None
    empty_by_label: Figure | None
    dry: Figure | None
    dry_by_label: Figure | None


def bases_of(rig: RigFile, weighing: Weighing) -> Bases:
    """Which empty weights a rig's payload and cargo are counted from."""
    measured = weighing.figures.get("curb_measured")
    empty, other_empty = _two_labels(
        rig, curb_entered(rig), curb_by_placard(rig), "vehicle.curb_weight"
    )
    dry, other_dry = _two_labels(rig, dry_entered(rig), dry_by_label(rig), "trailer.dry_weight")
    return Bases(measured or empty, None if measured else other_empty, dry, other_dry)


def _two_labels(
    rig: RigFile, entered: Figure | None, label: Figure | None, path: str
) -> tuple[Figure | None, Figure | None]:
    """A figure as entered, else the label's own; and the label's own where the other is a
    brochure's.
    """
    entered, label = (
        Figure(typed.key, typed.value, "as entered") if typed else None
        for typed in (entered, label)
    )
    brochure = entered is not None and source_at(rig, path) != "scale"
    return entered or label, label if brochure else None


def _actuals(rig: RigFile, weighing: Weighing, bases: Bases) -> dict[CheckId, Figure | None]:
    figures, hitched = weighing.figures, weighing.hitched
    actuals: dict[CheckId, Figure | None] = {
        check: figures.get(spec.load)
        for check, spec in CHECKS.items()
        if spec.part in ("load", "share")
    }
    actuals["vehicle.payload"] = payload_used(rig, figures.get("vehicle_hitched"), bases.empty)
    actuals["trailer.cargo"] = cargo_used(rig, figures.get("trailer_gross"), bases.dry)
    if hitched and rig.trailer:
        for number, figure in single_axles(hitched).items():
            actuals[single_axle(number)] = figure
    return actuals | under_load(rig, hitched, figures)


def _by_other_label(rig: RigFile, weighing: Weighing, bases: Bases) -> dict[CheckId, Figure | None]:
    """Payload and cargo counted from the label's own empty weight, beside a brochure's."""
    figures = weighing.figures
    return {
        "vehicle.payload": payload_used(rig, figures.get("vehicle_hitched"), bases.empty_by_label),
        "trailer.cargo": cargo_used(rig, figures.get("trailer_gross"), bases.dry_by_label),
    }


def _listed(
    rig: RigFile, limit: Mapping[CheckId, Limit | None], weighing: Weighing
) -> Iterable[CheckId]:
    required = required_checks(rig)
    yield from (check for check in required if check != "tongue.share")
    single = weighing.hitched.single_axles if weighing.hitched else ()
    for check, known in limit.items():
        spec = CHECKS[check]
        if check in required or known is None:
            continue
        if spec.settled_by == "tongue" or (spec.axle is not None and spec.axle not in single):
            continue
        yield check
    if "tongue.share" in required:
        yield "tongue.share"


_BASE_OF: Mapping[Part, str] = {
    "beyond_empty": "vehicle.curb_weight",
    "beyond_dry": "trailer.dry_weight",
}


def limit_of(
    rig: RigFile, check: CheckId, known: Mapping[CheckId, Limit | None], weighing: Weighing
) -> Limit | None:
    """A check's limit; one that rests on a curb or dry weight that is only a guess confirms
    nothing.
    """
    limit, part = known[check], CHECKS[check].part
    base = _BASE_OF.get(part)
    if limit is None or base is None or not limit.real:
        return limit
    if part == "beyond_empty" and "curb_measured" in weighing.figures:
        return limit
    return limit.resting_on(base) if unsure(rig, base) else limit


def run_checks(rig: RigFile, weighing: Weighing) -> list[Checked]:
    """Compare every load with its limit.

    Parameters
    ----------
    rig : RigFile
        Its ratings, hitch chain and policy.
    weighing : Weighing
        What the weigh-in lets us know.

    Returns
    -------
    list of Checked
        The required checks even when unknown; the others where their limit is known.
    """
    known, bases = limits(rig), bases_of(rig, weighing)
    actuals, others = _actuals(rig, weighing, bases), _by_other_label(rig, weighing, bases)
    required = required_checks(rig)
    rows = []
    for check in _listed(rig, known, weighing):
        actual = actuals.get(check)
        if check == "tongue.share":
            rows.append(_share_row(rig, weighing, actual))
            continue
        limit, share, other = (
            limit_of(rig, check, known, weighing),
            cushion(rig, check),
            others.get(check),
        )
        status = status_of(check, actual, limit, share, other)
        floors = _floors(rig, weighing, check, bases) if actual is None and rig.towing else []
        if floors and limit and limit.real and all(exceeds(f.value, limit.kg) for f in floors):
            status = "over"
        floor = floors[0] if floors else None
        row = Checked(check, actual, limit, status, check in required, share, floor)
        row.by_other_label = other or (floors[1] if len(floors) > 1 else None)
        if status == "within" and not_settled(rig, weighing, row):
            row.status = "tight"
        rows.append(row)
    return rows


def _share_row(rig: RigFile, weighing: Weighing, actual: Figure | None) -> Checked:
    low, high = share_range(rig)
    gross = weighing.figures.get("trailer_gross")
    believed = gross is not None and gross.value + gross.plus_minus > 0
    status = share_status(actual, low, high) if believed else "unknown"
    if status == "within" and weighing.off_height:
        status = "tight"
    return Checked("tongue.share", actual, None, status, True, range=(low, high))


def _floors(rig: RigFile, weighing: Weighing, check: CheckId, bases: Bases) -> list[Figure]:
    """What a load that is not known is at least: for the payload by each label. [kg]"""
    if check == "vehicle.payload":
        solo = weighing.figures.get("vehicle_solo")
        by_labels = (payload_used(rig, solo, base) for base in (bases.empty, bases.empty_by_label))
        return [used for used in by_labels if used is not None]
    floor = weighing.figures.get(CHECKS[check].floor or "")
    return [floor] if floor else []


def not_settled(rig: RigFile, weighing: Weighing, row: Checked) -> bool:
    """Whether a load within its limit is not settled yet: the tongue was measured at another
    height, or bars that are still slack will move load here.
    """
    if row.spec.settled_by == "tongue":
        return weighing.off_height
    to_come = rig.hitch.weight_distribution and weighing.slack and not weighing.engaged
    if not to_come or row.actual is None or row.limit is None:
        return False
    if row.id == "trailer.axles":
        tongue = weighing.figures.get("tongue_static")
        load = row.actual.value + (BARS_MAY_MOVE * tongue.value if tongue else 0.0)
        return exceeds(load, row.limit.kg)
    solo = weighing.figures.get("front_solo") if row.id == "vehicle.front_axle" else None
    return solo is not None and exceeds(solo.value, row.limit.kg)


def verdict(checks: Iterable[Checked], *, doubted: bool = False, broken: bool = False) -> Verdict:
    """One word over all checks: ``stop``, ``incomplete``, ``caution`` or ``within``.

    ``doubted`` is whether something stands that cannot be right and that the owner has not
    accepted; ``broken`` whether a rule of the maker or of the law is not kept.
    """
    rows = list(checks)
    if any(row.status in ("over", "low") for row in rows):
        return "stop"
    if any(row.required and row.status == "unknown" for row in rows):
        return "incomplete"
    if (
        doubted
        or broken
        or any(row.status in ("tight", "high", "unconfirmed", "unknown") for row in rows)
    ):
        return "caution"
    return "within"


_RANK: Mapping[Status, int] = {
    "over": 0,
    "low": 0,
    "high": 1,
    "tight": 2,
    "unknown": 3,
    "unconfirmed": 4,
    "within": 4,
}


def tightest_first(checks: Iterable[Checked]) -> list[Checked]:
    """Order checks as a judge reads them: what is over, what is too close, what is not known, then
    by room left.
    """

    def key(row: Checked) -> tuple[int, float]:
        rank = _RANK[row.status]
        if row.status == "unknown" and not row.required and row.expected is None:
            rank = 5
        if row.range is not None:
            return rank, 0.5
        if row.expected_share is not None:
            return rank, -row.expected_share
        return rank, -(row.used if row.used is not None else 0.0)

    return sorted(checks, key=key)


def binding(checks: Iterable[Checked]) -> Checked | None:
    """The limiting check: the real limit of which the largest share is used.

    With something over, it is the worst of those; a limit that is not real counts only when no real
    one is known.
    """
    rows = [row for row in checks if row.used is not None]
    over = [row for row in rows if row.status == "over"]
    real = [row for row in rows if row.limit and row.limit.real]
    return max(over or real or rows, key=lambda row: row.used or 0.0, default=None)
