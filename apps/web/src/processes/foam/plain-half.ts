/** Half a section to begin with: a round, from the middle of its foot to that of its top, as shares of half the width and of the height. */
import type { FoamSection } from '@nuvet/core/foam';

const count = 6;

export const plainHalf: Extract<FoamSection, { kind: 'drawn' }>['points'] = Array.from({ length: count + 1 }, (_, k) => {
  const angle = (Math.PI * k) / count;
  const isEnd = k === 0 || k === count;
  return {
    at: { x: isEnd ? 0 : Math.round(1000 * Math.sin(angle)) / 1000, y: Math.round(500 * (1 - Math.cos(angle))) / 1000 },
    corner: false,
  };
});
