/**
 * The dozen motifs that ship with Nuvet, drawn for it: their outlines in mm, upright, y up.
 */
import { circlePath, type Path, polygonPath, reversedPath, transformedPath } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import { shift } from '../plane/transform.ts';
import { combined, unitedOutlines } from '../shape/combine.ts';
import { joinedImages, turnedImages } from '../shape/copies.ts';
import { offsetClosed } from '../shape/offset.ts';
import { plainOffset } from '../shape/raw-offset.ts';
import { type DrawnPoint, pathThrough } from '../shape/through-points.ts';

export interface Motif {
  readonly id: string;
  readonly name: string;
  readonly tags: readonly string[];
  /** At true size, mm; outer outlines counter-clockwise, holes clockwise. */
  readonly paths: readonly Path[];
}

type Corner = readonly [x: number, y: number, kind?: 'corner'];

/** A closed outline through places; smooth but where one says that it is a corner. */
function through(...places: Corner[]): Path {
  const points = places.map(([x, y, kind]): DrawnPoint => ({ at: { x, y }, corner: kind === 'corner' }));
  return pathThrough(points, true) as Path;
}

/** Half an outline from the axis x = 0 round to it again, with its mirror image; smooth over the axis, too. */
function symmetric(...places: Corner[]): Path {
  const back = places.slice(1, -1).map(([x, y, kind]): Corner => (kind ? [-x, y, kind] : [-x, y]));
  return through(...places, ...back.reverse());
}

const hole = (path: Path): Path => reversedPath(path);
const c = 'corner' as const;
const disc = (x: number, y: number, r: number): Path => circlePath({ x, y }, r);
const turned = (path: Path, count: number): Path[] => joinedImages([path], turnedImages({ x: 0, y: 0 }, count, false)).paths;
const star = (points: number, outer: number, inner: number): Path =>
  polygonPath(
    Array.from({ length: 2 * points }, (_, k): Point => {
      const angle = Math.PI / 2 + (Math.PI * k) / points;
      const r = k % 2 === 0 ? outer : inner;
      return { x: r * Math.cos(angle), y: r * Math.sin(angle) };
    }),
  );

const leaf = symmetric([0, -20, c], [9, -10], [12, 2], [6, 15], [0, 24, c]);
const petal = through([3, -2.5, c], [14, -6], [22, 0, c], [14, 6], [3, 2.5, c]);
const wave = through([-24, -4, c], [-12, 5], [0, -2], [12, 5], [24, -4, c], [24, 2, c], [12, 11], [0, 4], [-12, 11], [-24, 2, c]);
const drop = symmetric([0, -14], [9, -9], [11, -1], [0, 22, c]);
const fish = through([-26, 8, c], [-14, 3], [4, 9], [20, 0, c], [4, -9], [-14, -3], [-26, -8, c], [-21, 0, c]);
const moon = combined([disc(0, 0, 18)], [disc(8, 3, 15)], 'take-away');
const boat = through([-24, 0, c], [24, 0, c], [15, -10, c], [-15, -10, c]);
const sail = through([1.5, 3, c], [1.5, 30, c], [10, 16], [18, 3, c]);
const jib = through([-1.5, 3, c], [-1.5, 26, c], [-9, 13], [-13, 3, c]);
const bell = symmetric([0, 20], [5, 18], [8, 6], [14, -8, c], [14, -12, c], [0, -12, c]);
const heron = through(
  [-27, 33, c], [-11, 36], [-6, 36], [-3, 30], [-8, 20], [-6, 10], [4, 4], [16, -6], [25, -17, c], [10, -12],
  [3, -13, c], [4, -36, c], [1.5, -36, c], [-0.5, -12, c], [-10, -4], [-15, 9], [-12, 20], [-9, 29], [-12, 32],
); // biome-ignore format: one bird
const reed = through([-1.2, -34, c], [-1.2, 4, c], [-3.5, 8], [-3.5, 20], [0, 25], [3.5, 20], [3.5, 8], [1.2, 4, c], [1.2, -34, c]);
const lantern = [
  through([-10, 16, c], [10, 16, c], [15, 0], [10, -16, c], [-10, -16, c], [-15, 0]),
  hole(through([-6, 11, c], [6, 11, c], [9, 0], [6, -11, c], [-6, -11, c], [-9, 0])),
];
const ring = (r: number, by: number): Path[] => [disc(0, 0, r), hole(offsetClosed(disc(0, 0, r), by, plainOffset)[0] as Path)];

export const shippedMotifs: readonly Motif[] = [
  { id: 'leaf', name: 'Leaf', tags: ['plant'], paths: [leaf] },
  { id: 'flower', name: 'Five petals', tags: ['plant', 'round'], paths: [...turned(petal, 5), disc(0, 0, 2.2)] },
  { id: 'reed', name: 'Bulrush', tags: ['plant', 'river'], paths: [reed] },
  { id: 'wave', name: 'Wave', tags: ['river', 'border'], paths: [wave] },
  { id: 'drop', name: 'Drop', tags: ['river'], paths: [drop] },
  { id: 'fish', name: 'Fish', tags: ['river', 'animal'], paths: [fish, hole(disc(11, 1.5, 1.4))] },
  { id: 'heron', name: 'Standing heron', tags: ['river', 'animal'], paths: [heron] },
  { id: 'boat', name: 'Ferry boat', tags: ['river'], paths: [boat, sail, jib] },
  { id: 'moon', name: 'Moon', tags: ['sky'], paths: moon },
  { id: 'star', name: 'Eight-pointed star', tags: ['sky', 'quilting'], paths: [star(8, 20, 13)] },
  { id: 'bell', name: 'Bell', tags: ['festival'], paths: [...unitedOutlines([bell, disc(0, -13, 4)])] },
  {
    id: 'lantern',
    name: 'Lantern',
    tags: ['festival'],
    paths: [...lantern, ...ring(3.2, 1.2).map((p) => transformedPath(p, shift(0, 20)))],
  },
];
