"""Can it tow that? One answer in the words of the question: what is known so far, then yes, no or
too close to say, by which limit, and what would change it.
"""

from typing import Literal

from noxel.core.limits import CHECKS, CheckId, cushion, limits, payload_limit
from noxel.core.match.candidates import match_vehicle, trailer_of_rig
from noxel.core.match.ceiling import every_use, towing_limits
from noxel.core.match.how_much import HowMuch, how_much
from noxel.core.match.loaded_vehicle import ON_LIMIT
from noxel.core.match.own_share import Share
from noxel.core.match.pairs import Match, match_pair
from noxel.core.mechanics import load, planned
from noxel.core.quantities import KG, lower_first, print_mass, print_share
from noxel.core.rig import RigFile, on_its_wheels, share_range
from noxel.core.wording import Answer, limiting_rating, term_name, vehicle_word

Lead = Literal["yes", "no", "too_close", "not_yet"]
_LEADS: dict[Lead, str] = {
    "yes": "Yes",
    "no": "No",
    "too_close": "Too close to say",
    "not_yet": "Not answered yet",
}


class TowRow(Answer):
    """One limit, and what this trailer at its rating leaves of it; minus where it is too heavy.

    ``worked_out`` says of what a limit that nobody entered was worked out.
    """

    check: CheckId
    label: str
    margin: float
    plus_minus: float
    status: str
    worked_out: str | None


class TowAnswer(Answer):
    """The answer so far. ``bar`` is one line of it, ``sentence`` all of it; ``changes`` what would
    change it; ``missing`` the ratings that are not counted yet.
    """

    answer: Lead
    lead: str
    bar: str
    sentence: str
    changes: list[str]
    rows: list[TowRow]
    missing: list[str]
    ceiling: float | None


def can_tow(rig: RigFile, number: int | None = None) -> TowAnswer:
    """Answer the question with what is known.

    Parameters
    ----------
    rig : RigFile
        The vehicle, what is aboard, and the trailer that is asked about; without one, how much it
        can tow at all.
    number : int or None
        The weigh-in looked at, from 1.

    Returns
    -------
    TowAnswer
        In the file's unit.
    """
    limit, pair = how_much(rig, number=number), _pair(rig)
    missing = limit.missing
    if pair is None or limit.ceiling is None or pair.room is None:
        return _without_trailer(rig, limit)
    too_heavy = pair.verdict == "stop"
    answer: Lead = "no" if too_heavy else "too_close" if pair.too_close else "yes"
    if answer == "yes" and missing:
        answer = "not_yet"
    worked_out = {bar.check: bar.source for bar in limit.bars if bar.worked_out}
    rows = [
        TowRow(
            check=row.check,
            label=row.label,
            margin=row.margin,
            plus_minus=row.plus_minus or 0.0,
            status=row.status,
            worked_out=worked_out.get(row.check),
        )
        for row in sorted(pair.rows, key=lambda row: row.margin if row.margin is not None else 0.0)
        if row.margin is not None and row.check != "trailer.gross"  # it is at its rating
    ]
    sentence, bar = _sentence(rig, pair, answer, missing)
    return TowAnswer(
        answer=answer,
        lead="Nothing against it yet" if answer == "not_yet" else _LEADS[answer],
        bar=bar,
        sentence=sentence,
        changes=_changes(rig, pair, answer),
        rows=rows,
        missing=missing,
        ceiling=limit.ceiling,
    )


def _pair(rig: RigFile) -> Match | None:
    """The rig's own vehicle with its own trailer, where it says what that may weigh."""
    trailer = trailer_of_rig("trailer", "", rig, in_a_rig=True)
    if trailer is None or (trailer.rated is None and trailer.expected is None):
        return None
    return match_pair(match_vehicle("vehicle", "", rig, None), trailer, None, rig.units.mass)


