"""At the scale: which passes to drive, what each settles, which mistakes to look for, a ticket put
in its place.
"""

from noxel.core.weigh.advisories import advise
from noxel.core.weigh.jotted import Jotted, add_jotted
from noxel.core.weigh.passes import (
    GRADUATIONS,
    ScaleKind,
    new_weigh_in,
    pass_answers,
    pass_title,
    plan,
    plan_passes,
    scales_for,
)
from noxel.core.weigh.visit import VisitStep, visit_steps

__all__ = [
    "GRADUATIONS",
    "Jotted",
    "ScaleKind",
    "VisitStep",
    "add_jotted",
    "advise",
    "new_weigh_in",
    "pass_answers",
    "pass_title",
    "plan",
    "plan_passes",
    "scales_for",
    "visit_steps",
]
