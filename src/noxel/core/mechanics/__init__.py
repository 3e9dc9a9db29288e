"""Loads on axles: weighed, predicted, or estimated, each with its ±.

The lever model, passes over a scale, tongue measurements, calibration. Knows nothing of ratings.
"""

from noxel.core.mechanics import statics
from noxel.core.mechanics.aboard import SIDES, Aboard, Side, aboard
from noxel.core.mechanics.added_since import changes_since
from noxel.core.mechanics.beside import other_ways
from noxel.core.mechanics.calibrate import calibrate
from noxel.core.mechanics.knowledge import (
    Expected,
    Knowledge,
    Way,
    curb_by_placard,
    curb_entered,
    dry_by_label,
    dry_entered,
    empty_by_label,
    empty_weights,
)
from noxel.core.mechanics.lengths import in_the_rigs_unit, lever_lengths, rounded_length
from noxel.core.mechanics.listed import (
    anything_listed,
    gathered,
    hitch_mass,
    in_phase,
    in_tank,
    items_kg,
    listed,
    listed_now,
    load_place,
    somebody_listed,
    uncounted,
)
from noxel.core.mechanics.pass_loads import SAME, PassLoads, describe_pass, reading_words
from noxel.core.mechanics.plan_from_weigh_in import plan_from_weigh_in
from noxel.core.mechanics.predict import (
    Predicted,
    Solo,
    overhang,
    predict,
    predict_known,
    predict_solo,
)
from noxel.core.mechanics.predicted import GROUPS, predicted_weighing, shifted_weighing
from noxel.core.mechanics.sources import BASE_OFF, OFF, between, entered, source_at
from noxel.core.mechanics.statics import ball_load_transfer, item_on_tongue, length_from_move
from noxel.core.mechanics.uncertainty import (
    PLACE_OFF,
    RESTORED_OFF,
    TAPE_OFF,
    change_uncertainty,
    spread_of_loads,
    uncertainty,
)
from noxel.core.mechanics.ways import expect
from noxel.core.mechanics.weighing import Candidate, TongueSource, Weighing, weigh

__all__ = [
    "BASE_OFF",
    "GROUPS",
    "OFF",
    "PLACE_OFF",
    "RESTORED_OFF",
    "SAME",
    "SIDES",
    "TAPE_OFF",
    "Aboard",
    "Candidate",
    "Expected",
    "Knowledge",
    "PassLoads",
    "Predicted",
    "Side",
    "Solo",
    "TongueSource",
    "Way",
    "Weighing",
    "aboard",
    "anything_listed",
    "ball_load_transfer",
    "between",
    "calibrate",
    "change_uncertainty",
    "changes_since",
    "curb_by_placard",
    "curb_entered",
    "describe_pass",
    "dry_by_label",
    "dry_entered",
    "empty_by_label",
    "empty_weights",
    "entered",
    "expect",
    "gathered",
    "hitch_mass",
    "in_phase",
    "in_tank",
    "in_the_rigs_unit",
    "item_on_tongue",
    "items_kg",
    "length_from_move",
    "lever_lengths",
    "listed",
    "listed_now",
    "load_place",
    "other_ways",
    "overhang",
    "plan_from_weigh_in",
    "predict",
    "predict_known",
    "predict_solo",
    "predicted_weighing",
    "reading_words",
    "rounded_length",
    "shifted_weighing",
    "somebody_listed",
    "source_at",
    "spread_of_loads",
    "statics",
    "uncertainty",
    "uncounted",
    "weigh",
]
