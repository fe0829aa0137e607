/**
 * In: how soft and how rough a picture's edges are. Out: the windows and limits, in pixels, that corners, straight
 * stretches and curves are judged by, so that one set of rules serves a soft 600 dpi scan and a one-bit fax.
 */
export interface Grain {
  /** Deviation of the Gaussian that would soften a sharp edge as much, px. */
  readonly softness: number;
  /** Deviation of contour points from their true course, px. */
  readonly roughness: number;
  /** What of the roughness is stairs, px: 0 in grey pictures. */
  readonly stairs: number;
  /** What a corner's blur spoils to either side, in points. */
  readonly gap: number;
  /** How long a stretch its direction is taken from, in points. */
  readonly arm: number;
  /** Largest and mean squared deviation that fitted segments may have, px. */
  readonly worst: number;
  readonly rms: number;
}

/** A corner turns by more than this, radians. */
export const smallestTurn = (20 * Math.PI) / 180;
/** Fitted segments keep this share of the tolerance as their root mean square. */
const rmsShare = 1 / 7;

export function grainOf(softness: number, roughness: number, tolerancePx: number): Grain {
  const stairs = Math.max(0, roughness - 0.1);
  return {
    softness,
    roughness,
    stairs,
    gap: Math.round(1 + 1.5 * softness + 5 * stairs),
    arm: Math.round(4 + 2.5 * softness + 30 * stairs),
    worst: Math.max(tolerancePx, 3 * roughness, 0.3),
    rms: Math.max(tolerancePx * rmsShare, 1.3 * roughness, 0.08),
  };
}

/** Tips thinner than this, half their angle in radians, are taken for as thin as this. */
const thinnest = 0.04;

/**
 * How far the contour of a soft corner stays back from its tip, px.
 * Rests on: a wedge is half covered where it is about 0.67 deviations wide to either side; of a tip narrower than a pixel
 * a one-bit scan may show nothing.
 * @param halfAngle half the angle inside the corner, radians
 */
export const retreat = (grain: Grain, halfAngle: number): number =>
  (0.8 * grain.softness + 2 * grain.stairs) / Math.tan(Math.max(thinnest, halfAngle));
