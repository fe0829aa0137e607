"""Writes random DXF files with ezdxf, one a number, and says what ezdxf sees in each from above: lines of places, in mm."""
import json
import math
import random
import sys

import ezdxf
from ezdxf import disassemble, path
from ezdxf.math import Vec3

folder, count = sys.argv[1], int(sys.argv[2])
versions = ["R12", "R2000", "R2004", "R2007", "R2010", "R2013", "R2018"]
units = {1: 25.4, 4: 1, 5: 10, 2: 304.8, 14: 100, 22: 100_000 / 3937}
tilts = [(0, 0, 1), (0, 0, 1), (0, 0, 1), (0, 0, -1), (0.3, 0.1, 0.9), (0, 1, -1), (1, 0.2, 0.4)]


def shape(space, r, version, mm):
    """One entity of those that lie in a plane of their own or in the world."""
    n = lambda a, b: round(r.uniform(a, b), 3)
    # Lengths, so many millimetres in the file's own unit.
    m = lambda a, b: round(r.uniform(a, b) / mm, 7)
    at = (m(-80, 80), m(-80, 80))
    own = {"extrusion": Vec3(r.choice(tilts)).normalize()}
    new = version != "R12"
    kind = r.choice(["line", "circle", "arc", "poly", "old", "solid"] + (["ellipse", "spline", "fit", "light", "hatch", "edges", "face"] if new else ["face"]))
    points = [(m(-60, 60), m(-60, 60)) for _ in range(r.randint(5, 8))]
    if kind == "line":
        space.add_line(at, (m(-80, 80), m(-80, 80)))
    elif kind == "circle":
        space.add_circle(at, m(1, 30), dxfattribs=own)
    elif kind == "arc":
        space.add_arc(at, m(1, 30), n(0, 360), n(0, 360), dxfattribs=own)
    elif kind == "ellipse":
        normal = own["extrusion"]
        axis = normal.cross(Vec3(n(-1, 1), n(-1, 1), n(2, 3))) if abs(normal.z) < 0.999 else Vec3(1, n(-1, 1), 0)
        major = axis.normalize(m(5, 30))
        whole = r.random() < 0.5
        space.add_ellipse(Vec3(at), major, n(0.2, 1), 0 if whole else n(0, 6), math.tau if whole else n(0, 6), dxfattribs=own)
    elif kind == "spline":
        spline = space.add_spline(degree=r.choice([2, 3, 4]), dxfattribs=own)
        from ezdxf.math import BSpline
        spline.apply_construction_tool(BSpline([Vec3(p) for p in points], order=spline.dxf.degree + 1))
    elif kind == "fit":
        spline = space.add_spline(fit_points=[Vec3(p) for p in points])
        if r.random() < 0.4:
            spline.dxf.start_tangent, spline.dxf.end_tangent = Vec3(n(-1, 1), 1), Vec3(1, n(-1, 1))
    elif kind == "light":
        space.add_lwpolyline([(x, y, r.choice([0, 0, n(-1, 1)])) for x, y in points], format="xyb", close=r.random() < 0.5, dxfattribs={**own, "elevation": m(-9, 9)})
    elif kind in ("poly", "old"):
        space.add_polyline2d([(x, y, r.choice([0, n(-1, 1)])) for x, y in points], format="xyb", close=r.random() < 0.5, dxfattribs=own)
    elif kind == "solid":
        x, y = at
        space.add_solid([(x, y), (x + 9 / mm, y), (x, y + 7 / mm), (x + 9 / mm, y + 8 / mm)], dxfattribs=own)
    elif kind == "face":
        x, y = at
        space.add_3dface([(x, y, 1), (x + 9 / mm, y, 2), (x + 8 / mm, y + 8 / mm, 3), (x, y + 7 / mm)])
    elif kind == "hatch":
        hatch = space.add_hatch()
        hatch.paths.add_polyline_path([(x, y, r.choice([0, n(0, 0.05)])) for x, y in points], is_closed=True)
    else:
        hatch = space.add_hatch()
        edges = hatch.paths.add_edge_path()
        x, y = at
        u = 1 / mm
        edges.add_line((x, y), (x + 20 * u, y))
        edges.add_arc((x + 20 * u, y + 6 * u), 6 * u, -90, 90, ccw=True)
        edges.add_ellipse((x + 10 * u, y + 12 * u), (10 * u, 0), n(0.2, 0.9), 0, 180, ccw=True)
        edges.add_line((x, y + 12 * u), (x, y))


def seen(space, mm):
    lines = []
    fine = 0.002 / mm
    add = lambda points: lines.append([[round(p.x * mm, 6), round(p.y * mm, 6)] for p in points])
    for entity in disassemble.recursive_decompose(space):
        kind = entity.dxftype()
        if kind in ("CIRCLE", "ARC", "ELLIPSE", "SPLINE"):
            add(entity.flattening(fine, segments=32) if kind == "SPLINE" else entity.flattening(fine))
            continue
        if kind in ("LWPOLYLINE", "POLYLINE"):
            for part in entity.virtual_entities():
                add(part.flattening(fine) if part.dxftype() == "ARC" else (part.dxf.start, part.dxf.end))
            continue
        if kind == "HATCH":
            paths = list(path.from_hatch(entity))
        elif kind in ("SOLID", "3DFACE"):
            corners = entity.wcs_vertices(close=True)
            paths = [path.from_vertices(corners)]
        else:
            paths = [path.make_path(entity)]
        for one in paths:
            # Closed polylines are so in the path, too.
            for part in one.sub_paths():
                add(part.flattening(fine, segments=32))
    return lines


truth = []
for seed in range(1, count + 1):
    r = random.Random(seed)
    version = r.choice(versions)
    doc = ezdxf.new(version)
    unit = r.choice(list(units))
    doc.header["$INSUNITS"] = unit
    # The oldest version states no unit.
    mm = 1 if version == "R12" else units[unit]
    n = lambda a, b: round(r.uniform(a, b), 3)
    m = lambda a, b: round(r.uniform(a, b) / mm, 7)
    block = doc.blocks.new("PART", base_point=(m(-5, 5), m(-5, 5)))
    for _ in range(r.randint(1, 3)):
        shape(block, r, version, mm)
    outer = doc.blocks.new("GROUP")
    outer.add_blockref("PART", (m(-9, 9), m(-9, 9)), dxfattribs={"rotation": n(0, 360)})
    space = doc.modelspace()
    for _ in range(r.randint(2, 5)):
        shape(space, r, version, mm)
    if r.random() < 0.7:
        scale = n(0.3, 2)
        own = {"xscale": scale, "yscale": r.choice([1, -1]) * scale, "zscale": scale, "rotation": n(0, 360), "extrusion": r.choice([(0, 0, 1), (0, 0, 1), (0, 0, -1)])}
        if r.random() < 0.3:
            own |= {"column_count": 3, "row_count": 2, "column_spacing": m(20, 50), "row_spacing": m(20, 50)}
        space.add_blockref(r.choice(["PART", "GROUP"]), (m(-50, 50), m(-50, 50)), dxfattribs=own)
    doc.saveas(f"{folder}/random-{seed}.dxf")
    truth.append({"mm": mm, "lines": seen(space, mm)})
print(json.dumps(truth))
