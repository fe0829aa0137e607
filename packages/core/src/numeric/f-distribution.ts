/**
 * In: an F value and its degrees of freedom. Out: how likely so large a value is by chance.
 * Rests on: the regularised incomplete beta function by its continued fraction (NIST DLMF 8.17.22, modified Lentz),
 * the log gamma function by Lanczos 1964 (g = 7, nine terms).
 */
const lanczos = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
]; // biome-ignore format: published constants, terms in order

function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const z = x - 1;
  const sum = lanczos.slice(1).reduce((s, term, k) => s + term / (z + k + 1), lanczos[0] as number);
  const t = z + 7.5;
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x)) / a;
  const tiny = 1e-300;
  let [c, d, f] = [1, 0, 1];
  for (let m = 0; m < 300; m++) {
    const even = m === 0 ? 1 : (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    let change = 1;
    for (const term of m === 0 ? [odd] : [even, odd]) {
      d = 1 / (1 + term * d || tiny);
      c = 1 + term / c || tiny;
      change = c * d;
      f *= change;
    }
    if (Math.abs(change - 1) < 1e-15) break;
  }
  return front / f;
}

/** The chance of an F at least as large, with `between` and `within` degrees of freedom. */
export function chanceOfF(f: number, between: number, within: number): number {
  if (!(f > 0)) return 1;
  return incompleteBeta(within / (within + between * f), within / 2, between / 2);
}
