/**
 * A small drawing of a job's outlines, for the list of jobs where there is no picture to show.
 */
import { type Job, keptPieces, overallBox, pathsOf } from '@nuvet/core/job';
import { outlineData, placeIn } from '../shared/outline-data.ts';
import { colours } from '../ui/colours.ts';

const [widthPx, heightPx, marginPx] = [320, 240, 12];

/** @returns an SVG drawing; empty where the job has no outlines */
export function jobDrawing(job: Job): string {
  const pieces = keptPieces(job);
  const box = overallBox(pieces);
  if (!box) return drawingOf([]);
  const place = placeIn(box, widthPx, heightPx, marginPx);
  const paths = pieces.map((piece) => {
    const data = outlineData(pathsOf(piece), box, place);
    return `<path d="${data}" fill="${piece.outer.closed ? colours.verdigris : 'none'}" fill-opacity="0.16" fill-rule="evenodd" stroke="${colours.verdigris}" stroke-width="1.4" stroke-linejoin="round"/>`;
  });
  return drawingOf(paths);
}

const drawingOf = (paths: readonly string[]): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${widthPx} ${heightPx}">${paths.join('')}</svg>`;
