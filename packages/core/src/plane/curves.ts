/** The table of curves: what every kind of segment can do. The one place that lists the kinds. */
import { arcOps } from './arc.ts';
import { cubicOps } from './cubic.ts';
import { ellipseOps } from './ellipse.ts';
import { lineOps } from './line.ts';
import type { CurveOps, Segment } from './segment-kinds.ts';

const curves: { readonly [K in Segment['kind']]: CurveOps<Extract<Segment, { kind: K }>> } = {
  line: lineOps,
  arc: arcOps,
  ellipse: ellipseOps,
  cubic: cubicOps,
};

export const opsOf = <S extends Segment>(s: S): CurveOps<S> => curves[s.kind] as unknown as CurveOps<S>;
