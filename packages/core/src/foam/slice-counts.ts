/**
 * In: a body. Out: how thin is thin enough: for several numbers of slices how thick they are, the largest step that each leaves to sand, and the
 * foam that their larger faces take.
 * Sections are read once, close together; a slice's faces are the most and the least that those within it reach, direction by direction.
 */
import { pathArea } from '../plane/index.ts';
import type { Body } from './body.ts';
import { reaches, sectionOutline } from './body-section.ts';

export interface SliceCount {
  readonly slices: number;
  readonly thicknessMm: number;
  readonly stepMm: number;
  readonly foamMm3: number;
}

const counts = [2, 3, 4, 5, 6, 8, 10, 12, 15, 18, 22, 27, 33, 40, 50, 60, 80, 100];
/** Stations that are read, and directions in which they are compared. */
const stations = 400;
const directions = 48;

export function sliceCounts(body: Body): SliceCount[] {
  const read = Array.from({ length: stations + 1 }, (_, k) => body.section((body.lengthMm * k) / stations));
  const each = read.map((section) => section && { own: reaches(section, directions), area: pathArea(sectionOutline(section)) });
  return counts.map((slices) => {
    const thicknessMm = body.lengthMm / slices;
    let [stepMm, foamMm3] = [0, 0];
    for (let n = 0; n < slices; n++) {
      const [from, to] = [Math.round((stations * n) / slices), Math.round((stations * (n + 1)) / slices)];
      const within = each.slice(from, to + 1).flatMap((one) => one ?? []);
      if (within.length === 0) continue;
      for (let k = 0; k < directions; k++) {
        let [most, least] = [-Infinity, Infinity];
        for (const { own } of within) {
          most = Math.max(most, own[k] as number);
          least = Math.min(least, own[k] as number);
        }
        stepMm = Math.max(stepMm, most - least);
      }
      foamMm3 += thicknessMm * Math.max(...within.map(({ area }) => area));
    }
    return { slices, thicknessMm, stepMm, foamMm3 };
  });
}
