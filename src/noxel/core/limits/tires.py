"""Tires: what they may carry, how old they are, what pressure a load needs, and the weakest part of
each axle.

A load index is an ISO 4000-1 figure; a date code's last four digits are week and year (49 CFR
574.5). A passenger-car tire on a truck, SUV, van, motorhome or trailer counts at its load ÷ 1.10
(49 CFR 571.110 S4.2.2.2; above 10,000 lb GVWR 571.120 S5.1.2).
"""

import datetime
import re
from dataclasses import dataclass

from noxel.core.limits.specs import AxleGroup
from noxel.core.quantities import Mass, PositiveMass
from noxel.core.rig import LOAD_INDEX, AxleTires, RigFile

P_METRIC = 1.10
"""What a P-metric tire's load is divided by on anything but a passenger car."""


OLD_YEARS = 6.0
"""From this age on, a tire is worth a caution whatever its tread. [years]"""


@dataclass(slots=True, eq=False)
class TireRating:
    """What one tire may carry as fitted, and what that was read from. [kg]"""

    kg: float
    source: str
    field: str


def read_load_index(text: str, *, dual: bool) -> float:
    """The mass that a load index stands for.

    Parameters
    ----------
    text : str
        ``"116"``, or ``"121/118"`` for single and dual wheels.
    dual : bool
        Whether the tires stand in pairs; then the second figure counts, where there is one.

    Returns
    -------
    float
        Load on one tire. [kg]

    References
    ----------
    .. [1] ISO 4000-1.
    """
    parts = [int(part) for part in text.split("/")]
    return float(LOAD_INDEX[parts[-1] if dual else parts[0]])


_P_SIZE = re.compile(r"\s*P\s*[0-9]", re.IGNORECASE)
_PLAIN_SIZE = re.compile(
    r"\s*[0-9]{3}\s*/\s*[0-9]{2}\s*Z?R\s*[0-9]{2}(?!\s*(?:C|LT|ST)\b)", re.IGNORECASE
)


def is_p_metric(tires: AxleTires, *, car: bool) -> bool:
    """Whether the ÷ 1.10 applies: the owner says so, else by a size that starts with P; never on a
    passenger car.
    """
    if car:
        return False
    return (
        tires.p_metric
        if tires.p_metric is not None
        else _P_SIZE.match(tires.size or "") is not None
    )


def may_be_passenger(tires: AxleTires, *, car: bool) -> bool:
    """Whether a metric size without P, LT, ST or C leaves open that this is a passenger-car tire,
    and nobody has said.
    """
    return not car and tires.p_metric is None and _PLAIN_SIZE.match(tires.size or "") is not None


def one_tire(
    tires: AxleTires | None, *, dual: bool = False, car: bool = False
) -> TireRating | None:
    """What one tire may carry: its typed load, else its load index; ÷ 1.10 where it is a P-metric
    tire.

    Parameters
    ----------
    tires : AxleTires or None
        As their sidewall has them.
    dual : bool
        Whether they stand in pairs.
    car : bool
        Whether they are on a passenger car.
    """
    if tires is None or (tires.max_load is None and tires.load_index is None):
        return None
    if tires.max_load is not None:
        rating = TireRating(tires.max_load.kg, "tire", "max_load")
    else:
        rating = TireRating(
            read_load_index(tires.load_index or "", dual=dual), "load index", "load_index"
        )
    if is_p_metric(tires, car=car):
        return TireRating(rating.kg / P_METRIC, f"{rating.source} ÷ 1.10", rating.field)
    return rating


def made_on(code: str) -> datetime.date:
    """The Sunday that begins the week named by a date code (years from 2000 on).

    Parameters
    ----------
    code : str
        Its last four digits are week and year.

    Notes
    -----
    Weeks run from Sunday to Saturday; week 01 is the first full one of the year.

    References
    ----------
    .. [1] 49 CFR 574.5, the date code.
    """
    week, year = int(code.strip()[-4:-2]), 2000 + int(code.strip()[-2:])
    first = datetime.date(year, 1, 1)
    first += datetime.timedelta(days=-(first.weekday() + 1) % 7)
    last = (datetime.date(year, 12, 31) - first).days // 7 + 1
    return first + datetime.timedelta(weeks=max(1, min(week, last)) - 1)


def age_years(code: str, today: datetime.date) -> float:
    """How old a tire is. [years]"""
    return (today - made_on(code)).days / 365.25


@dataclass(slots=True, eq=False)
class AxleSet:
    """The tires of one axle or group with what they stand under: ``rated`` is the axle rating,
    ``axles`` how many. [kg]

    ``rating`` is what one of its tires may carry. How many axles a trailer has is known from their
    ratings alone; where it is not, up to six tires count as single.
    """

    group: AxleGroup
    path: str
    tires: AxleTires
    rated: float | None
    axles: int | None
    dual: bool
    car: bool
    rating: TireRating | None

    def parts(self) -> list[tuple[str, float]]:
        """Every part between load and road with what it carries on this axle or group. [kg]"""
        count, rating, wheel = self.tires.count, self.rating, self.tires.wheel
        rated = [
            ("axle rating", self.rated),
            ("axle assembly", _times(self.tires.assembly, self.axles)),
            ("wheels", _times(wheel, count)),
            ("tires", rating.kg * count if rating and count else None),
        ]
        return [(name, kg) for name, kg in rated if kg is not None]


def _times(mass: PositiveMass | None, count: int | None) -> float | None:
    return mass.kg * count if mass is not None and count else None


def axle_sets(rig: RigFile) -> list[AxleSet]:
    """The tires of the rig, axle by axle; the trailer's together."""
    vehicle, trailer = rig.vehicle, rig.trailer
    car = vehicle.body == "wagon"
    capacities = []

    def put(
        group: AxleGroup,
        path: str,
        tires: AxleTires,
        rated: float | None,
        axles: int | None,
        *,
        car: bool,
    ) -> None:
        dual = bool(tires.count and (tires.count >= 4 * axles if axles else tires.count > 6))
        capacities.append(
            AxleSet(
                group, path, tires, rated, axles, dual, car, one_tire(tires, dual=dual, car=car)
            )
        )

    own: tuple[tuple[AxleGroup, AxleTires | None, Mass | None], ...] = (
        ("front", vehicle.tires.front, vehicle.ratings.gawr_front),
        ("rear", vehicle.tires.rear, vehicle.ratings.gawr_rear),
    )
    for group, tires, rated in own:
        if tires is not None:
            put(group, f"vehicle.tires.{group}", tires, rated.kg if rated else None, 1, car=car)
    if trailer is not None and trailer.tires is not None:
        axles = len(trailer.ratings.gawr) or None
        rated_sum = sum(gawr.kg for gawr in trailer.ratings.gawr) or None
        if trailer.ratings.axle_group:
            rated_sum = min(
                rated_sum or trailer.ratings.axle_group.kg, trailer.ratings.axle_group.kg
            )
        put(
            "trailer",
            "trailer.tires",
            trailer.tires,
            rated_sum,
            axles,
            car=trailer.style == "towed_car",
        )
    return capacities
