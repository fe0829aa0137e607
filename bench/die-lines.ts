/** Die lines of cartons, scanned in every way that makers draw them: how many fold up as drawn, and how true their panels are. */
import { cartonScan } from '@nuvet/truth';
import { foldedCarton } from '../tests/unit/cartons-folded.ts';

const count = 60;
/** A panel as true as that folds. */
const allowedMm = 0.1;

export function measureDieLines(): void {
  const results = Array.from({ length: count }, (_, number) => foldedCarton(cartonScan(number)));
  const whole = results.filter(({ isWhole }) => isWhole);
  const worst = whole.map(({ worstMm }) => worstMm).sort((a, b) => a - b);
  const isTrue = worst.filter((mm) => mm <= allowedMm).length;
  console.log(
    `${whole.length} of ${count} cartons have every panel and crease as drawn, ${isTrue} of them true to ${allowedMm} mm; panels off by ${(worst[worst.length >> 1] as number).toFixed(3)} mm in the middle, ${(worst.at(-1) as number).toFixed(3)} mm at worst`,
  );
}
