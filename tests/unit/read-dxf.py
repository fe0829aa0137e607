"""Reads DXF files with ezdxf, strictly, and prints what it found as JSON. Complaints of its audit are part of that."""

import json
import sys

import ezdxf
from ezdxf import bbox


def read(file):
    document = ezdxf.readfile(file)
    audit = document.audit()
    outlines = []
    for entity in document.modelspace():
        outlines.append(
            {
                "type": entity.dxftype(),
                "layer": entity.dxf.layer,
                "closed": bool(getattr(entity, "closed", False)),
                "points": [list(p) for p in entity.get_points("xyb")] if entity.dxftype() == "LWPOLYLINE" else [],
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
