/** The registry of processes: each by itself, and a job that has several. */
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';
import {
  applyCommand,
  type Command,
  emptyJob,
  type Job,
  type Piece,
  type ProcessEntry,
  type Purpose,
  plainMachine,
  plainStock,
  purposes,
} from '../job/index.ts';
import { millToolSchema } from '../milling/index.ts';
import { circlePath, distance, endOf, type Point, pathBox, polygonPath, reversedPath } from '../plane/index.ts';
import { type Fault, findingsOf } from '../proof/index.ts';
import { finished } from '../steps.ts';
import {
  checkedCommandSchema,
  checkedJobSchema,
  faultsOfJob,
  faultsTogether,
  limitsOf,
  meaningOf,
  newEntry,
  processesOf,
  processKinds,
  processNames,
  settingsOf,
  type Work,
} from './index.ts';

const square = (x: number, y: number, side: number) =>
  polygonPath([{ x, y }, { x: x + side, y }, { x: x + side, y: y + side }, { x, y: y + side }]); // biome-ignore format: corners
const piece = (name: string, purpose: Purpose, outer: Piece['outer'], holes: Piece['holes'] = []): Piece => ({
  id: name,
  name,
  purpose,
  leftOut: false,
  runsOff: false,
  outer,
  holes,
});
const pieces = [
  piece('Plate', 'cut', square(0, 0, 60), [reversedPath(circlePath({ x: 30, y: 30 }, 10))]),
  piece('Crease', 'score', { start: { x: 10, y: 5 }, segments: [{ kind: 'line', to: { x: 50, y: 5 } }], closed: false }),
  piece('Panel', 'pocket', square(5, 45, 8)),
];
/** Where a process has tools, one that fits everywhere. */
const fineMill = { id: 'fine', name: 'End mill, 1 mm', kind: 'end mill', diameterMm: 1, speedRpm: 18_000, feedMmPerMin: 400, plungeMmPerMin: 100, stepdownMm: 1, stepover: 0.4 }; // biome-ignore format: fields
const workFor = (name: string, settings: object = {}): Work<object> => {
  const plain = processKinds[name]?.plain;
  const tools = 'tools' in plain ? { tools: [millToolSchema.parse(fineMill)] } : {};
  return {
    title: 'Weir',
    pieces,
    settings: { ...plain, ...tools, ...settings },
    machine: plainMachine,
    stock: { ...plainStock, thicknessMm: 3 },
  };
};

describe.each(processNames)('the process %s', (name) => {
  const kind = processKinds[name] as (typeof processKinds)[string];
  it('has a word and a sentence, plain settings that it takes itself, and no others', () => {
    expect(kind.word).toMatch(/^[A-Z]/);
    expect(kind.about).toMatch(/^[A-Z].*\.$/);
    expect(kind.settings.parse(kind.plain)).toEqual(kind.plain);
    expect(kind.settings.safeParse({ ...kind.plain, surprise: 1 }).success).toBe(false);
    for (const key of kind.ofMaterial) expect(kind.plain).toHaveProperty(key);
  });
  it('says of each purpose what it makes of it', () => {
    for (const purpose of purposes) expect(meaningOf(kind, purpose)).not.toBe('');
    expect(meaningOf(kind, 'cut')).not.toBeNull();
  });
  it('plans, and makes each of its files so that it is as large as the pieces', async () => {
    // The disk in the plate's hole is laid beside it: two things do not lie in one place.
    const work = workFor(name, name === 'tray' ? { layout: 'close together' } : {});
    await kind.ready?.();
    const plan = finished(kind.plan(work));
    expect(kind.notes(plan).filter(({ isFailure }) => isFailure)).toEqual([]);
    for (const [file, { make, ending, isOffered }] of Object.entries(kind.files)) {
      if (isOffered && !isOffered(work.settings)) continue;
      // A disk in a plate is no patch that can be sewn.
      if (file === 'foundations') {
        await expect(make(work, plan, { dpi: 200, underlay: null })).rejects.toThrow(/No part of this block/);
        continue;
      }
      const made = await make(work, plan, { dpi: 200, underlay: null });
      expect([file, made.bytes.length > 100, ending.length > 0]).toEqual([file, true, true]);
      if (made.largestMm !== null && made.toleranceMm !== null) {
        expect(made.largestMm).toBeLessThanOrEqual(made.toleranceMm);
        // A block, a drawer and a plan sheet are as large as was typed, whatever is drawn; a body's formers lie on sheets.
        if (['quilting', 'foam', 'tray', 'wing', 'plan-sheet'].includes(name)) continue;
        expect(made.widthMm).toBeGreaterThan(59);
        // The bleed lies round it by 3 mm.
        expect(made.widthMm).toBeLessThan(67);
      } else if (name !== 'tray' && name !== 'wing') expect(made.pages ?? 1).toBe(1);
    }
  });
});

