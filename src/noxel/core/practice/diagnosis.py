"""What is wrong with an answer: by the slip that leads to it, by the figures it is made of, or by
how far off it is.

A right figure is right to within its rounding. A wrong one is compared with every slip of the
lesson, then with slips of unit and digit, then with the sums and differences that somebody would
make of what is on the papers: lines of one ticket, the same line of two tickets, a load off a
rating. What none of them explains is said to be unexplained.
"""

import itertools
import math
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from noxel.core.practice.exercises import Exercise, Teller
from noxel.core.practice.facts import Facts
from noxel.core.practice.ways_to_err import UNITS, WAYS
from noxel.core.quantities import KG, KPA, Dimension, read_mass, read_typed
from noxel.errors import InputError, Problem, QuantityError

LONGEST = 200
ROUNDING = 0.02
"""What is nearer to the answer than this is a slip in the sum, not another sum."""
Found = Literal["right", "slip", "made_of", "close", "unexplained", "unread", "not_yet"]


@dataclass(frozen=True, slots=True)
class Diagnosis:
    """What came of an answer: ``way`` is the code of the slip, ``name`` what it is called, ``says``
    the reply.
    """

    found: Found
    says: str
    way: str = ""
    name: str = ""

    @property
    def right(self) -> bool:
        """Whether the answer is right."""
        return self.found == "right"


def figure_of_way(exercise: Exercise, way: str) -> float | None:
    """The figure that a slip leads to here; None where it lacks something. [as the exercise
    asks]
    """
    if way in UNITS:
        factor = UNITS[way][1]
        printed = exercise.facts.get("printed")
        if way == "unconverted":
            return printed
        if way == "twice":
            return (
                None
                if printed is None
                else printed * 2
                if printed < exercise.right
                else printed / 2
            )
        if way == "wrong_way":  # multiplied where it should have been divided, or the reverse
            return None if printed is None else printed * printed / exercise.right
        return exercise.right * factor
    try:
        return WAYS[way].figure(exercise.facts)
    except (KeyError, ZeroDivisionError):
        return None


def read_answer(exercise: Exercise, text: str, m: Teller) -> float:
    """A typed answer as a figure of the exercise. [kg, a share, or the table's pressure]

    Raises QuantityError if it is no figure of that kind.
    """
    if len(text) > LONGEST:
        raise QuantityError("that is longer than any figure")
    if exercise.form == "pressure":
        text = _PRESSURE.sub("", text)
    if exercise.form == "share":
        return _read_share(exercise, text)
    dimension: Dimension = {"mass": "mass", "share": "share"}.get(exercise.form, "number")  # type: ignore[assignment]
    value = read_typed(text, dimension, m.unit if dimension == "mass" else None).value
    if dimension == "mass":
        return read_mass(value) if isinstance(value, str) else value * KG[m.unit]
    if isinstance(value, str):
        raise QuantityError(f"“{text}” is not a number")
    return float(value)


_PRESSURE = re.compile(r"\s*(psi|kpa)\s*$", re.IGNORECASE)
_PER_CENT = re.compile(r"\s*(%|per\s?cent)\s*$", re.IGNORECASE)


def _read_share(exercise: Exercise, text: str) -> float:
    """A share in any dress: 0.116, 11.6, 11.6 %, 11,6 per cent. A number below 1 without a unit may
    be either; it is read as what is nearer to the answer.
    """
    bare = _PER_CENT.sub("", text)
    bare = re.sub(r"^\s*(\d+),(\d+)$", r"\1.\2", bare)
    share = float(read_typed(f"{bare} %", "share", None).value)
    if _PER_CENT.search(text) or share >= 0.01:
        return share
    return min(share, share * 100, key=lambda figure: abs(figure - exercise.right))


def _rounded_share(exercise: Exercise, figure: float) -> bool:
    """Whether it is the right share, rounded to whole per cents."""
    return math.isclose(figure * 100, round(figure * 100), abs_tol=1e-6) and round(
        figure * 100
    ) == round(exercise.right * 100)


