/** The shelf: its columns, its CSV (RFC 4180), and what jobs copy of it. */
import { csvParse } from 'd3-dsv';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyCommand, type Command, drawnPieces, emptyJob, type Job } from '../job/index.ts';
import { heightOf, pathBox } from '../plane/index.ts';
import { processKinds } from '../processes/index.ts';
import { finished } from '../steps.ts';
import {
  type Column,
  keepOwnCommand,
  type Material,
  machineCommand,
  machineFrom,
  materialCommand,
  materialFrom,
  materialSchema,
  newerOnShelf,
  parsedValue,
  readCsv,
  type ShelfItem,
  shelfKindNames,
  shelfKinds,
  shelfMachineFrom,
  type Tool,
  takeOverCommand,
  textOf,
  toolKinds,
  toolSchema,
  withFields,
  writeCsv,
} from './index.ts';

const run = (job: Job, ...commands: readonly Command[]): Job => commands.reduce(applyCommand, job);
const item = <K extends 'material' | 'machine'>(kind: K, value: ShelfItem<K>['value'], revision = 1): ShelfItem<K> => ({
  id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10',
  kind,
  revision,
  value,
});

describe('what ships', () => {
  it.each(shelfKindNames)('is a dozen of each kind, all valid, no name twice, marked as common practice: %s', (kind) => {
    const { starters, schema } = shelfKinds[kind];
    expect(starters).toHaveLength(12);
    expect(new Set(starters.map(({ name }) => name)).size).toBe(starters.length);
    for (const value of starters) {
      expect(schema.parse(value)).toEqual(value);
      expect(value.note).toMatch(/common practice/i);
    }
  });
  it('machines do processes that there are, and get files that those have', () => {
    for (const { process, files } of shelfKinds.machine.starters) {
      expect(Object.keys(processKinds)).toContain(process);
      for (const file of files) expect(Object.keys(processKinds[process]?.files ?? {})).toContain(file);
    }
  });
});

describe('a column', () => {
  const column = (kind: Column['kind'], more: Partial<Column> = {}): Column => ({ field: 'x', word: 'X', kind, ...more });
  it.each([
    [column('length'), '1/4"', 'mm', 6.35],
    [column('length'), '2,5 cm', 'mm', 25],
    [column('length'), '1/4', 'in', 6.35],
    [column('length'), '', 'mm', null],
    [column('number'), '12,5', 'mm', 12.5],
    [column('choice', { choices: ['V-bit'] }), 'v-BIT', 'mm', 'V-bit'],
    [column('colour'), '#C8A26B', 'mm', '#c8a26b'],
    [column('sheets'), '600x400x3; 12in x 6in', 'mm', [{ widthMm: 600, heightMm: 400, count: 3 }, { widthMm: expect.closeTo(304.8, 9), heightMm: expect.closeTo(152.4, 9), count: 1 }]],
  ] as const)('of %j reads “%s” typed in %s as %j', (one, typed, unit, value) => {
    expect(parsedValue(one, typed, unit)).toEqual(value);
  }); // biome-ignore format: a column a line
  it.each([
    [column('length'), '6 furlongs'],
    [column('number'), 'many'],
    [column('choice', { choices: ['wood'] }), 'cheese'],
    [column('colour'), 'brown'],
    [column('sheets'), '600 by 400'],
    [column('sheets'), '600x400x2.5'],
  ])('of %j refuses “%s” in a sentence', (one, typed) => {
    expect(() => parsedValue(one, typed)).toThrow(/\w/);
  });
});

/** Tools as people might have them, names with all that CSV must set in quotes. */
const tools = fc.uniqueArray(
  fc.record({
    name: fc.string({ minLength: 1, maxLength: 30 }).map((text) => text.replace(/[\0\r]/g, '').trim()).filter((text) => text.length > 0 && !/\p{Cs}/u.test(text)),
    kind: fc.constantFrom(...toolKinds),
    diameterMm: fc.option(fc.integer({ min: 1, max: 50_000 }).map((n) => n / 1000)),
    flutes: fc.option(fc.integer({ min: 0, max: 8 })),
    note: fc.constantFrom('', 'sharp, "new"', 'line one\nline two', '=2+3', '-7', "'quoted'", '+44'),
  }),
  { selector: ({ name }) => toolSchema.parse({ name }).name, maxLength: 12 },
); // biome-ignore format: one line a field