describe('what a process makes', () => {
  const lengthOf = (name: string) => {
    const kind = processKinds[name] as (typeof processKinds)[string];
    return kind.estimate(finished(kind.plan(workFor(name))));
  };
  it('a laser clears areas and takes its time; a knife leaves them, along the same outlines', () => {
    const [laser, knife] = [lengthOf('laser'), lengthOf('knife')];
    expect(laser.rows.map(({ purpose }) => purpose)).toEqual(['pocket', 'score', 'cut']);
    expect(knife.rows.map(({ purpose }) => purpose)).toEqual(['score', 'cut']);
    const around = 4 * 60 + 2 * Math.PI * 10;
    for (const { rows } of [laser, knife]) expect(rows.find(({ purpose }) => purpose === 'cut')?.lengthMm).toBeCloseTo(around, 6);
    expect(laser.seconds).toBeGreaterThan(0);
  });
  it('kerf holds for a laser and for outlines, each its own; a knife and paper have none', async () => {
    const widthOf = async (name: string) => {
      const kind = processKinds[name] as (typeof processKinds)[string];
      const work = workFor(name, 'kerfMm' in kind.plain ? { kerfMm: 0.4 } : {});
      return (await kind.files.dxf?.make(work, finished(kind.plan(work)), { dpi: 200, underlay: null }))?.widthMm;
    };
    expect(await widthOf('laser')).toBeCloseTo(60.4, 6);
    expect(await widthOf('outlines')).toBeCloseTo(60.4, 6);
    expect(await widthOf('knife')).toBeCloseTo(60, 6);
    expect(await widthOf('paper')).toBeCloseTo(60, 6);
  });
  it('draws on the sheet what it does there', () => {
    const kind = processKinds.laser as (typeof processKinds)[string];
    const lines = kind.drawing(finished(kind.plan(workFor('laser'))));
    expect(new Set(lines.map((line) => line.kind))).toEqual(new Set(['work', 'hatch', 'travel']));
    expect(lines.filter((line) => line.kind === 'hatch').every((line) => line.purpose === 'pocket')).toBe(true);
    // The tool goes on from where it was, without a gap.
    const ends = lines.flatMap(({ path }) => [path.start, endOf(path)]);
    for (let k = 2; k < ends.length; k += 2) expect(distance(ends[k] as Point, ends[k - 1] as Point)).toBeLessThan(1e-9);
    const box = pathBox(lines.filter((line) => line.purpose === 'cut').map((line) => line.path)[1] as Piece['outer']);
    expect(box.maxX).toBeCloseTo(60, 9);
  });
});

const withEntries = (...entries: ProcessEntry[]): Job => {
  const job = emptyJob('Weir');
  return { ...job, making: { ...job.making, processes: entries } };
};
const entry = (id: string, process: string, settings: ProcessEntry['settings'] = {}): ProcessEntry => ({
  ...newEntry(id, process, emptyJob('')),
  settings,
});

