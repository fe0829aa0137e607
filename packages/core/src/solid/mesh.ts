/** A solid as triangles: its measures, and whether it is closed. Lengths in mm. */

export interface Mesh {
  /** x, y and z of each vertex in turn. */
  readonly positions: Float64Array;
  /** Three vertices a triangle, counter-clockwise as seen from outside. */
  readonly triangles: Uint32Array;
}

export interface MeshSize {
  readonly volumeMm3: number;
  readonly areaMm2: number;
  readonly min: readonly [number, number, number];
  readonly max: readonly [number, number, number];
  /** The middle of what it holds. */
  readonly middle: readonly [number, number, number];
}

/** Volume and its middle by the divergence theorem: the sum of the tetrahedra from one place to every triangle. */
export function sizeOf({ positions, triangles }: Mesh): MeshSize {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < positions.length; k++) {
    const axis = (k % 3) as 0 | 1 | 2;
    min[axis] = Math.min(min[axis], positions[k] as number);
    max[axis] = Math.max(max[axis], positions[k] as number);
  }
  let [volume, area] = [0, 0];
  const moment = [0, 0, 0] as [number, number, number];
  // From the box's corner, so that a small solid far from the origin keeps its digits.
  const corner = (vertex: number): [number, number, number] => [
    (positions[3 * vertex] as number) - min[0],
    (positions[3 * vertex + 1] as number) - min[1],
    (positions[3 * vertex + 2] as number) - min[2],
  ];
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [corner(triangles[k] as number), corner(triangles[k + 1] as number), corner(triangles[k + 2] as number)];
    const [u, v] = [
      [b[0] - a[0], b[1] - a[1], b[2] - a[2]],
      [c[0] - a[0], c[1] - a[1], c[2] - a[2]],
    ] as [[number, number, number], [number, number, number]];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]] as const;
    area += Math.hypot(n[0], n[1], n[2]) / 2;
    const own = (a[0] * n[0] + a[1] * n[1] + a[2] * n[2]) / 6;
    volume += own;
    for (const axis of [0, 1, 2] as const) moment[axis] += (own * (a[axis] + b[axis] + c[axis])) / 4;
  }
  const middle = moment.map((m, axis) => (volume === 0 ? 0 : m / volume) + (min[axis] as number)) as [number, number, number];
  return { volumeMm3: volume, areaMm2: area, min, max, middle };
}

/** Edges that are not there once each way: none where the mesh is closed and all its triangles face outwards. */
export function openEdges({ triangles }: Mesh): number {
  const count = new Map<number, number>();
  const vertices = 1 + triangles.reduce((most, v) => Math.max(most, v), 0);
  for (let k = 0; k < triangles.length; k += 3)
    for (let j = 0; j < 3; j++) {
      const [a, b] = [triangles[k + j] as number, triangles[k + ((j + 1) % 3)] as number];
      const [key, way] = a < b ? [a * vertices + b, 1] : [b * vertices + a, -1];
      count.set(key, (count.get(key) ?? 0) + way);
    }
  return [...count.values()].filter((n) => n !== 0).length;
}

/** Vertices less edges and faces: 2 for each solid without a hole through it, 2 less for each hole (Euler-Poincare). */
export function eulerCharacteristic({ triangles }: Mesh): number {
  const vertices = new Set(triangles).size;
  const edges = new Set<number>();
  const most = 1 + triangles.reduce((a, b) => Math.max(a, b), 0);
  for (let k = 0; k < triangles.length; k += 3)
    for (let j = 0; j < 3; j++) {
      const [a, b] = [triangles[k + j] as number, triangles[k + ((j + 1) % 3)] as number];
      edges.add(Math.min(a, b) * most + Math.max(a, b));
    }
  return vertices - edges.size + triangles.length / 3;
}
