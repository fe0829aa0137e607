/**
 * In: a unit's name. Out: its size in millimetres.
 * Rests on: the international yard and pound agreement of 1959 (1 yd = 0.9144 m, so 1 in = 25.4 mm exactly).
 */
export const units = ['mm', 'cm', 'm', 'in', 'ft', 'yd', 'thou', 'µm'] as const;
export type Unit = (typeof units)[number];

const sizes: Record<Unit, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8, yd: 914.4, thou: 0.0254, µm: 0.001 };

const words: Record<string, Unit> = {
  mm: 'mm', millimetre: 'mm', millimetres: 'mm', millimeter: 'mm', millimeters: 'mm',
  cm: 'cm', centimetre: 'cm', centimetres: 'cm', centimeter: 'cm', centimeters: 'cm',
  m: 'm', metre: 'm', metres: 'm', meter: 'm', meters: 'm',
  in: 'in', inch: 'in', inches: 'in', ft: 'ft', foot: 'ft', feet: 'ft', yd: 'yd', yds: 'yd', yard: 'yd', yards: 'yd',
  thou: 'thou', um: 'µm', µm: 'µm', μm: 'µm',
}; // biome-ignore format: a table reads best as one

export const isUnit = (text: string): text is Unit => (units as readonly string[]).includes(text);

/** The unit that a word means, in any case and with or without a full stop; null if none. */
export function unitFromWord(word: string): Unit | null {
  return words[word.toLowerCase().replace(/\.$/, '')] ?? null;
}

/** Millimetres in one of a unit, exact. */
export function millimetresPer(unit: Unit): number {
  return sizes[unit];
}
