"""Answers kept as text and read through by a person. Whoever changes one on purpose writes it anew
(``make kept``) and reads the difference.
"""

import os
import unittest
from collections.abc import Container, Iterator
from pathlib import Path
from typing import Any

from pydantic_core import to_jsonable_python

GOLDEN = Path(__file__).parent / "golden"


def _leaf(value: Any) -> str:
    """Five figures are enough; what only rounding leaves is nothing."""
    if isinstance(value, float):
        return f"{value:.5g}" if abs(value) > 1e-9 else "0"
    return str(value)


def written(value: Any, depth: int = 0, left_out: Container[str] = ()) -> Iterator[str]:
    """An answer as lines: what holds only single values stands on one of them."""
    pad = "  " * depth
    if isinstance(value, dict):
        kept = {
            key: inner
            for key, inner in value.items()
            if key not in left_out and inner not in (None, [], {})
        }
        single = {key: entry for key, entry in kept.items() if not isinstance(entry, dict | list)}
        if single:
            yield pad + " · ".join(f"{key} {_leaf(single)}" for key, single in single.items())
        for key, entry in kept.items():
            if isinstance(entry, dict | list):
                yield f"{pad}{key}:"
                yield from written(entry, depth + 1, left_out)
    elif isinstance(value, list):
        if value and not any(isinstance(inner, dict | list | str) for inner in value):
            yield pad + ", ".join(map(_leaf, value))
        else:
            for entry in value:
                yield from (
                    written(entry, depth, left_out)
                    if isinstance(entry, dict | list)
                    else [pad + _leaf(entry)]
                )


def texts_of(value: Any) -> Iterator[str]:
    """Every text in an answer."""
    if isinstance(value, dict | list):
        for inner in value.values() if isinstance(value, dict) else value:
            yield from texts_of(inner)
    elif isinstance(value, str):
        yield value


def as_kept(test: unittest.TestCase, name: str, value: Any, left_out: Container[str] = ()) -> None:
    """Whether an answer is what ``golden/{name}.txt`` holds."""
    plain = to_jsonable_python(value, serialize_unknown=True)
    text = "\n".join(written(plain, left_out=left_out)) + "\n"
    file = GOLDEN / f"{name}.txt"
    if os.environ.get("NOXEL_GOLDEN"):
        file.parent.mkdir(exist_ok=True)
        file.write_text(text, encoding="utf-8")
    test.assertEqual(text, file.read_text(encoding="utf-8"))
