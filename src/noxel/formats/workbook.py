"""A workbook with live formulas: plates, tickets, every derived weight, every check; to be checked
and continued by hand.

Figures that were typed are figures; all that follows from them is a formula. A text that looks like
one is kept a text.
"""

import io
import re
import time
from collections.abc import Mapping, Sequence
from typing import Any
from zipfile import ZIP_DEFLATED, ZipFile, ZipInfo

from openpyxl import Workbook
from openpyxl.styles import Alignment, Font
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.worksheet import Worksheet
from openpyxl.writer.excel import ExcelWriter

from noxel.core.limits import pick_weigh_in
from noxel.core.quantities import KG, METRES
from noxel.core.rig import RigFile, WeighIn, source_words
from noxel.core.wording import CAUTION
from noxel.formats.workbook_beyond import beyond_formulas
from noxel.formats.workbook_cells import Formula, head, put
from noxel.formats.workbook_checks import Cells, checks_sheet
from noxel.formats.workbook_columns import columns
from noxel.formats.workbook_limits import CellNames, plates
from noxel.formats.workbook_terms import MASS, PLAIN, SHARE, Column
from noxel.formats.workbook_tickets import SPARE, tickets_sheet, tongue_sheet

LAST = 100
"""How many weigh-ins a workbook holds, the last ones."""


def workbook(rig: RigFile, weigh_in: int | None = None) -> bytes:
    """A rig as an xlsx workbook.

    ``rig``: with all its weigh-ins, or the last of them; the last :data:`LAST` are written.
    ``weigh_in``: which weigh-in the sheet “Checks” holds against the limits, from 1; None is the
    last.

    Raises NotFound if the rig has no weigh-in of that number.
    """
    number = pick_weigh_in(rig, weigh_in)
    kept = range(max(0, len(rig.weigh_ins) - LAST), len(rig.weigh_ins))
    numbers = [*kept] if number is None or number - 1 in kept else [number - 1, *kept]
    book = Workbook()
    first = book.active
    if first is not None:
        book.remove(first)
    _read_me(book.create_sheet("Read me"), rig)
    known = _plates(book.create_sheet("Plates"), rig)
    tickets, tongue = book.create_sheet("Tickets"), book.create_sheet("Tongue")
    read = tickets_sheet(tickets, rig, numbers)
    last = len(read) + 1 + SPARE
    tongue_sheet(tongue, rig, numbers, last)
    rows = _weigh_ins(book.create_sheet("Weigh-ins"), rig, numbers, known, last)
    if number is not None:
        of_weigh_in = {key[1:]: row for key, row in read.items() if key[0] == number}
        corrections = [
            (pass_number, name[1:], row)
            for (pass_number, name, row) in of_weigh_in
            if name.startswith("+")
        ]
        cells = Cells(known, rows[number - 1], of_weigh_in, corrections)
        checks_sheet(book.create_sheet("Checks", 1), rig, number, cells)
    _items(book.create_sheet("Items"), rig)
    stream = io.BytesIO()
    with _Archive(stream, "w", ZIP_DEFLATED, strict_timestamps=False) as archive:
        ExcelWriter(book, archive).write_data()
    return stream.getvalue()


class _Archive(ZipFile):
    """A zip file that is written also while the clock stands before 1980, the first year that a zip
    file knows.
    """

    def writestr(self, zinfo_or_arcname: ZipInfo | str, data: Any, *how: Any, **more: Any) -> None:
        """Write one member."""
        if isinstance(zinfo_or_arcname, str):
            when = max(time.localtime()[:6], (1980, 1, 1, 0, 0, 0))
            zinfo_or_arcname = ZipInfo(zinfo_or_arcname, when)
            zinfo_or_arcname.compress_type = self.compression
        super().writestr(zinfo_or_arcname, data, *how, **more)


def _read_me(sheet: Worksheet, rig: RigFile) -> None:
    sheet.column_dimensions["A"].width = 110
    lines = [
        rig.name or "A rig",
        f"All masses are in {rig.units.mass}, all lengths in {rig.units.lengths}, unless a line "
        "has a unit of its own.",
        "What is tinted was typed; everything else is worked out here, by formulas that you can "
        "read.",
        "To go on: write the next tickets below the last line of “Tickets”, fill its worked-out "
        "columns down, and write the number "
        "of the new weigh-in in the next free line of “Weigh-ins”.",
        "A weigh-in with corrections, with passes on several scales, or whose totals come from "
        "passes put together stands there as Noxel worked it out, without formulas.",
        f"“Weigh-ins” holds the last {LAST} at most. Of two passes of one kind the last counts. "
        "Each ± is two standard uncertainties.",
        CAUTION,
    ]
    for row, line in enumerate(lines, 1):
        put(sheet, row, 1, line)
        sheet.cell(row, 1).alignment = Alignment(wrap_text=True)
    sheet.cell(1, 1).font = Font(bold=True, size=14)


