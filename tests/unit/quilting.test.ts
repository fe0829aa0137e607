import {
  circleOf,
  circlePath,
  isInside,
  nearestOnPath,
  type Path,
  pathArea,
  pathBox,
  polygonPath,
  rectanglePath,
  stepsOf,
} from '@nuvet/core/plane';
import {
  type BlockPiece,
  blockOf,
  cutText,
  fabricsFromPicture,
  foundationsOf,
  inchMm,
  isSetIn,
  patchShapes,
  piecingOrder,
  plainQuilting,
  type QuiltPlan,
  quiltOf,
  quiltPlan,
  rotaryCut,
  templatesOf,
  unitsOf,
} from '@nuvet/core/quilting';
import { finished } from '@nuvet/core/steps';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type BlockDraft, blockDrafts, drawnSeams } from './block-drafts.ts';
import { lawRuns } from './random-laws.ts';

const planOf = (draft: BlockDraft, change: Partial<typeof plainQuilting> = {}, drawnMm = 120): QuiltPlan =>
  finished(quiltPlan(drawnSeams(draft, drawnMm), { ...plainQuilting, finishedMm: draft.finishedIn * inchMm, ...change }));

const line = (x0: number, y0: number, x1: number, y1: number): Path => ({ start: { x: x0, y: y0 }, segments: [{ kind: 'line', to: { x: x1, y: y1 } }], closed: false }); // biome-ignore format: one line
const asPieces = (paths: readonly Path[]): BlockPiece[] => paths.map((outer, k) => ({ id: String(k), outer, holes: [] }));

describe.each(blockDrafts.map((draft) => [draft.name, draft] as const))('%s', (_, draft) => {
  const plan = planOf(draft);
  it('has the patches and the sizes to cut that quilters cut it by', () => {
    const found = plan.cutting.rows
      .filter(({ kind }) => kind === 'patch')
      .map(({ count, figure, ...cut }) => ({ count, figure, at: cutText({ figure, ...cut }) }));
    const byText = (a: { at: string; count: number }, b: { at: string; count: number }) => a.at.localeCompare(b.at) || a.count - b.count;
    expect([...found].sort(byText)).toEqual([...draft.cut].sort(byText));
  });
  it('has patches that fill it', () => {
    const side = draft.finishedIn * inchMm;
    const sum = plan.block.map.faces.reduce((all, { area }) => all + area, 0);
    expect(Math.abs(sum / side ** 2 - 1)).toBeLessThan(1e-6);
  });
  it(draft.isSewn ? 'is sewn along seams right across' : 'has patches that must be set in', () => {
    expect(unitsOf(plan.piecing).some(isSetIn)).toBe(!draft.isSewn);
    // Every unit is what its parts are, each patch once.
    for (const { faces, parts } of unitsOf(plan.piecing))
      if (parts.length > 0) expect(parts.flatMap((part) => part.faces).sort((a, b) => a - b)).toEqual([...faces].sort((a, b) => a - b));
  });
});

describe('patches', () => {
  it('that are mirror images have one name, and half of them are reversed; ones that are their own mirror image never are', () => {
    const of = (name: string) => {
      const plan = planOf(blockDrafts.find((draft) => draft.name === name) as BlockDraft);
      return plan.cutting.rows.map(({ what, count, reversed }) => [what, count, reversed]);
    };
    expect(of('Attic Window')).toEqual([['A', 1, 0], ['B', 2, 1]]); // biome-ignore format: one line
    expect(of('Pinwheel').map(([, , reversed]) => reversed)).toEqual([0]);
  });
});

