"""The search for the easiest steps.

What may be done (:mod:`noxel.core.adjust.actions`) is chosen by a programme over the rig's state
(:mod:`noxel.core.adjust.milp`), and checked again like a weighing.
"""

import time
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from noxel.core.adjust.actions import actions
from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import Vector, state_of
from noxel.core.adjust.milp import (
    Growth,
    Programme,
    Solved,
    conditions,
    state_after,
    usable,
)
from noxel.core.adjust.solutions import steps_of
from noxel.core.adjust.steps import CheckChange, check_changes, do_steps
from noxel.core.limits import Checked, Verdict, verdict
from noxel.core.quantities import print_mass
from noxel.core.rig import Step
from noxel.core.wording import Answer, Printer, check_label, rule_sentence

SLOTS = 3
"""How many different sets of steps are looked for."""
ROUNDS = 6
"""How often the amounts of one set are looked for again, with the ± that they themselves bring."""
FIRST_TRIES, TRIES = 3, 30
"""How many sets of steps may fail by the ± that they bring: before that is looked for beforehand,
and before the search is given up.
"""


class Proposal(Answer):
    """One set of steps that brings every known check right; ``rules`` are those of maker and law
    that it still does not keep.
    """

    steps: list[Step]
    says: list[str]
    summary: str
    effort: float
    verdict: Verdict
    rules: list[str]
    changes: list[CheckChange]


@dataclass(frozen=True, slots=True)
class Candidate:
    """A proposal, what the programme counts for it, and the switches that it uses."""

    cost: float
    proposal: Proposal
    used: set[int]


def cured(rows: Sequence[Checked]) -> bool:
    """Whether every check that could be made is right: within, or on a worked-out limit that is not
    exceeded.
    """
    return all(row.status in ("within", "unconfirmed") for row in rows if row.status != "unknown")


def _proposal(
    base: Baseline, programme: Programme, values: Vector, effort: float, before: Sequence[Checked]
) -> tuple[Proposal | None, list[Checked]]:
    """A solution as steps, where the ordinary checks find it right; and what they find."""
    after: list[Checked] = []
    for rounded in (True, False):
        steps = steps_of(base, programme, values, rounded=rounded)
        changed, says = do_steps(base.rig, steps)
        after = base.checks(changed)
        if cured(after):
            rules = base.rules(changed)
            proposal = Proposal(
                steps=steps,
                says=says,
                summary=_summary(base, before, after),
                effort=round(effort, 6),
                verdict=verdict(after, broken=bool(rules)),
                rules=[rule_sentence(changed, rule) for rule in rules],
                changes=check_changes(base.rig, before, after, Printer(base.rig)),
            )
            return proposal, after
    return None, after


def _candidate(
    base: Baseline, programme: Programme, answer: Solved, before: Sequence[Checked]
) -> Candidate | None:
    """The cheapest amounts for one set of switches, with the ± that the change itself brings; None
    where there are none.

    The programme knows the scale's ± only. What is moved has a ± of its own, which asks for a
    little more.
    """
    used = _switches(programme, answer.values)
    tighter = programme
    for _ in range(ROUNDS):
        proposal, after = _proposal(base, tighter, answer.values, answer.cost, before)
        if proposal is not None:
            return Candidate(answer.cost, proposal, _switches(tighter, answer.values))
        state = state_after(tighter, answer.values)
        asked = [
            min(row, other, key=lambda condition: condition.left(state))
            for row, other in zip(tighter.rows, conditions(base, after), strict=True)
        ]
        tighter = Programme(programme.state, programme.acts, asked, only=used)
        cheapest = tighter.solve()
        if cheapest is None:
            return None
        answer = cheapest
    return None


