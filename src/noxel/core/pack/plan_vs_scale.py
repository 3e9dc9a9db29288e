"""How far off was it? The plan against the scale, axle by axle, and what unlisted item would
explain the gap.
"""

import math
from collections.abc import Mapping

from noxel.core.mechanics import Weighing, overhang
from noxel.core.pack.answers import Gap, GapRow
from noxel.core.quantities import KG, print_length, print_mass, print_share
from noxel.core.rig import RigFile
from noxel.core.wording import figure_title, term_name, vehicle_word

_ROWS = (
    "front_solo",
    "rear_solo",
    "front_hitched",
    "rear_hitched",
    "tongue_static",
    "trailer_axles",
    "trailer_gross",
    "combination_gross",
)


def _in_vehicle(rig: RigFile, off: Mapping[str, float], pm: Mapping[str, float]) -> list[str]:
    if "front_solo" not in off or "rear_solo" not in off or rig.vehicle.geometry.wheelbase is None:
        return []
    a, mass = rig.vehicle.geometry.wheelbase.m, off["front_solo"] + off["rear_solo"]
    word, unit = vehicle_word(rig), rig.units.mass
    if abs(mass) <= pm["front_solo"] + pm["rear_solo"]:
        moved = off["rear_solo"] * a
        if abs(off["rear_solo"]) > pm["rear_solo"] and abs(off["front_solo"]) > pm["front_solo"]:
            way = "further back" if moved > 0 else "further forward"
            return [
                f"The {word} weighs what was planned, but its load lies {way}: as if "
                f"{print_mass(abs(off['rear_solo']), unit)} "
                "had moved from one axle to the other."
            ]
        return []
    place = a * off["rear_solo"] / mass
    words = "more than listed" if mass > 0 else "less than listed"
    likely = (
        "accessories, people or gear never listed?"
        if mass > 0
        else "something left at home, or a lighter vehicle than its plate says?"
    )
    carries = f"The {word} carries {print_mass(abs(mass), unit)} {words}"
    return [f"{carries}{_as_if(place, a, 'the front axle', likely, rig)}"]


_AHEAD, _BEHIND = -0.4, 1.8
"""Where on a vehicle something can lie, in wheelbases behind the front axle; on a trailer, in
lengths from coupler to axles behind the coupler."""


def _as_if(place: float, length: float, origin: str, likely: str, rig: RigFile) -> str:
    """Where one item would lie that explains a difference, in metres; off the vehicle or trailer,
    no one item does.
    """
    if not _AHEAD * length <= place <= _BEHIND * length:
        return ". No one item in any one place explains it: more than one thing is not as planned."
    return (
        f", as if it lay {print_length(abs(place), rig.units.lengths)} "
        f"{'behind' if place >= 0 else 'ahead of'} {origin}: {likely}"
    )


def _in_trailer(rig: RigFile, off: Mapping[str, float], pm: Mapping[str, float]) -> list[str]:
    length = rig.trailer.geometry.coupler_to_axles if rig.trailer else None
    if length is None or "trailer_gross" not in off or "tongue_static" not in off:
        return []
    mass, tongue, unit = off["trailer_gross"], off["tongue_static"], rig.units.mass
    if abs(mass) <= pm["trailer_gross"]:
        if abs(tongue) > pm["tongue_static"]:
            way, sign = ("forward", "more") if tongue > 0 else ("back", "less")
            # so many hundreds that none has to go further than half the way to the axles
            some = 100 * math.ceil(abs(tongue) / KG[unit] / 50 - 1e-9)  # 50 is 50, also in floats
            moved = print_length(abs(tongue) * length.m / (some * KG[unit]), rig.units.lengths)
            return [
                f"The trailer weighs what was planned, but its load lies further {way}: "
                f"{print_mass(abs(tongue), unit)} {sign} on the "
                f"hitch, as {some:,} {unit} moved {moved} would do."
            ]
        return []
    place = length.m * (1 - tongue / mass)
    words = "more than listed" if mass > 0 else "less than listed"
    likely = (
        f"options that the {term_name(rig, 'dry_weight')} leaves out, or items never listed?"
        if mass > 0
        else "less water aboard than planned?"
    )
    carries = f"The trailer carries {print_mass(abs(mass), unit)} {words}"
    return [f"{carries}{_as_if(place, length.m, 'the coupler', likely, rig)}"]


def plan_vs_scale(
    rig: RigFile, loads: Mapping[str, float], spread: Mapping[str, float], weighing: Weighing
) -> Gap | None:
    """Compare the plan with a weigh-in, and name what would explain the difference.

    ``rig``: the rig as planned. ``found`` and ``spread``: the prediction and its ± [kg].
    ``weighing``: what was weighed.

    None when nothing of it was weighed. Differences are measured − predicted; the reasons
    count only those beyond the scale's ±.

    Notes
    -----
    On the vehicle an item of mass ΔF + ΔR lies at a·ΔR/mass; on the trailer one of mass ΔG at L·(1
    − ΔT/ΔG).
    """
    factor = KG[rig.units.mass]
    rows, off, pm = [], {}, {}
    for key in _ROWS:
        figure = weighing.figures.get(key)
        if figure is None or key not in loads:
            continue
        off[key], pm[key] = figure.value - loads[key], figure.plus_minus
        rows.append(
            GapRow(
                key=key,
                label=figure_title(rig, key),
                predicted=loads[key] / factor,
                measured=figure.value / factor,
                plus_minus=figure.plus_minus / factor,
                spread=spread.get(key, 0.0) / factor,
                difference=off[key] / factor,
            )
        )
    if not rows:
        return None
    reasons = _in_vehicle(rig, off, pm) + _in_trailer(rig, off, pm)
    wheelbase = rig.vehicle.geometry.wheelbase
    if (
        wheelbase
        and overhang(rig) is not None
        and "front_hitched" in off
        and "front_solo" in off
        and not reasons
    ):
        lost = off["front_hitched"] - off["front_solo"]
        if abs(lost) > 2 * pm["front_hitched"]:
            reasons.append(
                f"Coupled, the front axle is {print_mass(abs(lost), rig.units.mass)} "
                f"{'heavier' if lost > 0 else 'lighter'} than "
                "planned: the bars pull differently, or the hitch point is not where the tape put "
                "it."
            )
    if not reasons:
        share = max(
            (abs(row.difference) / row.measured for row in rows if row.measured), default=0.0
        )
        reasons.append(
            "Every axle agrees with the plan within the scale's ± or nearly so (at most "
            f"{print_share(share)} off)."
        )
    return Gap(rows=rows, reasons=reasons)
