/**
 * What Nuvet computes of pictures, held against OpenCV (@techstark/opencv-js), which computes the same by other means.
 */
import {
  axesOf,
  distance,
  ellipsePath,
  type Path,
  type Point,
  type Projection,
  pathArea,
  polygonPath,
  project,
  projectionOfFour,
} from '@nuvet/core/plane';
import { contoursAt, convexHull, type GreyPicture, greyPicture, histogram, labOf, otsuThreshold, warped } from '@nuvet/core/raster';
import { plainTraceSettings, symmetriesOf, tracePicture } from '@nuvet/core/trace';
import { fullSheetScene, linesScene, piece, plateScene, randomFrom, type Scene, scanScene, straightScene } from '@nuvet/truth';
import { beforeAll, describe, expect, it } from 'vitest';
import { inkMask, isInk, type Mask } from '../../packages/core/src/raster/ink-mask.ts';
import { thinned } from '../../packages/core/src/raster/thinning.ts';
import { chordsAlong } from '../../packages/core/src/trace/douglas-peucker.ts';
import { lent, type Mat, type OpenCv, openCv } from './opencv.ts';

let cv: OpenCv;
beforeAll(async () => {
  ({ cv } = await openCv());
});

const matOf = ({ width, height, data }: GreyPicture): Mat => cv.matFromArray(height, width, cv.CV_8UC1, data);
const pointsMat = (points: readonly Point[]): Mat =>
  cv.matFromArray(
    points.length,
    1,
    cv.CV_32FC2,
    points.flatMap(({ x, y }) => [x, y]),
  );

/** Blobs of ink in several sizes that touch, enclose and miss each other. */
function blobs(seed: number, width: number, height: number, waves = 14): GreyPicture {
  const random = randomFrom(seed);
  const parts = Array.from({ length: waves }, () => ({
    u: (random() - 0.5) * 0.8,
    v: (random() - 0.5) * 0.8,
    phase: 6.28 * random(),
    size: 0.4 + random(),
  }));
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const isRim = x < 2 || y < 2 || x >= width - 2 || y >= height - 2;
      const sum = parts.reduce((s, { u, v, phase, size }) => s + size * Math.sin(u * x + v * y + phase), 0);
      data[y * width + x] = isRim ? 255 : Math.max(0, Math.min(255, Math.round(135 + 45 * sum)));
    }
  }
  return greyPicture(data, width, height);
}

const bare: Scene = { name: 'one figure', widthMm: 100, heightMm: 80, pieces: [] };

/** The variance between what is up to a threshold and what is above it. */
function betweenClasses({ data }: GreyPicture, threshold: number): number {
  const [low, high] = [data.filter((v) => v <= threshold), data.filter((v) => v > threshold)];
  const mean = (values: Uint8Array): number => values.reduce((sum, v) => sum + v, 0) / values.length;
  return low.length * high.length * (mean(low) - mean(high)) ** 2;
}

describe('thresholds', () => {
  it.each([1, 2, 3, 4, 5, 6])('are those that OpenCV finds by the same rule (Otsu 1979), picture %i', (seed) => {
    const picture = seed < 4 ? blobs(seed, 180, 140) : scanScene(plateScene, { dpi: 40, noise: 3 * seed, seed }).picture;
    const theirs = lent((own) => cv.threshold(own(matOf(picture)), own(new cv.Mat()), 0, 255, cv.THRESH_BINARY + cv.THRESH_OTSU));
    const ours = otsuThreshold(histogram(picture))?.value as number;
    expect(Math.abs(ours - theirs)).toBeLessThanOrEqual(2);
    // Where hardly a pixel lies between both, neither parts ink and paper better.
    expect(betweenClasses(picture, ours)).toBeGreaterThanOrEqual((1 - 1e-9) * betweenClasses(picture, theirs));
  });
});

/** How many parts hang together of what is not 0, by edges alone (4) or by corners too (8). */
const partsOf = (data: Uint8Array, width: number, height: number, connectivity: 4 | 8): number =>
  lent((own) => cv.connectedComponents(own(cv.matFromArray(height, width, cv.CV_8UC1, data)), own(new cv.Mat()), connectivity) - 1);

