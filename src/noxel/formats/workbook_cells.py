"""What is written into the cells of the workbook: figures that were typed, texts that stay texts,
formulas.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE, Cell
from openpyxl.styles import Alignment, Border, Font, PatternFill, Side
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.properties import PageSetupProperties
from openpyxl.worksheet.worksheet import Worksheet

from noxel.formats.workbook_terms import PLAIN

BOLD = Font(bold=True)
_TYPED = PatternFill("solid", fgColor="F5F1E6")
_RULE = Border(bottom=Side(style="thin"))


@dataclass(frozen=True, slots=True)
class Formula:
    """A cell that is worked out."""

    text: str
    form: str = PLAIN


def put(
    sheet: Worksheet,
    row: int,
    column: int,
    value: object,
    form: str | None = None,
    *,
    typed: bool = False,
) -> None:
    """Write a cell; one that was ``typed`` is tinted."""
    cell = sheet.cell(row, column)
    if not isinstance(cell, Cell):
        raise TypeError("a merged cell")
    if isinstance(value, Formula):
        cell.value, cell.number_format = value.text, value.form
    elif isinstance(value, str):
        cell.value = ILLEGAL_CHARACTERS_RE.sub("", value)[:32_000]
        cell.data_type = "s"  # a text whatever it looks like
        cell.quotePrefix = value[:1] in ("=", "+", "-", "@")
    else:
        cell.value = value  # type: ignore[assignment]
    if form:
        cell.number_format = form
    if typed and value is not None:
        cell.fill = _TYPED


def head(
    sheet: Worksheet, headings: Sequence[str], widths: Mapping[int, float] | None = None
) -> None:
    """The headings of a sheet, and how wide its columns are."""
    for column, heading in enumerate(headings, 1):
        put(sheet, 1, column, heading)
        sheet.cell(1, column).font = BOLD
        sheet.cell(1, column).border = _RULE
        sheet.cell(1, column).alignment = Alignment(wrap_text=True, vertical="bottom")
        sheet.column_dimensions[get_column_letter(column)].width = (widths or {}).get(column, 13)
    sheet.freeze_panes = "A2"
    sheet.page_setup.orientation, sheet.page_setup.fitToHeight = "landscape", 0
    sheet.sheet_properties.pageSetUpPr = PageSetupProperties(fitToPage=True)
