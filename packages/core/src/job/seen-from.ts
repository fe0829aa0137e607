/**
 * In: a photograph of a job, and how high its camera was where that is known. Out: where the camera was, and how well that is known; which
 * pieces come from which photograph.
 */
import { type Camera, cameraAt, cameraOf, focalFrom, standardErrorOf } from '../trueup/index.ts';
import type { Job, Picture } from './schema.ts';
import { fitOf, pullingMarks } from './sizing.ts';

export interface SeenFrom {
  readonly camera: Camera;
  /** One standard error of its height, mm; null where it is typed. */
  readonly heightErrorMm: number | null;
}

/** A height that is known no better than this, as a share of it, is no height. */
const worstShare = 0.12;

/** @param typedMm the camera's height over the sheet. Null where neither that nor the picture's perspective tells it. */
export function seenFrom(picture: Picture, typedMm: number | null): SeenFrom | null {
  const { projection, model } = fitOf(picture);
  if (typedMm !== null) return { camera: cameraAt(projection, picture, typedMm), heightErrorMm: null };
  if (model !== 'perspective') return null;
  const camera = (toSheet: typeof projection): Camera | null => {
    const focal = focalFrom(toSheet, picture);
    return focal === null ? null : cameraOf(toSheet, picture, focal);
  };
  const found = camera(projection);
  if (!found) return null;
  const { pinned, quarterTurns, flipped, datum, place } = picture;
  const options = { pinned, placing: { quarterTurns, flipped, datum, place } };
  const error = standardErrorOf(picture, pullingMarks(picture), null, options, (toSheet) => camera(toSheet)?.z ?? found.z);
  return error !== null && error < worstShare * found.z ? { camera: found, heightErrorMm: error } : null;
}

/** A picture, and the pieces that were traced in it. */
export interface PhotographedPieces {
  readonly picture: Picture;
  readonly pieceIds: readonly string[];
  /** The size that its pieces are made at, against the sheet. */
  readonly scale: number;
}

export function photographedPieces({ pictures, traces, planScale }: Pick<Job, 'pictures' | 'traces' | 'planScale'>): PhotographedPieces[] {
  return traces.flatMap(({ pictureId, pieces }): PhotographedPieces[] => {
    const picture = pictures.find(({ id }) => id === pictureId);
    return picture ? [{ picture, pieceIds: pieces.map(({ id }) => id), scale: planScale?.atRealSize ? planScale.factor : 1 }] : [];
  });
}
