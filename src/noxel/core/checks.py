"""Checks: each load against its limit, and the verdict over all of them."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from noxel.core.figures import Figure, Term, combine, nominal, total
from noxel.core.ratings import Limit, cushion, limits, on_its_wheels, share_range
from noxel.core.rig import AxleTires
from noxel.core.rigfile import RigFile, source_words
from noxel.core.weighing import SAME, PassLoads, Weighing, reading_words

Status = Literal["over", "low", "high", "tight", "unconfirmed", "unknown", "within"]
Verdict = Literal["stop", "incomplete", "caution", "within"]

REQUIRED_TOWING = (
    "vehicle.front_axle", "vehicle.rear_axle", "vehicle.gross", "vehicle.tow_rating", "combination.gross",
    "trailer.gross", "trailer.axles", "hitch.trailer", "hitch.tongue", "tongue.share",
)  # fmt: skip
REQUIRED_ALONE = ("vehicle.front_axle", "vehicle.rear_axle", "vehicle.gross")

_FIGURES = {
    "vehicle.front_axle": "front_hitched",
    "vehicle.rear_axle": "rear_hitched",
    "vehicle.gross": "vehicle_hitched",
    "combination.gross": "combination_gross",
    "vehicle.tow_rating": "trailer_gross",
    "trailer.gross": "trailer_gross",
    "trailer.axles": "trailer_axles",
    "hitch.trailer": "trailer_gross",
    "hitch.tongue": "tongue_static",
    "tongue.share": "tongue_share",
}
_FLOORS = {
    "trailer.gross": "trailer_axles",
    "vehicle.tow_rating": "trailer_axles",
    "hitch.trailer": "trailer_axles",
    "hitch.tongue": "tongue_net",
}


def required_checks(rig: RigFile) -> tuple[str, ...]:
    """Which checks must be made; a car towed on its own wheels has no tongue to judge."""
    if not rig.towing:
        return REQUIRED_ALONE
    if on_its_wheels(rig):
        return tuple(check for check in REQUIRED_TOWING if check not in ("hitch.tongue", "tongue.share"))
    return REQUIRED_TOWING


@dataclass(slots=True, eq=False)
class Checked:
    """One check: the load, its limit, and what that makes of it. Masses in kilograms.

    ``margin`` is what is left below the limit, negative when over; ``used`` the share of the limit that is used.
    """

    id: str
    actual: Figure | None
    limit: Limit | None
    status: Status
    required: bool
    cushion: float = 1.0
    at_least: Figure | None = None
    range: tuple[float, float] | None = None

    margin: float | None = field(init=False)
    used: float | None = field(init=False)

    def __post_init__(self) -> None:
        self.margin = self.used = None
        if self.actual is not None and self.limit is not None:
            most = self.limit.kg
            self.margin = most - self.actual.value
            self.used = 1 - self.margin / most if most > 0 else None


def exceeds(actual: float, limit: float) -> bool:
    """Whether a load is above a limit by more than the rounding of unit conversions."""
    return actual - limit > SAME * max(abs(actual), abs(limit))


def _status(actual: float | None, pm: float, limit: Limit | None, cushioned: float, floor: float | None) -> Status:
    if limit is None:
        return "unknown"
    if actual is None:
        return "over" if floor is not None and not limit.worked_out and exceeds(floor, limit.kg) else "unknown"
    over = exceeds(actual, limit.kg)
    if limit.worked_out:
        return "over" if over and limit.certainty == "optimistic" else "unconfirmed"
    if over:
        return "over"
    near = limit.kg - actual <= pm + SAME * limit.kg
    return "tight" if near or exceeds(actual, cushioned * limit.kg) else "within"


def _share_status(figure: Figure | None, low: float, high: float) -> Status:
    if figure is None:
        return "unknown"
    if exceeds(low, figure.value):
        return "low"
    if exceeds(figure.value, high):
        return "high"
    nearest = min(figure.value - low, high - figure.value)
    return "tight" if nearest < figure.plus_minus * (1 - SAME) else "within"


def _tire_load(key: str, loads: PassLoads | None, group: str, whole: Figure | None, tires: AxleTires) -> Figure | None:
    if loads is None or tires.count is None:
        return None
    names = [name for name in loads.readings if name == group or name.startswith(f"{group}_")]
    stems = {name.removesuffix("_left").removesuffix("_right") for name in names}
    wheels = [name for name in names if name.endswith(("_left", "_right"))]
    if names and len(wheels) == len(names):
        heaviest = max(wheels, key=lambda name: nominal(loads.readings[name]))
        share = len(wheels)
        first = Term("", f"heaviest wheel: {reading_words(heaviest)}", loads.readings[heaviest])
    elif group == "trailer" and stems and group not in stems:
        axles = {
            stem: combine((1.0, loads.readings[name]) for name in names if name.startswith(stem)) for stem in sorted(stems)
        }
        stem = max(axles, key=lambda each: nominal(axles[each]))
        share = len(axles)
        first = Term("", f"heaviest axle: {reading_words(stem)}", axles[stem])
    elif whole is not None:
        share, first = 1, whole.term("", "load on the axle" if group != "trailer" else "load on the trailer's axles")
    else:
        return None
    terms = [first] + ([Term("×", "readings like it", float(share), "count")] if share > 1 else [])
    terms.append(Term("÷", "tires", float(tires.count), "count"))
    formula = f"{first.label.split(':')[0]}{' × number of such readings' if share > 1 else ''} ÷ number of tires"
    return Figure(key, combine([(share / tires.count, first.amount)]), formula, tuple(terms))


def _actuals(rig: RigFile, weighing: Weighing) -> dict[str, Figure | None]:
    figures = weighing.figures
    found: dict[str, Figure | None] = {check: figures.get(key) for check, key in _FIGURES.items()}
    hitched = weighing.hitched
    loaded = figures.get("vehicle_hitched")
    if loaded and "curb_measured" in figures:
        empty = figures["curb_measured"].term("−", "vehicle empty, weighed")
        found["vehicle.payload"] = total(
            "payload_used", "loaded vehicle − empty vehicle", [loaded.term("", "loaded vehicle"), empty]
        )
    elif loaded and rig.vehicle.curb_weight:
        empty = Term("−", "curb weight", rig.vehicle.curb_weight.kg, source=source_words(rig, "vehicle.curb_weight"))
        found["vehicle.payload"] = total(
            "payload_used", "loaded vehicle − curb weight", [loaded.term("", "loaded vehicle"), empty]
        )
    trailer = rig.trailer
    gross = figures.get("trailer_gross")
    if trailer and trailer.dry_weight and gross:
        dry = Term("−", "dry weight", trailer.dry_weight.kg, source=source_words(rig, "trailer.dry_weight"))
        found["trailer.cargo"] = total("cargo_used", "trailer in total − dry weight", [gross.term("", "trailer in total"), dry])
    if hitched:
        for number in hitched.single_axles if trailer else ():
            names = [name for name in hitched.readings if name.split("_")[:2] == ["trailer", str(number)]]
            terms = [
                Term("+" if index else "", reading_words(name), hitched.readings[name]) for index, name in enumerate(names)
            ]
            found[f"trailer.axle_{number}"] = total(f"trailer_axle_{number}", "the readings of this axle", terms)
        tires = rig.vehicle.tires
        if tires.front:
            found["tires.front"] = _tire_load("tire_front", hitched, "front", figures.get("front_hitched"), tires.front)
        if tires.rear:
            found["tires.rear"] = _tire_load("tire_rear", hitched, "rear", figures.get("rear_hitched"), tires.rear)
        if trailer and trailer.tires:
            found["tires.trailer"] = _tire_load("tire_trailer", hitched, "trailer", figures.get("trailer_axles"), trailer.tires)
    return found


def _listed(rig: RigFile, limit: Mapping[str, Limit | None], weighing: Weighing) -> Iterable[str]:
    required = required_checks(rig)
    yield from (check for check in required if check != "tongue.share")
    single = set(weighing.hitched.single_axles) if weighing.hitched else set()
    for check in limit:
        if check in required or limit[check] is None or (check == "hitch.tongue" and on_its_wheels(rig)):
            continue
        if check == "vehicle.payload" and not (rig.vehicle.curb_weight or "curb_measured" in weighing.figures):
            continue
        if check == "trailer.cargo" and not (rig.trailer and rig.trailer.dry_weight):
            continue
        if check.startswith("trailer.axle_") and int(check.rsplit("_", 1)[1]) not in single:
            continue
        yield check
    if "tongue.share" in required:
        yield "tongue.share"


def run_checks(rig: RigFile, weighing: Weighing) -> list[Checked]:
    """Hold every load against its limit.

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
    known, actuals = limits(rig), _actuals(rig, weighing)
    required = required_checks(rig)
    found = []
    for check in _listed(rig, known, weighing):
        actual = actuals.get(check)
        if check == "tongue.share":
            low, high = share_range(rig)
            found.append(Checked(check, actual, None, _share_status(actual, low, high), True, range=(low, high)))
            continue
        floor = weighing.figures.get(_FLOORS[check]) if actual is None and check in _FLOORS else None
        limit, share = known[check], cushion(rig, check)
        status = _status(actual.value if actual else None, actual.plus_minus if actual else 0.0, limit, share,
                         floor.value if floor else None)  # fmt: skip
        found.append(Checked(check, actual, limit, status, check in required, share, floor))
    return found


