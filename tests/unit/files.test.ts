/** The files that Nuvet writes, read back by programs that it did not write, against closed forms. */
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EmptyFileError, type FilePiece, writeDxf, writeSvg } from '@nuvet/core/formats';
import { circlePath, ellipsePath, nearestOnPath, pathBox, pathLength, type Segment } from '@nuvet/core/plane';
import { curveThrough, ellipse, piece, roundedRectangle, star } from '@nuvet/truth';
import { afterAll, describe, expect, it } from 'vitest';
import { dxfSeenByEzdxf, polylinesSeenByDxfParser, svgSeen } from './outside-readers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-files-'));
afterAll(() => rmSync(folder, { recursive: true }));

const named = (name: string, purpose: FilePiece['purpose'], p: ReturnType<typeof piece>): FilePiece => ({ name, purpose, ...p });
const pieces: FilePiece[] = [
  named(
    'Plate & "cover"',
    'cut',
    piece(roundedRectangle(30, 40, 90, 60, 8), [circlePath({ x: 42, y: 52 }, 3), ellipse({ x: 75, y: 70 }, 15, 8)]),
  ),
  named('Star', 'score', piece(star({ x: 160, y: 70 }, 5, 30, 12))),
  named(
    'Leaf',
    'stitch',
    piece(
      curveThrough([
        [30, 120, 'corner'],
        [60, 135],
        [90, 130, 'corner'],
        [60, 115],
      ]),
    ),
  ),
  named('Slot', 'engrave', piece(roundedRectangle(100, 120, 40, 10, 4.999))),
];
// The plate starts at x 30 and y 40; the star's right tip lies at 160 + 30 cos 18 degrees; the leaf's top is its highest.
const rightTip = 160 + 30 * Math.cos((18 * Math.PI) / 180);

describe('SVG', () => {
  const seen = svgSeen(writeSvg(pieces, 'Lantern <1> & float'));
  it('states its true size in millimetres, one unit a millimetre', () => {
    expect(seen.widthMm).toBeCloseTo(rightTip - 30, 3);
    expect(seen.viewBox).toEqual([0, 0, seen.widthMm, seen.heightMm]);
  });
  it('holds one path a piece with its holes, even-odd, in groups by purpose', () => {
    expect(seen.groups).toEqual(['cut', 'score', 'engrave', 'stitch']);
    expect(seen.paths.map((p) => [p.rule, p.d.split('M').length - 1])).toEqual([
      ['evenodd', 3],
      ['evenodd', 1],
      ['evenodd', 1],
      ['evenodd', 1],
    ]);
  });
  it('is as large as the truth for another reader, the right way up', () => {
    const plate = seen.paths[0] as (typeof seen.paths)[0];
    expect(plate.box.maxX - plate.box.minX).toBeCloseTo(90, 2);
    expect(plate.box.maxY - plate.box.minY).toBeCloseTo(60, 2);
    // The plate is lowest on the sheet, so it must be lowest in the file, where y runs down.
    expect(plate.box.maxY).toBeCloseTo(seen.heightMm, 2);
    // 2 (74 + 44) + 16 pi, 6 pi, and the oval by the path measure that plane.test.ts checks against Ramanujan.
    const oval = pathLength(pieces[0]?.holes[1] as FilePiece['outer']);
    expect(plate.length).toBeCloseTo(236 + 22 * Math.PI + oval, 1);
  });
});

