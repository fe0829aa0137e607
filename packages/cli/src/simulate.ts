/**
 * In: a program in G-code from anywhere, the stock and the tool. Out: the stock as the program leaves it, as a solid, and what happened on
 * the way as a report.
 */
import { readFile, stat } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { GcodeError, type ReadTool, readMillingProgram, writeHeightFieldStl } from '@nuvet/core/formats';
import { SaidError } from '@nuvet/core/messages';
import { cellFor, HeightField, type MillTool, moveLength, secondsOf, simulated, toolSaid } from '@nuvet/core/milling';
import { finished } from '@nuvet/core/steps';
import { UsageError } from './arguments.ts';
import { done, type Outcome } from './io.ts';
import { stockSaid } from './making-arguments.ts';
import { reportText, simulateReport } from './report-schemas.ts';
import { writeWholeFiles } from './whole-files.ts';

export const simulateUsage = `nuvet simulate FILE.gcode --stock 200x200x18mm --tool "end mill 3.175mm" [--out FILE.stl] [--report FILE.json]
                                what a program leaves of its stock; exit 1 where a rapid runs through it
  --stock WIDTHxHEIGHTxTHICKNESS
  --tool WORDS                  end mill 3.175mm, ball 6mm, V-bit 60deg, drill 3mm; once for each tool, in their order
  --zero lower-left|centre|top-left   where x 0 y 0 lies on the stock (default lower-left)
  --zero-z top|bed              where z 0 lies (default top)
  --cell LENGTH                 the side of a cell (default as fine as is quick)`;

interface SimulateRequest {
  readonly file: string;
  readonly stock: { readonly widthMm: number; readonly heightMm: number; readonly thicknessMm: number };
  readonly tools: readonly MillTool[];
  readonly zero: 'lower-left' | 'centre' | 'top-left';
  readonly zeroZ: 'top' | 'bed';
  readonly cellMm: number | null;
  readonly out: string | null;
  readonly report: string | null;
  readonly force: boolean;
}

const one = { type: 'string' } as const;
const largestFile = 200_000_000;

export function readSimulateArguments(words: readonly string[]): SimulateRequest {
  const { values, positionals } = parsed(words);
  const [file, ...more] = positionals;
  if (!file || more.length > 0)
    throw new UsageError('name one program: nuvet simulate FILE.gcode --stock 200x200x18mm --tool "end mill 3mm"');
  const { zero = 'lower-left', 'zero-z': zeroZ = 'top', cell } = values;
  if (zero !== 'lower-left' && zero !== 'centre' && zero !== 'top-left')
    throw new UsageError(`--zero ${zero}: lower-left, centre and top-left are there`);
  if (zeroZ !== 'top' && zeroZ !== 'bed') throw new UsageError(`--zero-z ${zeroZ}: top and bed are there`);
  const cellMm = cell === undefined ? null : Number.parseFloat(cell);
  if (cellMm !== null && !(cellMm >= 0.005 && cellMm <= 10)) throw new UsageError(`--cell ${cell}: a length from 0.005 to 10 mm is needed`);
  return {
    file,
    stock: stockOf(values.stock),
    tools: toolsOf(values.tool),
    zero,
    zeroZ,
    cellMm,
    out: values.out ?? null,
    report: values.report ?? null,
    force: values.force === true,
  };
}

function parsed(words: readonly string[]) {
  try {
    return parseArgs({
      args: [...words],
      allowPositionals: true,
      options: {
        stock: one,
        tool: { type: 'string', multiple: true },
        zero: one,
        'zero-z': one,
        cell: one,
        out: one,
        report: one,
        force: { type: 'boolean' },
      },
    });
  } catch (error) {
    throw new UsageError((error as Error).message.split('. ')[0]);
  }
}

/** Three sides, the thickness last; or a sheet and a thickness as `nuvet make` takes them. */
function stockOf(words: string | undefined): SimulateRequest['stock'] {
  if (words === undefined) throw new UsageError('say the stock: --stock 200x200x18mm');
  const three = /^\s*([\d.]+)\s*(mm|in|cm)?\s*[x×]\s*([\d.]+)\s*(mm|in|cm)?\s*[x×]\s*([\d.]+)\s*(mm|in|cm)?\s*$/i.exec(words);
  if (three) {
    const unit = three[6]?.toLowerCase() ?? 'mm';
    const mm = (figure: string | undefined, own: string | undefined): number =>
      Number(figure) * ({ mm: 1, cm: 10, in: 25.4 }[own?.toLowerCase() ?? unit] ?? 1);
    const [widthMm, heightMm, thicknessMm] = [mm(three[1], three[2]), mm(three[3], three[4]), mm(three[5], three[6])];
    if (![widthMm, heightMm, thicknessMm].every((side) => side > 0 && side <= 5000))
      throw new UsageError(`--stock ${words}: sides from 0 to 5000 mm are needed`);
    return { widthMm, heightMm, thicknessMm };
  }
  const { sheet, thicknessMm } = stockSaid(words);
  if (!sheet || thicknessMm === null) throw new UsageError(`--stock ${words}: write it as 200x200x18mm`);
  return { ...sheet, thicknessMm };
}

function toolsOf(words: readonly string[] | undefined): MillTool[] {
  if (!words || words.length === 0) throw new UsageError('say the tool: --tool "end mill 3.175mm"');
  return words.map((word) => {
    try {
      return toolSaid(word);
    } catch (error) {
      throw new UsageError(`--tool ${word}: ${(error as Error).message}`);
    }
  });
}

