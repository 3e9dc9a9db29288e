"""Every file that Noxel writes, as a person reads it: where each word of a paper stands, what each
cell of the workbook holds, tables and calendar as they are. Kept, and looked through by a person
(the papers as pictures).
"""

import datetime
import io
import unittest
from collections.abc import Iterator
from typing import Any

from openpyxl import load_workbook
from pypdf import PdfReader

from noxel.core.log import reminders
from noxel.formats.ical import write_calendar
from noxel.formats.papers import paper
from noxel.formats.practice_sheet import practice_sheet
from noxel.formats.tables import items_csv, tickets_csv
from noxel.formats.workbook import workbook
from tests.api.test_photos import photo
from tests.core.wording.test_golden_rooms import TODAY, household
from tests.kept import as_kept

_ROWS = {"Checks": 12, "Plates": 12}
"""The sheets that are read, and their rows: the rest has the same formulas."""


def words_of(pdf: bytes) -> Iterator[str]:
    """The words of a PDF, a row on a line: its height above the lower edge [pt], the size of its
    letters, and where each run of words begins.
    """
    for number, page in enumerate(PdfReader(io.BytesIO(pdf)).pages, 1):
        rows: dict[str, list[str]] = {}

        def look(text: str, cm: Any, at: Any, _font: Any, size: float, rows: Any = rows) -> None:
            if text.strip():
                row = rows.setdefault(f"{cm[5] + at[5]:.0f} {size:.3g}", [])
                row.append(f"{cm[4] + at[4]:.0f} {text.strip()}")

        page.extract_text(visitor_text=look)
        yield f"page {number}"
        yield from (f"{place}: {' | '.join(runs)}" for place, runs in rows.items())


def cells_of(content: bytes) -> Iterator[str]:
    """Every cell of a workbook: what it holds, how it is shown; every column's width."""
    for sheet in map(load_workbook(io.BytesIO(content)).__getitem__, _ROWS):
        yield f"{sheet.title}, frozen at {sheet.freeze_panes}"
        yield " ".join(
            f"{key}={column_dimension.width:g}"
            for key, column_dimension in sheet.column_dimensions.items()
        )
        for data_validation in sheet.data_validations.dataValidation:
            yield f"  {data_validation.sqref}: {data_validation.formula1}"
        for rules in sheet.conditional_formatting:
            yield f"  {rules.sqref}: {[rule.formula for rule in rules.rules]}"
        for row in sheet.iter_rows(max_row=_ROWS[sheet.title]):
            for cell in row:
                if cell.value is not None:
                    look = f"{cell.number_format}{' bold' if cell.font.b else ''}"
                    look += " typed" if cell.fill.fill_type else ""
                    yield f"{cell.coordinate} [{look}] {cell.value}"


class GoldenFormats(unittest.TestCase):
    maxDiff = 3000

    def setUp(self) -> None:
        self.crowded, self.caravan = (household()[name] for name in ("crowded", "library"))

    def test_papers(self) -> None:
        as_kept(self, "formats/crowded-page", list(words_of(paper(self.crowded, today=TODAY))))
        full = paper(self.caravan, full=True, today=TODAY, photos=[("the ticket", photo())])
        as_kept(self, "formats/library-report", list(words_of(full)))

    def test_workbook(self) -> None:
        as_kept(self, "formats/library-workbook", list(cells_of(workbook(self.caravan))))

    def test_tables_and_calendar(self) -> None:
        for name, rig in (("crowded", self.crowded), ("library", self.caravan)):
            as_kept(self, f"formats/{name}-tickets", tickets_csv(rig).splitlines())
            as_kept(self, f"formats/{name}-items", items_csv(rig).splitlines())
        now = datetime.datetime(2026, 11, 23, 8, 30, tzinfo=datetime.UTC)
        calendar = write_calendar("a rig", "crowded", reminders(self.crowded, TODAY), now)
        as_kept(self, "formats/crowded-calendar", calendar.decode().splitlines())

    def test_sheet_of_exercises(self) -> None:
        sheet = practice_sheet(["tongue"], "7")
        as_kept(self, "formats/exercises", list(words_of(sheet)))


if __name__ == "__main__":
    unittest.main()
