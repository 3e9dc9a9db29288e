"""The words of labels and tickets, and where the figure beside each belongs.

Words that labels have to carry (49 CFR 567 and 571.110, cargo labels of trailers, hitch labels; the
statutory plates of Regulation (EU) 2021/535; the plates of the Australian Design Rules), and those
that scales print. Words whose figure is wanted nowhere are here too: they keep it from being given
to another.
"""

import re
from dataclasses import dataclass
from typing import Literal

Part = Literal["vehicle", "trailer", "hitch", "pass"]


@dataclass(frozen=True, slots=True)
class Word:
    """Words on a label: where their figure goes, below the part; None where it is not wanted.

    ``every`` says that it stands for all of the trailer's axles.
    """

    path: str | None
    label: str
    pattern: re.Pattern[str]
    every: bool = False


def _word(path: str | None, label: str, words: str, *, every: bool = False) -> Word:
    return Word(path, label, re.compile(words, re.IGNORECASE), every)


_S = r"[\s.:,-]*"
_GVWR = (
    rf"\bG{_S}V{_S}W{_S}R\b|\bGross{_S}Vehicle{_S}Weight(?:{_S}Rating)?|\bG{_S}V{_S}M\b|"
    rf"\bGross{_S}Vehicle{_S}Mass"
)
_GAP = r"\W{0,4}(?:PNBE)?\W{0,4}"
_GAWR = rf"\bG{_S}A{_S}W{_S}R\b"
_AXLE = r"(?:axles?|axis|achse|essieu|as)"
_FIRST, _SECOND, _THIRD = (
    rf"(?:front|frt|fr|1st|first|{_AXLE}{_S}1\b|1\b)",
    rf"(?:rear|rr|2nd|second|{_AXLE}{_S}2\b|2\b)",
    rf"(?:3rd|third|{_AXLE}{_S}3\b|3\b)",
)
_OTHER = (
    _word(
        None, "tire", r"\btires?\b|\btyres?\b|\bsize\b|\brims?\b|\bcold\b|\bpressure\b|\bspare\b"
    ),
    _word(None, "water", r"(?:full load of )?water\s+(?:equals|weighs)?"),
    _word(
        None,
        "seating",
        r"\bseating\b|\bVIN\b|\bdate\b|\bmodel\b|\bserial\b|\btype\b(?!\W+approval)",
    ),
)
VEHICLE = (
    _word("ratings.gvwr", "GVWR", _GVWR),
    _word(
        "ratings.gawr_front",
        "front GAWR",
        rf"{_GAWR}{_GAP}{_FIRST}|{_FIRST}{_S}{_GAWR}|\bfront{_S}axle(?!.{{0,12}}\bpsi)",
    ),
    _word(
        "ratings.gawr_rear",
        "rear GAWR",
        rf"{_GAWR}{_GAP}{_SECOND}|{_SECOND}{_S}{_GAWR}|\brear{_S}axle|(?<=[\s:])(?:rear|rr)\b(?!{_S}(?:tire|tyre|\d{{2}}\s?psi))",
    ),
    _word(
        "ratings.gcwr",
        "GCWR",
        rf"\bG{_S}C{_S}(?:V{_S})?W{_S}R\b|gross{_S}combin(?:ed|ation){_S}(?:vehicle{_S})?"
        rf"(?:weight|mass)(?:{_S}rating)?|\bGCM\b",
    ),
    _word(
        "ratings.payload",
        "Payload",
        r"occupants\s+and\s+cargo\s+should\s+never\s+exceed|maximum\s+payload|\bpayload\b",
    ),
    _word(
        "ratings.payload_reduction",
        "Taken off the payload",
        r"load\s+carrying\s+capacity\s+(?:was\s+)?reduced\s+by",
    ),
    _word(
        "ratings.tow_unbraked",
        "Unbraked tow rating",
        r"unbraked(?:\s+(?:trailer|towing|towable))?(?:\s+(?:weight|mass|capacity|rating))?",
    ),
    _word(
        "ratings.tow_rating",
        "Tow rating",
        r"(?:max(?:imum)?\.?\s+)?(?:loaded\s+)?(?<!braked )trailer\s+weight(?:\s+rating)?|"
        r"\b(?:braked\s+)?tow(?:ing|able)?\s+(?:rating|capacity|mass)",
    ),
    _word(
        "ratings.tongue_rating",
        "Tongue limit",
        r"\btow\s?ball\s+(?:download|load|mass|weight)|\bball\s+load|\bnose\s?weight|"
        r"\bmax(?:imum)?\.?\s+tongue(?:\s+weight)?",
    ),
    _word("curb_weight", "Curb weight", r"\b(?:curb|kerb)\s+(?:weight|mass)|\btare(?:\s+mass)?\b"),
    *_OTHER,
)
TRAILER = (
    _word(
        "ratings.gvwr",
        "Trailer GVWR",
        rf"{_GVWR}|\bA{_S}T{_S}M\b|aggregate\s+trailer\s+mass|\bMTPLM\b|"
        r"max(?:imum)?\s+technically\s+permissible\s+laden\s+mass",
    ),
    _word(
        "ratings.axle_group",
        "All axles together",
        rf"\bG{_S}T{_S}M\b|gross\s+trailer\s+mass|group\s+rating|axle\s+group(?:\s+load)?",
    ),
    _word(
        "ratings.gawr[0]",
        "GAWR, each axle",
        rf"{_GAWR}\W{{0,6}}(?:each|all|per)(?:{_S}axles?)?|(?:each|per){_S}axle",
        every=True,
    ),
    _word(
        "ratings.gawr[1]",
        "GAWR, axle 2",
        rf"{_GAWR}\W{{0,6}}{_SECOND}(?:{_S}axle)?|{_SECOND}{_S}{_GAWR}|\b{_AXLE}{_S}2\b|\brear\b",
    ),
    _word(
        "ratings.gawr[2]",
        "GAWR, axle 3",
        rf"{_GAWR}\W{{0,6}}{_THIRD}(?:{_S}axle)?|{_THIRD}{_S}{_GAWR}|\b{_AXLE}{_S}3\b",
    ),
    _word(
        "ratings.gawr[0]",
        "GAWR, axle 1",
        rf"{_GAWR}(?:\W{{0,6}}{_FIRST})?(?:{_S}axle)?|{_FIRST}{_S}{_GAWR}|\b{_AXLE}{_S}1\b",
    ),
    _word(
        "ratings.ccc",
        "CCC",
        r"\b(?:CCC|OCCC|NCC)\b|weight\s+of\s+cargo\s+should\s+never\s+exceed|"
        r"cargo\s+carrying\s+capacity|\bpayload\b",
    ),
    _word(
        "dry_weight",
        "Dry weight",
        r"\b(?:UVW|UTW|MRO|MIRO)\b|unloaded\s+(?:vehicle|trailer)\s+weight|dry\s+weight|"
        r"\btare(?:\s+mass)?\b|weight\s+as\s+built|mass\s+in\s+running\s+order",
    ),
    _word(
        "dry_tongue",
        "Hitch weight as built",
        r"(?:dry\s+)?(?:hitch|tongue|pin)\s+weight|\b(?:tow\s?)?ball\s+(?:load|mass|weight)|"
        r"\bnose\s?weight",
    ),
    *_OTHER,
)
HITCH = (
    _word(
        "trailer",
        "Trailer rating",
        r"(?:max(?:imum)?\.?\s+)?(?:gross\s+)?trailer\s+(?:weight|wt)\b|\bG?TW\b|\bmax\.?\s+trailer\b|\btrailer\b",
    ),
    _word(
        "tongue",
        "Tongue rating",
        r"(?:max(?:imum)?\.?\s+)?tongue(?:\s+(?:weight|wt|load)\b)?|\bTW\b|vertical\s+load|\bS(?=\s*[:=]?\s*\d)",
    ),
    _word(None, "size", r"\bball\s+(?:size|dia)|\bdrop\b|\bshank\b"),
)
PASS = (
    _word(
        "readings.front_left",
        "front left wheel",
        r"\b(?:L\s?F|F\s?L)\b|(?:front\s*left|left\s*front)",
    ),
    _word(
        "readings.front_right",
        "front right wheel",
        r"\b(?:R\s?F|F\s?R)\b|(?:front\s*right|right\s*front)",
    ),
    _word(
        "readings.rear_left", "rear left wheel", r"\b(?:L\s?R|R\s?L)\b|(?:rear\s*left|left\s*rear)"
    ),
    _word(
        "readings.rear_right", "rear right wheel", r"\b(?:R\s?R)\b|(?:rear\s*right|right\s*rear)"
    ),
    _word(
        "readings.front",
        "front axle",
        rf"\b(?:steer(?:ing)?|front)(?:{_S}axles?)?|\b{_AXLE}{_S}1\b|\bplatform{_S}1\b",
    ),
    _word(
        "readings.rear",
        "rear axle",
        rf"\b(?:drives?|rear)(?:{_S}axles?)?|\b{_AXLE}{_S}2\b|\bplatform{_S}2\b",
    ),
    _word(
        "readings.trailer",
        "trailer axles",
        rf"\b(?:trailer|trl|caravan)(?:{_S}(?:axles?|group))?|\b{_AXLE}{_S}3\b|\bplatform{_S}3\b",
    ),
    _word(
        "printed_gross",
        "gross printed on the ticket",
        rf"\b(?:gross|total|brutto|all{_S}axles)(?:{_S}(?:weight|mass))?",
    ),
    _word(
        None,
        "other",
        r"\b(?:tare|net|fee|price|paid|time|date|scale|ticket|lane|operator|company|street|road|phone)\b(?:\s+(?:no|number))?",
    ),
)
WORDS: dict[Part, tuple[Word, ...]] = {
    "vehicle": VEHICLE,
    "trailer": TRAILER,
    "hitch": HITCH,
    "pass": PASS,
}
_HITCH_WORDS = re.compile(
    r"weight[\s-]+(?:carrying|distributing|distribution)|\bWC\b|\bWD\b|\breceiver\b|ball\s+mount|"
    r"\bD[\s-]?value|\bD\s*[:=]?\s*\d+[.,]\d+\s*kN",
    re.IGNORECASE,
)
_TRAILER_WORDS = re.compile(
    r"each\s+axle|\b(?:UVW|CCC|OCCC|ATM|GTM|NCC|MTPLM|MIRO|caravan)\b|weight\s+of\s+cargo\s+should|"
    r"unloaded|dry\s+weight|(?:pin|hitch)\s+weight|cargo\s+carrying|tare\s+mass|"
    r"type\W{1,4}(?:trailer|TRA|TRL)\b|trailer\s+(?:identification|mass|plate)",
    re.IGNORECASE,
)
_TICKET_WORDS = re.compile(
    r"\b(?:steer|drives?|re-?weigh|weigh(?:ed|ing|bridge)?|gross(?!\s+(?:vehicle|trailer|axle|combin))|"
    r"ticket|brutto|platform|scale|total|[LR]\s?[FR])\b",
    re.IGNORECASE,
)
_RATED = re.compile(rf"{_GAWR}|{_GVWR}|\bATM\b|\bGTM\b|should\s+never\s+exceed", re.IGNORECASE)


def part_of(text: str) -> Part:
    """What a text seems to be of, by its words: a hitch's label, a ticket, a trailer's label, else
    the vehicle's.
    """
    rated = _RATED.search(text)
    if _HITCH_WORDS.search(text) and not rated:
        return "hitch"
    if _TICKET_WORDS.search(text) and not rated:
        return "pass"
    return "trailer" if _TRAILER_WORDS.search(text) else "vehicle"