def diagnose(exercise: Exercise, text: str, m: Teller) -> Diagnosis:
    """What is to be said to an answer, as it was typed or chosen."""
    if exercise.form == "choice":
        return _chosen(exercise, text)
    try:
        figure = read_answer(exercise, text, m)
    except QuantityError as exc:
        return Diagnosis(
            "unread",
            f"{exc.message[:1].upper()}{exc.message[1:]}." if exc.message else "That is no figure.",
        )
    if not math.isfinite(figure):
        return Diagnosis("unread", "That is no figure.")
    near = (
        exercise.give
        if exercise.form == "pressure" or exercise.form == "share"
        else max(exercise.give, 0.6 * KG[m.unit])
    ) * (1 + 1e-9)  # what lies just on the line is not to fall by the last bit
    if abs(figure - exercise.right) <= near:
        return Diagnosis("right", exercise.because)
    slip = _slip(exercise, figure, m)
    if slip is not None:
        return slip
    if exercise.form == "share" and _rounded_share(exercise, figure):
        return Diagnosis("right", exercise.because)
    if exercise.form == "pressure" and _other_unit(exercise, figure, m):
        return Diagnosis(
            "slip",
            f"That is the pressure in {'kPa' if m.unit == 'lb' else 'psi'}. The table has "
            f"{'psi' if m.unit == 'lb' else 'kPa'}.",
            "pressure_unit",
            "the other unit of pressure",
        )
    if abs(figure - exercise.right) <= max(4 * near, ROUNDING * abs(exercise.right)):
        return Diagnosis(
            "close",
            "Close: a slip in the sum, or rounded too early. Write it down line by line.",
            "rounding",
            "rounded",
        )
    terms = _made_of(exercise, figure, near, m) if exercise.form == "mass" else None
    if terms is not None:
        return Diagnosis(
            "made_of",
            f"Your figure is {terms}. That answers another question.",
            "made_of",
            "figures put together differently",
        )
    return Diagnosis(
        "unexplained",
        "No usual way leads to that figure from these papers. Look at the first hint, and write "
        "the sum down line by line.",
    )


def _chosen(exercise: Exercise, code: str) -> Diagnosis:
    option = next((option for option in exercise.options if option.code == code), None)
    if option is None:
        raise InputError(
            "Choose one of the statements.",
            [Problem("answer", "is none of the statements", "answer")],
        )
    if code == exercise.choice:
        return Diagnosis("right", exercise.because)
    return Diagnosis(
        "slip",
        option.says,
        option.way or code,
        WAYS[option.way].name if option.way in WAYS else option.way,
    )


def _slip(exercise: Exercise, figure: float, m: Teller) -> Diagnosis | None:
    every = [
        *exercise.ways,
        *(way for way in ("digits", "digit_lost", "as_kg", "as_lb") if way not in exercise.ways),
    ]
    for way in every:
        wrong = figure_of_way(exercise, way)
        if wrong is None or abs(figure - wrong) > max(
            exercise.give, 0.002 * abs(wrong) if way in UNITS else 0.0
        ):
            continue
        if way in UNITS:
            name, _, says = UNITS[way]
            return Diagnosis("slip", says, way, name)
        known, facts = WAYS[way], {**exercise.facts, "right": exercise.right}
        says = f"{known.says} {known.more(facts)}".strip()
        return Diagnosis("slip", _filled(says, facts, m), way, known.name)
    if exercise.form == "mass" and exercise.right and abs(figure + exercise.right) <= exercise.give:
        return Diagnosis(
            "slip",
            "The figure is right; its sign is not: the difference was taken the other way round.",
            "sign",
            "sign",
        )
    if _swapped(exercise.right / KG[m.unit], figure / KG[m.unit]) and exercise.form == "mass":
        return Diagnosis(
            "slip",
            "Two digits have changed places. Read it again, digit by digit.",
            "transposed",
            "digits that changed places",
        )
    return None


