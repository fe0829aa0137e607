/**
 * Outlines as polygons of jsts, and what it says of them: areas, overlays and buffers, and whether they are areas at all by
 * OGC 06-103r4 (simple rings that do not cross, holes within their shell, interiors that hang together).
 */
import { type Path, polygonOf } from '@nuvet/core/plane';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import SnapIfNeededOverlayOp from 'jsts/org/locationtech/jts/operation/overlay/snap/SnapIfNeededOverlayOp.js';
import IsValidOp from 'jsts/org/locationtech/jts/operation/valid/IsValidOp.js';

export interface Area {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

const factory = new GeometryFactory();

/** There and back a curve's chords differ in the last digits. */
const rounded = (v: number): number => Math.round(v * 1e7) / 1e7;

function ringOf(path: Path, chord: number) {
  const points = polygonOf(path, chord).map(({ x, y }) => new Coordinate(rounded(x), rounded(y)));
  const [first] = points as [InstanceType<typeof Coordinate>];
  // A closed ring repeats its start, to the last digit.
  if (points.at(-1)?.equals2D(first)) points.pop();
  return factory.createLinearRing([...points, new Coordinate(first.x, first.y)]);
}

export type Polygon = ReturnType<typeof factory.createPolygon>;

/** @param chord how far chords may leave the curves, in the outlines' unit */
export const polygonFrom = ({ outer, holes }: Area, chord = 0.0002): Polygon =>
  factory.createPolygon(ringOf(outer, chord), holes.map((hole) => ringOf(hole, chord))); // biome-ignore format: one call

/** What jsts has against an area, in words; null where it is one. */
export function complaint(area: Area): string | null {
  const asked = new IsValidOp(polygonFrom(area));
  if (asked.isValid()) return null;
  const error = asked.getValidationError();
  return `${error.getMessage()} at ${error.getCoordinate().x.toFixed(2)}, ${error.getCoordinate().y.toFixed(2)}`;
}

export const complaints = (areas: readonly Area[]): string[] => areas.flatMap((one) => complaint(one) ?? []);

const overlays = { unite: OverlayOp.UNION, 'take-away': OverlayOp.DIFFERENCE, 'keep-common': OverlayOp.INTERSECTION } as const;

/** Where its own figures are not exact enough it snaps what nearly meets. */
export const overlaid = (a: Polygon, b: Polygon, how: keyof typeof overlays): Polygon =>
  SnapIfNeededOverlayOp.overlayOp(a, b, overlays[how]);

export type Line = ReturnType<typeof factory.createLineString>;

/** A path's own line: of a closed one its ring. */
export function lineFrom(path: Path, chord = 0.0002): Line {
  if (path.closed) return ringOf(path, chord);
  return factory.createLineString(polygonOf(path, chord).map(({ x, y }) => new Coordinate(x, y)));
}

/** Several as one, so that they are looked at together. */
export const linesFrom = (paths: readonly Path[], chord?: number) =>
  factory.createMultiLineString(paths.map((path) => lineFrom(path, chord)));
export const polygonsFrom = (areas: readonly Area[], chord?: number) =>
  factory.createMultiPolygon(areas.map((one) => polygonFrom(one, chord)));
