/**
 * In: millimetres. Out: the text a person reads, in mm or in inches.
 * Rests on: shop practice; inches as fractions to 1/16 where that is within 0.1 mm, else as decimals.
 */
const mmPerInch = 25.4;
/** A fraction of an inch is printed only where it is this near to the true length. */
const fractionWithinMm = 0.1;

/** Millimetres with a fixed number of decimals and no minus on zero: `180.77 mm`. */
export function printMm(mm: number, decimals = 2): string {
  return `${plain(mm, decimals)} mm`;
}

/** Inches: `1 1/4 in` where a sixteenth is within 0.1 mm, else `7.117 in`. */
export function printInches(mm: number): string {
  const sixteenths = Math.round((Math.abs(mm) / mmPerInch) * 16);
  const nearest = (sixteenths / 16) * mmPerInch;
  if (sixteenths === 0 || Math.abs(nearest - Math.abs(mm)) > fractionWithinMm) return printDecimalInches(mm);
  const sign = mm < 0 ? '-' : '';
  return `${sign}${fractionOf(sixteenths, 16)} in`;
}

/** Inches as a decimal: `7.117 in`. */
export function printDecimalInches(mm: number, decimals = 3): string {
  return `${plain(mm / mmPerInch, decimals)} in`;
}

/** Both units, the job's own first. */
export function printBoth(mm: number, unit: 'mm' | 'in'): string {
  return unit === 'mm' ? `${printMm(mm)} · ${printInches(mm)}` : `${printInches(mm)} · ${printMm(mm)}`;
}

/** A fraction of an inch is typed only where it is exact to this, mm: half of what a field shows. */
const fractionToTypeMm = 0.0005;

/** A length as it stands in a field, without its unit: `12.7`, and in inches `1 1/4` where a 64th is exact, else `0.0472`. */
export function printToType(mm: number, unit: 'mm' | 'in'): string {
  if (unit === 'mm') return String(Number(mm.toFixed(3)));
  const parts = Math.round((Math.abs(mm) / mmPerInch) * 64);
  if (Math.abs((parts / 64) * mmPerInch - Math.abs(mm)) > fractionToTypeMm) return String(Number((mm / mmPerInch).toFixed(4)));
  return `${mm < 0 && parts > 0 ? '-' : ''}${fractionOf(parts, 64)}`;
}

/** `1 1/4` of 80 sixty-fourths. */
function fractionOf(parts: number, bottom: number): string {
  const whole = Math.floor(parts / bottom);
  let [top, under] = [parts % bottom, bottom];
  while (top > 0 && top % 2 === 0) [top, under] = [top / 2, under / 2];
  return [whole > 0 || top === 0 ? String(whole) : '', top > 0 ? `${top}/${under}` : ''].filter(Boolean).join(' ');
}

function plain(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return Number(text) === 0 ? text.replace('-', '') : text;
}
