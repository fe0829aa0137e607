/**
 * The scale card and a square ruling as scenes, drawn from their definitions.
 */
import { type Path, shift, transformedPath } from '@nuvet/core/plane';
import { markerCells } from '@nuvet/core/raster';
import { cardMarkers, markerSideMm } from '@nuvet/core/trueup';
import { piece, type Scene, type ScenePiece } from './scene.ts';
import { rectangle } from './shapes.ts';

/** A scene laid on an A4 page between the card's markers. */
export function onScaleCard(scene: Scene, at: { readonly x: number; readonly y: number }): Scene {
  const [widthMm, heightMm] = [210, 297];
  const cell = markerSideMm / 7;
  const markers = cardMarkers.flatMap(({ id, x, y }): ScenePiece[] => {
    const [left, low] = [x + widthMm / 2 - markerSideMm / 2, y + heightMm / 2 - markerSideMm / 2];
    // White cells as one hole for each row's run, so that no two holes share an edge.
    const white = markerCells(id).flatMap((row, r) => row.map((isWhite, c) => ({ isWhite, r, c })).filter((w) => w.isWhite));
    return [
      piece(
        rectangle(left, low, markerSideMm, markerSideMm),
        white.map(({ r, c }) => rectangle(left + (c + 1) * cell, low + (5 - r) * cell, cell, cell)),
      ),
    ];
  });
  const moved = (p: Path) => transformedPath(p, shift(at.x, at.y), 1e-5);
  return {
    ...scene,
    name: `${scene.name} on the scale card`,
    widthMm,
    heightMm,
    pieces: [...scene.pieces.map(({ outer, holes }) => piece(moved(outer), holes.map(moved))), ...markers],
    print: scene.print?.map(moved) ?? [],
    marks: {},
  };
}

/** Lines every `pitchMm` both ways, thin, for squared paper. */
export function squaredPrint(widthMm: number, heightMm: number, pitchMm: number): Path[] {
  const thin = 0.25;
  const across = Array.from({ length: Math.floor(widthMm / pitchMm) - 1 }, (_, k) => (k + 1) * pitchMm);
  const up = Array.from({ length: Math.floor(heightMm / pitchMm) - 1 }, (_, k) => (k + 1) * pitchMm);
  // The lines across stop beside those that go up, so that no area is covered twice.
  const gaps = [0, ...across, widthMm];
  return [
    ...across.map((x) => rectangle(x - thin / 2, 1, thin, heightMm - 2)),
    ...up.flatMap((y) =>
      gaps.slice(1).map((x, k) => rectangle((gaps[k] as number) + thin, y - thin / 2, x - (gaps[k] as number) - 2 * thin, thin)),
    ),
  ];
}