describe('borders', () => {
  it.each([11, 12, 13, 14, 15, 16, 17, 18])('are as many as parts of ink and of paper, picture %i', (seed) => {
    const picture = blobs(seed, 200, 150);
    const { contours } = contoursAt(picture, 127.5);
    const [ink, paper] = [picture.data.map((v) => (v < 127.5 ? 1 : 0)), picture.data.map((v) => (v < 127.5 ? 0 : 1))];
    const [outers, holes] = [contours.filter((c) => !c.isHole).length, contours.filter((c) => c.isHole).length];
    expect(outers).toBeGreaterThan(5);
    // Where two pixels touch at a corner the greys between decide: between both ways of counting.
    expect(outers).toBeLessThanOrEqual(partsOf(ink, 200, 150, 4));
    expect(outers).toBeGreaterThanOrEqual(partsOf(ink, 200, 150, 8));
    expect(holes).toBeLessThanOrEqual(partsOf(paper, 200, 150, 4) - 1);
    expect(holes).toBeGreaterThanOrEqual(partsOf(paper, 200, 150, 8) - 1);
  });

  it('of a sheet of 150 shapes enclose as many pixels as OpenCV’s chains about them', () => {
    const { picture } = scanScene(fullSheetScene(), { dpi: 150, seed: 4 });
    const ours = contoursAt(picture, 127.5, 20).contours.filter((c) => !c.isHole);
    const theirs = lent((own) => {
      const [ink, nesting, found] = [own(new cv.Mat()), own(new cv.Mat()), own(new cv.MatVector())];
      const dark = own(cv.matFromArray(picture.height, picture.width, cv.CV_8UC1, picture.data.map((v) => (v < 127.5 ? 255 : 0)))); // biome-ignore format: one matrix
      cv.threshold(dark, ink, 127, 255, cv.THRESH_BINARY);
      cv.findContours(ink, found, nesting, cv.RETR_CCOMP, cv.CHAIN_APPROX_NONE);
      return Array.from({ length: found.size() }, (_, k) => ({
        isOuter: nesting.data32S[4 * k + 3] === -1,
        area: cv.contourArea(own(found.get(k))),
        around: own(found.get(k)).rows,
      })).filter(({ isOuter, area }) => isOuter && area > 20);
    });
    expect(ours).toHaveLength(150);
    expect(theirs).toHaveLength(150);
    const areas = ours.map(({ points }) => Math.abs(pathArea(polygonOf(points)))).sort((a, b) => a - b);
    // So many pixels a chain through pixels' centres has within and on it (Pick 1899).
    const counts = theirs.map(({ area, around }) => area + around / 2 + 1).sort((a, b) => a - b);
    for (const [k, count] of counts.entries())
      expect(Math.abs((areas[k] as number) - count)).toBeLessThan(0.03 * Math.sqrt(count) + 0.01 * count);
  });
});

/** A contour as a path. */
const polygonOf = (points: Float64Array): Path => polygonPath(pairsOf(points));
const pairsOf = (points: Float64Array): Point[] =>
  Array.from({ length: points.length / 2 }, (_, k) => ({ x: points[2 * k] as number, y: points[2 * k + 1] as number }));

/** The mask as a picture of ones within its border. */
function bytesOf(mask: Mask, width: number, height: number): Uint8Array {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data[y * width + x] = isInk(mask, (y + 1) * mask.width + x + 1) ? 1 : 0;
  return data;
}

describe('thinned ink', () => {
  const [width, height] = [220, 170];
  it.each([21, 22, 23, 24, 25, 26])('hangs together as the ink did, and round as many holes, picture %i', (seed) => {
    const mask = inkMask(blobs(seed, width, height), 127.5);
    const before = bytesOf(mask, width, height);
    for (const _ of thinned(mask));
    const after = bytesOf(mask, width, height);
    expect(partsOf(after, width, height, 8)).toBe(partsOf(before, width, height, 8));
    const paper = (ink: Uint8Array): Uint8Array => ink.map((v) => 1 - v);
    expect(partsOf(paper(after), width, height, 4)).toBe(partsOf(paper(before), width, height, 4));
  });

  it('lies where the distance to the paper is largest across a line of even width', () => {
    const line = polygonPath([{ x: 20, y: 30 }, { x: 190, y: 95 }, { x: 184, y: 112 }, { x: 14, y: 47 }]); // biome-ignore format: corners
    const data = new Uint8Array(width * height).fill(255);
    const edges = line.segments.map(({ to }, k) => [line.segments.at(k - 1)?.to as Point, to] as const);
    const wide = distance({ x: 20, y: 30 }, { x: 14, y: 47 });
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        if (edges.every(([a, b]) => (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) > 0)) data[y * width + x] = 0;
    const mask = inkMask(greyPicture(data, width, height), 127.5);
    const ink = bytesOf(mask, width, height);
    const depth = lent((own) => {
      const to = own(new cv.Mat());
      cv.distanceTransform(own(cv.matFromArray(height, width, cv.CV_8UC1, ink)), to, cv.DIST_L2, 0);
      return Float32Array.from(to.data32F);
    });
    for (const _ of thinned(mask));
    const rest = bytesOf(mask, width, height);
    let count = 0;
    for (let k = 0; k < rest.length; k++) {
      const x = k % width;
      if (rest[k] === 0 || x < 40 || x > 165) continue;
      count++;
      expect(depth[k]).toBeGreaterThan(wide / 2 - 1.6);
    }
    expect(count).toBeGreaterThan(120);
  });
});

