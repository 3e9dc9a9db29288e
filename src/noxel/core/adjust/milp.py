"""The programme that finds the least effort: every check a condition on the state."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Literal, NamedTuple

import numpy as np

from noxel.core.adjust.actions import Action, most_restoration
from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import Vector, amount, forms, state_of, sum_of
from noxel.core.limits import Checked, CheckId
from noxel.core.mechanics import State
from noxel.core.rig import on_its_wheels, share_range

if TYPE_CHECKING:
    from highspy import HighsLp

Row = tuple[list[tuple[int, float]], float]
"""One row of the programme: its figures by column, and what their sum may be at most."""

CLEAR = 0.5
"""What a cure keeps beyond the ± and the cushion, so that rounding cannot undo it. [kg]"""


LIMIT_SECONDS = 8.0
"""A search is given up after so long; what was found by then is shown."""


@dataclass(frozen=True, slots=True)
class Condition:
    """A condition on the state: coefficients @ state <= bound; named for its check."""

    check: CheckId | Literal["bars"]
    coefs: Vector
    bound: float

    def left(self, state: Vector) -> float:
        """What is left until the bound; below 0 it is not kept."""
        return self.bound - float(self.coefs @ state)


Growth = list[list[float]]
"""For each action, by how much it tightens each condition."""


def conditions(base: Baseline, rows: Sequence[Checked]) -> list[Condition]:
    """What every check asks of the state, with its cushion and the scale's ±."""
    rig, form, state = base.rig, forms(base), state_of(base)
    by_check, asked = {row.id: row for row in rows}, []
    for check, (coefs, constant) in form.items():
        row = by_check.get(check)
        if row is None or row.limit is None or row.actual is None:
            continue
        # a limit that is not real confirms nothing, but it must not be exceeded
        cap = (
            row.limit.kg
            if not row.limit.real
            else min(row.cushion * row.limit.kg, row.limit.kg - row.actual.plus_minus)
        )
        asked.append(Condition(row.id, coefs, cap - CLEAR - constant))
    weighed = {"tongue_static", "trailer_gross"} <= base.loads(rig).keys()
    if weighed and not on_its_wheels(rig):
        low, high = share_range(rig)
        judged = next(
            (
                row.actual.plus_minus
                for row in rows
                if row.range is not None and row.actual is not None
            ),
            0.0,
        )
        pm = judged + 2e-4
        up = sum_of({"trailer": low + pm, "tongue": -1.0})
        down = sum_of({"trailer": pm - high, "tongue": 1.0})
        asked += [Condition("tongue.share", up, 0.0), Condition("tongue.share", down, 0.0)]
    lifted = amount(state, "lifted")
    if rig.hitch.weight_distribution and rig.towing and base.bars_known and lifted:
        tightest = sum_of({"returned": 1.0, "lifted": -most_restoration(rig)})
        slackest = sum_of({"returned": -1.0})
        asked += [Condition("bars", tightest, 1e-6), Condition("bars", slackest, 1e-6)]
    return asked


def usable(acts: Sequence[Action], rows: Sequence[Condition]) -> list[Action]:
    """The actions of which it is known what they do to every condition: their places and lengths
    are known as far as these need them.
    """
    counts = np.zeros(len(State._fields), dtype=bool)
    for row in rows:
        counts |= row.coefs != 0
    known = []
    for act in acts:
        effects = [effect for effect in (act.fixed, act.per_unit) if effect is not None]
        if any(np.isnan(effect[counts]).any() for effect in effects):
            continue
        act.fixed, act.per_unit = (
            None if effect is None else np.nan_to_num(effect)
            for effect in (act.fixed, act.per_unit)
        )
        known.append(act)
    return known


class Solved(NamedTuple):
    """The cheapest values of all columns, as far as there was time."""

    values: Vector
    cost: float