export async function simulate(request: SimulateRequest): Promise<Outcome> {
  const { file, stock, tools, zero, zeroZ, out } = request;
  const size = await stat(file).then((found) => found.size).catch(() => -1); // biome-ignore format: one line
  if (size < 0) throw new UsageError(`${file}: cannot be read`);
  if (size > largestFile) throw new UsageError(`${file}: is larger than ${largestFile / 1e6} MB`);
  const program = readProgram(file, await readFile(file, 'utf8'));
  const [left, low] = zero === 'centre' ? [-stock.widthMm / 2, -stock.heightMm / 2] : [0, zero === 'top-left' ? -stock.heightMm : 0];
  const box = { minX: left, minY: low, maxX: left + stock.widthMm, maxY: low + stock.heightMm };
  const sink = zeroZ === 'bed' ? stock.thicknessMm : 0;
  const lowered = ({ start, moves }: ReadTool): Pick<ReadTool, 'start' | 'moves'> => ({
    start: { ...start, z: start.z - sink },
    moves: moves.map((move) => ({ ...move, to: { ...move.to, z: move.to.z - sink } })),
  });
  // By their numbers; in their order where the program does not number them.
  const numbers = [...new Set(program.tools.map(({ number }) => number))];
  const placeOf = (number: number, k: number): number => (numbers.length > 1 ? numbers.indexOf(number) : k);
  const programs = program.tools.map((read, k) => {
    const tool = tools[Math.min(placeOf(read.number, k), tools.length - 1)] as MillTool;
    return { tool, ...lowered(read) };
  });
  const field = new HeightField(box, 0, request.cellMm ?? cellFor(box));
  const { runsInto, lowestZ } = finished(simulated(field, programs));
  const cut = cutIn(programs);
  const report = {
    file,
    stock,
    tools: programs.map(({ tool }, k) => ({
      number: program.tools[k]?.number,
      name: tool.name,
      kind: tool.kind,
      diameterMm: tool.diameterMm,
    })),
    cellMm: field.cellMm,
    moves: programs.reduce((sum, { moves }) => sum + moves.length, 0),
    removedMm3: field.removedMm3(-stock.thicknessMm),
    deepestMm: -Math.min(0, lowestZ),
    goesThrough: lowestZ < -stock.thicknessMm,
    ...cut,
    rapidsThroughStock: runsInto
      .filter(({ what }) => what === 'stock')
      .map(({ at, depthMm, tool }) => ({ tool, x: at.x, y: at.y, depthMm })),
    notes: program.notes,
  };
  const files = new Map<string, Uint8Array>();
  if (out) files.set(out, writeHeightFieldStl(field, -stock.thicknessMm));
  if (request.report) files.set(request.report, new TextEncoder().encode(reportText(simulateReport, report)));
  await writeWholeFiles(files, { force: request.force, inputs: [file] });
  const rapids = report.rapidsThroughStock.length;
  const lines = [
    `${file}: ${report.moves} moves, ${(cut.cutMm / 1000).toFixed(2)} m cut, ${(report.removedMm3 / 1000).toFixed(2)} cm³ taken off, ${report.deepestMm.toFixed(2)} mm deep at most`,
    ...(rapids > 0 ? [`look: ${rapids} rapid ${rapids === 1 ? 'move runs' : 'moves run'} through stock, the first at ${report.rapidsThroughStock[0]?.x.toFixed(1)}, ${report.rapidsThroughStock[0]?.y.toFixed(1)}`] : []), // biome-ignore format: one line
    ...program.notes.map((note) => `note: ${note}`),
    ...[...files.keys()].map((name) => `${name}: written`),
  ];
  return { ...done(lines), code: rapids > 0 ? 1 : 0 };
}

function readProgram(file: string, text: string): ReturnType<typeof readMillingProgram> {
  try {
    const program = readMillingProgram(text);
    if (program.tools.length === 0) throw new UsageError(`${file}: has no moves`);
    return program;
  } catch (error) {
    if (error instanceof GcodeError || error instanceof SaidError) throw new UsageError(`${file}: ${error.message}`);
    throw error;
  }
}

/** Where machines of this size go with no work to do, mm/min and mm/s²: common practice for hobby routers. */
const [rapidMmPerMin, accelerationMmPerS2] = [3000, 300];

function cutIn(programs: readonly { readonly start: ReadTool['start']; readonly moves: ReadTool['moves'] }[]) {
  let [cutMm, rapidMm, seconds] = [0, 0, 0];
  const box = { minX: Infinity, minY: Infinity, minZ: Infinity, maxX: -Infinity, maxY: -Infinity, maxZ: -Infinity };
  for (const { start, moves } of programs) {
    let at = start;
    seconds += secondsOf(start, moves, rapidMmPerMin, accelerationMmPerS2);
    for (const move of moves) {
      const length = moveLength(at, move);
      if (move.isRapid) rapidMm += length;
      else {
        cutMm += length;
        for (const { x, y, z } of [at, move.to]) {
          [box.minX, box.minY, box.minZ] = [Math.min(box.minX, x), Math.min(box.minY, y), Math.min(box.minZ, z)];
          [box.maxX, box.maxY, box.maxZ] = [Math.max(box.maxX, x), Math.max(box.maxY, y), Math.max(box.maxZ, z)];
        }
      }
      at = move.to;
    }
  }
  return { cutMm, rapidMm, seconds, cutBox: Number.isFinite(box.minX) ? box : null };
}