describe('a block', () => {
  const star = blockDrafts.find(({ name }) => name === 'Sawtooth Star') as BlockDraft;
  it('lies on its grid, drawn a little beside it, and says how far each corner was moved', () => {
    const beside = drawnSeams(star, 120).map((piece, k): BlockPiece => {
      const off = (j: number): number => 0.3 * Math.sin(7 * k + 3 * j);
      const { start, segments, closed } = piece.outer;
      if (closed) return piece;
      const to = segments[0]?.to as { x: number; y: number };
      return { ...piece, outer: line(start.x + off(1), start.y + off(2), to.x + off(3), to.y + off(4)) };
    });
    const block = blockOf(beside, { ...plainQuilting, finishedMm: 304.8 });
    expect(block.grid).toBe('4');
    expect(block.map.faces.length).toBe(17);
    expect(block.moved.length).toBeGreaterThan(5);
    for (const { from, to } of block.moved) expect(Math.hypot(to.x - from.x, to.y - from.y)).toBeLessThan(2.5);
    for (const { x, y } of block.map.nodes) for (const v of [x, y]) expect(Math.abs(v / 76.2 - Math.round(v / 76.2))).toBeLessThan(1e-9);
  });
  it('of patches drawn apart is what it is of the lines between', () => {
    const gap = 0.9;
    const { map } = planOf(star).block;
    const shrink = 120 / 304.8;
    const apart = map.faces.map(({ outer }, k): BlockPiece => {
      const corners = stepsOf(outer).map(({ from }) => ({ x: from.x * shrink, y: from.y * shrink }));
      return { id: String(k), outer: drawnIn(corners, gap / 2), holes: [] };
    });
    const block = blockOf(apart, { ...plainQuilting, finishedMm: 304.8 });
    expect(block.gapMm).toBeCloseTo(gap, 6);
    expect(block.map.faces.length).toBe(17);
    expect(block.isDrawn.every(Boolean)).toBe(true);
    expect(patchShapes(block).map(({ patches }) => patches.length)).toEqual(
      patchShapes(planOf(star).block).map(({ patches }) => patches.length),
    );
  });
  it('finds the divisions that it was drafted on, and no finer ones', () => {
    for (const count of [2, 3, 4, 5, 6, 7, 8, 9, 10, 12]) {
      const lines = Array.from({ length: count - 1 }, (_, k) => k + 1).flatMap((k) => [line((k * 100) / count, 0, (k * 100) / count, 100), line(0, (k * 100) / count, 100, (k * 100) / count)]); // biome-ignore format: one line
      expect(blockOf(asPieces(lines), plainQuilting).grid).toBe(String(count));
    }
  });
  it('finds the proportions of an eight-pointed star', () => {
    const short = 100 / (2 + Math.SQRT2);
    const [a, b] = [short, 100 - short];
    const rays = [[a, 0], [b, 0], [100, a], [100, b], [b, 100], [a, 100], [0, b], [0, a]].map(([x, y]) => line(50, 50, x as number, y as number)); // biome-ignore format: one line
    const sides = [line(a, 0, a, a), line(0, a, a, a), line(b, 0, b, a), line(100, a, b, a), line(b, 100, b, b), line(100, b, b, b), line(a, 100, a, b), line(0, b, a, b)]; // biome-ignore format: one line
    expect(blockOf(asPieces([...rays, ...sides]), plainQuilting).grid).toBe('star 8');
  });
  it('of six sides has six sides, and lies on triangles', () => {
    const at = (k: number, r: number) => ({ x: 50 + r * Math.cos((k * Math.PI) / 3), y: 50 + r * Math.sin((k * Math.PI) / 3) });
    const sectors = [0, 1, 2, 3, 4, 5].map((k) => polygonPath([{ x: 50, y: 50 }, at(k, 50), at(k + 1, 50)])); // biome-ignore format: one line
    const block = blockOf(asPieces(sectors), plainQuilting);
    expect([block.map.faces.length, block.grid]).toEqual([6, 'triangles 4']);
    expect(patchShapes(block).length).toBe(1);
    expect(rotaryCut(patchShapes(block)[0]?.outline as Path, 6.35).figure).toBe('equilateral triangle');
  });
  it('of lines that enclose nothing is refused in a sentence', () => {
    expect(() => blockOf([], plainQuilting)).toThrow(/no block yet/);
    expect(() => blockOf(asPieces([line(0, 0, 5, 5)]), { ...plainQuilting, edge: 'as drawn' })).toThrow(/enclose no patch/);
  });
  it('tells where a seam ends in the middle of a patch', () => {
    const plan = finished(quiltPlan(asPieces([line(50, 0, 50, 100), line(0, 50, 100, 50), line(50, 50, 80, 73)]), plainQuilting));
    expect(plan.notes.map(({ message }) => message)).toEqual([expect.stringMatching(/ends in the middle of a patch at 80.0, 73.0/)]);
  });
});

