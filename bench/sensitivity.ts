/**
 * How much the results of a stage depend on each of its constants: every one is varied by a quarter either way, in a process of its
 * own; what changes is printed, the most sensitive first. Tracing is measured over five truth scenes, each in grey and all but the
 * full sheet in one bit, true-up over marks of four kinds of pictures. Given a stage, the name of a parameter and a factor it
 * measures with that alone and prints its figures as JSON.
 */
import { execFile } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';

type Figures = Readonly<Record<string, number>>;

interface Stage {
  readonly parameters: () => Promise<Readonly<Record<string, number>>>;
  readonly measured: () => Promise<Figures>;
}

const stages: Readonly<Record<string, Stage>> = {
  tracing: {
    parameters: async () => (await import('../packages/core/src/trace/parameters.ts')).parameters,
    measured: tracingFigures,
  },
  'true-up': {
    parameters: async () => (await import('../packages/core/src/trueup/parameters.ts')).parameters,
    measured: async () => (await import('./sensitivity-of-true-up.ts')).trueUpFigures(),
  },
};

const [stageName, name, factor] = process.argv.slice(2);
if (name && factor) {
  if (name !== 'none') (globalThis as { parameterFactors?: object }).parameterFactors = { [name]: Number(factor) };
  console.log(JSON.stringify(await stages[stageName as string]?.measured()));
} else for (const one of stageName ? [stageName] : Object.keys(stages)) await table(one, stages[one] as Stage);

/** Deviations from the truth of all scenes, how many segments tell the outlines, and outlines found less those that are there. */
async function tracingFigures(): Promise<Figures> {
  const { inverse, transformedPath } = await import('@nuvet/core/plane');
  const { greyPicture } = await import('@nuvet/core/raster');
  const { plainTraceSettings, tracePicture } = await import('@nuvet/core/trace');
  const truth = await import('@nuvet/truth');
  // Scans are drawn once for all processes.
  await import('../tests/unit/kept-scans.ts');
  let [squares, worstMm, segments, lost, count] = [0, 0, 0, 0, 0];
  const { plateScene, starScene, straightScene, smoothScene, fullSheetScene } = truth;
  for (const scene of [plateScene, starScene, straightScene, smoothScene, fullSheetScene()])
    for (const [k, isBilevel] of [false, true].entries()) {
      if (isBilevel && scene.pieces.length > 20) continue;
      const scan = truth.scanScene(scene, { dpi: 300, tiltDegrees: 0.7 + k, noise: 5, seed: 21 + k });
      const { width, height, data } = scan.picture;
      const picture = isBilevel ? greyPicture(data.map((v) => (v < 137 ? 0 : 255)), width, height) : scan.picture; // biome-ignore format: one line
      const back = inverse(scan.toPixels);
      const traced = tracePicture(picture, scan.mmPerPx, plainTraceSettings)
        .pieces.flatMap(({ outer, holes }) => [outer, ...holes])
        .map((path) => transformedPath(path, back));
      const wanted = scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
      const off = truth.deviationOf(traced, wanted);
      squares += off.rmsMm ** 2;
      worstMm = Math.max(worstMm, off.worstMm);
      segments += traced.reduce((n, p) => n + p.segments.length, 0);
      lost += Math.abs(traced.length - wanted.length);
      count++;
    }
  return { 'RMS mm': Math.sqrt(squares / count), 'worst mm': worstMm, segments, 'outlines wrong': lost };
}

async function table(stage: string, { parameters }: Stage): Promise<void> {
  const names = Object.keys(await parameters());
  const run = async (words: readonly string[]): Promise<Figures | null> => {
    const all = [...process.execArgv, fileURLToPath(import.meta.url), stage, ...words];
    // A stage that breaks down has no figures.
    const { stdout } = await promisify(execFile)(process.execPath, all).catch(() => ({ stdout: '' }));
    return stdout ? (JSON.parse(stdout) as Figures) : null;
  };
  const plain = await run(['none', '1']);
  if (!plain) throw new Error(`${stage}: the parameters as they are give no figures`);
  const rows: { readonly one: string; readonly by: number; readonly figures: Figures | null }[] = [];
  const waiting = names.flatMap((one) => [0.75, 1.25].map((by) => ({ one, by })));
  const work = async (): Promise<void> => {
    for (let next = waiting.shift(); next; next = waiting.shift())
      rows.push({ ...next, figures: await run([next.one, String(next.by)]) }); // biome-ignore format: one line
  };
  await Promise.all(Array.from({ length: availableParallelism() }, work));
  const columns = Object.keys(plain);
  const inCell = (column: string, value: number): string =>
    (Number.isInteger(value) ? String(value) : value.toFixed(4)).padStart(Math.max(column.length, 9));
  const change = ({ figures }: (typeof rows)[0]): number =>
    figures
      ? columns.reduce((sum, c) => sum + Math.abs((figures[c] as number) - (plain[c] as number)) / Math.max(1e-9, plain[c] || 1), 0)
      : Infinity;
  console.log(`${stage}\n${'parameter'.padEnd(28)} times ${columns.map((c) => c.padStart(9)).join(' ')}`);
  console.log(`${'as they are'.padEnd(28)}  1.00 ${columns.map((c) => inCell(c, plain[c] as number)).join(' ')}`);
  for (const row of rows.sort((a, b) => change(b) - change(a))) {
    const { one, by, figures } = row;
    const cells = figures ? columns.map((c) => inCell(c, figures[c] as number)).join(' ') : 'breaks down';
    console.log(`${one.padEnd(28)} ${by.toFixed(2).padStart(5)} ${cells}`);
  }
  const still = names.filter((one) => rows.filter((r) => r.one === one).every((r) => change(r) === 0));
  console.log(`without any effect here: ${still.join(', ') || 'none'}\n`);
}
