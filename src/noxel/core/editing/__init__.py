"""Typing into a rig.

A change is a path and a text. The document stays valid; a text that is not a figure yet waits
beside its field.
"""

from noxel.core.editing.changes import Change, apply_changes
from noxel.core.editing.entries import Edited
from noxel.core.editing.new_rig import new_rig
from noxel.core.editing.other_units import spell_out, switch_units
from noxel.core.editing.patches import patched, patches
from noxel.core.editing.paths import Document, PathParts, value_at
from noxel.core.editing.rebase import Edit, Gone, Splice, edit_of, rebase
from noxel.core.editing.settle import fit, frame_of_weigh_ins, settle

__all__ = [
    "Change",
    "Document",
    "Edit",
    "Edited",
    "Gone",
    "PathParts",
    "Splice",
    "apply_changes",
    "edit_of",
    "fit",
    "frame_of_weigh_ins",
    "new_rig",
    "patched",
    "patches",
    "rebase",
    "settle",
    "spell_out",
    "switch_units",
    "value_at",
]
