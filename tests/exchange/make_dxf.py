# Writes the same small drawing in every version of DXF that the library knows, and prints their names. Made for DxfTest.cpp:
# whatever stands here is measured there.
import sys
import ezdxf
from ezdxf import units

folder = sys.argv[1]
for version in ["R12", "R2000", "R2004", "R2007", "R2010", "R2013", "R2018"]:
    doc = ezdxf.new(version)
    if version != "R12":
        doc.header["$INSUNITS"] = units.MM
    doc.layers.new("WALLS", dxfattribs={"color": 1})
    doc.layers.new("HIDDEN", dxfattribs={"color": 3})
    doc.layers.get("HIDDEN").off()
    space = doc.modelspace()
    walls = {"layer": "WALLS"}
    space.add_line((0, 0), (10000, 0), dxfattribs=walls)
    # A room 4 m by 3 m, closed.
    corners = [(1000, 1000), (5000, 1000), (5000, 4000), (1000, 4000)]
    if version == "R12":
        space.add_polyline2d(corners, dxfattribs={"layer": "ROOMS"}).close(True)
    else:
        space.add_lwpolyline(corners, dxfattribs={"layer": "ROOMS"}).close(True)
    # A half circle as a bulge of one: from (0, 6000) to (2000, 6000), below its chord, 1 m deep.
    if version == "R12":
        line = space.add_polyline2d([(0, 6000), (2000, 6000)], dxfattribs={"layer": "BULGE"})
        line.vertices[0].dxf.bulge = 1
    else:
        space.add_lwpolyline([(0, 6000, 1), (2000, 6000, 0)], format="xyb", dxfattribs={"layer": "BULGE"})
    space.add_circle((8000, 8000), 500, dxfattribs={"layer": "CIRCLE", "color": 5})
    space.add_arc((8000, 3000), 1000, 0, 90, dxfattribs={"layer": "ARC"})
    if version != "R12":
        space.add_ellipse((3000, 9000), (2000, 0), 0.5, dxfattribs={"layer": "ELLIPSE"})
        space.add_open_spline([(0, 12000), (1000, 14000), (3000, 14000), (4000, 12000)], dxfattribs={"layer": "SPLINE"})
    space.add_line((0, 20000), (1, 20000), dxfattribs={"layer": "HIDDEN"})
    # A block of one square metre that holds another, turned and scaled; two by one of it in the drawing.
    inner = doc.blocks.new("INNER")
    inner.add_line((0, 0), (1000, 0))
    outer = doc.blocks.new("OUTER")
    outer.add_blockref("INNER", (0, 0), dxfattribs={"xscale": 2, "yscale": 2, "rotation": 90})
    space.add_blockref("OUTER", (20000, 1000), dxfattribs={"layer": "BLOCKS", "rotation": 90, "column_count": 2, "column_spacing": 3000})
    space.add_text("Store", dxfattribs={"layer": "TEXT", "height": 250}).set_pos((2000, 2000))
    space.add_text("007", dxfattribs={"layer": "TEXT", "height": 200}).set_pos((2000, 1500))
    if version != "R12":
        space.add_mtext("{\\fSans;Caf\u00e9 \u2014 ground}\\PKitchen", dxfattribs={"layer": "MTEXT", "char_height": 300, "insert": (12000, 12000)})
    doc.saveas(f"{folder}/{version}.dxf")
    print(version)
