"""Rows as the bytes of spreadsheets."""

import io
from datetime import datetime
from typing import Any


def xlsx(sheets: dict[str, list[list[Any]]]) -> bytes:
    """A workbook of sheets, by name."""
    from openpyxl import Workbook

    book = Workbook()
    book.remove(book.active)
    for name, rows in sheets.items():
        sheet = book.create_sheet(name)
        for row in rows:
            sheet.append(row)
    held = io.BytesIO()
    book.save(held)
    return held.getvalue()


def ods(rows: list[list[Any]]) -> bytes:
    """An OpenDocument spreadsheet of one sheet."""
    from odf.opendocument import OpenDocumentSpreadsheet
    from odf.table import Table, TableCell, TableRow
    from odf.text import P

    document = OpenDocumentSpreadsheet()
    table = Table(name="Data")
    for row in rows:
        line = TableRow()
        for value in row:
            if isinstance(value, datetime):
                cell = TableCell(valuetype="date", datevalue=value.isoformat())
            elif isinstance(value, float):
                cell = TableCell(valuetype="float", value=str(value))
            else:
                cell = TableCell(valuetype="string")
                cell.addElement(P(text=str(value)))
            line.addElement(cell)
        table.addElement(line)
    document.spreadsheet.addElement(table)
    held = io.BytesIO()
    document.write(held)
    return held.getvalue()
