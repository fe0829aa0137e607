/** Documents and edits of version 3: nothing of them is lost, and what was done then is undone now. */
import { describe, expect, it } from 'vitest';
import { documentOf } from './document.ts';
import { patched } from './history.ts';
import { emptyJob, type Job, jobSchema } from './schema.ts';
import { asThird } from './third-version.ts';

const machine = { name: 'Heron Lane laser', unit: 'in', y: 'down', origin: 'upper-left', toleranceMm: 0.01 };
const cutting = {
  kerfMm: 0.15,
  corners: 'mitre',
  start: { x: 3, y: 4 },
  lead: { kind: 'arc', inMm: 2, outMm: 1 },
  overcutMm: 0.5,
  tabs: { count: 2, spacingMm: 0, widthMm: 0.6 },
  hatch: { angle: 0.5, spacingMm: 0.2, airMm: 3 },
  perforation: { cutMm: 4, leftMm: 2 },
  strengths: { cut: { strength: 0.7, speedMmPerMin: 600, passes: 2 } },
};
const printing = {
  paper: 'A3',
  widthMm: 210,
  heightMm: 297,
  landscape: true,
  marginMm: 8,
  overlapMm: 12,
  place: { x: 1, y: 2 },
  withPicture: true,
};
const picture = {
  id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10',
  name: 'weir.png',
  widthPx: 900,
  heightPx: 600,
  resolution: null,
  opacity: 1,
  marks: [
    { id: 'b', kind: 'box', points: [{ x: 0, y: 0 }, { x: 100, y: 0 }, { x: 100, y: 50 }], stated: [{ text: '50', value: 50 }, { text: '', value: null }], way: 'covering' },
  ],
}; // biome-ignore format: a mark a line
const third = (way: string, setup: object) => ({
  version: 3,
  name: 'Weir gate',
  unit: 'mm',
  making: { way, stock: 'Ash', thicknessMm: 12 },
  pictures: [picture],
  drawings: [],
  drawn: [],
  planScale: null,
  traces: [],
  proof: { pinned: [], accepted: [], thinnestMm: 1.5, clearanceMm: 0, holds: [{ id: 'h', from: { x: 0, y: 0 }, to: { x: 5, y: 0 }, widthMm: 1 }], box: null },
  setup,
}); // biome-ignore format: a document
const whole = {
  stockWidthMm: 600,
  stockHeightMm: 400,
  cutting,
  machine,
  printing,
  folding: { allowance: 0.7, bleedMm: 4 },
  fileNames: '{job} {date}',
};

