"""Proposals: the least effort that brings every check within its limit at once, or the proof that
nothing allowed can.

What may be done (:mod:`noxel.core.adjust.actions`) is chosen by a programme over the rig's state
(:mod:`noxel.core.adjust.milp`).
"""

import time
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from noxel.core.adjust.actions import MOST_ITEMS, actions, considered
from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.linear_model import Vector, state_of
from noxel.core.adjust.milp import (
    LIMIT_SECONDS,
    Growth,
    Programme,
    conditions,
    least_of,
    state_after,
)
from noxel.core.adjust.solutions import steps_of
from noxel.core.adjust.steps import CheckChange, check_changes, do_steps
from noxel.core.limits import Checked, Verdict, verdict
from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile, Step
from noxel.core.wording import Answer, Printer, check_label, rule_sentence, vehicle_word

SLOTS = 3
"""How many different sets of steps are looked for."""
ROUNDS = 6
"""How often the amounts of one set are looked for again, with the ± that they themselves bring."""
FIRST_TRIES, TRIES = 3, 30
"""How many sets of steps may fail by the ± that they bring: before that is looked for beforehand,
and before the search is given up.
"""


_RIGHT = "Nothing needs fixing: every check that could be made is right."


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


class Unmet(Answer):
    """A limit that nothing allowed can meet, by how much at best, and what kind of change would."""

    check: str
    label: str
    short: float
    says: str


class Proposals(Answer):
    """The easiest proposals, or why there is none; ``proof`` is the best that everything allowed
    can do for each unmet limit.
    """

    needed: bool
    proposals: list[Proposal]
    unmet: list[Unmet]
    proof: list[str]
    movable: int
    says: str
    given_up: bool


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
            made = Proposal(
                steps=steps,
                says=says,
                summary=_summary(base, before, after),
                effort=round(effort, 6),
                verdict=verdict(after, broken=bool(rules)),
                rules=[rule_sentence(changed, each) for each in rules],
                changes=check_changes(base.rig, before, after, Printer(base.rig)),
            )
            return made, after
    return None, after


def _candidate(
    base: Baseline, programme: Programme, answer: Any, before: Sequence[Checked]
) -> Candidate | None:
    """The cheapest amounts for one set of switches, with the ± that the change itself brings; None
    where there are none.

    The programme knows the scale's ± only. What is moved has a ± of its own, which asks for a
    little more.
    """
    used = _switches(programme, answer.x)
    tighter = programme
    for _ in range(ROUNDS):
        proposal, after = _proposal(base, tighter, answer.x, float(answer.fun), before)
        if proposal is not None:
            return Candidate(float(answer.fun), proposal, _switches(tighter, answer.x))
        state = state_after(tighter, answer.x)
        asked = [
            min(row, other, key=lambda each: each.left(state))
            for row, other in zip(tighter.rows, conditions(base, after), strict=True)
        ]
        tighter = Programme(programme.state, programme.acts, asked, only=used)
        answer = tighter.solve()
        if answer.x is None:
            return None
    return None


def _growth(base: Baseline, programme: Programme) -> Growth:
    """How much tighter each condition becomes by the ± that each action brings when done alone, as
    far as it goes.

    Together they bring no more than the sum: a root of a sum of squares above the scale's own ±
    grows ever more slowly.
    """
    programme.columns()
    grown: Growth = []
    for act in programme.acts:
        alone = np.zeros(programme.columns())
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


class _Search:
    """The easiest sets of steps, until there are enough, none is left or time is up."""

    def __init__(self, base: Baseline, before: Sequence[Checked], seconds: float) -> None:
        self.base, self.before = base, before
        self.programme = Programme(state_of(base.rig), actions(base.rig), conditions(base, before))
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
            programme, cuts=[each.used for each in self.pool], growth=_growth(self.base, programme)
        )
        self._look(careful, rejected=TRIES)
        if not self.pool and not self.given_up:
            ended = self._look(programme, rejected=TRIES)
            self.given_up = self.given_up or not ended

    def _look(self, programme: Programme, *, rejected: int) -> bool:
        """Whether it came to an end before so many answers were rejected."""
        while True:
            left = self._until - time.monotonic()
            if left <= 0.05:
                self.given_up = True
                return True
            answer = programme.solve(seconds=left)
            self.given_up = self.given_up or answer.status == 1
            if answer.x is None or self._enough(float(answer.fun)):
                return True
            candidate = self._candidate(programme, answer)
            if candidate is not None:
                self.pool.append(candidate)
                programme.cuts.append(candidate.used)
                continue
            programme.others.append(_switches(programme, answer.x))
            rejected -= 1
            if not rejected:
                return False

    def _enough(self, cost: float) -> bool:
        return sum(1 for each in self.pool if each.cost <= cost) >= SLOTS

    def _candidate(self, programme: Programme, answer: Any) -> Candidate | None:
        """Preferably with the least amounts for the same switches, without what was put on top for
        the ±.
        """
        if programme.growth is not None:
            used = _switches(programme, answer.x)
            least = replace(programme, cuts=[], others=[], growth=None, only=used).solve()
            if least.x is not None:
                found = _candidate(self.base, programme, least, self.before)
                if found is not None:
                    return found
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