describe('CSV', () => {
  it('comes back as it went out, also as another reader of the format reads it', () => {
    fc.assert(
      fc.property(tools, (some) => {
        const values = some.map((tool): Tool => toolSchema.parse(tool));
        const text = writeCsv('tool', values);
        expect(finished(readCsv('tool', text))).toMatchObject({ items: values, faulty: [], ignored: [] });
        // d3-dsv, by the same standard; what a spreadsheet would run is set in a quote.
        const rows = csvParse(text);
        expect(rows.map((row) => [row.name?.replace(/^'(?=[=+@\t'-])/, ''), Number(row.diameterMm ?? '')])).toEqual(values.map((tool) => [tool.name, tool.diameterMm ?? 0])); // biome-ignore format: one line
        for (const row of rows) expect(row.note).not.toMatch(/^[=+]/);
      }),
      { numRuns: 60 },
    );
  });
  it('of 5,000 tools with ten faulty lines takes 4,990, and lists ten with line and reason', () => {
    const faults: Record<number, string> = {
      17: ',end mill,3,2',
      400: '"Tool, 400",spoon,3,2',
      401: 'Tool 401,end mill,wide,2',
      999: 'Tool 999,end mill,-3,2',
      1500: 'Tool 1500,end mill,3,2.5',
      2222: 'Tool 2222,end mill,3,2,9',
      2500: 'Tool 12,end mill,3,2',
      3000: 'Tool 3000,end mill,3,many',
      4321: 'Tool 4321,end mill,200000,2',
      4999: 'Tool 4999,end mill,3,99',
    };
    const lines = Array.from({ length: 5000 }, (_, k) => faults[k] ?? `Tool ${k},end mill,${(1 + (k % 60) / 10).toFixed(1)},2`);
    const { items, faulty } = finished(readCsv('tool', ['name,kind,diameterMm,flutes', ...lines].join('\n')));
    expect(items).toHaveLength(4990);
    expect(faulty.map(({ line }) => line)).toEqual(Object.keys(faults).map((k) => Number(k) + 2));
    expect(faulty.map(({ reason }) => reason)).toEqual([
      'the name is missing',
      expect.stringMatching(/^kind: “spoon” is none of end mill/),
      expect.stringMatching(/^diameterMm: /),
      'diameterMm: must be 0 or more.',
      'flutes: is not possible here.',
      '5 fields, but only 4 columns.',
      '“Tool 12” stands in line 14 already.',
      'flutes: “many” is no number.',
      'diameterMm: must be 100000 or less.',
      'flutes: must be 20 or less.',
    ]);
  });
  it('counts lines as an editor does where a field has several, after a mark for the order of bytes, with other ends of lines', () => {
    const text = '\ufeffname,note\r\n"A","one\r\ntwo"\r\n\r\nB,ok,more\r\n';
    expect(finished(readCsv('tool', text))).toMatchObject({
      items: [{ name: 'A', note: expect.stringMatching(/^one\s+two$/) }],
      faulty: [{ line: 5 }],
    });
  });
  it('takes columns in any order, names those that it does not know, and leaves what a file does not say', () => {
    const { items, fields, ignored } = finished(readCsv('material', 'supplier,measuredMm,name\nFerry Yard,2.87,Acrylic\n'));
    expect([fields, ignored]).toEqual([['measuredMm', 'name'], ['supplier']]); // biome-ignore format: one line
    const before = materialSchema.parse({ name: 'Acrylic', nominalMm: 3, note: 'kept', onMachines: [] });
    expect(withFields<'material'>(before, items[0] as Material, fields)).toEqual({ ...before, measuredMm: 2.87 });
  });
  it.each([
    ['no heading that is known', 'a,b\n1,2'],
    ['nothing', ''],
    ['far too much', 'name\n'.concat('x\n'.repeat(4_100_000))],
    ['too many lines', ['name', ...Array.from({ length: 20_001 }, (_, k) => `t${k}`)].join('\n')],
  ])('of %s is refused in a sentence', (_, text) => {
    expect(() => finished(readCsv('tool', text))).toThrow(/\w+ .*\./);
  });
  it.each(shelfKindNames)('of what ships comes back whole but for what has no column: %s', (kind) => {
    const { starters, columns } = shelfKinds[kind];
    const { items, faulty } = finished(readCsv(kind, writeCsv(kind, starters as never)));
    expect(faulty).toEqual([]);
    for (const column of columns)
      expect(items.map((one) => textOf(column, (one as unknown as Record<string, unknown>)[column.field]))).toEqual(
        starters.map((one) => textOf(column, (one as unknown as Record<string, unknown>)[column.field])),
      );
  });
});

