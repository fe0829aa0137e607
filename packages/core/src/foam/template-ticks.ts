/**
 * In: the wire's path at both faces. Out: ticks across each face's outline at equal travel times, so that two pairs of hands that follow one
 * template each are at the same tick together. Every fifth is longer.
 */
import { distance, type Path, type Point, subtract, unitVector } from '../plane/index.ts';
import type { WirePlace } from './wire-path.ts';

const shortMm = 3;
const longMm = 6;

/** @param count of ticks in all, from where the wire comes to the core */
export function templateTicks(wire: readonly WirePlace[], face: 'root' | 'tip', count: number): Path[] {
  // Without the ways in and out.
  const round = wire.slice(1, -1);
  const all = round.slice(1).reduce((sum, { minutes }) => sum + minutes, 0);
  const made: Path[] = [];
  let [gone, k] = [0, 1];
  for (let n = 0; n < count; n++) {
    const wanted = (all * n) / count;
    while (k < round.length - 1 && gone + (round[k] as WirePlace).minutes < wanted) gone += (round[k++] as WirePlace).minutes;
    const [p, q] = [(round[k - 1] as WirePlace)[face], (round[k] as WirePlace)[face]];
    if (distance(p, q) < 1e-9) continue;
    const { minutes } = round[k] as WirePlace;
    const t = minutes > 0 ? Math.min(1, Math.max(0, (wanted - gone) / minutes)) : 0;
    made.push(tick({ x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) }, unitVector(subtract(q, p)), n % 5 === 0 ? longMm : shortMm));
  }
  return made;
}

/** From the wire's way outwards. */
const tick = (at: Point, d: Point, length: number): Path => ({ start: at, segments: [{ kind: 'line', to: { x: at.x + length * d.y, y: at.y - length * d.x } }], closed: false }); // biome-ignore format: one line
