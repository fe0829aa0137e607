/**
 * The scale card: a page with a square marker near each corner, at known places, to be photographed beside or under
 * what is to be cut.
 */
import type { Point } from '../plane/point.ts';
import type { GreyPicture } from '../raster/grey.ts';
import { findSquareMarkers } from '../raster/square-markers.ts';

/** A marker's side with its black border, mm. */
export const markerSideMm = 30;
/** Where markers have their middles, mm from the card's middle, y up; numbers of the open dictionary. */
export const cardMarkers: readonly { readonly id: number; readonly x: number; readonly y: number }[] = [
  { id: 201, x: -75, y: 110 },
  { id: 202, x: 75, y: 110 },
  { id: 203, x: 75, y: -110 },
  { id: 204, x: -75, y: -110 },
];
/** The line that shows whether the card was printed at true size, mm. */
export const checkLineMm = 100;

/** The card as found in a picture: corners of its markers, and where they lie on the card. */
export interface FoundCard {
  readonly points: Point[];
  readonly places: Point[];
  readonly markers: number;
}

/** Null where fewer than two of the card's markers can be read. */
export function findScaleCard(picture: GreyPicture): FoundCard | null {
  const found = findSquareMarkers(picture).flatMap(({ id, corners }) => {
    const place = cardMarkers.find((m) => m.id === id);
    return place ? [{ corners, places: markerCorners(place) }] : [];
  });
  if (found.length < 2) return null;
  return { points: found.flatMap((f) => [...f.corners]), places: found.flatMap((f) => f.places), markers: found.length };
}

/** Upper left, upper right, lower right, lower left. */
export function markerCorners({ x, y }: Point): Point[] {
  const half = markerSideMm / 2;
  return [
    { x: x - half, y: y + half },
    { x: x + half, y: y + half },
    { x: x + half, y: y - half },
    { x: x - half, y: y - half },
  ];
}
