/**
 * Die lines read from scans, held against the drawing that they were made from: every panel, how the panels hang together, sizes.
 */
import { type Panel, panelSize, panelsOf } from '@nuvet/core/folding';
import type { Piece } from '@nuvet/core/job';
import { type Path, type Point, transformedPath } from '@nuvet/core/plane';
import type { ColourPicture, GreyPicture } from '@nuvet/core/raster';
import { plainTraceSettings, type Trace, traceColours, tracePicture } from '@nuvet/core/trace';
import type { Carton, CartonScan } from '@nuvet/truth';

const toleranceMm = 0.05;

export interface FoldedCarton {
  /** Whether there are as many panels and creases between them as were drawn, each where it was drawn. */
  readonly isWhole: boolean;
  /** By how much the worst panel is too large or too small, mm. */
  readonly worstMm: number;
}

export function foldedCarton({ carton, colours, picture, mmPerPx, toSheet }: CartonScan): FoldedCarton {
  const settings = { ...plainTraceSettings, take: 'line-middle' as const, toleranceMm };
  const trace = colours
    ? traceColours(picture as ColourPicture, mmPerPx, { ...settings, colours: colours.map((hex) => ({ hex })) })
    : tracePicture(picture as GreyPicture, mmPerPx, settings);
  return comparedWith(
    carton,
    piecesOf(trace, (path) => transformedPath(path, toSheet)),
  );
}

/** As a job has them: dashes and what has the second colour are creases. */
function piecesOf({ pieces }: Trace, placed: (path: Path) => Path): Piece[] {
  return pieces.map(({ outer, holes, isDashed, colour }, k) =>
    piece(k, placed(outer), colour === 1 || isDashed ? 'score' : 'cut', holes.map(placed)),
  );
}

const piece = (k: number, outer: Path, purpose: Piece['purpose'], holes: Path[] = []): Piece => ({
  id: `piece-${k}`,
  name: `Piece ${k}`,
  purpose,
  leftOut: false,
  runsOff: false,
  outer,
  holes,
});

/** The panels of a carton as it was drawn. */
export const panelsDrawn = ({ contour, slits, creases }: Carton) =>
  panelsOf([...[contour, ...slits].map((path, k) => piece(k, path, 'cut')), ...creases.map((path, k) => piece(100 + k, path, 'score'))]);

function comparedWith(carton: Carton, pieces: readonly Piece[]): FoldedCarton {
  const drawn = panelsDrawn(carton);
  const found = panelsOf(pieces);
  const left = new Map(found.panels.map((panel, k) => [k, panel]));
  let worstMm = 0;
  const matches = drawn.panels.map((panel) => {
    const middle = centroid(panel);
    const [match] = [...left].map(([k, other]) => ({ k, away: apart(centroid(other), middle) })).sort((a, b) => a.away - b.away);
    if (!match || match.away > 1.5) return -1;
    left.delete(match.k);
    worstMm = Math.max(worstMm, difference(carton, panel, found.panels[match.k] as Panel));
    return match.k;
  });
  const pair = (a: number, b: number): string => [a, b].sort((p, q) => p - q).join(' ');
  const hinges = new Set(found.hinges.map(({ left: a, right: b }) => pair(a, b)));
  const hangTogether = drawn.hinges.every(({ left: a, right: b }) => hinges.has(pair(matches[a] as number, matches[b] as number)));
  const isWhole = left.size === 0 && !matches.includes(-1) && found.hinges.length === drawn.hinges.length && hangTogether;
  return { isWhole, worstMm };
}

/** Of panels with straight sides as a box is measured; of bowed ones over all. */
function difference({ kind }: Carton, a: Panel, b: Panel): number {
  const worst = (p: readonly [number, number], q: readonly [number, number]) => Math.max(Math.abs(p[0] - q[0]), Math.abs(p[1] - q[1]));
  if (kind === 'pillow') return worst(overall(a), overall(b));
  const [p, q] = [panelSize(a), panelSize(b)];
  return Math.min(worst([p.alongMm, p.acrossMm], [q.alongMm, q.acrossMm]), worst([p.alongMm, p.acrossMm], [q.acrossMm, q.alongMm]));
}

function overall({ sides }: Panel): [number, number] {
  const [xs, ys] = [sides.map((s) => s.from.x), sides.map((s) => s.from.y)];
  return [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
}

const apart = (p: Point, q: Point): number => Math.hypot(p.x - q.x, p.y - q.y);

function centroid({ sides }: Panel): Point {
  let [x, y, double] = [0, 0, 0];
  sides.forEach(({ from: p }, k) => {
    const q = (sides[(k + 1) % sides.length] as Panel['sides'][0]).from;
    const cross = p.x * q.y - q.x * p.y;
    double += cross;
    x += ((p.x + q.x) * cross) / 3;
    y += ((p.y + q.y) * cross) / 3;
  });
  return { x: x / double, y: y / double };
}
