/**
 * In: a stock's thickness and a range of widths. Out: a kerf gauge to cut from it: a comb of slots of growing width and a tab
 * to try in them; and the kerf that follows from the slot it sits in.
 */

import { type Path, type Point, polygonPath } from '../plane/index.ts';
import type { MadeOutlines } from '../proof/fault.ts';

export interface GaugeSettings {
  /** The widest and the narrowest kerf that can be read, and the steps between, mm. */
  readonly minMm: number;
  readonly maxMm: number;
  readonly stepMm: number;
  /** How wide the tab is drawn, mm. */
  readonly tabMm: number;
}

export const plainGauge: GaugeSettings = { minMm: 0, maxMm: 0.4, stepMm: 0.05, tabMm: 10 };

/**
 * A tab drawn `tabMm` wide comes out narrower by the kerf, a slot wider by it: the tab just sits in the slot drawn narrower
 * by two kerfs. Slots are drawn for each kerf in turn.
 */
export const slotsOf = ({ minMm, maxMm, stepMm, tabMm }: GaugeSettings): { kerfMm: number; widthMm: number }[] =>
  Array.from({ length: Math.max(1, Math.round((maxMm - minMm) / stepMm) + 1) }, (_, k) => {
    const kerfMm = minMm + k * stepMm;
    return { kerfMm, widthMm: tabMm - 2 * kerfMm };
  });

/** The kerf, from how wide the slot was drawn that the tab just sits in, mm. */
export const kerfRead = (tabMm: number, slotMm: number): number => (tabMm - slotMm) / 2;

const [depth, land, height] = [12, 6, 24];

/** The comb and the tab, and a tick beside each slot: one more for each step. */
export function kerfGauge(settings: GaugeSettings): MadeOutlines[] {
  const slots = slotsOf(settings);
  const right = slots.reduce((x, { widthMm }) => x + land + widthMm, 0) + land;
  const corners: Point[] = [
    { x: 0, y: 0 },
    { x: right, y: 0 },
    { x: right, y: height },
  ];
  const ticks: Path[] = [];
  let x = right;
  for (const [k, { widthMm }] of [...slots.entries()].reverse()) {
    x -= land;
    corners.push({ x, y: height }, { x, y: height - depth }, { x: x - widthMm, y: height - depth }, { x: x - widthMm, y: height });
    // One tick a step: they count, whatever the stock.
    for (let n = 0; n < k; n++) {
      const at = x - widthMm + 0.6 + (n % 8) * 1.1;
      const low = 2 + 3.4 * Math.floor(n / 8);
      ticks.push({ start: { x: at, y: low }, segments: [{ kind: 'line', to: { x: at, y: low + 2.4 } }], closed: false });
    }
    x -= widthMm;
  }
  corners.push({ x: 0, y: height });
  const { tabMm } = settings;
  const tab = [
    { x: 0, y: height + 8 },
    { x: 3 * tabMm, y: height + 8 },
    { x: 3 * tabMm, y: height + 8 + 2 * tabMm },
    { x: 2 * tabMm, y: height + 8 + 2 * tabMm },
    { x: 2 * tabMm, y: height + 8 + 2 * tabMm + depth },
    { x: tabMm, y: height + 8 + 2 * tabMm + depth },
    { x: tabMm, y: height + 8 + 2 * tabMm },
    { x: 0, y: height + 8 + 2 * tabMm },
  ];
  return [
    { name: 'Comb', purpose: 'cut', outer: polygonPath(corners), holes: [] },
    { name: 'Tab', purpose: 'cut', outer: polygonPath(tab), holes: [] },
    ...ticks.map((outer, k): MadeOutlines => ({ name: `Tick ${k + 1}`, purpose: 'engrave', outer, holes: [] })),
  ];
}
