'use client';
/**
 * What changes with every move of the pointer: marks, the tool's lines, snaps, and the magnifier. It alone is drawn again then.
 */
import type { Job, Picture, Piece } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { provedSizes } from '@nuvet/core/proof';
import { useShallow } from 'zustand/react/shallow';
import { CanvasLayer } from './CanvasLayer';
import type { Coordinates } from './coordinates';
import { drawMark, drawSnap } from './drawing';
import { drawHand } from './drawing-hand';
import { drawLiveWire } from './drawing-live-wire';
import { drawBridges, drawPlaces, drawSizes, drawTaken } from './drawing-making';
import { outlinesOf } from './hand-aim';
import { useHand } from './hand-store';
import { Magnifier } from './Magnifier';
import { useMaking } from './making-store';
import type { PictureTiles } from './picture-tiles';
import type { TableProcess } from './table-process';
import { useTable } from './table-store';
import { useShownMarks } from './use-shown-marks';
import type { View } from './view';

interface OverlayProps {
  readonly job: Job;
  readonly active: Picture | null;
  readonly coordinates: Coordinates | null;
  readonly stage: string;
  readonly pieces: readonly Piece[];
  readonly view: View;
  readonly isByHand: boolean;
  readonly isPicking: boolean;
  /** The process that is open, while it is made ready. */
  readonly process: TableProcess | null;
  /** Where images of the chosen things should meet and do not. */
  readonly gaps: readonly { at: Point; gapMm: number }[];
}

/** Where on the screen the next click would snap to. */
const snapPlace = (coordinates: Coordinates | null, snap: { readonly at: Point } | null): Point | null =>
  coordinates && snap ? coordinates.toScreen(coordinates.originalOf(snap.at)) : null;

export function ToolOverlay({ job, active, coordinates, stage, pieces, view, isByHand, isPicking, gaps, process }: OverlayProps) {
  const { tool, snap, liveWire, screen } = useTable(useShallow(({ tool, snap, liveWire, screen }) => ({ tool, snap, liveWire, screen })));
  const making = useMaking();
  // What is drawn by hand reads its own state.
  useHand();
  const marks = useShownMarks(active, coordinates, stage, job.unit);
  const snapAt = isPicking ? snapPlace(coordinates, snap) : null;
  return (
    <CanvasLayer
      screen={screen}
      draw={(canvas) => {
        for (const mark of marks) drawMark(canvas, mark);
        if (coordinates && tool === 'along-edge') drawLiveWire(canvas, coordinates, liveWire);
        drawMaking(canvas, view, job, stage, pieces, making, process);
        if (isByHand) drawHand(canvas, view, job, outlinesOf(pieces), gaps);
        if (snapAt && snap) drawSnap(canvas, snapAt, snap.kind);
      }}
    />
  );
}

interface GlassProps {
  readonly coordinates: Coordinates;
  readonly tilesOf: (raster: Coordinates['raster']) => PictureTiles;
}

/** The magnifier beside the pointer, while a place is picked. */
export function PickingGlass({ coordinates, tilesOf }: GlassProps) {
  const { pointer, snap, screen } = useTable(useShallow((s) => ({ pointer: s.pointer, snap: s.snap, screen: s.screen })));
  if (!pointer) return null;
  const at = snapPlace(coordinates, snap) ?? pointer;
  return <Magnifier tiles={tilesOf(coordinates.raster)} coordinates={coordinates} at={at} screen={screen} />;
}

/** What the stage at hand shows over the outlines. */
function drawMaking(
  canvas: CanvasRenderingContext2D,
  view: View,
  job: Job,
  stage: string,
  pieces: readonly Piece[],
  making: ReturnType<typeof useMaking.getState>,
  process: TableProcess | null,
): void {
  if (stage === 'prove') {
    drawSizes(canvas, view, provedSizes(pieces, job.proof.pinned));
    drawBridges(canvas, view, job.proof.bridges, making.draggedBridge);
    drawPlaces(canvas, view, making.places);
    drawTaken(canvas, view, making.taken, making.aim);
  }
  if (stage === 'make-ready') process?.draw(canvas, view, pieces);
}
