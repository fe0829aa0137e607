/**
 * The trace against pictures that somebody else rendered: SVG shapes drawn by librsvg (inside sharp), compared with the
 * shapes' closed forms and with the same path data read by svg-path-properties.
 */
import { pathBox, polygonOf, stepsOf } from '@nuvet/core/plane';
import { greyFromRgba } from '@nuvet/core/raster';
import { plainTraceSettings, type TracedPiece, tracePicture } from '@nuvet/core/trace';
import sharp from 'sharp';
import { svgPathProperties } from 'svg-path-properties';
import { describe, expect, it } from 'vitest';

/** Ten pixels a millimetre. */
const mmPerPx = 0.1;
const settings = { ...plainTraceSettings, toleranceMm: 0.05, smallestMm: 0.5 };

async function traced(shape: string, sizePx = 600): Promise<TracedPiece[]> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${sizePx}" height="${sizePx}"><rect width="100%" height="100%" fill="#fff"/>${shape}</svg>`;
  const { data, info } = await sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return tracePicture(greyFromRgba(data, info.width, info.height), mmPerPx, settings).pieces;
}
const only = (pieces: TracedPiece[]): TracedPiece => {
  expect(pieces).toHaveLength(1);
  return pieces[0] as TracedPiece;
};

describe('shapes rendered by librsvg', () => {
  it('a circle of radius 200 pixels keeps its radius within a tenth of a pixel everywhere', async () => {
    const { outer } = only(await traced('<circle cx="300.3" cy="299.7" r="200"/>'));
    for (const { x, y } of polygonOf(outer, 0.01)) expect(Math.abs(Math.hypot(x - 300.3, y - 299.7) - 200)).toBeLessThan(0.1);
    expect(outer.segments.length).toBeLessThanOrEqual(8);
  });
  it.each([0, 3, 17, 45])(
    'a rectangle of 400 x 150 pixels turned by %d degrees is four lines, its corners within a fifth of a pixel',
    async (degrees) => {
      const { outer } = only(await traced(`<rect x="100" y="225" width="400" height="150" transform="rotate(${degrees} 300 300)"/>`));
      expect(outer.segments.map((s) => s.kind)).toEqual(Array(4).fill('line'));
      const angle = (degrees * Math.PI) / 180;
      for (const [dx, dy] of [
        [-200, -75],
        [200, -75],
        [200, 75],
        [-200, 75],
      ] as const) {
        const corner = { x: 300 + dx * Math.cos(angle) - dy * Math.sin(angle), y: 300 + dx * Math.sin(angle) + dy * Math.cos(angle) };
        const nearest = Math.min(...outer.segments.map(({ to }) => Math.hypot(to.x - corner.x, to.y - corner.y)));
        expect(nearest).toBeLessThan(0.2);
      }
    },
  );
  it('an ellipse of half axes 220 and 120 pixels keeps its equation', async () => {
    const { outer } = only(await traced('<ellipse cx="300" cy="300" rx="220" ry="120"/>'));
    for (const { x, y } of polygonOf(outer, 0.01)) {
      const [u, v] = [(x - 300) / 220, (y - 300) / 120];
      // First-order distance from the implicit curve (Taubin 1991).
      expect(Math.abs((u * u + v * v - 1) / (2 * Math.hypot(u / 220, v / 120)))).toBeLessThan(0.12);
    }
  });
  it.each([
    ['a leaf of two cubics', 'M100 300 C 180 90 430 110 500 320 C 400 420 240 460 100 300 Z'],
    ['an arch of lines and an arc', 'M150 480 L150 280 A150 150 0 0 1 450 280 L450 480 Z'],
    ['a wave with an inflection', 'M80 200 C 220 60 380 340 520 200 L520 400 C 380 540 220 260 80 400 Z'],
  ])('%s lies along the path as another reader walks it', async (_, d) => {
    const { outer } = only(await traced(`<path d="${d}"/>`));
    const path = new svgPathProperties(d);
    const length = path.getTotalLength();
    const polygon = polygonOf(outer, 0.005);
    let [sum, worst] = [0, 0];
    const count = 800;
    for (let k = 0; k < count; k++) {
      const p = path.getPointAtLength((length * k) / count);
      const off = Math.min(...polygon.map((a, n) => toChord(p, a, polygon[(n + 1) % polygon.length] as typeof a)));
      sum += off * off;
      worst = Math.max(worst, off);
    }
    expect(Math.sqrt(sum / count)).toBeLessThan(0.12);
    expect(worst).toBeLessThan(0.5);
  });
  it('a ring in a ring has its nesting, and even-odd text of shapes its holes', async () => {
    const pieces = await traced(
      '<path fill-rule="evenodd" d="M50 50h500v500h-500z M100 100h400v400h-400z M150 150h300v300h-300z M250 250h100v100h-100z"/>',
    );
    expect(pieces.map((p) => p.holes.length)).toEqual([1, 1]);
    expect(pieces.map((p) => Math.round(pathBox(p.outer).maxX - pathBox(p.outer).minX))).toEqual([500, 300]);
    for (const { outer, holes } of pieces) for (const path of [outer, ...holes]) expect(path.segments).toHaveLength(4);
  });
  it('holes run the other way round than their outer outline', async () => {
    const { outer, holes } = only(await traced('<path fill-rule="evenodd" d="M50 50h500v500h-500z M200 200h200v200h-200z"/>'));
    const turn = (path: typeof outer) => stepsOf(path).reduce((area, { from, segment: { to } }) => area + from.x * to.y - to.x * from.y, 0);
    expect(Math.sign(turn(outer))).toBe(-Math.sign(turn(holes[0] as typeof outer)));
  });
});

function toChord(p: { x: number; y: number }, a: { x: number; y: number }, b: { x: number; y: number }): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}
