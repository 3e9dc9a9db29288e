"""The labels: what contradicts what, what follows from what, what to see to before driving."""

from noxel.core.plates.contradictions import contradictions
from noxel.core.plates.guides import LONGEST_GUIDE, GuideRow, look_up, read_guide
from noxel.core.plates.plates import PlatesAnswer, evaluate_plates
from noxel.core.plates.schools import CUSHIONS, SHARES, CushionSchool, ShareSchool
from noxel.core.plates.short_path import Door, PathStep, short_path
from noxel.core.plates.summary import Fact, describe
from noxel.core.plates.tables import LONGEST_TABLE, read_table

__all__ = [
    "CUSHIONS",
    "LONGEST_GUIDE",
    "LONGEST_TABLE",
    "SHARES",
    "CushionSchool",
    "Door",
    "Fact",
    "GuideRow",
    "PathStep",
    "PlatesAnswer",
    "ShareSchool",
    "contradictions",
    "describe",
    "evaluate_plates",
    "look_up",
    "read_guide",
    "read_table",
    "short_path",
]