/** A convex patch drawn in on every side. */
function drawnIn(corners: readonly { x: number; y: number }[], by: number): Path {
  const n = corners.length;
  const lines = corners.map((a, k) => {
    const b = corners[(k + 1) % n] as { x: number; y: number };
    const size = Math.hypot(b.x - a.x, b.y - a.y);
    const d = { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
    return { x: a.x - d.y * by, y: a.y + d.x * by, d };
  });
  return polygonPath(
    lines.map((p, k) => {
      const q = lines[(k + n - 1) % n] as (typeof lines)[0];
      const turn = q.d.x * p.d.y - q.d.y * p.d.x;
      if (Math.abs(turn) < 1e-9) return { x: p.x, y: p.y };
      const t = ((p.x - q.x) * p.d.y - (p.y - q.y) * p.d.x) / turn;
      return { x: q.x + t * q.d.x, y: q.y + t * q.d.y };
    }),
  );
}

describe('a template', () => {
  const allowance = inchMm / 4;
  const templates = (draft: BlockDraft) => planOf(draft).templates;
  const drafted = (name: string) => blockDrafts.find((draft) => draft.name === name) as BlockDraft;
  it('of a square is the square and the allowance all round', () => {
    const [square] = templates(drafted('Nine Patch'));
    expect(pathArea(square?.cutting as Path)).toBeCloseTo((3.5 * inchMm) ** 2, 6);
  });
  it('of half a square loses the corners that its neighbour has not', () => {
    // Of a pinwheel: two corners of 45 degrees, which meet corners of 90 or 45 across their seams.
    const [half] = templates(drafted('Shoofly')).filter(({ shape }) => stepsOf(shape.outline).length === 3);
    const leg = 4 * inchMm;
    const whole = (leg + allowance * (2 + Math.SQRT2)) ** 2 / 2;
    // The tips that stand out over the neighbouring square, a right angle, lie beyond the allowance from the corner: a triangle that is
    // cut off at a right angle to the shorter side, as high as it is wide beyond.
    const beyond = allowance * (1 + Math.SQRT2) - allowance;
    expect(half?.trimmedCorners).toBe(2);
    expect(pathArea(half?.cutting as Path)).toBeCloseTo(whole - beyond ** 2, 6);
  });
  it('lies everywhere the allowance outside of its sewing line', () => {
    for (const draft of blockDrafts)
      for (const { sewing, cutting } of templates(draft)) {
        const [a, b] = [pathBox(sewing), pathBox(cutting)];
        expect(a.minX - b.minX).toBeGreaterThanOrEqual(allowance - 1e-6);
        expect(b.maxY - a.maxY).toBeGreaterThanOrEqual(allowance - 1e-6);
        for (const { from, segment } of stepsOf(cutting)) {
          if (segment.kind !== 'line') continue;
          for (const t of [0, 0.5]) {
            const p = { x: from.x + (segment.to.x - from.x) * t, y: from.y + (segment.to.y - from.y) * t };
            expect(nearestOnPath(sewing, p).distance).toBeGreaterThanOrEqual(allowance - 1e-5);
          }
        }
      }
  });
  it('of a curved seam is set off exactly, with notches at equal lengths on both sides', () => {
    const own = templates(drafted('Drunkard’s Path'));
    const pie = own.reduce((a, b) => (Math.abs(pathArea(b.sewing)) < Math.abs(pathArea(a.sewing)) ? b : a));
    const corner = own.find((one) => one !== pie);
    const radius = 3 * inchMm;
    const arc = stepsOf(pie.cutting).find(({ segment }) => segment.kind === 'arc');
    if (arc?.segment.kind !== 'arc') throw new Error('no arc');
    expect(circleOf(arc.from, arc.segment).radius).toBeCloseTo(radius + allowance, 6);
    expect(pie.notches.length).toBe(corner?.notches.length);
    expect(pie.notches.length).toBeGreaterThan(0);
  });
  it('that its patch has no room for is refused', () => {
    expect(() => planOf(drafted('Nine Patch'), { allowanceMm: 90 })).toThrow(/A seam allowance of 90 mm is wider than patch A/);
  });
  it('keeps the area of a convex patch and its allowance, by Steiner’s formula but for its sharp corners', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.2, max: 1, noNaN: true }), { minLength: 3, maxLength: 7 }), (shares) => {
        const all = shares.reduce((a, b) => a + b, 0);
        let angle = 0;
        const corners = shares.map((share) => {
          angle += (share / all) * 2 * Math.PI;
          return { x: 100 * Math.cos(angle), y: 100 * Math.sin(angle) };
        });
        if (Math.max(...shares) / all > 0.45) return;
        const outline = polygonPath(corners);
        const shape = { name: 'A', outline, areaMm2: pathArea(outline), patches: [], isSymmetric: true };
        const [made] = templatesOf({ map: { nodes: [], edges: [], faces: [], looseEnds: [] } } as never, [shape], {
          allowanceMm: 5,
          edgeAllowances: {},
        });
        const length = stepsOf(outline).reduce(
          (sum, { from, segment }) => sum + Math.hypot(segment.to.x - from.x, segment.to.y - from.y),
          0,
        );
        // Each mitre adds 2 times half its square over the tangent of half the corner's angle.
        const mitres = corners.reduce((sum, p, k) => {
          const [a, b] = [corners.at(k - 1) as typeof p, corners[(k + 1) % corners.length] as typeof p];
          const inner = Math.acos(
            ((a.x - p.x) * (b.x - p.x) + (a.y - p.y) * (b.y - p.y)) / (Math.hypot(a.x - p.x, a.y - p.y) * Math.hypot(b.x - p.x, b.y - p.y)),
          );
          if (1 / Math.sin(inner / 2) > 4) return Number.NaN;
          return sum + 25 / Math.tan(inner / 2);
        }, 0);
        if (Number.isNaN(mitres)) return;
        expect(pathArea(made?.cutting as Path)).toBeCloseTo(pathArea(outline) + 5 * length + mitres, 4);
      }),
      { numRuns: lawRuns(60) },
    );
  });
});