def _growth(base: Baseline, programme: Programme) -> Growth:
    """How much tighter each condition becomes by the ± that each action brings when done alone, as
    far as it goes.

    Together they bring no more than the sum: a root of a sum of squares above the scale's own ±
    grows ever more slowly.
    """
    width = programme.columns()
    grown: Growth = []
    for act in programme.acts:
        alone = np.zeros(width)
        alone[act.columns["switch"]] = 1.0
        if "amount" in act.columns:
            alone[act.columns["amount"]] = act.most
        changed, _ = do_steps(base.rig, steps_of(base, programme, alone, rounded=False))
        state = state_after(programme, alone)
        grown.append(
            [
                max(0.0, row.left(state) - other.left(state))
                for row, other in zip(
                    programme.rows, conditions(base, base.checks(changed)), strict=True
                )
            ]
        )
    return grown


class Search:
    """The easiest sets of steps, until there are enough, none is left or time is up."""

    def __init__(self, base: Baseline, before: Sequence[Checked], seconds: float) -> None:
        self.base, self.before = base, before
        rows = conditions(base, before)
        state = np.nan_to_num(state_of(base))
        self.programme = Programme(state, usable(actions(base), rows), rows)
        self.pool: list[Candidate] = []
        self.given_up = False
        self._until = time.monotonic() + seconds

    def run(self) -> None:
        """First as if a change had no ± of its own. Once that fails, with at least the ± that it
        has. If that finds nothing, one set after the other.
        """
        programme = self.programme
        if not programme.acts or self._look(programme, rejected=FIRST_TRIES):
            return
        careful = replace(
            programme,
            cuts=[candidate.used for candidate in self.pool],
            growth=_growth(self.base, programme),
        )
        self._look(careful, rejected=TRIES)
        if not (self.pool or self.given_up or self._look(programme, rejected=TRIES)):
            self.given_up = True

    def _look(self, programme: Programme, *, rejected: int) -> bool:
        """Whether it came to an end before so many answers were rejected."""
        while True:
            left = self._until - time.monotonic()
            if left <= 0.05:
                self.given_up = True
                return True
            answer = programme.solve(seconds=left)
            self.given_up = self.given_up or time.monotonic() >= self._until
            if answer is None or self._enough(answer.cost):
                return True
            candidate = self._candidate(programme, answer)
            if candidate is not None:
                self.pool.append(candidate)
                programme.cuts.append(candidate.used)
                continue
            programme.others.append(_switches(programme, answer.values))
            rejected -= 1
            if not rejected:
                return False

    def _enough(self, cost: float) -> bool:
        return sum(1 for candidate in self.pool if candidate.cost <= cost) >= SLOTS

    def _candidate(self, programme: Programme, answer: Solved) -> Candidate | None:
        """Preferably with the least amounts for the same switches, without what was put on top for
        the ±.
        """
        if programme.growth is not None:
            used = _switches(programme, answer.values)
            least = replace(programme, cuts=[], others=[], growth=None, only=used).solve()
            if least is not None:
                candidate = _candidate(self.base, programme, least, self.before)
                if candidate is not None:
                    return candidate
        return _candidate(self.base, programme, answer, self.before)


def _switches(programme: Programme, values: Vector) -> set[int]:
    return {
        position
        for position, act in enumerate(programme.acts)
        if values[act.columns["switch"]] > 0.5
    }


def _summary(base: Baseline, before: Sequence[Checked], after: Sequence[Checked]) -> str:
    """“Rear axle 4,040 → 3,850 lb, tongue share 13.2 → 12.6 %”: the checks that were wrong, and the
    share.
    """
    unit, now = base.rig.units.mass, {row.id: row for row in after}
    parts = []
    for row in before:
        new = now.get(row.id)
        if new is None or row.actual is None or new.actual is None:
            continue
        label = check_label(base.rig, row.id)
        if row.range is not None:
            parts.append(f"{label} {row.actual.value * 100:.1f} → {new.actual.value * 100:.1f} %")
        elif row.status in ("over", "tight", "high", "low"):
            was = print_mass(row.actual.value, unit).removesuffix(f" {unit}")
            parts.append(f"{label} {was} → {print_mass(new.actual.value, unit)}")
    return ", ".join(parts)
