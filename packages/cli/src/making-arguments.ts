/**
 * In: the words after `nuvet prove` or `nuvet make`. Out: what they ask for, or a usage error of one line.
 */
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { longestNesting, mostCopies, plainLayout } from '@nuvet/core/job';
import { type LengthRange, parseLength } from '@nuvet/core/length';
import { type AnyProcess, processKinds, processNames } from '@nuvet/core/processes';
import { timeLimit, timeLimitUsage, UsageError } from './arguments.ts';

/** What it is made from, as far as it was said; lengths in mm. */
export interface StockSaid {
  readonly name: string | null;
  readonly thicknessMm: number | null;
  readonly sheet: { readonly widthMm: number; readonly heightMm: number } | null;
  readonly kerfMm: number | null;
}

export interface ProveRequest {
  /** A job's document, an SVG or a DXF file. */
  readonly file: string;
  readonly stock: StockSaid;
  readonly thinnestMm: number | null;
  readonly strokes: 'middle' | 'outline';
  readonly json: boolean;
  /** Whether what was left aside does not count. */
  readonly anyway: boolean;
  /** Seconds that reading may take; null for no limit. */
  readonly limitS: number | null;
}

/** How copies are laid out, as far as it was said; lengths in mm. */
export interface NestSaid {
  readonly copies: number;
  readonly gapMm: number;
  readonly marginMm: number;
  /** By multiples of so many degrees; 0 is any way. */
  readonly turnsBy: number;
  readonly seconds: number;
}

export interface MakeRequest {
  readonly file: string;
  /** Its name in the registry. */
  readonly process: string;
  /** Settings that words of the process's own said. */
  readonly settings: Record<string, unknown>;
  /** Files whose texts say more of them. */
  readonly settingsFiles: readonly { readonly word: string; readonly path: string }[];
  /** Where a report of what was made and found goes, as JSON. */
  readonly report: string | null;
  readonly stock: StockSaid;
  readonly strokes: 'middle' | 'outline';
  /** Where to, and the name of the file among the process's. */
  readonly out: readonly { readonly path: string; readonly file: string }[];
  readonly dpi: number;
  /** How copies are laid out on sheets; null where pieces are made as drawn. */
  readonly nest: NestSaid | null;
  /** Whether files are made of what the proof stops. */
  readonly anyway: boolean;
  /** Whether files that are there already are written over. */
  readonly force: boolean;
  readonly json: boolean;
  readonly limitS: number | null;
}

const kinds = Object.entries(processKinds);
const endingsOf = ({ files }: AnyProcess): string[] => [...new Set(Object.values(files).map(({ ending }) => `.${ending}`))];
/** A word and what it is for, beside each other. */
const line = (word: string, about: string): string => `${`  ${word}`.padEnd(32)}${about}`;
const optionLines = kinds.flatMap(([name, { options = {} }]) =>
  Object.entries(options).map(([word, { takes, about }]) =>
    line(`--${word}${takes === 'nothing' ? '' : takes === 'file' ? ' FILE' : ' WORD'}`, `${name}: ${about}`),
  ),
);

export const proveUsage = `nuvet prove JOB.json|FILE.svg|FILE.dxf [--stock ...] [--thinnest LENGTH] [--json]
                                what would spoil the cut, a line each; exit 1 where there is anything, or where
                                something that is seen in the drawing was left aside
  --stock, --strokes, --time-limit   as for make; --thinnest LENGTH: how thin webs may be
  --anyway                      what was left aside does not count
  --json                        findings as JSON`;

export const makeUsage = `nuvet make JOB.json|FILE.svg|FILE.dxf --for PROCESS --out FILE [--out FILE ...]
${kinds.map(([name, kind]) => line(`--for ${name}`, `${kind.about} ${endingsOf(kind).join(', ')}`)).join('\n')}
  --out FILE                    by its ending; each is read back before it is written
  --stock "NAME, 3mm, 600x400mm, kerf 0.15mm"   name, thickness, sheet and kerf, in any order, as far as they are known
${optionLines.join('\n')}
  --copies N                    lay so many of each piece out on sheets of the stock, a file a sheet
  --gap LENGTH, --margin LENGTH   between them, and along the sheet's edge (default 2 mm and 5 mm)
  --turns any|quarter|half|none   how they may be turned (default quarter)
  --nest-time SECONDS           how long a better layout is looked for (default 10)
  --report FILE.json            what was made and found, as JSON
  --dpi N                       resolution of a .png (default 600)
  --strokes middle|outline      of lines drawn 1 mm wide or wider in a drawing: where they are cut (default middle)
  --anyway                      make files of what the proof would stop; what a drawing's reader left aside does not count
  --force                       write over files that are there already
  --json                        what was made, as JSON
${timeLimitUsage}`;

