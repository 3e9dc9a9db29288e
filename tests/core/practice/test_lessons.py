"""Lessons: each solved rightly and in every named wrong way, on several rigs, units and terms.

Expected figures are the lesson's own tickets added up here by hand where a lesson is a sum; slips
are computed here from the tickets, not by the table under test.
"""

import itertools
import unittest

from hypothesis import given
from hypothesis import strategies as st

from noxel.core.practice import (
    LESSONS,
    UNITS,
    WAYS,
    Exercise,
    Missing,
    Teller,
    Yard,
    exercise_of,
    lesson_view,
    open_lesson,
    reply_to,
    solved,
)
from noxel.core.practice.diagnosis import diagnose, figure_of_way
from noxel.core.quantities import KG, MassUnit
from noxel.core.rig import TermSet
from noxel.errors import NotFound

PLACES: tuple[tuple[MassUnit, TermSet], ...] = (
    ("lb", "north_america"),
    ("kg", "europe"),
    ("kg", "australia"),
)


def typed(exercise: Exercise, figure: float, unit: MassUnit) -> str:
    """A figure as a reader types it."""
    if exercise.form == "share":
        return f"{figure * 100:.2f} %"
    return f"{figure:g}" if exercise.form == "pressure" else f"{figure / KG[unit]:,.1f}"


def opened(
    name: str, seed: str, unit: MassUnit = "lb", terms: TermSet = "north_america"
) -> tuple[Yard, Exercise]:
    yard = solved(LESSONS[name], open_lesson(name, seed, unit, terms))
    exercise = exercise_of(LESSONS[name], yard)
    if isinstance(exercise, Missing):
        raise AssertionError(exercise.needs)
    return yard, exercise


