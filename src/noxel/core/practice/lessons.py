"""All lessons in the order of the work, and how one is opened: a yard from a seed in which every
slip can be told from every other.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from noxel.core.practice import (
    lessons_buying,
    lessons_limits,
    lessons_moving,
    lessons_tongue,
    lessons_weighing,
)
from noxel.core.practice.acts import do_act, play
from noxel.core.practice.challenge import still_over
from noxel.core.practice.diagnosis import figure_of_way
from noxel.core.practice.exercises import Exercise, Lesson, Teller
from noxel.core.practice.facts import facts_of
from noxel.core.practice.runs import Run
from noxel.core.practice.spoken import spoken
from noxel.core.practice.yard import Yard
from noxel.core.quantities import MassUnit
from noxel.core.rig import TermSet
from noxel.errors import InputError, NotFound

_ORDER = (
    "ticket",
    "platforms",
    "two-passes",
    "tongue",
    "trailer",
    "share",
    "engaged",
    "one-pass",
    "units",
    "beam",
    "lever",
    "nose-up",
    "payload",
    "gvwr",
    "percent",
    "combined",
    "link",
    "binding",
    "cannot-tell",
    "pressure",
    "bars",
    "bars-cure",
    "position",
    "water",
    "cure",
    "compare",
    "buying",
    "pin",
    "towed-car",
)
_EVERY = {
    lesson.id: lesson
    for room in (lessons_weighing, lessons_limits, lessons_tongue, lessons_moving, lessons_buying)
    for lesson in room.LESSONS
}
LESSONS: Mapping[str, Lesson] = {name: _EVERY[name] for name in _ORDER}
"""Every lesson by its id."""
_VARIANTS = 40


@dataclass(frozen=True, slots=True)
class Missing:
    """The question cannot be answered yet: what has to be done in the yard first."""

    question: str
    needs: str


def lesson_of(name: str) -> Lesson:
    """A lesson by its id.

    Raises NotFound if there is none of that name.
    """
    if name not in LESSONS:
        raise NotFound(f"There is no lesson “{name[:40]}”.")
    return LESSONS[name]


def _start(lesson: Lesson, run: Run) -> Yard:
    yard = play(run)
    for act in lesson.preset:
        yard = do_act(yard, act)
    for act in lesson.extra(yard) if lesson.extra else ():
        yard = do_act(yard, act)
    return yard


def solution_of(lesson: Lesson, yard: Yard) -> tuple[str, ...]:
    """What the reader has to do in the yard before the question can be answered rightly."""
    return lessons_moving.cure_acts(yard) if lesson.id == "cure" else lesson.solution


def exercise_of(lesson: Lesson, yard: Yard) -> Exercise | Missing:
    """The question about the yard as it stands, or what has to be done in it first."""
    rig = yard.rig
    try:
        return spoken(lesson.build(yard, facts_of(yard), Teller(rig)), rig)
    except KeyError as exc:
        name = str(exc.args[0]) if exc.args else ""
        needs = _NEEDS.get(name, "Something has still to be weighed.")
        return spoken(Missing(question_of(lesson.id), needs), rig)


_NEEDS = {
    "front_s": "Weigh the vehicle alone first: set the chocks, slacken the bars, uncouple, then "
    "drive on.",
    "tongue:scale": "Lower the coupler to towing height, then measure the tongue again.",
    "ticket:hitched": "Weigh the rig again, hitched.",
}


@lru_cache(64)
def question_of(name: str) -> str:
    """What a lesson asks, before it can be asked of the yard at hand."""
    lesson = lesson_of(name)
    exercise = exercise_of(lesson, solved(lesson, open_lesson(name, "1")))
    return exercise.question


def told_apart(exercise: Exercise) -> bool:
    """Whether every slip leads to a figure of its own, apart from the right one."""
    if exercise.form in ("choice", "done"):
        return True
    near = [exercise.right]
    for way in exercise.ways:
        figure = figure_of_way(exercise, way)
        if figure is None or any(
            abs(figure - figure_near) <= 2.5 * exercise.give for figure_near in near
        ):
            return False
        near.append(figure)
    return exercise.right > 3 * exercise.give


def open_lesson(
    name: str, seed: str, unit: MassUnit = "lb", terms: TermSet = "north_america"
) -> Yard:
    """The yard in which a lesson begins: the first rig drawn from the seed in which every slip can
    be told apart.

    Raises NotFound if there is no such lesson; InputError if the seed is none.
    """
    lesson = lesson_of(name)
    first: Yard | None = None
    for variant in range(_VARIANTS):
        run = Run(
            lesson.kind,
            unit,
            terms,
            lesson.over,
            seed if variant == 0 else f"{seed[:36]}-{variant}",
        )
        yard = _start(lesson, run)
        first = first or yard
        try:
            solved_yard = solved(lesson, yard)
            exercise = exercise_of(lesson, solved_yard)
        except InputError:
            continue
        if (
            isinstance(exercise, Exercise)
            and told_apart(exercise)
            and (exercise.form != "done" or not still_over(solved_yard))
        ):
            return yard
    if first is None:
        raise NotFound(f"No rig could be made for the lesson “{name}”. Try another seed.")
    return first


def solved(lesson: Lesson, yard: Yard) -> Yard:
    """The yard after the reader did what the lesson asks for.

    Raises InputError if an act of it is refused, which no lesson's own yard does.
    """
    for act in solution_of(lesson, yard):
        yard = do_act(yard, act)
    return yard


@lru_cache(64)
def slips_of(name: str) -> tuple[str, ...]:
    """The codes of the slips that a lesson can answer by name."""
    lesson = lesson_of(name)
    exercise = exercise_of(lesson, solved(lesson, open_lesson(name, "1")))
    if isinstance(exercise, Missing):
        return ()
    return (*exercise.ways, *dict.fromkeys(option.way for option in exercise.options if option.way))
