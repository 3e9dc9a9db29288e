"""The labels: what contradicts what, what follows from what, what to see to before driving."""

from noxel.core.plates.contradictions import contradictions
from noxel.core.plates.plates import PlatesAnswer, evaluate_plates
from noxel.core.plates.schools import CUSHIONS, SHARES, CushionSchool, ShareSchool
from noxel.core.plates.summary import Fact, describe

__all__ = [
    "CUSHIONS",
    "SHARES",
    "CushionSchool",
    "Fact",
    "PlatesAnswer",
    "ShareSchool",
    "contradictions",
    "describe",
    "evaluate_plates",
]
