/**
 * Colours that share their borders, walls, ways along an edge, relations made exact: how far off the truth, how fast.
 */
import { apply, inverse, pathArea, transformedPath } from '@nuvet/core/plane';
import { drawnTo, LiveWire, rehearsed } from '@nuvet/core/raster';
import { pathAlongEdge, plainTraceSettings, regularize, relationsIn, traceColours, tracePicture, wallsOf } from '@nuvet/core/trace';
import { badgeBorders, badgeSheet, deviationOf, plateScene, scanColours, scanScene, straightScene } from '@nuvet/truth';

const colours = ['#b23a2e', '#263e70', '#468054', '#ecb23c'].map((hex) => ({ hex }));

export function measureColoursAndEdges(): void {
  for (const [dpi, tiltDegrees] of [
    [300, 1.3],
    [600, -2],
  ] as const) {
    const scan = scanColours(badgeSheet, { dpi, tiltDegrees, noise: 5 });
    const start = performance.now();
    const { pieces } = traceColours(scan.picture, scan.mmPerPx, { ...plainTraceSettings, colours });
    const ms = performance.now() - start;
    const back = inverse(scan.toPixels);
    const { rmsMm } = deviationOf(
      pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, back)),
      badgeBorders,
    );
    const megapixels = (scan.picture.width * scan.picture.height) / 1e6;
    console.log(
      `badge of four colours, ${dpi} dpi: ${pieces.length} of 6 pieces, RMS ${rmsMm.toFixed(4)} mm, ${ms.toFixed(0)} ms for ${megapixels.toFixed(1)} megapixels`,
    );
  }
  const ring = wallsOf([{ start: { x: 20, y: 0 }, segments: [{ kind: 'arc', to: { x: -20, y: 0 }, sweep: Math.PI }, { kind: 'arc', to: { x: 20, y: 0 }, sweep: Math.PI }], closed: true }], 4, 0.02); // biome-ignore format: one line
  const area = ring.reduce((sum, path) => sum + pathArea(path), 0);
  console.log(`a round wall of 4 mm, its area off by ${((100 * Math.abs(area - 160 * Math.PI)) / (160 * Math.PI)).toFixed(4)} %`);
  measureLiveWire();
  measureRelations();
}

/** About a plate on a picture of 12 megapixels, by five clicks that miss the edge by up to 4 px; every move of the pointer timed. */
function measureLiveWire(): void {
  const scan = scanScene(plateScene, { dpi: 842, tiltDegrees: 2, noise: 5 });
  const { picture, mmPerPx } = scan;
  const clicks = [[60, 15.1], [104.9, 40], [70, 75.1], [15.1, 50], [40, 14.9]].map(([x, y]) => drawnTo(picture, apply(scan.toPixels, { x: x as number, y: y as number }), 'edge', 8)); // biome-ignore format: one line
  const moves: number[] = [];
  // As the tool does when it is taken in hand, and after each click before the pointer goes on.
  rehearsed(picture);
  const way = clicks.flatMap((click, k) => {
    const to = clicks[(k + 1) % clicks.length] as typeof click;
    const wire = new LiveWire(picture, click, 'edge');
    for (const _ of wire.prepared());
    for (let s = 1; s <= 60; s++) {
      const start = performance.now();
      wire.to({ x: click.x + ((to.x - click.x) * s) / 60, y: click.y + ((to.y - click.y) * s) / 60 });
      moves.push(performance.now() - start);
    }
    return wire.held(to).slice(1);
  });
  const path = transformedPath(pathAlongEdge(picture, way, 'edge', true, 0.1 / mmPerPx), inverse(scan.toPixels));
  const { rmsMm, worstMm } = deviationOf(
    [path],
    plateScene.pieces.slice(0, 1).map(({ outer }) => outer),
  );
  moves.sort((a, b) => a - b);
  const at = (share: number) => (moves[Math.floor(share * (moves.length - 1))] as number).toFixed(1);
  console.log(
    `along a plate's edge, ${((picture.width * picture.height) / 1e6).toFixed(1)} megapixels: ${path.segments.length} segments, RMS ${rmsMm.toFixed(4)} mm, worst ${worstMm.toFixed(4)} mm; a move of the pointer ${at(0.5)} ms, 95 % under ${at(0.95)}, longest ${at(1)}`,
  );
}

function measureRelations(): void {
  for (const scene of [plateScene, straightScene]) {
    const scan = scanScene(scene, { dpi: 300, noise: 5 });
    const traced = tracePicture(scan.picture, scan.mmPerPx, plainTraceSettings).pieces.map(({ outer, holes }) =>
      [outer, ...holes].map((path) => transformedPath(path, inverse(scan.toPixels))),
    );
    const start = performance.now();
    const made = traced.map((paths) => regularize(paths, relationsIn(paths, 0.1), 0.1));
    const ms = performance.now() - start;
    const truth = scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
    const off = (paths: typeof traced) => deviationOf(paths.flat(), truth).rmsMm.toFixed(5);
    const held = made.reduce((sum, m) => sum + m.held.length, 0);
    console.log(
      `relations in ${scene.name}: ${held} hold, in ${ms.toFixed(0)} ms; RMS ${off(traced)} mm before, ${off(made.map((m) => m.paths))} after`,
    );
  }
}
