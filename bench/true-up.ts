/**
 * The true-up solver, the warp that lays a photograph flat, and what is found in a picture, on 12 and 35 megapixels,
 * one thread of Node; and how exact photographs come out.
 */
import { asProjection, type Path, type Point, pathBox } from '@nuvet/core/plane';
import {
  contentHull,
  findSquareMarkers,
  graduationAlong,
  inkContours,
  mainDirection,
  mirrorAxis,
  type Pixels,
  paperCorners,
  repeatAlong,
  snapToInk,
  straightRuns,
  warped,
} from '@nuvet/core/raster';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { findScaleCard, fitTrueUp, rectificationPlan, type TrueUpMark } from '@nuvet/core/trueup';
import { demoJobs, onScaleCard, photographScene, plateScene, randomFrom, type Scene, scanScene } from '@nuvet/truth';
import { inverse, Matrix } from 'ml-matrix';
import sharp from 'sharp';

const say = (name: string, ms: number, more = '') =>
  console.log(`${name.padEnd(58)} ${ms.toFixed(ms < 20 ? 2 : 0).padStart(7)} ms ${more}`);

/** The median of several runs, ms. */
function median(rounds: number, work: () => unknown): number {
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return times[rounds >> 1] as number;
}

const size = { widthPx: 4000, heightPx: 3000 };

/** Thirty marks of a flat scan, half a pixel off each way. */
function thirtyMarks(): TrueUpMark[] {
  const random = randomFrom(7);
  const near = (x: number, y: number): Point => ({ x: x + random() - 0.5, y: y + random() - 0.5 });
  const place = () => [100 + 3800 * random(), 100 + 2800 * random()] as const;
  const lengths = Array.from({ length: 24 }, (_, k): TrueUpMark => {
    const [a, b] = [place(), place()];
    return { kind: 'known-length', id: `${k}`, points: [near(...a), near(...b)], stated: [0.1 * Math.hypot(a[0] - b[0], a[1] - b[1])] };
  });
  const levels = [200, 900, 1700, 2600].map(
    (y): TrueUpMark => ({ kind: 'level', id: `y${y}`, points: [near(100, y), near(3900, y)], stated: [] }),
  );
  const frame: TrueUpMark = {
    kind: 'frame',
    id: 'f',
    points: [near(200, 200), near(3000, 200), near(3000, 2200), near(200, 2200)],
    stated: [280, 200],
  };
  const rim = [0, 1, 2, 3, 4, 5].map((t) => near(2000 + 500 * Math.cos(t), 1500 + 500 * Math.sin(t)));
  return [...lengths, ...levels, frame, { kind: 'circle', id: 'c', points: rim, stated: [100] }];
}

export async function measureTrueUp(): Promise<void> {
  const marks = thirtyMarks();
  for (let k = 0; k < 60; k++) fitTrueUp(size, marks, null);
  const solver = median(41, () => fitTrueUp(size, marks, null));
  const inversions = median(41, () => {
    const matrix = Matrix.eye(60, 60);
    for (let k = 1; k < 60; k++) matrix.set(k, k - 1, 0.5);
    return inverse(matrix);
  });
  say(
    'the fit to 30 marks, all four models, with errors',
    solver,
    `(${(solver / inversions).toFixed(1)} times inverting a 60 x 60 matrix by ml-matrix)`,
  );
  await measureWarp();
  measureFinding();
  measurePhotographs();
}

/** A grey picture and one in colours, of so many megapixels. */
function pixelsOf(width: number, height: number, isColour: boolean): Pixels {
  const grey = Uint8Array.from({ length: width * height }, (_, k) => ((k * 40503) >>> 9) & 255);
  if (!isColour) return { width, height, grey, colour: null };
  const colour = new Uint8Array(3 * grey.length);
  for (let k = 0; k < grey.length; k++) colour.fill(grey[k] as number, 3 * k, 3 * k + 3);
  return { width, height, grey, colour };
}

async function measureWarp(): Promise<void> {
  for (const [width, height] of [
    [4000, 3000],
    [7000, 5000],
  ] as const) {
    // biome-ignore format: 12 and 35 megapixels
    const toOriginal = { ...asProjection({ a: 0.96, b: 0.05, c: -0.05, d: 0.97, e: 100, f: 20 }), g: 1e-5, h: 2e-5 };
    for (const isColour of [false, true]) {
      const source = pixelsOf(width, height, isColour);
      const ms = median(3, () => {
        const steps = warped(source, { widthPx: width, heightPx: height, toOriginal });
        for (let step = steps.next(); !step.done; step = steps.next());
      });
      const start = performance.now();
      const raw = { width, height, channels: isColour ? 3 : 1 } as const;
      await sharp(isColour ? (source.colour as Uint8Array) : source.grey, { raw })
        .affine([0.96, 0.05, -0.05, 0.97], { interpolator: 'bicubic' })
        .raw()
        .toBuffer();
      const theirs = performance.now() - start;
      say(
        `laid flat, ${((width * height) / 1e6).toFixed(0)} megapixels, ${isColour ? 'colour' : 'grey'}, one thread`,
        ms,
        `(libvips, bicubic, all threads: ${theirs.toFixed(0)})`,
      );
    }
  }
}

