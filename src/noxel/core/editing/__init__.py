"""Typing into a rig.

A change is a path and a text. The document stays valid; a text that is not a figure yet waits
beside its field.
"""

from noxel.core.editing.changes import Change, apply_changes
from noxel.core.editing.entries import Edited, FieldState, units_in_force
from noxel.core.editing.identities import (
    identified_at,
    identify,
    named,
    positions,
    weigh_in_identity,
    without_identities,
)
from noxel.core.editing.new_rig import new_rig
from noxel.core.editing.other_units import spell_out, switch_units
from noxel.core.editing.patches import Delta, Patch, delta, patched
from noxel.core.editing.paths import Document, PathParts, copied, value_at
from noxel.core.editing.settle import fit, frame_of_weigh_ins, settle

__all__ = [
    "Change",
    "Delta",
    "Document",
    "Edited",
    "FieldState",
    "Patch",
    "PathParts",
    "apply_changes",
    "copied",
    "delta",
    "fit",
    "frame_of_weigh_ins",
    "identified_at",
    "identify",
    "named",
    "new_rig",
    "patched",
    "positions",
    "settle",
    "spell_out",
    "switch_units",
    "units_in_force",
    "value_at",
    "weigh_in_identity",
    "without_identities",
]
