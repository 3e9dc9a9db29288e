"""The practice yard: rigs whose true loads are known, a scale, and lessons that name the mistake
behind a wrong figure.
"""

from noxel.core.practice.acts import do_act, play
from noxel.core.practice.challenge import Word
from noxel.core.practice.diagnosis import figure_of_way
from noxel.core.practice.exercises import Exercise, Lesson, Paper, Teller
from noxel.core.practice.lessons import (
    LESSONS,
    Missing,
    exercise_of,
    lesson_of,
    open_lesson,
    slips_of,
    solution_of,
    solved,
)
from noxel.core.practice.replies import ChallengeOut, LessonLine, LessonOut, YardOut
from noxel.core.practice.runs import Run, read_run
from noxel.core.practice.schedule import INTERVALS, Card, after
from noxel.core.practice.spoken import spoken
from noxel.core.practice.true_loads import graduate, true_loads
from noxel.core.practice.views import (
    act_in,
    challenge_view,
    lesson_lines,
    lesson_view,
    reply_to,
    yard_view,
)
from noxel.core.practice.ways_to_err import UNITS, WAYS
from noxel.core.practice.yard import Ticket, Yard, begin

__all__ = [
    "INTERVALS",
    "LESSONS",
    "UNITS",
    "WAYS",
    "Card",
    "ChallengeOut",
    "Exercise",
    "Lesson",
    "LessonLine",
    "LessonOut",
    "Missing",
    "Paper",
    "Run",
    "Teller",
    "Ticket",
    "Word",
    "Yard",
    "YardOut",
    "act_in",
    "after",
    "begin",
    "challenge_view",
    "do_act",
    "exercise_of",
    "figure_of_way",
    "graduate",
    "lesson_lines",
    "lesson_of",
    "lesson_view",
    "open_lesson",
    "play",
    "read_run",
    "reply_to",
    "slips_of",
    "solution_of",
    "solved",
    "spoken",
    "true_loads",
    "yard_view",
]
