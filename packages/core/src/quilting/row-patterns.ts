/**
 * Patterns of lines that run on from edge to edge, drawn for Nuvet: one repeat each, from the left to the right, in shares of the repeat's
 * width and the row's height. A repeat ends at the height that it starts at, so that the next one joins on.
 */
import { type Path, stretch, transformedPath } from '../plane/index.ts';
import { type DrawnPoint, pathThrough } from '../shape/index.ts';
import { along, round, through } from './pattern-points.ts';

interface RowPattern {
  readonly word: string;
  /** How high a row is for its repeat's width where nothing else is asked for. */
  readonly heightShare: number;
  readonly points: readonly DrawnPoint[];
}

export const rowPatterns = {
  'river-wave': { word: 'River wave', heightShare: 0.5, points: along(16, (t) => ({ x: t, y: 0.5 + 0.46 * Math.sin(round * t) })) },
  ripples: { word: 'Ripples', heightShare: 0.4, points: along(32, (t) => ({ x: t, y: 0.5 + (0.28 + 0.18 * Math.cos(round * t)) * Math.sin(2 * round * t) })) },
  loops: { word: 'Loops', heightShare: 0.6, points: along(28, (t) => ({ x: t - 0.24 * Math.sin(round * t), y: 0.5 - 0.46 * Math.cos(round * t) })) },
  'loops-both-ways': { word: 'Loops both ways', heightShare: 0.5, points: along(48, (t) => ({ x: t - 0.14 * Math.sin(2 * round * t), y: 0.5 + (t < 0.5 ? 1 : -1) * 0.24 * (1 - Math.cos(2 * round * t)) })) },
  scallops: { word: 'Scallops', heightShare: 0.5, points: through([0, 0.05, 'corner'], [0.15, 0.72], [0.5, 0.97], [0.85, 0.72], [1, 0.05, 'corner']) },
  'double-scallops': { word: 'Double scallops', heightShare: 0.6, points: through([0, 0.05, 'corner'], [0.15, 0.72], [0.5, 0.97], [0.85, 0.72], [1, 0.05, 'corner'], [0.78, 0.5], [0.5, 0.64], [0.22, 0.5], [0, 0.05, 'corner'], [1, 0.05, 'corner']) },
  zigzag: { word: 'Zigzag', heightShare: 0.5, points: through([0, 0.05, 'corner'], [0.5, 0.95, 'corner'], [1, 0.05, 'corner']) },
  steps: { word: 'Steps', heightShare: 0.6, points: through([0, 0.05, 'corner'], [0.25, 0.05, 'corner'], [0.25, 0.95, 'corner'], [0.75, 0.95, 'corner'], [0.75, 0.35, 'corner'], [0.5, 0.35, 'corner'], [0.5, 0.65, 'corner'], [0.6, 0.65, 'corner'], [0.6, 0.5, 'corner'], [0.75, 0.5, 'corner'], [0.75, 0.05, 'corner'], [1, 0.05, 'corner']) },
  reeds: { word: 'Reeds', heightShare: 1, points: through([0, 0.04, 'corner'], [0.1, 0.5], [0.25, 0.96, 'corner'], [0.36, 0.5], [0.3, 0.04, 'corner'], [0.44, 0.4], [0.6, 0.75, 'corner'], [0.66, 0.4], [0.6, 0.04, 'corner'], [0.8, 0.3], [0.92, 0.5, 'corner'], [0.96, 0.3], [1, 0.04, 'corner']) },
  'leaf-vine': { word: 'Leaf vine', heightShare: 0.6, points: through([0, 0.5], [0.2, 0.62], [0.34, 0.62, 'corner'], [0.28, 0.84], [0.4, 0.98, 'corner'], [0.47, 0.8], [0.34, 0.62, 'corner'], [0.5, 0.5], [0.7, 0.38], [0.84, 0.38, 'corner'], [0.78, 0.16], [0.9, 0.02, 'corner'], [0.97, 0.2], [0.84, 0.38, 'corner'], [1, 0.5]) },
  feather: { word: 'Heron feather', heightShare: 0.6, points: through([0, 0.08, 'corner'], [0.02, 0.55], [0.13, 0.94], [0.26, 0.86], [0.25, 0.08, 'corner'], [0.27, 0.55], [0.38, 0.94], [0.51, 0.86], [0.5, 0.08, 'corner'], [0.52, 0.55], [0.63, 0.94], [0.76, 0.86], [0.75, 0.08, 'corner'], [0.77, 0.55], [0.88, 0.94], [1.01, 0.86], [1, 0.08, 'corner']) },
  'breaking-wave': { word: 'Breaking wave', heightShare: 0.6, points: through([0, 0.1], [0.2, 0.2], [0.35, 0.55], [0.5, 0.86], [0.72, 0.9], [0.84, 0.7], [0.76, 0.5], [0.63, 0.52], [0.6, 0.64], [0.68, 0.7], [0.75, 0.62, 'corner'], [0.62, 0.62], [0.56, 0.4], [0.72, 0.16], [1, 0.1]) },
  bells: { word: 'Ferry bells', heightShare: 0.8, points: through([0, 0.2, 'corner'], [0.12, 0.2, 'corner'], [0.28, 0.45], [0.36, 0.8], [0.5, 0.96], [0.64, 0.8], [0.72, 0.45], [0.88, 0.2, 'corner'], [0.58, 0.2, 'corner'], [0.5, 0.05], [0.42, 0.2, 'corner'], [0.12, 0.2, 'corner'], [1, 0.2, 'corner']) },
  lanterns: { word: 'Lanterns', heightShare: 0.8, points: through([0, 0.5, 'corner'], [0.22, 0.5, 'corner'], [0.28, 0.8], [0.5, 0.95], [0.72, 0.8], [0.78, 0.5, 'corner'], [0.72, 0.2], [0.5, 0.05], [0.28, 0.2], [0.22, 0.5, 'corner'], [0.5, 0.62], [0.78, 0.5, 'corner'], [1, 0.5, 'corner']) },
  knots: { word: 'Rope knots', heightShare: 0.5, points: along(40, (t) => ({ x: t + 0.16 * Math.sin(2 * round * t), y: 0.5 + 0.45 * Math.sin(round * t) * Math.cos(0.5 * round * t) * 1.25 })) },
  petals: { word: 'Petals', heightShare: 0.7, points: through([0, 0.06, 'corner'], [0.06, 0.5], [0.24, 0.9], [0.42, 0.86], [0.5, 0.62, 'corner'], [0.58, 0.86], [0.76, 0.9], [0.94, 0.5], [1, 0.06, 'corner']) },
  teeth: { word: 'Mill teeth', heightShare: 0.4, points: through([0, 0.1, 'corner'], [0.3, 0.1, 'corner'], [0.38, 0.9, 'corner'], [0.62, 0.9, 'corner'], [0.7, 0.1, 'corner'], [1, 0.1, 'corner']) },
} as const satisfies Record<string, RowPattern>; // biome-ignore format: a line a pattern

export type RowPatternName = keyof typeof rowPatterns;
export const rowPatternNames = Object.keys(rowPatterns) as [RowPatternName, ...RowPatternName[]];

/** One repeat at its size, mm. */
export function repeatOf(name: RowPatternName, widthMm: number, heightMm: number): Path {
  const path = pathThrough([...rowPatterns[name].points], false) as Path;
  return transformedPath(path, stretch(widthMm, heightMm));
}
