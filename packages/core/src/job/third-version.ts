/**
 * In: a job of version 3, unchecked. Out: the same as version 4; and back, so that edits that were kept then can be undone.
 * In version 3 a job was made in one way, with one set of settings, and some fields had other names.
 */
import type { Making } from './making.ts';
import type { ProofSettings } from './proof-settings.ts';

type Plain = Readonly<Record<string, unknown>>;
const isPlain = (value: unknown): value is Plain => typeof value === 'object' && value !== null && !Array.isArray(value);
const plainOr = (value: unknown): Plain => (isPlain(value) ? value : {});

/** What version 3 assumed until somebody said otherwise. */
const plainThird = {
  cutting: {
    kerfMm: 0,
    corners: 'round',
    start: 'corner',
    lead: { kind: 'none', inMm: 2, outMm: 0 },
    overcutMm: 0,
    tabs: { count: 0, spacingMm: 0, widthMm: 0.5 },
    hatch: { angle: 0, spacingMm: 0.3, airMm: 2 },
    perforation: { cutMm: 3, leftMm: 1 },
    strengths: {},
  },
  printing: { paper: 'A4', widthMm: 210, heightMm: 297, landscape: false, marginMm: 10, overlapMm: 10, place: null, withPicture: false },
  folding: { bleedMm: 3 },
};

/** What is other than what was assumed: a process has the same until somebody says otherwise. */
const setOnly = (value: Plain, assumed: Plain): Plain =>
  Object.fromEntries(Object.entries(value).filter(([key, one]) => JSON.stringify(one) !== JSON.stringify(assumed[key])));

export function fourthOf(third: Plain): Plain {
  const { setup: rawSetup, making: rawMaking, proof, pictures, ...rest } = third;
  const [setup, making] = [plainOr(rawSetup), plainOr(rawMaking)];
  const { allowance } = plainOr(setup.folding);
  const fields = {
    ...rest,
    version: 4,
    ...(proof === undefined && allowance === undefined
      ? {}
      : {
          proof: { ...renamed(plainOr(proof), { holds: 'bridges' }), ...(allowance === undefined ? {} : { creaseAllowance: allowance }) },
        }),
    ...(pictures === undefined
      ? {}
      : { pictures: Array.isArray(pictures) ? pictures.map((p) => withMarks(p, { way: 'boxFit' })) : pictures }),
  };
  if (!isPlain(rawMaking)) return { ...fields, making: rawMaking };
  return {
    ...fields,
    making: {
      stock: {
        name: making.stock ?? null,
        thicknessMm: making.thicknessMm ?? null,
        widthMm: setup.stockWidthMm ?? null,
        heightMm: setup.stockHeightMm ?? null,
        shelf: null,
      },
      processes: processesOf(String(making.way), setup),
      fileNames: setup.fileNames ?? '{job}-{what}',
    },
  };
}

/** What was set for a laser, a printer or a folder becomes a process of its own; ways of making that had none are drawings for others. */
function processesOf(
  way: string,
  { cutting: rawCutting, machine: rawMachine, printing: rawPrinting, folding: rawFolding }: Plain,
): Plain[] {
  const [cutting, printing] = [plainOr(rawCutting), plainOr(rawPrinting)];
  const { allowance: _, ...folding } = plainOr(rawFolding);
  const entry = (id: string, process: string, settings: Plain): Plain => ({ id, process, machine: plainOr(rawMachine), settings });
  const set = setOnly(cutting, plainThird.cutting);
  const laser = cuttingOfFourth(set);
  const paper = { ...setOnly(printing, plainThird.printing), ...setOnly(folding, plainThird.folding) };
  const { kerfMm, corners, ...others } = set;
  const outlines = { ...(kerfMm === undefined ? {} : { kerfMm }), ...(corners === undefined ? {} : { corners }) };
  const entries: Plain[] = [];
  if (way === 'laser') entries.push(entry('first', 'laser', laser));
  else if (way === 'paper') entries.push(entry('first', 'paper', paper));
  else entries.push(entry('first', 'outlines', outlines));
  if (way !== 'laser' && Object.keys(way === 'paper' ? set : others).length > 0) entries.push(entry('cut', 'laser', laser));
  if (way !== 'paper' && Object.keys(paper).length > 0) entries.push(entry('pages', 'paper', paper));
  return entries;
}

