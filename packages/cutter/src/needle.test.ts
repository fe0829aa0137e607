import { describe, expect, it } from 'vitest';
import { Refused } from './interpreter.ts';
import { Needle, sewnMeasured } from './needle.ts';
import { NeedleWork } from './needle-work.ts';

const setUp = { widthMm: 200, heightMm: 100, stitchesPerMin: 600, bobbinMm: 60 };

/** Sews a program in small steps; what somebody was asked for on the way. */
function sewn(lines: readonly string[], given = setUp): { work: NeedleWork; prompts: string[] } {
  const work = new NeedleWork(given);
  const prompts: string[] = [];
  for (const line of lines) {
    const asked = work.read(line);
    if (asked?.kind === 'prompt') prompts.push(asked.text);
    for (let k = 0; !work.isIdle && k < 10_000; k++) work.pass(0.05);
  }
  return { work, prompts };
}

describe('the needle', () => {
  it('sews where it is told to, moves over with the needle up, and keeps the two apart', () => {
    const { work } = sewn(['jump 10 10', 'stitch 12 10', 'stitch 14 10', 'jump 50 50', 'stitch 50 52', 'end'], {
      ...setUp,
      bobbinMm: 9000,
    });
    expect(work.stretches(0).map(({ line, points }) => [line, points])).toEqual([
      [2, [{ x: 10, y: 10 }, { x: 12, y: 10 }, { x: 14, y: 10 }]],
      [5, [{ x: 50, y: 50 }, { x: 50, y: 52 }]],
    ]); // biome-ignore format: places in a row
    expect(work.state()).toMatchObject({ x: 50, y: 52, needle: 'down', stitches: 3 });
  });
  it('takes its time: 600 stitches a minute are ten a second', () => {
    const needle = new Needle(setUp);
    for (let k = 1; k <= 20; k++) needle.take(true, { x: k, y: 0 });
    needle.pass(1);
    expect(needle.stitches).toBe(10);
  });
  it('asks for another bobbin once the thread is sewn off', () => {
    const stitches = Array.from({ length: 40 }, (_, k) => `stitch ${(k + 1) * 2} 0`);
    // A stitch of 2 mm takes 3.5 mm of thread: 60 mm are 18 stitches.
    expect(sewn(['jump 0 0', ...stitches]).prompts.length).toBe(2);
  });
  it.each([
    ['stitch 40 10', /a stitch of 40\.0 mm breaks the thread|a stitch of 41\.2 mm/],
    ['stitch 10 900', /out of reach/],
    ['sew 1 2', /neither jump, stitch nor end/],
    ['stitch 1', /neither/],
    ['stitch NaN 3', /neither/],
  ])('refuses “%s”', (line, why) => {
    const work = new NeedleWork(setUp);
    expect(() => work.read(line)).toThrow(Refused);
    expect(() => work.read(line)).toThrow(why);
  });
  it('measures by itself: each hole against the line, and the line against the seam', () => {
    const holes = Array.from({ length: 51 }, (_, k) => ({ x: 2 * k, y: k === 20 ? 1.5 : 0 }));
    const { offMm, missedMm } = sewnMeasured([{ line: 1, points: holes.slice(0, 41) }], { lines: [[0, 0, 100, 0]] }, 40);
    expect(offMm).toBeCloseTo(1.5, 9);
    // The last 20 mm were not sewn: farther than is looked for.
    expect(missedMm).toBe(8);
    const whole = sewnMeasured([{ line: 1, points: holes.filter(({ y }) => y === 0) }], { lines: [[0, 0, 100, 0]] }, 50);
    expect(whole.offMm + whole.missedMm).toBeLessThan(1e-9);
  });
});
