"""A rig's document (parsed JSON) by paths: what kind of figure a path holds, reading it, putting
it, taking it away.
"""

import itertools
import types
import typing
from collections.abc import Iterable
from typing import Annotated, Any, Literal, get_args, get_origin

from pydantic import BaseModel

from noxel.core.quantities import Dimension, Length, Mass, Pressure, Volume
from noxel.core.rig import SHARE, Entered, RigFile, write_path
from noxel.errors import InputError, Problem

Document = dict[str, Any]


PathParts = tuple[str | int, ...]


def copied(value: Any) -> Any:
    """A copy of parsed JSON that shares nothing with it; `copy.deepcopy` looks for shared parts
    first, and JSON has none.
    """
    kind = type(value)
    if kind is dict:
        return {key: copied(each) if type(each) in _NESTED else each for key, each in value.items()}
    return [copied(each) for each in value] if kind is list else value


_NESTED = (dict, list)


class FieldKind(typing.NamedTuple):
    """What a path holds: its dimension, the part that remembers its entry, whether the format
    requires it.
    """

    dimension: Dimension | Literal["text", "choice"]
    holder: PathParts
    required: bool


def _models(annotation: Any) -> Iterable[Any]:
    """Every plain type inside an annotation: unions, Annotated and Optional opened."""
    origin = get_origin(annotation)
    if origin is typing.Annotated:
        yield from _models(get_args(annotation)[0])
    elif origin in (typing.Union, types.UnionType):
        for each in get_args(annotation):
            yield from _models(each)
    elif annotation is not type(None):
        yield annotation


def _is_share(annotation: Any) -> bool:
    """Whether a number is marked as a share where it is declared."""
    if get_origin(annotation) is Annotated:
        own, *marks = get_args(annotation)
        return SHARE in marks or _is_share(own)
    if get_origin(annotation) in (typing.Union, types.UnionType):
        return any(_is_share(each) for each in get_args(annotation))
    return False


def _step(annotation: Any, part: str | int, here: Any) -> tuple[Any, bool]:
    """The annotation one step down a path, and whether that step must be there."""
    for each in _models(annotation):
        origin = get_origin(each)
        if isinstance(part, int) and origin is tuple:
            return get_args(each)[0], True
        if isinstance(part, str) and origin is dict:
            return get_args(each)[1], False
        if (
            isinstance(part, str)
            and isinstance(each, type)
            and issubclass(each, BaseModel)
            and part in each.model_fields
        ):
            if isinstance(here, dict) and "method" in here and "method" in each.model_fields:
                allowed = get_args(each.model_fields["method"].annotation)
                if here["method"] not in allowed:
                    continue
            field = each.model_fields[part]
            return Annotated[field.annotation, None, *field.metadata], field.is_required()
    raise InputError(f"“{part}” is not something a rig file has there.")


def kind_of(document: Document, parts: PathParts) -> FieldKind:
    """What a path holds, which part remembers how it was entered, and whether the format requires
    it.

    Raises
    ------
    InputError
        If the path leads nowhere in a rig file.
    """
    annotation: Any = RigFile
    here: Any = document
    holder: PathParts = ()
    required = False
    for index, part in enumerate(parts):
        for each in _models(annotation):
            if isinstance(each, type) and issubclass(each, Entered):
                holder = parts[:index]
        try:
            annotation, required = _step(annotation, part, here)
        except InputError as exc:
            raise InputError(
                exc.message, [Problem(write_path(parts), exc.message, "path")]
            ) from exc
        here = value_at(here, (part,))
    for each in _models(annotation):
        if each is Mass:
            return FieldKind("mass", holder, required)
        if each is Length:
            return FieldKind("length", holder, required)
        if each is Pressure:
            return FieldKind("pressure", holder, required)
        if each is Volume:
            return FieldKind("volume", holder, required)
        if each in (int, float):
            return FieldKind("share" if _is_share(annotation) else "number", holder, required)
        if each is str:
            return FieldKind("text", holder, required)
    return FieldKind("choice", holder, required)


def value_at(here: Any, parts: PathParts) -> Any:
    """What stands at a path, or None."""
    for part in parts:
        if isinstance(part, int):
            here = here[part] if isinstance(here, list) and part < len(here) else None
        else:
            here = here.get(part) if isinstance(here, dict) else None
    return here


def put(document: Document, parts: PathParts, value: Any) -> None:
    """Put a value at a path, making the objects on the way; a list takes one place after its last.

    Raises
    ------
    InputError
        If there is no such place yet.
    """
    here: Any = document
    for part, following in itertools.pairwise(parts):
        fresh: Any = [] if isinstance(following, int) else {}
        if isinstance(part, str) and isinstance(here, dict) and here.get(part) is None:
            here[part] = fresh
        here = value_at(here, (part,))
    last = parts[-1]
    if isinstance(here, list) and isinstance(last, int) and last <= len(here):
        here[last : last + 1] = [value]
    elif isinstance(here, dict) and isinstance(last, str):
        here[last] = value
    else:
        raise InputError("has no place here yet: fill in what comes before it")


def drop(document: Document, parts: PathParts) -> None:
    """Take away what stands at a path, and the objects that are empty then."""
    here = value_at(document, parts[:-1])
    last = parts[-1]
    if isinstance(here, list) and isinstance(last, int) and last < len(here):
        del here[last]
    elif isinstance(here, dict):
        here.pop(str(last), None)
        if (
            not here
            and len(parts) > 2
            and isinstance(parts[-2], str)
            and parts[-2] not in ("readings",)
        ):
            drop(document, parts[:-1])
