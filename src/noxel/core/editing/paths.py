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
        return {
            key: copied(inner) if type(inner) in _NESTED else inner for key, inner in value.items()
        }
    return [copied(inner) for inner in value] if kind is list else value


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
        for choice in get_args(annotation):
            yield from _models(choice)
    elif annotation is not type(None):
        yield annotation


def _is_share(annotation: Any) -> bool:
    """Whether a number is marked as a share where it is declared."""
    if get_origin(annotation) is Annotated:
        own, *marks = get_args(annotation)
        return SHARE in marks or _is_share(own)
    if get_origin(annotation) in (typing.Union, types.UnionType):
        return any(_is_share(choice) for choice in get_args(annotation))
    return False


def _step(annotation: Any, part: str | int, node: Any) -> tuple[Any, bool]:
    """The annotation one step down a path, and whether that step must be there."""
    for model in _models(annotation):
        origin = get_origin(model)
        if isinstance(part, int) and origin is tuple:
            return get_args(model)[0], True
        if isinstance(part, str) and origin is dict:
            return get_args(model)[1], False
        if (
            isinstance(part, str)
            and isinstance(model, type)
            and issubclass(model, BaseModel)
            and part in model.model_fields
        ):
            if isinstance(node, dict) and "method" in node and "method" in model.model_fields:
                allowed = get_args(model.model_fields["method"].annotation)
                if node["method"] not in allowed:
                    continue
            field = model.model_fields[part]
            return Annotated[field.annotation, None, *field.metadata], field.is_required()
    raise InputError(f"“{part}” is not something a rig file has there.")


def kind_of(document: Document, parts: PathParts) -> FieldKind:
    """What a path holds, which part remembers how it was entered, and whether the format requires
    it.

    Raises InputError if the path leads nowhere in a rig file.
    """
    annotation: Any = RigFile
    node: Any = document
    holder: PathParts = ()
    required = False
    for index, part in enumerate(parts):
        for model in _models(annotation):
            if isinstance(model, type) and issubclass(model, Entered):
                holder = parts[:index]
        try:
            annotation, required = _step(annotation, part, node)
        except InputError as exc:
            raise InputError(
                exc.message, [Problem(write_path(parts), exc.message, "path")]
            ) from exc
        node = value_at(node, (part,))
    for model in _models(annotation):
        dimension = _DIMENSIONS.get(model)
        if dimension == "number" and _is_share(annotation):
            dimension = "share"
        if dimension is not None:
            return FieldKind(dimension, holder, required)
    return FieldKind("choice", holder, required)


_DIMENSIONS: dict[Any, Dimension | Literal["text"]] = {
    Mass: "mass",
    Length: "length",
    Pressure: "pressure",
    Volume: "volume",
    int: "number",
    float: "number",
    str: "text",
}


def value_at(node: Any, parts: PathParts) -> Any:
    """What stands at a path, or None."""
    for part in parts:
        if isinstance(part, int):
            node = node[part] if isinstance(node, list) and part < len(node) else None
        else:
            node = node.get(part) if isinstance(node, dict) else None
    return node


def put(document: Document, parts: PathParts, value: Any) -> None:
    """Put a value at a path, making the objects on the way; a list takes one place after its last.

    Raises InputError if there is no such place yet.
    """
    node: Any = document
    for part, following in itertools.pairwise(parts):
        fresh: Any = [] if isinstance(following, int) else {}
        if isinstance(part, str) and isinstance(node, dict) and node.get(part) is None:
            node[part] = fresh
        node = value_at(node, (part,))
    last = parts[-1]
    if isinstance(node, list) and isinstance(last, int) and last <= len(node):
        node[last : last + 1] = [value]
    elif isinstance(node, dict) and isinstance(last, str):
        node[last] = value
    else:
        raise InputError("has no place here yet: fill in what comes before it")


def drop(document: Document, parts: PathParts) -> None:
    """Take away what stands at a path, and the objects that are empty then."""
    holder = value_at(document, parts[:-1])
    last = parts[-1]
    if isinstance(holder, list) and isinstance(last, int) and last < len(holder):
        del holder[last]
    elif isinstance(holder, dict):
        holder.pop(str(last), None)
        if (
            not holder
            and len(parts) > 2
            and isinstance(parts[-2], str)
            and parts[-2] not in ("readings",)
        ):
            drop(document, parts[:-1])
