"""Every lesson, act and challenge of the yard as a reader meets it: figures, minutes, prices and
sentences, kept and read through by a person.
"""

import itertools
import unittest
from collections.abc import Iterator
from typing import Any

from pydantic_core import to_jsonable_python

from noxel.core.practice import (
    LESSONS,
    UNITS,
    WAYS,
    Exercise,
    Missing,
    Run,
    Teller,
    Word,
    Yard,
    act_in,
    begin,
    challenge_view,
    do_act,
    exercise_of,
    lesson_view,
    open_lesson,
    read_run,
    solution_of,
    solved,
    yard_view,
)
from noxel.core.practice.diagnosis import diagnose, figure_of_way
from noxel.core.quantities import KG, MassUnit
from noxel.core.rig import TermSet
from tests.core.practice.test_lessons import typed
from tests.core.practice.test_yard import KINDS, perfect
from tests.core.wording.test_golden import LEAK
from tests.kept import as_kept, texts_of

PLACES: tuple[tuple[MassUnit, TermSet], ...] = (("lb", "north_america"), ("kg", "europe"))
LEFT_OUT = ("geometry", "run", "index", "acts", "things")


def _replies(exercise: Exercise, yard: Yard, unit: MassUnit) -> Iterator[str]:
    """What is said to the right answer, to every slip, to a wrong choice, to nonsense."""
    m = Teller(yard.rig)
    if exercise.form == "choice":
        for option in exercise.options:
            yield f"{option.code}: {diagnose(exercise, option.code, m).says}"
    elif exercise.form != "done":
        yield typed(exercise, exercise.right, unit)
        for way in exercise.ways:
            text = typed(exercise, figure_of_way(exercise, way) or 0.0, unit)
            yield f"{way} {text}: {diagnose(exercise, text, m).says}"
        text = typed(exercise, exercise.right * 3.7 + 11 * KG[unit], unit)
        yield f"{text}: {diagnose(exercise, text, m).says}"


def _lesson(name: str, unit: MassUnit, terms: TermSet) -> dict[str, Any]:
    lesson, yard = LESSONS[name], open_lesson(name, "7", unit, terms)
    solved_yard = solved(lesson, yard)
    exercise = exercise_of(lesson, solved_yard)
    return {
        "opened": lesson_view(name, yard).model_dump(exclude={"yard"}),
        "solution": " ".join(solution_of(lesson, yard)),
        "shown": lesson_view(name, solved_yard, show=True),
        "replies": []
        if isinstance(exercise, Missing)
        else list(_replies(exercise, solved_yard, unit)),
    }


def _tried(yard: Yard, act: str) -> tuple[Yard, str]:
    """One act: the time, the price and what is said, or why it is refused."""
    made, view = act_in(yard, act)
    if view.refused:
        return yard, f"{act}: refused. {view.refused}"
    took, paid = made.minutes - yard.minutes, made.spent - yard.spent
    return made, f"{act}: {took} min, {paid} spent. {made.said}"


WAY = (
    *("wait", "on", "off", "on", "ask", "wait", "uncouple", "off", "slack", "chock", "slack"),
    *("unchock", "on", "ask", "wait", "off", "engage", "chock", "engage", "out:1", "in:1"),
    *("uncouple", "slack", "uncouple"),
    *("tongue:scale", "tongue:mount", "tongue:mount", "tongue:beam", "tongue:lever", "ball:5"),
    *("on", "ask", "wait", "off", "couple", "engage", "unchock", "go", "on"),
)


def _every_act(kind: str) -> list[str]:
    """What every act that is offered comes to along one way through the yard, each once."""
    yard, lines = begin(read_run(f"yard1/{kind}.lb.north_america/7/")), list[str]()
    for act in WAY:
        offers = (f"  {_tried(yard, offer.act)[1]}" for offer in yard_view(yard).acts)
        lines += [line for line in offers if line not in lines]
        yard, tried = _tried(yard, act)
        lines.append(tried)
    return lines