describe('middles of lines', () => {
  it('are as wide as twice the distance to the paper', () => {
    const { picture, mmPerPx } = scanScene(linesScene, { dpi: 600, tiltDegrees: 1, seed: 3 });
    const lines = tracePicture(picture, mmPerPx, { ...plainTraceSettings, take: 'network' }).pieces;
    const depth = lent((own) => {
      const to = own(new cv.Mat());
      const ink = picture.data.map((v) => (v < 127.5 ? 1 : 0));
      cv.distanceTransform(own(cv.matFromArray(picture.height, picture.width, cv.CV_8UC1, ink)), to, cv.DIST_L2, 0);
      return Float32Array.from(to.data32F);
    });
    const deepestNear = ({ x, y }: Point): number => {
      let max = 0;
      for (let j = -1; j <= 1; j++)
        for (let i = -1; i <= 1; i++) max = Math.max(max, depth[(Math.floor(y) + j) * picture.width + Math.floor(x) + i] as number);
      return max;
    };
    expect(lines.length).toBeGreaterThan(4);
    for (const { outer, strokePx } of lines) {
      const straight = outer.segments.findIndex((s) => s.kind === 'line');
      if (straight < 0) continue;
      const [from, to] = [
        straight === 0 ? outer.start : (outer.segments[straight - 1]?.to as Point),
        outer.segments[straight]?.to as Point,
      ];
      const widths = [0.3, 0.4, 0.5, 0.6, 0.7].map(
        (t) => 2 * deepestNear({ x: from.x + t * (to.x - from.x), y: from.y + t * (to.y - from.y) }),
      );
      widths.sort((a, b) => a - b);
      // Half a pixel too much from centre to centre, and up to half a pixel too little where the middle lies between two.
      expect(Math.abs((widths[2] as number) - (strokePx as number))).toBeLessThan(1);
    }
  });
});

describe('the perspective of four points', () => {
  it('is the one that OpenCV finds', () => {
    const random = randomFrom(8);
    for (let round = 0; round < 40; round++) {
      const jitter = (x: number, y: number): Point => ({ x: x + 30 * (random() - 0.5), y: y + 30 * (random() - 0.5) });
      const square = (w: number, h: number) => [jitter(0, 0), jitter(w, 0), jitter(w, h), jitter(0, h)] as const;
      const [from, to] = [square(100, 80), square(140, 190)];
      const map = projectionOfFour(from, to) as Projection;
      const matrix = lent((own) => Float64Array.from(own(cv.getPerspectiveTransform(own(pointsMat(from)), own(pointsMat(to)))).data64F));
      const [a, c, e, b, d, f, g, h, i] = matrix as unknown as [number, number, number, number, number, number, number, number, number];
      for (let k = 0; k < 10; k++) {
        const p = { x: 100 * random(), y: 80 * random() };
        // Its points are single floats.
        expect(distance(project(map, p), project({ a, b, c, d, e, f, g, h, i }, p))).toBeLessThan(1e-3);
      }
    }
  });

  it('lays a picture flat as OpenCV’s cubic interpolation does, but for its other constant', () => {
    const [width, height] = [260, 200];
    const data = Uint8Array.from(
      { length: width * height },
      (_, k) => 128 + 80 * Math.sin((k % width) / 11) * Math.cos(Math.floor(k / width) / 14),
    );
    const toOriginal = { a: 0.9, b: 0.1, c: -0.08, d: 0.95, e: 18, f: 6, g: 3e-4, h: -2e-4, i: 1 };
    const steps = warped({ width, height, grey: data, colour: null }, { widthPx: 240, heightPx: 180, toOriginal });
    let step = steps.next();
    while (!step.done) step = steps.next();
    const ours = step.value.grey;
    const theirs = lent((own) => {
      // Its pixels' centres lie at whole numbers: a shift by half a pixel before and after.
      const { a, b, c, d, e, f, g, h, i } = toOriginal;
      const w = g / 2 + h / 2 + i;
      const moved = [a - g / 2, c - h / 2, a / 2 + c / 2 + e - w / 2, b - g / 2, d - h / 2, b / 2 + d / 2 + f - w / 2, g, h, w];
      const to = own(new cv.Mat());
      const matrix = own(cv.matFromArray(3, 3, 6, moved));
      cv.warpPerspective(own(cv.matFromArray(height, width, cv.CV_8UC1, data)), to, matrix, new cv.Size(240, 180), cv.INTER_CUBIC + 16, cv.BORDER_CONSTANT, new cv.Scalar(255)); // biome-ignore format: one call
      return Uint8Array.from(to.data);
    });
    let [worst, sum, count] = [0, 0, 0];
    for (let y = 0; y < 180; y++)
      for (let x = 0; x < 240; x++) {
        const at = project(toOriginal, { x: x + 0.5, y: y + 0.5 });
        if (at.x < 3 || at.y < 3 || at.x > width - 3 || at.y > height - 3) continue;
        const off = Math.abs((ours[y * 240 + x] as number) - (theirs[y * 240 + x] as number));
        worst = Math.max(worst, off);
        sum += off;
        count++;
      }
    expect(count).toBeGreaterThan(30_000);
    expect(worst).toBeLessThanOrEqual(3);
    expect(sum / count).toBeLessThan(0.5);
  });
});

