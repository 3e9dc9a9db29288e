"""A label or a weigh message as text, taken apart: each figure with the words that it came from, to
be looked at before it is kept.

Phones read text off photographs. The patterns are the words that labels have to carry (49 CFR 567
and 571.110, RVIA and trailer labels, the wording of weigh messages); what fits none of them is left
alone, and nothing is guessed silently.
"""

import datetime
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from noxel.core.rig import RigFile

Part = Literal["vehicle", "trailer", "hitch", "pass"]
LONGEST_PASTED = 20_000
"""More text than this is no label. [characters]"""

_MASS = (
    r"(?P<a>\d{1,3}(?:[ ,.]\d{3})+|\d{2,6})\s*(?P<ua>lbs?|kgs?|kilograms?|pounds?)?\b"
    r"(?:\s*(?:[/(\[=]|or\b)\s*(?P<b>\d{1,3}(?:[ "
    r",.]\d{3})+|\d{2,6})\s*(?P<ub>lbs?|kgs?|kilograms?|pounds?)\b)?"
)
_GAP = r"[^\d]{0,45}?"


@dataclass(frozen=True, slots=True)
class Pasted:
    """One figure found in a text.

    ``text`` is what to type at ``path``; ``words`` are the words it was read from; ``unit_assumed``
    says that the label names no unit, so that the rig's own is meant.
    """

    path: str
    label: str
    text: str
    words: str
    unit_assumed: bool = False


@dataclass(frozen=True, slots=True)
class _Rule:
    path: str
    label: str
    pattern: re.Pattern[str]


def _rule(path: str, label: str, words: str) -> _Rule:
    return _Rule(path, label, re.compile(f"(?:{words}){_GAP}{_MASS}", re.IGNORECASE))


_G = r"G\.?\s?"
_GVWR = (
    rf"\b{_G}V\.?\s?W\.?\s?R\b\.?|gross vehicle weight rating|\bATM\b|aggregate trailer "
    r"mass|\bGVM\b|gross vehicle mass"
)
_VEHICLE = (
    _rule("ratings.gvwr", "GVWR", _GVWR),
    _rule(
        "ratings.gawr_front",
        "front GAWR",
        r"G\.?A\.?W\.?R\.?\W{0,6}(?:front|frt|fr)\b|(?:front|frt)\W{0,4}G\.?A\.?W\.?R\b",
    ),
    _rule(
        "ratings.gawr_rear",
        "rear GAWR",
        r"G\.?A\.?W\.?R\.?\W{0,6}(?:rear|rr)\b|(?:rear|rr)\W{0,4}G\.?A\.?W\.?R\b",
    ),
    _rule(
        "ratings.gcwr",
        "GCWR",
        r"\bG\.?C\.?(?:V\.?)?W\.?R\b|gross combin(?:ed|ation) (?:vehicle )?(?:weight|mass)(?: "
        r"rating)?|\bGCM\b",
    ),
    _rule(
        "ratings.payload",
        "Payload",
        r"occupants and cargo should never exceed|maximum payload|\bpayload\b",
    ),
    _rule(
        "ratings.payload_reduction", "Taken off the payload", r"load carrying capacity reduced by"
    ),
    _rule(
        "ratings.tow_rating",
        "Tow rating",
        r"(?:max(?:imum)?\.? )?(?:loaded )?trailer weight(?: rating)?|tow(?:ing)? "
        r"(?:rating|capacity)",
    ),
    _rule("curb_weight", "Curb weight", r"\b(?:curb|kerb) (?:weight|mass)"),
)
_TRAILER = (
    _rule("ratings.gvwr", "Trailer GVWR", _GVWR),
    _rule(
        "ratings.gawr[0]",
        "GAWR, first axle",
        r"G\.?A\.?W\.?R\.?\W{0,6}(?:each|all|front|first|1st)?\W{0,3}(?:axles?)?",
    ),
    _rule(
        "ratings.ccc",
        "CCC",
        r"\b(?:CCC|OCCC|NCC)\b|weight of cargo should never exceed|cargo carrying capacity",
    ),
    _rule(
        "dry_weight",
        "Dry weight",
        r"\b(?:UVW|UTW)\b|unloaded (?:vehicle|trailer) weight|dry weight|\btare(?: "
        r"mass)?\b|weight as built",
    ),
    _rule("dry_tongue", "Hitch weight as built", r"(?:dry )?(?:hitch|tongue|pin) weight"),
)
_PASS = (
    _rule("readings.front", "front axle", r"\b(?:steer(?:ing)?|front)(?: axles?)?"),
    _rule("readings.rear", "rear axle", r"\b(?:drives?|rear)(?: axles?)?"),
    _rule("readings.trailer", "trailer axles", r"\b(?:trailer|trl)(?: axles?)?"),
    _rule("printed_gross", "gross printed on the ticket", r"\b(?:gross|total)(?: weight)?"),
)
_FRONT_REAR = re.compile(rf"G\.?A\.?W\.?R{_GAP}(?:front|frt){_GAP}\d", re.IGNORECASE)
_REAR_LATER = _rule("ratings.gawr_rear", "rear GAWR", r"\b(?:rear|rr)\b")
_TRAILER_WORDS = re.compile(
    r"each axle|\b(?:UVW|CCC|OCCC|ATM|NCC)\b|weight of cargo "
    r"should|type\W{1,4}(?:trailer|TRA|TRL)\b",
    re.IGNORECASE,
)
_MESSAGE_WORDS = re.compile(r"\b(?:steer|drives?|re-?weigh|gross)\b", re.IGNORECASE)
_UNITS = {"l": "lb", "p": "lb", "k": "kg"}
_DATE = re.compile(r"\b(\d{4})-(\d\d)-(\d\d)\b|\b(\d{1,2})/(\d{1,2})/(\d{4})\b")
_TICKET = re.compile(
    r"\bticket\W{0,3}(?:no\.?|number|#)?\W{0,3}([A-Z0-9][A-Z0-9-]{1,20})\b", re.IGNORECASE
)


