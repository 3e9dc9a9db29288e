"""Remedies: the least trouble that brings every check right at once, or the proof that nothing allowed can.

A mixed-integer linear programme over the rig's state (:mod:`noxel.core.levers`), solved by HiGHS through scipy.
"""

import math
import time
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from noxel.core import statics
from noxel.core.adjust import Bench, Change, changes, do_all
from noxel.core.answers import Answer
from noxel.core.checks import Checked, Verdict, verdict
from noxel.core.lengths import lever_lengths
from noxel.core.levers import MOMENT, TONGUE, Vector, forms, in_trailer, in_vehicle, state_of
from noxel.core.loads import Category, Load, Step, Trouble
from noxel.core.printing import Printer
from noxel.core.quantities import Length
from noxel.core.ratings import on_its_wheels, share_range
from noxel.core.rigfile import RigFile
from noxel.core.units import KG, LITRES, print_mass
from noxel.core.words import check_label, vehicle_word

CLEAR = 0.5
"""What a cure keeps beyond the ± and the cushion, so that rounding cannot undo it. [kg]"""
SLOTS = 3
"""How many different sets of steps are looked for."""
LIMIT_SECONDS = 8.0
"""A search is given up after so long; what was found by then is shown."""
_DEFAULTS: dict[Category | None, tuple[float | None, float | None, float | None]] = {  # leave, move, swap; None is never
    "people": (None, None, None), "fixed": (None, None, None), "essential": (60.0, 4.0, 7.0), "comfort": (20.0, 3.0, 5.0),
    None: (30.0, 4.0, 6.0),
}  # fmt: skip
_DRAIN = {"fresh": 2.0, "grey": 1.0, "black": 3.0, "hot_water": 3.0}
_BARS = 8.0


class Proposal(Answer):
    """One set of steps that brings every known check right."""

    steps: list[Step]
    says: list[str]
    summary: str
    trouble: float
    verdict: Verdict
    changes: list[Change]


class Unmet(Answer):
    """A limit that nothing allowed can meet, by how much at best, and what kind of change would."""

    check: str
    label: str
    short: float
    says: str


class Remedies(Answer):
    """The least-trouble proposals, or why there is none; ``proof`` is the best that everything allowed can do for each unmet limit."""

    needed: bool
    proposals: list[Proposal]
    unmet: list[Unmet]
    proof: list[str]
    movable: int
    says: str
    given_up: bool


@dataclass(slots=True)
class _Action:
    """Something that may be done: a switch with its trouble, and what it does to the state."""

    kind: str
    index: int
    cost: float
    name: str
    fixed: Vector | None = None  # done by the switch alone
    place: float = 0.0
    per_unit: Vector | None = None  # done by an amount that the switch allows
    most: float = 0.0
    per_cost: float = 0.0
    columns: dict[str, int] = field(default_factory=dict)


def _trouble(given: Trouble | None, usual: float | None) -> float | None:
    if given is None:
        return usual
    return None if given == "never" else float(given)


def _load_actions(rig: RigFile, index: int, load: Load) -> list[_Action]:
    if not load.kg or load.position is None:
        return []
    at, x, name = lever_lengths(rig), load.position.m, load.name or "a thing"
    usual = _DEFAULTS[load.category]
    effort = load.effort
    leave = _trouble(effort.leave if effort else None, usual[0])
    move = _trouble(effort.move if effort else None, usual[1])
    swap = _trouble(effort.swap if effort else None, usual[2])
    here = in_vehicle(rig, load.kg, x) if load.on == "vehicle" else in_trailer(rig, load.kg, x)
    found = []
    if leave is not None:
        found.append(_Action("leave", index, leave, name, -here))
    if move is not None:
        low, high = (0.35 * at.a, 1.22 * at.a) if load.on == "vehicle" else (0.12 * at.length, 1.5 * at.length)
        put = in_vehicle if load.on == "vehicle" else in_trailer
        per_metre = put(rig, load.kg, x + 1.0) - here
        for sign, most in ((1.0, high - x), (-1.0, x - low)):
            if most > 0.05:
                found.append(_Action("move", index, move, name, None, x, sign * per_metre, most, 0.02 * load.kg / 10))
    if swap is not None and rig.trailer is not None:
        place = 1.0 * at.length if load.on == "vehicle" else 1.06 * at.a
        there = in_trailer(rig, load.kg, place) if load.on == "vehicle" else in_vehicle(rig, load.kg, place)
        found.append(_Action("swap", index, swap, name, there - here, place))
    return found


