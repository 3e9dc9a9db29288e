"""Lessons: each solved rightly and in every named wrong way, on several rigs, units and terms.

Expected figures are the lesson's own tickets added up here by hand where a lesson is a sum; slips
are computed here from the tickets, not by the table under test.
"""

import itertools
import random
import re
import unittest
from collections.abc import Callable

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
from noxel.core.practice.facts import Facts
from noxel.core.quantities import KG, MassUnit
from noxel.core.rig import TermSet
from noxel.errors import NotFound
from tests import some

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


def _opened_once(name: str) -> tuple[Yard, Exercise]:
    return opened(name, "11")


def _alone(f: Facts) -> float:
    return f["front_s"] + f["rear_s"]


def _net(f: Facts) -> float:
    return f["front_h"] + f["rear_h"] - _alone(f)


def _other_limit(f: Facts, way: str) -> float:
    """The limit that somebody took for the one asked for: the tow rating, or what is left of it."""
    return f["tow_rating"] - (f["gross_h"] - _alone(f) if way == "tow_room" else 0.0)


CLAIMS: tuple[tuple[str, Callable[[Facts, str], bool]], ...] = (
    ("asked for ends sooner", lambda f, way: f["right"] < _other_limit(f, way)),
    ("asked for ends later", lambda f, way: f["right"] >= _other_limit(f, way)),
    ("ends sooner than the tow rating", lambda f, _: f["right"] < f["tow_rating"]),
    ("tow rating ends sooner still", lambda f, _: f["right"] > f["tow_rating"]),
    (
        "Both axles are within",
        lambda f, _: f["front_h"] <= f["gawr_front"] and f["rear_h"] <= f["gawr_rear"],
    ),
    ("It is lower here", lambda f, _: f["gcwr"] < f["gvwr"] + f["tow_rating"]),
    ("is often lower|holds only for|does not share|ten per cent more", lambda _f, _w: True),
    (
        "That is the largest margin",
        lambda f, _: (
            max(
                f["gawr_front"] - f["front_h"],
                f["gawr_rear"] - f["rear_h"],
                f["gvwr"] - f["front_h"] - f["rear_h"],
                f["gcwr"] - f["gross_h"],
            )
            > f["right"]
        ),
    ),
    ("further out, feels less", lambda f, _: f["span"] > f["support"]),
    (
        "The rear axle lost",
        lambda f, _: 0 < f["front_h"] - f["front_k"] < f["rear_k"] - f["rear_h"],
    ),
    ("the rear axle lost", lambda f, _: f["rear_k"] > f["rear_h"]),
    (
        "[Bb]ars had carried",
        lambda f, _: (
            f["trailer_h"] > f["trailer_k"]
            and f["front_k"] + f["rear_k"] > f["front_h"] + f["rear_h"]
        ),
    ),
    ("with slack bars", lambda f, _: f["rear_k"] > f["rear_s"]),
    ("lost or gained|on that axle's line", lambda _f, _w: True),
    ("rear axle gained", lambda f, _: f["rear_h"] > f["rear_s"]),
    ("front axle lost some", lambda f, _: f["front_h"] < f["front_s"]),
    ("What the \\w+ gained", lambda f, _: _net(f) > 0),
    ("weakest (link|part)", lambda f, _: f["right"] < f["strongest_tongue"]),
    ("strongest part|weakest one breaks", lambda f, _: f["right"] < f["strongest_tongue"]),
    ("tilt the trailer", lambda f, _: f["first"] > f["second"]),
    ("on the scale it is heavier", lambda f, _: _alone(f) > f["curb_weight"]),
    ("It carries more", lambda f, _: _net(f) > 0.13 * f["t_gvwr"]),
    ("Back makes the tongue weight smaller", lambda f, _: f["right"] < f["tongue"]),
    ("This axle carries more", lambda f, _: f["placard"] < f["right"]),
    ("row carries less", lambda f, _: f["row_below"] < f["right"]),
    ("most that the tire takes", lambda f, _: f["most"] > f["right"]),
    ("carried only a part|carried a part", lambda f, _: 0 < f["right"] < f["m"]),
    ("axles carried most", lambda f, _: f["right"] < 0.5 * f["m"]),
    ("tongue carried most", lambda f, _: f["right"] >= 0.5 * f["m"]),
    ("once more on top", lambda f, _: _net(f) > 0),
)
"""Sentences that compare, and when they are so. [kg]"""


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
                        diagnosis = diagnose(exercise, option.code, m)
                        self.assertEqual(diagnosis.right, option.code == exercise.choice)
                        self.assertTrue(diagnosis.says)
                    continue
                self.assertTrue(diagnose(exercise, typed(exercise, exercise.right, unit), m).right)
                self.assertTrue(
                    exercise.ways and exercise.hints and exercise.working and exercise.because
                )
                for way in exercise.ways:
                    figure = figure_of_way(exercise, way)
                    self.assertIsNotNone(figure, way)
                    diagnosis = diagnose(exercise, typed(exercise, figure or 0.0, unit), m)
                    self.assertEqual((diagnosis.found, diagnosis.way), ("slip", way))
                    self.assertNotIn("{", diagnosis.says)
                    told += 1
        self.assertGreater(told, 700)

    def test_the_figures_are_those_of_the_tickets(self) -> None:
        units: tuple[MassUnit, ...] = ("lb", "kg")
        for unit in units:
            for name in ("trailer", "tongue", "two-passes"):
                yard, exercise = opened(name, "5", unit)
                hitched = next(ticket for ticket in yard.tickets if ticket.config == "hitched")
                alone = next(ticket for ticket in yard.tickets if ticket.config == "vehicle_only")
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

    def test_what_is_said_of_a_slip_is_so_on_this_rig(self) -> None:
        """Every sentence that compares, against the yard's own tickets and labels; one that is not
        listed here fails.
        """
        compared = re.compile(
            r"\b(sooner|later|heavier|lighter|smaller|lower|more|less|most|lost|gained|"
            r"carried|largest|strongest|weakest|within)\b"
        )
        told = 0
        for name, seed in itertools.product(LESSONS, range(some(25))):
            yard, exercise = opened(name, f"said{seed}")
            if exercise.form in ("choice", "done"):
                continue
            facts = {**exercise.facts, "right": exercise.right}
            texts = {way: self.said(exercise, way, yard) for way in exercise.ways if way in WAYS}
            texts["because"] = exercise.because
            for way, text in texts.items():
                for sentence in re.split(r"(?<=[.:]) ", text):
                    if not compared.search(sentence):
                        continue
                    claims = [true for words, true in CLAIMS if re.search(words, sentence)]
                    self.assertTrue(claims, f"{name} {way}: {sentence}")
                    self.assertTrue(claims[0](facts, way), f"{name} {seed} {way}: {sentence}")
                    told += 1
        self.assertGreater(told, some(25) * 20)

    def said(self, exercise: Exercise, way: str, yard: Yard) -> str:
        figure = figure_of_way(exercise, way)
        unit = yard.rig.units.mass
        return diagnose(exercise, typed(exercise, figure or 0.0, unit), Teller(yard.rig)).says

    def test_plausible_wrong_answers_are_explained_and_chance_ones_are_not(self) -> None:
        """Plausible: two lines of a ticket, a line of two tickets, a rating on the papers less a
        load, digits changed, units changed, a digit too many, off by one line.
        """
        told = every = chance = 0
        for name in LESSONS:
            yard, exercise = opened(name, "11")
            if exercise.form != "mass":
                continue
            f, m = exercise.facts, Teller(yard.rig)
            shown = {line.value for paper in exercise.papers for line in paper.lines}
            rated = [
                f[key] for key in ("gvwr", "gcwr", "t_gvwr") if key in f and m(f[key]) in shown
            ]
            lines = [f[key] for key in ("front_h", "rear_h", "trailer_h") if key in f]
            wrong = [a + b for a, b in itertools.combinations(lines, 2)]
            wrong += [
                f[f"{key}_h"] - f[f"{key}_s"]
                for key in ("front", "rear")
                if {f"{key}_s", f"{key}_h"} <= set(f)
            ]
            wrong += [rating - line for rating, line in itertools.product(rated, lines)]
            wrong += [*lines, *rated, -exercise.right]
            wrong += [exercise.right * by for by in (10, 0.1, KG["lb"], 1 / KG["lb"])]
            digits = str(round(exercise.right / KG["lb"]))
            wrong += [
                int(digits[:index] + digits[index + 1] + digits[index] + digits[index + 2 :])
                * KG["lb"]
                for index in range(len(digits) - 1)
                if digits[index] != digits[index + 1]
            ]
            for figure in wrong:
                if abs(figure - exercise.right) > 0.02 * exercise.right:
                    diagnosis = diagnose(exercise, typed(exercise, figure, "lb"), m)
                    every, told = every + 1, told + (diagnosis.found in ("slip", "made_of"))
            dice = random.Random(name)
            for _ in range(200):
                figure = exercise.right * dice.uniform(0.3, 2.0)
                diagnosis = diagnose(exercise, typed(exercise, figure, "lb"), m)
                chance += diagnosis.found in ("slip", "made_of")
        self.assertGreater(every, 250)
        self.assertGreater(told / every, 0.95)
        asked = sum(exercise.form == "mass" for _, exercise in map(_opened_once, LESSONS))
        self.assertLess(chance / (200 * asked), 0.05)

    def test_a_share_and_a_pressure_in_any_dress(self) -> None:
        yard, exercise = opened("share", "1")
        m, share = Teller(yard.rig), exercise.right
        for text in (
            f"{share:.4f}",
            f"{share * 100:.1f}",
            f"{share * 100:.1f} %",
            f"{share * 100:.1f} per cent",
            f"{share * 100:.1f}".replace(".", ","),
            f"{share * 100:.0f} %",
        ):
            self.assertTrue(diagnose(exercise, text, m).right, text)
        yard, exercise = opened("pressure", "1")
        kpa = f"{exercise.right * 6.894757:.0f}"  # 1 psi is 6.894757 kPa
        for text in (kpa, f"{kpa} kPa"):
            self.assertEqual(diagnose(exercise, text, Teller(yard.rig)).way, "pressure_unit", text)
        rows = set()
        for seed in range(12):
            _, exercise = opened("pressure", f"row{seed}")
            table = [line.label for line in exercise.papers[0].lines]
            rows.add(table.index(f"{exercise.right:g}"))
        self.assertGreater(len(rows), 2)

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