def _unmet(
    base: Baseline, programme: Programme, rows: Sequence[Checked], seconds: float
) -> tuple[list[Unmet], list[str]]:
    """Which limits cannot be met together at the least shortfall, and the best that everything
    allowed does for each alone.
    """
    factor, unit = KG[base.rig.units.mass], base.rig.units.mass
    count = len(programme.rows)
    cost = np.zeros(programme.columns() + count)
    offset = programme.columns()
    for number, row in enumerate(programme.rows):
        cost[offset + number] = 1.0 / max(abs(row.bound), 1.0)
    cost[:offset] = 1e-9
    relaxed = Programme(programme.state, programme.acts, programme.rows)
    found = relaxed.solve(cost, count, seconds / 2)
    if found.x is None:
        return [], []
    unmet, proof, seen = [], [], set()
    for number, row in enumerate(programme.rows):
        short = float(found.x[offset + number])
        if short <= 1e-3 or row.check in seen or row.check == "bars":
            continue
        seen.add(row.check)
        label = check_label(base.rig, row.check)
        if row.check == "tongue.share":
            says = f"{label} cannot be brought within its range with what may be moved."
            unmet.append(
                Unmet(
                    check=row.check,
                    label=label,
                    short=0.0,
                    says=f"{says} {_kind_of_change(base.rig, row.check)}",
                )
            )
            continue
        says = (
            f"{label}: {print_mass(short, unit)} too much at best. "
            f"{_kind_of_change(base.rig, row.check)}"
        )
        unmet.append(Unmet(check=row.check, label=label, short=short / factor, says=says))
    for each in unmet:
        if each.check != "tongue.share":
            least = least_of(programme, each.check, seconds / 2 / len(unmet))
            limit = next((row.limit.kg for row in rows if row.id == each.check and row.limit), None)
            if least is not None and limit is not None:
                verb = (
                    "still above"
                    if least > limit
                    else "within by itself; it is the other limits that do not let it be"
                )
                tail = (
                    f" its limit of {print_mass(limit, unit)}"
                    if least > limit
                    else f" (its limit is {print_mass(limit, unit)})"
                )
                proof.append(
                    "With everything that is allowed done for "
                    f"{each.label[0].lower()}{each.label[1:]} alone it would carry "
                    f"{print_mass(least, unit)}, {verb}{tail}."
                )
    return unmet, proof


def _kind_of_change(rig: RigFile, check: str) -> str:
    word = vehicle_word(rig)
    return {
        "hitch.trailer": "Another hitch, or a lighter trailer.",
        "hitch.tongue": "Another hitch, or less on it.",
        "trailer.gross": "A trailer with a higher rating, or less in this one.",
        "trailer.axles": "A trailer with stronger axles, or less in this one.",
        "trailer.cargo": "Less in the trailer.",
        "tongue.share": "Allow more to be moved along the trailer.",
        "tires.front": "Tires of a higher load, if its maker approves them.",
        "tires.rear": "Tires of a higher load, if its maker approves them.",
        "tires.trailer": "Tires of a higher load, if its maker approves them.",
    }.get(check, f"Less trailer, or another {word}.")


def propose(base: Baseline, *, seconds: float = LIMIT_SECONDS) -> Proposals:
    """Find the easiest sets of steps that bring every known check right, or prove that there is
    none.

    Parameters
    ----------
    base : Baseline
        The rig to cure.
    seconds : float
        When to give up. [s]

    Returns
    -------
    Proposals
        Up to three proposals, each re-checked by the ordinary checks; else the limits that cannot
        be met.
    """
    before = base.checks(base.rig)
    if cured(before):
        rules = [rule_sentence(base.rig, each) for each in base.rules(base.rig)]
        right = (
            "Every check that could be made is right. Moving things does not settle this:"
            if rules
            else _RIGHT
        )
        says = " ".join([right, *rules])
        return Proposals(
            needed=False, proposals=[], unmet=[], proof=[], movable=0, given_up=False, says=says
        )
    search = _Search(base, before, seconds)
    search.run()
    programme, given_up, acts = search.programme, search.given_up, search.programme.acts
    found = [each.proposal for each in sorted(search.pool, key=lambda each: each.cost)[:SLOTS]]
    left_out = sum(1 for load in base.rig.loads if load.kg and load.position is not None) - len(
        considered(base.rig)
    )
    heaviest = f" Only the {MOST_ITEMS} heaviest items were looked at." if left_out else ""
    movable = len(
        {(act.kind in ("leave", "move", "swap"), act.index) for act in acts if act.kind != "bars"}
    )
    if found:
        return Proposals(
            needed=True,
            proposals=found,
            unmet=[],
            proof=[],
            movable=movable,
            given_up=given_up,
            says=f"Easiest first; each was checked again like a weighing.{heaviest}",
        )
    if not acts:
        return Proposals(
            needed=True,
            proposals=[],
            unmet=[],
            proof=[],
            movable=0,
            given_up=False,
            says="Nothing may be moved: list items with their places, add tanks, or allow more "
            "below.",
        )
    unmet, proof = _unmet(base, programme, before, seconds / 2)
    return Proposals(
        needed=True,
        proposals=[],
        unmet=unmet,
        proof=proof,
        movable=movable,
        given_up=given_up,
        says=(
            "The search was given up before an answer."
            if given_up
            else "Nothing that is allowed brings every check right."
        )
        + heaviest,
    )
