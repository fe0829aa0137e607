/**
 * In: a fit and the pieces traced by it. Out: what the report file says, all in mm and degrees.
 */
import { measuresOf, type Piece } from '@nuvet/core/job';
import type { FoundLens, TrueUpFit } from '@nuvet/core/trueup';

const degrees = (angle: number): number => (angle * 180) / Math.PI;

export function reportOnFit(fit: TrueUpFit) {
  const { a, b, c, d, e, f, g, h, i } = fit.projection;
  return {
    model: fit.model,
    recommended: fit.recommended,
    carried: fit.carried,
    reason: fit.reason,
    mmPerPixel: fit.mmPerPx,
    mmPerPixelAlong: fit.mmPerPxAlong,
    scaleFrom: fit.model === 'resolution' ? ('resolution' as const) : ('marks' as const),
    rotationDegrees: degrees(fit.turn),
    /** Rows of the matrix that takes (x, y, 1) in pixels to the sheet in mm. */
    matrix: [
      [a, c, e],
      [b, d, f],
      [g, h, i],
    ],
    noisePixels: fit.noisePx,
    standardErrorPercent: 100 * fit.scaleError,
    expect: fit.expect,
    residuals: fit.residuals.map((l) => ({
      mark: l.id,
      offMm: l.offMm,
      ...(l.offAngle === null ? {} : { offDegrees: degrees(l.offAngle) }),
      ...(l.parts[0] && l.parts.length === 1
        ? { statedMm: l.parts[0].statedMm, measuredMm: l.parts[0].measuredMm, offPercent: l.parts[0].offPercent }
        : {}),
      ...(l.parts.length > 1 ? { parts: l.parts } : {}),
      pulls: l.leverage,
      setAside: l.isSetAside,
    })),
    outliers: [
      ...fit.unitMistakes.map((s) => ({ mark: s.id, looksLike: s.looksLike, likelyMm: s.mendedMm })),
      ...fit.outliers.map((s) => ({ mark: s.id, chance: s.chance })),
    ],
  };
}

/** Null where the lens bends nothing that could be told. The matrix of the fit is that of the picture without the bend. */
export const reportOnLens = (lens: FoundLens | null) =>
  lens && { k: lens.k, standardError: lens.standardError, edges: lens.edges, bowedPixels: lens.bowedPx };

interface InkFound {
  readonly threshold: number;
  readonly unevenLight: boolean;
  readonly dotPitchMm: number | null;
  readonly grainSmoothed: boolean;
}

export function reportOnPieces(fit: TrueUpFit, pieces: readonly Piece[], ink: InkFound) {
  return {
    ...reportOnFit(fit),
    ...ink,
    pieces: pieces.map((piece) => {
      const m = measuresOf(piece);
      return {
        name: piece.name,
        widthMm: m.widthMm,
        heightMm: m.heightMm,
        areaMm2: m.areaMm2,
        perimeterMm: m.perimeterMm,
        holes: m.holes,
        segments: m.segments,
        runsOffThePicture: piece.runsOff,
      };
    }),
  };
}