function measureFinding(): void {
  const job = demoJobs[0] as (typeof demoJobs)[0];
  const scan = scanScene(job.scene, { ...job.scan, dpi: 420 });
  const { picture } = scan;
  console.log(`found in a scan of ${(picture.data.length / 1e6).toFixed(1)} megapixels:`);
  const contours = inkContours(picture);
  const direction = mainDirection(straightRuns(contours, 60, picture));
  say(
    '  contours of the ink',
    median(3, () => inkContours(picture)),
  );
  say(
    '  the straightening angle, from contours',
    median(3, () => mainDirection(straightRuns(contours, 60, picture))),
    direction ? '' : '(none)',
  );
  const angle = direction?.turn ?? 0;
  say(
    '  squared paper, both ways',
    median(3, () => [repeatAlong(picture, angle), repeatAlong(picture, angle + Math.PI / 2)]),
  );
  let steps = 0;
  say('  a ruler, both ways', median(3, () => (steps = [graduationAlong(picture, angle), graduationAlong(picture, angle + Math.PI / 2)].filter(Boolean).length)), `(${steps} found)`); // biome-ignore format: one line
  say(
    '  the mirror axis',
    median(3, () => mirrorAxis(picture)),
  );
  say(
    '  the drawn part',
    median(3, () => contentHull(picture, contours)),
  );
  const at = scan.at({ x: 60, y: 90 });
  say(
    '  a snap near the pointer',
    median(31, () => snapToInk(picture, at, 12)),
  );
  const photo = photographScene(onScaleCard(plateScene, { x: 45, y: 100 }), { widthPx: 3000, heightPx: 4000, tiltDegrees: 25, seed: 3 });
  say(
    '  the scale card, 12 megapixels',
    median(3, () => findSquareMarkers(photo.picture)),
    `(${findSquareMarkers(photo.picture).length} markers)`,
  );
  say(
    '  the paper’s corners, 12 megapixels',
    median(3, () => paperCorners(photo.picture)),
  );
}

/** Photographs of the plate, by its frame and by the scale card: how far outlines are off. */
function measurePhotographs(): void {
  const card = onScaleCard(plateScene, { x: 45, y: 100 });
  const sheet: Scene = { ...plateScene, widthMm: 180, heightMm: 130 };
  console.log('photographs of the plate, 12 megapixels: what is off its 90 x 60 mm');
  for (const tiltDegrees of [0, 20, 35]) {
    const byCard = photographScene(card, { widthPx: 3000, heightPx: 4000, tiltDegrees, leanDegrees: 30, seed: 3 });
    const found = findScaleCard(byCard.picture);
    const cardMark: TrueUpMark = {
      kind: 'scale-card',
      id: 'card',
      points: found?.points ?? [],
      places: found?.places ?? [],
      stated: [100],
    };
    const framed = photographScene(sheet, { widthPx: 4000, heightPx: 3000, tiltDegrees, seed: 4 });
    const corners = [[0, 130], [180, 130], [180, 0], [0, 0]].map(([x, y]) => framed.at({ x, y } as Point)); // biome-ignore format: corners
    const frameMark: TrueUpMark = { kind: 'frame', id: 'frame', points: corners, stated: [180, 130] };
    for (const [name, photo, mark] of [
      ['scale card', byCard, cardMark],
      ['frame', framed, frameMark],
    ] as const) {
      // biome-ignore format: two
      const { width, height, data } = photo.picture;
      const fit = fitTrueUp({ widthPx: width, heightPx: height }, [mark], null, { pinned: 'perspective' });
      const plan = rectificationPlan(fit, fit.mmPerPx);
      const steps = warped({ width, height, grey: data, colour: null }, plan);
      let made = steps.next();
      while (!made.done) made = steps.next();
      const flat = made.value;
      const traced = tracePicture({ width: flat.width, height: flat.height, data: flat.grey }, plan.mmPerPx, {
        ...plainTraceSettings,
        smallestMm: 2,
      });
      const plate = traced.pieces.map((p) => sizeOf(p.outer, plan.mmPerPx)).find(([w]) => Math.abs(w - 90) < 5) ?? [Number.NaN, Number.NaN];
      console.log(
        `  tilted by ${String(tiltDegrees).padStart(2)} degrees, ${name.padEnd(10)} ${off(plate[0], 90)} wide, ${off(plate[1], 60)} high`,
      );
    }
  }
}

const off = (found: number, truth: number) =>
  `${(found - truth).toFixed(3).padStart(7)} mm (${((100 * (found - truth)) / truth).toFixed(3)} %)`;

function sizeOf(path: Path, mmPerPx: number): [number, number] {
  const { minX, minY, maxX, maxY } = pathBox(path);
  return [(maxX - minX) * mmPerPx, (maxY - minY) * mmPerPx];
}