describe('a foundation', () => {
  /** A square split by straight cuts from border to border, over and over: an order of seams exists. */
  const splitting = fc.array(fc.tuple(fc.nat(1000), fc.double({ min: 0.25, max: 0.75, noNaN: true }), fc.double({ min: 0.25, max: 0.75, noNaN: true }), fc.nat(1000)), { minLength: 1, maxLength: 8 }); // biome-ignore format: one line
  function splits(cuts: readonly (readonly [number, number, number, number])[]): { seams: Path[]; count: number } {
    let patches = [[{ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 100, y: 100 }, { x: 0, y: 100 }]]; // biome-ignore format: one line
    const seams: Path[] = [rectanglePath({ minX: 0, minY: 0, maxX: 100, maxY: 100 })];
    for (const [which, s, t, side] of cuts) {
      // The largest few are cut, so that no sliver is made.
      patches = [...patches].sort((a, b) => Math.abs(pathArea(polygonPath(b))) - Math.abs(pathArea(polygonPath(a))));
      const k = which % Math.min(2, patches.length);
      const patch = patches[k] as { x: number; y: number }[];
      const i = side % patch.length;
      const j = (i + Math.floor(patch.length / 2)) % patch.length;
      const at = (e: number, share: number) => {
        const [a, b] = [patch[e], patch[(e + 1) % patch.length]] as [{ x: number; y: number }, { x: number; y: number }];
        return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
      };
      const [p, q] = [at(i, s), at(j, t)];
      seams.push(line(p.x, p.y, q.x, q.y));
      const walk = (from: number, to: number) => Array.from({ length: (to - from + patch.length) % patch.length }, (_, n) => patch[(from + 1 + n) % patch.length] as { x: number; y: number }); // biome-ignore format: one line
      patches.splice(k, 1, [p, ...walk(i, j), q], [q, ...walk(j, i), p]);
    }
    return { seams, count: patches.length };
  }
  it('is found for every block that was made by splitting, each patch once, each next one along a straight line', () => {
    fc.assert(
      fc.property(splitting, (cuts) => {
        const { seams, count } = splits(cuts);
        const { map } = blockOf(asPieces(seams), { ...plainQuilting, grid: 'none', joinMm: 0.01, finishedMm: 100 });
        if (map.faces.length !== count) return;
        const { sections, setIn } = foundationsOf(map);
        expect(setIn).toEqual([]);
        expect(sections.flatMap(({ order }) => order).sort((a, b) => a - b)).toEqual(map.faces.map((_, k) => k));
      }),
      { numRuns: lawRuns(200) },
    );
  });
  it('is claimed for no block with a seam that must be set in', () => {
    for (const shift of [0, 3, 7, 11]) {
      const y = [line(50 + shift, 50, 50, 100), line(50 + shift, 50, 0, 20), line(50 + shift, 50, 100, 25)];
      const { map } = blockOf(asPieces(y), { ...plainQuilting, grid: 'none', finishedMm: 100 });
      expect(foundationsOf(map)).toEqual({ sections: [], setIn: [[0, 1, 2]] });
      expect(isSetIn(piecingOrder(map))).toBe(true);
    }
  });
  it('of a flying goose is one, its large triangle first', () => {
    const goose = blockOf(asPieces([line(0, 0, 50, 50), line(50, 50, 100, 0), line(0, 50, 100, 50)]), {
      ...plainQuilting,
      finishedMm: 100,
    });
    const { sections } = foundationsOf(goose.map);
    expect(sections.length).toBe(1);
    const [first] = sections[0]?.order ?? [];
    expect(goose.map.faces[first as number]?.area).toBeCloseTo(2500, 6);
  });
});