def _without_trailer(rig: RigFile, limit: HowMuch) -> TowAnswer:
    """How much it can tow at all, as far as that is known."""
    word, unit, factor = vehicle_word(rig), rig.units.mass, KG[rig.units.mass]
    known = limits(rig.model_copy(update={"trailer": None}))
    towing = any(bar.check in ("vehicle.tow_rating", "combination.gross") for bar in limit.bars)
    if limit.ceiling is None or not towing:
        gross = known.get("vehicle.gross")
        loaded = f"The {word} may weigh {_mass(rig, gross.kg)} loaded." if gross else None
        bar = _room_aboard(rig) or loaded or f"Nothing is known of the {word} yet."
        nothing = not any(known.values())
        rest = "" if nothing else " Its tow rating and GCWR say how much it may pull."
        return _open(bar, f"{bar}{rest}", limit)
    heaviest = print_mass(limit.ceiling * factor, unit)
    if limit.ceiling * factor <= ON_LIMIT:
        return TowAnswer(
            answer="no",
            lead=_LEADS["no"],
            bar=limit.says.partition(". ")[0] + ".",
            sentence=limit.says,
            changes=[],
            rows=[],
            missing=limit.missing,
            ceiling=0.0,
        )
    [binding] = [bar for bar in limit.bars if bar.binding]
    bar = f"The {word} can tow up to {heaviest}, limited by {limiting_rating(rig, binding.check)}."
    rest = "The trailer's rating, or what it weighs loaded, is compared with it."
    return _open(bar, f"{bar} {rest}", limit)


def _open(bar: str, sentence: str, limit: HowMuch) -> TowAnswer:
    return TowAnswer(
        answer="not_yet",
        lead=_LEADS["not_yet"],
        bar=bar,
        sentence=sentence,
        changes=[],
        rows=[],
        missing=limit.missing,
        ceiling=limit.ceiling,
    )


def _room_aboard(rig: RigFile) -> str | None:
    """What the payload rating leaves for people, gear and the hitch's load."""
    most, carried = payload_limit(rig), load(planned(rig).solo(), "cargo")
    if most is None:
        return None
    left = most.kg * cushion(rig, "vehicle.payload") - (carried or 0.0)
    more = "more " if carried else ""
    names = "gear" if on_its_wheels(rig) else f"gear and {term_name(rig, 'tongue_weight')}"
    if left < 0:
        return f"The load in the {vehicle_word(rig)} is {_mass(rig, -left)} over its payload."
    return f"Room for {_mass(rig, left)} {more}of people, {names}."


def _mass(rig: RigFile, kg: float) -> str:
    return print_mass(kg, rig.units.mass)


def _sentence(rig: RigFile, pair: Match, answer: Lead, missing: list[str]) -> tuple[str, str]:
    """All of the answer, and one line of it."""
    factor, room = KG[rig.units.mass], pair.room or 0.0
    trailer = rig.trailer.ratings.gvwr.kg if rig.trailer and rig.trailer.ratings.gvwr else None
    how = f"at its rating, {_mass(rig, trailer)}," if trailer else "as it is expected to weigh"
    by = f"by {limiting_rating(rig, pair.binding)}" if pair.binding else ""
    it = "car" if on_its_wheels(rig) else "trailer"
    most = f"At most {_mass(rig, (pair.ceiling or 0.0) * factor)} of loaded {it}, {by}."
    if room < 0:
        bar = f"This {it} {how} is {_mass(rig, -room * factor)} too heavy, {by}."
        return f"{bar} {most}", bar
    if answer == "no":
        worst = min(
            (row for row in pair.rows if row.status == "over"), key=lambda row: row.margin or 0.0
        )
        over = _mass(rig, -(worst.margin or 0.0) * factor)
        bar = f"With this {it} {how} the {lower_first(worst.label)} is {over} over."
        return bar, bar
    bar = f"This {it} {how} leaves {_mass(rig, room * factor)} to spare, {by}."
    if answer == "too_close":
        close = [
            limiting_rating(rig, row.check)
            for row in pair.rows
            if row.status == "tight" and (row.margin or 0.0) <= (row.plus_minus or 0.0)
        ]
        named = f" by {_together(close)}" if close else ", with your own cushion"
        return f"{bar} That is too little to be sure of{named}.", bar
    if answer == "not_yet":
        return f"{bar} Not counted yet: {', '.join(missing)}.", bar
    return f"{bar} {most}", bar


