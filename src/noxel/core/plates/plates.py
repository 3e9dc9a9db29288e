"""What the plates say beyond the checks: worked-out figures beside the real ones, the tires, how
level the trailer rides.
"""

import datetime
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits import (
    AxleSet,
    axle_sets,
    combination_limit,
    is_p_metric,
    made_on,
    may_be_passenger,
    pressure_for,
    tongue_limit,
    tow_limit,
)
from noxel.core.mechanics import curb_by_placard
from noxel.core.plates.readiness import ReadinessItem, readiness
from noxel.core.quantities import KG, KPA, Mass, print_mass, print_pressure
from noxel.core.rig import SETS, RigFile
from noxel.core.wording import Answer, Attitude, Evaluation, attitude

Direction = Literal["optimistic", "conservative", "rough", "exact"]


AGREES = 0.003
"""A worked-out figure this close to the entered one, relatively, agrees with it: labels round."""
_TESTED_WITH = (
    "A tow rating by SAE J2807 is tested with two people of 150 lb each and the hitch "
    "aboard: all else comes off it."
)


class Beside(Answer):
    """A figure that follows from others, shown beside the field where the real one belongs.

    ``stands_in`` is whether nothing was entered there; ``direction`` says how far to trust it.
    """

    path: str
    value: float
    formula: str
    direction: Direction
    stands_in: bool
    says: str


@dataclass(frozen=True, slots=True)
class PartOf:
    """One part between load and road, with what it carries on the whole axle or group."""

    name: str
    rating: float
    weakest: bool


class TireAnswer(Answer):
    """The tires of one axle or group: what one carries, what it may carry, the weakest part, the
    pressure it needs.
    """

    group: str
    load: float | None
    rated: float | None
    rated_from: str | None
    p_metric: bool
    made: str | None
    parts: list[PartOf]
    weakest: str | None
    pressure: float | None
    says: list[str]


class PlatesAnswer(Answer):
    """Everything that the labels say beyond the checks."""

    beside: list[Beside]
    tires: list[TireAnswer]
    attitude: Attitude | None
    planning_dry: float | None
    ready: list[ReadinessItem]
    pressure_unit: Literal["psi", "kPa", "bar"]


_TRUST = {
    "optimistic": "Optimistic: the published figure is often lower.",
    "conservative": "Usually conservative; a hitch or cooling limit can be lower still.",
    "rough": "Rough: a rule of thumb.",
    "exact": "",
}


class _Beside:
    def __init__(self, rig: RigFile) -> None:
        self.rig, self.unit = rig, rig.units.mass
        self.found: list[Beside] = []

    def term(self, key: str) -> str:
        return SETS[self.rig.terms].get(key, key)

    def put(
        self,
        path: str,
        entered: Mass | None,
        kg: float,
        formula: str,
        direction: Direction,
        more: str = "",
    ) -> None:
        printed = print_mass(kg, self.unit)
        if entered is None:
            says = " ".join(
                sentence
                for sentence in (f"worked out: {printed} = {formula}.", _TRUST[direction], more)
                if sentence
            )
        elif abs(kg - entered.kg) <= AGREES * entered.kg:
            says = f"agrees with {printed} = {formula}"
        else:
            more = print_mass(abs(kg - entered.kg), self.unit)
            says = f"{formula} is {printed}, {more} {'more' if kg > entered.kg else 'less'}"
        self.found.append(
            Beside(
                path=path,
                value=kg / KG[self.unit],
                formula=formula,
                direction=direction,
                stands_in=entered is None,
                says=says,
            )
        )


def _besides(rig: RigFile, measured_curb: float | None) -> list[Beside]:
    """Worked-out figures; those that stand in for a rating are the limits that the checks use."""
    work = _Beside(rig)
    vehicle, ratings, trailer = rig.vehicle, rig.vehicle.ratings, rig.trailer
    empty = curb_by_placard(rig)
    if empty is not None:
        reduced = (
            f" + {work.term('payload')} taken by the add-on label"
            if ratings.payload_reduction
            else ""
        )
        formula = f"{work.term('gvwr')} − {work.term('payload')}{reduced}"
        work.put("vehicle.curb_weight", vehicle.curb_weight, empty.value, formula, "rough")
    if measured_curb is not None:
        work.put(
            "vehicle.curb_weight",
            vehicle.curb_weight,
            measured_curb,
            "the empty vehicle on the scale",
            "exact",
        )
    if trailer is None:
        return work.found
    for limit, path in (
        (combination_limit(rig), "vehicle.ratings.gcwr"),
        (tow_limit(rig), "vehicle.ratings.tow_rating"),
        (tongue_limit(rig), "vehicle.ratings.tongue_rating"),
    ):
        if limit is None or not limit.worked_out:
            continue
        formula = {
            "gvwr+tow_rating": f"{work.term('gvwr')} + {work.term('tow_rating')}",
            "gcwr-gvwr": f"{work.term('gcwr')} − {work.term('gvwr')}",
            "10% of tow_rating": f"10 % of the {work.term('tow_rating')}",
        }[limit.source]
        if limit.certainty in ("optimistic", "conservative", "rough"):
            tested = rig.terms == "north_america" and limit.source != "10% of tow_rating"
            work.put(path, None, limit.kg, formula, limit.certainty, _TESTED_WITH if tested else "")
    if (
        trailer.ratings.gvwr
        and trailer.dry_weight
        and trailer.ratings.gvwr.kg > trailer.dry_weight.kg
    ):
        left = trailer.ratings.gvwr.kg - trailer.dry_weight.kg
        formula = f"{work.term('trailer.gvwr')} − {work.term('dry_weight')}"
        work.put("trailer.ratings.ccc", trailer.ratings.ccc, left, formula, "optimistic")
    return work.found


