import { describe, expect, it } from 'vitest';
import type { Piece, Purpose } from '../job/index.ts';
import { type Path, type Point, pathArea, polygonPath } from '../plane/index.ts';
import { bleedOutlines, boxChecked, collisions, foldedPanels, foldTree, moved3, panelSize, panelsOf } from './index.ts';

const p = (x: number, y: number): Point => ({ x, y });
const line = (x0: number, y0: number, x1: number, y1: number): Path => ({
  start: p(x0, y0),
  segments: [{ kind: 'line', to: p(x1, y1) }],
  closed: false,
});
let count = 0;
const piece = (outer: Path, purpose: Purpose): Piece => ({
  id: `p${++count}`,
  name: `P ${count}`,
  purpose,
  leftOut: false,
  runsOff: false,
  outer,
  holes: [],
});

/** A cross of six squares, a cube's net; creases end `gap` short of what they run to. */
function cubeNet(s: number, gap: number): Piece[] {
  const outline = polygonPath([
    p(s, 0),
    p(2 * s, 0),
    p(2 * s, s),
    p(3 * s, s),
    p(3 * s, 2 * s),
    p(2 * s, 2 * s),
    p(2 * s, 4 * s),
    p(s, 4 * s),
    p(s, 2 * s),
    p(0, 2 * s),
    p(0, s),
    p(s, s),
  ]);
  const creases = [
    line(s + gap, s, 2 * s - gap, s), line(s + gap, 2 * s, 2 * s - gap, 2 * s), line(s + gap, 3 * s, 2 * s - gap, 3 * s),
    line(s, s + gap, s, 2 * s - gap), line(2 * s, s + gap, 2 * s, 2 * s - gap),
  ]; // biome-ignore format: across, then upright
  return [piece(outline, 'cut'), ...creases.map((c) => piece(c, 'score'))];
}

describe('panels of a die line', () => {
  it.each([0, 0.5, 2.5])('are the six squares of a cube’s net, with creases that end %d mm short', (gap) => {
    const { panels, hinges } = panelsOf(cubeNet(40, gap));
    expect(panels.length).toBe(6);
    for (const panel of panels) {
      expect(panel.areaMm2).toBeCloseTo(1600, 6);
      expect(panelSize(panel).alongMm).toBeCloseTo(40, 6);
    }
    expect(hinges.length).toBe(5);
  });
  it('are measured between their creases as drawn, also where a pen has blurred the corners that the creases run to', () => {
    const net = cubeNet(40, 2.5).map((one, k) => {
      if (k > 0) return one;
      const corners = [one.outer.start, ...one.outer.segments.map((s) => s.to)];
      // The four corners about the middle square lie up to 0.8 mm inside it.
      const moved = corners.map(({ x, y }) => {
        if (![40, 80].includes(x) || ![40, 80].includes(y)) return p(x, y);
        return p(x + (x === 40 ? 0.5 : -0.4), y + (y === 40 ? 0.6 : -0.3));
      });
      return { ...one, outer: polygonPath(moved) };
    });
    const { panels } = panelsOf(net);
    expect(panels.length).toBe(6);
    const middle = panels.filter((panel) => panel.sides.filter((s) => s.hinge !== null).length === 4);
    expect(middle.length).toBe(1);
    const { alongMm, acrossMm } = panelSize(middle[0] as (typeof panels)[0]);
    expect(Math.abs(alongMm - 40)).toBeLessThan(0.02);
    expect(Math.abs(acrossMm - 40)).toBeLessThan(0.02);
  });
  it('are found, too, where the contour is drawn side by side, and its sides stop short of each other', () => {
    const [body, ...creases] = cubeNet(40, 1) as [Piece, ...Piece[]];
    const corners = [body.outer.start, ...body.outer.segments.map((s) => s.to)];
    const sides = corners.slice(1).map((to, k) => {
      const from = corners[k] as Point;
      const size = Math.hypot(to.x - from.x, to.y - from.y);
      const at = (d: number): Point => p(from.x + ((to.x - from.x) * d) / size, from.y + ((to.y - from.y) * d) / size);
      const [a, b] = [at(0.6), at(size - 0.4)];
      return piece(line(a.x, a.y, b.x, b.y), 'cut');
    });
    const { panels, hinges } = panelsOf([...sides, ...creases]);
    expect(panels.map(({ areaMm2 }) => Math.round(areaMm2))).toEqual([1600, 1600, 1600, 1600, 1600, 1600]);
    expect(hinges.length).toBe(5);
  });
  it('an opening in a panel is none, and a cut within the outline parts two', () => {
    const window = polygonPath([p(50, 50), p(50, 70), p(70, 70), p(70, 50)]);
    const [body, ...creases] = cubeNet(40, 1) as [Piece, ...Piece[]];
    expect(panelsOf([{ ...body, holes: [window] }, ...creases]).panels.length).toBe(6);
    const square = piece(polygonPath([p(0, 0), p(60, 0), p(60, 40), p(0, 40)]), 'cut');
    expect(panelsOf([square, piece(line(20, 0, 20, 39), 'cut')]).panels.map(({ areaMm2 }) => Math.round(areaMm2))).toEqual([1600, 800]);
  });
  it('a crease that leads nowhere parts no panel', () => {
    const { panels } = panelsOf([
      piece(polygonPath([p(0, 0), p(60, 0), p(60, 40), p(0, 40)]), 'cut'),
      piece(line(20, 15, 40, 15), 'score'),
    ]);
    expect(panels.length).toBe(1);
  });
});

