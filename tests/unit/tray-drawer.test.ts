/** Pockets dragged about a drawer, and the figures that are engraved beside them. */
import { type Piece, plainStock } from '@nuvet/core/job';
import { pathBox, rectanglePath } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { plainTray, snappedInTray, type TraySettings, trayPlan } from '@nuvet/core/tray';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lawRuns } from './random-laws.ts';

const block = (id: string, x: number, y: number, width: number, height: number): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer: rectanglePath({ minX: x, minY: y, maxX: x + width, maxY: y + height }), holes: [] }); // biome-ignore format: one line
const settings: TraySettings = { ...plainTray, clearanceMm: 0, notchMm: 0, widthMm: 300, lengthMm: 200, marginMm: 10, wallMm: 6 };
/** A block of 60 by 30 in the drawer's middle, and one of 20 by 40 that is dragged. */
const plan = finished(trayPlan([block('still', 120, 85, 60, 30), block('dragged', 200, 85, 20, 30)], [], { ...settings, objects: [{ pieceId: 'still', heightMm: null, edge: null, depthMm: null, place: { at: { x: 150, y: 100 }, turn: 0 } }] }, plainStock)); // biome-ignore format: one line
const size = { width: 20, height: 40 };
const drag = (x: number, y: number, reach = 4) => snappedInTray(plan, settings, 'dragged', { x, y }, size, reach);

describe('a pocket dragged in its drawer', () => {
  it('snaps against the margin on all four sides', () => {
    expect(drag(22, 60)).toMatchObject({ at: { x: 20 }, across: 'margin' });
    expect(drag(278, 60)).toMatchObject({ at: { x: 280 }, across: 'margin' });
    expect(drag(60, 32)).toMatchObject({ at: { y: 30 }, up: 'margin' });
    expect(drag(60, 167)).toMatchObject({ at: { y: 170 }, up: 'margin' });
  });
  it('snaps a wall’s width off a neighbour, and in line with it', () => {
    // Right of the still one: its edge at 180, a wall of 6, half of its own 20; over it a wall over its upper edge at 115.
    expect(drag(195, 92)).toMatchObject({ at: { x: 196 }, across: 'wall' });
    expect(drag(103, 92)).toMatchObject({ at: { x: 104 }, across: 'wall' });
    expect(drag(140, 142)).toMatchObject({ at: { y: 141 }, up: 'wall' });
    expect(drag(150.5, 60).at.x).toBe(150);
    expect(drag(131.5, 60)).toMatchObject({ at: { x: 130 }, across: 'in line' });
    expect(drag(60, 105.5)).toMatchObject({ at: { y: 105 }, up: 'in line' });
  });
  it('lies free where nothing is near, or where it is not to snap', () => {
    expect(drag(60, 60)).toEqual({ at: { x: 60, y: 60 }, across: null, up: null });
    expect(drag(22, 32, 0)).toEqual({ at: { x: 22, y: 32 }, across: null, up: null });
  });
  it('never goes farther than it reaches; a wall is as thick as asked, beside the neighbour', () => {
    const place = fc.double({ min: -50, max: 350, noNaN: true });
    fc.assert(
      fc.property(place, place, fc.double({ min: 0, max: 20, noNaN: true }), (x, y, reach) => {
        const { at, across, up } = drag(x, y, reach);
        expect(Math.abs(at.x - x)).toBeLessThanOrEqual(across ? reach : 0);
        expect(Math.abs(at.y - y)).toBeLessThanOrEqual(up ? reach : 0);
        const [left, low] = [at.x - size.width / 2, at.y - size.height / 2];
        if (across === 'wall') expect(Math.min(Math.abs(left - 180), Math.abs(120 - left - size.width))).toBeCloseTo(6, 9);
        if (up === 'wall') expect(Math.min(Math.abs(low - 115), Math.abs(85 - low - size.height))).toBeCloseTo(6, 9);
        // Far from the still one there is no wall to stand.
        if (Math.abs(y - 100) > 41) expect(across).not.toBe('wall');
      }),
      { numRuns: lawRuns(400) },
    );
  });
});

describe('the numbers of a tray', () => {
  const many = Array.from({ length: 24 }, (_, k) => block(`b${k}`, (k % 6) * 60, Math.floor(k / 6) * 60, 30, 30));
  const numbered = finished(trayPlan(many, [], { ...settings, widthMm: 400, lengthMm: 300 }, plainStock)).pockets;

  it('stand beside their pocket, 6 mm high, on no other', () => {
    for (const { numeral, pocket } of numbered) {
      expect(numeral.length).toBeGreaterThan(0);
      const boxes = numeral.map(pathBox);
      const [low, high] = [Math.min(...boxes.map(({ minY }) => minY)), Math.max(...boxes.map(({ maxY }) => maxY))];
      expect(high - low).toBeCloseTo(6, 6);
      const own = pathBox(pocket.outer);
      const [left, right] = [Math.min(...boxes.map(({ minX }) => minX)), Math.max(...boxes.map(({ maxX }) => maxX))];
      expect(low > own.maxY || high < own.minY || left > own.maxX || right < own.minX).toBe(true);
      for (const other of numbered) {
        const box = pathBox(other.pocket.outer);
        expect(left < box.maxX && right > box.minX && low < box.maxY && high > box.minY).toBe(false);
      }
    }
  });
  it('are drawn each in its own way: no two are the same lines', () => {
    const drawn = numbered.map(({ numeral }) => {
      const minX = Math.min(...numeral.map((path) => pathBox(path).minX));
      const minY = Math.min(...numeral.map((path) => pathBox(path).minY));
      return JSON.stringify(numeral.map(({ start, segments }) => [start, ...segments.map(({ to }) => to)].map(({ x, y }) => [Math.round(100 * (x - minX)), Math.round(100 * (y - minY))]))); // biome-ignore format: one line
    });
    expect(new Set(drawn).size).toBe(numbered.length);
  });
  it('are none where they are not asked for', () => {
    expect(finished(trayPlan(many, [], { ...settings, numbered: false }, plainStock)).pockets.flatMap(({ numeral }) => numeral)).toEqual(
      [],
    );
  });
});
