"""What is wrong with an answer: by the slip that leads to it, by the figures it is made of, or by
how far off it is.

A right figure is right to within its rounding. A wrong one is compared with every slip of the
lesson, then with slips of unit and digit, then with every sum and difference of up to three figures
on the papers. What none of them explains is said to be unexplained.
"""

import itertools
import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from noxel.core.practice.exercises import Exercise, Teller
from noxel.core.practice.facts import Facts
from noxel.core.practice.ways_to_err import UNITS, WAYS
from noxel.core.quantities import KG, Dimension, read_mass, read_typed
from noxel.errors import InputError, Problem, QuantityError

LONGEST = 200
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

    Raises
    ------
    QuantityError
        If it is no figure of that kind.
    """
    if len(text) > LONGEST:
        raise QuantityError("that is longer than any figure")
    text = re.sub(r"(?i)\s*(psi|kpa)\s*$", "", text) if exercise.form == "pressure" else text
    if exercise.form == "share" and not re.search(r"%", text):
        text = f"{text} %"
    dimension: Dimension = {"mass": "mass", "share": "share"}.get(exercise.form, "number")  # type: ignore[assignment]
    value = read_typed(text, dimension, m.unit if dimension == "mass" else None).value
    if dimension == "mass":
        return read_mass(value) if isinstance(value, str) else value * KG[m.unit]
    if isinstance(value, str):
        raise QuantityError(f"“{text}” is not a number")
    return float(value)


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
    made = _made_of(exercise.facts, figure, near, m) if exercise.form == "mass" else None
    if abs(figure - exercise.right) <= 4 * near and made is None:
        return Diagnosis(
            "close",
            "Close: a slip in the sum, or rounded too early. Write it down line by line.",
            "rounding",
            "rounded",
        )
    if made is not None:
        return Diagnosis(
            "made_of",
            f"Your figure is {made}. That answers another question.",
            "made_of",
            "figures put together differently",
        )
    return Diagnosis(
        "unexplained",
        "No usual way leads to that figure from these papers. Look at the first hint, and write "
        "the sum down line by line.",
    )


def _chosen(exercise: Exercise, code: str) -> Diagnosis:
    option = next((each for each in exercise.options if each.code == code), None)
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
        known = WAYS[way]
        return Diagnosis("slip", _filled(known.says, exercise.facts, m), way, known.name)
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


def _swapped(right: float, given: float) -> bool:
    a, b = str(round(right)), str(round(given))
    return a != b and any(a[:at] + a[at + 1] + a[at] + a[at + 2 :] == b for at in range(len(a) - 1))


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


def _sums(facts: Facts) -> Iterator[tuple[float, tuple[tuple[int, str], ...]]]:
    """Every figure, sum and difference of up to three figures; fewer figures first."""
    names = [name for name in _WORDS if name in facts]
    for count in (1, 2, 3):
        for chosen in itertools.combinations(names, count):
            for signs in itertools.product((1, -1), repeat=count):
                if max(signs) > 0:
                    yield (
                        sum(sign * facts[name] for sign, name in zip(signs, chosen, strict=True)),
                        tuple(zip(signs, chosen, strict=True)),
                    )


def _made_of(facts: Facts, figure: float, near: float, m: Teller) -> str | None:
    for value, terms in _sums(facts):
        if abs(value - figure) <= near:
            ordered = sorted(terms, key=lambda term: -term[0])
            said = "".join(
                f" {'+' if sign > 0 else '−'} {_word(name, m)}" for sign, name in ordered
            )
            return said.removeprefix(" + ")
    return None


def _word(name: str, m: Teller) -> str:
    return re.sub(r"\{([\w.]+)\}", lambda match: m.term(match[1]), _WORDS[name])
