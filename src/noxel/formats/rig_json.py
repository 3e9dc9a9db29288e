"""Rig files as text: strict JSON in, readable JSON out."""

import json
from pathlib import Path
from typing import Any

from noxel.core.editing import identified_at, without_identities
from noxel.core.rig import RigFile, dump_rig, parse_rig
from noxel.errors import InputError, NotFound, Problem, RigFileError, TooLarge
from noxel.strict_json import read_strict

LARGEST = 20_000_000
"""The largest rig file that is read. [bytes]"""
LARGEST_BOOK = 60_000_000
"""The largest logbook that is read. [bytes]"""
SUFFIX = ".noxel.json"


def read_json(data: bytes, largest: int = LARGEST) -> object:
    """Read strict JSON as a rig file or a logbook has it.

    Raises TooLarge if there are more bytes than ``largest``; RigFileError if it is not JSON; says
    where it breaks off.
    """
    if len(data) > largest:
        raise TooLarge(
            f"{len(data) / 1e6:.0f} MB is too large: such a file has at most {largest / 1e6:.0f} "
            "MB."
        )
    try:
        return read_strict(data)
    except InputError as exc:
        raise _broken(f"This is not a rig file: {exc.message}") from exc


def _broken(message: str) -> RigFileError:
    return RigFileError(message, [Problem("", message, "json")])


def read_rig(data: bytes) -> RigFile:
    """Read a rig file.

    Raises TooLarge or RigFileError if it cannot be read, or breaks a rule of the format.
    """
    document = read_json(data)
    rig = parse_rig(document)
    path = identified_at(document) if isinstance(document, dict) else None
    if path:
        raise RigFileError(
            f"{path}: {_NO_IDENTITY}", [Problem(path, _NO_IDENTITY, "extra_forbidden")]
        )
    return rig


_NO_IDENTITY = "is not a key that a rig file has"


def load_rig(path: Path) -> RigFile:
    """Read a rig file from disk.

    Raises NotFound if there is no such file, or it cannot be opened; TooLarge or RigFileError as
    :func:`read_rig`.
    """
    try:
        with path.open("rb") as file:
            data = file.read(LARGEST + 1)  # also of a device that never ends
    except OSError as exc:
        raise NotFound(f"cannot be opened: {exc.strerror}") from exc
    except ValueError as exc:
        raise NotFound(f"cannot be opened: {exc}") from exc
    if len(data) > LARGEST:
        raise TooLarge(f"This is too large: a rig file has at most {LARGEST / 1e6:.0f} MB.")
    return read_rig(data)


def write_rig(rig: RigFile) -> str:
    """The text of a rig file: the same figures, as they were written."""
    return json.dumps(without_identities(dump_rig(rig)), ensure_ascii=False, indent=1) + "\n"


def write_any(document: Any) -> str:
    """Readable JSON of an answer."""
    return json.dumps(document, ensure_ascii=False, indent=1) + "\n"
