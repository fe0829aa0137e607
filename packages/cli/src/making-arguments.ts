/**
 * In: the words after `nuvet prove` or `nuvet make`. Out: what they ask for, or a usage error of one line.
 */
import { parseArgs } from 'node:util';
import { parseLength } from '@nuvet/core/length';
import { type FileKind, fileKinds, fileTypes, papers } from '@nuvet/core/make';
import { UsageError } from './arguments.ts';

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
  readonly json: boolean;
}

export const makingWays = ['laser', 'knife', 'paper'] as const;

export interface MakeRequest {
  readonly file: string;
  readonly way: (typeof makingWays)[number];
  readonly stock: StockSaid;
  readonly out: readonly { readonly path: string; readonly kind: FileKind }[];
  readonly paper: string;
  readonly landscape: boolean;
  readonly dpi: number;
  /** Whether files are made of what the proof stops. */
  readonly anyway: boolean;
  readonly json: boolean;
}

export const makingUsage = `nuvet prove JOB.json|FILE.svg|FILE.dxf [--stock ...] [--thinnest LENGTH] [--json]
                                what would spoil the cut, a line each; exit 1 where there is anything
nuvet make JOB.json|FILE.svg|FILE.dxf --for laser|knife|paper --out FILE [--out FILE ...]
  --out FILE                    ${fileKinds.map((k) => `.${fileTypes[k].ending}`).join(', ')}; each is read back before it is written
  --stock "NAME, 3mm, 600x400mm, kerf 0.15mm"   name, thickness, sheet and kerf, in any order, as far as they are known
  --paper A4 --landscape        for paper: what it is printed on (${Object.keys(papers).join(', ')})
  --dpi N                       resolution of a .png (default 600)
  --anyway                      make files of what the proof would stop
  --json                        findings, or what was made, as JSON`;

const one = { type: 'string' } as const;
const flag = { type: 'boolean' } as const;

export function readProveArguments(words: readonly string[]): ProveRequest {
  const { values, positionals } = parsed(words, { stock: one, thinnest: one, json: flag });
  return {
    file: onlyFile(positionals, 'prove JOB.json'),
    stock: stockSaid(values.stock as string | undefined),
    thinnestMm: values.thinnest === undefined ? null : length('--thinnest', values.thinnest as string),
    json: values.json === true,
  };
}

export function readMakeArguments(words: readonly string[]): MakeRequest {
  const { values, positionals } = parsed(words, { for: one, stock: one, out: { type: 'string', multiple: true }, paper: one, landscape: flag, dpi: one, anyway: flag, json: flag }); // biome-ignore format: one line
  const way = makingWays.find((w) => w === values.for);
  if (!way) throw new UsageError(`--for ${values.for ?? ''}: ${makingWays.join(', ')} are there`);
  const out = ((values.out as string[] | undefined) ?? []).map((path) => ({ path, kind: kindOf(path) }));
  if (out.length === 0) throw new UsageError('name a file to write: --out FILE.gcode');
  const paper = (values.paper as string | undefined) ?? 'A4';
  if (!papers[paper]) throw new UsageError(`--paper ${paper}: ${Object.keys(papers).join(', ')} are there`);
  const dpi = Number(values.dpi ?? 600);
  if (!(dpi >= 10 && dpi <= 2400)) throw new UsageError(`--dpi ${values.dpi}: a number from 10 to 2400 is needed`);
  return {
    file: onlyFile(positionals, 'make JOB.json'),
    way,
    stock: stockSaid(values.stock as string | undefined),
    out,
    paper,
    landscape: values.landscape === true,
    dpi,
    anyway: values.anyway === true,
    json: values.json === true,
  };
}

type Options = Record<string, { type: 'string' | 'boolean'; multiple?: boolean }>;

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

function kindOf(path: string): FileKind {
  const kind = fileKinds.find((k) => path.toLowerCase().endsWith(`.${fileTypes[k].ending}`));
  if (!kind) throw new UsageError(`--out ${path}: the file must end in ${fileKinds.map((k) => `.${fileTypes[k].ending}`).join(', ')}`);
  return kind;
}

function length(name: string, word: string): number {
  const result = parseLength(word, 'mm');
  if (!result.ok) throw new UsageError(`${name} ${word}: ${result.message}`);
  return result.mm;
}

function stockSaid(words: string | undefined): StockSaid {
  let said: StockSaid = { name: null, thicknessMm: null, sheet: null, kerfMm: null };
  for (const part of (words ?? '').split(',').map((w) => w.trim())) {
    const kerf = /^kerf\s+(.+)$/i.exec(part)?.[1];
    const sides = part.split(/\s*x\s*/i);
    if (part === '') continue;
    else if (kerf) said = { ...said, kerfMm: length('--stock kerf', kerf) };
    else if (sides.length === 2 && sides.every((side) => /^[\d.]/.test(side))) {
      // Where only the second side has a unit it is meant for both.
      const unit = /[a-z"']+$/i.exec(sides[1] as string)?.[0] ?? '';
      const [w, h] = sides as [string, string];
      said = { ...said, sheet: { widthMm: length('--stock', /\d$/.test(w) ? w + unit : w), heightMm: length('--stock', h) } };
    } else if (/^[\d.]/.test(part)) said = { ...said, thicknessMm: length('--stock', part) };
    else said = { ...said, name: part.slice(0, 100) };
  }
  return said;
}
