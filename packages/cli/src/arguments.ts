/**
 * In: the words after `nuvet trace` or `nuvet true-up`. Out: what they ask for, or a usage error of one line.
 */
import { parseArgs } from 'node:util';
import { type JobTraceSettings, purposes } from '@nuvet/core/job';
import { parseLength } from '@nuvet/core/length';
import type { Point } from '@nuvet/core/plane';
import { rgbOfHex } from '@nuvet/core/raster';
import { type Take, takes } from '@nuvet/core/trace';
import { markKinds, type PullingKind, type ShapeModel, shapeModels, type TrueUpMark } from '@nuvet/core/trueup';

/** How a picture is read and trued up: what both commands share. */
export interface SizingRequest {
  readonly picture: string;
  /** From 1. */
  readonly page: number;
  readonly report: string | null;
  readonly dpi: number | null;
  readonly marks: readonly TrueUpMark[];
  /** Null takes the recommended model. */
  readonly model: ShapeModel | null;
  readonly scaleCard: boolean;
  readonly straighten: boolean;
  /** Whether a photograph's lens is sought in its straight edges. */
  readonly lens: 'auto' | 'off';
  /** Seconds that reading may take; null for no limit. */
  readonly limitS: number | null;
  /** Whether files that are there already are written over. */
  readonly force: boolean;
}

/** What of a piece's symmetry is made exact: the best it has, a mirror axis, or so many parts about a centre. */
export type SymmetryRequest = 'auto' | 'mirror' | number;

export interface TraceRequest extends SizingRequest {
  readonly out: readonly string[];
  readonly symmetry: SymmetryRequest | null;
  /** Whether relations that outlines nearly have are made exact. */
  readonly relations: boolean;
  /** Whether the dark border of a scan is kept. */
  readonly borders: boolean;
  readonly settings: JobTraceSettings;
}

export interface TrueUpRequest extends SizingRequest {
  readonly out: string;
}

/** Many pictures traced alike, each to files of its own name in a folder. */
export interface BatchRequest {
  readonly pictures: readonly string[];
  readonly outDir: string;
  readonly to: readonly ('svg' | 'dxf')[];
  /** The words that hold for every picture. */
  readonly words: readonly string[];
}

/** Something that the person can mend; shown as one line, exit 2. */
export class UsageError extends Error {}

export const usage = `nuvet trace PICTURE --out FILE [--out FILE ...] [--report FILE.json]
nuvet trace PICTURE PICTURE ... --out-dir FOLDER [--to svg,dxf]
nuvet true-up PICTURE --out FILE.png [--report FILE.json]
  PICTURE                       PNG, JPEG, WebP, GIF, TIFF, BMP or PDF
  --page N                      which page of a PDF or TIFF (default 1)
  --out FILE                    trace: .svg or .dxf, repeatable; true-up: .png, straight and at true size
  --report FILE.json            the fit with its left-overs, and for trace the sizes of all pieces, in mm
  --dpi N                       true size from the resolution; default: what the file itself says, if that can be
                                trusted; for a PDF the resolution that it is drawn at (default 300)
  --time-limit SECONDS          how long reading a PDF may take (default 3.5; 0 for no limit)
  --force                       write over files that are there already
Marks, in the picture's pixels (origin top left, a pixel's centre at +0.5), each repeatable:
  --known X1,Y1,X2,Y2=LENGTH    two places and the length between them, such as 74mm or 6in
  --level X1,Y1,X2,Y2           two places that must come out horizontal
  --plumb X1,Y1,X2,Y2           two places that must come out vertical
  --square X1,Y1,X2,Y2,X3,Y3    one leg, the corner and the other leg of a right angle
  --frame X1,Y1,...,X4,Y4=WxH   the corners in turn of a rectangle, such as 210mmx297mm
  --around-frame                trace what lies around a framed sheet, too
  --borders                     keep the dark border that a scanner's lid leaves about the paper
  --circle X,Y;X,Y;X,Y=DIAMETER three places or more on a circle's rim
  --scale-card                  find the printed scale card and use it
  --lens auto|off               with a frame or the card: what the lens has bent is taken out, by straight edges in sight
  --straighten auto             turn so that most lines lie level or plumb
  --model auto|uniform|stretch|affine|perspective   (default auto: the plainest that explains the marks)
Tracing:
  --take shape|line-outer|line-inner|line-middle|network|both-edges
                                the borders of inked areas (default; of a drawn line that is both its edges); of closed
                                drawn lines the outer edge, the inner edge or the middle; all lines' middles
  --invert                      trace the light parts
  --colours "#rrggbb=cut,..."   trace these colours, each with what is done along it (cut, score, perforate,
                                engrave, pocket, stitch, guide; default cut); areas of several colours share their borders
  --wall LENGTH                 with --take network: walls of this thickness along the lines, as closed outlines
  --relations on|off            what is nearly level, plumb, parallel, square, alike, concentric or in line is made exactly
                                so, within the tolerance (default off)
  --for-blade                   curves join with one curvature, too, where half the tolerance allows it
  --local                       a threshold of its own for every place, against uneven light
  --texture                     trace the dots of a print and the grain of a pencil's strokes one by one (default: dots are
                                smoothed to even greys, grain along the strokes)
  --threshold auto|0..255       greys up to this are ink (default auto)
  --tolerance LENGTH            largest distance from the picture's edge (default 0.1mm)
  --smallest LENGTH             smaller specks and pinholes are left out (default 1mm)
  --symmetry auto|mirror|N      pieces that nearly are so are made exactly mirrored, or alike N times about a centre
Many at once:
  --out-dir FOLDER              trace every picture, or every one in a folder, over all cores; one that cannot be read
                                does not stop the rest
  --to svg,dxf                  which files each gives (default svg)`;

