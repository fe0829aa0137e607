import { describe, expect, it } from 'vitest';
import {
  applyCommand,
  defaultTraceSettings,
  emptyJob,
  type Job,
  type JobTrace,
  type Mark,
  newPicture,
  type Picture,
} from '../job/index.ts';
import { circlePath, type Path } from '../plane/index.ts';
import { faultsOfJob } from '../processes/index.ts';
import { findingsOf } from './index.ts';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const sized = newPicture({ id, name: 'otter.png', widthPx: 1000, heightPx: 800, resolution: { dpi: 300, source: 'jfif', trusted: true } });
const known = (key: string, px: number, mm: number): Mark => ({
  kind: 'known-length',
  id: key,
  points: [
    { x: 0, y: 0 },
    { x: px, y: 0 },
  ],
  stated: [{ text: `${mm}`, value: mm }],
});
const piece = (name: string, outer: Path, more: object = {}) => ({
  id: name,
  name,
  purpose: 'cut' as const,
  leftOut: false,
  runsOff: false,
  outer,
  holes: [],
  ...more,
});
const jobOf = (picture: Picture, pieces: ReturnType<typeof piece>[]): Job => {
  const job = applyCommand(emptyJob('Otter'), { do: 'bring-in', picture });
  const trace: JobTrace = {
    pictureId: id,
    settings: { ...defaultTraceSettings, toleranceMm: 0.1, smallestMm: 1 },
    threshold: 128,
    dropped: 0,
    insideFrame: false,
    mmPerPx: 0.1,
    toSheet: { a: 0.1, b: 0, c: 0, d: -0.1, e: 0, f: 80 },
    projection: null,
    pieces,
  };
  return pieces.length > 0 ? applyCommand(job, { do: 'set-trace', trace }) : job;
};
const findingsAbout = (job: Job) => findingsOf(job, faultsOfJob(job));
const codes = (job: Job) => findingsAbout(job).map((f) => `${f.weight}: ${f.code}`);
const disc = piece('Piece 1', circlePath({ x: 20, y: 20 }, 10));
const byLength = { ...sized, marks: [known('a', 1000, 100)] };

describe('findings', () => {
  it('are none for closed pieces of known size', () => expect(codes(jobOf(byLength, [disc]))).toEqual([]));
  it('ask for a picture, a size, a trace, in that order', () => {
    expect(codes(emptyJob('Otter'))).toEqual(['stops: no-picture']);
    expect(codes(jobOf({ ...sized, resolution: null }, []))).toEqual(['stops: size-unknown', 'stops: no-pieces']);
  });
  it('say when the size rests on the file alone', () => expect(codes(jobOf(sized, [disc]))).toEqual(['look: size-from-file']));
  it('name known lengths that disagree by more than half a percent, and no others', () => {
    expect(codes(jobOf({ ...sized, marks: [known('a', 1000, 100), known('b', 500, 50.2)] }, [disc]))).toEqual([]);
    expect(codes(jobOf({ ...sized, marks: [known('a', 1000, 100), known('b', 500, 52)] }, [disc]))).toEqual(['look: marks-disagree']);
  });
  it('stop at an outline that is open, by flag or by a gap', () => {
    const circle = circlePath({ x: 60, y: 20 }, 10);
    const gap: Path = { ...circle, segments: circle.segments.slice(0, 1) };
    for (const outer of [{ ...circle, closed: false }, gap]) {
      const [finding] = findingsAbout(jobOf(byLength, [disc, piece('Piece 2', outer)]));
      expect(finding).toMatchObject({
        code: 'open',
        weight: 'stops',
        pieceIds: ['Piece 2'],
        message: expect.stringMatching(/^Piece 2 is not closed: its ends are/),
      });
    }
  });
  it('let lines to fold along be open', () => {
    const line: Path = { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 9, y: 0 } }], closed: false };
    expect(codes(jobOf(byLength, [disc, piece('Line 2', line, { purpose: 'score' })]))).toEqual([]);
    expect(codes(jobOf(byLength, [disc, piece('Line 2', line)]))).toEqual(['stops: purpose-unset']);
  });
  it('point at pieces that the picture cuts off, unless they are left out', () => {
    const rim = piece('Piece 2', circlePath({ x: 0, y: 0 }, 5), { runsOff: true });
    expect(codes(jobOf(byLength, [disc, rim]))).toEqual(['look: runs-off']);
    expect(codes(jobOf(byLength, [disc, { ...rim, leftOut: true }]))).toEqual([]);
    expect(codes(jobOf(byLength, [{ ...rim, leftOut: true }]))).toEqual(['stops: all-left-out']);
  });
});
