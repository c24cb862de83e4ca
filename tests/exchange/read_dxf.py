"""Reads DXF files with a reader that is not ours: audits them, and tells what is in them, a line each.

usage: read_dxf.py FILE …
"""
import sys

import ezdxf
from ezdxf.lldxf.encoding import decode_dxf_unicode

failed = False


def said(text):
    """As it is read: letters by their numbers, and a percent sign that is written three times."""
    return decode_dxf_unicode(text).replace("%%%", "%")


for name in sys.argv[1:]:
    doc = ezdxf.readfile(name)
    audit = doc.audit()
    if audit.errors:
        failed = True
        for e in audit.errors:
            print("ERROR", e.code, e.message)
    print("units", doc.header["$INSUNITS"])
    for e in doc.modelspace():
        kind, layer = e.dxftype(), e.dxf.layer
        if kind == "TEXT":
            at = e.dxf.insert if e.dxf.halign == 0 and e.dxf.valign == 0 else e.dxf.align_point
            print(f"text {layer} {at.x:.2f} {at.y:.2f} {e.dxf.height:.2f} {e.dxf.rotation:.0f} {said(e.plain_text())}")
        elif kind == "LINE":
            print(f"line {layer} {e.dxf.start.x:.2f} {e.dxf.start.y:.2f} {e.dxf.end.x:.2f} {e.dxf.end.y:.2f}")
        elif kind in ("LWPOLYLINE", "POLYLINE"):
            points = list(e.vertices()) if kind == "LWPOLYLINE" else [v.dxf.location for v in e.vertices]
            first, last = points[0], points[-1]
            closed = "closed" if (e.closed if kind == "LWPOLYLINE" else e.is_closed) else "open"
            print(f"path {layer} {first[0]:.2f} {first[1]:.2f} {last[0]:.2f} {last[1]:.2f} {closed} {len(points)}")
        elif kind == "INSERT":
            says = " ".join(f"{a.dxf.tag}={said(a.dxf.text)}" for a in e.attribs)
            print(f"block {layer} {e.dxf.name} {e.dxf.insert.x:.2f} {e.dxf.insert.y:.2f} {e.dxf.rotation:.0f} {says}")
        else:
            print(f"other {layer} {kind}")
    for block in doc.blocks:
        if not block.name.startswith("*"):
            print(f"defined {block.name} {len(block)}")
sys.exit(1 if failed else 0)