export const timeLimitUsage = `  --time-limit SECONDS          how long reading a file may take (default 3.5; 0 for no limit)`;

const list = { type: 'string', multiple: true } as const;
const one = { type: 'string' } as const;
const flag = { type: 'boolean' } as const;
const sizingOptions = {
  page: one,
  report: one,
  dpi: one,
  known: list,
  level: list,
  plumb: list,
  square: list,
  frame: list,
  'around-frame': flag,
  borders: flag,
  circle: list,
  model: one,
  'scale-card': flag,
  lens: one,
  straighten: one,
  'time-limit': one,
  force: flag,
} as const;

const traceOptions = {
  ...sizingOptions,
  out: list,
  take: one,
  symmetry: one,
  colours: one,
  wall: one,
  relations: one,
  'for-blade': flag,
  invert: flag,
  local: flag,
  texture: flag,
  threshold: one,
  tolerance: one,
  smallest: one,
} as const;

export function readTraceArguments(words: readonly string[]): TraceRequest {
  const { values, positionals } = parsed(words, traceOptions);
  const out = (values.out as string[] | undefined) ?? [];
  const sizing = sizingRequest(values, positionals, 'trace PICTURE --out FILE');
  if (out.length === 0) throw new UsageError('name a file to write: --out FILE.svg or --out FILE.dxf');
  const odd = out.find((file) => !/\.(svg|dxf)$/i.test(file));
  if (odd) throw new UsageError(`--out ${odd}: the file must end in .svg or .dxf`);
  const word = (name: string, otherwise: string) => (values[name] as string | undefined) ?? otherwise;
  const relations = word('relations', 'off');
  if (relations !== 'on' && relations !== 'off') throw new UsageError(`--relations ${relations}: on and off are there`);
  const take = takeNamed(word('take', 'shape'));
  if (values.wall !== undefined && take !== 'network') throw new UsageError('--wall needs --take network: walls stand along lines');
  return {
    ...sizing,
    out,
    relations: relations === 'on',
    borders: values.borders === true,
    symmetry: values.symmetry === undefined ? null : symmetryRequest(values.symmetry as string),
    settings: {
      take,
      inverted: values.invert === true,
      threshold: values.local === true ? 'local' : threshold(word('threshold', 'auto')),
      toleranceMm: length('--tolerance', word('tolerance', '0.1mm')),
      smallestMm: length('--smallest', word('smallest', '1mm'), 'any'),
      colours: values.colours === undefined ? [] : meantColours(values.colours as string),
      wallMm: values.wall === undefined ? null : length('--wall', values.wall as string),
      forBlade: values['for-blade'] === true,
      within: null,
      aroundFrame: values['around-frame'] === true,
      keepsTexture: values.texture === true,
    },
  };
}

