"""The verdict in words: one line that names what is worst, and what else there is to say."""

import re
from collections.abc import Sequence

from noxel.core.limits import (
    BrokenRule,
    Checked,
    Doubt,
    Judged,
    Since,
    Verdict,
    binding,
    tightest_first,
)
from noxel.core.mechanics import Knowledge
from noxel.core.quantities import lower_first, print_mass
from noxel.core.rig import RigFile
from noxel.core.wording.answers import Headline, Unknown
from noxel.core.wording.expectations import expected_sentence
from noxel.core.wording.labels import check_label, missing_rating
from noxel.core.wording.rules import rule_sentence
from noxel.core.wording.sentences import many, sentence

_DOUBT = "Two figures cannot both be right."
_LEADS = {
    "stop": "Stop.",
    "incomplete": "Not settled.",
    "caution": "Caution.",
    "within": "Within every rating entered.",
}


def _incomplete(
    rig: RigFile, rows: list[Checked], known: Knowledge | None, weighed: bool
) -> Headline:
    """What holds by the scale, what is expected, and what is not known, kept apart."""
    unknown = [row for row in rows if row.required and row.status == "unknown"]
    judged = [row for row in rows if row.status not in ("unknown", "unconfirmed")]
    ahead = [row for row in rows if row.expected is not None]
    worst = _expected_wrong(rows)
    if not worst:  # one that is open and stands above its limit says more than how many are unknown
        worst = sorted(
            (row for row in ahead if row.expected and (row.expected.margin or 0.0) < 0), key=_room
        )[:1]
    says = [expected_sentence(rig, known, row, row.spec.load) for row in worst] if known else []
    unsure = [row for row in rows if row.status == "unconfirmed"]
    beyond = [row for row in unsure if (row.margin or 0.0) < 0]
    says += [sentence(rig, row) for row in beyond]
    hoped = len([row for row in ahead if row.expected and row.expected.outlook == "within"])
    first = _so_far(rig, rows, judged, weighed=weighed)
    if says:
        leading, rest = says[0], [first, *says[1:]]
    elif hoped:
        more = "more " if judged else ""
        words = f"One {more}check is expected within, not weighed."
        hopes = many(hoped, words, f"{{}} {more}checks are expected within, not weighed.")
        leading, rest = f"{first} {hopes}", []
    else:
        leading, rest = f"{first} {many(len(unknown), *_OPEN)}", []
    near = [row for row in rows if row.status in ("tight", "high")]
    rest += [sentence(rig, row) for row in (*near, *unsure) if row not in beyond]
    names = [
        Unknown(
            label=_what_is_missing(rig, row),
            path=row.rating_path if row.limit is None and row.range is None else None,
        )
        for row in unknown
        if row.expected is None
    ]
    return Headline(lead=_LEADS["incomplete"], sentence=leading, rest=rest, unknown=names)


def _expected_wrong(rows: list[Checked]) -> list[Checked]:
    """What is expected to be beyond its limit, the worst first."""
    wrong = ("over", "over_at_rating", "low")
    return sorted(
        (row for row in rows if row.expected and row.expected.outlook in wrong), key=_room
    )


_OPEN = ("One required check cannot be made yet.", "{} required checks cannot be made yet.")
_TOTALS = ("vehicle.gross", "trailer.gross", "trailer.axles", "combination.gross")


def _so_far(rig: RigFile, rows: list[Checked], judged: list[Checked], *, weighed: bool) -> str:
    """What is known by the scale: the tightest of the checks that were made, else the loads."""
    held = [row for row in judged if row.status != "high"]
    tightest = next((row for row in held if row.margin is not None), None)
    if tightest is not None:
        nearest = sentence(rig, tightest)
        of = f" It is the tightest of {len(held)} checks by what was weighed."
        return f"{nearest}{of}" if len(held) > 1 else nearest
    figures = {row.id: row.actual for row in rows if row.actual is not None and row.range is None}
    totals = [key for key in _TOTALS if key in figures] or list(figures)[:3]
    if not totals and judged:
        return many(
            len(held), "One check holds by what was weighed.", "{} checks hold by what was weighed."
        )
    if not totals:
        return (
            "Nothing was weighed that a check needs."
            if weighed
            else "Nothing has been weighed yet."
        )
    names = [lower_first(check_label(rig, key)).partition(",")[0] for key in totals]
    masses = [print_mass(figures[key].value, rig.units.mass) for key in totals]
    words = ", ".join(map(" ".join, zip(names, masses, strict=True)))
    return f"Weighed: {words}."


def _room(row: Checked) -> float:
    """What is expected to be left, as a share of the limit; a share that is off comes first."""
    share = row.expected_share
    return -1.0 if share is None else 1.0 - share


def _what_is_missing(rig: RigFile, row: Checked) -> str:
    if row.limit is None and row.range is None:
        return missing_rating(rig, row.id)
    return lower_first(check_label(rig, row.id))


