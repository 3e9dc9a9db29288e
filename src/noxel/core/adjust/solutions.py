"""A solution of the programme as steps, exactly or rounded to what people can do."""

import math

import numpy as np

from noxel.core.adjust.actions import most_restoration
from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import Vector, amount, sum_of
from noxel.core.adjust.milp import Programme, state_after
from noxel.core.quantities import LITRES, Length
from noxel.core.rig import Step


def steps_of(base: Baseline, programme: Programme, values: Vector, *, rounded: bool) -> list[Step]:
    """The steps of a solution; rounded to what people can do, toward the side that still cures."""
    rig = base.rig
    length = rig.units.lengths
    grain = {"in": 0.0254, "ft": 0.0254, "cm": 0.05, "mm": 0.05, "m": 0.05}[length]
    volume = 1.0 if rig.units.volumes == "gal" else 5.0
    steps = []
    for act in programme.acts:
        if values[act.columns["switch"]] < 0.5:
            continue
        much = float(values[act.columns["amount"]]) if "amount" in act.columns else 0.0
        if "amount" in act.columns and much < 1e-9:
            continue
        if act.kind == "leave":
            steps.append(Step(kind="leave", index=act.index))
        elif act.kind == "swap":
            steps.append(Step(kind="swap", index=act.index, position=_at(act.place)))
        elif act.kind == "move":
            way = 0.0 if act.per_unit is None else float(np.sign(act.per_unit @ _BACKWARD))
            moved = min(act.most, math.ceil(much / grain - 1e-6) * grain) if rounded else much
            steps.append(Step(kind="move", index=act.index, position=_at(act.place + way * moved)))
        elif act.kind == "tank":
            tank = rig.tanks[act.index]
            unit = LITRES["gal"] if volume == 1.0 else volume
            drained = much * tank.capacity.litres
            if rounded:
                drained = min(
                    act.most * tank.capacity.litres, math.ceil(drained / unit - 1e-6) * unit
                )
            steps.append(
                Step(
                    kind="tank",
                    index=act.index,
                    level=round(max(0.0, act.place - drained / tank.capacity.litres), 4),
                )
            )
    bars = _bars(base, programme, values, rounded=rounded)
    return [*steps, bars] if bars else steps


_BACKWARD = sum_of({"rear": 2.0, "vehicle": -1.0, "tongue": -1.0})
"""Moving back loads the rear axle and unloads the front, or unloads the tongue."""


def _at(metres: float) -> Length:
    return Length(f"{metres:.6f} m", metres)


def _bars(base: Baseline, programme: Programme, values: Vector, *, rounded: bool) -> Step | None:
    """The restoration that gives the moment found, with the tongue as it is after the other
    steps.
    """
    wanted = [
        act for act in programme.acts if act.kind == "bars" and values[act.columns["switch"]] > 0.5
    ]
    if not wanted or float(values[wanted[0].columns["amount"]]) < 1e-9:
        return None
    state = state_after(programme, values)
    lifted = amount(state, "lifted")
    restoration = amount(state, "returned") / lifted if lifted else 0.0
    most = most_restoration(base.rig)
    tighter = restoration > (base.rig.plan.front_restoration or 0.0)
    if rounded:
        restoration = (math.ceil if tighter else math.floor)(
            restoration * 20 - 1e-6
        ) / 20  # to five per cent
    return Step(kind="bars", level=min(most, max(0.0, restoration)))