describe('a rotary cut', () => {
  const outline = (...corners: [number, number][]) => polygonPath(corners.map(([x, y]) => ({ x: x * inchMm, y: y * inchMm })));
  it('is what quilters reckon by: 7/8 in more, 1 1/4 in more, 1/2 in more', () => {
    for (const size of [1, 2, 3.5, 6]) {
      expect(rotaryCut(outline([0, 0], [size, 0], [size, size], [0, size]), inchMm / 4).stripMm).toBeCloseTo((size + 0.5) * inchMm, 9);
      const half = rotaryCut(outline([0, 0], [size, 0], [0, size]), inchMm / 4);
      expect(half.figure).toBe('half-square triangle');
      expect((half.stripMm as number) / inchMm).toBeCloseTo(size + (2 + Math.SQRT2) / 4, 9);
      const quarter = rotaryCut(outline([0, 0], [size, 0], [size / 2, size / 2]), inchMm / 4);
      expect(quarter.figure).toBe('quarter-square triangle');
      expect((quarter.stripMm as number) / inchMm).toBeCloseTo(size + (2 + 2 * Math.SQRT2) / 4, 9);
    }
  });
  it('of a triangle of 60 degrees is a strip 3/4 in wider than it is high', () => {
    const { figure, stripMm } = rotaryCut(outline([0, 0], [4, 0], [2, 2 * Math.sqrt(3)]), inchMm / 4);
    expect(figure).toBe('equilateral triangle');
    expect((stripMm as number) / inchMm).toBeCloseTo(2 * Math.sqrt(3) + 0.75, 9);
  });
  it('of a diamond is a strip as wide as it is high, and cuts as far apart', () => {
    const s = Math.SQRT1_2;
    const cut = rotaryCut(outline([0, 0], [3, 0], [3 + 3 * s, 3 * s], [3 * s, 3 * s]), inchMm / 4);
    expect(cut.figure).toBe('diamond');
    expect(cut.angle).toBeCloseTo(45, 9);
    expect((cut.stripMm as number) / inchMm).toBeCloseTo(3 * s + 0.5, 9);
  });
});

