"""Workbooks for LoadListTest, written by a library that is not the program's own. Usage: make_xlsx.py FOLDER"""
import sys
from pathlib import Path

from openpyxl import Workbook

folder = Path(sys.argv[1])

# A list as a mechanical engineer sends it: a title, an empty row, headings, merged rooms, a formula, a total.
book = Workbook()
cover = book.active
cover.title = "Cover"
sheet = book.create_sheet("Equipment")
sheet["A1"] = "Equipment list, revision B"
sheet.append([])
sheet.append(["Tag", "Description", "Location", "kW", "Volts", "Phases", "Panel", "Remarks"])
sheet.append(["EF-1", "Exhaust fan", "Plant deck", 0.75, 208, 1, "LP-1", "by others"])
sheet.append(["EF-2", "Exhaust fan", None, 1.5, 208, 3, "LP-1", None])
sheet.append(["P-1", "Sump pump", "Pit", "=0.5+1.7", 208, 3, "PP-9", None])
sheet.append(["P-2", "Jockey pump", "Pit", -2.2, 208, 3, "PP-9", None])
sheet.append(["EF-2", "Exhaust fan again", "Roof", 2, 208, 3, "LP-1", None])
sheet.append(["Total", None, None, "=SUM(D4:D8)"])
sheet.merge_cells("C4:C5")
book.save(folder / "equipment.xlsx")

empty = Workbook()
empty.save(folder / "empty.xlsx")