def _together(names: list[str]) -> str:
    """“the GVWR, the GCWR and the payload rating”."""
    *first, last = names
    return f"{', '.join(first)} and {last}" if first else last


def _changes(rig: RigFile, pair: Match, answer: Lead) -> list[str]:
    """What would change the answer."""
    if answer in ("yes", "not_yet") or pair.ceiling is None:
        return []
    changes = []
    if answer == "too_close":
        changes.append(
            f"A measured {term_name(rig, 'tongue_weight')}, or weighing the {vehicle_word(rig)} "
            "alone, makes the ± small enough to say."
        )
    if answer == "no" and (lighter := _lighter(rig, pair)):
        changes.append(lighter)
    changes += [text for text in (_less_aboard(rig, pair), _less_tongue(rig, pair)) if text]
    return changes


def _lighter(rig: RigFile, pair: Match) -> str | None:
    """How this trailer may be loaded, or what another may be rated."""
    most, trailer = (pair.ceiling or 0.0) * KG[rig.units.mass], rig.trailer
    if most <= ON_LIMIT or trailer is None:
        return None
    dry = trailer.dry_weight
    if dry is not None and most > dry.kg:
        return (
            f"Loaded to at most {_mass(rig, most)} it would do: {_mass(rig, most - dry.kg)} of "
            f"cargo above its {term_name(rig, 'dry_weight')}."
        )
    return f"A trailer rated at most {_mass(rig, most)} would do."


def _at_rating(rig: RigFile, pair: Match) -> float:
    """What the trailer is looked at with. [kg]"""
    return ((pair.ceiling or 0.0) - (pair.room or 0.0)) * KG[rig.units.mass]


def _less_aboard(rig: RigFile, pair: Match) -> str | None:
    """How much less in the vehicle brings every limit right, where that alone does."""
    factor, needed = KG[rig.units.mass], 0.0
    for row in pair.rows:
        if row.margin is None or row.status not in ("over", "tight"):
            continue
        spec = CHECKS[row.check]
        short = ((row.plus_minus or 0.0) - row.margin) * factor
        if spec.subject not in ("vehicle", "combination") or row.check == "vehicle.tow_rating":
            return None
        if spec.group is not None:
            return None  # where it lies decides that
        needed = max(needed, short)
    carried = load(planned(rig).solo(), "cargo") or 0.0
    if not 0 < needed < carried:
        return None
    return f"{_mass(rig, needed)} less in the {vehicle_word(rig)} would do."


def _less_tongue(rig: RigFile, pair: Match) -> str | None:
    """The share on the hitch up to which it would do, where the limits that end it go by that."""
    ends = [row.check for row in pair.rows if row.status in ("over", "tight")]
    vehicle, kg = match_vehicle("vehicle", "", rig, None), _at_rating(rig, pair)
    at_one = every_use(rig, vehicle.solo, Share(1.0, "typed"))
    known, shares = towing_limits(rig, vehicle.solo), []
    for check in ends:
        use, limit = at_one.get(check), known.get(check)
        by_tongue = CHECKS[check].load not in ("trailer_gross", "combination_gross")
        if use is None or limit is None or not by_tongue or use.slope <= 0:
            return None
        shares.append((cushion(rig, check) * limit.kg - use.used) / (use.slope * kg))
    low, _ = share_range(rig)
    most = min(shares, default=0.0)
    if not low <= most < pair.share:
        return None
    word = term_name(rig, "tongue")
    share = print_share(most)
    return f"With no more than {share} of it on the {word} it would do: measure the {word}."