describe('what a job copies', () => {
  const acrylic = materialSchema.parse({
    name: 'Acrylic',
    nominalMm: 3,
    measuredMm: 2.87,
    sheets: [{ widthMm: 600, heightMm: 400, count: 2 }],
    onMachines: [
      { machine: 'Ferry Yard laser', process: 'laser', kerfMm: 0.22, settings: {} },
      { machine: 'Heron Lane laser', process: 'laser', kerfMm: 0.16, settings: { powerSettings: { cut: { power: 0.9, speedMmPerMin: 400, passes: 1 } } } },
    ],
  }); // biome-ignore format: a machine a line
  const laser = shelfKinds.machine.starters[0] as ShelfItem<'machine'>['value'];
  const own = (job: Job) => job.making.processes[0] as Job['making']['processes'][number];

  it('is its measured thickness, its first sheet, and what is kept for its machine, else for another of that process', () => {
    const job = run(emptyJob('Weir'), materialCommand(item('material', acrylic, 4), emptyJob('Weir')));
    expect(job.making.stock).toMatchObject({ name: 'Acrylic', thicknessMm: 2.87, widthMm: 600, heightMm: 400, shelf: { revision: 4 } });
    expect(own(job).settings).toEqual({ kerfMm: 0.22 });
    const on = run(job, machineCommand(item('machine', laser), own(job), job, [item('material', acrylic, 4)]));
    expect(own(on).machine).toMatchObject({ name: 'Heron Lane laser', bedWidthMm: 600, files: ['dxf', 'gcode'] });
    expect(own(on).settings).toEqual({ kerfMm: 0.16, powerSettings: { cut: { power: 0.9, speedMmPerMin: 400, passes: 1 } } });
  });
  it('is thick as it is sold where nobody measured it', () => {
    const job = run(emptyJob('Weir'), materialCommand(item('material', { ...acrylic, measuredMm: null }), emptyJob('Weir')));
    expect(job.making.stock.thicknessMm).toBe(3);
  });
  it('drives the slots that are as wide as the stock is thick', () => {
    const slot: Command = { do: 'draw', drawn: { id: 's', name: 'Slot', purpose: 'cut', leftOut: false, live: [], source: { kind: 'figure', figure: { kind: 'slot', from: { x: 0, y: 0 }, to: { x: 40, y: 0 }, width: null, play: 0.1, ends: 'flat' } } } }; // biome-ignore format: one line
    const job = run(emptyJob('Weir'), slot);
    const after = run(job, materialCommand(item('material', acrylic), job));
    const [before, wide] = [job, after].map((one) => drawnPieces(one).map(({ outer }) => heightOf(pathBox(outer))));
    // Without a thickness there is no slot yet; then it is as wide as the stock, and its play.
    expect(before).toEqual([]);
    expect(wide).toEqual([expect.closeTo(2.97, 9)]);
  });
  it('goes back to the shelf with the kerf and settings of each machine, other machines’ stay', () => {
    const job = run(
      emptyJob('Weir'),
      { do: 'set-stock', change: { name: 'Acrylic', thicknessMm: 2.91, widthMm: 300, heightMm: 200 } },
      { do: 'set-machine', id: 'first', machine: machineFrom(item('machine', laser)) },
      { do: 'set-process', id: 'first', process: 'laser', change: { kerfMm: 0.14 } },
    );
    const value = materialFrom(job, 'Acrylic', acrylic);
    expect(value).toMatchObject({
      nominalMm: 3,
      measuredMm: 2.91,
      sheets: [
        { widthMm: 300, count: 1 },
        { widthMm: 600, count: 2 },
      ],
    });
    expect(value.onMachines.map(({ machine, kerfMm }) => [machine, kerfMm])).toEqual([['Heron Lane laser', 0.14], ['Ferry Yard laser', 0.22]]); // biome-ignore format: one line
    expect(materialSchema.parse(materialFrom(emptyJob('x'), 'New', null)).name).toBe('New');
    expect(shelfMachineFrom(own(job), { ...laser, note: 'kept' })).toMatchObject({ name: laser.name, process: 'laser', note: 'kept' });
  });
  it('is told to be older once the shelf has changed it, until the job takes it over or keeps its own', () => {
    const job = run(emptyJob('Weir'), materialCommand(item('material', acrylic, 1), emptyJob('Weir')));
    expect(newerOnShelf(job, [item('material', acrylic, 1)])).toEqual([]);
    const newer = item('material', { ...acrylic, measuredMm: 2.95 }, 2);
    expect(newerOnShelf(job, [newer])).toEqual([{ item: newer, entry: null }]);
    const [found] = newerOnShelf(job, [newer]);
    if (!found) throw new Error('nothing newer');
    const over = run(job, takeOverCommand(found, job, [newer]));
    expect([over.making.stock.thicknessMm, newerOnShelf(over, [newer])]).toEqual([2.95, []]);
    const kept = run(job, keepOwnCommand(found));
    expect([kept.making.stock.thicknessMm, kept.making.stock.shelf?.revision, newerOnShelf(kept, [newer])]).toEqual([2.87, 2, []]);
    expect(newerOnShelf(job, [])).toEqual([]);
  });
  it('of a machine is taken over with what the shelf keeps for it of the job’s material, or kept', () => {
    const [stock, before] = [{ ...item('material', acrylic), id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b11' }, item('machine', laser)];
    const bare = run(emptyJob('Weir'), { do: 'set-stock', change: { shelf: { id: stock.id, revision: 1 } } });
    const job = run(bare, machineCommand(before, own(bare), bare, []));
    expect(own(job).settings).toEqual({});
    const newer = item('machine', { ...laser, bedWidthMm: 900 }, 2);
    const [found] = newerOnShelf(job, [stock, newer]);
    if (!found) throw new Error('nothing newer');
    const over = run(job, takeOverCommand(found, job, [stock, newer]));
    expect([own(over).machine.bedWidthMm, own(over).settings.kerfMm]).toEqual([900, 0.16]);
    const kept = run(job, keepOwnCommand(found));
    expect([own(kept).machine.bedWidthMm, newerOnShelf(kept, [newer])]).toEqual([600, []]);
  });
  it('leaves a process that is not known here as it is', () => {
    const [first] = emptyJob('').making.processes as [Job['making']['processes'][number]];
    const oven = { ...first, id: 'oven', process: 'oven' };
    const job = { ...emptyJob('Weir'), making: { ...emptyJob('').making, processes: [oven, first] } };
    const baked = {
      ...acrylic,
      onMachines: [...acrylic.onMachines, { machine: 'Oven', process: 'oven', kerfMm: 1, settings: { heat: 180 } }],
    };
    expect(materialCommand(item('material', baked), job)).toMatchObject({ settings: [{ id: 'first' }] });
  });
});
