/**
 * In: a scene on its sheet of paper. Out: a believable photograph of it, taken by hand at an angle, in grey, with the
 * projection that tells where everything really lies.
 * Rests on: a pinhole camera; chords of the outlines projected exactly; light that falls off across the table.
 */
import { bent, type Path, type Point, type Projection, polygonOf, polygonPath, project } from '@nuvet/core/plane';
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
  /** Focal length against the picture's longer side; a longer lens is farther away. A common phone's is 0.8. */
  readonly focalShare?: number;
  /** Deviation of the lens's softness, pixels. */
  readonly softnessPx?: number;
  readonly seed?: number;
  /** How much the lens bends at half the picture's diagonal, by the division model: less than 0 bulges. */
  readonly lensK?: number;
}

export interface Photo {
  readonly picture: GreyPicture;
  /** From the sheet (mm, y up) to the picture (pixels, y down). */
  readonly toPixels: Projection;
  at(p: Point): Point;
  /** Where the camera was: over which place of the sheet and how high, mm. */
  readonly camera: SpacePoint;
}

/** z above the sheet, mm. */
export interface SpacePoint extends Point {
  readonly z: number;
}

/** Something that stands or lies on the sheet, convex: upright sides over a plan, or a round bar with round ends that lies on it. */
export type StandingPart =
  | { readonly kind: 'upright'; readonly plan: readonly Point[]; readonly heightMm: number }
  | { readonly kind: 'bar'; readonly from: Point; readonly to: Point; readonly radiusMm: number };

/** Focal length against the picture's longer side: a common phone camera. */
const defaults = { leanDegrees: 70, turnDegrees: 4, fill: 0.82, focalShare: 0.8, noise: 4, softnessPx: 0.8, seed: 1, lensK: 0 };
const tones = { table: 92, paper: 226, ink: 46, print: 150, side: 40, top: 58 };