describe('a job of several processes', () => {
  it('gives each its settings, those never typed as they are until then, the same object each time', () => {
    const [laser, paper] = processesOf(withEntries(entry('a', 'laser', { kerfMm: 0.2 }), entry('b', 'paper')));
    if (!laser || !paper) throw new Error('two processes');
    expect(settingsOf(laser)).toEqual({ ...processKinds.laser?.plain, kerfMm: 0.2 });
    expect(settingsOf(laser)).toBe(settingsOf(laser));
    expect(settingsOf(paper)).toEqual(processKinds.paper?.plain);
  });
  it('keeps a process that is not known here, and shows the others', () => {
    const job = withEntries(entry('a', 'of another day', { depthMm: 3 }), entry('b', 'paper'));
    expect(processesOf(job).map((one) => one.entry.id)).toEqual(['b']);
    expect(checkedJobSchema.parse(job)).toEqual(job);
  });
  it('is checked against the limits of each, alike ones once', () => {
    const shared = limitsOf(withEntries(entry('a', 'laser', { kerfMm: 0.2 }), entry('b', 'paper'), entry('c', 'knife')));
    expect(shared.map(({ limits, processIds }) => [limits.kerfMm, processIds])).toEqual([[0.2, ['a']], [0, ['b', 'c']]]); // biome-ignore format: one line
    expect(limitsOf(withEntries()).map(({ limits }) => limits.kerfMm)).toEqual([0]);
  });
  it('a slot that closes up for the laser alone is told for the laser alone; a crossing for both, once', () => {
    const drawn = (id: string, outer: Piece['outer'], holes: Piece['holes'] = []): Command =>
      ({ do: 'draw', drawn: { id, name: id, purpose: 'cut', leftOut: false, source: { kind: 'paths', paths: [outer, ...holes] }, live: [] } }); // biome-ignore format: one line
    const slot = reversedPath(polygonPath([{ x: 10, y: 10 }, { x: 40, y: 10 }, { x: 40, y: 11.5 }, { x: 10, y: 11.5 }])); // biome-ignore format: corners
    const job = [drawn('plate', square(0, 0, 60), [slot]), drawn('other', square(50, 20, 30))].reduce(
      applyCommand,
      withEntries(entry('a', 'laser', { kerfMm: 2 }), entry('b', 'paper')),
    );
    const findings = findingsOf(job, faultsOfJob(job));
    const told = (code: string) => findings.filter((f) => f.code === code).map((f) => f.processIds ?? 'all');
    expect(told('crosses-another')).toEqual(['all']);
    expect(told('narrow-hole')).toEqual([['a']]);
  });
  it('what means nothing to a process is not told for it', () => {
    const line = { id: 'l', name: 'Seam', purpose: 'cut' as const, leftOut: false, source: { kind: 'path' as const, path: { start: { x: 0, y: 0 }, segments: [{ kind: 'line' as const, to: { x: 9, y: 9 } }], closed: false } }, live: [] }; // biome-ignore format: one line
    const codesFor = (...processes: string[]) =>
      faultsOfJob(applyCommand(withEntries(...processes.map((one) => entry(one, one))), { do: 'draw', drawn: line })).map((f) => [f.code, f.processIds]); // biome-ignore format: one line
    expect(codesFor('laser')).toEqual([['purpose-unset', undefined]]);
    expect(codesFor('quilting')).toEqual([]);
    expect(codesFor('laser', 'quilting')).toEqual([['purpose-unset', ['laser']]]);
  });
  it('a fault is told for those under whose limits it is found; said twice under one it is told once, and not for all', () => {
    const fault = (code: string, x: number): Fault => ({ code: code as Fault['code'], weight: 'look', message: code, said: { code, parameters: [] }, pieceIds: [], places: [{ x, y: 0 }], fixes: [] }); // biome-ignore format: one line
    const all = faultsTogether([
      { faults: [fault('open', 1), fault('open', 1), fault('stub', 5)], processIds: ['a'], ignores: [] },
      { faults: [fault('stub', 5)], processIds: ['b', 'c'], ignores: [] },
      { faults: [fault('stub', 5), fault('open', 2)], processIds: ['d'], ignores: [] },
    ]);
    expect(all.map(({ code, places: [at], processIds }) => [code, at?.x, processIds])).toEqual([['open', 1, ['a']], ['stub', 5, undefined], ['open', 2, ['d']]]); // biome-ignore format: one line
  });
  it('pieces larger than the bed of a machine are told for that machine', () => {
    const bed = { ...plainMachine, name: 'School diode laser', bedWidthMm: 50, bedHeightMm: 40 };
    const job = applyCommand(withEntries({ ...entry('a', 'laser'), machine: bed }, entry('b', 'paper')), {
      do: 'draw',
      drawn: { id: 'p', name: 'Plate', purpose: 'cut', leftOut: false, source: { kind: 'path', path: square(0, 0, 60) }, live: [] },
    });
    const [found] = findingsOf(job, []).filter(({ code }) => code === 'larger-than-bed');
    expect(found).toMatchObject({ processIds: ['a'], weight: 'look', message: 'Together the pieces measure 60 mm x 60 mm; School diode laser takes 50 mm x 40 mm.' }); // biome-ignore format: one line
  });
});