def _tire_answer(rig: RigFile, axle_set: AxleSet, load: float | None, unit: str) -> TireAnswer:
    tires, rating, says = axle_set.tires, axle_set.rating, []
    parts = axle_set.parts()
    least = min((kg for _, kg in parts), default=None)
    weakest = next((name for name, kg in parts if kg == least), None) if len(parts) > 1 else None
    factor = KG[rig.units.mass]
    if rating and is_p_metric(tires, car=axle_set.car):
        says.append(
            "A passenger-car tire on a truck, SUV, van, motorhome or trailer counts at its load ÷ "
            "1.10."
        )
    elif may_be_passenger(tires, car=axle_set.car):
        says.append(
            "A size without P, LT, ST or C is often a passenger-car tire. If the sidewall does "
            "not say LT, ST or C, "
            "say that it is one: its load then counts ÷ 1.10."
        )
    if weakest and weakest != "axle rating":
        says.append(
            f"The {weakest} carry less than the axle rating: they are the limit here."
            if weakest != "axle assembly"
            else "The axle assembly carries less than the axle rating: it is the limit here."
        )
    elif len(parts) > 1 and parts[0][0] == "axle rating":
        says.append(
            "The axle rating is the limit. Stronger wheels, tires or springs do not raise it."
        )
    need = None
    if tires.table and load is None:
        says.append(
            "The pressure follows from the load on one tire: weigh this axle and enter its number "
            "of tires."
        )
    elif load is not None:
        need = pressure_for(tires, load, car=axle_set.car)
    if need is not None and load is not None:
        words = print_mass(load, rig.units.mass)
        if need.from_table is None:
            says.append(f"No pressure in the table carries {words} on one tire.")
        elif need.above_sidewall:
            says.append(
                f"{words} on one tire would need {print_pressure(need.from_table, unit)}, above "
                "the sidewall's maximum."
            )
        elif need.kpa is not None:
            why = (
                "the placard asks for more than the table"
                if need.raised_to_placard
                else f"the table's row for {words} on one tire"
            )
            says.append(
                f"At least {print_pressure(need.kpa, unit)}, cold, both sides alike: {why}."
            )
            if tires.pressure and tires.pressure.kpa < need.kpa * (1 - 1e-6):
                says.append(
                    f"Set is {print_pressure(tires.pressure.kpa, unit)}: too low for this load."
                )
    week = made_on(tires.date_code).isocalendar() if tires.date_code else None
    return TireAnswer(
        group=axle_set.group,
        load=None if load is None else load / factor,
        rated=rating.kg / factor if rating else None,
        rated_from=rating.source if rating else None,
        p_metric=is_p_metric(tires, car=axle_set.car),
        made=f"week {week.week} of {week.year}" if week else None,
        parts=[PartOf(name, kg / factor, name == weakest) for name, kg in parts],
        weakest=weakest,
        pressure=need.kpa / KPA[unit] if need and need.kpa is not None else None,
        says=says,
    )


def evaluate_plates(
    rig: RigFile, evaluation: Evaluation, today: datetime.date | None = None
) -> PlatesAnswer:
    """Everything that the labels say beyond the checks.

    ``rig``: its labels. ``evaluation``: of the weigh-in looked at: the load on one tire, and the
    measured curb weight. ``today``: for the readiness list; None is the machine's own date.

    Masses are in the file's unit, lengths in its length unit, pressures in its pressure unit.
    """
    factor = KG[rig.units.mass]
    unit = rig.units.pressures
    loads = {check.id: check.actual for check in evaluation.checks}
    curb = evaluation.derived.curb_measured
    tires = []
    for axle_set in axle_sets(rig):
        load = loads.get(f"tires.{axle_set.group}")
        tires.append(_tire_answer(rig, axle_set, None if load is None else load * factor, unit))
    trailer = rig.trailer
    planning = None
    if trailer and trailer.dry_weight:
        planning = (
            trailer.dry_weight.kg
            + sum(extra.mass.kg for extra in trailer.dry_extras if not extra.counted)
        ) / factor
    return PlatesAnswer(
        beside=_besides(rig, curb.value * factor if curb else None),
        tires=tires,
        attitude=attitude(rig),
        planning_dry=planning,
        ready=readiness(rig, evaluation, today or datetime.date.today()),
        pressure_unit=unit,
    )
