/** The drawing that stands in the list of jobs for one without a picture. */
import { applyCommand, type Command, emptyJob, type Job } from '@nuvet/core/job';
import { expect, it } from 'vitest';
import { jobDrawing } from './job-drawing';

const withDrawn = (job: Job, id: string, x: number, leftOut = false): Job => {
  const draw: Command = {
    do: 'draw',
    drawn: { id, name: id, purpose: 'cut', leftOut, source: { kind: 'figure', figure: { kind: 'circle', centre: { x, y: 10 }, radius: 8 } }, live: [] },
  }; // biome-ignore format: one command
  return applyCommand(job, draw);
};

it('has a shape for every piece that is kept, in one frame, and no other mark', () => {
  const two = withDrawn(withDrawn(emptyJob('Rings'), 'a', 10), 'b', 60);
  const drawing = jobDrawing(two);
  expect(drawing).toMatch(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" viewBox="0 0 320 240">/);
  expect(drawing.match(/<path /g)).toHaveLength(2);
  expect(drawing).not.toMatch(/NaN|undefined|<script|<text/);
  // 66 mm wide in 296 pixels: the second ring begins 50 mm to the right.
  const lefts = [...drawing.matchAll(/ d="([^"]+)"/g)].map(([, d = '']) =>
    Math.min(...d.split(/[MLZ]/).flatMap((pair) => (pair === '' ? [] : [Number(pair.split(' ')[0])]))),
  );
  expect((lefts[1] as number) - (lefts[0] as number)).toBeCloseTo((50 * 296) / 66, 0);
});

it('leaves out what was left out, and is empty for an empty job', () => {
  const kept = withDrawn(withDrawn(emptyJob('Rings'), 'a', 10), 'b', 60, true);
  expect(jobDrawing(kept).match(/<path /g)).toHaveLength(1);
  expect(jobDrawing(emptyJob('Bare'))).not.toContain('<path');
});
