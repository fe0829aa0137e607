import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseLength, parsePlanScale, printDecimalInches, printInches, printMm, printToType, type Unit } from './index.ts';

const mm = (text: string, unit: Unit = 'mm') => {
  const parsed = parseLength(text, unit);
  if (!parsed.ok) throw new Error(`${text}: ${parsed.message}`);
  return parsed.mm;
};
const fault = (text: string) => {
  const parsed = parseLength(text, 'mm', 'positive');
  if (parsed.ok) throw new Error(`${text} was read as ${parsed.mm}`);
  return parsed;
};

describe('a typed length', () => {
  // 25.4 mm an inch: international yard and pound agreement of 1959; the rest follows from it.
  it.each([
    ['1in', 25.4],
    ['26 ft', 7924.8],
    ["26'", 7924.8],
    ['18 in', 457.2],
    [`4' 5 1/2"`, 1358.9],
    ['4ft 5.5in', 1358.9],
    ['6in', 152.4],
    ['6"', 152.4],
    ['74.06', 74.06],
    ['74.06 mm', 74.06],
    ['1 1/4"', 31.75],
    ['2,5 cm', 25],
    ['18in / 2', 228.6],
    ['18in/2', 228.6],
    ['3 * 25.4', 76.2],
    ['(1in + 2 * 3 mm) / 2', 15.7],
    ['1 yd', 914.4],
    ['1½"', 38.1],
    ['3/8 in', 9.525],
    ['10 thou', 0.254],
    ['5\'-6"', 1676.4],
    ['-3 mm', -3],
    ['.5in', 12.7],
    ['2 * (3 + 4) in', 355.6],
    ['4’ 6”', 1371.6],
    ['1 m - 1 cm', 990],
    ['6 IN.', 152.4],
  ])('%s is %d mm', (text, expected) => {
    // biome-ignore format: a table reads best as one
    expect(mm(text)).toBeCloseTo(expected, 9);
  });

  it('takes a bare number in the unit of the job, also inside a sum', () => {
    expect(mm('2', 'in')).toBe(50.8);
    expect(mm('6in + 2', 'mm')).toBeCloseTo(154.4, 9);
    expect(mm('18in / 6in', 'mm')).toBeCloseTo(3, 12);
  });

  it('gives the factor between a plan of 103 ft 9.09 in and a model of 4 ft 5 in', () => {
    expect(mm('4 ft 5 in') / mm('103 ft 9.09 in')).toBeCloseTo(0.042567, 6);
  });

  it.each([
    ['6 furlongs', 2, /furlongs.*not a unit/],
    ['0', 0, /more than zero/],
    ['-3', 0, /more than zero/],
    ['6in * 2in', 4, /area/],
    ['3 / 2in', 2, /not a length/],
    ['(3 + 2', 0, /not closed/],
    ['3 +', 2, /missing/],
    ['5in 3ft', 4, /smaller unit/],
    ['1,234.5', 0, /thousands/],
    ['3 $', 2, /no meaning/],
    ['1/0 in', 0, /zero/],
    ['', 0, /Type a length/],
    ['4 5', 2, /does not belong/],
    ['1e999', 1, /not a unit/],
    ["4' 5", 3, /unit of its own/],
  ])('“%s” is refused at character %d', (text, at, message) => {
    // biome-ignore format: a table reads best as one
    expect(fault(text).message).toMatch(message);
    expect(fault(text).at).toBe(at);
  });

  it('zero is taken where a length may be nothing, less is not', () => {
    expect(parseLength('0', 'mm', 'from zero')).toMatchObject({ ok: true, mm: 0 });
    expect(parseLength('1/8', 'in', 'from zero')).toMatchObject({ ok: true, mm: 3.175 });
    expect(parseLength('-0.1', 'mm', 'from zero')).toMatchObject({ ok: false, message: 'The length must be zero or more.' });
    expect(parseLength('-0.1', 'mm', 'any')).toMatchObject({ ok: true, mm: -0.1 });
  });
  it('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string({ maxLength: 40 }), (text) => typeof parseLength(text).ok === 'boolean'));
  });
});

describe('a printed length', () => {
  it('is 7.117 in for 180.765 mm', () => expect(printDecimalInches(180.765)).toBe('7.117 in'));
  it.each([
    [152.4, '6 in'], [31.75, '1 1/4 in'], [12.7, '1/2 in'], [180.765, '7.117 in'], [10, '0.394 in'], [0, '0.000 in'],
    [-25.4, '-1 in'],
  ])('%d mm reads %s', (value, text) => expect(printInches(value)).toBe(text)); // biome-ignore format: a table
  it('shows a fraction only within 0.1 mm of it', () => {
    expect(printInches(25.4 + 0.099)).toBe('1 in');
    expect(printInches(25.4 + 0.101)).toBe('1.004 in');
  });
  it('reads back as what it was, to the printed digit', () => {
    fc.assert(
      fc.property(fc.double({ min: -5000, max: 5000, noNaN: true }), (value) => {
        expect(Math.abs(mm(printMm(value, 3)) - value)).toBeLessThanOrEqual(0.000501);
        expect(Math.abs(mm(printInches(value)) - value)).toBeLessThanOrEqual(0.1001);
      }),
    );
  });
});

describe('drawing scales', () => {
  it.each([
    ['1:76', 76],
    ['1 : 4,5', 4.5],
    ['2:1', 0.5],
    ['1 in to the foot', 12],
    ['1/4 in = 1 ft', 48],
    ['1 cm to a metre', 100],
    ['3/8" per foot', 32],
    ['1mm = 25 mm', 25],
  ])('“%s” makes the real thing %f times as large', (text, factor) => {
    expect(parsePlanScale(text)).toEqual({ ok: true, factor: expect.closeTo(factor, 9) });
  });
  it.each(['', '76', '1:0', 'half size', '1 in to nothing', '1:1:1', 'a to b to c'])('“%s” is refused with how to state it', (text) => {
    expect(parsePlanScale(text)).toMatchObject({ ok: false, message: expect.stringContaining('1:76') });
  });
});

describe('a length to be typed anew', () => {
  it.each([
    [12.7, 'in', '1/2'], [25.4 * 1.25, 'in', '1 1/4'], [25.4 * (3 + 1 / 64), 'in', '3 1/64'], [1.2, 'in', '0.0472'], [0, 'in', '0'],
    [-6.35, 'in', '-1/4'], [25.4, 'in', '1'], [12.7, 'mm', '12.7'], [0.12345, 'mm', '0.123'],
  ] as const)('%d mm in a job of %s stands as %s', (value, unit, text) => expect(printToType(value, unit)).toBe(text)); // biome-ignore format: a table

  it('means the same length when it is typed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 * 40 }), (parts) => {
        const parsed = parseLength(printToType((parts / 64) * 25.4, 'in'), 'in');
        expect(parsed.ok && parsed.mm).toBeCloseTo((parts / 64) * 25.4, 9);
      }),
    );
  });
});
