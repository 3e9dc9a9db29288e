"""Files read and written: tables, papers, workbook, calendar."""