/** What a trace of many pictures asks for; null where one picture is meant. */
export function readBatchArguments(words: readonly string[]): BatchRequest | null {
  const at = words.findIndex((word) => word === '--out-dir' || word.startsWith('--out-dir='));
  if (at < 0) return null;
  const { values, positionals, tokens } = parsedWithTokens(words);
  const [outDir, to] = [values['out-dir'] as string, ((values.to as string | undefined) ?? 'svg').split(',')];
  const odd = to.find((kind) => kind !== 'svg' && kind !== 'dxf');
  if (odd !== undefined) throw new UsageError(`--to ${odd}: svg and dxf are there`);
  if (values.out || values.report) throw new UsageError('--out and --report are for one picture; --out-dir names the files itself');
  if (positionals.length === 0) throw new UsageError('name pictures, or a folder of them: nuvet trace PICTURE ... --out-dir FOLDER');
  const shared = tokens.flatMap((token) => {
    if (token.kind !== 'option' || token.name === 'out-dir' || token.name === 'to') return [];
    return token.value === undefined ? [`--${token.name}`] : [`--${token.name}=${token.value}`];
  });
  // Refused at once, not once a picture.
  readTraceArguments(['a picture', '--out', 'a.svg', ...shared]);
  return { pictures: positionals, outDir, to: to as ('svg' | 'dxf')[], words: shared };
}

