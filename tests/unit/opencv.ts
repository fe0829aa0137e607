/**
 * OpenCV (@techstark/opencv-js) as a reference: loaded once, its matrices let go at the end of a test.
 */
import { createRequire } from 'node:module';

export interface Mat {
  readonly rows: number;
  readonly cols: number;
  readonly data: Uint8Array;
  readonly data32S: Int32Array;
  readonly data32F: Float32Array;
  readonly data64F: Float64Array;
  delete(): void;
}

interface MatVector {
  size(): number;
  get(index: number): Mat;
  delete(): void;
}

export interface OpenCv {
  onRuntimeInitialized: () => void;
  Mat: new () => Mat;
  MatVector: new () => MatVector;
  Size: new (width: number, height: number) => object;
  Scalar: new (...values: number[]) => object;
  matFromArray(rows: number, columns: number, type: number, data: ArrayLike<number>): Mat;
  threshold(from: Mat, to: Mat, level: number, max: number, kind: number): number;
  findContours(from: Mat, contours: MatVector, nesting: Mat, mode: number, method: number): void;
  contourArea(points: Mat): number;
  connectedComponents(from: Mat, labels: Mat, connectivity: number): number;
  distanceTransform(from: Mat, to: Mat, kind: number, mask: number): void;
  getPerspectiveTransform(from: Mat, to: Mat): Mat;
  warpPerspective(from: Mat, to: Mat, matrix: Mat, size: object, how: number, border: number, value: object): void;
  fitEllipse(points: Mat): { center: { x: number; y: number }; size: { width: number; height: number }; angle: number };
  fitLine(points: Mat, line: Mat, kind: number, param: number, reps: number, aeps: number): void;
  convexHull(points: Mat, hull: Mat): void;
  approxPolyDP(points: Mat, out: Mat, epsilon: number, closed: boolean): void;
  moments(points: Mat): Record<'m00' | 'm10' | 'm01' | 'mu20' | 'mu11' | 'mu02', number>;
  cvtColor(from: Mat, to: Mat, how: number): void;
  readonly CV_8UC1: number;
  readonly CV_32FC2: number;
  readonly CV_32FC3: number;
  readonly THRESH_BINARY: number;
  readonly THRESH_BINARY_INV: number;
  readonly THRESH_OTSU: number;
  readonly RETR_CCOMP: number;
  readonly CHAIN_APPROX_NONE: number;
  readonly DIST_L2: number;
  readonly INTER_CUBIC: number;
  readonly BORDER_CONSTANT: number;
  readonly COLOR_RGB2Lab: number;
}

/** Its module is a thenable that never settles where it is awaited: it is handed on in a box. */
export function openCv(): Promise<{ readonly cv: OpenCv }> {
  const cv: OpenCv = createRequire(import.meta.url)('@techstark/opencv-js');
  return new Promise((resolve) => {
    cv.onRuntimeInitialized = () => resolve({ cv });
  });
}

/** Does something with matrices that are let go afterwards. */
export function lent<T>(doing: (own: <M extends { delete(): void }>(mat: M) => M) => T): T {
  const all: { delete(): void }[] = [];
  try {
    return doing((mat) => {
      all.push(mat);
      return mat;
    });
  } finally {
    for (const mat of all) mat.delete();
  }
}
