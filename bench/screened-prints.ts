/** Figures printed in dots: how many come out whole, and how far off they are. */
import { transformedPath } from '@nuvet/core/plane';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, nestingOf, screenedScan } from '@nuvet/truth';

const count = 30;

export function measureScreenedPrints(): void {
  const results = Array.from({ length: count }, (_, number) => {
    const { picture, mmPerPx, scene, outlines, periodPx } = screenedScan(number);
    const { pieces } = tracePicture(picture, mmPerPx, { ...plainTraceSettings, smallestMm: 1.5 });
    const onSheet = { a: mmPerPx, b: 0, c: 0, d: mmPerPx, e: 0, f: 0 };
    const traced = pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
    const [a, b] = [traced, outlines].map((list) => list.map((path) => transformedPath(path, onSheet))) as [typeof traced, typeof traced];
    return { isWhole: nestingOf(pieces).join() === nestingOf(scene.pieces).join(), share: deviationOf(a, b).rmsMm / (periodPx * mmPerPx) };
  });
  const shares = results.map(({ share }) => share).sort((a, b) => a - b);
  console.log(
    `${results.filter(({ isWhole }) => isWhole).length} of ${count} prints in dots (screens, ordered and diffused dither) whole; RMS ${((shares[count >> 1] as number) * 100).toFixed(0)} % of the dots' distance in the middle, ${((shares.at(-1) as number) * 100).toFixed(0)} % at worst`,
  );
}
