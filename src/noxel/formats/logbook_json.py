"""The logbook: every rig of a database in one readable file, read back all or nothing."""

import json
from typing import Any

from noxel.core.editing import without_identities
from noxel.core.rig import dump_rig, parse_rig
from noxel.errors import Problem, RigFileError
from noxel.formats.rig_json import LARGEST_BOOK, read_json

FORMAT = "noxel-logbook"


def write_logbook(documents: list[dict[str, Any]]) -> str:
    """The text of a logbook; the rigs as their own files would have them."""
    rigs = [without_identities(dump_rig(parse_rig(document))) for document in documents]
    return (
        json.dumps({"format": FORMAT, "version": 1, "rigs": rigs}, ensure_ascii=False, indent=1)
        + "\n"
    )


def read_logbook(data: bytes) -> list[dict[str, Any]]:
    """Read a logbook.

    Raises TooLarge or RigFileError if it cannot be read, is of another version, or one of its rigs
    breaks a rule; the path names which.
    """
    book = read_json(data, LARGEST_BOOK)
    if (
        not isinstance(book, dict)
        or book.get("format") != FORMAT
        or book.get("version") != 1
        or not isinstance(book.get("rigs"), list)
    ):
        message = "This is not a logbook of version 1: it does not say “format”: “noxel-logbook”."
        raise RigFileError(message, [Problem("format", message, "format")])
    rigs = []
    for number, document in enumerate(book["rigs"]):
        try:
            parse_rig(document)
            rigs.append(document)
        except RigFileError as exc:
            problems = [
                Problem(f"rigs[{number}].{problem.path}", problem.message, problem.code)
                for problem in exc.problems
            ]
            raise RigFileError(f"rigs[{number}]: {exc.message}", problems) from exc
    return rigs
