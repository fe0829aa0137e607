import { inverse, stepsOf, transformedPath } from '@nuvet/core/plane';
import { madeRelated, plainTraceSettings, relationsIn, tracePicture } from '@nuvet/core/trace';
import { deviationOf, fullSheetScene, plateScene, scanScene, starScene, straightScene } from '@nuvet/truth';

for (const scene of [plateScene, straightScene, starScene].filter(Boolean)) {
  const scan = scanScene(scene as any, { dpi: 300, tiltDegrees: 0, noise: 5 });
  const paths = tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings)
    .pieces.flatMap((p) => [p.outer, ...p.holes])
    .map((p) => transformedPath(p, inverse(scan.toPixels)));
  const t0 = performance.now();
  const rel = relationsIn(paths, 0.05);
  const t1 = performance.now();
  const made = madeRelated(paths, rel, 0.1);
  const t2 = performance.now();
  const n = (list: readonly { kind: string }[]) =>
    JSON.stringify(Object.fromEntries([...new Set(list.map((r) => r.kind))].map((k) => [k, list.filter((r) => r.kind === k).length])));
  console.log(
    (scene as any).name,
    paths.length,
    'found',
    n(rel),
    (t1 - t0).toFixed(0),
    'ms; held',
    n(made.held),
    'moved',
    made.moved.toFixed(4),
    (t2 - t1).toFixed(0),
    'ms',
  );
  const truth = (scene as any).pieces.flatMap((p: any) => [p.outer, ...p.holes]);
  console.log('  rms before', deviationOf(paths, truth).rmsMm.toFixed(5), 'after', deviationOf(made.paths, truth).rmsMm.toFixed(5));
  if (scene === plateScene)
    console.log(
      made.paths[0]!.segments.map((s) =>
        s.kind === 'line' ? `L ${s.to.x.toFixed(5)} ${s.to.y.toFixed(5)}` : `A ${s.to.x.toFixed(5)} ${s.to.y.toFixed(5)}`,
      ).join(' | '),
    );
}
