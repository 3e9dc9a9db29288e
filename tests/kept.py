"""Answers kept as text and read through by a person. Whoever changes one on purpose writes it anew
(``make kept``) and reads the difference.
"""

import atexit
import os
import textwrap
import unittest
from collections import Counter
from collections.abc import Container, Iterator
from difflib import ndiff
from pathlib import Path
from typing import Any

from pydantic_core import to_jsonable_python

GOLDEN = Path(__file__).parent / "golden"
WIDE = 118
_changed: Counter[str] = Counter()


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
    same_text(test, name, "\n".join(written(plain, left_out=left_out)))


def same_text(test: unittest.TestCase, name: str, text: str) -> None:
    """Whether a text is what ``golden/{name}.txt`` holds, long lines folded."""
    lines = [line for long in text.splitlines() for line in _folded(long)]
    file = GOLDEN / f"{name}.txt"
    if os.environ.get("NOXEL_GOLDEN"):
        before = file.read_text(encoding="utf-8").splitlines() if file.exists() else []
        _note(before, lines)
        file.parent.mkdir(exist_ok=True)
        file.write_text("\n".join(lines) + "\n", encoding="utf-8")
    test.assertEqual("\n".join(lines) + "\n", file.read_text(encoding="utf-8"))


def _folded(line: str) -> list[str]:
    pad = line[: len(line) - len(line.lstrip())] + "    "
    return textwrap.wrap(
        line, WIDE, subsequent_indent=pad, break_on_hyphens=False, drop_whitespace=True
    ) or [""]


def _note(before: list[str], after: list[str]) -> None:
    """Count the words that changed lines begin with: what they are about."""
    if not _changed:
        atexit.register(lambda: print("changed:", ", ".join(_summary())))
    for row in ndiff(before, after):
        if row.startswith("+ "):
            _changed[row[2:].split(maxsplit=1)[0].rstrip(":") if row[2:].strip() else ""] += 1


def _summary() -> Iterator[str]:
    for word, count in _changed.most_common(12):
        yield f"{count} {word}"
