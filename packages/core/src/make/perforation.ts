/** In: a line and a perforation's cut and gap. Out: the cuts. */

import { type Path, pathLength, subPath } from '../plane/index.ts';
import type { Cutting } from './cutting.ts';

/** The parts of a line that are cut where it is perforated: evenly, what is left between just as wide as asked, an open line's ends cut. */
export function perforated(path: Path, { cutMm, leftMm }: Cutting['perforation']): Path[] {
  const length = path.closed ? pathLength(path) : pathLength(path) + leftMm;
  const count = Math.max(1, Math.round(length / (cutMm + leftMm)));
  const pitch = length / count;
  if (pitch <= leftMm) return [path];
  return Array.from({ length: count }, (_, k) => subPath(path, k * pitch, (k + 1) * pitch - leftMm));
}