type Options = Record<string, { type: 'string' | 'boolean'; multiple?: boolean }>;

const one = { type: 'string' } as const;
const flag = { type: 'boolean' } as const;

export function readProveArguments(words: readonly string[]): ProveRequest {
  const { values, positionals } = parsed(words, { stock: one, thinnest: one, strokes: one, anyway: flag, json: flag, 'time-limit': one });
  return {
    file: onlyFile(positionals, 'prove JOB.json'),
    stock: stockSaid(values.stock as string | undefined),
    strokes: strokesSaid(values.strokes as string | undefined),
    anyway: values.anyway === true,
    thinnestMm: values.thinnest === undefined ? null : length('--thinnest', values.thinnest as string),
    json: values.json === true,
    limitS: timeLimit(values['time-limit'] as string | undefined),
  };
}

/** The words that any process has for its settings. */
const optionNames: Options = Object.fromEntries(
  kinds.flatMap(([, { options = {} }]) => Object.entries(options).map(([word, { takes }]) => [word, takes === 'nothing' ? flag : one])),
);

export function readMakeArguments(words: readonly string[]): MakeRequest {
  const { values, positionals } = parsed(words, { for: one, stock: one, out: { type: 'string', multiple: true }, report: one, dpi: one, copies: one, gap: one, margin: one, turns: one, 'nest-time': one, strokes: one, anyway: flag, force: flag, json: flag, 'time-limit': one, ...optionNames }); // biome-ignore format: one line
  const process = processNames.find((name) => name === values.for);
  const kind = process === undefined ? undefined : processKinds[process];
  if (!process || !kind) throw new UsageError(`--for ${values.for ?? ''}: ${processNames.join(', ')} are there`);
  const out = ((values.out as string[] | undefined) ?? []).map((path) => ({ path, file: fileOf(path, kind) }));
  if (out.length === 0) throw new UsageError(`name a file to write: --out FILE${endingsOf(kind)[0]}`);
  const dpi = Number(values.dpi ?? 600);
  if (!(dpi >= 10 && dpi <= 2400)) throw new UsageError(`--dpi ${values.dpi}: a number from 10 to 2400 is needed`);
  return {
    file: onlyFile(positionals, 'make JOB.json'),
    process,
    ...settingsSaid(kind, process, values),
    report: (values.report as string | undefined) ?? null,
    stock: stockSaid(values.stock as string | undefined),
    strokes: strokesSaid(values.strokes as string | undefined),
    out,
    dpi,
    nest: nestSaid(values, kind),
    anyway: values.anyway === true,
    force: values.force === true,
    json: values.json === true,
    limitS: timeLimit(values['time-limit'] as string | undefined),
  };
}

function strokesSaid(word = 'middle'): 'middle' | 'outline' {
  if (word === 'middle' || word === 'outline') return word;
  throw new UsageError(`--strokes ${word}: middle and outline are there`);
}

const turnsBy: Readonly<Record<string, number>> = { any: 0, quarter: 90, half: 180, none: 360 };

function nestSaid(values: Record<string, unknown>, kind: AnyProcess): NestSaid | null {
  const { copies, gap, margin, turns = 'quarter', 'nest-time': time = '10' } = values as Record<string, string | undefined>;
  if (copies === undefined) return null;
  if (!kind.cutsSheets) throw new UsageError(`--copies ${copies}: ${kind.word.toLowerCase()} is not cut from sheets`);
  if (!/^[1-9]\d{0,2}$/.test(copies) || Number(copies) > mostCopies)
    throw new UsageError(`--copies ${copies}: a whole number from 1 to ${mostCopies} is needed`);
  const by = Object.hasOwn(turnsBy, turns) ? turnsBy[turns] : undefined;
  if (by === undefined) throw new UsageError(`--turns ${turns}: ${Object.keys(turnsBy).join(', ')} are there`);
  const seconds = Number(time);
  if (!(seconds >= 1 && seconds <= longestNesting))
    throw new UsageError(`--nest-time ${time}: a number of seconds from 1 to ${longestNesting} is needed`);
  const { gapMm, marginMm } = plainLayout;
  return {
    copies: Number(copies),
    gapMm: gap === undefined ? gapMm : length('--gap', gap, 'from zero'),
    marginMm: margin === undefined ? marginMm : length('--margin', margin, 'from zero'),
    turnsBy: by,
    seconds,
  };
}

function settingsSaid(
  { options = {} }: AnyProcess,
  process: string,
  values: Record<string, unknown>,
): Pick<MakeRequest, 'settings' | 'settingsFiles'> {
  const settings: Record<string, unknown> = {};
  const settingsFiles: { word: string; path: string }[] = [];
  for (const word of Object.keys(optionNames)) {
    if (values[word] === undefined) continue;
    const option = options[word];
    if (!option) throw new UsageError(`--${word}: is nothing to say of ${process}`);
    if (option.takes === 'file') settingsFiles.push({ word, path: String(values[word]) });
    else Object.assign(settings, settingSaid(options, word, String(values[word])));
  }
  return { settings, settingsFiles };
}

