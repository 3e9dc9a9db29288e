"""The plan started from a weigh-in: what the scale found, with the listed items taken out of it."""

import math
from collections.abc import Mapping

from noxel.core.editing import Change
from noxel.core.mechanics import length_from_move, plan_from_weigh_in, weigh
from noxel.core.quantities import KG, METRES, Figure, read_length, read_mass, read_typed, uncertain
from noxel.core.rig import RigFile
from noxel.errors import GeometryError, InputError, Problem, QuantityError

_WEIGHED = {
    "plan.vehicle_base.front": "front_solo",
    "plan.vehicle_base.rear": "rear_solo",
    "plan.trailer_base.gross": "trailer_gross",
    "plan.trailer_base.tongue": "tongue_static",
}
"""The weighed load that each base of the plan comes from, and has its ± from."""


def start_from_weigh_in(rig: RigFile, number: int = 0) -> list[Change]:
    """The changes that start the plan from a weigh-in, in the file's units to three decimals,
    marked as weighed, with the weigh-in's ±.

    Raises MissingInput as :func:`plan_from_weigh_in`.
    """
    length = rig.units.lengths
    weighed = weigh(rig, rig.weigh_ins[number - 1] if rig.weigh_ins else None).figures
    changes = []
    for path, si in plan_from_weigh_in(rig, number).items():
        if path.endswith("overhang"):
            changes.append(Change(path, op="set", value=f"{si / METRES[length]:.3f} {length}"))
        else:
            changes.append(
                Change(
                    path,
                    op="set",
                    value=round(si if path.endswith("restoration") else si / KG[rig.units.mass], 3),
                )
            )
        if path in _WEIGHED:
            pm = weighed[_WEIGHED[path]].plus_minus / KG[rig.units.mass]
            changes += [
                Change(path, op="source", source="scale"),
                Change(f"{path}_pm", op="set", value=round(pm, 3)),
            ]
    return [*changes, Change("plan.vehicle_base.hitch_fitted", op="set", value=True)]


def lever_length_typed(rig: RigFile, texts: Mapping[str, str]) -> Figure:
    """Coupler to axles from two tongue readings, as typed.

    ``rig``: for the units of bare figures. ``texts``: ``mass``, ``moved_back``, ``before``,
    ``after``, and the scale's ``resolution`` (blank for none).

    It has the ± of two readings at that graduation. [m]

    Raises InputError naming each text that cannot be read, or readings that moved the wrong way.
    """
    si: dict[str, float] = {"resolution": 0.0}
    problems = []
    for name in ("mass", "moved_back", "before", "after", "resolution"):
        length = name == "moved_back"
        if name == "resolution" and not texts.get(name, "").strip():
            continue
        try:
            value = read_typed(
                texts.get(name, ""),
                "length" if length else "mass",
                rig.units.lengths if length else rig.units.mass,
            ).value
        except QuantityError as exc:
            problems.append(Problem(name, exc.message, exc.code))
            continue
        read, factor = (
            (read_length, METRES[rig.units.lengths]) if length else (read_mass, KG[rig.units.mass])
        )
        si[name] = read(value) if isinstance(value, str) else value * factor
    if problems:
        raise InputError(str(problems[0]), problems)
    u = si["resolution"] / math.sqrt(12)
    before, after = (uncertain(si[name], u) if u else si[name] for name in ("before", "after"))
    try:
        lengths = length_from_move(si["mass"], si["moved_back"], before, after)
    except GeometryError as exc:
        raise InputError(exc.message, [Problem("after", exc.message, exc.code)]) from exc
    return Figure(
        "coupler_to_axles",
        lengths,
        "mass × moved back ÷ change of the load on the hitch",
        sort="length",
    )