/** A level between two greys at a threshold. */
const levelOf = (threshold: number): number => Math.floor(threshold) + 0.5;

describe('whole figures', () => {
  it.each([
    [30, 20, 0.3],
    [34, 12, 1.1],
    [25, 23, 2.4],
    [36, 30, 0],
  ])('an ellipse of half axes %f and %f mm is the one that OpenCV fits to its border', (long, short, angle) => {
    const { picture, mmPerPx } = scanScene(
      { ...bare, pieces: [piece(ellipsePath({ x: 50, y: 40 }, long, short, angle))] },
      { dpi: 150, seed: 2 },
    );
    const { pieces, threshold } = tracePicture(picture, mmPerPx, plainTraceSettings);
    const [found] = pieces;
    const [segment] = found?.outer.segments ?? [];
    if (!found || segment?.kind !== 'ellipse') throw new Error('this is no ellipse');
    const border = pairsOf(contoursAt(picture, levelOf(threshold), 50).contours[0]?.points as Float64Array);
    const theirs = lent((own) => cv.fitEllipse(own(pointsMat(border))));
    const { major, minor, angle: turn } = axesOf(found.outer.start, segment);
    expect(distance(segment.centre, theirs.center)).toBeLessThan(0.06);
    // The border at one level, and its fit of conics, lie a few hundredths off.
    expect(Math.abs(2 * major - Math.max(theirs.size.width, theirs.size.height))).toBeLessThan(0.25);
    expect(Math.abs(2 * minor - Math.min(theirs.size.width, theirs.size.height))).toBeLessThan(0.25);
    const theirWay = ((theirs.angle + (theirs.size.width >= theirs.size.height ? 0 : 90)) * Math.PI) / 180;
    expect(Math.abs(Math.sin(turn - theirWay)) * (major - minor)).toBeLessThan(0.1);
  });
});

describe('straight sides', () => {
  it('are the lines that OpenCV fits to their borders', () => {
    const { picture, mmPerPx } = scanScene(straightScene, { dpi: 200, tiltDegrees: 3.3, seed: 6 });
    const { pieces, threshold } = tracePicture(picture, mmPerPx, plainTraceSettings);
    const borders = contoursAt(picture, levelOf(threshold), 50).contours.flatMap(({ points }) => pairsOf(points));
    let sides = 0;
    for (const { outer } of pieces) {
      let from = outer.start;
      for (const { kind, to } of outer.segments) {
        const [a, b] = [from, to];
        from = to;
        const size = distance(a, b);
        if (kind !== 'line' || size < 60) continue;
        const [ux, uy] = [(b.x - a.x) / size, (b.y - a.y) / size];
        const along = (p: Point): number => (p.x - a.x) * ux + (p.y - a.y) * uy;
        const across = (p: Point): number => (p.y - a.y) * ux - (p.x - a.x) * uy;
        const near = borders.filter((p) => Math.abs(across(p)) < 1.5 && along(p) > 8 && along(p) < size - 8);
        const [vx, vy, x, y] = lent((own) => {
          const line = own(new cv.Mat());
          cv.fitLine(own(pointsMat(near)), line, cv.DIST_L2, 0, 0.001, 0.001);
          return Array.from(line.data32F) as [number, number, number, number];
        });
        sides++;
        expect(Math.abs(ux * vy - uy * vx)).toBeLessThan(0.0012);
        expect(Math.abs(across({ x, y }))).toBeLessThan(0.05);
      }
    }
    expect(sides).toBeGreaterThan(6);
  });
});

