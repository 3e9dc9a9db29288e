"""One verdict: what a weigh-in says about the rig, found in one place for every screen and
paper.
"""

from dataclasses import dataclass

from noxel.core.limits.checks import Checked, Verdict, run_checks, tightest_first, verdict
from noxel.core.limits.doubts import Doubt, doubts, unanswered
from noxel.core.limits.outlook import foresee
from noxel.core.limits.rules import BrokenRule, broken_rules
from noxel.core.limits.since import Since, as_it_stands
from noxel.core.mechanics import Knowledge, Weighing, expect, weigh
from noxel.core.rig import RigFile
from noxel.errors import NotFound


def pick_weigh_in(rig: RigFile, number: int | None) -> int | None:
    """Which weigh-in to look at, from 1: the one asked for, else the last where anything was read;
    None when there is none.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    have = len(rig.weigh_ins)
    if number is None:
        return rig.filled()
    if not 1 <= number <= have:
        raise NotFound(f"There is no weigh-in {number}; the rig has {have or 'none'}.")
    return number


@dataclass(frozen=True, slots=True)
class Judged:
    """The findings on one weigh-in, before they are put into words. Rows come tightest first.

    ``rows`` are as weighed; ``since`` are they with what came aboard since; the verdict is about
    the rig as it stands now, ``weighed`` about it as it stood on the scale.
    """

    number: int | None
    weighing: Weighing
    rows: list[Checked]
    doubted: list[Doubt]
    rules: list[BrokenRule]
    weighed: Verdict
    since: Since | None
    verdict: Verdict


def judge(rig: RigFile, weigh_in: int | None = None) -> Judged:
    """Loads, checks, doubts, broken rules and verdict of one weigh-in, from 1; None is the last.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    number = pick_weigh_in(rig, weigh_in)
    judged_weigh_in = rig.weigh_ins[number - 1] if number else None
    weighing = weigh(rig, judged_weigh_in)
    rows = tightest_first(run_checks(rig, weighing))
    doubted, rules = doubts(rig, number, weighing), broken_rules(rig, weighing)
    weighed = verdict(rows, doubted=bool(unanswered(rig, number, doubted)), broken=bool(rules))
    since = as_it_stands(rig, judged_weigh_in, weighing, rows)
    now = weighed
    if since is not None:
        now = since.verdict(weighed)
        rules = broken_rules(rig, since.weighing) or rules  # what left since clears no rule
        now = "caution" if now == "within" and rules else now
    return Judged(number, weighing, rows, doubted, rules, weighed, since, now)


def foreseen(rig: RigFile, judged: Judged) -> Knowledge | None:
    """What half the facts let us expect, set on the unknown checks, which then come in the order
    of their use; None where every check was made.
    """
    if all(row.status != "unknown" for row in judged.rows):
        return None
    known = expect(rig, judged.weighing)
    foresee(rig, known, judged.rows)
    judged.rows[:] = tightest_first(judged.rows)
    return known
