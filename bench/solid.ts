/** Solids: from an edit to the body, beside the plain extrusion of a general-purpose library in the same run. */
import type { Piece } from '@nuvet/core/job';
import { type Path, type Point, polygonOf, polygonPath } from '@nuvet/core/plane';
import { loadSolids, openEdges, plainBody, plainSolid, type SolidSettings, sizeOf, solidPlan } from '@nuvet/core/solid';
import { finished } from '@nuvet/core/steps';
import { randomFrom } from '@nuvet/truth';
import { ExtrudeGeometry, Shape, Vector2 } from 'three';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);
const piece = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });
const timed = <T>(work: () => T): { ms: number; value: T } => {
  const start = performance.now();
  const value = work();
  return { ms: performance.now() - start, value };
};

export async function measureSolids(): Promise<void> {
  await loadSolids();
  measureStar();
  measureMaze();
}

/** Six arms with a slot in each, all edges rounded. */
function measureStar(): void {
  const settings: SolidSettings = { ...plainSolid, body: { ...plainBody, toMm: 6, top: { kind: 'round', sizeMm: 2 }, bottom: { kind: 'round', sizeMm: 2 } } }; // biome-ignore format: one line
  const arms = (k: number): Point[] => {
    const at = (r: number, turn: number): Point => ({
      x: r * Math.cos((k * Math.PI) / 3 + turn),
      y: r * Math.sin((k * Math.PI) / 3 + turn),
    });
    return [at(18, -0.35), at(50, -0.08), at(44, -0.045), at(44, 0.045), at(50, 0.08), at(18, 0.35)];
  };
  const star = polygonPath([0, 1, 2, 3, 4, 5].flatMap(arms));
  timed(() => finished(solidPlan([piece('star', star)], settings)));
  const made = timed(() => finished(solidPlan([piece('star', star)], settings)));
  const plain = timed(() => new ExtrudeGeometry(new Shape(polygonOf(star, 0.02).map(({ x, y }) => new Vector2(x, y))), { depth: 2, bevelThickness: 2, bevelSize: 2, bevelOffset: -2, bevelSegments: 24 })); // biome-ignore format: one line
  const [part] = made.value.parts;
  line('solid: star with rounded edges, 500 ms wanted', `${made.ms.toFixed(0)} ms, ${part ? part.mesh.triangles.length / 3 : 0} triangles, ${part ? openEdges(part.mesh) : -1} open edges; plain extrusion ${plain.ms.toFixed(0)} ms, ratio ${(made.ms / plain.ms).toFixed(1)}`); // biome-ignore format: one line
}

/** Walls along the lines of a grid, so many of them, on a base. */
function measureMaze(): void {
  const random = randomFrom(7);
  const side = 36;
  const walls: Piece[] = [];
  for (let k = 0; walls.length < 2000 && k < 40_000; k++) {
    const [x, y, isUpright] = [Math.floor(side * random()), Math.floor(side * random()), random() < 0.5];
    const id = `${x} ${y} ${isUpright}`;
    if (walls.some((wall) => wall.id === id)) continue;
    const start = { x: 10 * x, y: 10 * y };
    walls.push(piece(id, { start, segments: [{ kind: 'line', to: isUpright ? { x: start.x, y: start.y + 10 } : { x: start.x + 10, y: start.y } }], closed: false })); // biome-ignore format: one line
  }
  const settings: SolidSettings = { ...plainSolid, lines: { widthMm: 1.2, fromMm: 0, toMm: 10, how: 'join' }, base: { marginMm: 4, thicknessMm: 2, cornerMm: 4, holeMm: null } }; // biome-ignore format: one line
  const made = timed(() => finished(solidPlan(walls, settings)));
  const [part] = made.value.parts;
  line('solid: maze of 2,000 walls, 2,000 ms wanted', `${made.ms.toFixed(0)} ms, ${walls.length} walls, ${part ? part.mesh.triangles.length / 3 : 0} triangles, ${part ? openEdges(part.mesh) : -1} open edges, ${part ? (sizeOf(part.mesh).volumeMm3 / 1000).toFixed(1) : 0} ml`); // biome-ignore format: one line
}