describe('DXF', () => {
  const text = writeDxf(pieces, 'Lantern');
  const file = join(folder, 'all.dxf');
  writeFileSync(file, text);
  const [seen] = dxfSeenByEzdxf(file);
  it('is AC1015 in millimetres and passes a strict reader without a complaint', () => {
    expect(seen).toMatchObject({ version: 'AC1015', insunits: 4, errors: [], fixes: [] });
    expect(seen?.layers).toEqual(expect.arrayContaining(['CUT', 'SCORE', 'STITCH', 'ENGRAVE']));
  });
  it("holds every outline as one closed polyline on its purpose's layer, a whole ellipse as one", () => {
    expect(seen?.outlines.map((o) => [o.type, o.layer, o.closed])).toEqual([
      ['LWPOLYLINE', 'CUT', true], ['LWPOLYLINE', 'CUT', true], ['ELLIPSE', 'CUT', true],
      ['LWPOLYLINE', 'SCORE', true], ['LWPOLYLINE', 'STITCH', true], ['LWPOLYLINE', 'ENGRAVE', true],
    ]); // biome-ignore format: a piece a line
  });
  it('keeps arcs as arcs: the round corners have the bulge of a quarter turn, the hole of a half', () => {
    const bulges = (k: number) => seen?.outlines[k]?.points.map((p) => Math.abs(p[2])).filter((b) => b > 0) ?? [];
    expect(bulges(0)).toEqual(Array(4).fill(expect.closeTo(Math.tan(Math.PI / 8), 9)));
    expect(bulges(1)).toEqual(Array(2).fill(expect.closeTo(1, 9)));
  });
  it('is as large as the truth, from 0, 0, for two readers', () => {
    expect(seen?.min[0]).toBeCloseTo(0, 6);
    expect(seen?.min[1]).toBeCloseTo(0, 6);
    expect(seen?.max[0]).toBeCloseTo(rightTip - 30, 2);
    const corners = polylinesSeenByDxfParser(text)[0]?.vertices ?? [];
    expect(corners).toHaveLength(8);
    expect(Math.max(...corners.map((v) => v.x)) - Math.min(...corners.map((v) => v.x))).toBeCloseTo(90, 6);
    expect(Math.max(...corners.map((v) => v.y)) - Math.min(...corners.map((v) => v.y))).toBeCloseTo(60, 6);
  });
  it('keeps an ellipse exact, and without that kind follows it with arcs within 0.005 mm of its equation', () => {
    const exact = seen?.outlines[2]?.along ?? [];
    expect(exact.length).toBeGreaterThan(20);
    for (const [x = 0, y = 0] of exact) expect(((x - 45) / 15) ** 2 + ((y - 30) / 8) ** 2).toBeCloseTo(1, 2);
    const plain = join(folder, 'plain.dxf');
    writeFileSync(plain, writeDxf(pieces, 'Lantern', { dxf: 'plain', unit: 'mm', toleranceMm: 0.005 }));
    const oval = (polylinesSeenByDxfParser(readFileSync(plain, 'utf8'))[2]?.vertices ?? []).map((v) => [v.x, v.y, v.bulge ?? 0] as const);
    const centre = { x: 75 - 30, y: 70 - 40 };
    oval.forEach(([x, y, bulge], k) => {
      const [x2, y2] = oval[(k + 1) % oval.length] as readonly [number, number, number];
      // The arc's middle lies bulge x half the chord beside the chord's middle, to the right of the travel for a bulge above 0.
      const [mx, my] = [(x + x2) / 2 + (bulge * (y2 - y)) / 2 - centre.x, (y + y2) / 2 - (bulge * (x2 - x)) / 2 - centre.y];
      for (const [px, py] of [
        [mx, my],
        [x - centre.x, y - centre.y],
      ] as const) {
        const f = (px / 15) ** 2 + (py / 8) ** 2 - 1;
        // First-order distance from the implicit curve (Taubin 1991).
        expect(Math.abs(f / (2 * Math.hypot(px / 225, py / 64)))).toBeLessThan(0.0051);
      }
    });
    expect(oval.length).toBeLessThan(80);
  });
});

it('an empty job is refused, not written', () => {
  expect(() => writeSvg([], 'x')).toThrow(EmptyFileError);
  expect(() => writeDxf([], 'x')).toThrow(EmptyFileError);
});

describe('an ellipse', () => {
  // Half axes 15 and 8 mm, turned by 0.4; its length by Ramanujan's second formula, true to 1e-5 here.
  const path = ellipsePath({ x: 40, y: 30 }, 15, 8, 0.4);
  const h = ((15 - 8) / (15 + 8)) ** 2;
  const length = Math.PI * 23 * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
  const oval: FilePiece = { name: 'Oval', purpose: 'cut', outer: path, holes: [] };
  const wide = 2 * Math.hypot(15 * Math.cos(0.4), 8 * Math.sin(0.4));
  const high = 2 * Math.hypot(15 * Math.sin(0.4), 8 * Math.cos(0.4));

  it('is arcs of an ellipse in SVG, as long and as large for another reader', () => {
    const [seen] = svgSeen(writeSvg([oval], 'Oval')).paths;
    expect(seen?.d).toMatch(/A15 8 /);
    expect(seen?.d).not.toContain('C');
    expect(seen?.length).toBeCloseTo(length, 2);
    expect((seen?.box.maxX ?? 0) - (seen?.box.minX ?? 0)).toBeCloseTo(wide, 2);
    expect((seen?.box.maxY ?? 0) - (seen?.box.minY ?? 0)).toBeCloseTo(high, 2);
  });
  it('is one ELLIPSE in DXF, without a complaint, at its true size', () => {
    const file = join(folder, 'oval.dxf');
    writeFileSync(file, writeDxf([oval], 'Oval'));
    const [seen] = dxfSeenByEzdxf(file);
    expect(seen).toMatchObject({ errors: [], fixes: [] });
    expect(seen?.outlines.map((o) => o.type)).toEqual(['ELLIPSE']);
    // ezdxf measures curves by chords.
    expect((seen?.max[0] ?? 0) - (seen?.min[0] ?? 0)).toBeCloseTo(wide, 1);
    expect((seen?.max[1] ?? 0) - (seen?.min[1] ?? 0)).toBeCloseTo(high, 1);
  });
  it('that is only part of an outline becomes arcs within 0.005 mm', () => {
    const half: FilePiece = {
      name: 'Half',
      purpose: 'cut',
      outer: { start: path.start, segments: [path.segments[0] as Segment, { kind: 'line', to: path.start }], closed: true },
      holes: [],
    };
    const [seen] = polylinesSeenByDxfParser(writeDxf([half], 'Half'));
    expect(seen?.vertices.length).toBeGreaterThan(6);
    const { minX, minY } = pathBox(half.outer);
    for (const { x, y } of seen?.vertices ?? []) {
      expect(nearestOnPath(half.outer, { x: x + minX, y: y + minY }).distance).toBeLessThan(0.005);
    }
  });
});
