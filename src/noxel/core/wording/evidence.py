"""What a weigh-in proves: the ways to the tongue weight side by side, what the bars did, what is
still open.
"""

from noxel.core.limits import AxleGroup, Checked, axle_sets
from noxel.core.mechanics import Weighing
from noxel.core.quantities import (
    KG,
    METRES,
    MassUnit,
    nominal,
    part_of,
    plus_minus,
    print_length,
    print_mass,
    print_share,
)
from noxel.core.rig import RigFile, share_range
from noxel.core.wording.answers import Finding, Open, TongueWay
from noxel.core.wording.labels import (
    figure_title,
    missing_rating,
    term_name,
    vehicle_word,
)

WAYS = {
    "passes": "from the passes: hitched less vehicle only",
    "direct": "measured directly",
    "trailer": "from the trailer alone, less its axles hitched",
    "moment": "by moments, from the pass with bars engaged",
}


def tongue_ways(rig: RigFile, weighing: Weighing) -> list[TongueWay]:
    """Every way to the tongue weight, which one is used, and whether each agrees with it within
    both errors.
    """
    used = weighing.figures.get("tongue_static")
    unit = KG[rig.units.mass]
    sources = []
    for candidate in weighing.candidates:
        figure = candidate.figure
        chosen = used is not None and figure.amount is used.amount
        agrees = True
        if used is not None and not chosen:
            apart = figure.amount - used.amount
            agrees = abs(nominal(apart)) <= plus_minus(apart) * 1.5
        budget = {}
        if candidate.source == "direct":
            budget = {
                term.label: 2 * part / unit
                for term in figure.terms
                if (part := part_of(figure.amount, term.amount)) > 0
            }
        sources.append(
            TongueWay(
                key=figure.key,
                source=candidate.source,
                title=WAYS[candidate.source],
                value=figure.value / unit,
                plus_minus=figure.plus_minus / unit,
                used=chosen,
                agrees=agrees,
                budget=budget,
            )
        )
    return sources


def _back(kg: float, unit: MassUnit) -> str:
    return f"{print_mass(abs(kg), unit)} {'back on' if kg >= 0 else 'more off'}"


def _onto(kg: float, unit: MassUnit) -> str:
    return f"{print_mass(abs(kg), unit)} moved {'onto' if kg >= 0 else 'off'}"


def findings(rig: RigFile, number: int | None, weighing: Weighing) -> list[Finding]:
    """What the passes prove beside the checks, in sentences."""
    figures, unit = weighing.figures, rig.units.mass
    word = vehicle_word(rig)
    findings: list[Finding] = []
    restored, moved, restoration = (
        figures.get(key) for key in ("front_restored", "trailer_transfer", "front_restoration")
    )
    if restored and moved:
        gained = restoration is not None and restored.value > 0
        share = (
            f" ({print_share(restoration.value)} of what it had lost)"
            if restoration and gained
            else ""
        )
        findings.append(
            Finding(
                code="bars",
                message=(
                    f"What the bars did: {_back(restored.value, unit)} the front axle{share}, "
                    f"{_onto(moved.value, unit)} the trailer's axles. The ratings did not change."
                ),
            )
        )
    loaded, gvwr = figures.get("vehicle_hitched"), rig.vehicle.ratings.gvwr
    if loaded and gvwr:
        left = gvwr.kg - loaded.value
        sentence = (
            f"{print_mass(left, unit)} left to" if left >= 0 else f"{print_mass(-left, unit)} over"
        )
        findings.append(
            Finding(
                code="payload_by_scale",
                message=f"Payload by the scale: {sentence} the {term_name(rig, 'gvwr')}, as the "
                f"{word} stands.",
            )
        )
    curb, entered = figures.get("curb_measured"), rig.vehicle.curb_weight
    if curb and entered:
        apart = curb.value - entered.kg
        how = (
            f"{print_mass(abs(apart), unit)} {'more' if apart > 0 else 'less'} than"
            if abs(apart) > curb.plus_minus
            else "as much as"
        )
        findings.append(
            Finding(
                code="curb",
                message=f"Empty, the {word} weighs {print_mass(curb.value, unit)}, {how} its "
                f"entered {term_name(rig, 'curb_weight')}.",
            )
        )
    weigh_in = rig.weigh_ins[number - 1] if number else None
    for index, measured in enumerate(weigh_in.tongue_measurements if weigh_in else ()):
        height, towing = measured.height, measured.towing_height
        if height and towing and abs(height.m - towing.m) > 0.5 * METRES["in"]:
            far = (
                " Torsion axles do not share load: the load on the hitch can differ by "
                f"{'hundreds of pounds' if unit == 'lb' else '100 kg and more'}."
                if (rig.trailer and rig.trailer.suspension == "torsion")
                else ""
            )
            higher = "higher" if height.m > towing.m else "lower"
            off = print_length(abs(height.m - towing.m), rig.units.lengths)
            findings.append(
                Finding(
                    code="height",
                    message=(
                        f"{figure_title(rig, 'tongue_static')} measurement {index + 1} was taken "
                        f"{off} {higher} than the "
                        "coupler rides. "
                        f"Measure at towing height.{far}"
                    ),
                )
            )
    return findings


