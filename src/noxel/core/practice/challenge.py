"""Challenges: a random rig, traps in its tickets, and the player's word on every limit, judged by
what could be known.

A word is right if the tickets of the yard as a clean scale prints them bear it out: over, within,
or “cannot tell” where the margin is within its ± or the passes made do not settle it. Where a trap
still stands in the tickets, “cannot tell” is right too. The true loads are shown beside it.
"""

import random
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.limits import Checked, CheckId, run_checks
from noxel.core.mechanics import Weighing, predicted_weighing, weigh
from noxel.core.practice.effects import AGAIN, FIRST
from noxel.core.practice.exercises import Teller
from noxel.core.practice.true_loads import true_loads
from noxel.core.practice.yard import Trap, Yard, for_the_road, seen_rig
from noxel.core.rig import RigFile
from noxel.core.wording import check_label

Word = Literal["over", "within", "cannot_tell"]
MINUTES = 60
"""How long a challenge may take."""
SPARE = 2
"""What is left over when every ticket is a good one, in the yard's own money."""
ASKED: tuple[CheckId, ...] = (
    "vehicle.front_axle",
    "vehicle.rear_axle",
    "vehicle.gross",
    "combination.gross",
    "vehicle.tow_rating",
    "trailer.gross",
    "trailer.axles",
    "hitch.trailer",
    "hitch.tongue",
)
"""The limits that a word is asked for."""
_TRAPS: Mapping[Trap, str] = {
    "typo": "The first ticket has a misprint: its platforms do not add up to its gross.",
    "stepped_out": "Somebody went to the kiosk while the trailer was uncoupled, and was not "
    "weighed with the vehicle alone.",
    "other_ticket": (
        "The second ticket is another rig's: its number does not follow the first one's, and it "
        "calls itself a first weigh."
    ),
}


@dataclass(frozen=True, slots=True)
class Judged:
    """One word judged: what could be known, in words, and the truth. [kg]"""

    check: CheckId
    label: str
    word: Word
    right: bool
    knowable: Word
    says: str
    true: float
    limit: float


def _knowable(row: Checked) -> Word:
    if row.status in ("over", "within"):
        return "over" if row.status == "over" else "within"
    return "cannot_tell"


def _seen(yard: Yard, *, clean: bool) -> tuple[RigFile, Weighing]:
    rig = seen_rig(yard, clean=clean)
    return rig, weigh(rig, rig.weigh_ins[-1] if rig.weigh_ins else None)


def budget_of(yard: Yard) -> tuple[int, int]:
    """Minutes and money: enough for each pass that the rig needs, and again for each trap."""
    passes = 3 if yard.rig.hitch.weight_distribution else 2
    return MINUTES, FIRST + AGAIN * (passes - 1 + len(yard.traps)) + SPARE


def asked_of(yard: Yard) -> list[tuple[CheckId, str]]:
    """The limits of this rig that a word is asked for: id and label. Where some are exceeded there
    are as many others, so that one word for all of them does not get far.
    """
    rig = seen_rig(yard)
    by_check = {row.id: row for row in run_checks(rig, Weighing())}
    checks = [check for check in ASKED if check in by_check and by_check[check].limit]
    truth = _true_rows(yard)
    over = [check for check in checks if _word_of_truth(truth[check]) == "over"]
    rest = [check for check in checks if check not in over]
    chance = random.Random(f"asked/{yard.run.difficulty}/{yard.run.seed}")
    kept = {*over, *chance.sample(rest, min(len(rest), max(len(over), 3)))}
    return [(check, check_label(rig, check)) for check in checks if check in kept]


def _true_rows(yard: Yard) -> dict[CheckId, Checked]:
    """Every check by the true loads, as the rig goes onto the road."""
    loads = true_loads(
        for_the_road(yard), "engaged" if yard.rig.hitch.weight_distribution else "none"
    )
    return {row.id: row for row in run_checks(yard.rig, predicted_weighing(yard.rig, loads, {}))}


def standing_traps(yard: Yard) -> list[Trap]:
    """The traps that the tickets counted last still hold."""
    last = (
        {
            (ticket.config, ticket.bars == "engaged"): ticket
            for ticket in yard.tickets
            if ticket.visit == yard.tickets[-1].visit
        }
        if yard.tickets
        else {}
    )
    traps: list[Trap] = [ticket.trap for ticket in last.values() if ticket.trap]
    if len({ticket.people for ticket in last.values()}) > 1:
        traps.append("stepped_out")
    return traps


def traps_told(yard: Yard) -> list[tuple[str, bool]]:
    """What the traps were, for afterwards, and whether each stands still: one that does counts as a
    word that was wrong.
    """
    standing = standing_traps(yard)
    return [(_TRAPS[trap], trap in standing or not yard.tickets) for trap in yard.traps]


def judge(yard: Yard, words: Mapping[str, Word]) -> list[Judged]:
    """Judge the player's words on the rig as it was weighed last."""
    rig, clean = _seen(yard, clean=True)
    rows = {row.id: row for row in run_checks(rig, clean)}
    traps = standing_traps(yard)
    printed = {row.id: _knowable(row) for row in run_checks(rig, _seen(yard, clean=False)[1])}
    truth = _true_rows(yard)
    m = Teller(yard.rig)
    judged = []
    for check, label in asked_of(yard):
        word, row, true = words.get(check, "cannot_tell"), rows[check], truth[check]
        if true.actual is None or true.limit is None:
            continue
        known = _knowable(row)
        right = word == known or (bool(traps) and word in ("cannot_tell", _word_of_truth(true)))
        says = _reply(word, known, true, printed[check] if traps else known, m)
        judged.append(
            Judged(check, label, word, right, known, says, true.actual.value, true.limit.kg)
        )
    return judged


def _word_of_truth(row: Checked) -> Word:
    return "over" if row.margin is not None and row.margin < 0 else "within"


def _reply(word: Word, known: Word, true: Checked, printed: Word, m: Teller) -> str:
    """What is said to a word; ``printed`` is what the tickets say as they were handed over."""
    margin = true.margin or 0.0
    fact = f"Truly {m(abs(margin))} {'over' if margin < 0 else 'left'}."
    if word == known:
        return fact
    if word == printed:
        return f"{fact} The tickets say so, but something is wrong with one of them."
    if printed != known and word == "cannot_tell":
        return f"{fact} With that ticket nothing could be said."
    if known == "cannot_tell":
        return (
            f"{fact} Your tickets could not tell: the margin is within their ±, or a pass is "
            "missing."
        )
    return (
        f"{fact} Your tickets say so, beyond their ±."
        if word == "cannot_tell"
        else f"{fact} Your tickets say the opposite."
    )


def still_over(yard: Yard) -> list[tuple[str, float]]:
    """Which limits the true loads exceed as the rig is loaded now: label and by how much. [kg]"""
    rows = list(_true_rows(yard).values())
    low = [row for row in rows if row.range is not None and row.status in ("low", "high")]
    over = [
        (check_label(yard.rig, row.id), -row.margin)
        for row in rows
        if row.margin is not None and row.margin < 0 and row.id != "vehicle.payload"
    ]
    return over + [(check_label(yard.rig, row.id), 0.0) for row in low]