def actions(rig: RigFile) -> list[_Action]:
    """Everything that the owner allows: items left, moved, put in the other vehicle; tanks drained; bars set."""
    found: list[_Action] = []
    for index, load in enumerate(rig.loads):
        found += _load_actions(rig, index, load)
    for index, tank in enumerate(rig.tanks):
        cost = _trouble(tank.effort, _DRAIN.get(tank.fluid))
        level = tank.level(rig.plan.phase)
        if cost is None or tank.position is None or level <= 0:
            continue
        full = tank.full_kg()
        per_level = -(in_vehicle if tank.on == "vehicle" else in_trailer)(rig, full, tank.position.m)
        found.append(_Action("tank", index, cost, tank.name or tank.fluid, None, level, per_level, level, 0.01 * full / 10))
    bars = _trouble(rig.plan.bars_effort, _BARS)
    at = lever_lengths(rig)
    if bars is not None and rig.hitch.weight_distribution and rig.trailer is not None and at.b > 0:
        moment = np.zeros(5)
        moment[MOMENT] = 1.0
        now, per_kg = float(state_of(rig)[MOMENT]), statics.bar_moment(1.0, 1.0, at.b, at.length)
        room = max(0.0, _most_restoration(rig) * per_kg * float(state_of(rig)[TONGUE]) - now)
        for sign, most in ((1.0, room), (-1.0, now)):
            if most > 1e-6:
                found.append(_Action("bars", 0, bars, "bars", None, now, sign * moment, most, 1e-4))
    return found


def _most_restoration(rig: RigFile) -> float:
    """How far the bars may be tightened: to the maker's target, else until the front axle has its solo load; never less than now."""
    target = rig.hitch.target_restoration
    return max(1.0 if target is None else target, rig.plan.front_restoration or 0.0)


@dataclass(frozen=True, slots=True)
class _Row:
    """A condition on the state: coefficients @ state <= bound; named for its check."""

    check: str
    coefs: Vector
    bound: float


def _conditions(bench: Bench, rows: Sequence[Checked]) -> list[_Row]:
    """What every check asks of the state, with its cushion and the scale's ±."""
    rig, form = bench.rig, forms(bench.rig)
    found = []
    for row in rows:
        if row.limit is None or row.id not in form or row.actual is None:
            continue
        coefs, constant = form[row.id]
        # a worked-out limit never says within, but it must not be exceeded
        cap = row.limit.kg if row.limit.worked_out else min(row.cushion * row.limit.kg, row.limit.kg - row.actual.plus_minus)
        found.append(_Row(row.id, coefs, cap - CLEAR - constant))
    if rig.trailer is not None and not on_its_wheels(rig):
        low, high = share_range(rig)
        pm = bench.pm.get("tongue_share", 0.0) + 2e-4
        up, down = np.array([0, 0, low + pm, -1.0, 0]), np.array([0, 0, pm - high, 1.0, 0])
        found += [_Row("tongue.share", up, 0.0), _Row("tongue.share", down, 0.0)]
    if rig.hitch.weight_distribution and rig.trailer is not None:
        at = lever_lengths(rig)
        per_kg = statics.bar_moment(1.0, 1.0, at.b, at.length)
        most = _most_restoration(rig)
        found += [
            _Row("bars", np.array([0, 0, 0, -most * per_kg, 1.0]), 1e-6),
            _Row("bars", np.array([0, 0, 0, 0, -1.0]), 1e-6),
        ]
    return found


@dataclass(slots=True)
class _Programme:
    state: Vector
    acts: list[_Action]
    rows: list[_Row]
    cuts: list[set[int]] = field(default_factory=list)

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
        for act in self.acts:  # one thing is done to a thing, not two
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
        for act in self.acts:
            integrality[act.columns["switch"]] = 1
            upper[act.columns["switch"]] = 1.0
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


def _steps(bench: Bench, programme: _Programme, values: Vector, *, rounded: bool) -> list[Step]:
    """The steps of a solution; rounded to what people can do, the safe way."""
    rig = bench.rig
    length = rig.units.lengths
    grain = {"in": 0.0254, "ft": 0.0254, "cm": 0.05, "mm": 0.05, "m": 0.05}[length]
    volume = 1.0 if rig.units.volumes == "gal" else 5.0
    steps = []
    for act in programme.acts:
        if values[act.columns["switch"]] < 0.5:
            continue
        amount = float(values[act.columns["amount"]]) if "amount" in act.columns else 0.0
        if "amount" in act.columns and amount < 1e-9:
            continue
        if act.kind == "leave":
            steps.append(Step(kind="leave", index=act.index))
        elif act.kind == "swap":
            steps.append(Step(kind="swap", index=act.index, position=_at(act.place)))
        elif act.kind == "move":
            way = float(np.sign((act.per_unit if act.per_unit is not None else np.zeros(5)) @ _BACKWARD))
            moved = min(act.most, math.ceil(amount / grain - 1e-6) * grain) if rounded else amount
            steps.append(Step(kind="move", index=act.index, position=_at(act.place + way * moved)))
        elif act.kind == "tank":
            tank = rig.tanks[act.index]
            unit = LITRES["gal"] if volume == 1.0 else volume
            drained = amount * tank.capacity.litres
            if rounded:
                drained = min(act.most * tank.capacity.litres, math.ceil(drained / unit - 1e-6) * unit)
            steps.append(
                Step(kind="tank", index=act.index, level=round(max(0.0, act.place - drained / tank.capacity.litres), 4))
            )
    bars = _bars(bench, programme, values, rounded=rounded)
    return [*steps, bars] if bars else steps


