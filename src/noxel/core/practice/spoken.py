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


def spoken(answer: Said, rig: RigFile) -> Said:
    """An answer or an exercise with its sentences and titles in the rig's own terms. Codes have no
    blank in them, and stay.
    """
    spoken_answer: Any = _spoken(answer, rig)
    return spoken_answer  # type: ignore[no-any-return]


def _spoken(answer: Any, rig: RigFile) -> Any:
    if isinstance(answer, str):
        return in_terms(rig, answer) if " " in answer else answer
    if isinstance(answer, list | tuple):
        return type(answer)(_spoken(element, rig) for element in answer)
    if isinstance(answer, BaseModel):
        names = [name for name in type(answer).model_fields if name not in _LEFT]
        return answer.model_copy(
            update={name: _spoken(getattr(answer, name), rig) for name in names}
        )
    if is_dataclass(answer) and not isinstance(answer, type):
        names = [field.name for field in fields(answer) if field.name not in _LEFT]
        return replace(answer, **{name: _spoken(getattr(answer, name), rig) for name in names})
    return answer