describe('a quilt', () => {
  const block = { widthMm: 12 * inchMm, heightMm: 12 * inchMm };
  const inInches = (change: Partial<typeof plainQuilting>) => {
    const { widthMm, heightMm, blocks, parts } = quiltOf(block, { ...plainQuilting, ...change });
    return { width: widthMm / inchMm, height: heightMm / inchMm, blocks: blocks.length, parts };
  };
  const areaOf = (parts: ReturnType<typeof quiltOf>['parts']): number =>
    parts.reduce((sum, { outline }) => sum + Math.abs(pathArea(outline)), 0);
  it('in rows with sashing and posts is blocks and strips between them', () => {
    const { width, height, blocks, parts } = inInches({ columns: 3, rows: 4, sashingMm: 2 * inchMm, hasPosts: true });
    expect([width, height, blocks]).toEqual([40, 54, 12]);
    expect(parts.filter(({ kind }) => kind === 'post').length).toBe(6);
    expect(parts.filter(({ kind }) => kind === 'sash').length).toBe(17);
    expect((areaOf(parts) + 12 * 144 * inchMm ** 2) / inchMm ** 2).toBeCloseTo(40 * 54, 6);
  });
  it('on point takes each block’s diagonal, its side times sqrt 2', () => {
    const { width, height, blocks, parts } = inInches({ columns: 3, rows: 4, setting: 'on point' });
    expect(width).toBeCloseTo(3 * 12 * Math.SQRT2, 9);
    expect(height).toBeCloseTo(4 * 12 * Math.SQRT2, 9);
    expect(blocks).toBe(12 + 6);
    expect((areaOf(parts) + blocks * 144 * inchMm ** 2) / inchMm ** 2).toBeCloseTo(width * height, 6);
  });
  it.each([false, true])('has borders all round, mitred: %s', (isMitred) => {
    const borders = [{ widthMm: 2 * inchMm, fabric: 0 }, { widthMm: 4 * inchMm, fabric: 1 }]; // biome-ignore format: one line
    const { width, height, parts } = inInches({ columns: 2, rows: 2, borders, isMitred });
    expect([width, height]).toEqual([36, 36]);
    expect(areaOf(parts) / inchMm ** 2).toBeCloseTo(36 * 36 - 24 * 24, 6);
  });
  it('has setting triangles cut as quilters reckon: the side times sqrt 2 and 1 1/4 in, and over sqrt 2 and 7/8 in', () => {
    const nine = blockDrafts.find(({ name }) => name === 'Nine Patch') as BlockDraft;
    const { rows } = planOf(nine, { columns: 2, rows: 2, setting: 'on point' }).cutting;
    const cutOf = (what: string) => rows.find((row) => row.what === what);
    expect(cutOf('Side triangle')).toMatchObject({ figure: 'quarter-square triangle', count: 4, cuts: 1 });
    expect((cutOf('Side triangle')?.stripMm as number) / inchMm).toBeCloseTo(Math.ceil((9 * Math.SQRT2 + 1.2071) * 8) / 8, 9);
    expect((cutOf('Corner triangle')?.stripMm as number) / inchMm).toBeCloseTo(Math.ceil((9 / Math.SQRT2 + 0.8536) * 8) / 8, 9);
  });
  it('asks for fabric by the strips that its pieces are cut from', () => {
    const nine = blockDrafts.find(({ name }) => name === 'Nine Patch') as BlockDraft;
    const { rows, needs, binding } = planOf(nine, { columns: 4, rows: 5, fabricOf: { A: 0 } }).cutting;
    // 180 squares of 3 1/2 in, eleven of a strip of 40 in: 17 strips.
    expect(rows.find(({ what }) => what === 'A')).toMatchObject({ count: 180, strips: 17 });
    expect(binding.lengthMm / inchMm).toBeCloseTo(2 * (36 + 45) + 10, 9);
    expect(binding.strips).toBe(5);
    const own = needs.find(({ fabric }) => fabric === 0);
    expect((own?.lengthMm as number) / inchMm).toBeCloseTo(17 * 3.5 + 5 * 2.5, 6);
  });
});

