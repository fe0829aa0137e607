/** Lines sketched on rough paper: how many come out whole, and how far off their middles are. */
import { transformedPath } from '@nuvet/core/plane';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, pencilScan } from '@nuvet/truth';

const count = 60;
const nearMm = 0.1;

export function measurePencilSketches(): void {
  const results = Array.from({ length: count }, (_, number) => {
    const { picture, mmPerPx, lines } = pencilScan(number);
    const { pieces } = tracePicture(picture, mmPerPx, { ...plainTraceSettings, take: 'line-middle' });
    const paths = pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
    const isWhole = pieces.every(({ outer }) => outer.closed) && paths.length === lines.length;
    const onSheet = { a: mmPerPx, b: 0, c: 0, d: mmPerPx, e: 0, f: 0 };
    const placed = (list: typeof paths) => list.map((path) => transformedPath(path, onSheet));
    return { isWhole, rmsMm: isWhole ? deviationOf(placed(paths), placed([...lines])).rmsMm : Number.POSITIVE_INFINITY };
  });
  const whole = results.filter(({ isWhole }) => isWhole);
  const rms = whole.map(({ rmsMm }) => rmsMm).sort((a, b) => a - b);
  console.log(
    `${whole.length} of ${count} pencil sketches whole, ${rms.filter((mm) => mm <= nearMm).length} within RMS ${nearMm} mm; ${(rms[rms.length >> 1] as number).toFixed(3)} mm in the middle, ${(rms.at(-1) as number).toFixed(3)} mm at worst`,
  );
}