/** What a word of a process's own says, or the text of the file that it names. */
export function settingSaid(
  options: NonNullable<AnyProcess['options']>,
  word: string,
  text: string,
  shown = text,
): Record<string, unknown> {
  try {
    return { ...options[word]?.read(text) };
  } catch (error) {
    throw new UsageError(`--${word} ${shown}: ${(error as Error).message}`);
  }
}

function parsed(words: readonly string[], options: Options) {
  try {
    return parseArgs({ args: [...words], allowPositionals: true, options });
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

function onlyFile([file, ...more]: readonly string[], form: string): string {
  if (!file) throw new UsageError(`name a job, an SVG or a DXF file: nuvet ${form}`);
  if (more.length > 0) throw new UsageError(`one file at a time; “${more[0]}” is too much`);
  return file;
}

/** Endings that other programs give the same files. */
const otherEndings: Readonly<Record<string, string>> = { nc: 'gcode', ngc: 'gcode', tap: 'gcode', plt: 'hpgl', tiff: 'tif' };

/** Of several kinds of files with one ending the one whose name the path says, else the first. */
function fileOf(path: string, kind: AnyProcess): string {
  const said = /\.([^.]+)$/.exec(path)?.[1]?.toLowerCase() ?? '';
  const fitting = Object.entries(kind.files).filter(([, { ending }]) => ending === (otherEndings[said] ?? said));
  const found = fitting.find(([, { what }]) => basename(path).toLowerCase().includes(what)) ?? fitting[0];
  if (!found) throw new UsageError(`--out ${path}: the file must end in ${endingsOf(kind).join(', ')}`);
  return found[0];
}

function length(name: string, word: string, range: LengthRange = 'positive'): number {
  const result = parseLength(word, 'mm', range);
  if (!result.ok) throw new UsageError(`${name} ${word}: ${result.message}`);
  return result.mm;
}

const number = String.raw`\d+(?:\.\d+)?(?:\s+\d+\/\d+|\/\d+)?`;
const unit = String.raw`(?:\s*(?:mm|cm|inch(?:es)?|in|ft|m|["'”’]))?`;
const measure = `${number}${unit}`;
const maxKerfMm = 50;

/** Name, thickness, sheet and kerf, in any order and however they are set apart. What is said of a kerf is understood or refused. */
export function stockSaid(words: string | undefined): StockSaid {
  // A comma within a number is a decimal one.
  let rest = ` ${(words ?? '').replace(/(\d),(\d{1,2})(?![\d]|\s*[x×])/g, '$1.$2').replace(/[,;]/g, ' , ')} `;
  const taken = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(rest);
    if (found) rest = rest.replace(found[0], ' , ');
    return found;
  };
  const kerf = taken(new RegExp(`\\bkerf\\b\\s*[:=]?\\s*(-?${measure})`, 'i'));
  if (!kerf && /kerf/i.test(rest)) throw new UsageError(`--stock ${words}: how wide is the kerf? Write it as kerf 0.2mm`);
  const sides = taken(new RegExp(`(${measure})\\s*[x×]\\s*(${measure})`, 'i'));
  const thickness = taken(
    new RegExp(`(?:^|[\\s,])(-?${number}\\s*(?:mm|cm|inch(?:es)?|in|["'”’]))(?=[\\s,]|$)|(?:^|,)\\s*(-?${number})\\s*(?=,|$)`, 'i'),
  );
  const name = rest.split(',').map((w) => w.trim()).filter(Boolean).join(', ').slice(0, 100); // biome-ignore format: one line
  return {
    name: name || null,
    thicknessMm: thickness ? within(length('--stock', (thickness[1] ?? thickness[2]) as string), 'thickness', 1000) : null,
    sheet: sides ? sheetSaid(sides[1] as string, sides[2] as string) : null,
    kerfMm: kerf ? within(length('--stock kerf', kerf[1] as string, 'any'), 'kerf', maxKerfMm) : null,
  };
}

function within(mm: number, what: string, maxMm: number): number {
  if (mm < 0 || mm > maxMm) throw new UsageError(`--stock: a ${what} of ${mm} mm is out of range (0 to ${maxMm} mm)`);
  return mm;
}

/** Where only the second side has a unit it holds for both. */
function sheetSaid(width: string, height: string): StockSaid['sheet'] {
  const its = /[a-z"'”’]+$/i.exec(height.trim())?.[0] ?? '';
  const side = (word: string) => within(length('--stock', word), 'sheet side', 100_000);
  return { widthMm: side(/\d\s*$/.test(width) ? width.trim() + its : width), heightMm: side(height) };
}
