"""Loads on axles: weighed, predicted, or estimated, each with its ±.

The lever model, passes over a scale, tongue measurements, calibration. Knows nothing of ratings.
"""

from noxel.core.mechanics import statics
from noxel.core.mechanics.aboard import SIDES, Aboard, Side, aboard
from noxel.core.mechanics.added_since import changes_since
from noxel.core.mechanics.beside import other_ways
from noxel.core.mechanics.calibrate import calibrate, levers_as_weighed
from noxel.core.mechanics.change import Change, change_between
from noxel.core.mechanics.knowledge import (
    RATIO_OFF,
    Expected,
    Knowledge,
    Way,
    curb_by_placard,
    curb_entered,
    dry_by_label,
    dry_entered,
    empty_by_label,
    empty_weights,
    usual_lever,
)
from noxel.core.mechanics.lengths import in_the_rigs_unit, rounded_length
from noxel.core.mechanics.listed import (
    anything_listed,
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
from noxel.core.mechanics.model import SUMS, Levers, State, load, loads, together
from noxel.core.mechanics.pass_loads import SAME, PassLoads, describe_pass, reading_words
from noxel.core.mechanics.plan_from_weigh_in import given_back, plan_from_weigh_in
from noxel.core.mechanics.predict import (
    Planned,
    Predicted,
    levers_of,
    overhang,
    planned,
    predict,
    predict_known,
    restored,
)
from noxel.core.mechanics.predicted import GROUPS, predicted_weighing, shifted_weighing
from noxel.core.mechanics.sources import BASE_OFF, OFF, between, entered, source_at
from noxel.core.mechanics.statics import length_from_move
from noxel.core.mechanics.uncertainty import (
    PLACE_OFF,
    RESTORED_OFF,
    TAPE_OFF,
    norms,
    uncertainty,
)
from noxel.core.mechanics.ways import expect
from noxel.core.mechanics.weighing import Candidate, TongueSource, Weighing, weigh

__all__ = [
    "BASE_OFF",
    "GROUPS",
    "OFF",
    "PLACE_OFF",
    "RATIO_OFF",
    "RESTORED_OFF",
    "SAME",
    "SIDES",
    "SUMS",
    "TAPE_OFF",
    "Aboard",
    "Candidate",
    "Change",
    "Expected",
    "Knowledge",
    "Levers",
    "PassLoads",
    "Planned",
    "Predicted",
    "Side",
    "State",
    "TongueSource",
    "Way",
    "Weighing",
    "aboard",
    "anything_listed",
    "between",
    "calibrate",
    "change_between",
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
    "given_back",
    "hitch_mass",
    "in_phase",
    "in_tank",
    "in_the_rigs_unit",
    "items_kg",
    "length_from_move",
    "levers_as_weighed",
    "levers_of",
    "listed",
    "listed_now",
    "load",
    "load_place",
    "loads",
    "norms",
    "other_ways",
    "overhang",
    "plan_from_weigh_in",
    "planned",
    "predict",
    "predict_known",
    "predicted_weighing",
    "reading_words",
    "restored",
    "rounded_length",
    "shifted_weighing",
    "somebody_listed",
    "source_at",
    "statics",
    "together",
    "uncertainty",
    "uncounted",
    "usual_lever",
    "weigh",
]
