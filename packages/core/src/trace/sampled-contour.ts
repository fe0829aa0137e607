/**
 * In: a contour as it left the picture, closed or open. Out: the same contour in even steps of one pixel, with running sums
 * that give the least-squares line through any stretch in constant time.
 * Rests on: total least squares (Pearson 1901) from second moments.
 */

/** The least-squares line through a stretch, pointing the way of travel. */
export interface StretchLine {
  x: number;
  y: number;
  dx: number;
  dy: number;
  /** Root of the mean squared distance of the points from the line, px. */
  rms: number;
}

export class SampledContour {
  readonly count: number;
  readonly closed: boolean;
  /** Points in even steps; indices run round, so that -1 is the last. */
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  private readonly sumX: Float64Array;
  private readonly sumY: Float64Array;
  private readonly sumXx: Float64Array;
  private readonly sumXy: Float64Array;
  private readonly sumYy: Float64Array;

  /**
   * @param contour x and y in turn, at least three points
   * @param closed whether it runs on from its last point to its first; if not, nothing may be asked beyond its ends
   */
  constructor(contour: Float64Array, closed = true) {
    const { xs, ys } = evenSteps(contour, closed);
    this.closed = closed;
    this.xs = xs;
    this.ys = ys;
    this.count = xs.length;
    // Sums over the contour gone round twice, so that a stretch may pass the start; about the first point, for digits.
    const size = 2 * this.count + 1;
    this.sumX = new Float64Array(size);
    this.sumY = new Float64Array(size);
    this.sumXx = new Float64Array(size);
    this.sumXy = new Float64Array(size);
    this.sumYy = new Float64Array(size);
    const [x0, y0] = [xs[0] as number, ys[0] as number];
    let [sx, sy, sxx, sxy, syy] = [0, 0, 0, 0, 0];
    for (let k = 0; k < size - 1; k++) {
      const i = k < this.count ? k : k - this.count;
      const x = (xs[i] as number) - x0;
      const y = (ys[i] as number) - y0;
      sx += x;
      sy += y;
      sxx += x * x;
      sxy += x * y;
      syy += y * y;
      this.sumX[k + 1] = sx;
      this.sumY[k + 1] = sy;
      this.sumXx[k + 1] = sxx;
      this.sumXy[k + 1] = sxy;
      this.sumYy[k + 1] = syy;
    }
  }

  wrap(index: number): number {
    const i = index % this.count;
    return i < 0 ? i + this.count : i;
  }

  x(index: number): number {
    return this.xs[this.wrap(index)] as number;
  }

  y(index: number): number {
    return this.ys[this.wrap(index)] as number;
  }

  /** The line through points `first` to `last`, both in; `first` may be negative, the stretch at most once round. */
  line(first: number, last: number, into: StretchLine = { x: 0, y: 0, dx: 1, dy: 0, rms: 0 }): StretchLine {
    const a = this.wrap(first);
    const b = a + (last - first) + 1;
    const n = b - a;
    const mx = ((this.sumX[b] as number) - (this.sumX[a] as number)) / n;
    const my = ((this.sumY[b] as number) - (this.sumY[a] as number)) / n;
    const xx = ((this.sumXx[b] as number) - (this.sumXx[a] as number)) / n - mx * mx;
    const xy = ((this.sumXy[b] as number) - (this.sumXy[a] as number)) / n - mx * my;
    const yy = ((this.sumYy[b] as number) - (this.sumYy[a] as number)) / n - my * my;
    const half = (xx - yy) / 2;
    const root = Math.sqrt(half * half + xy * xy);
    let dx = half >= 0 ? half + root : xy;
    let dy = half >= 0 ? xy : root - half;
    if (half < 0 && xy < 0) [dx, dy] = [-xy, half - root];
    const size = Math.sqrt(dx * dx + dy * dy) || 1;
    const end = b - 1 < this.count ? b - 1 : b - 1 - this.count;
    const forward = dx * ((this.xs[end] as number) - (this.xs[a] as number)) + dy * ((this.ys[end] as number) - (this.ys[a] as number));
    const sign = (forward < 0 ? -1 : 1) / size;
    into.x = mx + (this.xs[0] as number);
    into.y = my + (this.ys[0] as number);
    into.dx = dx * sign;
    into.dy = dy * sign;
    into.rms = Math.sqrt(Math.max(0, (xx + yy) / 2 - root));
    return into;
  }

  /** How far point `index` lies to the left of a line (seen with y up), px. */
  offset(index: number, l: StretchLine): number {
    const i = this.wrap(index);
    return l.dx * ((this.ys[i] as number) - l.y) - l.dy * ((this.xs[i] as number) - l.x);
  }

  /**
   * How rough the contour is, px: the median distance of points from the line through eight steps of it; from its lower quartile where
   * that is much lower, as in figures whose corners lie close together.
   */
  noise(): number {
    const reach = 8;
    if (this.count < 4 * reach) return 0;
    const line: StretchLine = { x: 0, y: 0, dx: 1, dy: 0, rms: 0 };
    const stride = Math.max(1, Math.floor(this.count / 200));
    const last = this.count - (this.closed ? 0 : reach);
    const found = new Float64Array(Math.ceil(last / stride));
    for (let k = 0; k < found.length; k++) found[k] = this.line(k * stride, k * stride + reach, line).rms;
    found.sort();
    return Math.min(found[found.length >> 1] as number, quartileAtMost * (found[found.length >> 2] as number));
  }
}

/** Of normal noise the median of such distances is 1.2 times their lower quartile. */
const quartileAtMost = 1.6;

/** The contour walked in equal steps of about one pixel. */
function evenSteps(contour: Float64Array, closed: boolean): { xs: Float64Array; ys: Float64Array } {
  const n = contour.length / 2;
  const legs = closed ? n : n - 1;
  let length = 0;
  for (let k = 0; k < legs; k++) {
    const m = k + 1 === n ? 0 : k + 1;
    const dx = (contour[2 * m] as number) - (contour[2 * k] as number);
    const dy = (contour[2 * m + 1] as number) - (contour[2 * k + 1] as number);
    length += Math.sqrt(dx * dx + dy * dy);
  }
  const count = Math.max(8, Math.round(length));
  // An open contour has a point at both ends.
  const step = length / (closed ? count : count - 1);
  const xs = new Float64Array(count);
  const ys = new Float64Array(count);
  let [next, gone, made] = [0, 0, 0];
  for (let k = 0; k < legs && made < count; k++) {
    const m = k + 1 === n ? 0 : k + 1;
    const [x, y] = [contour[2 * k] as number, contour[2 * k + 1] as number];
    const dx = (contour[2 * m] as number) - x;
    const dy = (contour[2 * m + 1] as number) - y;
    const size = Math.sqrt(dx * dx + dy * dy);
    while (made < count && next <= gone + size) {
      const t = size > 0 ? (next - gone) / size : 0;
      xs[made] = x + dx * t;
      ys[made] = y + dy * t;
      made++;
      next += step;
    }
    gone += size;
  }
  // Rounding may leave the last step out.
  for (; made < count; made++) {
    xs[made] = contour[closed ? 0 : 2 * n - 2] as number;
    ys[made] = contour[closed ? 1 : 2 * n - 1] as number;
  }
  return { xs, ys };
}