def headline(
    rig: RigFile,
    checks: list[Checked],
    reached: Verdict,
    *,
    number: int | None = None,
    doubted: Sequence[Doubt] = (),
    known: Knowledge | None = None,
    rules: Sequence[BrokenRule] = (),
    since: Since | None = None,
) -> Headline:
    """The verdict in one sentence that names the limiting rating, and what else stands out.

    ``rig``: for its units and terms. ``checks``: every check. ``reached``: the verdict over them.
    ``number``: which weigh-in they are of, from 1. ``doubted``: what cannot be right; it leads
    everything but a stop. ``known``: what is expected, where something is. ``rules``: rules of the
    maker or the law that are not kept; they lead where nothing is over. ``since``: what came aboard
    since the weighing, where that makes the verdict worse than as weighed.
    """
    line = _headline(rig, checks, reached, number, doubted, known, rules)
    if since is not None:
        line.rest = [_AS_WEIGHED, *_untold(rig, since), *line.rest]
    line.sentence, more = _shortened(line.sentence)
    line.rest = [*more, *line.rest]
    return line


_LONGEST = 110
"""What a headline says at most before the rest. [characters]"""


def _shortened(text: str) -> tuple[str, list[str]]:
    """As many sentences as a headline has room for, and the others. A first sentence that is too
    long by itself gives up what can follow it.
    """
    first, *others = re.split(r"(?<=[.!?]) (?=[A-Z“0-9])", text)
    included = re.search(r", ([a-z]+(?: [a-z]+)?) included,", first)
    if len(first) > _LONGEST and included:
        first = first.replace(included[0], "")
        others.insert(0, f"That counts the {included[1]}.")
    worked_out = re.search(r" \(([^()]+)\)", first)
    if len(first) > _LONGEST and worked_out:
        first = first.replace(worked_out[0], "")
        others.insert(0, f"That limit is {worked_out[1]}.")
    while others and len(first) + 1 + len(others[0]) <= _LONGEST:
        first = f"{first} {others.pop(0)}"
    return first, others


def _headline(
    rig: RigFile,
    checks: list[Checked],
    reached: Verdict,
    number: int | None,
    doubted: Sequence[Doubt],
    known: Knowledge | None,
    rules: Sequence[BrokenRule],
) -> Headline:
    """The verdict in full, whatever its length."""
    rows = tightest_first(checks)
    bind = binding(rows)
    broken = [rule_sentence(rig, rule) for rule in rules]
    doubts = (
        [many(len(doubted), _DOUBT, "{} pairs of figures cannot both be right.")] if doubted else []
    )
    if reached == "stop":
        return _stop(rig, rows, bind, doubts + broken, known)
    if reached == "incomplete":
        line = _incomplete(rig, rows, known, number is not None)
        line.rest = doubts + broken + line.rest
        return line
    near = [row for row in rows if row.status in ("tight", "high", "unconfirmed", "unknown")]
    leading = near[0] if near else bind
    words = sentence(rig, leading) if leading else ""
    if reached == "within" and words:
        words = f"The limiting rating: {lower_first(words)}"
    rest = [sentence(rig, row) for row in near[1:]]
    if bind and bind is not leading and bind not in near:
        rest.append(sentence(rig, bind))
    if doubts:  # what is left of a limit would read as if it were settled
        doubtful = f"{doubts[0]} Nothing counts as within until that is settled."
        return Headline(
            lead=_LEADS[reached], sentence=doubtful, rest=[sentence(rig, row) for row in near]
        )
    if broken:
        return Headline(
            lead=_LEADS[reached],
            sentence=broken[0],
            rest=[*broken[1:], *([words] if words else []), *rest],
        )
    return Headline(lead=_LEADS[reached], sentence=words, rest=rest)


def headline_of(rig: RigFile, judged: Judged, known: Knowledge | None = None) -> Headline:
    """The verdict of a weigh-in in words: of the rig as it stands now, where that is worse than as
    weighed. ``known`` is what is expected, where something is.
    """
    since = judged.since if judged.verdict != judged.weighed else None
    return headline(
        rig,
        tightest_first(since.rows) if since else judged.rows,
        judged.verdict,
        number=judged.number,
        doubted=judged.doubted,
        known=known,
        rules=judged.rules,
        since=since,
    )


_AS_WEIGHED = "This counts what came aboard since the weighing."


def _untold(rig: RigFile, since: Since) -> list[str]:
    """Which checks change by an amount that nobody can tell yet."""
    if not since.untold:
        return []
    names = ", ".join(lower_first(check_label(rig, check)) for check in since.untold)
    return [f"How much of it they carry cannot be told without its place and the lengths: {names}."]


def _stop(
    rig: RigFile,
    rows: list[Checked],
    bind: Checked | None,
    doubts: list[str],
    known: Knowledge | None,
) -> Headline:
    wrong = [row for row in rows if row.status in ("over", "low")]
    first = bind if bind in wrong else wrong[0]
    rest = doubts + [sentence(rig, row) for row in wrong if row is not first]
    if known:
        rest += [
            expected_sentence(rig, known, row, row.spec.load) for row in _expected_wrong(rows)[:3]
        ]
    rest += [sentence(rig, row) for row in rows if row.status in ("tight", "high")]
    unknown = [row for row in rows if row.required and row.status == "unknown"]
    if unknown:
        rest.append(
            many(len(unknown), "One check could not be made.", "{} checks could not be made.")
        )
    return Headline(lead=_LEADS["stop"], sentence=sentence(rig, first), rest=rest)
