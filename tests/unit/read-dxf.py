"""Reads DXF files with ezdxf, strictly, and prints what it found as JSON. Complaints of its audit are part of that."""

import json
import math
import sys

import ezdxf
from ezdxf import bbox
from ezdxf.path import make_path


def along(entity):
    # A rational spline made a path would only be approximated.
    if entity.dxftype() == "SPLINE":
        return entity.construction_tool().approximate(600)
    return make_path(entity).flattening(0.001, 16)


def is_closed(entity):
    if entity.dxftype() == "ELLIPSE":
        return abs(entity.dxf.end_param - entity.dxf.start_param) > math.tau - 1e-9
    return bool(getattr(entity, "closed", False) or getattr(entity, "is_closed", False))


def read(file):
    document = ezdxf.readfile(file)
    audit = document.audit()
    outlines = []
    for entity in document.modelspace():
        outlines.append(
            {
                "type": entity.dxftype(),
                "layer": entity.dxf.layer,
                "closed": is_closed(entity),
                "points": [list(p) for p in entity.get_points("xyb")] if entity.dxftype() == "LWPOLYLINE" else [],
                # Places along it, as ezdxf itself works splines, bulges and ellipses out.
                "along": [[p.x, p.y] for p in along(entity)],
            }
        )
    box = bbox.extents(document.modelspace())
    return {
        "version": document.dxfversion,
        "insunits": document.header.get("$INSUNITS"),
        "errors": [error.message for error in audit.errors],
        "fixes": [fix.message for fix in audit.fixes],
        "layers": sorted(layer.dxf.name for layer in document.layers),
        "min": list(box.extmin)[:2],
        "max": list(box.extmax)[:2],
        "outlines": outlines,
    }


print(json.dumps([read(file) for file in sys.argv[1:]]))