_BACKWARD = np.array([-1.0, 1.0, 0.0, -1.0, 0.0])
"""Moving back loads the rear axle and unloads the front, or unloads the tongue."""


def _at(metres: float) -> Length:
    return Length(f"{metres:.6f} m", metres)


def _bars(bench: Bench, programme: _Programme, values: Vector, *, rounded: bool) -> Step | None:
    """The restoration that gives the moment found, with the tongue as it is after the other steps."""
    wanted = [act for act in programme.acts if act.kind == "bars" and values[act.columns["switch"]] > 0.5]
    if not wanted or float(values[wanted[0].columns["amount"]]) < 1e-9:
        return None
    state = _state(programme, values)
    at = lever_lengths(bench.rig)
    full = statics.bar_moment(1.0, float(state[TONGUE]), at.b, at.length)
    restoration = float(state[MOMENT]) / full if full else 0.0
    most = _most_restoration(bench.rig)
    tighter = restoration > (bench.rig.plan.front_restoration or 0.0)
    if rounded:
        restoration = (math.ceil if tighter else math.floor)(restoration * 20 - 1e-6) / 20  # to five per cent
    return Step(kind="bars", level=min(most, max(0.0, restoration)))


def _state(programme: _Programme, values: Vector) -> Vector:
    state = programme.state.copy()
    for act in programme.acts:
        if act.fixed is not None:
            state = state + values[act.columns["switch"]] * act.fixed
        if act.per_unit is not None:
            state = state + values[act.columns["amount"]] * act.per_unit
    return state


def cured(rows: Sequence[Checked]) -> bool:
    """Whether every check that could be made is right: within, or on a worked-out limit that is not exceeded."""
    return all(row.status in ("within", "unconfirmed") for row in rows if row.status != "unknown")


def _proposal(
    bench: Bench, programme: _Programme, values: Vector, trouble: float, before: Sequence[Checked]
) -> Proposal | None:
    for rounded in (True, False):
        steps = _steps(bench, programme, values, rounded=rounded)
        changed, says = do_all(bench.rig, steps)
        after = bench.checks(changed)
        if cured(after):
            break
    else:
        return None
    to = Printer(bench.rig)
    return Proposal(steps=steps, says=says, summary=_summary(bench, before, after), trouble=round(trouble, 6), verdict=verdict(after),
                    changes=changes(bench.rig, before, after, to))  # fmt: skip


def _summary(bench: Bench, before: Sequence[Checked], after: Sequence[Checked]) -> str:
    """“Rear axle 4,060 → 3,870 lb, tongue share 13.1 → 12.6 %”: the checks that were wrong, and the share."""
    unit, now = bench.rig.units.mass, {row.id: row for row in after}
    parts = []
    for row in before:
        new = now.get(row.id)
        if new is None or row.actual is None or new.actual is None:
            continue
        label = check_label(bench.rig, row.id)
        if row.range is not None:
            parts.append(f"{label} {row.actual.value * 100:.1f} → {new.actual.value * 100:.1f} %")
        elif row.status in ("over", "tight", "high", "low"):
            was = print_mass(row.actual.value, unit).removesuffix(f" {unit}")
            parts.append(f"{label} {was} → {print_mass(new.actual.value, unit)}")
    return ", ".join(parts)


def _unmet(bench: Bench, programme: _Programme, rows: Sequence[Checked]) -> tuple[list[Unmet], list[str]]:
    """Which limits cannot be met together at the least shortfall, and the best that everything allowed does for each alone."""
    factor, unit = KG[bench.rig.units.mass], bench.rig.units.mass
    count = len(programme.rows)
    cost = np.zeros(programme.columns() + count)
    offset = programme.columns()
    for number, row in enumerate(programme.rows):
        cost[offset + number] = 1.0 / max(abs(row.bound), 1.0)
    cost[:offset] = 1e-9
    relaxed = _Programme(programme.state, programme.acts, programme.rows)
    found = relaxed.solve(cost, count)
    if found.x is None:
        return [], []
    unmet, proof, seen = [], [], set()
    for number, row in enumerate(programme.rows):
        short = float(found.x[offset + number])
        if short <= 1e-3 or row.check in seen or row.check == "bars":
            continue
        seen.add(row.check)
        label = check_label(bench.rig, row.check)
        if row.check == "tongue.share":
            says = f"{label} cannot be brought into its range with what may be moved."
            unmet.append(Unmet(check=row.check, label=label, short=0.0, says=f"{says} {_kind_of_change(bench.rig, row.check)}"))
            continue
        says = f"{label}: {print_mass(short, unit)} too much at best. {_kind_of_change(bench.rig, row.check)}"
        unmet.append(Unmet(check=row.check, label=label, short=short / factor, says=says))
    for each in unmet:
        if each.check != "tongue.share":
            least = _least(programme, each.check)
            limit = next((row.limit.kg for row in rows if row.id == each.check and row.limit), None)
            if least is not None and limit is not None:
                verb = "still above" if least > limit else "within by itself; it is the other limits that do not let it be"
                tail = (
                    f" its limit of {print_mass(limit, unit)}"
                    if least > limit
                    else f" (its limit is {print_mass(limit, unit)})"
                )
                proof.append(f"With everything that is allowed done for {each.label[0].lower()}{each.label[1:]} alone it would carry "
                             f"{print_mass(least, unit)}, {verb}{tail}.")  # fmt: skip
    return unmet, proof


