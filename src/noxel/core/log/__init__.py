"""Weigh-ins over time: the log, comparisons, kept plans, reminders."""

from noxel.core.log.compare import Comparison, WeighInRef, compare_weigh_ins
from noxel.core.log.fees import spent
from noxel.core.log.kept_plans import KeptAnswer, kept_answers
from noxel.core.log.logbook import (
    Chart,
    Facts,
    Log,
    Recorded,
    Rejudged,
    chart_of,
    facts_of,
    line_of,
    merge_weigh_ins,
    words_of,
)
from noxel.core.log.reminders import Reminder, changed_since, months_after, reminders

__all__ = [
    "Chart",
    "Comparison",
    "Facts",
    "KeptAnswer",
    "Log",
    "Recorded",
    "Rejudged",
    "Reminder",
    "WeighInRef",
    "changed_since",
    "chart_of",
    "compare_weigh_ins",
    "facts_of",
    "kept_answers",
    "line_of",
    "merge_weigh_ins",
    "months_after",
    "reminders",
    "spent",
    "words_of",
]
