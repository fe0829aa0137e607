/**
 * In: how soft and how rough a picture's edges are. Out: the windows and limits, in pixels, that corners, straight
 * stretches and curves are judged by, so that one set of rules serves a soft 600 dpi scan and a one-bit fax.
 */
import { parameters } from './parameters.ts';

export interface EdgeModel {
  /** Deviation of the Gaussian that would soften a sharp edge as much, px. */
  readonly blur: number;
  /** Deviation of contour points from their true contour, px. */
  readonly noise: number;
  /** What of the roughness is stairs, px: 0 in grey pictures. */
  readonly aliasing: number;
  /** What a corner's blur blurs to either side, in points. */
  readonly gap: number;
  /** How long a stretch its direction is taken from, in points. */
  readonly arm: number;
  /** Largest and mean squared deviation that fitted segments may have, px. */
  readonly worst: number;
  readonly rms: number;
}

export const smallestTurn = parameters.smallestCornerTurn;
const rmsShare = parameters.rmsShareOfTolerance;

export function edgeModelOf(blur: number, noise: number, tolerancePx: number): EdgeModel {
  const aliasing = Math.max(0, noise - 0.1);
  return {
    blur,
    noise,
    aliasing,
    gap: Math.round(parameters.gapAtLeast + parameters.gapOfBlur * blur + parameters.gapOfAliasing * aliasing),
    arm: Math.round(parameters.armAtLeast + parameters.armOfBlur * blur + parameters.armOfAliasing * aliasing),
    worst: Math.max(tolerancePx, parameters.worstOfNoise * noise, parameters.worstAtLeast),
    rms: Math.max(tolerancePx * rmsShare, parameters.rmsOfNoise * noise, parameters.rmsAtLeast),
  };
}

const thinnest = parameters.thinnestTipHalfAngle;

/**
 * How far the contour of a soft corner stays back from its tip, px.
 * Rests on: a wedge is half covered where it is about 0.67 deviations wide to either side; of a tip narrower than a pixel
 * a one-bit scan may show nothing.
 * @param halfAngle half the angle inside the corner, radians
 */
export const tipShrinkage = (edgeModel: EdgeModel, halfAngle: number): number =>
  (parameters.shrinkageOfBlur * edgeModel.blur + parameters.shrinkageOfAliasing * edgeModel.aliasing) /
  Math.tan(Math.max(thinnest, halfAngle));

/** How far from the contour the tip of a corner may lie that turns by so much, radians; px. */
export const farthestTip = (edgeModel: EdgeModel, turn: number): number =>
  parameters.cornerTipShrinkage * tipShrinkage(edgeModel, (Math.PI - Math.abs(turn)) / 2) +
  parameters.cornerTipPx +
  parameters.cornerTipNoise * edgeModel.noise;
