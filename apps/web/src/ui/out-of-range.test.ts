/** What a field says of a value that it does not take. */
import { describe, expect, it } from 'vitest';
import { outOfRange } from './out-of-range';

describe('a value in its field', () => {
  it('is taken from its least to its most, both included', () => {
    for (const value of [2, 2.5, 60]) expect(outOfRange(value, { least: 2, most: 60 })).toBeNull();
    expect(outOfRange(-1e9, {})).toBeNull();
    expect(outOfRange(1e9, { least: 0 })).toBeNull();
  });
  it('below or above them is refused with the limit, as it is written', () => {
    expect(outOfRange(1.999, { least: 2, most: 60 })).toBe('At least 2.');
    expect(outOfRange(60.5, { least: 2, most: 60 })).toBe('At most 60.');
    expect(outOfRange(300_000, { most: 200_000 })).toBe('At most 200,000.');
    expect(outOfRange(501, { most: 508 / 2 }, (mm) => `${mm / 25.4} in`)).toBe('At most 10 in.');
  });
});