describe('folding', () => {
  const net = panelsOf(cubeNet(40, 1));
  const tree = foldTree(net);
  const right = net.hinges.map(() => Math.PI / 2);
  it('by right angles closes the cube: all corners lie on eight places, 40 mm apart', () => {
    const motions = foldedPanels(net, tree, right);
    const places = new Set<string>();
    net.panels.forEach((panel, k) => {
      for (const { from } of panel.sides) {
        const { x, y, z } = moved3(motions[k] as (typeof motions)[0], { ...from, z: 0 });
        places.add([x, y, z].map((v) => Math.round(v * 1000) / 1000 + 0).join(' '));
      }
    });
    expect(places.size).toBe(8);
    const zs = [...places].map((q) => Number(q.split(' ')[2]));
    expect([Math.min(...zs), Math.max(...zs)]).toEqual([0, 40]);
  });
  it('flat leaves everything where it is, and no panel in another', () => {
    const motions = foldedPanels(net, tree, net.hinges.map(() => 0)); // biome-ignore format: one line
    expect(moved3(motions[3] as (typeof motions)[0], { x: 7, y: 9, z: 0 })).toEqual({ x: 7, y: 9, z: 0 });
    expect(collisions(net, motions)).toEqual([]);
    expect(collisions(net, foldedPanels(net, tree, right))).toEqual([]);
  });
  it('too far runs panels into one another', () => {
    const over = net.hinges.map(() => (Math.PI * 2.4) / 4);
    expect(collisions(net, foldedPanels(net, tree, over)).length).toBeGreaterThan(0);
  });
});

describe('a box’s size', () => {
  /** A strip of four walls with a bottom flap, W x D x H. */
  const walls = (w: number, d: number, h: number): Piece[] => {
    const xs = [0, w, w + d, 2 * w + d, 2 * (w + d)];
    const outline = polygonPath([p(0, 0), p(0, -d), p(w, -d), p(w, 0), p(xs[4] as number, 0), p(xs[4] as number, h), p(0, h)]);
    return [
      piece(outline, 'cut'),
      piece(line(1, 0, w - 1, 0), 'score'),
      ...xs.slice(1, 4).map((x) => piece(line(x, 1.5, x, h - 1.5), 'score')),
    ];
  };
  it('that its panels have is found to be right', () => {
    const { panels } = panelsOf(walls(138.1, 63.5, 140));
    expect(panels.length).toBe(5);
    expect(boxChecked(panels, { widthMm: 138.1, depthMm: 63.5, heightMm: 140, toleranceMm: 0.2 }, 0, 0.5)).toEqual([]);
  });
  it('that they do not have is named with what is there', () => {
    const { panels } = panelsOf(walls(138.1, 64.4, 140));
    const told = boxChecked(panels, { widthMm: 138.1, depthMm: 63.5, heightMm: 140, toleranceMm: 0.2 }, 0, 0.5);
    expect(told.length).toBe(3);
    expect(told[0]).toMatch(/sides 63.5 x 140.0 mm are needed; the nearest, Panel \d, is 64.40 x 140.00 mm/);
  });
  it('takes the board’s thickness at the creases off', () => {
    // A board of 2 mm that takes half its thickness at a pair of creases, a quarter of it at one: up to 1 mm less inside.
    const { panels } = panelsOf(walls(139.1, 64.5, 140.5));
    const box = { widthMm: 138.1, depthMm: 63.5, heightMm: 140, toleranceMm: 0.55 };
    expect(boxChecked(panels, box, 2, 0.5).filter((t) => !t.includes('top'))).toEqual([]);
    expect(boxChecked(panels, box, 0, 0.5).filter((t) => !t.includes('top')).length).toBeGreaterThan(0);
  });
});

describe('bleed', () => {
  it('is the outline set out round its corners', () => {
    const [bleed] = bleedOutlines([piece(polygonPath([p(0, 0), p(50, 0), p(50, 30), p(0, 30)]), 'cut')], 3);
    expect(pathArea(bleed?.outer as Path)).toBeCloseTo(1500 + 3 * 160 + Math.PI * 9, 6);
    expect(bleed?.purpose).toBe('guide');
  });
});
