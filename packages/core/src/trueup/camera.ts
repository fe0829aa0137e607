/**
 * In: the map from a photograph to the flat sheet that it shows. Out: where the camera was: over which place of the sheet, how high, and its
 * focal length in pixels.
 * Rests on: a pinhole camera with square pixels whose axis goes through the picture's middle. Of a plane seen at a slant the focal length
 * follows from the right angle between its axes and from their one length (Zhang 2000, "A flexible new technique for camera calibration",
 * section 3.1); the pose follows from it (Hartley & Zisserman 2004, chapter 8). Seen straight from above a plane does not tell it.
 */
import { chainProjections, inverseProjection, type Projection } from '../plane/projection.ts';
import { shift } from '../plane/transform.ts';
import type { PictureSize } from './marks.ts';

export interface Camera {
  /** On the sheet, and above it, mm. */
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly focalPx: number;
  /** How far it leaves straight down, radians. */
  readonly tilt: number;
}

type Vector = readonly [number, number, number];
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const plus = (a: Vector, b: Vector, times: number): Vector => [a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2]];
const times = (a: Vector, by: number): Vector => [a[0] * by, a[1] * by, a[2] * by];
const cross = (a: Vector, b: Vector): Vector => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

/** The columns of the map from the sheet to the picture about the picture's middle. */
function columnsOf(toSheet: Projection, { widthPx, heightPx }: PictureSize): readonly [Vector, Vector, Vector] {
  const home = { ...shift(-widthPx / 2, -heightPx / 2), g: 0, h: 0, i: 1 };
  const { a, b, c, d, e, f, g, h, i } = chainProjections(home, inverseProjection(toSheet));
  return [[a, b, g], [c, d, h], [e, f, i]]; // biome-ignore format: one line
}

/** The focal length that a slant tells, pixels; null where there is none to tell it. */
export function focalFrom(toSheet: Projection, size: PictureSize): number | null {
  const [p, q] = columnsOf(toSheet, size);
  // The axes' right angle and equal length, as the two parts of one complex number: neither counts for more, however the sheet lies turned.
  const flat = [p[0] ** 2 + p[1] ** 2 - q[0] ** 2 - q[1] ** 2, 2 * (p[0] * q[0] + p[1] * q[1])] as const;
  const deep = [p[2] ** 2 - q[2] ** 2, 2 * p[2] * q[2]] as const;
  const square = -(flat[0] * deep[0] + flat[1] * deep[1]) / (deep[0] ** 2 + deep[1] ** 2);
  return square > 0 && Number.isFinite(square) ? Math.sqrt(square) : null;
}

/** The camera of a focal length, pixels. */
export function cameraOf(toSheet: Projection, size: PictureSize, focalPx: number): Camera {
  const columns = columnsOf(toSheet, size).map(([x, y, z]): Vector => [x / focalPx, y / focalPx, z]) as [Vector, Vector, Vector];
  const scale = (2 * Math.sign(columns[2][2])) / (Math.sqrt(dot(columns[0], columns[0])) + Math.sqrt(dot(columns[1], columns[1])));
  const [u, v, t] = columns.map((column) => times(column, scale)) as [Vector, Vector, Vector];
  // Each axis gives half of what the right angle lacks.
  const lack = dot(u, v) / 2;
  const [p, q] = [plus(u, v, -lack), plus(v, u, -lack)];
  const [right, up] = [times(p, 1 / Math.sqrt(dot(p, p))), times(q, 1 / Math.sqrt(dot(q, q)))];
  const normal = cross(right, up);
  return {
    x: -dot(right, t),
    y: -dot(up, t),
    z: Math.abs(dot(normal, t)),
    focalPx,
    tilt: Math.acos(Math.min(1, Math.abs(normal[2]))),
  };
}

/** The camera at a height that is known, mm; its focal length follows. */
export function cameraAt(toSheet: Projection, size: PictureSize, heightMm: number): Camera {
  let camera = cameraOf(toSheet, size, Math.max(size.widthPx, size.heightPx));
  for (let round = 0; round < 30 && Math.abs(camera.z - heightMm) > 1e-9 * heightMm; round++)
    camera = cameraOf(toSheet, size, (camera.focalPx * heightMm) / camera.z);
  return camera;
}
