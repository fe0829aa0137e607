"""Writes DXF files with ezdxf, and says what ezdxf itself sees in them: a length and a box for each outline."""
import json
import math
import sys

import ezdxf
from ezdxf import path
from ezdxf.math import Vec2

folder = sys.argv[1]


def drawing(units):
    doc = ezdxf.new("R2000")
    doc.header["$INSUNITS"] = units
    return doc


def seen(entities):
    rows = []
    for entity in entities:
        points = [Vec2(p) for p in path.make_path(entity).flattening(1e-5)]
        length = sum((b - a).magnitude for a, b in zip(points, points[1:]))
        xs, ys = [p.x for p in points], [p.y for p in points]
        rows.append({"kind": entity.dxftype(), "length": length, "box": [min(xs), min(ys), max(xs), max(ys)]})
    return rows


doc = drawing(1)
space = doc.modelspace()
space.add_line((0, 0), (3, 4))
space.add_circle((10, 2), 1.25)
space.add_arc((16, 2), 2, 300, 75)
space.add_ellipse((24, 3), (3, 1), 0.4)
space.add_ellipse((34, 3), (0, 2.5), 0.6, 0.3, 4)
space.add_lwpolyline([(40, 0, 0.5), (44, 0, 0), (44, 3, -0.8), (40, 3, 0)], format="xyb", close=True)
space.add_polyline2d([(50, 0, 1), (52, 0, 0), (53, 2, 0.2)], format="xyb")
space.add_spline(degree=3).control_points = [(60, 0), (61, 4), (64, -3), (67, 5), (70, 0)]
space.query("SPLINE")[0].knots = [0, 0, 0, 0, 1, 2, 2, 2, 2]
rational = space.add_rational_spline([(80, 0), (80, 2), (82, 2)], [1, math.sqrt(0.5), 1], degree=2)
rational.knots = [0, 0, 0, 1, 1, 1]
plain = seen(space)
doc.saveas(f"{folder}/entities.dxf")

doc = drawing(4)
doc.layers.add("CREASE", linetype="DASHED") if "DASHED" in doc.linetypes else doc.layers.add("CREASE")
block = doc.blocks.new("TAB", base_point=(1, 0))
block.add_lwpolyline([(0, 0), (2, 0, 0, 0, 1), (2, 1), (0, 1)], close=True)
block.add_line((0, 0.5), (2, 0.5), dxfattribs={"layer": "CREASE"})
space = doc.modelspace()
space.add_blockref("TAB", (10, 20), dxfattribs={"xscale": 3, "yscale": 2, "rotation": 30})
space.add_blockref("TAB", (40, 20), dxfattribs={"xscale": -1, "yscale": 1})
inserted = seen([e for ref in space.query("INSERT") for e in ref.virtual_entities()])
space.add_text("not an outline")
doc.saveas(f"{folder}/blocks.dxf")

doc = drawing(0)
doc.modelspace().add_circle((0, 0), 5)
doc.saveas(f"{folder}/unitless.dxf")

print(json.dumps({"entities": plain, "blocks": inserted}))