class EveryLesson(unittest.TestCase):
    def test_played_rightly_and_erring_in_every_named_way(self) -> None:
        told = 0
        for name, (unit, terms), seed in itertools.product(
            LESSONS, PLACES, ("1", "2026-11-25", "q")
        ):
            with self.subTest(name, unit=unit, terms=terms, seed=seed):
                yard, exercise = opened(name, seed, unit, terms)
                m = Teller(yard.rig)
                if exercise.form == "done":
                    self.assertTrue(reply_to(exercise, yard, "").right)
                    self.assertFalse(
                        reply_to(exercise, open_lesson(name, seed, unit, terms), "").right
                    )
                    continue
                if exercise.form == "choice":
                    for option in exercise.options:
                        found = diagnose(exercise, option.code, m)
                        self.assertEqual(found.right, option.code == exercise.choice)
                        self.assertTrue(found.says)
                    continue
                self.assertTrue(diagnose(exercise, typed(exercise, exercise.right, unit), m).right)
                self.assertTrue(
                    exercise.ways and exercise.hints and exercise.working and exercise.because
                )
                for way in exercise.ways:
                    figure = figure_of_way(exercise, way)
                    self.assertIsNotNone(figure, way)
                    found = diagnose(exercise, typed(exercise, figure or 0.0, unit), m)
                    self.assertEqual((found.found, found.way), ("slip", way))
                    self.assertNotIn("{", found.says)
                    told += 1
        self.assertGreater(told, 700)

    def test_the_figures_are_those_of_the_tickets(self) -> None:
        units: tuple[MassUnit, ...] = ("lb", "kg")
        for unit in units:
            for name in ("trailer", "tongue", "two-passes"):
                yard, exercise = opened(name, "5", unit)
                hitched = next(each for each in yard.tickets if each.config == "hitched")
                alone = next(each for each in yard.tickets if each.config == "vehicle_only")
                vehicle = hitched.readings["front"] + hitched.readings["rear"]
                right = {
                    "trailer": hitched.gross - alone.gross,
                    "tongue": vehicle - alone.gross,
                    "two-passes": alone.gross,
                }[name]
                self.assertAlmostEqual(exercise.right / KG[unit], right, 6)
                slips = {
                    "tongue_left_out": hitched.readings["trailer"],
                    "tongue_twice": hitched.gross - alone.gross + vehicle - alone.gross,
                    "rear_gain": hitched.readings["rear"] - alone.readings["rear"],
                    "still_hitched": vehicle,
                }
                for way in set(slips) & set(exercise.ways):
                    self.assertAlmostEqual(
                        (figure_of_way(exercise, way) or 0) / KG[unit], slips[way], 6
                    )

    def test_nine_in_ten_plausible_wrong_answers_are_explained(self) -> None:
        """Plausible: any sum or difference of two figures in sight, digits changed, units changed,
        a digit too many, off by one line.
        """
        told, every = 0, 0
        for name in LESSONS:
            yard, exercise = opened(name, "11")
            if exercise.form != "mass":
                continue
            shown = [
                exercise.facts[key]
                for key in (
                    "front_h",
                    "rear_h",
                    "trailer_h",
                    "gross_h",
                    "front_s",
                    "rear_s",
                    "gvwr",
                    "t_gvwr",
                    "payload",
                    "gcwr",
                    "tow_rating",
                )
                if key in exercise.facts
            ]
            wrong = [a + sign * b for a, b in itertools.combinations(shown, 2) for sign in (1, -1)]
            wrong += [
                *shown,
                exercise.right * 10,
                exercise.right / 10,
                exercise.right * KG["lb"],
                exercise.right / KG["lb"],
                -exercise.right,
            ]
            digits = str(round(exercise.right / KG["lb"]))
            wrong += [
                int(digits[:at] + digits[at + 1] + digits[at] + digits[at + 2 :]) * KG["lb"]
                for at in range(len(digits) - 1)
            ]
            for figure in wrong:
                found = diagnose(exercise, typed(exercise, figure, "lb"), Teller(yard.rig))
                if not found.right:
                    every, told = every + 1, told + (found.found in ("slip", "made_of"))
        self.assertGreater(every, 1500)
        self.assertGreater(told / every, 0.9)

    @given(st.text(max_size=300), st.sampled_from([name for name in LESSONS if name != "cure"]))
    def test_any_text_is_an_answer(self, text: str, name: str) -> None:
        yard, exercise = opened(name, "1")
        if exercise.form != "choice":
            self.assertTrue(diagnose(exercise, text, Teller(yard.rig)).says)

    def test_words_that_are_no_figure_and_figures_with_units(self) -> None:
        yard, exercise = opened("trailer", "1")
        m = Teller(yard.rig)
        for text in ("", "about three thousand", "nan", "1e5", "9" * 400, "=1+1", "3,1,0"):
            self.assertEqual(diagnose(exercise, text, m).found, "unread", text)
        for text in (
            f"{exercise.right:.1f} kg",
            f"{exercise.right / KG['lb']:,.0f} lb",
            f"{exercise.right / KG['lb'] - 100:.0f}+100",
        ):
            self.assertTrue(diagnose(exercise, text, m).right, text)

    def test_hints_come_one_by_one_and_the_truth_last(self) -> None:
        yard = open_lesson("trailer", "1")
        for hints in range(3):
            seen = lesson_view("trailer", yard, hints=hints)
            self.assertEqual((len(seen.hints), seen.working, seen.yard.truth), (hints, [], None))
        wrong = lesson_view("trailer", yard, answer="1")
        self.assertEqual(
            (wrong.reply.right if wrong.reply else None, wrong.yard.truth), (False, None)
        )
        shown = lesson_view("trailer", yard, show=True)
        self.assertTrue(shown.working and shown.yard.truth and shown.because)

    def test_what_is_not_weighed_yet_is_asked_for(self) -> None:
        found = exercise_of(LESSONS["two-passes"], open_lesson("two-passes", "1"))
        self.assertIsInstance(found, Missing)
        with self.assertRaises(NotFound):
            open_lesson("no such lesson", "1")

    def test_every_slip_has_a_lesson(self) -> None:
        asked = {way for name in LESSONS for way in opened(name, "1")[1].ways}
        self.assertEqual(
            {way for way in (*WAYS, *UNITS) if way not in asked}
            - {"digit_lost", "as_kg", "as_lb", "solo_over", "gross_shared"},
            set(),
        )
