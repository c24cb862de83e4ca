#!/usr/bin/python3
"""Has a spreadsheet program work the sums of a workbook out: as they are, and with every number doubled.

usage: recompute_workbook.py FILE
"""
import os
import subprocess
import sys
import tempfile

from openpyxl import load_workbook

file = sys.argv[1]
formulas, shown = load_workbook(file), load_workbook(file, data_only=True)


def recomputed(book, folder, name):
    """The values that the program finds; the library keeps none beside a formula when it writes."""
    before, after = os.path.join(folder, name + ".xlsx"), os.path.join(folder, name + "-after.xlsx")
    book.save(before)
    subprocess.run(["ssconvert", "--recalc", before, after], check=True, capture_output=True, timeout=120)
    return load_workbook(after, data_only=True)


def sums(book):
    return [(sheet.title, cell.coordinate) for sheet in book.worksheets for row in sheet.iter_rows()
            for cell in row if cell.data_type == "f"]


with tempfile.TemporaryDirectory() as folder:
    places = sums(formulas)
    once = recomputed(formulas, folder, "once")
    for sheet in formulas.worksheets:
        for row in sheet.iter_rows():
            for cell in row:
                if isinstance(cell.value, (int, float)) and not isinstance(cell.value, bool):
                    cell.value *= 2
    twice = recomputed(formulas, folder, "twice")
    for title, place in places:
        kept = shown[title][place].value
        for factor, book in ((1, once), (2, twice)):
            found = book[title][place].value
            if not isinstance(found, (int, float)) or abs(found - factor * kept) > 1e-6 * max(1.0, abs(kept)):
                print("BAD", title, place, "kept", kept, "times", factor, "found", found)
    print("recomputed", len(places))
