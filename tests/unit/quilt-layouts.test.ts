import { plainMachine, plainStock } from '@nuvet/core/job';
import { circlePath, distance, type Path, type Point, pathArea, pathBox, pathLength, rectanglePath, stepsOf } from '@nuvet/core/plane'; // biome-ignore format: one line
import { processKinds } from '@nuvet/core/processes';
import { type BlockPiece, borderUnits, cutText, inchMm, plainQuilting, type QuiltingSettings, type QuiltPlan, quiltOf, quiltPlan } from '@nuvet/core/quilting'; // biome-ignore format: one line
import { finished } from '@nuvet/core/steps';
import { describe, expect, it } from 'vitest';
import { type BlockDraft, blockDrafts, drawnSeams } from './block-drafts.ts';
import { overlaid, polygonFrom } from './polygons-of-jsts.ts';

const drafted = (name: string): BlockDraft => blockDrafts.find((one) => one.name === name) as BlockDraft;
const planOf = (draft: BlockDraft, change: Partial<QuiltingSettings> = {}): QuiltPlan =>
  finished(quiltPlan(drawnSeams(draft, 120), { ...plainQuilting, finishedMm: draft.finishedIn * inchMm, ...change }));

const size = { widthMm: 100, heightMm: 100 };
const areaOf = (parts: readonly { outline: Path }[]): number => parts.reduce((sum, { outline }) => sum + pathArea(outline), 0);

describe('a quilt', () => {
  it.each([
    ['strips', { setting: 'strips', columns: 3, rows: 4, sashingMm: 40 }],
    ['a medallion', { setting: 'medallion', columns: 5, rows: 5, borders: [{ widthMm: 20, fabric: 0 }, { widthMm: 25, fabric: 1, pieces: 'squares' }] }],
    ['flying geese about it', { columns: 2, rows: 3, borders: [{ widthMm: 30, fabric: 0, pieces: 'flying geese' }] }],
    ['half-square triangles about it', { columns: 2, rows: 3, borders: [{ widthMm: 25, fabric: 0, pieces: 'half-square triangles' }, { widthMm: 50, fabric: 1 }] }],
  ] as const)('of %s is covered once, by its blocks and its parts', (_, change) => {
    const quilt = quiltOf(size, { ...plainQuilting, ...change } as QuiltingSettings);
    expect(areaOf(quilt.parts) + quilt.blocks.length * 100 * 100).toBeCloseTo(quilt.widthMm * quilt.heightMm, 4);
    // Nothing lies over anything else: the outside library's union is as large as the sum.
    const [first, ...rest] = quilt.parts.map(({ outline }) => polygonFrom({ outer: outline, holes: [] })) as [ReturnType<typeof polygonFrom>];
    expect(rest.reduce((all, one) => overlaid(all, one, 'unite'), first).getArea()).toBeCloseTo(areaOf(quilt.parts), 3);
  }); // biome-ignore format: a case a line
  it('of strips has one strip between two columns, as long as the quilt is high', () => {
    const { parts, widthMm, heightMm, blocks } = quiltOf(size, { ...plainQuilting, setting: 'strips', columns: 3, rows: 4, sashingMm: 40 });
    expect([widthMm, heightMm, blocks.length]).toEqual([380, 400, 12]);
    expect(parts.map(({ outline }) => pathBox(outline))).toEqual([
      { minX: 100, minY: 0, maxX: 140, maxY: 400 },
      { minX: 240, minY: 0, maxX: 280, maxY: 400 },
    ]);
  });
  it('has the triangles of a border point to the middle of each side, from both of its ends', () => {
    const { parts, widthMm } = quiltOf(size, { ...plainQuilting, columns: 2, borders: [{ widthMm: 25, fabric: 0, second: 1, pieces: 'half-square triangles' }] }); // biome-ignore format: one line
    const foot = parts.filter(({ kind, role, outline }) => kind === 'border' && role === 'first' && pathBox(outline).maxY < 25.001);
    expect(foot.length).toBe(8);
    const middles = foot.map(({ outline }) => stepsOf(outline).reduce((sum, { from }) => sum + from.x / 3, 0) - widthMm / 2);
    // Each has its mirror image on the other half.
    expect(middles.reduce((sum, x) => sum + x, 0)).toBeCloseTo(0, 9);
  });
  it('tells how many units a pieced border has, and how long they are', () => {
    const ring = { inner: { minX: 30, minY: 30, maxX: 330, maxY: 230 }, outer: { minX: 0, minY: 0, maxX: 360, maxY: 260 } };
    expect(borderUnits(ring, 'flying geese')).toEqual({ across: 5, up: 3, acrossMm: 60, upMm: 200 / 3 });
    expect(borderUnits(ring, 'squares')).toEqual({ across: 10, up: 7, acrossMm: 30, upMm: 200 / 7 });
  });
  it('has whole units in a pieced border, and squares at its corners, cut as figures of a ruler', () => {
    const side = 9 * inchMm;
    const plan = planOf(drafted('Nine Patch'), {
      borders: [{ widthMm: 3 * inchMm, fabric: 0, second: 1, pieces: 'half-square triangles' }],
    });
    expect(plan.quilt.widthMm).toBeCloseTo(side + 6 * inchMm, 6);
    const rows = plan.cutting.rows.filter(({ kind }) => kind === 'border').map((row) => [row.what, row.figure, cutText(row), row.count, row.fabric]); // biome-ignore format: one line
    expect(rows).toEqual([
      ['Border', 'half-square triangle', '3 7/8', 12, 0],
      ['Border, second', 'half-square triangle', '3 7/8', 12, 1],
      ['Border, corner', 'square', '3 1/2', 4, 1],
    ]);
  });
});

