/** In: a quilt's plan. Out: what the needle that stands in is sent: the stitches, the cloth, and the drawn line to be measured against. */
import { FileRefused } from '../../files/file-kinds.ts';
import { say } from '../../messages/index.ts';
import { type Path, polygonOf } from '../../plane/index.ts';
import { type QuiltingSettings, type QuiltPlan, stitchesOfRuns } from '../../quilting/index.ts';
import type { Work } from '../process.ts';
import type { StandInJob } from '../stand-in.ts';

/** The line is sent as chords that leave it by at most this, mm. */
const chordMm = 0.01;
/** Room about the quilt in the frame, for rows that run out over its edges, mm. */
const rimMm = 300;
/** Thread that a large bobbin holds, mm (common practice). */
const bobbinMm = 100_000;

/** @throws FileRefused where nothing is quilted yet */
export async function needleJob({ settings }: Work<QuiltingSettings>, { line }: QuiltPlan): Promise<StandInJob> {
  if (!line) throw new FileRefused(say.quilting.noLineYet());
  const moved = (v: number): string => (v + rimMm).toFixed(3);
  const sewn = stitchesOfRuns(line.runs, settings.line).flatMap((places) =>
    places.map(({ x, y }, k) => `${k === 0 ? 'jump' : 'stitch'} ${moved(x)} ${moved(y)}`),
  );
  const flat = (path: Path): number[] => [path.start, ...polygonOf(path, chordMm).slice(1), ...(path.closed ? [path.start] : [])].flatMap(({ x, y }) => [x + rimMm, y + rimMm]); // biome-ignore format: one line
  return {
    programs: [{ text: `${[...sewn, 'end'].join('\n')}\n`, tools: [] }],
    mill: null,
    needle: {
      setUp: {
        widthMm: line.area.maxX + 2 * rimMm,
        heightMm: line.area.maxY + 2 * rimMm,
        stitchesPerMin: settings.line.stitchesPerMin,
        bobbinMm,
      },
      drawn: { lines: line.runs.map(({ path }) => flat(path)) },
    },
  };
}

/** From the needle's places to the quilt's, mm. */
export const needleRimMm = rimMm;