describe('a document of version 3', () => {
  it('keeps all that it said, by its new names', () => {
    const job = jobSchema.parse(third('laser', whole));
    expect(job.version).toBe(4);
    expect(job.making.stock).toEqual({ name: 'Ash', thicknessMm: 12, widthMm: 600, heightMm: 400, shelf: null });
    expect(job.making.fileNames).toBe('{job} {date}');
    expect(job.making.processes.map(({ process }) => process)).toEqual(['laser', 'paper']);
    const [laser, paper] = job.making.processes;
    expect(laser?.machine).toMatchObject(machine);
    const { hatch, strengths: _, ...same } = cutting;
    expect(laser?.settings).toEqual({
      ...same,
      hatch: { angle: hatch.angle, spacingMm: hatch.spacingMm, overscanMm: hatch.airMm },
      powerSettings: { cut: { power: 0.7, speedMmPerMin: 600, passes: 2 } },
    });
    // What was as it was assumed is so still.
    const { widthMm, heightMm, ...set } = printing;
    expect([widthMm, heightMm]).toEqual([210, 297]);
    expect(paper?.settings).toEqual({ ...set, bleedMm: 4 });
    expect(job.proof).toMatchObject({ thinnestMm: 1.5, creaseAllowance: 0.7, bridges: [{ id: 'h', widthMm: 1 }] });
    expect(job.pictures[0]?.marks[0]?.boxFit).toBe('covering');
  });
  it.each([
    ['laser', {}, ['laser']],
    ['paper', {}, ['paper']],
    ['paper', { cutting }, ['paper', 'laser']],
    ['cnc', {}, ['outlines']],
    ['cnc', { cutting: { ...cutting, lead: { kind: 'none', inMm: 2, outMm: 0 } } }, ['outlines', 'laser']],
    ['quilting', { printing }, ['outlines', 'paper']],
    ['foam', { cutting: { kerfMm: 3 } }, ['outlines']],
  ])('made by %s with %j has the processes %j', (way, setup, processes) => {
    const job = jobSchema.parse(third(way, setup));
    expect(job.making.processes.map(({ process }) => process)).toEqual(processes);
    if ('cutting' in setup) expect(job.making.processes[way === 'paper' ? 1 : 0]?.settings.kerfMm).toBe(setup.cutting?.kerfMm);
  });
  it('of a way that no version knew is refused', () => {
    expect(jobSchema.safeParse({ ...third('laser', whole), making: 'laser' }).success).toBe(false);
    expect(jobSchema.safeParse({ ...third('laser', whole), making: { way: 'laser', stock: 7 } }).success).toBe(false);
  });
  it.each(['laser', 'paper', 'cnc'])('made by %s comes out of what it was taken back to as it was', (way) => {
    const job = jobSchema.parse(third(way, whole));
    expect(jobSchema.parse(asThird(documentOf(job)))).toEqual(job);
  });
});

describe('an edit of version 3', () => {
  const job = jobSchema.parse(third('laser', whole));
  const after = (patches: { op: 'replace' | 'add' | 'remove'; path: (string | number)[]; value?: unknown }[]): Job => patched(job, patches);
  it.each([
    [['setup', 'cutting', 'kerfMm'], 0.2, (j: Job) => j.making.processes[0]?.settings.kerfMm],
    [['setup', 'cutting', 'hatch', 'airMm'], 9, (j: Job) => Object(j.making.processes[0]?.settings.hatch).overscanMm],
    [['setup', 'machine', 'origin'], 'centre', (j: Job) => j.making.processes[1]?.machine.origin],
    [['setup', 'printing', 'paper'], 'A5', (j: Job) => j.making.processes[1]?.settings.paper],
    [['setup', 'folding', 'allowance'], 1, (j: Job) => j.proof.creaseAllowance],
    [['setup', 'stockWidthMm'], 900, (j: Job) => j.making.stock.widthMm],
    [['making', 'thicknessMm'], 6, (j: Job) => j.making.stock.thicknessMm],
    [['making', 'stock'], 'Walnut', (j: Job) => j.making.stock.name],
    [['making', 'way'], 'paper', (j: Job) => (j.making.processes[0]?.process === 'paper' ? 'paper' : '')],
    [['proof', 'holds', 0, 'widthMm'], 2, (j: Job) => j.proof.bridges[0]?.widthMm],
    [['pictures', 0, 'marks', 0, 'way'], 'each-side', (j: Job) => j.pictures[0]?.marks[0]?.boxFit],
  ] as const)('of %j is done and undone', (path, value, told) => {
    const changed = after([{ op: 'replace', path: [...path], value }]);
    expect(told(changed)).toBe(value);
    const kept = told(job);
    const back = patched(changed, [{ op: 'replace', path: [...path], value: kept }]);
    if (path[1] !== 'way') expect(back).toEqual(job);
  });
  it('of a mark that was put back whole is understood, and one of today stays as it is', () => {
    const [mark] = picture.marks;
    const back = after([{ op: 'replace', path: ['pictures', 0, 'marks', 0], value: { ...mark, way: 'contained' } }]);
    expect(back.pictures[0]?.marks[0]?.boxFit).toBe('contained');
    const now = patched(emptyJob('Weir'), [{ op: 'replace', path: ['making', 'stock', 'name'], value: 'Ash' }]);
    expect(now.making.stock.name).toBe('Ash');
  });
});
