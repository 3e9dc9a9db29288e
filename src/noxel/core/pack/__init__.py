"""The load plan: what each item does to each axle, and how the plan compares with the scale."""

from noxel.core.pack.answers import PackAnswer
from noxel.core.pack.catalogue import CATALOGUE, Ordinary
from noxel.core.pack.item_reader import read_item
from noxel.core.pack.pack import evaluate_pack
from noxel.core.pack.plan_vs_scale import plan_vs_scale
from noxel.core.pack.start import lever_length_typed, start_from_weigh_in

__all__ = [
    "CATALOGUE",
    "Ordinary",
    "PackAnswer",
    "evaluate_pack",
    "lever_length_typed",
    "plan_vs_scale",
    "read_item",
    "start_from_weigh_in",
]