def verdict(checks: Iterable[Checked]) -> Verdict:
    """One word over all checks: ``stop``, ``incomplete``, ``caution`` or ``within``."""
    rows = list(checks)
    if any(row.status in ("over", "low") for row in rows):
        return "stop"
    if any(row.required and row.status == "unknown" for row in rows):
        return "incomplete"
    if any(row.status in ("tight", "high", "unconfirmed") for row in rows):
        return "caution"
    return "within"


_RANK: Mapping[Status, int] = {"over": 0, "low": 0, "high": 1, "tight": 2, "unknown": 3, "unconfirmed": 4, "within": 4}


def tightest_first(checks: Iterable[Checked]) -> list[Checked]:
    """Order checks as a judge reads them: what is over, what is too close, what is not known, then by room left."""

    def key(row: Checked) -> tuple[int, float]:
        rank = _RANK[row.status]
        if row.status == "unknown" and not row.required:
            rank = 5
        if row.range is not None:
            return rank, 0.5
        return rank, -(row.used if row.used is not None else 0.0)

    return sorted(checks, key=key)


def binding(checks: Iterable[Checked]) -> Checked | None:
    """The check that binds: the entered limit of which the largest share is used.

    With something over, it is the worst of those; a limit that was worked out binds only when no entered one is known.
    """
    rows = [row for row in checks if row.used is not None]
    entered = [row for row in rows if row.limit and not row.limit.worked_out]
    return max(entered or rows, key=lambda row: row.used or 0.0, default=None)
