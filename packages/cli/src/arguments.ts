/**
 * In: the words after `nuvet trace`. Out: what they ask for, or a usage error of one line.
 */
import { parseArgs } from 'node:util';
import { parseLength } from '@nuvet/core/length';
import type { TraceSettings } from '@nuvet/core/trace';
import type { TrueUpMark } from '@nuvet/core/trueup';

export interface TraceRequest {
  readonly picture: string;
  readonly out: readonly string[];
  readonly report: string | null;
  readonly dpi: number | null;
  readonly marks: readonly TrueUpMark[];
  readonly settings: TraceSettings;
}

/** Something that the person can mend; shown as one line, exit 2. */
export class UsageError extends Error {}

export const usage = `nuvet trace PICTURE --out FILE [--out FILE ...] [--report FILE.json]
  PICTURE                       PNG or JPEG
  --out FILE                    .svg or .dxf; repeatable
  --report FILE.json            sizes of all pieces, in mm
  --dpi N                       true size from the resolution; default: what the file itself says
  --known X1,Y1,X2,Y2=LENGTH    two marks in the picture's pixels (origin top left, a pixel's centre at +0.5) and the
                                length between them, such as 74mm or 6in; repeatable
  --level X1,Y1,X2,Y2           two marks that must come out horizontal; repeatable
  --plumb X1,Y1,X2,Y2           two marks that must come out vertical; repeatable
  --threshold auto|0..255       greys up to this are ink (default auto)
  --tolerance LENGTH            largest distance from the picture's edge (default 0.1mm)
  --smallest LENGTH             smaller specks and pinholes are left out (default 1mm)`;

const list = { type: 'string', multiple: true } as const;
const one = { type: 'string' } as const;

export function readArguments(words: readonly string[]): TraceRequest {
  const { values, positionals } = parsed(words);
  const [picture, ...more] = positionals;
  if (!picture) throw new UsageError('name a picture: nuvet trace PICTURE --out FILE');
  if (more.length > 0) throw new UsageError(`one picture at a time; “${more[0]}” is too much`);
  const out = values.out ?? [];
  if (out.length === 0) throw new UsageError('name a file to write: --out FILE.svg or --out FILE.dxf');
  const odd = out.find((file) => !/\.(svg|dxf)$/i.test(file));
  if (odd) throw new UsageError(`--out ${odd}: the file must end in .svg or .dxf`);
  return {
    picture,
    out,
    report: values.report ?? null,
    dpi: values.dpi === undefined ? null : positive('--dpi', values.dpi),
    marks: [
      ...(values.known ?? []).map((word, k) => knownLength(word, k)),
      ...(values.level ?? []).map((word, k) => ({ kind: 'level' as const, id: `level ${k + 1}`, ...ends('--level', word) })),
      ...(values.plumb ?? []).map((word, k) => ({ kind: 'plumb' as const, id: `plumb ${k + 1}`, ...ends('--plumb', word) })),
    ],
    settings: {
      threshold: threshold(values.threshold ?? 'auto'),
      toleranceMm: length('--tolerance', values.tolerance ?? '0.1mm'),
      smallestMm: length('--smallest', values.smallest ?? '1mm', 'any'),
    },
  };
}

function parsed(words: readonly string[]) {
  try {
    return parseArgs({
      args: [...words],
      allowPositionals: true,
      options: { out: list, report: one, dpi: one, known: list, level: list, plumb: list, threshold: one, tolerance: one, smallest: one },
    });
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

function positive(name: string, word: string): number {
  const value = Number(word);
  if (!(value > 0) || !Number.isFinite(value)) throw new UsageError(`${name} ${word}: a number above 0 is needed`);
  return value;
}

function threshold(word: string): 'auto' | number {
  if (word === 'auto') return 'auto';
  const value = Number(word);
  if (word.trim() === '' || !Number.isInteger(value) || value < 0 || value > 255)
    throw new UsageError(`--threshold ${word}: auto or a whole number from 0 to 255 is needed`);
  return value;
}

function length(name: string, word: string, range: 'positive' | 'any' = 'positive'): number {
  const result = parseLength(word, 'mm', range);
  if (!result.ok) throw new UsageError(`${name} ${word}: ${result.message}`);
  if (result.mm < 0) throw new UsageError(`${name} ${word}: The length must not be below zero.`);
  return result.mm;
}

function ends(name: string, word: string) {
  const numbers = word.split(',').map((part) => (part.trim() === '' ? Number.NaN : Number(part)));
  if (numbers.length !== 4 || !numbers.every(Number.isFinite)) throw new UsageError(`${name} ${word}: four numbers X1,Y1,X2,Y2 are needed`);
  const [ax, ay, bx, by] = numbers as [number, number, number, number];
  return { a: { x: ax, y: ay }, b: { x: bx, y: by } };
}

function knownLength(word: string, k: number): TrueUpMark {
  const split = word.indexOf('=');
  if (split < 0) throw new UsageError(`--known ${word}: write X1,Y1,X2,Y2=LENGTH`);
  return {
    kind: 'known-length',
    id: `known ${k + 1}`,
    ...ends('--known', word.slice(0, split)),
    mm: length('--known', word.slice(split + 1)),
  };
}
