"""Paths into a rig file as users see them, and validation errors as problems at such paths."""

import re
from collections.abc import Sequence
from functools import lru_cache

from pydantic import ValidationError

from noxel.errors import Problem

# a check's name has a point inside
_PART = re.compile(r"(?<=cushions\.).+|\[[0-9]+\]|\[[a-z][0-9a-z]*\]|[^.\[\]]+")


class Identity(str):
    """A part of a path that names an element of a list by its identity: ``loads[k3f9]``."""

    __slots__ = ()


def write_path(parts: Sequence[str | int]) -> str:
    """Write a path as users see it: ``weigh_ins[0].passes[1].readings.front``."""
    path = ""
    for part in parts:
        in_a_list = isinstance(part, int | Identity)
        path += f"[{part}]" if in_a_list else f".{part}" if path else str(part)
    return path


def read_path(path: str) -> tuple[str | int, ...]:
    """Read a path back into its parts."""
    return tuple(map(_part, _PART.findall(path)))


def _part(text: str) -> str | int:
    if text[0] != "[":
        return text
    return int(text[1:-1]) if text[1].isdecimal() else Identity(text[1:-1])


_WORDS = {
    "missing": "is missing",
    "extra_forbidden": "is not a key that a rig file has",
    "model_type": "must be an object",
    "model_attributes_type": "must be an object",
    "dict_type": "must be an object",
    "tuple_type": "must be a list",
    "bool_type": "must be true or false",
    "string_type": "must be a text",
    "int_type": "must be a whole number",
}


def problems_of(error: ValidationError) -> list[Problem]:
    """Translate pydantic's findings into problems with paths and plain words."""
    problems = []
    for item in error.errors(include_url=False):
        parts = _untag(item["loc"])
        if item["type"] == "misplaced":
            path = write_path([*parts, *read_path(item["ctx"]["at"])])
            problems.append(Problem(path, item["msg"], "inconsistent"))
            continue
        message = _WORDS.get(item["type"], item["msg"])
        problems.append(Problem(write_path(parts), message, item["type"]))
    return problems


def _untag(parts: Sequence[str | int]) -> list[str | int]:
    kept: list[str | int] = []
    for index, part in enumerate(parts):
        after_measurement = index >= 2 and parts[index - 2] == "tongue_measurements"
        if part in ("one_figure", "by_mode", "[key]") or (
            part in ("scale", "beam", "lever") and after_measurement
        ):
            continue
        kept.append(part)
    return kept


@lru_cache(4096)
def steps_of(path: str) -> tuple[tuple[str | int, str], ...]:
    """Each part of a path, with what is left of the path from there on."""
    return tuple(
        zip(
            read_path(path),
            (path[part.start() :].removeprefix(".") for part in _PART.finditer(path)),
            strict=True,
        )
    )