def _least(programme: _Programme, check: str) -> float | None:
    """The least that a check can be brought to, were it the only one."""
    row = next((each for each in programme.rows if each.check == check), None)
    if row is None:
        return None
    alone = _Programme(programme.state, programme.acts, [each for each in programme.rows if each.check == "bars"])
    cost = np.zeros(alone.columns())
    for act in alone.acts:
        if act.fixed is not None:
            cost[act.columns["switch"]] = row.coefs @ act.fixed
        if act.per_unit is not None:
            cost[act.columns["amount"]] = row.coefs @ act.per_unit
    found = alone.solve(cost)
    return float(row.coefs @ programme.state) + float(found.fun) if found.x is not None else None


def _kind_of_change(rig: RigFile, check: str) -> str:
    word = vehicle_word(rig)
    return {
        "hitch.trailer": "Another hitch, or a lighter trailer.", "hitch.tongue": "Another hitch, or less on the tongue.",
        "trailer.gross": "A trailer with a higher rating, or less in this one.",
        "trailer.axles": "A trailer with stronger axles, or less in this one.",
        "trailer.cargo": "Less in the trailer.", "tongue.share": "Allow more to be moved along the trailer.",
        "tires.front": "Tires of a higher load, if its maker approves them.", "tires.rear": "Tires of a higher load, if its maker approves them.",
        "tires.trailer": "Tires of a higher load, if its maker approves them.",
    }.get(check, f"Less trailer, or another {word}.")  # fmt: skip


def remedies(bench: Bench, *, seconds: float = LIMIT_SECONDS) -> Remedies:
    """Find the least-trouble sets of steps that bring every known check right, or prove that there is none.

    Parameters
    ----------
    bench : Bench
        The rig to cure.
    seconds : float
        When to give up. [s]

    Returns
    -------
    Remedies
        Up to three proposals, each re-checked by the ordinary checks; else the limits that cannot be met.
    """
    before = bench.checks(bench.rig)
    if cured(before):
        return Remedies(needed=False, proposals=[], unmet=[], proof=[], movable=0, given_up=False,
                        says="Nothing needs curing: every check that could be made is right.")  # fmt: skip
    acts = actions(bench.rig)
    programme = _Programme(state_of(bench.rig), acts, _conditions(bench, before))
    found: list[Proposal] = []
    started, given_up = time.monotonic(), False
    while acts and len(found) < SLOTS:
        left = seconds - (time.monotonic() - started)
        if left <= 0.05:
            given_up = True
            break
        answer = programme.solve(seconds=left)
        if answer.status == 1:
            given_up = True
        if answer.x is None:
            break
        proposal = _proposal(bench, programme, answer.x, float(answer.fun), before)
        if proposal is not None:
            found.append(proposal)
        used = {position for position, act in enumerate(acts) if answer.x[act.columns["switch"]] > 0.5}
        programme.cuts.append(used)
    movable = len({(act.kind in ("leave", "move", "swap"), act.index) for act in acts if act.kind != "bars"})
    if found:
        return Remedies(needed=True, proposals=found, unmet=[], proof=[], movable=movable, given_up=given_up,
                        says="The least trouble first; each was checked again like any weighing.")  # fmt: skip
    if not acts:
        return Remedies(needed=True, proposals=[], unmet=[], proof=[], movable=0, given_up=False,
                        says="Nothing may be moved: list things with their places, add tanks, or allow more below.")  # fmt: skip
    programme.cuts.clear()
    unmet, proof = _unmet(bench, programme, before)
    return Remedies(needed=True, proposals=[], unmet=unmet, proof=proof, movable=movable, given_up=given_up,
                    says="The search was given up before an answer." if given_up
                    else "Nothing that is allowed brings every check right.")  # fmt: skip
