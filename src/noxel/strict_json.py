"""Strict JSON: what no figure, no text and no database can hold is refused where it comes in."""

import json
import re
from typing import Any

from noxel.errors import InputError

LONGEST_NUMBER = 300
"""A number with more digits than this is not a figure."""
_SUSPECT = re.compile(r"\\u[dD][89a-fA-F]|[0-9]{300}|[eE]\+?[0-9]{3}")


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number that can be used")


def _no_duplicates(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    members = dict(pairs)
    if len(members) < len(pairs):
        names = [key for key, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise ValueError(f"the key “{twice}” stands twice in one object")
    return members


def _integer(digits: str) -> int:
    if len(digits) > LONGEST_NUMBER:
        raise ValueError(f"a number has {len(digits)} digits")
    return int(digits)


def _float(digits: str) -> float:
    value = float(digits)
    if len(digits) > LONGEST_NUMBER or value in (float("inf"), float("-inf")):
        raise ValueError(f"{digits[:20]} is too large a number")
    return value


def read_strict(data: bytes) -> Any:
    """Read JSON: UTF-8, numbers that are finite and not endless, no key twice, no half of a
    character, not too deep.

    Raises InputError if it is not such JSON; says what is wrong and where it breaks off.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as exc:
        raise InputError("it is not UTF-8 text.") from exc
    if not text.strip():
        raise InputError("it is empty.")
    suspect = _SUSPECT.search(text) is not None
    numbers: dict[str, Any] = {"parse_int": _integer, "parse_float": _float} if suspect else {}
    try:
        loads = json.loads(
            text, parse_constant=_no_constant, object_pairs_hook=_no_duplicates, **numbers
        )
        if suspect:
            json.dumps(loads, ensure_ascii=False).encode()
    except json.JSONDecodeError as exc:
        where = f"line {exc.lineno}, column {exc.colno}"
        cut = " It breaks off: was it cut short?" if exc.pos >= len(text.rstrip()) else ""
        raise InputError(f"it is not JSON ({exc.msg}, {where}).{cut}") from exc
    except RecursionError as exc:
        raise InputError("it is nested too deeply.") from exc
    except UnicodeEncodeError as exc:
        raise InputError("it holds half of a character (a lone surrogate).") from exc
    except ValueError as exc:
        raise InputError(f"{exc}.") from exc
    return loads