def settled_by(rig: RigFile, weighing: Weighing, row: Checked) -> str | None:
    """What would settle a check that cannot be made: the rating that is missing, or the
    weighing.
    """
    if row.status != "unknown":
        return None
    if row.limit is None and row.range is None:
        return f"Enter the {missing_rating(rig, row.id)}."
    spec = row.spec
    if spec.part == "beyond_empty" and "vehicle_hitched" in weighing.figures:
        return f"Enter the {term_name(rig, 'curb_weight')}, or weigh the vehicle empty."
    if spec.part == "beyond_dry" and "trailer_gross" in weighing.figures:
        return f"Enter the {term_name(rig, 'dry_weight')}."
    if spec.part in ("tire", "wheel") and _no_count(rig, spec.group):
        return "Enter how many tires there are."
    if row.id == "assembly.trailer" and "trailer_axles" in weighing.figures:
        return f"Enter the {term_name(rig, 'trailer.gawr')} of each axle, or weigh each axle."
    if weighing.hitched is None:
        return "Weigh it: a pass loaded as for the road."
    if spec.settled_by == "tongue":
        return f"What settles it: {_tongue_settlers(rig, weighing)}."
    if spec.settled_by == "gross":
        return f"What settles it: {_gross_settlers(rig)}."
    return "The pass is not complete: weigh each axle."


def _no_count(rig: RigFile, group: AxleGroup | None) -> bool:
    return any(axles.tires.count is None for axles in axle_sets(rig) if axles.group == group)


def _measured(rig: RigFile) -> str:
    return f"a {term_name(rig, 'tongue_weight')} measurement"


def _gross_settlers(rig: RigFile) -> str:
    return f"a pass of the vehicle alone, the trailer alone, or {_measured(rig)}"


def _tongue_settlers(rig: RigFile, weighing: Weighing) -> str:
    if weighing.solo and weighing.engaged and not weighing.slack:
        return (
            f"a hitched pass with the bars slack, or {_measured(rig)}, or the rig's lengths on "
            "Plates"
        )
    return f"a pass of the vehicle alone, or {_measured(rig)}"


def still_open(rig: RigFile, weighing: Weighing, checks: list[Checked]) -> list[Open]:
    """What cannot be known yet: its range from what is known, what would settle it, which verdicts
    stand regardless.
    """
    if not rig.towing or weighing.hitched is None:
        return []
    figures, factor = weighing.figures, KG[rig.units.mass]
    low, high = share_range(rig)
    open_points: list[Open] = []
    axles, net = figures.get("trailer_axles"), figures.get("tongue_net")
    if "tongue_static" not in figures:
        least = net.value if net else axles.value * low / (1 - low) if axles else None
        most = axles.value * high / (1 - high) if axles and not net else None
        open_points.append(
            Open(
                what=figure_title(rig, "tongue_static"),
                low=least / factor if least is not None else None,
                high=most / factor if most is not None else None,
                proven=net is not None,
                settled_by=_tongue_settlers(rig, weighing),
            )
        )
    if "trailer_gross" not in figures and axles:
        open_points.append(
            Open(
                what="Trailer, in total",
                low=axles.value / (1 - low) / factor,
                high=axles.value / (1 - high) / factor,
                proven=False,
                settled_by=_gross_settlers(rig),
            )
        )
    if open_points:
        standing = [row for row in checks if row.status in ("over", "within", "tight")]
        names = ", ".join(row.id for row in standing)
        open_points[0].standing = names.split(", ") if names else []
    return open_points
