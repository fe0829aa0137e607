/**
 * In: a wing panel in words: the sections at its root and tip, their chords, the span and how it lies. Out: the program of a hot wire on four
 * axes, templates of both faces, and a report of what comes out.
 */
import { readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { madeFile } from '@nuvet/core/files';
import { type Airfoil, type BurnReading, burnFrom, coreOf, nacaAirfoil, readAirfoil, type SparSlot, type WingCut, type WingPanel, wingCut } from '@nuvet/core/foam'; // biome-ignore format: one line
import { readWireProgram, type TowerAxes, towerAxes, wireProgramDeviation, writeWireProgram } from '@nuvet/core/formats';
import { plainMachine } from '@nuvet/core/job';
import { parseLength } from '@nuvet/core/length';
import { noCut, plainCutting, powerSettingOf } from '@nuvet/core/make';
import { SaidError } from '@nuvet/core/messages';
import type { Path } from '@nuvet/core/plane';
import { wingTemplates } from '@nuvet/core/processes';
import { UsageError } from './arguments.ts';
import { done, type Outcome } from './io.ts';
import { reportText, wingReport } from './report-schemas.ts';
import { writeWholeFiles } from './whole-files.ts';

export const wingUsage = `nuvet wing --root "naca 2412"|FILE.dat --root-chord LENGTH --span LENGTH --out FILE.gcode|.dxf|.svg [--report FILE.json]
                                a wing panel of foam by hot wire: the program for four axes, templates of both faces
  --tip SECTION --tip-chord LENGTH   (default as the root)
  --sweep LENGTH --rise LENGTH  how far the tip's leading edge lies aft of the root's, and above it (default 0)
  --washout DEGREES             how far the tip is turned nose down (default 0)
  --sheeting LENGTH             what is glued on all round; --leading LENGTH, --trailing LENGTH at the edges (default 0)
  --spar "30% upper 6mm x 4mm"  a slot for a spar: where, on which side, how wide and deep; repeatable
  --burn 0.8mm@300              how wide a calibration cut came out at so many mm a minute; repeatable (default 0)
  --feed N                      mm a minute of the faster face (default 300); --fastest N of a tower (default 1000)
  --towers LENGTH               from tower to tower (default the span and 200mm); --to-foam LENGTH from the left one (default
                                so that the foam lies in the middle)
  --axes UV|AB|ZA               what the machine calls the right tower's axes (default UV)
  --tip-left                    the tip lies at the left
  --pair                        the other panel, too, as FILE-mirrored`;

interface WingRequest {
  readonly panel: WingPanel;
  readonly burn: readonly BurnReading[];
  readonly feedMmPerMin: number;
  readonly fastestMmPerMin: number;
  readonly betweenMm: number;
  readonly toFoamMm: number;
  readonly isTipLeft: boolean;
  readonly isPair: boolean;
  readonly axes: TowerAxes;
  readonly out: readonly string[];
  readonly report: string | null;
  readonly force: boolean;
}

const one = { type: 'string' } as const;
const list = { type: 'string', multiple: true } as const;
const flag = { type: 'boolean' } as const;
const options = { root: one, 'root-chord': one, tip: one, 'tip-chord': one, span: one, sweep: one, rise: one, washout: one, sheeting: one, leading: one, trailing: one, spar: list, burn: list, feed: one, fastest: one, towers: one, 'to-foam': one, axes: one, 'tip-left': flag, pair: flag, out: list, report: one, force: flag } as const; // biome-ignore format: one line

function parsed(words: readonly string[]) {
  try {
    return parseArgs({ args: [...words], allowPositionals: false, options }).values;
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

export async function readWingArguments(words: readonly string[]): Promise<WingRequest> {
  const values = parsed(words);
  if (!values.root) throw new UsageError('say the section at the root: --root "naca 2412", or a file of its coordinates');
  const rootChordMm = lengthOf('--root-chord', values['root-chord'], 'positive');
  const spanMm = lengthOf('--span', values.span, 'positive');
  const root = await sectionSaid('--root', values.root);
  const tip = values.tip ? await sectionSaid('--tip', values.tip) : root;
  const optional = (name: keyof typeof values & string, range: Range): number => (values[name] === undefined ? 0 : lengthOf(`--${name}`, values[name] as string, range)); // biome-ignore format: one line
  const panel: WingPanel = {
    root,
    tip,
    rootChordMm,
    tipChordMm: values['tip-chord'] ? lengthOf('--tip-chord', values['tip-chord'], 'positive') : rootChordMm,
    spanMm,
    sweepMm: optional('sweep', 'any'),
    riseMm: optional('rise', 'any'),
    washout: numberOf('--washout', values.washout, 0, -45, 45),
    skinMm: optional('sheeting', 'from zero'),
    leadingMm: optional('leading', 'from zero'),
    trailingMm: optional('trailing', 'from zero'),
    spars: (values.spar ?? []).map(sparSaid),
  };
  const betweenMm = values.towers ? lengthOf('--towers', values.towers, 'positive') : spanMm + 200;
  const axes = (values.axes ?? 'UV').toUpperCase();
  if (!Object.hasOwn(towerAxes, axes)) throw new UsageError(`--axes ${values.axes}: ${Object.keys(towerAxes).join(', ')} are there`);
  const out = values.out ?? [];
  const odd = out.find((file) => !/\.(gcode|nc|dxf|svg)$/i.test(file));
  if (odd !== undefined) throw new UsageError(`--out ${odd}: the file must end in .gcode, .dxf or .svg`);
  if (out.length === 0 && !values.report) throw new UsageError('name a file to write: --out wing.gcode, wing.dxf or wing.svg');
  return {
    panel,
    burn: (values.burn ?? []).map(burnSaid),
    feedMmPerMin: numberOf('--feed', values.feed, 300, 10, 5000),
    fastestMmPerMin: numberOf('--fastest', values.fastest, 1000, 10, 50_000),
    betweenMm,
    toFoamMm: values['to-foam'] ? lengthOf('--to-foam', values['to-foam'], 'from zero') : (betweenMm - spanMm) / 2,
    isTipLeft: values['tip-left'] ?? false,
    isPair: values.pair ?? false,
    axes: axes as TowerAxes,
    out,
    report: values.report ?? null,
    force: values.force === true,
  };
}

type Range = 'positive' | 'from zero' | 'any';

function lengthOf(name: string, word: string | undefined, range: Range): number {
  if (word === undefined) throw new UsageError(`${name} is needed, such as ${name} 200mm`);
  const read = parseLength(word, 'mm', range);
  if (!read.ok) throw new UsageError(`${name} ${word}: ${read.message}`);
  return read.mm;
}

function numberOf(name: string, word: string | undefined, plain: number, low: number, high: number): number {
  if (word === undefined) return plain;
  const n = Number(word);
  if (word.trim() === '' || !(n >= low && n <= high)) throw new UsageError(`${name} ${word}: a number from ${low} to ${high} is needed`);
  return n;
}

const largestFile = 1_000_000;

async function sectionSaid(name: string, word: string): Promise<Airfoil> {
  try {
    const naca = /^\s*naca\s*(\S*)\s*$/i.exec(word);
    if (naca) return nacaAirfoil(naca[1] as string);
    const size = await stat(word).then((found) => found.size).catch(() => -1); // biome-ignore format: one line
    if (size < 0) throw new UsageError(`${name} ${word}: write it as "naca 2412", or name a file of coordinates that is there`);
    if (size > largestFile) throw new UsageError(`${name} ${word}: is larger than ${largestFile / 1e6} MB`);
    return readAirfoil(await readFile(word, 'utf8'), basename(word));
  } catch (error) {
    if (error instanceof SaidError) throw new UsageError(`${name} ${word}: ${error.message}`);
    throw error;
  }
}

function sparSaid(word: string): SparSlot {
  const found = /^\s*([\d.]+)\s*%\s*,?\s*(upper|lower)\s*,?\s*(.+?)\s*[x×]\s*(.+?)\s*$/i.exec(word);
  if (!found) throw new UsageError(`--spar ${word}: write it as "30% upper 6mm x 4mm"`);
  const [, share, side, width, depth] = found as unknown as [string, string, string, string, string];
  return { at: Number(share) / 100, side: side.toLowerCase() as SparSlot['side'], widthMm: lengthOf('--spar', width, 'positive'), depthMm: lengthOf('--spar', depth, 'positive') }; // biome-ignore format: one line
}

function burnSaid(word: string): BurnReading {
  const [width = '', speed = ''] = word.split('@');
  return { burnMm: lengthOf('--burn', width, 'from zero'), mmPerMin: numberOf('--burn', speed, 300, 1, 50_000) };
}

export async function wing(words: readonly string[]): Promise<Outcome> {
  const request = await readWingArguments(words);
  const cut = cutOf(request, request.isTipLeft);
  const files = new Map<string, string | Uint8Array>();
  let offMm = 0;
  for (const file of request.out) {
    if (/\.(gcode|nc)$/i.test(file)) {
      const both = request.isPair ? [[file, cut], [mirroredName(file), cutOf(request, !request.isTipLeft)]] as const : [[file, cut]] as const; // biome-ignore format: one line
      for (const [name, one] of both) {
        const text = writeWireProgram(one.towers, { title: basename(name), axes: request.axes, warmUpS: 5 });
        offMm = Math.max(offMm, wireProgramDeviation(one.towers, readWireProgram(text, request.axes)));
        files.set(name, text);
      }
    } else {
      const kind = /\.dxf$/i.test(file) ? 'dxf' : 'svg';
      const made = await madeFile(kind, wingTemplates(cut), { kerfMm: 0, corners: plainCutting.corners }, { title: basename(file), machine: plainMachine, plan: noCut, powerSettingOf: (purpose) => powerSettingOf(plainCutting, purpose), dpi: 96 }); // biome-ignore format: one line
      offMm = Math.max(offMm, made.largestMm);
      files.set(file, made.bytes);
    }
  }
  const report = reportOf(request, cut, offMm);
  if (request.report) files.set(request.report, reportText(wingReport, report));
  await writeWholeFiles(files, { force: request.force, inputs: [] });
  return done([
    `${request.panel.root.name} to ${request.panel.tip.name}: ${report.minutes.toFixed(1)} min at ${cut.feedMmPerMin.toFixed(0)} mm/min${cut.feedMmPerMin < request.feedMmPerMin ? ', slowed down for the towers' : ''}; files off by ${offMm.toFixed(3)} mm at most`, // biome-ignore format: one line
    ...[...files.keys()].map((name) => `${name}: written`),
  ]);
}

const mirroredName = (file: string): string => file.replace(/(\.[^.]+)$/, '-mirrored$1');

function cutOf({ panel, burn, feedMmPerMin, fastestMmPerMin, betweenMm, toFoamMm }: WingRequest, isTipLeft: boolean): WingCut {
  try {
    return wingCut(panel, { burn: burnFrom(burn), feedMmPerMin, fastestMmPerMin, leadMm: 20, betweenMm, toFoamMm, isTipLeft });
  } catch (error) {
    if (error instanceof SaidError) throw new UsageError(error.message);
    throw error;
  }
}

function reportOf({ panel, betweenMm, toFoamMm, axes }: WingRequest, cut: WingCut, offMm: number) {
  const faceReport = (face: 'root' | 'tip') => {
    const core = coreOf(cut.faces[face]);
    const xs = core.map(({ x }) => x);
    const twice = core.reduce((sum, p, k) => { const q = core[(k + 1) % core.length] as typeof p; return sum + p.x * q.y - q.x * p.y; }, 0); // biome-ignore format: one line
    return { section: panel[face].name, chordMm: face === 'root' ? panel.rootChordMm : panel.tipChordMm, coreLengthMm: Math.max(...xs) - Math.min(...xs), coreAreaMm2: Math.abs(twice) / 2, ...measuresOf(panel[face]) }; // biome-ignore format: one line
  };
  return { root: faceReport('root'), tip: faceReport('tip'), spanMm: panel.spanMm, sweepMm: panel.sweepMm, washoutDegrees: panel.washout, towers: { betweenMm, toFoamMm, axes }, feedMmPerMin: cut.feedMmPerMin, minutes: cut.minutes, places: cut.wire.length, offMm }; // biome-ignore format: one line
}

/** Of a section on a chord of 1: its greatest thickness and camber, and where they lie. */
function measuresOf({ upper, lower }: Airfoil) {
  const heightAt = ({ start, segments }: Path, x: number): number => {
    const nodes = [start, ...segments.map(({ to }) => to)];
    const k = Math.max(
      1,
      nodes.findIndex((p) => p.x >= x),
    );
    const [p, q] = [nodes[k - 1], nodes[k] ?? nodes.at(-1)] as [{ x: number; y: number }, { x: number; y: number }];
    return q.x > p.x ? p.y + ((x - p.x) / (q.x - p.x)) * (q.y - p.y) : p.y;
  };
  let [thickness, thicknessAt, camber, camberAt] = [0, 0, 0, 0];
  for (let k = 1; k < measuredPlaces; k++) {
    const x = k / measuredPlaces;
    const [over, under] = [heightAt(upper, x), heightAt(lower, x)];
    if (over - under > thickness) [thickness, thicknessAt] = [over - under, x];
    if (Math.abs(over + under) / 2 > Math.abs(camber)) [camber, camberAt] = [(over + under) / 2, x];
  }
  return { thickness, thicknessAt, camber, camberAt };
}
const measuredPlaces = 500;
