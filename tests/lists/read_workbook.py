#!/usr/bin/python3
"""Reads a workbook with a library of its own and works its sums out again: a line a sheet, then what does not agree.

usage: read_workbook.py FILE
"""
import re
import sys

from openpyxl import load_workbook

formulas = load_workbook(sys.argv[1])
values = load_workbook(sys.argv[1], data_only=True)
for sheet in formulas.worksheets:
    shown = values[sheet.title]
    sums = 0
    for row in sheet.iter_rows():
        for cell in row:
            text = cell.value
            if cell.data_type != "f":  # a text that begins with "=" is a text
                continue
            match = re.fullmatch(r"=SUM\((.*)\)", text)
            if not match:
                print("BAD formula", sheet.title, cell.coordinate, text)
                continue
            sums += 1
            total = 0.0
            for part in match.group(1).split(","):
                for (one,) in sheet[part]:
                    if isinstance(one.value, (int, float)):
                        total += one.value
            kept = shown[cell.coordinate].value
            if abs(total - kept) > 1e-6 * max(1.0, abs(kept)):
                print("BAD sum", sheet.title, cell.coordinate, total, kept)
    frozen = sheet.freeze_panes == "A2"
    repeated = sheet.print_title_rows in ("$1:$1", "1:1")
    fits = sheet.page_setup.fitToWidth in (None, 1) and sheet.sheet_properties.pageSetUpPr.fitToPage
    print("sheet", sheet.title, "rows", sheet.max_row, "sums", sums, "frozen", frozen, "repeated", repeated, "fits", bool(fits))