def part_of(text: str) -> Part:
    """What a pasted text seems to be of, by its words: a weigh message, a trailer's label, else the
    vehicle's.
    """
    if _MESSAGE_WORDS.search(text) and not re.search(r"GAWR|GVWR|GVM|ATM", text, re.IGNORECASE):
        return "pass"
    return "trailer" if _TRAILER_WORDS.search(text) else "vehicle"


def _figure(match: re.Match[str], unit: str) -> tuple[str, bool]:
    """The figure in the rig's unit where the label gives both, else with the unit that it has; and
    whether it has none.
    """
    both = [(match["a"], match["ua"]), (match["b"], match["ub"])]
    units = [
        (re.sub(r"[ ,.]", "", number), _UNITS[word[0].lower()] if word else None)
        for number, word in both
        if number
    ]
    for number, own in units:
        if own == unit:
            return number, False
    number, own = units[0]
    return (number, True) if own is None else (f"{number} {own}", False)


def _found(rules: tuple[_Rule, ...], text: str, unit: str, prefix: str) -> Iterator[Pasted]:
    for rule in rules:
        match = rule.pattern.search(text)
        if match:
            figure, assumed = _figure(match, unit)
            yield Pasted(
                f"{prefix}.{rule.path}", rule.label, figure, " ".join(match[0].split()), assumed
            )


def _day(text: str) -> tuple[str, str] | None:
    """A day that can only be read in one way, and its words."""
    for match in _DATE.finditer(text):
        if match[1]:
            parts = int(match[1]), int(match[2]), int(match[3])
        else:
            one, other = int(match[4]), int(match[5])
            if one <= 12 and other <= 12 and one != other:
                continue  # day or month first: nobody can tell
            parts = (
                int(match[6]),
                min(one, other) if one != other and max(one, other) > 12 else one,
                max(one, other),
            )
        try:
            return datetime.date(*parts).isoformat(), match[0]
        except ValueError:
            continue
    return None


def read_pasted(rig: RigFile, text: str, part: Part | None, at: Mapping[str, str]) -> list[Pasted]:
    """Take a pasted text apart.

    Parameters
    ----------
    rig : RigFile
        For its unit and the axles of its trailer.
    text : str
        As pasted or read off a photograph.
    part : {"vehicle", "trailer", "hitch", "pass"} or None
        What it is of; None: by its words.
    at : mapping
        Where a pass and its weigh-in are, by ``pass`` and ``weigh_in``, such as
        ``weigh_ins[0].passes[1]``, and the ``unit`` of that pass where it has its own.

    Returns
    -------
    list of Pasted
        In the order of a label; nothing where nothing was understood.
    """
    text, unit = text[:LONGEST_PASTED], rig.units.mass
    kind = part or part_of(text)
    if kind == "pass":
        if "pass" not in at:
            return []
        found = list(_found(_PASS, text, at.get("unit", unit), at["pass"]))
        ticket, day = _TICKET.search(text), _day(text)
        if ticket:
            found.append(
                Pasted(f"{at['pass']}.ticket_number", "ticket number", ticket[1], ticket[0])
            )
        if day:
            found.append(Pasted(f"{at['weigh_in']}.date", "date", day[0], day[1]))
        return found
    if kind == "trailer":
        found = list(_found(_TRAILER, text, unit, "trailer"))
        axles = len(rig.trailer.ratings.gawr) if rig.trailer else 0
        first = next((each for each in found if each.path.endswith("gawr[0]")), None)
        if first and re.search(r"each|all", first.words, re.IGNORECASE):
            found += [
                Pasted(
                    f"trailer.ratings.gawr[{axle}]",
                    f"GAWR, axle {axle + 1}",
                    first.text,
                    first.words,
                    first.unit_assumed,
                )
                for axle in range(1, axles)
            ]
        return found
    if kind == "hitch":
        return list(
            _found(
                (
                    _rule(
                        "ratings.tongue_rating",
                        "Tongue limit",
                        r"\btongue(?: weight)?\b|\bTW\b|vertical load",
                    ),
                ),
                text,
                unit,
                "vehicle",
            )
        )
    found = list(_found(_VEHICLE, text, unit, "vehicle"))
    if _FRONT_REAR.search(text) and not any(each.path.endswith("gawr_rear") for each in found):
        # “GAWR FRONT … REAR …”, the word not repeated
        found += _found((_REAR_LATER,), text, unit, "vehicle")
    return found