describe('hulls and chords', () => {
  it('a convex hull is that of OpenCV', () => {
    const random = randomFrom(3);
    for (let round = 0; round < 20; round++) {
      const points = Array.from({ length: 60 }, () => ({ x: Math.round(200 * random()), y: Math.round(150 * random()) }));
      const theirs = lent((own) => {
        const hull = own(new cv.Mat());
        cv.convexHull(own(pointsMat(points)), hull);
        return Array.from({ length: hull.rows }, (_, k) => `${hull.data32F[2 * k]} ${hull.data32F[2 * k + 1]}`).sort();
      });
      expect(convexHull(points).map(({ x, y }) => `${x} ${y}`).sort()).toEqual(theirs); // biome-ignore format: one line
    }
  });

  it.each([0.5, 1, 2, 4])('chords within %f pixels are about as few as OpenCV’s (Douglas & Peucker 1973)', (tolerance) => {
    const { contours } = contoursAt(blobs(31, 260, 200), 127.5, 60);
    let [ours, theirs] = [0, 0];
    for (const { points } of contours) {
      ours += chordsAlong(points, tolerance).segments.length;
      theirs += lent((own) => {
        const out = own(new cv.Mat());
        cv.approxPolyDP(own(pointsMat(pairsOf(points))), out, tolerance, true);
        return out.rows;
      });
    }
    expect(contours.length).toBeGreaterThan(8);
    // Both start from the two places farthest apart, theirs found in three rounds.
    expect(ours).toBeLessThanOrEqual(1.06 * theirs + 3);
    expect(ours).toBeGreaterThanOrEqual(0.94 * theirs - 3);
  });
});

describe('colours', () => {
  it('are those of CIELAB in OpenCV, within its single floats and its own figures of white', () => {
    const random = randomFrom(12);
    const colours = Array.from({ length: 300 }, () => [0, 1, 2].map(() => Math.floor(256 * random())) as [number, number, number]);
    const theirs = lent((own) => {
      const to = own(new cv.Mat());
      cv.cvtColor(own(cv.matFromArray(300, 1, cv.CV_32FC3, colours.flat().map((v) => v / 255))), to, cv.COLOR_RGB2Lab); // biome-ignore format: one call
      return Float32Array.from(to.data32F);
    });
    for (const [k, rgb] of colours.entries())
      for (const [c, v] of labOf(rgb).entries()) expect(Math.abs(v - (theirs[3 * k + c] as number))).toBeLessThan(0.6);
  });
});

describe('mirror axes', () => {
  it('are principal axes of the outline’s moments, through its centre of mass', () => {
    const random = randomFrom(17);
    for (let round = 0; round < 12; round++) {
      const angle = Math.PI * random();
      const half = [0, 1, 2, 3, 4].map((k) => ({ along: 60 - 28 * k + 6 * random(), off: k === 0 || k === 4 ? 0 : 14 + 16 * random() }));
      const both = [...half.map(({ along, off }) => [along, off]), ...half.slice(1, -1).reverse().map(({ along, off }) => [along, -off])]; // biome-ignore format: one line
      const corners = both.map(([u = 0, v = 0]) => ({
        x: 100 + u * Math.cos(angle) - v * Math.sin(angle),
        y: 90 + u * Math.sin(angle) + v * Math.cos(angle),
      }));
      const mirror = symmetriesOf({ outer: polygonPath(corners.reverse()), holes: [] }, 0.3).find((s) => s.kind === 'mirror');
      if (mirror?.kind !== 'mirror') throw new Error('no axis was found');
      const m = lent((own) => cv.moments(own(pointsMat(corners))));
      const centre = { x: m.m10 / m.m00, y: m.m01 / m.m00 };
      const [ux, uy] = [Math.cos(mirror.angle), Math.sin(mirror.angle)];
      expect(Math.abs((centre.y - mirror.at.y) * ux - (centre.x - mirror.at.x) * uy)).toBeLessThan(0.01);
      // Square to the axis nothing is left of the mixed moment.
      const mixed = ux * uy * (m.mu20 - m.mu02) + m.mu11 * (uy * uy - ux * ux);
      expect(Math.abs(mixed) / (m.mu20 + m.mu02)).toBeLessThan(1e-3);
    }
  });
});
