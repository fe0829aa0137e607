import { describe, expect, it } from 'vitest';
import { proofRows } from '../formats/index.ts';
import { plainMachine as machine, type Piece } from '../job/index.ts';
import { plainCutting } from '../make/cutting.ts';
import { plannedCut } from '../make/plan.ts';
import { circlePath, type Path, shift, transformedPath } from '../plane/index.ts';
import { cutMeasured } from './cut-measured.ts';

const disc: Piece = {
  id: 'd',
  name: 'Disc',
  purpose: 'cut',
  leftOut: false,
  runsOff: false,
  outer: circlePath({ x: 50, y: 50 }, 20),
  holes: [],
};
const open = (path: Path): Path => ({ ...path, closed: false });

describe('the cut piece, measured from what was burnt', () => {
  const cutting = { ...plainCutting, kerfMm: 0.3 };
  const plan = plannedCut([disc], cutting, machine);
  const burnt = plan.runs.map((r) => open(r.path));
  it('is exact where the burn is the plan', () => {
    const { largestMm, share } = cutMeasured([disc], plan, burnt, 0.3);
    expect(largestMm).toBeLessThan(1e-6);
    expect(share).toBe(1);
  });
  it('is off by as much as the burn is', () => {
    const slipped = burnt.map((path) => transformedPath(path, shift(0.07, 0)));
    expect(cutMeasured([disc], plan, slipped, 0.3).largestMm).toBeCloseTo(0.07, 3);
  });
  it('is off where something was not burnt', () => {
    const half = burnt.map((path) => ({ ...path, segments: path.segments.slice(0, 1) }));
    expect(cutMeasured([disc], plan, half, 0.3).largestMm).toBeGreaterThan(10);
  });
  it('leaves tabs out of the reckoning', () => {
    const held = plannedCut([disc], { ...cutting, tabs: { count: 4, spacingMm: 0, widthMm: 3 } }, machine);
    const { largestMm, share } = cutMeasured([disc], held, held.runs.map((r) => r.path), 0.3); // biome-ignore format: one line
    expect(largestMm).toBeLessThan(0.01);
    expect(share).toBeLessThan(0.95);
    expect(share).toBeGreaterThan(0.8);
  });
});

describe('the list of a proof sheet', () => {
  it('counts pieces that measure alike in one row', () => {
    const row = (name: string, widthMm: number) => ({ name, widthMm, heightMm: 10, perimeterMm: 40, areaMm2: 100, purpose: 'cut' });
    expect(proofRows([row('A', 10), row('B', 10.01), row('C', 12)]).map((r) => [r.name, r.count])).toEqual([
      ['A', 2],
      ['C', 1],
    ]);
  });
});
