import { describe, expect, it } from 'vitest';
import { circlePath, type Path, polygonPath, stepsOf } from '../plane/index.ts';
import { straightened } from './straightened.ts';

const kinds = (path: Path): string => stepsOf(path).map(({ segment }) => segment.kind).join(' '); // biome-ignore format: one line

describe('what was traced, straightened', () => {
  it('has a sharp tip where the tracing has a bend a tenth of a millimetre wide', () => {
    // The tip of a patch from a scan at 150 dpi.
    const traced: Path = { start: { x: 27.27, y: 44.5 }, segments: [{ kind: 'line', to: { x: 51.26, y: 44.5 } }, { kind: 'line', to: { x: 63.18, y: 80.26 } }, { kind: 'arc', to: { x: 63.09, y: 80.31 }, sweep: 1.7 }, { kind: 'line', to: { x: 27.27, y: 44.5 } }], closed: true }; // biome-ignore format: a path
    const made = straightened(traced, 0.6);
    expect(kinds(made)).toBe('line line line');
    const tip = stepsOf(made)
      .map(({ from }) => from)
      .reduce((a, b) => (b.y > a.y ? b : a));
    expect(Math.hypot(tip.x - 63.2, tip.y - 80.4)).toBeLessThan(0.25);
  });
  it('has one line where a side was traced in several that bend a little, and one arc where it was on a circle', () => {
    const bent = polygonPath([{ x: 0, y: 0 }, { x: 50, y: 0.2 }, { x: 100, y: 0 }, { x: 100, y: 60 }, { x: 0, y: 60 }]); // biome-ignore format: corners
    expect(kinds(straightened(bent, 0.6))).toBe('line line line line');
    const quarter = (k: number) => ({ x: 40 * Math.cos((k * Math.PI) / 8), y: 40 * Math.sin((k * Math.PI) / 8) });
    const pie: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: quarter(0) }, ...[1, 2, 3, 4].map((k) => ({ kind: 'arc' as const, to: quarter(k), sweep: Math.PI / 8 })), { kind: 'line', to: { x: 0, y: 0 } }], closed: true }; // biome-ignore format: a path
    expect(kinds(straightened(pie, 0.3))).toBe('line arc line');
  });
  it('leaves what is round all about as it is', () => {
    expect(straightened(circlePath({ x: 0, y: 0 }, 20), 0.2).segments.every(({ kind }) => kind === 'arc')).toBe(true);
  });
});