class GoldenPractice(unittest.TestCase):
    maxDiff = 3000

    def test_every_lesson(self) -> None:
        for number, name in enumerate(LESSONS):
            for place, (unit, terms) in enumerate(PLACES):
                with self.subTest(name, unit=unit):
                    lesson = _lesson(name, unit, terms)
                    if number % 7 == 3 * place:  # enough of each place to read
                        as_kept(self, f"practice/{name}.{unit}", lesson, LEFT_OUT)

    def test_every_way_to_err(self) -> None:
        """What each slip comes to, in the first lesson whose papers hold what it takes."""
        lines = {}
        for name, place in itertools.product(LESSONS, PLACES):
            solved_yard = solved(LESSONS[name], open_lesson(name, "7", *place))
            exercise = exercise_of(LESSONS[name], solved_yard)
            if not isinstance(exercise, Missing):
                for way in {**WAYS, **UNITS}:
                    figure = figure_of_way(exercise, way)
                    if figure is not None and way not in lines:
                        lines[way] = f"{way} ({name}): {figure:.5g}"
        self.assertEqual({*WAYS, *UNITS} - {*lines}, set())
        as_kept(self, "practice/ways", list(lines.values()))

    def test_every_act(self) -> None:
        for kind in KINDS:
            with self.subTest(kind):
                acts = _every_act(kind)
                if kind == "bars":
                    as_kept(self, f"practice/acts-{kind}", acts)

    def test_tickets_and_traps(self) -> None:
        """The tickets of twelve challenges as they are handed out, misprints and strangers' tickets
        among them.
        """
        lines, traps = list[str](), set[str]()
        for seed, (unit, terms) in itertools.product(range(6), PLACES):
            run = Run(difficulty=3, seed=str(seed), unit=unit, terms=terms)
            yard, _ = perfect(begin(run))
            traps.update(yard.traps)
            lines.append(f"{run}: {' '.join(sorted(yard.traps))} {yard.minutes} min")
            lines += [
                f"  {ticket.number} {ticket.readings} {ticket.trap}" for ticket in yard.tickets
            ]
        self.assertEqual(traps, {"typo", "other_ticket", "stepped_out"})
        as_kept(self, "practice/tickets", lines)

    def test_moving_things(self) -> None:
        """Where an item may be moved to, and what each move says."""
        for unit, terms in PLACES:
            yard = begin(Run(kind="caravan", seed="7", unit=unit, terms=terms))
            lines = []
            for index in range(len(yard.rig.loads)):
                for act in ("move:{}:40", "move:{}:-70", "move:{}:-250", "move:{}:9000"):
                    lines.append(_tried(yard, act.format(index))[1])
                lines.append(_tried(yard, f"swap:{index}:150")[1])
            as_kept(self, f"practice/moves.{unit}", lines)

    def test_no_word_of_one_place_in_the_yard_of_another(self) -> None:
        for terms in ("europe", "australia"):
            lines: list[Any] = []
            for kind in KINDS:
                yard = begin(Run(kind=kind, seed="7", unit="kg", terms=terms))
                for act in WAY:
                    yard, view = act_in(yard, act)
                    lines.append(view)
            for name in LESSONS:
                yard = open_lesson(name, "7", "kg", terms)
                lines += [lesson_view(name, yard), lesson_view(name, solved(LESSONS[name], yard))]
                lines.append(lesson_view(name, solved(LESSONS[name], yard), show=True))
            yard, words = perfect(begin(Run(difficulty=2, unit="kg", terms=terms)))
            lines.append(challenge_view(yard, words, cured=True))
            for text in texts_of(to_jsonable_python(lines, serialize_unknown=True)):
                self.assertIsNone(LEAK.search(text) if " " in text else None, text)

    def test_challenges(self) -> None:
        yard, words = perfect(begin(Run(difficulty=3, seed="golden")))
        wrong: dict[str, Word] = dict.fromkeys(words, "within")
        answers = {
            "judged": challenge_view(yard, words),
            "guessed": challenge_view(yard, wrong, cured=True).judged,
            "cured": challenge_view(do_act(yard, "couple"), cured=True).still_over,
        }
        as_kept(self, "practice/challenge", answers, LEFT_OUT)


if __name__ == "__main__":
    unittest.main()
