/** In: a job's outlines and the settings of a wing panel. Out: the cut of the panel and of its mirror image, its block and its mass. */
import type { Piece } from '../job/schema.ts';
import { type Message, SaidError, say } from '../messages/index.ts';
import { type Point, pathArea, pathBox, polygonOf, polygonPath } from '../plane/index.ts';
import { type Airfoil, airfoilThrough, nacaAirfoil } from './airfoil.ts';
import { readAirfoil } from './airfoil-text.ts';
import { burnFrom } from './burn.ts';
import { type WingCut, wingCut } from './wing-cut.ts';
import { coreOf, type WingPanel } from './wing-panel.ts';
import type { WingSection, WingSettings } from './wing-settings.ts';

export interface WingPlan {
  readonly panel: WingPanel;
  readonly cut: WingCut;
  /** The other panel of a pair: cut from its other side. */
  readonly mirrored: WingCut | null;
  readonly betweenMm: number;
  readonly toFoamMm: number;
  /** The block that the wire needs, along the chord, up and along the span. */
  readonly block: { readonly lengthMm: number; readonly heightMm: number; readonly spanMm: number };
  readonly massG: number;
  readonly notes: readonly WingNote[];
}
export type WingNote = Message & { readonly pieceId: string; readonly isFailure: boolean };

/** How far behind the core the wire comes in, and what of the block stays around it, mm. */
const leadMm = 20;
const aroundMm = 10;

/** @throws SaidError where a section is none, or the foam does not lie between the towers */
export function wingPlan(pieces: readonly Piece[], settings: WingSettings): WingPlan {
  const root = sectionOf(settings.root, pieces);
  const tip = settings.tip ? sectionOf(settings.tip, pieces) : root;
  const { rootChordMm, tipChordMm, spanMm, sweepMm, riseMm, washout, skinMm, leadingMm, trailingMm, spars, betweenMm, feedMmPerMin, fastestMmPerMin } = settings; // biome-ignore format: one line
  const panel: WingPanel = { root, tip, rootChordMm, tipChordMm, spanMm, sweepMm, riseMm, washout, skinMm, leadingMm, trailingMm, spars };
  const toFoamMm = settings.toFoamMm ?? Math.max(0, (betweenMm - spanMm) / 2);
  const cutBy = (isTipLeft: boolean): WingCut => wingCut(panel, { burn: burnFrom(settings.burn), feedMmPerMin, fastestMmPerMin, leadMm, betweenMm, toFoamMm, isTipLeft }); // biome-ignore format: one line
  const cut = cutBy(settings.isTipLeft);
  const faces = [coreOf(cut.faces.root), coreOf(cut.faces.tip)];
  const all = faces.flat();
  const reach = (of: (p: Point) => number): number => Math.max(...all.map(of)) - Math.min(...all.map(of));
  const [rootArea, tipArea] = faces.map((points) => Math.abs(pathArea(polygonPath(points)))) as [number, number];
  // A ruled body between two sections that are alike: the prismoid by its ends' areas.
  const volumeMm3 = (spanMm / 3) * (rootArea + tipArea + Math.sqrt(rootArea * tipArea));
  const slowed = cut.feedMmPerMin < feedMmPerMin * 0.995;
  return {
    panel,
    cut,
    mirrored: settings.isPair ? cutBy(!settings.isTipLeft) : null,
    betweenMm,
    toFoamMm,
    block: { lengthMm: reach(({ x }) => x) + 2 * aroundMm, heightMm: reach(({ y }) => y) + 2 * aroundMm, spanMm },
    massG: (volumeMm3 * settings.density) / 1e6,
    notes: [
      ...(settings.burn.length === 0 ? [noteOf(say.foam.noBurn())] : []),
      ...(slowed ? [noteOf(say.foam.slowedForTowers(Math.round(cut.feedMmPerMin)))] : []),
    ],
  };
}

const noteOf = (message: Message): WingNote => ({ ...message, pieceId: '', isFailure: false });

/** Chords of a traced section leave it by at most this share of its chord. */
const chordShare = 2e-4;

/** @throws SaidError */
function sectionOf(section: WingSection, pieces: readonly Piece[]): Airfoil {
  if (section.kind === 'naca') return nacaAirfoil(section.digits.replace(/^\s*naca\s*/i, '').trim());
  if (section.kind === 'coordinates') return readAirfoil(section.text, section.name);
  const piece = pieces.find(({ id }) => id === section.pieceId);
  if (!piece?.outer.closed) throw new SaidError(say.foam.noSectionOutline());
  const { minX, maxX } = pathBox(piece.outer);
  const points = polygonOf(piece.outer, chordShare * (maxX - minX));
  // From the trailing edge, the place farthest to the right, once round over the upper side.
  const last = points.reduce((best, p, k) => (p.x > (points[best] as Point).x ? k : best), 0);
  const round = [...points.slice(last), ...points.slice(0, last), points[last] as Point];
  return airfoilThrough(piece.name.slice(0, 60), round);
}
