/**
 * In: a scene on its sheet of paper. Out: a believable photograph of it, taken by hand at an angle, in grey, with the
 * projection that tells where everything really lies.
 * Rests on: a pinhole camera; chords of the outlines projected exactly; light that falls off across the table.
 */
import { type Path, type Point, type Projection, polygonOf, polygonPath, project } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { coverageOf } from './coverage.ts';
import { keptPixels } from './kept-scans.ts';
import { addGrain, blur, layTone, sensed } from './optics.ts';
import { randomFrom } from './random.ts';
import type { Scene } from './scene.ts';
import { rectangle } from './shapes.ts';

export interface PhotoSettings {
  readonly widthPx: number;
  readonly heightPx: number;
  /** How far the camera leaves straight down, degrees. */
  readonly tiltDegrees: number;
  /** Towards which side of the paper it leans, degrees counter-clockwise from the paper's right. */
  readonly leanDegrees?: number;
  /** How the paper lies turned, degrees counter-clockwise. */
  readonly turnDegrees?: number;
  /** The share of the picture's width and height that the paper takes. */
  readonly fill?: number;
  readonly noise?: number;
  /** Deviation of the lens's softness, pixels. */
  readonly softnessPx?: number;
  readonly seed?: number;
}

export interface Photo {
  readonly picture: GreyPicture;
  /** From the sheet (mm, y up) to the picture (pixels, y down). */
  readonly toPixels: Projection;
  at(p: Point): Point;
}

const defaults = { leanDegrees: 70, turnDegrees: 4, fill: 0.82, noise: 4, softnessPx: 0.8, seed: 1 };
const tones = { table: 92, paper: 226, ink: 46, print: 150 };
/** Focal length against the picture's longer side: a common phone camera. */
const focalShare = 0.8;

export function photographScene(scene: Scene, settings: PhotoSettings): Photo {
  const { widthPx, heightPx, tiltDegrees, leanDegrees, turnDegrees, fill, noise, softnessPx, seed } = { ...defaults, ...settings };
  const toPixels = cameraOver(scene, { widthPx, heightPx, tiltDegrees, leanDegrees, turnDegrees, fill });
  const settled = { widthPx, heightPx, tiltDegrees, leanDegrees, turnDegrees, fill, noise, softnessPx, seed };
  const pixels = keptPixels(['photo', scene.widthMm, scene.heightMm, scene.pieces, scene.print ?? [], settled], () => {
    const level = new Float32Array(widthPx * heightPx).fill(tones.table);
    const lay = (paths: readonly Path[], tone: number) => {
      const coverage = coverageOf(
        paths.map((path) => polygonPath(polygonOf(path, 0.002).map((p) => project(toPixels, p)))),
        widthPx,
        heightPx,
      );
      layTone(level, coverage, tone);
    };
    lay([rectangle(0, 0, scene.widthMm, scene.heightMm)], tones.paper);
    if (scene.print?.length) lay(scene.print, tones.print);
    lay(
      scene.pieces.flatMap(({ outer, holes }) => [outer, ...holes]),
      tones.ink,
    );
    blur(level, widthPx, heightPx, softnessPx);
    const random = randomFrom(seed);
    addGrain(level, widthPx, heightPx, 5, 3, random);
    const across = Float64Array.from({ length: widthPx }, (_, x) => 1.04 - 0.14 * (x / widthPx));
    for (let y = 0; y < heightPx; y++) {
      const down = 0.06 * (y / heightPx);
      for (let x = 0; x < widthPx; x++) {
        level[y * widthPx + x] = (level[y * widthPx + x] as number) * ((across[x] as number) - down);
      }
    }
    return sensed(level, noise, random, seed);
  });
  return { picture: greyPicture(pixels, widthPx, heightPx), toPixels, at: (p) => project(toPixels, p) };
}

function cameraOver(
  { widthMm, heightMm }: Scene,
  view: { widthPx: number; heightPx: number; tiltDegrees: number; leanDegrees: number; turnDegrees: number; fill: number },
): Projection {
  const [tilt, lean, turn] = [view.tiltDegrees, view.leanDegrees, view.turnDegrees].map((d) => (d * Math.PI) / 180) as [
    number,
    number,
    number,
  ];
  const focal = focalShare * Math.max(view.widthPx, view.heightPx);
  // Turned on the table, then leaned about a line of the table: x and y stay in the picture's plane, z is depth.
  const [ct, st, cl, sl, ck, sk] = [Math.cos(turn), Math.sin(turn), Math.cos(lean), Math.sin(lean), Math.cos(tilt), Math.sin(tilt)];
  const column = (x: number, y: number) => {
    const [u, v] = [ct * x - st * y, st * x + ct * y];
    const [along, across] = [cl * u + sl * v, -sl * u + cl * v];
    return { x: cl * along * ck - sl * across, y: sl * along * ck + cl * across, z: along * sk };
  };
  const [right, up] = [column(1, 0), column(0, 1)];
  const at = (depth: number): Projection => {
    const [cx, cy] = [view.widthPx / 2, view.heightPx / 2];
    const home = { x: -widthMm / 2, y: -heightMm / 2 };
    const z0 = depth + right.z * home.x + up.z * home.y;
    const x0 = right.x * home.x + up.x * home.y;
    const y0 = right.y * home.x + up.y * home.y;
    return {
      a: focal * right.x + cx * right.z, c: focal * up.x + cx * up.z, e: focal * x0 + cx * z0,
      b: -focal * right.y + cy * right.z, d: -focal * up.y + cy * up.z, f: -focal * y0 + cy * z0,
      g: right.z, h: up.z, i: z0,
    }; // biome-ignore format: a row of the matrix a line
  };
  // As near as the paper fits into its share of the picture.
  let [near, far] = [0.2 * Math.max(widthMm, heightMm), 60 * Math.max(widthMm, heightMm)];
  for (let k = 0; k < 60; k++) {
    const depth = (near + far) / 2;
    const corners = [[0, 0], [widthMm, 0], [widthMm, heightMm], [0, heightMm]].map(([x, y]) => project(at(depth), { x, y } as Point)); // biome-ignore format: one line
    const isInside = corners.every(
      (p) => Math.abs(p.x / view.widthPx - 0.5) < view.fill / 2 && Math.abs(p.y / view.heightPx - 0.5) < view.fill / 2,
    );
    if (isInside) far = depth;
    else near = depth;
  }
  return at(far);
}
