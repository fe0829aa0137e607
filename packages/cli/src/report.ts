/**
 * In: a fit and the pieces traced by it. Out: what the report file says, all in mm and degrees.
 */
import { measuresOf, type Piece } from '@nuvet/core/job';
import type { TrueUpFit } from '@nuvet/core/trueup';

const degrees = (angle: number): number => (angle * 180) / Math.PI;

export function reportOn(fit: TrueUpFit, pieces: readonly Piece[], threshold: number) {
  return {
    mmPerPixel: fit.mmPerPx,
    scaleFrom: fit.model === 'uniform' ? 'known lengths' : 'resolution',
    rotationDegrees: degrees(fit.turn),
    leftOvers: fit.leftOvers.map((l) =>
      l.kind === 'known-length'
        ? { mark: l.id, statedMm: l.statedMm, measuredMm: l.measuredMm, offMm: l.offMm, offPercent: l.offPercent }
        : { mark: l.id, offDegrees: degrees(l.offAngle), offMm: l.offMm },
    ),
    threshold,
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
