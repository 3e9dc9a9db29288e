"""Every file that Noxel writes, as a person reads it: where each word of a paper stands, what each
cell of the workbook holds, tables and calendar as they are. Kept, and looked through by a person
(the papers as pictures).
"""

import datetime
import io
import unittest
from collections.abc import Iterator
from decimal import Decimal
from typing import Any

from openpyxl import load_workbook
from pypdf import PdfReader
from pypdf.generic import ContentStream

from noxel.core.log import reminders
from noxel.core.rig import RigFile
from noxel.formats.ical import write_calendar
from noxel.formats.papers import paper
from noxel.formats.practice_sheet import practice_sheet
from noxel.formats.print_page import print_page
from noxel.formats.rig_json import write_rig
from noxel.formats.tables import items_csv, tickets_csv
from noxel.formats.workbook import workbook
from tests.api.test_photos import photo
from tests.core.wording.test_golden_rooms import TODAY, household
from tests.kept import as_kept

_ROWS = {"Checks": 60, "Plates": 80}
"""Of other sheets the first rows are enough: the rest has the same formulas."""


def words_of(pdf: bytes) -> Iterator[str]:
    """Each run of words of a PDF with its page, its place from the lower left corner [pt] and its
    size.
    """
    for number, page in enumerate(PdfReader(io.BytesIO(pdf)).pages, 1):
        texts: list[str] = []

        def look(text: str, cm: Any, at: Any, _font: Any, size: float, seen: Any = texts) -> None:
            if text.strip():
                x, y = cm[4] + at[4], cm[5] + at[5]
                seen.append(f"{x:.0f} {y:.0f} {size:.3g}: {text.strip()}")

        page.extract_text(visitor_text=look)
        yield f"page {number}"
        yield from texts


def strokes_of(pdf: bytes) -> Iterator[str]:
    """Each box, line and picture of a PDF: its page, where it is put [pt], what it is made of."""
    reader = PdfReader(io.BytesIO(pdf))
    for number, page in enumerate(reader.pages, 1):
        yield f"page {number}"
        at, outer = (0.0, 0.0), []
        for operands, operator in ContentStream(page["/Contents"], reader).operations:
            match operator:
                case b"q":
                    outer.append(at)
                case b"Q":
                    at = outer.pop()
                case b"cm":
                    at = at[0] + float(operands[4]), at[1] + float(operands[5])
                    if operands[:4] != [1, 0, 0, 1]:
                        yield f"{at[0]:.0f} {at[1]:.0f} × {' '.join(map(_short, operands[:4]))}"
                case b"Do":
                    yield f"{at[0]:.0f} {at[1]:.0f} picture"
                case b"re" | b"m" | b"l" | b"w" | b"d":
                    yield (
                        f"{at[0]:.0f} {at[1]:.0f} {operator.decode()} "
                        f"{' '.join(map(_short, operands))}"
                    )


def _short(value: Any) -> str:
    return f"{float(value):.1f}" if isinstance(value, int | float | Decimal) else str(value)


def cells_of(content: bytes) -> Iterator[str]:
    """Every cell of a workbook: what it holds, how it is shown; every column's width."""
    for sheet in load_workbook(io.BytesIO(content)):
        yield f"{sheet.title}, frozen at {sheet.freeze_panes}"
        yield " ".join(
            f"{key}={column_dimension.width:g}"
            for key, column_dimension in sheet.column_dimensions.items()
        )
        for data_validation in sheet.data_validations.dataValidation:
            yield f"  {data_validation.sqref}: {data_validation.formula1}"
        for rules in sheet.conditional_formatting:
            yield f"  {rules.sqref}: {[rule.formula for rule in rules.rules]}"
        for row in sheet.iter_rows(max_row=_ROWS.get(sheet.title, 6)):
            for cell in row:
                if cell.value is not None:
                    look = f"{cell.number_format}{' bold' if cell.font.b else ''}"
                    look += " typed" if cell.fill.fill_type else ""
                    yield f"{cell.coordinate} [{look}] {cell.value}"


class GoldenFormats(unittest.TestCase):
    maxDiff = 3000

    def rigs(self) -> Iterator[tuple[str, RigFile]]:
        for name, rig in household().items():
            if name in ("crowded", "library"):
                yield name, rig

    def test_papers(self) -> None:
        for name, rig in self.rigs():
            with self.subTest(name):
                as_kept(self, f"formats/{name}-page", list(words_of(paper(rig, today=TODAY))))
                full = paper(rig, full=True, today=TODAY, photos=[("the ticket", photo())])
                as_kept(self, f"formats/{name}-report", [*words_of(full), *strokes_of(full)])
                shown = print_page(rig, today=TODAY, to_do=[("chocks", "Ada, 1 May"), ("lamp", "")])
                as_kept(self, f"formats/{name}-print", shown.splitlines())

    def test_workbook(self) -> None:
        for name, rig in self.rigs():
            as_kept(self, f"formats/{name}-workbook", list(cells_of(workbook(rig))))

    def test_tables_and_calendar(self) -> None:
        for name, rig in self.rigs():
            as_kept(self, f"formats/{name}-tickets", tickets_csv(rig).splitlines())
            as_kept(self, f"formats/{name}-items", items_csv(rig).splitlines())
            now = datetime.datetime(2026, 11, 23, 8, 30, tzinfo=datetime.UTC)
            calendar = write_calendar("a rig", rig.name, reminders(rig, TODAY), now)
            as_kept(self, f"formats/{name}-calendar", calendar.decode().splitlines())

    def test_rig_file(self) -> None:
        for name, rig in self.rigs():
            as_kept(self, f"formats/{name}-rig-file", write_rig(rig).splitlines())

    def test_sheet_of_exercises(self) -> None:
        sheet = practice_sheet(["ticket", "tongue", "payload"], "7")
        as_kept(self, "formats/exercises", [*words_of(sheet), *strokes_of(sheet)])


if __name__ == "__main__":
    unittest.main()