function parsedWithTokens(words: readonly string[]) {
  try {
    return parseArgs({ args: [...words], allowPositionals: true, tokens: true, options: { ...traceOptions, 'out-dir': one, to: one } });
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

export function readTrueUpArguments(words: readonly string[]): TrueUpRequest {
  const { values, positionals } = parsed(words, { ...sizingOptions, out: one });
  const sizing = sizingRequest(values, positionals, 'true-up PICTURE --out FILE.png');
  const out = values.out as string | undefined;
  if (!out) throw new UsageError('name a file to write: --out FILE.png');
  if (!/\.png$/i.test(out)) throw new UsageError(`--out ${out}: the file must end in .png`);
  return { ...sizing, out };
}

type Values = Readonly<Record<string, string | boolean | (string | boolean)[] | undefined>>;

function parsed(words: readonly string[], options: Record<string, { type: 'string' | 'boolean'; multiple?: boolean }>) {
  try {
    return parseArgs({ args: [...words], allowPositionals: true, options }) as { values: Values; positionals: string[] };
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

function sizingRequest(values: Values, [picture, ...more]: readonly string[], form: string): SizingRequest {
  if (!picture) throw new UsageError(`name a picture: nuvet ${form}`);
  if (more.length > 0) throw new UsageError(`one picture at a time; “${more[0]}” is too much`);
  const word = (name: string) => values[name] as string | undefined;
  const all = (name: string) => (values[name] as string[] | undefined) ?? [];
  const { straighten } = values;
  if (straighten !== undefined && straighten !== 'auto') throw new UsageError(`--straighten ${straighten}: auto is the only way`);
  return {
    picture,
    page: word('page') === undefined ? 1 : pageNumber(word('page') as string),
    report: word('report') ?? null,
    dpi: word('dpi') === undefined ? null : positive('--dpi', word('dpi') as string),
    marks: [
      ...all('known').map((w, k) => statedMark('known-length', '--known', `known ${k + 1}`, w, 'X1,Y1,X2,Y2=LENGTH')),
      ...all('level').map((w, k) => plainMark('level', '--level', `level ${k + 1}`, w)),
      ...all('plumb').map((w, k) => plainMark('plumb', '--plumb', `plumb ${k + 1}`, w)),
      ...all('square').map((w, k) => plainMark('right-angle', '--square', `square ${k + 1}`, w)),
      ...all('frame').map((w, k) => statedMark('frame', '--frame', `frame ${k + 1}`, w, 'X1,Y1,...,X4,Y4=WxH')),
      ...all('circle').map((w, k) => statedMark('circle', '--circle', `circle ${k + 1}`, w, 'X,Y;X,Y;X,Y=DIAMETER')),
    ],
    model: modelNamed(word('model') ?? 'auto'),
    scaleCard: values['scale-card'] === true,
    straighten: straighten === 'auto',
    lens: lensSaid(word('lens')),
    limitS: timeLimit(word('time-limit')),
    force: values.force === true,
  };
}

function lensSaid(word = 'auto'): 'auto' | 'off' {
  if (word === 'auto' || word === 'off') return word;
  throw new UsageError(`--lens ${word}: auto and off are there`);
}

const plainLimitS = 3.5;

/** Seconds that reading may take; null for no limit. */
export function timeLimit(word: string | undefined): number | null {
  if (word === undefined) return plainLimitS;
  const value = Number(word);
  if (!(value >= 0) || !Number.isFinite(value)) throw new UsageError(`--time-limit ${word}: a number of seconds is needed`);
  return value === 0 ? null : value;
}

function pageNumber(word: string): number {
  const page = Number(word);
  if (!Number.isInteger(page) || page < 1) throw new UsageError(`--page ${word}: a whole number from 1 on is needed`);
  return page;
}

function modelNamed(word: string): ShapeModel | null {
  if (word === 'auto') return null;
  const found = shapeModels.find((m) => m === word);
  if (!found) throw new UsageError(`--model ${word}: auto, ${shapeModels.join(', ')} are there`);
  return found;
}

function symmetryRequest(word: string): SymmetryRequest {
  if (word === 'auto' || word === 'mirror') return word;
  const order = Number(word);
  if (!Number.isInteger(order) || order < 2 || order > 60)
    throw new UsageError(`--symmetry ${word}: auto, mirror or a number from 2 to 60 is needed`);
  return order;
}

function takeNamed(word: string): Take {
  // Both edges of a drawn line are the borders of its ink.
  const found = word === 'both-edges' ? 'shape' : takes.find((t) => t === word);
  if (!found) throw new UsageError(`--take ${word}: ${takes.join(', ')} and both-edges are there`);
  return found;
}

function meantColours(words: string): JobTraceSettings['colours'] {
  const list = words.split(',').map((word) => {
    const [hex = '', purpose = 'cut'] = word.trim().split('=');
    const known = purposes.find((p) => p === purpose);
    if (!rgbOfHex(hex) || !known) throw new UsageError(`--colours ${word.trim()}: write #rrggbb=PURPOSE, with ${purposes.join(', ')}`);
    return { hex: hex.toLowerCase(), purpose: known };
  });
  if (list.length > 12) throw new UsageError(`--colours: 12 colours can be told apart, not ${list.length}`);
  return list;
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

const inWords = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight'];

/** The places of a mark, as many as its kind takes. */
function places(kind: PullingKind, name: string, word: string): Point[] {
  const numbers = word.split(/[,;]/).map((part) => (part.trim() === '' ? Number.NaN : Number(part)));
  const { min, max } = markKinds[kind];
  const count = numbers.length / 2;
  if (!numbers.every(Number.isFinite) || !Number.isInteger(count) || count < min || count > max) {
    const wanted = min === max ? (inWords[2 * min] ?? String(2 * min)) : `at least ${inWords[2 * min]}`;
    throw new UsageError(`${name} ${word}: ${wanted} numbers are needed, x and y in turn`);
  }
  return Array.from({ length: count }, (_, k) => ({ x: numbers[2 * k] as number, y: numbers[2 * k + 1] as number }));
}

const plainMark = (kind: PullingKind, name: string, id: string, word: string): TrueUpMark => ({
  kind,
  id,
  points: places(kind, name, word),
  stated: [],
});

function statedMark(kind: PullingKind, name: string, id: string, word: string, form: string): TrueUpMark {
  const split = word.indexOf('=');
  if (split < 0) throw new UsageError(`${name} ${word}: write ${form}`);
  const lengths = kind === 'frame' ? word.slice(split + 1).split(/\s*x\s*/i) : [word.slice(split + 1)];
  if (lengths.length !== markKinds[kind].stated.length) throw new UsageError(`${name} ${word}: write ${form}`);
  return { kind, id, points: places(kind, name, word.slice(0, split)), stated: lengths.map((l) => length(name, l)) };
}
