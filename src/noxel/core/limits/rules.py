"""Rules that are no rating: what the maker or the law requires from a mass on, judged by what was
weighed.

Each rests on a figure that the owner looked up and entered. Where none is entered, nothing is
required.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits.checks import exceeds
from noxel.core.mechanics import Weighing, empty_by_label
from noxel.core.rig import RigFile, TongueRow, on_pin

RuleCode = Literal[
    "brakes_missing",
    "bars_missing",
    "bars_forbidden",
    "bars_far_from_target",
    "bars_too_weak",
    "d_value_low",
    "frontal_area",
    "tire_speed",
    "camper_centre",
    "tongue_table",
    "tongue_table_ends",
    "tongue_table_open",
    "drop_beyond_table",
    "drop_not_known",
]
GRAVITY = 9.80665
"""Standard gravity. [m/s²]"""
NEAR = 0.25
"""The bars' restoration may be this share of the maker's target away from it."""


@dataclass(frozen=True, slots=True)
class BrokenRule:
    """A rule that is not kept: which, the field that it stands in, what was weighed and from where
    on it holds. [kg, shares, kN, or as entered]
    """

    code: RuleCode
    path: str
    weighed: float
    plus_minus: float
    limit: float


def broken_rules(rig: RigFile, weighing: Weighing) -> list[BrokenRule]:
    """Every rule that the rig as weighed does not keep.

    Parameters
    ----------
    rig : RigFile
        What is fitted, and the rules that its owner entered.
    weighing : Weighing
        The trailer in total, else the load on its axles, which is the least it can weigh.

    Notes
    -----
    A mass rule is broken where the trailer weighs more than its figure, by however little: the
    scale's ± is not the owner's to use. Restoration is judged only beyond its ±.
    """
    broken = _of_vehicle(rig)
    if rig.trailer is None:
        return broken
    figures = weighing.figures
    trailer = figures.get("trailer_gross") or figures.get("trailer_axles")
    rule, bars = rig.vehicle.distribution, rig.hitch.weight_distribution
    above = rig.policy.brakes_above
    if trailer and above and rig.trailer.brakes == "none" and exceeds(trailer.value, above.kg):
        broken.append(
            BrokenRule(
                "brakes_missing", "trailer.brakes", trailer.value, trailer.plus_minus, above.kg
            )
        )
    from_mass = rule.above.kg if rule and rule.above else 0.0
    if (
        trailer
        and rule
        and rule.rule == "required"
        and not bars
        and exceeds(trailer.value, from_mass)
    ):
        broken.append(
            BrokenRule(
                "bars_missing",
                "hitch.weight_distribution",
                trailer.value,
                trailer.plus_minus,
                from_mass,
            )
        )
    if trailer and rule and rule.rule == "forbidden" and bars:
        broken.append(
            BrokenRule(
                "bars_forbidden",
                "hitch.weight_distribution",
                trailer.value,
                trailer.plus_minus,
                0.0,
            )
        )
    target, restored = rig.hitch.target_restoration, figures.get("front_restoration")
    if target and restored and bars:
        beyond = abs(restored.value - target) - NEAR * target
        if beyond > restored.plus_minus:
            broken.append(
                BrokenRule(
                    "bars_far_from_target",
                    "hitch.target_restoration",
                    restored.value,
                    restored.plus_minus,
                    target,
                )
            )
    tongue = figures.get("tongue_static")
    rated = rig.hitch.bar_rating
    if bars and tongue and rated and exceeds(tongue.value, rated.kg):
        broken.append(
            BrokenRule(
                "bars_too_weak", "hitch.bar_rating", tongue.value, tongue.plus_minus, rated.kg
            )
        )
    broken += _of_parts(rig)
    broken += _tongue_table(rig, weighing)
    most, area = rig.vehicle.frontal_area, rig.trailer.frontal_area
    if most and area and exceeds(area, most):
        broken.append(BrokenRule("frontal_area", "trailer.frontal_area", area, 0.0, most))
    return broken


def _of_parts(rig: RigFile) -> list[BrokenRule]:
    """Rules of single hitch parts: their D-value, the drop they are set to. [kN, m]"""
    broken = []
    needed = d_value_needed(rig)
    for index, part in enumerate(rig.hitch.parts):
        if needed and part.d_value and exceeds(needed, part.d_value):
            broken.append(
                BrokenRule(
                    "d_value_low", f"hitch.parts[{index}].d_value", needed, 0.0, part.d_value
                )
            )
        last = max((row.drop.m for row in part.by_drop), default=None)
        path = f"hitch.parts[{index}].drop"
        if last is not None and part.drop is None:
            broken.append(BrokenRule("drop_not_known", path, 0.0, 0.0, last))
        elif last is not None and part.drop and exceeds(part.drop.m, last):
            broken.append(BrokenRule("drop_beyond_table", path, part.drop.m, 0.0, last))
    return broken


def row_for(rows: Sequence[TongueRow], carried: float) -> TongueRow:
    """The row of a maker's tongue table, in the order of its loads, for what the vehicle carries
    itself; the last one beyond it. [kg]
    """
    return next((row for row in rows if not exceeds(carried, row.load.kg)), rows[-1])


def tongue_rows(rig: RigFile) -> list[TongueRow]:
    """The vehicle maker's tongue table in the order of its loads."""
    return sorted(rig.vehicle.tongue_table, key=lambda row: row.load.kg)


