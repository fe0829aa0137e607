/**
 * In: a job. Out: the lines on the sheet that a mirror can go by: those marked plumb or level, and those through a datum.
 */
import type { Point } from '../plane/point.ts';
import { project } from '../plane/projection.ts';
import type { Job } from './schema.ts';
import { fitOf } from './sizing.ts';

export interface KnownAxis {
  readonly id: string;
  /** What it was marked as: plumb and level lines, or the datum that it passes, upright or across. */
  readonly kind: 'plumb' | 'level' | 'datum-upright' | 'datum-across';
  /** The picture that it belongs to. */
  readonly picture: string;
  /** On the sheet, mm; upright axes run upward, others to the right. */
  readonly a: Point;
  readonly b: Point;
}

/** Lines nearer to one another than this, and turned less, are one and the same, mm and radians. */
const sameMm = 0.02;
const sameTurn = 2e-4;

export function knownAxes(job: Job): KnownAxis[] {
  const all = job.pictures.flatMap((picture) => {
    const fit = fitOf(picture);
    const marked = picture.marks.flatMap((mark): KnownAxis[] => {
      if (mark.kind !== 'plumb' && mark.kind !== 'level') return [];
      const [a, b] = mark.points.map((p) => project(fit.projection, p)) as [Point, Point];
      const isOnward = mark.kind === 'plumb' ? a.y <= b.y : a.x <= b.x;
      return [{ id: mark.id, kind: mark.kind, picture: picture.name, ...(isOnward ? { a, b } : { a: b, b: a }) }];
    });
    const { x, y } = picture.place;
    const through: KnownAxis[] = picture.datum
      ? [
          { id: `${picture.id}-upright`, kind: 'datum-upright', picture: picture.name, a: { x, y }, b: { x, y: y + 1 } },
          { id: `${picture.id}-across`, kind: 'datum-across', picture: picture.name, a: { x, y }, b: { x: x + 1, y } },
        ]
      : [];
    return [...marked, ...through];
  });
  return all.filter((axis, k) => !all.slice(0, k).some((earlier) => isSame(earlier, axis)));
}

function isSame(p: KnownAxis, q: KnownAxis): boolean {
  const [dx, dy] = [p.b.x - p.a.x, p.b.y - p.a.y];
  const [ex, ey] = [q.b.x - q.a.x, q.b.y - q.a.y];
  const [dl, el] = [Math.hypot(dx, dy), Math.hypot(ex, ey)];
  const off = Math.abs(dx * (q.a.y - p.a.y) - dy * (q.a.x - p.a.x)) / dl;
  return Math.abs(dx * ey - dy * ex) <= sameTurn * dl * el && off <= sameMm;
}
