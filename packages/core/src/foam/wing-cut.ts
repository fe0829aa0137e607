/**
 * In: a wing panel, the foam's burn, and the machine. Out: the faces of its core, the wire's path, and the towers': all slowed down so that
 * neither tower goes faster than it can.
 */
import type { Burn } from './burn.ts';
import { fastestTower, type TowerPlace, type TowerSetUp, towerPath } from './towers.ts';
import { type CoreFace, coreFaces, type WingPanel } from './wing-panel.ts';
import { type WirePlace, wirePath } from './wire-path.ts';

export interface WingCutSettings extends Omit<TowerSetUp, 'spanMm'> {
  readonly burn: Burn;
  /** Of the faster face. */
  readonly feedMmPerMin: number;
  readonly fastestMmPerMin: number;
  readonly leadMm: number;
}

export interface WingCut {
  readonly faces: { readonly root: CoreFace; readonly tip: CoreFace };
  readonly wire: readonly WirePlace[];
  readonly towers: readonly TowerPlace[];
  /** As it was asked for, or slower. */
  readonly feedMmPerMin: number;
  readonly minutes: number;
}

/** Rounds in which the feed is brought down: slower wire burns wider, and goes round a little farther out. */
const rounds = 16;
/** By so much a feed is brought down further than it need be, as a share, so that it settles. */
const slack = 0.002;

/** @throws CoreError, TowerError */
export function wingCut(panel: WingPanel, settings: WingCutSettings): WingCut {
  const faces = coreFaces(panel);
  let feedMmPerMin = settings.feedMmPerMin;
  for (let round = 0; ; round++) {
    const wire = wirePath(faces, { burn: settings.burn, feedMmPerMin, leadMm: settings.leadMm });
    const towers = towerPath(wire, { ...settings, spanMm: panel.spanMm });
    const over = fastestTower(towers) / settings.fastestMmPerMin;
    if (over <= 1 || round === rounds) return { faces, wire, towers, feedMmPerMin, minutes: towers.reduce((sum, { minutes }) => sum + minutes, 0) }; // biome-ignore format: one line
    feedMmPerMin /= over * (1 + slack);
  }
}