def _tongue_table(rig: RigFile, weighing: Weighing) -> list[BrokenRule]:
    """The load on the hitch against the vehicle maker's table, in which it falls with what the
    vehicle carries itself. [kg]

    What both may be by their ± counts; where one of them is not known, the table stays open.
    """
    rows = tongue_rows(rig)
    if not rows:
        return []
    path, last = "vehicle.tongue_table", rows[-1]
    solo, tongue = weighing.figures.get("vehicle_solo"), weighing.figures.get("tongue_static")
    empty = weighing.figures.get("curb_measured") or empty_by_label(rig)
    if solo is None or tongue is None or empty is None:
        return [BrokenRule("tongue_table_open", path, 0.0, 0.0, last.tongue.kg)]
    carried = solo.value - empty.value
    most = carried + solo.plus_minus
    row = row_for(rows, most)
    over = exceeds(tongue.value + tongue.plus_minus, row.tongue.kg)
    if over and not exceeds(carried, last.load.kg):
        return [BrokenRule("tongue_table", path, tongue.value, tongue.plus_minus, row.tongue.kg)]
    if exceeds(most, last.load.kg):
        return [BrokenRule("tongue_table_ends", path, carried, solo.plus_minus, last.load.kg)]
    return []


def _of_vehicle(rig: RigFile) -> list[BrokenRule]:
    """Rules that hold with and without a trailer: how fast its tires may run, where a camper's
    centre of mass may lie. [as entered, m]
    """
    broken = []
    fast, trailer = rig.policy.travel_speed, rig.trailer
    sets = {
        "vehicle.tires.front": rig.vehicle.tires.front,
        "vehicle.tires.rear": rig.vehicle.tires.rear,
        "trailer.tires": trailer.tires if trailer else None,
    }
    for path, tires in sets.items():
        if fast and tires and tires.max_speed and exceeds(fast, tires.max_speed):
            broken.append(BrokenRule("tire_speed", f"{path}.max_speed", fast, 0.0, tires.max_speed))
    zone, centre = rig.vehicle.camper_zone, rig.vehicle.camper_centre
    if rig.kind == "slide_in" and zone and centre:
        low, high = sorted(end.m for end in zone)
        if not low <= centre.m <= high:
            broken.append(
                BrokenRule(
                    "camper_centre",
                    "vehicle.camper_centre",
                    centre.m,
                    0.0,
                    low if centre.m < low else high,
                )
            )
    return broken


def d_value_needed(rig: RigFile) -> float | None:
    """The D-value that a coupling between this vehicle and this trailer needs, by their plates.
    [kN]

    Notes
    -----
    D = g · T · R / (T + R), T and R the plated masses of vehicle and trailer in tonnes. For a
    trailer whose axles stand together in the middle R is what its axles carry when loaded to its
    plate: the plate less the load on the hitch where its axle group has a plate. On a pin
    D = g · 0.6 · T · R / (T + R − U), R the whole plate and U the load on the pin: the plate less
    that of the axle group, 0 without one.

    References
    ----------
    .. [1] UN Regulation No. 55, 2.11 (D for full trailers and for fifth wheel couplings, Dc for
       centre-axle trailers).
    """
    towing, trailer = rig.vehicle.ratings.gvwr, rig.trailer
    if towing is None or trailer is None or trailer.ratings.gvwr is None:
        return None
    t, plate = towing.kg / 1000, trailer.ratings.gvwr.kg / 1000
    group = trailer.ratings.axle_group
    axles = min(plate, group.kg / 1000) if group else plate
    if on_pin(rig):
        return GRAVITY * 0.6 * t * plate / (t + axles)
    return GRAVITY * t * axles / (t + axles)
