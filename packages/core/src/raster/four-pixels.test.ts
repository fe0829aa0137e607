/** Comparing four pixels at once, held against comparing them one by one. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { evenUpTo, highBits, lightBitsAt, wordsOf } from './four-pixels.ts';

const level = fc.integer({ min: 0, max: 254 }).map((below) => below + 0.5);

it('every byte at or above every level is told', () => {
  for (let below = 0; below < 255; below++) {
    const lightBits = lightBitsAt(below + 0.5);
    for (let v = 0; v < 256; v++) {
      const bytes = Uint8Array.of(v, 255 - v, (v + 100) & 255, 0);
      const expected = bytes.reduce((bits, b, k) => (b > below ? bits | (0x80 << (8 * k)) : bits), 0);
      expect(lightBits((wordsOf(bytes) as Int32Array)[0] as number)).toBe(expected & highBits);
    }
  }
});

it('a run of dark or light pixels ends at the first word that holds another', () => {
  fc.assert(
    fc.property(level, fc.boolean(), fc.integer({ min: 0, max: 40 }), fc.integer(), (at, isDark, odd, seed) => {
      const onSide = (k: number) => {
        const random = Math.imul(k + seed, 0x9e3779b1) >>> 8;
        return isDark ? random % Math.ceil(at) : Math.ceil(at) + (random % (256 - Math.ceil(at)));
      };
      const bytes = Uint8Array.from({ length: 160 }, (_, k) => onSide(k));
      bytes[4 * odd - 1] = isDark ? 255 : 0;
      const first = odd === 0 ? 40 : odd - 1;
      expect(evenUpTo(wordsOf(bytes) as Int32Array, at, 0, 40, isDark)).toBe(first);
    }),
    { numRuns: lawRuns(400) },
  );
});
