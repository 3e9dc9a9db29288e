"""Rig files as text: strict JSON in, readable JSON out."""

import json
from pathlib import Path
from typing import Any

from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.errors import NotFound, Problem, RigFileError, TooLarge

LARGEST = 20_000_000
"""The largest rig file that is read. [bytes]"""
LARGEST_BOOK = 60_000_000
"""The largest logbook that is read. [bytes]"""
SUFFIX = ".noxel.json"


class _Duplicate(ValueError):
    pass


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number that a rig file can hold")


def _no_duplicates(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) < len(pairs):
        names = [key for key, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise _Duplicate(f"the key “{twice}” stands twice in one object")
    return found


def read_json(data: bytes, largest: int = LARGEST) -> object:
    """Read strict JSON: UTF-8, no NaN, no key twice, not too deep, not too large.

    Raises
    ------
    TooLarge
        If there are more bytes than ``largest``.
    RigFileError
        If it is not JSON; says where it breaks off.
    """
    if len(data) > largest:
        raise TooLarge(f"{len(data) / 1e6:.0f} MB is too large: such a file has at most {largest / 1e6:.0f} MB.")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as exc:
        raise _broken("This is not a rig file: it is not UTF-8 text.") from exc
    if not text.strip():
        raise _broken("This is not a rig file: it is empty.")
    try:
        return json.loads(text, parse_constant=_no_constant, object_pairs_hook=_no_duplicates)
    except json.JSONDecodeError as exc:
        where = f"line {exc.lineno}, column {exc.colno}"
        cut = " It breaks off: was it cut short?" if exc.pos >= len(text.rstrip()) else ""
        raise _broken(f"This is not a rig file: it is not JSON ({exc.msg}, {where}).{cut}") from exc
    except RecursionError as exc:
        raise _broken("This is not a rig file: it is nested too deeply.") from exc
    except ValueError as exc:
        raise _broken(f"This rig file cannot be read: {exc}.") from exc


def _broken(message: str) -> RigFileError:
    return RigFileError(message, [Problem("", message, "json")])


def read_rig(data: bytes) -> RigFile:
    """Read a rig file.

    Raises
    ------
    TooLarge, RigFileError
        If it cannot be read, or breaks a rule of the format.
    """
    return parse_rig(read_json(data))


def load_rig(path: Path) -> RigFile:
    """Read a rig file from disk.

    Raises
    ------
    NotFound
        If there is no such file, or it cannot be opened.
    TooLarge, RigFileError
        As :func:`read_rig`.
    """
    try:
        if path.stat().st_size > LARGEST:
            raise TooLarge(f"{path.stat().st_size / 1e6:.0f} MB is too large: a rig file has at most {LARGEST / 1e6:.0f} MB.")
        return read_rig(path.read_bytes())
    except OSError as exc:
        raise NotFound(f"cannot be opened: {exc.strerror}") from exc


def write_rig(rig: RigFile) -> str:
    """The text of a rig file: the same figures, as they were written."""
    return json.dumps(dump_rig(rig), ensure_ascii=False, indent=1) + "\n"


def write_any(document: Any) -> str:
    """Readable JSON of an answer."""
    return json.dumps(document, ensure_ascii=False, indent=1) + "\n"