describe('edits of processes', () => {
  const job = withEntries(entry('a', 'laser'));
  it('change settings of one process, its machine, the unit and origin of all that were not told otherwise', () => {
    const changed = applyCommand(job, { do: 'set-process', id: 'a', process: 'laser', change: { kerfMm: 0.3 } });
    expect(changed.making.processes[0]?.settings).toEqual({ kerfMm: 0.3 });
    const inches = applyCommand(applyCommand(changed, { do: 'add-process', entry: entry('b', 'paper') }), { do: 'set-unit', unit: 'in' });
    expect(inches.making.processes.map(({ machine }) => machine.unit)).toEqual(['in', 'in']);
    expect(applyCommand(inches, { do: 'remove-process', id: 'a' }).making.processes.map(({ id }) => id)).toEqual(['b']);
  });
  it('are refused where the process is gone, is another one, or is there already', () => {
    for (const command of [
      { do: 'set-process', id: 'x', process: 'laser', change: {} },
      { do: 'set-process', id: 'a', process: 'paper', change: {} },
      { do: 'remove-process', id: 'x' },
      { do: 'set-machine', id: 'x', machine: plainMachine },
      { do: 'add-process', entry: entry('a', 'paper') },
    ] as const)
      expect(() => applyCommand(job, command)).toThrow();
  });
  it.each([
    [{ do: 'set-process', id: 'a', process: 'laser', change: { kerfMm: -1 } }, false],
    [{ do: 'set-process', id: 'a', process: 'laser', change: { paper: 'A4' } }, false],
    [{ do: 'set-process', id: 'a', process: 'laser', change: { kerfMm: 0.1 } }, true],
    [{ do: 'set-process', id: 'a', process: 'constructor', change: {} }, false],
    [{ do: 'add-process', entry: entry('b', 'oven') }, false],
    [{ do: 'add-process', entry: entry('b', 'paper', { marginMm: 9 }) }, true],
    [{ do: 'add-process', entry: entry('b', 'paper', { note: 'x'.repeat(30_000) }) }, false],
  ])('%j is taken at the door: %s', (command, isTaken) => {
    expect(checkedCommandSchema.safeParse(command).success).toBe(isTaken);
  });
  it('take a material or a machine of the shelf over at once, and are checked as each for itself would be', () => {
    const both = withEntries(entry('a', 'laser', { kerfMm: 0.1 }), entry('b', 'outlines'));
    const stock = { ...plainStock, name: 'Ash', thicknessMm: 12 };
    const settings = [{ id: 'a', process: 'laser', change: { kerfMm: 0.3 } }, { id: 'b', process: 'outlines', change: { kerfMm: 3 } }]; // biome-ignore format: one line
    const made = applyCommand(both, { do: 'use-material', stock, settings });
    expect([made.making.stock, made.making.processes.map((one) => one.settings)]).toEqual([stock, [{ kerfMm: 0.3 }, { kerfMm: 3 }]]);
    const machine = { ...plainMachine, name: 'Ferry Yard laser' };
    const on = applyCommand(both, { do: 'use-machine', id: 'a', process: 'laser', machine, change: {} });
    expect(on.making.processes.map((one) => [one.machine.name, one.settings.kerfMm])).toEqual([['Ferry Yard laser', 0.1], ['The machine', undefined]]); // biome-ignore format: one line
    const isTaken = (command: unknown) => checkedCommandSchema.safeParse(command).success;
    expect(isTaken({ do: 'use-material', stock, settings })).toBe(true);
    expect(isTaken({ do: 'use-material', stock, settings: [{ id: 'b', process: 'outlines', change: { bleedMm: 3 } }] })).toBe(false);
    expect(isTaken({ do: 'use-machine', id: 'a', process: 'laser', machine, change: { kerfMm: 'wide' } })).toBe(false);
    expect(isTaken({ do: 'use-machine', id: 'a', process: 'oven', machine, change: {} })).toBe(false);
    const refused: Command[] = [
      { do: 'use-material', stock, settings: [{ id: 'x', process: 'laser', change: {} }] },
      { do: 'use-machine', id: 'b', process: 'laser', machine, change: {} },
    ];
    for (const command of refused) expect(() => applyCommand(both, command)).toThrow();
  });
  it('a document with settings that its process does not have is refused', () => {
    expect(checkedJobSchema.safeParse(withEntries(entry('a', 'laser', { kerfMm: 'wide' }))).success).toBe(false);
  });
});

it('no file outside the folder of a process asks for it by name', () => {
  const root = fileURLToPath(new URL('../../../..', import.meta.url));
  const names = processNames.join('|');
  // What documents of version 3 said has names of its own.
  const mayName = /third-version|registry|starters|migrations\/|\.test\.|words\/english|heron-lane|making\.ts$/;
  const asks = new RegExp(String.raw`[pP]rocess\w*[\s)?.]*(?:===|!==|:)\s*'(?:${names})'|'(?:${names})'\s*(?:===|!==)\s*[\w.?]*[pP]rocess`);
  for (const asking of ["if (entry.process === 'laser')", "'paper' !== one.entry?.process", "{ process: 'knife' }"])
    expect(asking).toMatch(asks);
  const files = ['packages/core/src', 'packages/cli/src', 'apps/web/src'].flatMap((folder) =>
    readdirSync(`${root}/${folder}`, { recursive: true, encoding: 'utf8' }).flatMap((file) =>
      /\.tsx?$/.test(file) ? [`${folder}/${file}`] : [],
    ),
  );
  expect(files.length).toBeGreaterThan(300);
  const found = files.filter((file) => !mayName.test(file) && !new RegExp(`processes/(?:${names})/`).test(file) && asks.test(readFileSync(`${root}/${file}`, 'utf8'))); // biome-ignore format: one line
  expect(found).toEqual([]);
});