def _plates(sheet: Worksheet, rig: RigFile) -> CellNames:
    head(sheet, ["Figure", "Value", "Where from", "Name in the rig file"], {1: 42, 3: 24, 4: 42})
    cells: dict[str, str] = {}
    for row, (path, label, si, sort) in enumerate(plates(rig), 2):
        factor = {"length": METRES[rig.units.lengths], "mass": KG[rig.units.mass]}.get(sort, 1.0)
        put(sheet, row, 1, label)
        put(sheet, row, 2, si / factor, {"mass": MASS, "share": SHARE}.get(sort, PLAIN), typed=True)
        put(sheet, row, 3, source_words(rig, path))
        put(sheet, row, 4, path)
        cells[path] = f"Plates!$B${row}"
    return cells


OWN = ("number", "date", "place", "note", "decided", "tags")
"""What stands before the worked-out columns of the sheet “Weigh-ins”."""


def layout(rig: RigFile, known: CellNames, last: int) -> list[Column]:
    """The worked-out columns of the sheet “Weigh-ins”, those for reading first; ``last`` is the
    last row of readings.
    """
    none = "Plates!$G$1"  # an empty cell: the length is not known
    lengths = [
        known.get(path, none)
        for path in (
            "vehicle.geometry.wheelbase",
            "vehicle.geometry.hitch_offset",
            "trailer.geometry.coupler_to_axles",
        )
    ]
    shown = columns(
        "Tickets",
        "Tongue",
        last,
        towing=rig.towing,
        base=lengths[0],
        hitch=lengths[1],
        lever=lengths[2],
    )
    return sorted(shown, key=lambda column: _helper(column[0]))


def _weigh_ins(
    sheet: Worksheet, rig: RigFile, numbers: Sequence[int], known: CellNames, last: int
) -> dict[int, Mapping[str, str]]:
    """The derived weights; returns, by place in the rig file, the cell of each column."""
    shown = layout(rig, known, last)
    letters = {
        key: get_column_letter(column)
        for column, key in enumerate((*OWN, *(column[0] for column in shown)), 1)
    }
    head(
        sheet,
        ["weigh-in", "date", "place", "note", "decided", "tags", *(column[1] for column in shown)],
        {3: 24, 4: 30, 5: 30},
    )
    columns: dict[int, Mapping[str, str]] = {}
    for row, index in enumerate([*numbers, *[None] * 5], 2):
        weigh_in: WeighIn | None = None if index is None else rig.weigh_ins[index]
        cells = {key: f"${letter}{row}" for key, letter in letters.items()}
        if weigh_in is not None and index is not None:
            typed = [
                index + 1,
                weigh_in.date,
                weigh_in.place or "",
                weigh_in.note or "",
                weigh_in.decided or "",
                ", ".join(weigh_in.tags),
            ]
            for column, value in enumerate(typed, 1):
                put(sheet, row, column, value, typed=True)
            columns[index] = {
                key: f"'Weigh-ins'!${letter}${row}" for key, letter in letters.items()
            }
        fixed = beyond_formulas(rig, weigh_in) if weigh_in is not None else None
        for column, (key, _, formula, form) in enumerate(shown, len(OWN) + 1):
            if fixed is None or _helper(key):
                put(sheet, row, column, Formula(formula.format_map(cells), form))
            else:
                put(sheet, row, column, fixed.get(key, ""), form)
    return columns


def _helper(key: str) -> bool:
    """Whether a column only helps the others: readings looked up, their u², slopes, variances."""
    return bool(
        re.fullmatch(
            r"acc|has[A-Z]|[crswu]?[ESVCAH][frtvx]|[PQMKL][ESVCAH]|v?D|[tg]([ESVA][frtv]|D)|payload_pm",
            key,
        )
    )


def _items(sheet: Worksheet, rig: RigFile) -> None:
    unit = rig.units.mass
    head(
        sheet,
        [
            "item",
            f"mass of one, {unit}",
            "quantity",
            f"all, {unit}",
            "in the",
            f"position, {rig.units.lengths}",
            "aboard",
            "category",
        ],
        {1: 34},
    )
    for row, load in enumerate(rig.loads, 2):
        place = load.position.m / METRES[rig.units.lengths] if load.position else None
        typed: list[object] = [
            load.name,
            load.mass.kg / KG[unit],
            load.quantity,
            None,
            load.on,
            place,
            "yes" if load.aboard else "no",
            load.category or "",
        ]
        for column, value in enumerate(typed, 1):
            put(sheet, row, column, value, typed=True)
        put(sheet, row, 4, Formula(f"=B{row}*C{row}", MASS))
    end, totals_row = max(2, len(rig.loads) + 1), len(rig.loads) + 3
    for line, on in enumerate(("vehicle", "trailer")):
        put(sheet, totals_row + line, 1, f"aboard, in the {on}")
        put(
            sheet,
            totals_row + line,
            4,
            Formula(f'=SUMIFS(D2:D{end},E2:E{end},"{on}",G2:G{end},"yes")', MASS),
        )
