"""Tickets and items as CSV, safe to open in a spreadsheet: a text that looks like a formula is
quoted.
"""

import csv
import io
from collections.abc import Iterable

from noxel.core.rig import RigFile


def harmless(text: object) -> object:
    """A cell that no spreadsheet takes for a formula."""
    return (
        f"'{text}"
        if isinstance(text, str) and text[:1] in ("=", "+", "-", "@", "\t", "\r")
        else text
    )


def _csv(header: list[str], rows: Iterable[list[object]]) -> str:
    made = io.StringIO(newline="")
    writer = csv.writer(made)
    writer.writerow(header)
    writer.writerows([[harmless(cell) for cell in row] for row in rows])
    return made.getvalue()


def tickets_csv(rig: RigFile) -> str:
    """Every reading of every pass, a line each, as it was written."""
    rows: list[list[object]] = [
        [
            number,
            weigh_in.date or "",
            weigh_in.place or "",
            at,
            each.config,
            each.spring_bars or "",
            name,
            mass.written,
            each.unit or rig.units.mass,
        ]
        for number, weigh_in in enumerate(rig.weigh_ins, 1)
        for at, each in enumerate(weigh_in.passes, 1)
        for name, mass in each.readings.items()
    ]
    return _csv(
        [
            "weigh-in",
            "date",
            "place",
            "pass",
            "configuration",
            "spring bars",
            "reading",
            "mass",
            "unit",
        ],
        rows,
    )


def items_csv(rig: RigFile) -> str:
    """Every item, a line each; it can be imported again."""
    rows: list[list[object]] = [
        [
            load.name,
            load.mass.written,
            load.quantity,
            load.position.written if load.position else "",
            load.on,
            load.category or "",
        ]
        for load in rig.loads
    ]
    return _csv(
        ["item", f"mass ({rig.units.mass})", "quantity", "position", "where", "category"], rows
    )
