/** Foam: how long a wing panel's wire path takes, how far what it leaves is from the sections; a body of 60 stations, and its formers on sheets. */
import { bodyOf, burnFrom, coreOf, nacaAirfoil, slicesOf, wingCut } from '@nuvet/core/foam';
import { writeWireProgram } from '@nuvet/core/formats';
import { nestedOnSheets } from '@nuvet/core/nesting';
import { ellipsePath } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { HotWire } from '@nuvet/cutter/hot-wire';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);

export function measureFoam(): void {
  measureBody();
  const melts = { burnMm: 0.5, burnMm2PerMin: 40 };
  const burn = burnFrom([100, 200, 400].map((mmPerMin) => ({ mmPerMin, burnMm: melts.burnMm + melts.burnMm2PerMin / mmPerMin })));
  const towers = { betweenMm: 900, toFoamMm: 200, isTipLeft: false, fastestMmPerMin: 1000 };
  const pairs = [['2412', '0012'], ['4415', '4412'], ['0009', '6409'], ['2408', '2408']] as const; // biome-ignore format: pairs
  const times: number[] = [];
  const off: number[] = [];
  for (const [root, tip] of pairs)
    for (const washout of [0, 2, 4]) {
      const panel = { root: nacaAirfoil(root), tip: nacaAirfoil(tip), rootChordMm: 220, tipChordMm: 150, spanMm: 500, sweepMm: 30, riseMm: 0, washout, skinMm: 0, leadingMm: 0, trailingMm: 6, spars: [] }; // biome-ignore format: one line
      const began = performance.now();
      const cut = wingCut(panel, { burn, feedMmPerMin: 300, leadMm: 20, ...towers });
      times.push(performance.now() - began);
      const wire = new HotWire({ ...melts, betweenMm: 900, toBlockMm: 200, spanMm: 500, axes: ['U', 'V'], fastestMmPerMin: 1000 });
      for (const text of writeWireProgram(cut.towers, { title: 'bench', axes: 'UV', warmUpS: 4 }).split('\n')) wire.read(text);
      for (const [share, face] of [[0, cut.faces.root], [1, cut.faces.tip]] as const) off.push(wire.offBy(share, coreOf(face).filter((_, k) => k % 5 === 0)).mostMm); // biome-ignore format: one line
    }
  const sorted = [...off].sort((a, b) => a - b);
  const median = [...times].sort((a, b) => a - b)[times.length >> 1] as number;
  line('foam: a wing panel, section to towers', `${median.toFixed(0)} ms`);
  line('foam: faces as the wire leaves them', `off by ${(sorted[sorted.length >> 1] as number).toFixed(4)} mm, at most ${(sorted.at(-1) as number).toFixed(3)} (0.02 asked on straight runs)`); // biome-ignore format: one line
}

/** A body of 60 stations whose views are curves, hollowed; then its formers laid out on sheets. */
function measureBody(): void {
  const views = { side: ellipsePath({ x: 300, y: 50 }, 300, 50, 0), above: ellipsePath({ x: 300, y: 300 }, 300, 70, 0), nose: 'left' } as const; // biome-ignore format: one line
  const settings = { boards: [{ thicknessMm: 10, count: null }], glueMm: 0, cutTo: 'both', sandingMm: 0, shellMm: 15, dowels: [] } as const;
  const made = () => finished(slicesOf(bodyOf(views, { topExponent: 2.4, bottomExponent: 2, widestAt: 0.45 }), settings));
  made();
  const began = performance.now();
  const slices = made();
  line('foam: a body of 60 stations, hollowed', `${slices.length} formers in ${(performance.now() - began).toFixed(0)} ms (300 asked)`);
  const parts = slices.map(({ outline }) => ({ outer: outline, holes: [], count: 1 }));
  const started = performance.now();
  const { placed, sheets } = finished(nestedOnSheets(parts, { widthMm: 1200, heightMm: 600, marginMm: 5, gapMm: 5, angles: [0, 1, 2, 3].map((k) => (k * Math.PI) / 2) })); // biome-ignore format: one line
  line(
    'foam: 60 formers nested on sheets',
    `${placed.length} on ${sheets} in ${((performance.now() - started) / 1000).toFixed(2)} s (5 asked)`,
  );
}
