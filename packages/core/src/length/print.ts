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
  const whole = Math.floor(sixteenths / 16);
  let top = sixteenths % 16;
  let bottom = 16;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top > 0 ? `${top}/${bottom}` : '';
  return `${sign}${[whole > 0 ? String(whole) : '', fraction].filter(Boolean).join(' ')} in`;
}

/** Inches as a decimal: `7.117 in`. */
export function printDecimalInches(mm: number, decimals = 3): string {
  return `${plain(mm / mmPerInch, decimals)} in`;
}

/** Both units, the job's own first. */
export function printBoth(mm: number, unit: 'mm' | 'in'): string {
  return unit === 'mm' ? `${printMm(mm)} · ${printInches(mm)}` : `${printInches(mm)} · ${printMm(mm)}`;
}

function plain(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return Number(text) === 0 ? text.replace('-', '') : text;
}