function cuttingOfFourth(cutting: Plain): Plain {
  const changed = renamed(cutting, { strengths: 'powerSettings' });
  return {
    ...changed,
    ...(isPlain(changed.hatch) ? { hatch: renamed(changed.hatch, { airMm: 'overscanMm' }) } : {}),
    ...(isPlain(changed.powerSettings) ? { powerSettings: eachRenamed(changed.powerSettings, { strength: 'power' }) } : {}),
  };
}

function cuttingOfThird(settings: Plain): Plain {
  const changed = renamed(settings, { powerSettings: 'strengths' });
  return {
    ...changed,
    ...(isPlain(changed.hatch) ? { hatch: renamed(changed.hatch, { overscanMm: 'airMm' }) } : {}),
    ...(isPlain(changed.strengths) ? { strengths: eachRenamed(changed.strengths, { power: 'strength' }) } : {}),
  };
}

/** A job, or its document, as version 3 had it: what `fourthOf` takes back to the same. */
export function asThird(job: { readonly making: Making; readonly proof: ProofSettings; readonly pictures: readonly unknown[] }): Plain {
  const { making, proof, pictures, ...rest } = job;
  const { stock, processes, fileNames } = making;
  const settingsOf = (process: string): Plain => processes.find((entry) => entry.process === process)?.settings ?? {};
  const first = processes[0];
  const { bleedMm, ...printing } = { ...plainThird.folding, ...settingsOf('paper') };
  const { creaseAllowance, ...others } = proof;
  return {
    ...rest,
    version: 3,
    proof: renamed(others, { bridges: 'holds' }),
    pictures: pictures.map((p) => withMarks(p, { boxFit: 'way' })),
    making: {
      way: first?.process === 'laser' || first?.process === 'paper' ? first.process : 'cnc',
      stock: stock.name,
      thicknessMm: stock.thicknessMm,
    },
    setup: {
      stockWidthMm: stock.widthMm,
      stockHeightMm: stock.heightMm,
      cutting: { ...plainThird.cutting, ...settingsOf('outlines'), ...cuttingOfThird(settingsOf('laser')) },
      machine: first?.machine ?? {},
      printing: { ...plainThird.printing, ...printing },
      folding: { allowance: creaseAllowance, bleedMm },
      fileNames,
    },
  };
}

/** Whether a patch was made of a job of version 3: it says what that alone had. */
export function isOfThird({ path, value }: { readonly path: readonly (string | number)[]; readonly value?: unknown }): boolean {
  const [part, field] = path;
  if (part === 'setup') return true;
  if (part === 'making')
    return path.length > 1 && (field === 'way' || field === 'thicknessMm' || (field === 'stock' && !isPlain(value) && path.length === 2));
  if (part === 'proof') return field === 'holds';
  return part === 'pictures' && (path.includes('way') || hasKey(value, 'way'));
}

const hasKey = (value: unknown, key: string): boolean =>
  typeof value === 'object' && value !== null && (key in value || Object.values(value).some((one) => hasKey(one, key)));

const renamed = (value: Plain, names: Readonly<Record<string, string>>): Plain =>
  Object.fromEntries(Object.entries(value).map(([key, one]) => [names[key] ?? key, one]));

const eachRenamed = (value: Plain, names: Readonly<Record<string, string>>): Plain =>
  Object.fromEntries(Object.entries(value).map(([key, one]) => [key, isPlain(one) ? renamed(one, names) : one]));

function withMarks(picture: unknown, names: Readonly<Record<string, string>>): unknown {
  if (!isPlain(picture) || !Array.isArray(picture.marks)) return picture;
  return { ...picture, marks: picture.marks.map((mark) => (isPlain(mark) ? renamed(mark, names) : mark)) };
}
