"""Tables that makers print, a row a line, as typed or pasted: pressures, ratings by drop, the
tongue by the load.
"""

import re
from dataclasses import dataclass

from noxel.errors import InputError, Problem

LONGEST_TABLE = 20_000
"""Characters of a table."""


@dataclass(frozen=True, slots=True)
class TableKind:
    """The columns of a table, how many of them a row must have, and what a row is in words."""

    columns: tuple[str, ...]
    least: int
    row: str


_KINDS: tuple[tuple[re.Pattern[str], TableKind], ...] = (
    (
        re.compile(r"(vehicle\.tires\.(front|rear)|trailer\.tires)\.table"),
        TableKind(("pressure", "load"), 2, "a pressure and a load"),
    ),
    (
        re.compile(r"vehicle\.tongue_table"),
        TableKind(
            ("load", "tongue"), 2, "a load in the vehicle and what may be on the hitch with it"
        ),
    ),
    (
        re.compile(r"hitch\.parts\[[0-9]{1,2}\]\.by_drop"),
        TableKind(("drop", "trailer", "tongue"), 2, "a drop and its ratings"),
    ),
)

_FIGURE = (
    r"(?:[0-9]{1,3}(?:,[0-9]{3})+|[0-9]+)(?:\.[0-9]+)?\s*(?:psi|kpa|bar|lbs?|kg|t|in|mm|cm|ft|m)?"
)
_BETWEEN = r"\s*(?:[;\t:]|,\s|\s)\s*"
_ROWS = {
    count: re.compile(
        rf"\s*({_FIGURE})" + rf"{_BETWEEN}({_FIGURE})" * (count - 1) + r"\s*", re.IGNORECASE
    )
    for count in (2, 3)
}


def table_kind(path: str) -> TableKind:
    """What the table at a path of the rig file holds.

    Raises InputError if there is no table at the path.
    """
    for pattern, kind in _KINDS:
        if pattern.fullmatch(path):
            return kind
    raise InputError(
        "There is no table at this place.", [Problem("path", "names no table of a rig", "path")]
    )


def read_table(path: str, text: str) -> list[dict[str, str]]:
    """Read a maker's table as typed or pasted.

    ``path``: where in the rig file it belongs: ``vehicle.tires.rear.table``,
    ``hitch.parts[1].by_drop``, ``vehicle.tongue_table``. ``text``: ``"35 1,820"``, ``"35 psi, 1820
    lb"``, ``"35;1820"`` or with a tab between, a row a line; a first line of words is left out.

    Returns the texts of each row by the names of its columns, each to be read in the unit in force.

    Raises InputError if the path names no table; naming each line that is not such a row.
    """
    kind = table_kind(path)
    rows, problems, lines = [], [], text.rstrip().splitlines()
    for number, line in enumerate(lines, 1):
        heading = number == 1 < len(lines) and not re.search(r"[0-9]", line)
        if heading or not line.strip():
            continue
        matches = (
            _ROWS[count].fullmatch(line) for count in range(len(kind.columns), kind.least - 1, -1)
        )
        match = next((match_here for match_here in matches if match_here is not None), None)
        if match is None:
            problems.append(
                Problem(f"line {number}", f"“{line.strip()[:60]}” is not {kind.row}", "table_row")
            )
            continue
        rows.append(dict(zip(kind.columns, match.groups(), strict=False)))
    if problems:
        raise InputError(str(problems[0]), problems)
    return rows