describe('an appliqué', () => {
  const disk = (x: number, y: number, r: number, id: string): BlockPiece => ({ id, outer: circlePath({ x, y }, r), holes: [] });
  const frame: BlockPiece = { id: 'f', outer: rectanglePath({ minX: 0, minY: 0, maxX: 100, maxY: 100 }), holes: [] };
  const settings = { ...plainQuilting, technique: 'appliqué' as const, finishedMm: 200, turnUnderMm: 5, underMm: 6 };
  it('has a background at its finished size, and shapes from the largest up, each led on under what lies over it', () => {
    // A small disk that overlaps the edge of a large one: the large one is whole already; one that only touches is led under.
    const { block, templates } = finished(quiltPlan([frame, disk(40, 50, 20, 'a'), disk(70, 50, 10, 'b')], settings));
    expect(block.widthMm).toBeCloseTo(200, 9);
    const [background, large, small] = block.map.faces;
    expect(background?.area).toBeCloseTo(40_000, 6);
    expect(small?.area).toBeCloseTo(Math.PI * 20 ** 2, 6);
    // 6 mm of the small one's disk lie under it, and no more than the strip along the large one's border.
    const lens = (d: number, r: number, s: number) => r * r * Math.acos((d * d + r * r - s * s) / (2 * d * r)) + s * s * Math.acos((d * d + s * s - r * r) / (2 * d * s)) - Math.sqrt((-d + r + s) * (d + r - s) * (d - r + s) * (d + r + s)) / 2; // biome-ignore format: one line
    const strip = (large?.area as number) - Math.PI * 40 ** 2;
    expect(strip).toBeGreaterThan(lens(60, 40 + 6, 20));
    expect(strip).toBeLessThan(lens(60, 40 + 6.8, 20.8));
    expect(templates.map(({ cutting, sewing }) => pathArea(cutting) > pathArea(sewing))).toEqual([true, true, true]);
  });
  it('fused has templates turned over, as large as the shapes', () => {
    const moon = { id: 'm', outer: polygonPath([{ x: 20, y: 20 }, { x: 60, y: 20 }, { x: 30, y: 50 }]), holes: [] }; // biome-ignore format: corners
    const { templates } = finished(quiltPlan([frame, moon], { ...settings, turnUnderMm: 0 }));
    const [, shape] = templates;
    expect(pathArea(shape?.cutting as Path)).toBeCloseTo(4 * 600, 6);
    // A triangle whose longest side rises to the left now has it rising to the right.
    const turns = stepsOf(shape?.cutting as Path).map(({ from }) => from.x);
    expect(Math.min(...turns)).toBeLessThan(-100);
  });
  it('of nothing closed is refused', () => {
    expect(() => finished(quiltPlan(asPieces([line(0, 0, 5, 5)]), settings))).toThrow(/no block yet/);
  });
});

describe('colours of a picture', () => {
  it('become fabrics: sets that look alike share one, whatever the noise', () => {
    const plan = planOf(blockDrafts.find(({ name }) => name === 'Shoofly') as BlockDraft);
    const [width, height] = [200, 200];
    const data = new Uint8Array(3 * width * height);
    const colours = [[178, 69, 46], [239, 230, 210]] as const; // biome-ignore format: two colours
    const toPicture = { a: width / 304.8, b: 0, c: 0, d: -height / 304.8, e: 0, f: height };
    const squares = plan.sets.find(({ shape }) => stepsOf(shape.outline).length === 4)?.shape.patches.map(({ outline }) => outline) ?? [];
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = { x: ((x + 0.5) / width) * 304.8, y: ((height - y - 0.5) / height) * 304.8 };
        const colour = colours[squares.some((outline) => isInside(outline, at)) ? 0 : 1] as readonly number[];
        for (const k of [0, 1, 2])
          data[3 * (y * width + x) + k] = Math.max(0, Math.min(255, (colour[k] as number) + ((x * 7 + y * 13 + k * 5) % 21) - 10));
      }
    const { fabrics, fabricOf } = fabricsFromPicture(plan, { width, height, data }, toPicture, (n) => `Cloth ${n}`);
    expect(fabrics.map(({ name }) => name)).toEqual(['Cloth 1', 'Cloth 2']);
    for (const { name, shape } of plan.sets) {
      const red = Number.parseInt(fabrics[fabricOf[name] as number]?.colour.slice(1, 3) ?? '', 16);
      expect(Math.abs(red - (stepsOf(shape.outline).length === 4 ? 178 : 239))).toBeLessThan(8);
    }
  });
});
