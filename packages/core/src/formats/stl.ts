/**
 * In: a field of heights. Out: the solid under it as binary STL: its top in triangles, walls, and a flat bottom.
 * Rests on: 3D Systems 1989, "Stereolithography Interface Specification": 80 bytes of header, a count, and 50 bytes a triangle.
 */
import type { HeightField } from '../milling/height-field.ts';

/** A solid has no more triangles along a side than this, so that it can be opened anywhere. */
const mostAlong = 600;

export function writeHeightFieldStl(field: HeightField, bottomZ: number): Uint8Array {
  const step = Math.max(1, Math.ceil(Math.max(field.columns, field.rows) / mostAlong));
  const [columns, rows] = [Math.ceil(field.columns / step) + 1, Math.ceil(field.rows / step) + 1];
  const { minX, minY, maxX, maxY } = field.box;
  const x = (c: number): number => minX + ((maxX - minX) * c) / (columns - 1);
  const y = (r: number): number => minY + ((maxY - minY) * r) / (rows - 1);
  const z = (c: number, r: number): number => {
    const [column, row] = [Math.min(field.columns - 1, c * step), Math.min(field.rows - 1, r * step)];
    return Math.max(bottomZ, field.heights[row * field.columns + column] as number);
  };
  const count = 4 * (columns - 1) * (rows - 1) + 4 * (columns - 1 + rows - 1);
  const view = new DataView(new ArrayBuffer(84 + 50 * count));
  view.setUint32(80, count, true);
  let at = 84;
  type Corner = readonly [number, number, number];
  const put = (a: Corner, b: Corner, c: Corner): void => {
    const [u, v] = [b.map((q, k) => q - (a[k] as number)), c.map((q, k) => q - (a[k] as number))] as [number[], number[]];
    const normal = [0, 1, 2].map(
      (k) => (u[(k + 1) % 3] as number) * (v[(k + 2) % 3] as number) - (u[(k + 2) % 3] as number) * (v[(k + 1) % 3] as number),
    );
    const size = Math.hypot(...normal) || 1;
    for (const value of [...normal.map((n) => n / size), ...a, ...b, ...c]) {
      view.setFloat32(at, value, true);
      at += 4;
    }
    at += 2;
  };
  for (let r = 0; r + 1 < rows; r++)
    for (let c = 0; c + 1 < columns; c++) {
      const top = [[c, r], [c + 1, r], [c + 1, r + 1], [c, r + 1]].map(([i, j]): Corner => [x(i as number), y(j as number), z(i as number, j as number)]) as [Corner, Corner, Corner, Corner]; // biome-ignore format: one line
      const low = top.map(([px, py]): Corner => [px, py, bottomZ]) as typeof top;
      put(top[0], top[1], top[2]);
      put(top[0], top[2], top[3]);
      put(low[0], low[2], low[1]);
      put(low[0], low[3], low[2]);
    }
  const wall = (a: readonly [number, number], b: readonly [number, number]): void => {
    const [p, q]: [Corner, Corner] = [[x(a[0]), y(a[1]), z(...a)], [x(b[0]), y(b[1]), z(...b)]]; // biome-ignore format: one line
    const [pl, ql]: [Corner, Corner] = [[p[0], p[1], bottomZ], [q[0], q[1], bottomZ]]; // biome-ignore format: one line
    put(p, pl, ql);
    put(p, ql, q);
  };
  for (let c = 0; c + 1 < columns; c++) {
    wall([c, 0], [c + 1, 0]);
    wall([c + 1, rows - 1], [c, rows - 1]);
  }
  for (let r = 0; r + 1 < rows; r++) {
    wall([0, r + 1], [0, r]);
    wall([columns - 1, r], [columns - 1, r + 1]);
  }
  return new Uint8Array(view.buffer);
}
