/** Tool trays: how far things of known height lie off in photographs on the scale card, as they are seen flattened and as they are brought back. */
import { seenFrom } from '@nuvet/core/job';
import { trueOutline } from '@nuvet/core/tray';
import { apart, edgeOfThing, heightOfThing, photographed, things, tools } from '../tests/unit/photographed-things.ts';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);
/** Tilt and lean of the camera, degrees, and its lens: from 40 to 120 cm away. */
const views = [[20, 70, 0.8], [12, 200, 1.5], [18, 300, 2.2], [8, 120, 0.9]] as const; // biome-ignore format: one line

export function measureTray(): void {
  const [seenOff, madeOff, heights]: [number[], number[], number[]] = [[], [], []];
  let ms = 0;
  for (const [tiltDegrees, leanDegrees, focalShare] of views)
    for (const laid of [things, tools]) {
      const { photo, picture, shown } = photographed({ tiltDegrees, leanDegrees, focalShare }, laid);
      const seen = seenFrom(picture, null);
      if (!seen) continue;
      heights.push(Math.abs(seen.camera.z / photo.camera.z - 1));
      for (const { thing, truth, piece } of shown) {
        const began = performance.now();
        const [made] = trueOutline({ outer: piece.outer, holes: [] }, seen.camera, heightOfThing(thing), edgeOfThing(thing));
        ms += performance.now() - began;
        seenOff.push(apart(piece.outer, truth));
        madeOff.push(made ? apart(made.outer, truth) : Infinity);
      }
    }
  const sorted = (all: readonly number[]): number[] => [...all].sort((a, b) => a - b);
  const told = (all: readonly number[]): string => `${(sorted(all)[all.length >> 1] as number).toFixed(3)} mm in the median, ${Math.max(...all).toFixed(3)} at most`; // biome-ignore format: one line
  line('tray: the camera’s height', `off by ${(100 * Math.max(...heights)).toFixed(2)} % at most`);
  line('tray: things as they are seen flattened', told(seenOff));
  line('tray: the same brought to true size', `${told(madeOff)} (0.5 asked); ${(ms / madeOff.length).toFixed(0)} ms each`);
}