@dataclass(slots=True)
class Programme:
    """A mixed-integer linear programme over what may be done.

    ``cuts`` are the sets of switches that were found already: neither they nor more on top are
    answers. ``others`` are sets that failed: more on top may do. ``only`` are the switches that may
    be used, where not all may. ``growth`` is what each action takes off each condition, for the ±
    that it brings.
    """

    state: Vector
    acts: list[Action]
    rows: list[Condition]
    cuts: list[set[int]] = field(default_factory=list)
    others: list[set[int]] = field(default_factory=list)
    only: set[int] | None = None
    growth: Growth | None = None

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

    def model(self, cost: Vector | None = None, extra: int = 0) -> "HighsLp":
        """The programme as the solver takes it; ``extra`` columns of slack, one a row."""
        import highspy  # only who asks for proposals waits for it

        count = self.columns()
        width = count + extra
        rows = [*self._checks(count, extra), *self._switching()]
        starts = np.cumsum([0, *(len(entries) for entries, _ in rows)])
        # moments and shares stand beside kilograms: each row is scaled to its greatest figure
        scales = [max([1.0, *(abs(value) for _, value in entries)]) for entries, _ in rows]
        upper = np.full(width, np.inf)
        kinds = [highspy.HighsVarType.kContinuous] * width
        for position, act in enumerate(self.acts):
            switch = act.columns["switch"]
            kinds[switch] = highspy.HighsVarType.kInteger
            upper[switch] = 1.0 if self.only is None or position in self.only else 0.0
            if "amount" in act.columns:
                upper[act.columns["amount"]] = act.most
        model = highspy.HighsLp()
        model.num_col_, model.num_row_ = width, len(rows)
        model.col_cost_ = self.costs(extra) if cost is None else cost
        model.col_lower_, model.col_upper_ = np.zeros(width), upper
        model.integrality_ = kinds
        model.row_lower_ = np.full(len(rows), -np.inf)
        model.row_upper_ = np.array(
            [high / scale for (_, high), scale in zip(rows, scales, strict=True)]
        )
        matrix = model.a_matrix_
        matrix.format_ = highspy.MatrixFormat.kRowwise
        matrix.start_ = starts.astype(np.int32)
        matrix.index_ = np.array([column for entries, _ in rows for column, _ in entries], np.int32)
        matrix.value_ = np.array(
            [
                value / scale
                for (entries, _), scale in zip(rows, scales, strict=True)
                for _, value in entries
            ]
        )
        return model

    def _checks(self, count: int, extra: int) -> Iterator[Row]:
        """Every condition, with its slack where there is one."""
        for number, condition in enumerate(self.rows):
            slack = [(count + number, -1.0)] if extra and condition.check != "bars" else []
            yield [*self._effect_on(number), *slack], condition.left(self.state)

    def _switching(self) -> Iterator[Row]:
        """Which switches go together."""
        for act in self.acts:  # an amount needs its switch
            if act.per_unit is not None:
                yield [(act.columns["amount"], 1.0), (act.columns["switch"], -act.most)], 0.0
        groups: dict[tuple[str, int], list[int]] = {}
        for act in self.acts:  # one step for each item, not two
            kind = "load" if act.kind in ("leave", "move", "swap") else act.kind
            groups.setdefault((kind, act.index), []).append(act.columns["switch"])
        for switches in groups.values():
            if len(switches) > 1:
                yield [(switch, 1.0) for switch in switches], 1.0
        for cut in self.cuts:  # another set of steps than those found, and not one with more on top
            switches = [self.acts[position].columns["switch"] for position in cut]
            yield [(switch, 1.0) for switch in switches], len(cut) - 1.0
        for failed in self.others:  # just this set is not asked for again
            signs = [1.0 if position in failed else -1.0 for position in range(len(self.acts))]
            switches = [act.columns["switch"] for act in self.acts]
            yield list(zip(switches, signs, strict=True)), len(failed) - 1.0

    def _effect_on(self, number: int) -> list[tuple[int, float]]:
        """What each column does to a condition, with what it takes off it."""
        does: dict[int, float] = dict(self.effect(self.rows[number].coefs))
        for act, grown in zip(self.acts, self.growth or [], strict=bool(self.growth)):
            switch = act.columns["switch"]
            does[switch] = does.get(switch, 0.0) + grown[number]
        return list(does.items())

    def effect(self, coefs: Vector) -> Iterator[tuple[int, float]]:
        """What each column does to a sum over the state, where it does anything."""
        for act in self.acts:
            for column, effect in (("switch", act.fixed), ("amount", act.per_unit)):
                does = float(coefs @ effect) if effect is not None else 0.0
                if does:
                    yield act.columns[column], does

    def solve(
        self, cost: Vector | None = None, extra: int = 0, seconds: float = LIMIT_SECONDS
    ) -> Solved | None:
        """The cheapest answer; None where there is none, or none was found in time."""
        return solve_model(self.model(cost, extra), seconds)

    def costs(self, extra: int = 0) -> Vector:
        """Trouble of each switch, a little for each amount, much for slack."""
        cost = np.zeros(self.columns() + extra)
        for act in self.acts:
            cost[act.columns["switch"]] = act.cost + 0.01  # nothing is done for nothing
            if "amount" in act.columns:
                cost[act.columns["amount"]] = act.per_cost
        return cost


def solve_model(model: "HighsLp", seconds: float = LIMIT_SECONDS) -> Solved | None:
    """The cheapest answer of a model, or None."""
    import highspy

    # the plain solver: the one with callbacks prints its name
    solver = highspy._Highs()  # type: ignore[attr-defined]
    solver.setOptionValue("output_flag", False)
    solver.setOptionValue("time_limit", seconds)
    solver.setOptionValue("mip_rel_gap", 1e-6)
    solver.passModel(model)
    solver.run()
    info = solver.getInfo()
    if info.primal_solution_status != int(highspy.SolutionStatus.kSolutionStatusFeasible):
        return None
    return Solved(np.array(solver.getSolution().col_value), info.objective_function_value)


def state_after(programme: Programme, values: Vector) -> Vector:
    """The rig's state after a solution."""
    state = programme.state.copy()
    for act in programme.acts:
        if act.fixed is not None:
            state = state + values[act.columns["switch"]] * act.fixed
        if act.per_unit is not None:
            state = state + values[act.columns["amount"]] * act.per_unit
    return state


def least_of(programme: Programme, check: str, seconds: float) -> float | None:
    """The least that a check can be brought to, were it the only one."""
    row = next((row for row in programme.rows if row.check == check), None)
    if row is None:
        return None
    alone = Programme(
        programme.state, programme.acts, [row for row in programme.rows if row.check == "bars"]
    )
    cost = np.zeros(alone.columns())
    for column, does in alone.effect(row.coefs):
        cost[column] = does
    solved = alone.solve(cost, seconds=seconds)
    return float(row.coefs @ programme.state) + solved.cost if solved is not None else None
