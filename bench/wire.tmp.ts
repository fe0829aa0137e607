import { apply, inverse, transformedPath } from '@nuvet/core/plane';
import { drawnTo, LiveWire } from '@nuvet/core/raster';
import { fittedWay } from '@nuvet/core/trace';
import { deviationOf, linesScene, plateScene, scanScene, smoothScene } from '@nuvet/truth';

const scan = scanScene(plateScene, { dpi: 300, tiltDegrees: 2, noise: 5 });
const px = (x: number, y: number) => apply(scan.toPixels, { x, y });
// around the outer outline by 5 clicks, each off by some px
const clicks = [px(60.2, 15.1), px(104.9, 40), px(70, 75.1), px(15.1, 50), px(40, 14.9)];
const way: { x: number; y: number }[] = [];
let worst = 0;
for (let k = 0; k < 5; k++) clicks[k] = drawnTo(scan.picture, clicks[k]!, 'edge', 6);
for (const [k, c] of clicks.entries()) {
  const wire = new LiveWire(scan.picture, c, 'edge');
  const to = clicks[(k + 1) % clicks.length]!;
  for (let s = 1; s <= 20; s++) {
    const t0 = performance.now();
    wire.to({ x: c.x + ((to.x - c.x) * s) / 20, y: c.y + ((to.y - c.y) * s) / 20 });
    worst = Math.max(worst, performance.now() - t0);
  }
  const t0 = performance.now();
  const held = wire.held(to);
  console.log('held', held.length, (performance.now() - t0).toFixed(1), 'ms; worst move', worst.toFixed(1));
  worst = 0;
  way.push(...held.slice(1));
}
const path = fittedWay(scan.picture, way, 'edge', true, 0.1 / scan.mmPerPx);
const d = deviationOf([transformedPath(path, inverse(scan.toPixels))], [plateScene.pieces[0]!.outer]);
console.log(path.segments.map((s) => s.kind[0]).join(''), d.rmsMm, d.worstMm);
const ls = scanScene(linesScene, { dpi: 150, tiltDegrees: 1, noise: 5 });
console.log(linesScene.middles.map((m) => JSON.stringify(m).slice(0, 150)));
