'use client';
/**
 * The middle of the screen: the sheet with its picture, outlines and marks, and what the pointer does on it.
 */
import Box from '@mui/material/Box';
import { fitOf, keptPieces, overallBox, type Picture, type Piece } from '@nuvet/core/job';
import { printMm } from '@nuvet/core/length';
import { apply, distance, inverse } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import type Konva from 'konva';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Layer, Shape, Stage } from 'react-konva';
import { useJob } from '@/stages/job-store';
import { colours } from '@/ui/theme';
import { drawMark, drawOverallSize, drawPieces, drawRuling, drawSheet, type ShownMark } from './drawing';
import { Magnifier } from './Magnifier';
import { PictureTiles } from './picture-tiles';
import { usePointerActions } from './pointer-actions';
import { setTable, useTable } from './table-store';
import { keptUnder, picturePlacement, wholeSheet } from './view';

/** Where outlines are proved the picture only shows through. */
const paleShare = 0.3;
const isProving = (stage: string): boolean => stage === 'prove' || stage === 'make-ready';

const nativeOf = (context: Konva.Context): CanvasRenderingContext2D =>
  (context as unknown as { _context: CanvasRenderingContext2D })._context;

export default function LightTable({ picture, stage }: { picture: Picture; stage: string }) {
  const job = useJob((s) => s.job);
  const { view, screen, tool, pointer, opacity, preview, hoveredPiece, selectedPiece } = useTable();
  const frame = useRef<HTMLDivElement>(null);
  const fit = fitOf(picture);
  const tiles = useMemo(
    () => new PictureTiles(picture.id, picture.widthPx, picture.heightPx),
    [picture.id, picture.widthPx, picture.heightPx],
  );
  const [tick, redraw] = useState(0);
  useEffect(() => {
    let waiting = 0;
    const stop = tiles.onTile(() => {
      cancelAnimationFrame(waiting);
      waiting = requestAnimationFrame(() => redraw((n) => n + 1));
    });
    return () => {
      cancelAnimationFrame(waiting);
      stop();
    };
  }, [tiles]);
  useScreenSize(frame);
  useViewKeptUnder(picture, fit);
  const shownView = useMemo(() => view ?? (screen.width > 0 ? wholeSheet(fit, screen) : null), [view, screen, fit]);
  const actions = usePointerActions(frame, picture, fit, stage);
  const placement = useMemo(() => (shownView ? picturePlacement(shownView, fit) : null), [shownView, fit]);
  const marks = useShownMarks(picture, stage);
  const trace = stage === 'bring-in' || stage === 'true-up' ? null : (preview ?? job.trace);
  const shown = useMemo((): readonly Piece[] => (stage === 'trace' ? (trace?.pieces ?? []) : keptPieces(trace)), [trace, stage]);
  // Kept as they are while only the pointer moves, so that the canvases are not drawn again.
  const sheetShape = useMemo(
    () => shownView && <Shape sceneFunc={(context) => drawSheet(nativeOf(context), shownView, fit)} />,
    [shownView, fit],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tick tells that a tile has come in
  const pictureShape = useMemo(
    () => placement && <Shape sceneFunc={(context) => tiles.draw(nativeOf(context), placement, screen, window.devicePixelRatio)} />,
    [placement, tiles, screen, tick],
  );
  const outlineShapes = useMemo(() => {
    const overall = isProving(stage) ? overallBox(shown) : null;
    return (
      shownView && (
        <Shape
          sceneFunc={(context) => {
            const canvas = nativeOf(context);
            drawRuling(canvas, shownView, fit, screen);
            drawPieces(canvas, shownView, shown, hoveredPiece, selectedPiece);
            if (overall) drawOverallSize(canvas, shownView, overall, job.unit);
          }}
        />
      )
    );
  }, [shownView, fit, screen, shown, hoveredPiece, selectedPiece, stage, job.unit]);
  const isPicking = stage === 'true-up' && (tool !== null || actions.isDraggingMark);
  return (
    <Box
      ref={frame}
      role="application"
      aria-label="Light table"
      tabIndex={0}
      {...actions.handlers}
      sx={{
        position: 'relative',
        overflow: 'hidden',
        bgcolor: colours.ground,
        touchAction: 'none',
        cursor: isPicking ? 'crosshair' : 'grab',
        outlineOffset: -3,
        '&:active': { cursor: isPicking ? 'crosshair' : 'grabbing' },
      }}
    >
      {shownView && placement && (
        <Stage width={screen.width} height={screen.height} listening={false}>
          <Layer listening={false}>{sheetShape}</Layer>
          <PictureLayer opacity={(opacity ?? picture.opacity) * (isProving(stage) ? paleShare : 1)}>{pictureShape}</PictureLayer>
          <Layer listening={false}>
            {outlineShapes}
            <Shape
              sceneFunc={(context) => {
                for (const mark of marks) drawMark(nativeOf(context), placement, mark);
              }}
            />
          </Layer>
        </Stage>
      )}
      {isPicking && pointer && placement && <Magnifier tiles={tiles} placement={placement} at={pointer} screen={screen} />}
    </Box>
  );
}

/** A layer whose whole canvas is as opaque as the picture, so that overlapping tiles do not show. */
function PictureLayer({ opacity, children }: { opacity: number; children: React.ReactNode }) {
  const layer = useRef<Konva.Layer>(null);
  useLayoutEffect(() => {
    const element = layer.current?.getNativeCanvasElement();
    if (element) element.style.opacity = String(opacity);
  });
  return (
    <Layer ref={layer} listening={false}>
      {children}
    </Layer>
  );
}

function useScreenSize(frame: React.RefObject<HTMLDivElement | null>): void {
  useLayoutEffect(() => {
    const element = frame.current;
    if (!element) return;
    const measure = () => setTable({ screen: { width: element.clientWidth, height: element.clientHeight } });
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, [frame]);
}

/** Keeps the picture in its place on the screen when its fit changes; shows it whole at first. */
function useViewKeptUnder(picture: Picture, fit: TrueUpFit): void {
  const before = useRef({ id: picture.id, fit });
  useLayoutEffect(() => {
    const { view, screen } = useTable.getState();
    if (before.current.id !== picture.id) setTable({ view: screen.width > 0 ? wholeSheet(fit, screen) : null });
    else if (before.current.fit !== fit && (view || screen.width > 0)) {
      setTable({ view: keptUnder(view ?? wholeSheet(before.current.fit, screen), before.current.fit, fit, picture) });
    }
    before.current = { id: picture.id, fit };
  }, [picture, fit]);
}

/** The marks as they stand now: those of the picture, one in the making, one being dragged. */
function useShownMarks(picture: Picture, stage: string): ShownMark[] {
  const { tool, firstEnd, dragged, selectedEnd, pointer, view, screen } = useTable();
  if (stage !== 'true-up') return [];
  const fit = fitOf(picture);
  const marks = picture.marks.map((mark): ShownMark => {
    const { a, b } = dragged?.markId === mark.id ? dragged : mark;
    const measured = fit.model === 'unsized' ? `${distance(a, b).toFixed(1)} px` : printMm(distance(a, b) * fit.mmPerPx);
    const word = mark.kind === 'known-length' ? mark.text || 'length?' : mark.kind === 'check' ? measured : mark.kind;
    return { kind: mark.kind, a, b, word, selectedEnd: selectedEnd?.markId === mark.id ? selectedEnd.end : null };
  });
  const shownView = view ?? (screen.width > 0 ? wholeSheet(fit, screen) : null);
  if (tool && firstEnd && pointer && shownView) {
    const b = apply(inverse(picturePlacement(shownView, fit)), pointer);
    marks.push({ kind: tool, a: firstEnd, b, word: '', selectedEnd: null });
  }
  return marks;
}
