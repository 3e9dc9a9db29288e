"""What the yard and its lessons say, in the terms of the rig: they are written in North American
ones.
"""

from dataclasses import fields, is_dataclass, replace
from typing import Any, TypeVar

from pydantic import BaseModel

from noxel.core.rig import RigFile
from noxel.core.wording import in_terms

Said = TypeVar("Said")
_LEFT = frozenset({"items", "tanks", "things", "geometry", "facts"})
"""What holds names that somebody gave, or no words at all."""


def spoken(said: Said, rig: RigFile) -> Said:
    """An answer or an exercise with its sentences and titles in the rig's own terms. Codes have no
    blank in them, and stay.
    """
    made: Any = _spoken(said, rig)
    return made  # type: ignore[no-any-return]


def _spoken(said: Any, rig: RigFile) -> Any:
    if isinstance(said, str):
        return in_terms(rig, said) if " " in said else said
    if isinstance(said, list | tuple):
        return type(said)(_spoken(each, rig) for each in said)
    if isinstance(said, BaseModel):
        names = [name for name in type(said).model_fields if name not in _LEFT]
        return said.model_copy(update={each: _spoken(getattr(said, each), rig) for each in names})
    if is_dataclass(said) and not isinstance(said, type):
        names = [each.name for each in fields(said) if each.name not in _LEFT]
        return replace(said, **{each: _spoken(getattr(said, each), rig) for each in names})
    return said