describe('a seam allowance by edge', () => {
  it('of a square is a rectangle to cut, and leaves the other templates alone', () => {
    const plan = planOf(drafted('Nine Patch'), { edgeAllowances: { 'A 1': inchMm } });
    const [template] = plan.templates;
    expect(pathArea(template?.cutting as Path)).toBeCloseTo(3.5 * (3 + 0.25 + 1) * inchMm ** 2, 6);
    const [row] = plan.cutting.rows;
    expect([row?.figure, cutText(row as NonNullable<typeof row>)]).toEqual(['rectangle', '3 1/2 x 4 1/4']);
  });
  it('of a triangle moves that side alone out, and the corners with it', () => {
    const wide = planOf(drafted('Shoofly'), { edgeAllowances: { 'B 2': 20 } }).templates[1];
    const plain = planOf(drafted('Shoofly')).templates[1];
    const sides = stepsOf(wide?.sewing as Path);
    // Each side of the sewing line has a side of the cutting line at its own allowance.
    sides.forEach(({ from, segment: { to } }, k) => {
      const away = (p: Point): number => ((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / distance(from, to);
      const out = Math.min(...stepsOf(wide?.cutting as Path).map((step) => away(step.from)));
      expect(out).toBeCloseTo(k === 1 ? -20 : -inchMm / 4, 6);
    });
    expect(pathArea(wide?.cutting as Path)).toBeGreaterThan(pathArea(plain?.cutting as Path));
    expect(planOf(drafted('Shoofly'), { edgeAllowances: { 'B 2': 20 } }).cutting.rows.find(({ what }) => what === 'B')?.figure).toBe('template'); // biome-ignore format: one line
  });
  it('wider than the patch has room for is refused', () => {
    expect(() => planOf(drafted('Nine Patch'), { edgeAllowances: { 'A 3': 100 } })).toThrow(/100 mm is wider than patch A/);
  });
});

describe('curved seams', () => {
  it('are as long on both templates where the block lies on a grid', () => {
    const { eases } = planOf(drafted('Drunkard’s Path'));
    expect(eases.length).toBeGreaterThan(0);
    for (const { easeMm, lengthMm } of eases) {
      expect(easeMm).toBeLessThan(1e-6);
      expect(lengthMm).toBeGreaterThan(50);
    }
  });
  it('drawn freely show what one patch has to be eased by, where its twin is drawn a little longer', () => {
    // Two leaves that count as alike: the second is 0.6 mm longer round its curve.
    const leaf = (x: number, bow: number): Path => ({ start: { x, y: 20 }, segments: [{ kind: 'arc', to: { x: x + 60, y: 20 }, sweep: bow }, { kind: 'line', to: { x, y: 20 } }], closed: true }); // biome-ignore format: one line
    const frame = rectanglePath({ minX: 0, minY: 0, maxX: 200, maxY: 100 });
    const pieces: BlockPiece[] = [frame, leaf(20, 1.6), leaf(120, 1.63)].map((outer, k) => ({ id: String(k), outer, holes: [] }));
    const plan = finished(quiltPlan(pieces, { ...plainQuilting, finishedMm: 200, grid: 'none', joinMm: 0.5 }));
    const arc = (bow: number): number => (bow * 30) / Math.sin(bow / 2);
    const alike = plan.shapes.find(({ patches }) => patches.length === 2);
    // Where they share a template one of them is eased by the difference; where they do not, nothing is.
    const most = Math.max(0, ...plan.eases.map(({ easeMm }) => easeMm));
    expect(most).toBeCloseTo(alike ? Math.abs(arc(1.63) - arc(1.6)) : 0, 2);
  });
});

describe('an appliqué', () => {
  const piece = (outer: Path, id: string): BlockPiece => ({ id, outer, holes: [] });
  const frame = piece(rectanglePath({ minX: 0, minY: 0, maxX: 100, maxY: 100 }), 'f');
  const [wide, small] = [piece(circlePath({ x: 40, y: 50 }, 20), 'wide'), piece(circlePath({ x: 60, y: 50 }, 10), 'small')];
  const settings = { ...plainQuilting, technique: 'appliqué', finishedMm: 100, underMm: 4 } as const;
  it('lies in the order that it is given', () => {
    const by = (order: readonly string[]) => finished(quiltPlan([frame, wide, small], { ...settings, order: [...order] })).block;
    expect(by([]).layers).toEqual(['wide', 'small']);
    const turned = by(['small', 'wide']);
    expect(turned.layers).toEqual(['small', 'wide']);
    // The lower one is led on under the other, whichever that is.
    expect(Math.abs(pathArea(turned.map.faces[2]?.outer as Path))).toBeCloseTo(Math.PI * 400, 6);
  });
  it('has stems along open lines, as wide as is typed, cut on the bias', () => {
    const stem = piece({ start: { x: 10, y: 10 }, segments: [{ kind: 'arc', to: { x: 90, y: 10 }, sweep: -1 }], closed: false }, 's');
    const plan = finished(quiltPlan([frame, wide, stem], { ...settings, stemMm: 6 }));
    const [made] = plan.block.stems;
    const length = 40 / Math.sin(0.5);
    expect(made?.lengthMm).toBeCloseTo(length, 6);
    expect(pathArea(made?.outline[0]?.outer as Path)).toBeCloseTo(6 * length, 3);
    const row = plan.cutting.rows.find(({ kind }) => kind === 'stem');
    expect([row?.figure, row?.count, row?.stripMm, row?.lengthMm]).toEqual(['bias strip', 1, 12 + inchMm / 2, expect.closeTo(length + inchMm, 6)]); // biome-ignore format: one line
    // The square that it is cut from holds at least as much cloth as the strip.
    expect((row?.stripWidthMm as number) ** 2 / (12 + inchMm / 2)).toBeGreaterThan(length + inchMm);
  });
});

describe('templates for a machine', () => {
  const work = (settings: QuiltingSettings, stock = plainStock) => ({ title: 'Block', pieces: [], settings, machine: plainMachine, stock });
  const choices = { dpi: 96, underlay: null };
  const svgOf = async (settings: QuiltingSettings, stock = plainStock) => {
    const plan = planOf(drafted('Shoofly'), settings);
    const made = await processKinds.quilting?.files.svg?.make(work(settings, stock), plan, choices);
    return new TextDecoder().decode(made?.bytes);
  };
  it('lie on the sheet as often as a block needs them, or a quilt, none larger than the stock', async () => {
    const counts = async (copies: QuiltingSettings['copies']) => ((await svgOf({ ...plainQuilting, copies, columns: 2, finishedMm: 304.8 })).match(/<path/g) ?? []).length; // biome-ignore format: one line
    // Five squares and eight triangles: each a cut and a score.
    expect([await counts('one each'), await counts('for a block'), await counts('for the quilt')]).toEqual([4, 26, 52]);
    await expect(svgOf({ ...plainQuilting, finishedMm: 304.8 }, { ...plainStock, widthMm: 80, heightMm: 80 })).rejects.toThrow(/Template A is larger than the stock, 80 mm x 80 mm/); // biome-ignore format: one line
  });
  it('and cloth for what no ruler cuts is laid out, never less than its area', () => {
    const plan = planOf(drafted('Drunkard’s Path'), { columns: 4, rows: 4 });
    for (const row of plan.cutting.rows.filter(({ figure }) => figure === 'template')) {
      const template = plan.templates.find(({ shape }) => row.what.startsWith(shape.name));
      const cloth = row.strips * row.stripWidthMm * plainQuilting.usableMm;
      const used = row.count * pathArea(template?.cutting as Path);
      expect(cloth).toBeGreaterThan(used);
      expect(cloth).toBeLessThan(2.2 * used);
      expect(pathLength(template?.cutting as Path)).toBeGreaterThan(0);
    }
  });
});
