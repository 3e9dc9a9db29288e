"""The programme that finds the least effort: every check a condition on the state, solved by HiGHS through scipy."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from noxel.core.adjust.actions import Action, most_restoration
from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import Vector, forms
from noxel.core.limits import Checked
from noxel.core.mechanics import lever_lengths, statics
from noxel.core.rig import on_its_wheels, share_range

CLEAR = 0.5
"""What a cure keeps beyond the ± and the cushion, so that rounding cannot undo it. [kg]"""


LIMIT_SECONDS = 8.0
"""A search is given up after so long; what was found by then is shown."""


@dataclass(frozen=True, slots=True)
class Condition:
    """A condition on the state: coefficients @ state <= bound; named for its check."""

    check: str
    coefs: Vector
    bound: float


def conditions(base: Baseline, rows: Sequence[Checked]) -> list[Condition]:
    """What every check asks of the state, with its cushion and the scale's ±."""
    rig, form = base.rig, forms(base.rig, base)
    found = []
    for row in rows:
        if row.limit is None or row.id not in form or row.actual is None:
            continue
        coefs, constant = form[row.id]
        # a limit that is not real confirms nothing, but it must not be exceeded
        cap = row.limit.kg if not row.limit.real else min(row.cushion * row.limit.kg, row.limit.kg - row.actual.plus_minus)
        found.append(Condition(row.id, coefs, cap - CLEAR - constant))
    if rig.trailer is not None and not on_its_wheels(rig):
        low, high = share_range(rig)
        judged = next((row.actual.plus_minus for row in rows if row.range is not None and row.actual is not None), 0.0)
        pm = max(base.pm.get("tongue_share", 0.0), judged) + 2e-4
        up, down = np.array([0, 0, low + pm, -1.0, 0]), np.array([0, 0, pm - high, 1.0, 0])
        found += [Condition("tongue.share", up, 0.0), Condition("tongue.share", down, 0.0)]
    if rig.hitch.weight_distribution and rig.trailer is not None:
        at = lever_lengths(rig)
        per_kg = statics.bar_moment(1.0, 1.0, at.b, at.length)
        most = most_restoration(rig)
        found += [
            Condition("bars", np.array([0, 0, 0, -most * per_kg, 1.0]), 1e-6),
            Condition("bars", np.array([0, 0, 0, 0, -1.0]), 1e-6),
        ]
    return found


@dataclass(slots=True)
class Programme:
    """A mixed-integer linear programme over what may be done; ``cuts`` are the sets of switches that were found already.

    ``only`` are the switches that may be used, where not all may.
    """

    state: Vector
    acts: list[Action]
    rows: list[Condition]
    cuts: list[set[int]] = field(default_factory=list)
    only: set[int] | None = None

    def columns(self) -> int:
        """A switch for each action, an amount for each that has one."""
        count = 0
        for act in self.acts:
            act.columns = {"switch": count}
            count += 1
            if act.per_unit is not None:
                act.columns["amount"] = count
                count += 1
        return count

    def matrix(self, extra: int = 0) -> tuple[Any, Any, Any, Any]:
        """Constraints as A, low, high, and which columns are switches; ``extra`` columns of slack, one a row."""
        count = self.columns()
        lines, highs = [], []
        for number, row in enumerate(self.rows):
            line = np.zeros(count + extra)
            for act in self.acts:
                if act.fixed is not None:
                    line[act.columns["switch"]] = row.coefs @ act.fixed
                if act.per_unit is not None:
                    line[act.columns["amount"]] = row.coefs @ act.per_unit
            if extra and row.check != "bars":
                line[count + number] = -1.0
            lines.append(line)
            highs.append(row.bound - float(row.coefs @ self.state))
        for act in self.acts:  # an amount needs its switch
            if act.per_unit is not None:
                line = np.zeros(count + extra)
                line[act.columns["amount"]], line[act.columns["switch"]] = 1.0, -act.most
                lines.append(line)
                highs.append(0.0)
        groups: dict[tuple[str, int], list[int]] = {}
        for act in self.acts:  # one step for each item, not two
            group = ("load", act.index) if act.kind in ("leave", "move", "swap") else (act.kind, act.index)
            groups.setdefault(group, []).append(act.columns["switch"])
        for switches in [*groups.values()]:
            if len(switches) > 1:
                line = np.zeros(count + extra)
                line[switches] = 1.0
                lines.append(line)
                highs.append(1.0)
        for cut in self.cuts:  # another set of steps than those found, and not one with more on top
            line = np.zeros(count + extra)
            for position in cut:
                line[self.acts[position].columns["switch"]] = 1.0
            lines.append(line)
            highs.append(len(cut) - 1.0)
        integrality = np.zeros(count + extra)
        upper = np.full(count + extra, np.inf)
        for position, act in enumerate(self.acts):
            integrality[act.columns["switch"]] = 1
            upper[act.columns["switch"]] = 1.0 if self.only is None or position in self.only else 0.0
            if "amount" in act.columns:
                upper[act.columns["amount"]] = act.most
        return np.array(lines).reshape(len(lines), count + extra), np.array(highs), integrality, upper

    def solve(self, cost: Vector | None = None, extra: int = 0, seconds: float = LIMIT_SECONDS) -> Any:
        """The cheapest answer, or None when there is none."""
        from scipy.optimize import Bounds, LinearConstraint, milp  # only who asks for proposals waits for scipy

        lines, highs, integrality, upper = self.matrix(extra)
        if cost is None:
            cost = self.costs(extra)
        scale = np.maximum(np.abs(lines).max(axis=1, initial=1.0), 1e-9)  # moments and shares beside kilograms
        constraint = LinearConstraint(lines / scale[:, None], -np.inf, highs / scale)
        return milp(cost, constraints=constraint, integrality=integrality, bounds=Bounds(0, upper),
                     options={"time_limit": seconds, "mip_rel_gap": 1e-6})  # fmt: skip

    def costs(self, extra: int = 0) -> Vector:
        """Trouble of each switch, a little for each amount, much for slack."""
        cost = np.zeros(self.columns() + extra)
        for act in self.acts:
            cost[act.columns["switch"]] = act.cost + 0.01  # nothing is done for nothing
            if "amount" in act.columns:
                cost[act.columns["amount"]] = act.per_cost
        return cost


def state_after(programme: Programme, values: Vector) -> Vector:
    """The rig's state after a solution."""
    state = programme.state.copy()
    for act in programme.acts:
        if act.fixed is not None:
            state = state + values[act.columns["switch"]] * act.fixed
        if act.per_unit is not None:
            state = state + values[act.columns["amount"]] * act.per_unit
    return state


def least_of(programme: Programme, check: str) -> float | None:
    """The least that a check can be brought to, were it the only one."""
    row = next((each for each in programme.rows if each.check == check), None)
    if row is None:
        return None
    alone = Programme(programme.state, programme.acts, [each for each in programme.rows if each.check == "bars"])
    cost = np.zeros(alone.columns())
    for act in alone.acts:
        if act.fixed is not None:
            cost[act.columns["switch"]] = row.coefs @ act.fixed
        if act.per_unit is not None:
            cost[act.columns["amount"]] = row.coefs @ act.per_unit
    found = alone.solve(cost)
    return float(row.coefs @ programme.state) + float(found.fun) if found.x is not None else None