/** @param standing what lies on the sheet with a height of its own, over what is drawn on it */
export function photographScene(scene: Scene, settings: PhotoSettings, standing: readonly StandingPart[] = []): Photo {
  const settled = { ...defaults, ...settings };
  const { widthPx, heightPx, noise, softnessPx, seed } = settled;
  const { toPixels, camera, at: through } = cameraOver(scene, settled);
  const lens = { k: settled.lensK, centre: { x: widthPx / 2, y: heightPx / 2 }, radiusPx: Math.hypot(widthPx, heightPx) / 2 };
  const seen = (p: Point): Point => (lens.k === 0 ? p : bent(lens, p));
  const at = (p: SpacePoint): Point => seen(through(p));
  const pixels = keptPixels(['photo', scene.widthMm, scene.heightMm, scene.pieces, scene.print ?? [], standing, settled], () => {
    const level = new Float32Array(widthPx * heightPx).fill(tones.table);
    const lay = (paths: readonly Path[], tone: number) => {
      const coverage = coverageOf(
        paths.map((path) => polygonPath(placesOf(path, lens.k === 0 ? Infinity : bentMm).map((p) => seen(project(toPixels, p))))),
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
    const solid = (points: readonly Point[], tone: number) =>
      layTone(level, coverageOf([polygonPath(hullOf(points))], widthPx, heightPx), tone);
    // The sides first, all of them: none hides another's top.
    for (const part of standing) solid(silhouette(part, camera).map(at), tones.side);
    for (const part of standing)
      if (part.kind === 'upright')
        solid(
          part.plan.map((p) => at({ ...p, z: part.heightMm })),
          tones.top,
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
  return { picture: greyPicture(pixels, widthPx, heightPx), toPixels, at: (p) => seen(project(toPixels, p)), camera };
}

/** What a lens bends is drawn by chords no longer than this, mm. */
const bentMm = 1.5;

function placesOf(path: Path, longestMm: number): Point[] {
  const corners = polygonOf(path, 0.002);
  return corners.flatMap((p, k) => {
    const q = corners[(k + 1) % corners.length] as Point;
    const parts = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / longestMm));
    return Array.from({ length: parts }, (_, j) => ({ x: p.x + ((q.x - p.x) * j) / parts, y: p.y + ((q.y - p.y) * j) / parts }));
  });
}

function cameraOver(
  { widthMm, heightMm }: Scene,
  view: Required<Pick<PhotoSettings, 'widthPx' | 'heightPx' | 'tiltDegrees' | 'leanDegrees' | 'turnDegrees' | 'fill' | 'focalShare'>>,
): { toPixels: Projection; camera: SpacePoint; at(p: SpacePoint): Point } {
  const [tilt, lean, turn] = [view.tiltDegrees, view.leanDegrees, view.turnDegrees].map((d) => (d * Math.PI) / 180) as [
    number,
    number,
    number,
  ];
  const focal = view.focalShare * Math.max(view.widthPx, view.heightPx);
  // Turned on the table, then leaned about a line of the table: x and y stay in the picture's plane, z is depth.
  const [ct, st, cl, sl, ck, sk] = [Math.cos(turn), Math.sin(turn), Math.cos(lean), Math.sin(lean), Math.cos(tilt), Math.sin(tilt)];
  const column = (x: number, y: number) => {
    const [u, v] = [ct * x - st * y, st * x + ct * y];
    const [along, across] = [cl * u + sl * v, -sl * u + cl * v];
    return { x: cl * along * ck - sl * across, y: sl * along * ck + cl * across, z: along * sk };
  };
  const [right, up] = [column(1, 0), column(0, 1)];
  const flatAt = (depth: number): Projection => {
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
    const corners = [[0, 0], [widthMm, 0], [widthMm, heightMm], [0, heightMm]].map(([x, y]) => project(flatAt(depth), { x, y } as Point)); // biome-ignore format: one line
    const isInside = corners.every(
      (p) => Math.abs(p.x / view.widthPx - 0.5) < view.fill / 2 && Math.abs(p.y / view.heightPx - 0.5) < view.fill / 2,
    );
    if (isInside) far = depth;
    else near = depth;
  }
  // Away from the sheet, towards the camera.
  const out = { x: up.y * right.z - up.z * right.y, y: up.z * right.x - up.x * right.z, z: up.x * right.y - up.y * right.x };
  const [middleX, middleY] = [widthMm / 2, heightMm / 2];
  return {
    toPixels: flatAt(far),
    camera: { x: middleX - far * right.z, y: middleY - far * up.z, z: -far * out.z },
    at: ({ x, y, z }) => {
      const seen = (axis: 'x' | 'y' | 'z'): number => right[axis] * (x - middleX) + up[axis] * (y - middleY) + out[axis] * z;
      const depth = seen('z') + far;
      return { x: view.widthPx / 2 + (focal * seen('x')) / depth, y: view.heightPx / 2 - (focal * seen('y')) / depth };
    },
  };
}

/** Places on a part that its silhouette goes through, or lies within. */
function silhouette(part: StandingPart, camera: SpacePoint): SpacePoint[] {
  if (part.kind === 'upright') return part.plan.flatMap((p) => [{ ...p, z: 0 }, { ...p, z: part.heightMm }]); // biome-ignore format: one line
  return [part.from, part.to].flatMap((end) => rimOfBall({ ...end, z: part.radiusMm }, part.radiusMm, camera));
}

const rimPlaces = 360;

/** Where rays from the camera touch a ball: a circle. */
function rimOfBall({ x, y, z }: SpacePoint, radius: number, camera: SpacePoint): SpacePoint[] {
  const [dx, dy, dz] = [camera.x - x, camera.y - y, camera.z - z];
  const away = Math.hypot(dx, dy, dz);
  const [u, v, w] = [dx / away, dy / away, dz / away];
  const [on, wide] = [(radius * radius) / away, radius * Math.sqrt(1 - (radius / away) ** 2)];
  // Two directions square to the ray, the first level.
  const flat = Math.hypot(u, v);
  const [px, py] = flat > 1e-12 ? [-v / flat, u / flat] : [1, 0];
  const [qx, qy, qz] = [-w * py, w * px, u * py - v * px];
  return Array.from({ length: rimPlaces }, (_, k) => {
    const [c, s] = [Math.cos((2 * Math.PI * k) / rimPlaces), Math.sin((2 * Math.PI * k) / rimPlaces)];
    return { x: x + on * u + wide * (c * px + s * qx), y: y + on * v + wide * (c * py + s * qy), z: z + on * w + wide * s * qz };
  });
}

/** The convex hull, counter-clockwise (Andrew 1979). */
function hullOf(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Point[]): Point[] => {
    const kept: Point[] = [];
    for (const p of list) {
      for (let [a, b] = [kept.at(-2), kept.at(-1)]; a && b && (b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) <= 0; [a, b] = [kept.at(-2), kept.at(-1)]) kept.pop(); // biome-ignore format: one line
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}
