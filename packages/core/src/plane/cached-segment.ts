/**
 * In: a segment and where it starts. Out: what has been worked out of it, kept by the segment's identity, so that an outline of
 * which one point was moved is worked out anew only about that point.
 */
import type { Box } from './box.ts';
import { opsOf } from './curves.ts';
import type { Point } from './point.ts';
import {
  directionOn,
  pointOn,
  reversedSegment,
  type Segment,
  segmentArea,
  segmentBox,
  segmentLength,
  transformedSegment,
} from './segment.ts';
import type { Transform } from './transform.ts';

/** Images of one segment that are kept: sixty turned copies, each with its mirror image. */
const maxImages = 128;

export class CachedSegment {
  private ownBox: Box | null = null;
  private directions: readonly [Point, Point] | null = null;
  private ownMiddle: Point | null = null;
  private ownArea: number | null = null;
  private ownLength: number | null = null;
  private ownLoop: readonly [number, number] | null | undefined;
  private back: Segment | null = null;
  private images: { readonly by: Transform; readonly segments: readonly Segment[] }[] = [];

  constructor(
    readonly from: Point,
    readonly segment: Segment,
  ) {}

  get box(): Box {
    this.ownBox ??= segmentBox(this.from, this.segment);
    return this.ownBox;
  }

  private get ends(): readonly [Point, Point] {
    this.directions ??= [directionOn(this.from, this.segment, 0), directionOn(this.from, this.segment, 1)];
    return this.directions;
  }

  /** The direction in which it sets out, length 1. */
  get startTangent(): Point {
    return this.ends[0];
  }

  /** The direction in which it arrives, length 1. */
  get endTangent(): Point {
    return this.ends[1];
  }

  /** The place at half its parameter. */
  get middle(): Point {
    this.ownMiddle ??= pointOn(this.from, this.segment, 0.5);
    return this.ownMiddle;
  }

  /** Its length, in the unit of its points. */
  get length(): number {
    this.ownLength ??= segmentLength(this.from, this.segment);
    return this.ownLength;
  }

  /** The area between it and its chord, mm², positive where it bows to the right. */
  get areaBesideChord(): number {
    if (this.ownArea === null) {
      const { from, segment } = this;
      const home: Transform = { a: 1, b: 0, c: 0, d: 1, e: -from.x, f: -from.y };
      const [moved] = transformedSegment(from, segment, home, 0) as [Segment];
      this.ownArea = segment.kind === 'line' ? 0 : segmentArea({ x: 0, y: 0 }, moved);
    }
    return this.ownArea;
  }

  /** Where it crosses itself, as two values of its parameter; null where it does not. */
  get loop(): readonly [number, number] | null {
    if (this.ownLoop === undefined) this.ownLoop = opsOf(this.segment).loop?.(this.from, this.segment) ?? null;
    return this.ownLoop;
  }

  /** The same way back. */
  get reversed(): Segment {
    this.back ??= reversedSegment(this.from, this.segment);
    return this.back;
  }

  /** Its image under a transform; arcs under a stretch within `tolerance`, of which one is asked for all along. */
  imageBy(t: Transform, tolerance: number): readonly Segment[] {
    const kept = this.images.find(({ by: k }) => k.a === t.a && k.b === t.b && k.c === t.c && k.d === t.d && k.e === t.e && k.f === t.f);
    if (kept) return kept.segments;
    const segments = transformedSegment(this.from, this.segment, t, tolerance);
    if (this.images.length >= maxImages) this.images = [];
    this.images.push({ by: t, segments });
    return segments;
  }
}

const known = new WeakMap<Segment, CachedSegment>();

export function cachedSegment(from: Point, segment: Segment): CachedSegment {
  const kept = known.get(segment);
  if (kept && kept.from.x === from.x && kept.from.y === from.y) return kept;
  const made = new CachedSegment(from, segment);
  known.set(segment, made);
  return made;
}

const knownPaths = new WeakMap<readonly Segment[], { readonly start: Point; readonly steps: readonly CachedSegment[] }>();

/** A path's segments, each with where it starts and what is known of it. */
export function cachedSegments({
  start,
  segments,
}: {
  readonly start: Point;
  readonly segments: readonly Segment[];
}): readonly CachedSegment[] {
  const kept = knownPaths.get(segments);
  if (kept && kept.start.x === start.x && kept.start.y === start.y) return kept.steps;
  let from = start;
  const steps = segments.map((segment) => {
    const step = cachedSegment(from, segment);
    from = segment.to;
    return step;
  });
  knownPaths.set(segments, { start, steps });
  return steps;
}