def _filled(says: str, facts: Facts, m: Teller) -> str:
    return re.sub(
        r"\{(\w+)\}", lambda match: m(facts[match[1]]) if match[1] in facts else match[0], says
    )


def _swapped(right: float, figure: float) -> bool:
    a, b = str(round(right)), str(round(figure))
    return a != b and any(
        a[:place] + a[place + 1] + a[place] + a[place + 2 :] == b for place in range(len(a) - 1)
    )


_WORDS = {
    "front_h": "front axle, hitched",
    "rear_h": "rear axle, hitched",
    "trailer_h": "platform 3",
    "gross_h": "the gross",
    "front_k": "front axle, bars slack",
    "rear_k": "rear axle, bars slack",
    "trailer_k": "platform 3, bars slack",
    "gross_k": "the gross, bars slack",
    "front_s": "front axle, alone",
    "rear_s": "rear axle, alone",
    "gross_s": "the gross, alone",
    "gvwr": "{gvwr}",
    "gawr_front": "{gawr_front}",
    "gawr_rear": "{gawr_rear}",
    "gcwr": "{gcwr}",
    "tow_rating": "{tow_rating}",
    "payload": "{payload}",
    "t_gvwr": "the trailer's {trailer.gvwr}",
    "curb_weight": "{curb_weight}",
    "dry_weight": "{dry_weight}",
    "dry_tongue": "{dry_tongue}",
    "people": "people",
    "gear": "gear",
    "hitch": "the hitch",
    "t_gawr": "the trailer's axle ratings",
    "ccc": "{trailer.ccc}",
}


_LINES = ("front", "rear", "trailer", "gross")
_RATINGS = ("gvwr", "gawr_front", "gawr_rear", "gcwr", "tow_rating", "t_gvwr", "t_gawr", "payload")
_Terms = tuple[tuple[int, str], ...]


def _sums(names: Sequence[str]) -> Iterator[_Terms]:
    """What somebody would plausibly take or make of these figures, one figure first."""
    yield from (((1, name),) for name in names)
    lines = [name for name in names if name.rpartition("_")[0] in _LINES]
    ratings = [name for name in names if name in _RATINGS]
    for first, other in itertools.permutations(lines, 2):
        (line, _, ticket), (line_2, _, ticket_2) = first.rpartition("_"), other.rpartition("_")
        if ticket == ticket_2 and first < other and "gross" not in (line, line_2):
            yield (1, first), (1, other)
        if line == line_2:
            yield (1, first), (-1, other)
    for rating, line in itertools.product(ratings, lines):
        yield (1, rating), (-1, line)


def _on_papers(exercise: Exercise, m: Teller) -> list[str]:
    """Names of the figures that lie on the table: tickets, and what its papers hold."""
    shown = {line.value for paper in exercise.papers for line in paper.lines}
    return [
        name
        for name in _WORDS
        if name in exercise.facts
        and (name.rpartition("_")[0] in _LINES or m(exercise.facts[name]) in shown)
    ]


def _made_of(exercise: Exercise, figure: float, near: float, m: Teller) -> str | None:
    for terms in _sums(_on_papers(exercise, m)):
        if abs(sum(sign * exercise.facts[name] for sign, name in terms) - figure) <= near:
            words = "".join(f" {'+' if sign > 0 else '−'} {_word(name, m)}" for sign, name in terms)
            return words.removeprefix(" + ")
    return None


def _other_unit(exercise: Exercise, figure: float, m: Teller) -> bool:
    """Whether it is the right pressure in the unit that the table does not have."""
    other = exercise.right * (KPA["psi"] if m.unit == "lb" else 1 / KPA["psi"])
    return abs(figure - other) <= 0.02 * other


def _word(name: str, m: Teller) -> str:
    return re.sub(r"\{([\w.]+)\}", lambda match: m.term(match[1]), _WORDS[name])
