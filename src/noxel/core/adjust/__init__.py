"""Trying changes on a rig, and finding the easiest ones that bring every check within its limit."""

from noxel.core.adjust.actions import actions
from noxel.core.adjust.bar_curve import BarCurve, bar_curve
from noxel.core.adjust.baseline import Baseline, baseline_of, rig_as_weighed
from noxel.core.adjust.linear_model import forms, state_of
from noxel.core.adjust.milp import CLEAR, Programme, conditions, solve_model
from noxel.core.adjust.proposals import Proposals, propose
from noxel.core.adjust.routes import Lever, levers
from noxel.core.adjust.search import cured
from noxel.core.adjust.solutions import steps_of
from noxel.core.adjust.steps import Tried, do_steps, keep, try_steps
from noxel.core.adjust.typed_steps import TypedStep, read_step

__all__ = [
    "CLEAR",
    "BarCurve",
    "Baseline",
    "Lever",
    "Programme",
    "Proposals",
    "Tried",
    "TypedStep",
    "actions",
    "bar_curve",
    "baseline_of",
    "conditions",
    "cured",
    "do_steps",
    "forms",
    "keep",
    "levers",
    "propose",
    "read_step",
    "rig_as_weighed",
    "solve_model",
    "state_of",
    "steps_of",
    "try_steps",
]
