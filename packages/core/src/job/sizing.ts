/**
 * In: a picture of a job. Out: its true-up fit; the same picture gives the same fit object.
 */
import { fitTrueUp, type TrueUpFit, type TrueUpMark } from '../trueup/index.ts';
import type { Picture } from './schema.ts';

const known = new WeakMap<Picture, TrueUpFit>();

/** The marks that pull: known lengths with their length typed, level and plumb lines. */
export function pullingMarks(picture: Picture): TrueUpMark[] {
  return picture.marks.flatMap((mark): TrueUpMark[] => {
    if (mark.kind === 'check') return [];
    if (mark.kind !== 'known-length') return [mark];
    return mark.mm === null ? [] : [{ kind: mark.kind, id: mark.id, a: mark.a, b: mark.b, mm: mark.mm }];
  });
}

export function fitOf(picture: Picture): TrueUpFit {
  let fit = known.get(picture);
  if (!fit) {
    fit = fitTrueUp(picture, pullingMarks(picture), picture.resolution?.dpi ?? null);
    known.set(picture, fit);
  }
  return fit;
}
