"""Proposals: the least effort that brings every check within its limit at once, or the proof that
nothing allowed can.
"""

from collections.abc import Sequence

import numpy as np

from noxel.core.adjust.actions import MOST_ITEMS, considered
from noxel.core.adjust.baseline import Baseline
from noxel.core.adjust.milp import (
    LIMIT_SECONDS,
    Programme,
    least_of,
)
from noxel.core.adjust.search import SLOTS, Proposal, Search, cured
from noxel.core.limits import Checked, CheckId
from noxel.core.quantities import KG, print_mass
from noxel.core.rig import RigFile
from noxel.core.wording import Answer, check_label, rule_sentence, vehicle_word

_RIGHT = "Nothing needs fixing: every check that could be made is right."


_NOTHING = "Nothing may be moved: list items with their places, add tanks, or allow more below."
_NEEDS = (
    "What is still needed comes first: without it nobody can tell what a fix does to every limit."
)


class Unmet(Answer):
    """A limit that nothing allowed can meet, by how much at best, and what kind of change would."""

    check: CheckId
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
    solved = relaxed.solve(cost, count, seconds / 2)
    if solved is None:
        return [], []
    unmet, proof, named = [], [], set()
    for number, row in enumerate(programme.rows):
        short = float(solved.values[offset + number])
        if short <= 1e-3 or row.check in named or row.check == "bars":
            continue
        named.add(row.check)
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
    for shortfall in unmet:
        if shortfall.check != "tongue.share":
            least = least_of(programme, shortfall.check, seconds / 2 / len(unmet))
            limit = next(
                (row.limit.kg for row in rows if row.id == shortfall.check and row.limit), None
            )
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
                    f"{shortfall.label[0].lower()}{shortfall.label[1:]} alone it would carry "
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
        rules = [rule_sentence(base.rig, rule) for rule in base.rules(base.rig)]
        right = (
            "Every check that could be made is right. Moving things does not settle this:"
            if rules
            else _RIGHT
        )
        says = " ".join([right, *rules])
        return Proposals(
            needed=False, proposals=[], unmet=[], proof=[], movable=0, given_up=False, says=says
        )
    search = Search(base, before, seconds)
    search.run()
    programme, given_up, acts = search.programme, search.given_up, search.programme.acts
    proposals = [
        candidate.proposal
        for candidate in sorted(search.pool, key=lambda candidate: candidate.cost)[:SLOTS]
    ]
    left_out = sum(1 for load in base.rig.loads if load.kg and load.position is not None) - len(
        considered(base.rig)
    )
    heaviest = f" Only the {MOST_ITEMS} heaviest items were looked at." if left_out else ""
    movable = len(
        {(act.kind in ("leave", "move", "swap"), act.index) for act in acts if act.kind != "bars"}
    )
    if proposals:
        return Proposals(
            needed=True,
            proposals=proposals,
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
            says=_NEEDS if base.missing else _NOTHING,
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
