"""Tickets and items as CSV, safe to open in a spreadsheet: a text that looks like a formula is
quoted.
"""

import csv
import io
import json
from collections.abc import Iterable, Iterator
from typing import Any

from noxel.core.editing import without_identities
from noxel.core.rig import RigFile, dump_rig


def harmless(text: object) -> object:
    """A cell that no spreadsheet takes for a formula."""
    return (
        f"'{text}"
        if isinstance(text, str) and text[:1] in ("=", "+", "-", "@", "\t", "\r")
        else text
    )


def _csv(header: list[str], rows: Iterable[list[object]]) -> str:
    stream = io.StringIO(newline="")
    writer = csv.writer(stream)
    writer.writerow(header)
    writer.writerows([[harmless(cell) for cell in row] for row in rows])
    return stream.getvalue()


def _typed(value: object) -> object:
    """A value so that it comes back as it is: a text that would be taken for another kind of value,
    or would lose its ends, in quotes.
    """
    if isinstance(value, str) and value == value.strip():
        try:
            json.loads(value)
        except ValueError:
            return value
    return json.dumps(value, ensure_ascii=False)


def _leaves(path: str, value: object) -> Iterator[tuple[str, object]]:
    """Every plain value below a path, with its own path."""
    if path.rpartition(".")[2] == "entered":  # its keys are paths themselves
        yield path, json.dumps(value, ensure_ascii=False)
    elif isinstance(value, dict) and value:
        for name, inner in value.items():
            yield from _leaves(f"{path}.{name}" if path else name, inner)
    elif isinstance(value, list) and value:
        for index, inner in enumerate(value):
            yield from _leaves(f"{path}[{index}]", inner)
    else:
        yield path, _typed(value)


_OWN_COLUMNS = ("date", "place", "passes", "config", "spring_bars", "unit", "readings")


def _more(document: dict[str, Any]) -> Iterator[tuple[str, object]]:
    """What has no column of its own, by its path."""
    for name, value in document.items():
        if name not in _OWN_COLUMNS:
            yield from _leaves(name, value)


def tickets_csv(rig: RigFile) -> str:
    """Every reading of every pass, a line each, as it was written; then what else is known of the
    pass and of the weigh-in, by its path. It can be imported again, and nothing is lost.
    """
    rows: list[list[object]] = []
    for number, weigh_in in enumerate(without_identities(dump_rig(rig)).get("weigh_ins", []), 1):
        visit: list[object] = [number, weigh_in.get("date", ""), weigh_in.get("place", "")]
        for pass_number, pass_ in enumerate(weigh_in.get("passes", []), 1):
            lead = [*visit, pass_number, pass_["config"], pass_.get("spring_bars", "")]
            lines = [*pass_.get("readings", {}).items(), *_more(pass_)] or [("readings", "{}")]
            rows += [[*lead, name, value, pass_.get("unit", "")] for name, value in lines]
        rows += [[*visit, "", "", "", path, value, ""] for path, value in _more(weigh_in)]
    return _csv(
        [
            "weigh-in",
            "date",
            "place",
            "pass",
            "configuration",
            "spring bars",
            "reading",
            f"mass ({rig.units.mass})",
            "unit",
        ],
        rows,
    )


_OF_AN_ITEM = (
    "name",
    "mass",
    "quantity",
    "position",
    "on",
    "category",
    "side",
    "height",
    "secured",
)


def items_csv(rig: RigFile) -> str:
    """Every item, a line each, with all that is known of it; it can be imported again."""
    rows: list[list[object]] = [
        [
            *(load.get(name, "") for name in _OF_AN_ITEM),
            ", ".join(f"{name} {trouble}" for name, trouble in load.get("effort", {}).items()),
            {True: "yes", False: "no"}.get(load.get("aboard"), ""),
            json.dumps(load["entered"], ensure_ascii=False) if "entered" in load else "",
        ]
        for load in dump_rig(rig).get("loads", [])
    ]
    length = rig.units.lengths
    return _csv(
        [
            "item",
            f"mass ({rig.units.mass})",
            "quantity",
            f"position ({length})",
            "where",
            "category",
            f"right of the middle ({length})",
            f"height ({length})",
            "secured",
            "effort",
            "aboard",
            "sources",
        ],
        rows,
    )
