'use client';
/**
 * The middle of the screen: the sheet with its pictures, outlines and marks, and what the pointer does on it.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import {
  drawnPieces,
  fitOf,
  type Job,
  outlinesFrom,
  overallBox,
  type Picture,
  type Piece,
  type Surface,
  sheetBoxOf,
  shownBoxOf,
  workBoxOf,
} from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import { provedSizes } from '@nuvet/core/proof';
import Konva from 'konva';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Layer, Shape, Stage } from 'react-konva';
import { useJob } from '@/stages/job-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { drawDatum, drawMark, drawOverallSize, drawRuling, drawSheet, drawSnap } from './drawing';
import { drawDeviation } from './drawing-deviation';
import { drawHand } from './drawing-hand';
import { drawBurnt, drawHolds, drawPages, drawPlaces, drawPlan, drawSizes, drawTaken } from './drawing-making';
import { drawChosenPieces, drawPieces } from './drawing-outlines';
import { drawRelations } from './drawing-relations';
import { drawSymmetry } from './drawing-symmetry';
import { drawWay } from './drawing-way';
import { useFirstLook } from './first-look';
import { groundOf } from './ground';
import { pathsOf } from './hand-aim';
import { isDrawTool, useHand } from './hand-store';
import { Magnifier } from './Magnifier';
import { useMaking } from './making-store';
import { OutlinesAtRest } from './outlines-at-rest';
import { nativeOf, PictureLayer } from './PictureLayer';
import { PictureTiles } from './picture-tiles';
import { usePointerActions } from './pointer-actions';
import { setTable, type TableState, useTable } from './table-store';
import { useShownMarks } from './use-shown-marks';
import { keptUnder, type Size, type View, wholeSheet } from './view';
import { useSurfaces, useWorkingCopies } from './working-copies';

// A layer a picture may be more than the library thinks wise; each is one plain canvas.
Konva.showWarnings = false;

/** Told to whoever measures whenever other outlines have been drawn. */
const outlinesPainted = 'outlines painted';

/** Where outlines are proved the picture only shows through. */
const paleShare = 0.3;
const isProving = (stage: string): boolean => stage === 'prove' || stage === 'make-ready';

export default function LightTable({ active, stage, pieces }: { active: Picture | null; stage: string; pieces: readonly Piece[] }) {
  const job = useJob((s) => s.job);
  const {
    view,
    screen,
    tool,
    taken,
    pointer,
    opacity,
    hoveredPiece,
    selectedPiece,
    asPhotographed,
    draggedPlace,
    snap,
    dragged,
    peeked,
    symmetry,
    deviation,
    relations,
    way,
  } = useTable();
  const making = useMaking();
  const { isByHand, isHandPicking, handGaps, splitAt, shows, chosen } = useHandView(job, stage);
  const frame = useRef<HTMLDivElement>(null);
  const [message, setMessage] = useState<string | null>(null);
  const pictures = useMemo(
    () => job.pictures.map((p) => (draggedPlace?.pictureId === p.id ? { ...p, place: draggedPlace.place } : p)),
    [job.pictures, draggedPlace],
  );
  const shownActive = pictures.find((p) => p.id === active?.id) ?? null;
  const surfaces = useSurfaces(pictures, asPhotographed && stage === 'true-up');
  const { tilesOf, tick } = useTiles(surfaces);
  useWorkingCopies(job.pictures, dragged !== null);
  useScreenSize(frame);
  useViewKeptUnder(active);
  useViewOfDrawn(job);
  const box = useMemo(() => sheetBoxOf({ pictures, drawings: job.drawings }), [pictures, job.drawings]);
  const shownView = useMemo(() => view ?? (screen.width > 0 ? wholeSheet(box, screen) : null), [view, screen, box]);
  const actions = usePointerActions(frame, active, stage, pieces, setMessage);
  const surface = shownActive ? (surfaces[pictures.indexOf(shownActive)] as Surface) : null;
  const ground = useMemo(
    () => (shownActive && surface && shownView ? groundOf(shownActive, surface, shownView) : null),
    [shownActive, surface, shownView],
  );
  const marks = useShownMarks(active, ground, stage);
  // The docket's button ends what has been taken so far.
  const finishTaken = useRef(actions.finishTaken);
  finishTaken.current = actions.finishTaken;
  useEffect(() => setTable({ endPlaces: tool ? () => finishTaken.current(tool, taken) : null }), [tool, taken]);
  // Kept as they are while only the pointer moves, so that the canvases are not drawn again.
  const sheetShape = useMemo(
    () =>
      shownView && (
        <Shape
          sceneFunc={(context) => {
            for (const p of pictures) if (!p.hidden) drawSheet(nativeOf(context), shownView, shownBoxOf(p));
            if (pictures.every((p) => p.hidden)) drawSheet(nativeOf(context), shownView, box);
          }}
        />
      ),
    [shownView, pictures, box],
  );
  const painted = useRef<readonly Piece[]>(null);
  const outlineLayer = useRef<Konva.Layer>(null);
  useEffect(() => useFirstLook.subscribe(() => outlineLayer.current?.batchDraw()), []);
  const [rested, redrawAtRest] = useState(0);
  const atRest = useMemo(() => new OutlinesAtRest(() => redrawAtRest((n) => n + 1)), []);
  useEffect(() => () => atRest.end(), [atRest]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the view rests all is drawn sharp again
  const outlineShapes = useMemo(() => {
    const overall = isProving(stage) ? overallBox(pieces) : null;
    return (
      shownView && (
        <Shape
          sceneFunc={(context) => {
            const canvas = nativeOf(context);
            drawRuling(canvas, shownView, box, screen);
            const first = useFirstLook.getState().pieces;
            if (first) drawPieces(canvas, shownView, first);
            else atRest.draw(canvas, shownView, pieces, screen);
            if (painted.current !== (first ?? pieces)) performance.mark(outlinesPainted);
            painted.current = first ?? pieces;
            drawChosenPieces(canvas, shownView, pieces, hoveredPiece, isByHand ? null : selectedPiece, isByHand ? chosen : none);
            if (stage === 'trace') drawFindings(canvas, shownView, screen, { deviation, relations, symmetry });
            if (overall) drawOverallSize(canvas, shownView, overall, job.unit);
            if (stage === 'true-up') drawDatum(canvas, shownView);
          }}
        />
      )
    );
  }, [
    shownView,
    box,
    screen,
    pieces,
    hoveredPiece,
    selectedPiece,
    stage,
    job.unit,
    symmetry,
    deviation,
    relations,
    isByHand,
    chosen,
    atRest,
    rested,
  ]);
  const isPicking = (tool !== null && tool !== 'move-picture') || actions.isDraggingMark;
  const cursors = cursorsFor(isPicking || isHandPicking || making.asking !== null, isByHand, tool);
  const snapAt = ground && snap && isPicking ? ground.toScreen(ground.originalOf(snap.at)) : null;
  return (
    <Box
      ref={frame}
      role="application"
      aria-label={words.table.lightTable}
      tabIndex={0}
      {...actions.handlers}
      sx={{
        position: 'relative',
        overflow: 'hidden',
        bgcolor: colours.ground,
        touchAction: 'none',
        cursor: cursors.idle,
        outlineOffset: -3,
        '&:active': {
          cursor: isPicking || isHandPicking ? 'crosshair' : isByHand ? 'default' : tool === 'move-picture' ? 'move' : 'grabbing',
        },
      }}
    >
      {shownView && (
        <Stage width={screen.width} height={screen.height} listening={false}>
          <Layer listening={false}>{sheetShape}</Layer>
          {pictures.map((picture, k) => {
            const shown = surfaces[k] as Surface;
            if (picture.hidden !== (peeked === picture.id)) return null;
            if (isByHand && shows === 'outlines') return null;
            const share = picture.id === active?.id && opacity !== null ? opacity : picture.opacity;
            return (
              <PictureLayer
                key={picture.id}
                tiles={tilesOf(shown)}
                tick={tick}
                surface={shown}
                view={shownView}
                picture={picture}
                screen={screen}
                showsAll={tool?.startsWith('crop') === true && picture.id === active?.id}
                opacity={share * (isProving(stage) ? paleShare : 1)}
                splitAt={splitAt}
              />
            );
          })}
          <Layer ref={outlineLayer} listening={false}>
            {isByHand && shows === 'picture' ? null : outlineShapes}
          </Layer>
          <Layer listening={false}>
            <Shape
              sceneFunc={(context) => {
                for (const mark of marks) drawMark(nativeOf(context), mark);
                if (ground && tool === 'along-edge') drawWay(nativeOf(context), ground, way);
                if (shownView) drawMaking(nativeOf(context), shownView, job, stage, pieces, making);
                if (isByHand && shownView) drawHand(nativeOf(context), shownView, job, pathsOf(pieces), handGaps);
                if (snapAt && snap) drawSnap(nativeOf(context), snapAt, snap.kind);
              }}
            />
          </Layer>
        </Stage>
      )}
      {isPicking && pointer && ground && (
        <Magnifier tiles={tilesOf(ground.surface)} ground={ground} at={snapAt ?? pointer} screen={screen} />
      )}
      {message && (
        <Alert
          severity="warning"
          onClose={() => setMessage(null)}
          sx={{ position: 'absolute', top: 12, left: 12, right: 12, maxWidth: 620 }}
        >
          {message}
        </Alert>
      )}
    </Box>
  );
}

/** The cursor over the table, and while it is pressed. */
function cursorsFor(takesPlaces: boolean, isByHand: boolean, tool: string | null): { idle: string; pressed: string } {
  if (takesPlaces) return { idle: 'crosshair', pressed: 'crosshair' };
  if (tool === 'move-picture') return { idle: 'move', pressed: 'move' };
  return { idle: isByHand ? 'default' : 'grab', pressed: 'grabbing' };
}

/** What is being looked at of traced outlines. */
function drawFindings(
  canvas: CanvasRenderingContext2D,
  view: View,
  screen: Size,
  { deviation, relations, symmetry }: Pick<TableState, 'deviation' | 'relations' | 'symmetry'>,
): void {
  if (deviation) drawDeviation(canvas, view, deviation);
  if (relations) drawRelations(canvas, view, relations.seen, relations.refused);
  if (symmetry) drawSymmetry(canvas, view, symmetry, screen);
}

/** What the stage at hand shows over the outlines. */
function drawMaking(
  canvas: CanvasRenderingContext2D,
  view: View,
  job: Job,
  stage: string,
  pieces: readonly Piece[],
  making: ReturnType<typeof useMaking.getState>,
): void {
  if (stage === 'prove') {
    drawSizes(canvas, view, provedSizes(pieces, job.proof.pinned));
    drawHolds(canvas, view, job.proof.holds, making.draggedHold);
    drawPlaces(canvas, view, making.places);
    drawTaken(canvas, view, making.taken, making.aim);
  }
  if (stage !== 'make-ready') return;
  if (making.tray === 'cut' && making.plan) drawPlan(canvas, view, making.plan);
  if (making.tray === 'print' && making.tiling) drawPages(canvas, view, making.tiling, making.draggedPages);
  if (making.tray === 'cutter' && making.burnt) drawBurnt(canvas, view, pieces, making.burnt, job.setup.cutting.kerfMm);
}

const none: readonly string[] = [];

/** What of the hand's state the table shows. */
function useHandView(job: Job, stage: string) {
  const hand = useHand();
  const pointer = useTable((s) => s.pointer);
  const isByHand = stage === 'trace' && hand.tray !== 'find';
  const { chosen, shows } = hand;
  const handGaps = useMemo(() => (isByHand ? gapsOf(job, chosen) : []), [isByHand, job, chosen]);
  return {
    isByHand,
    chosen,
    shows,
    handGaps,
    isHandPicking: isByHand && (isDrawTool(hand.tool) || hand.asking !== null || hand.tool === 'trim'),
    splitAt: isByHand && shows === 'split' && pointer ? pointer.x : null,
  };
}

/** A job without pictures opens on what is drawn in it. */
function useViewOfDrawn(job: Job): void {
  const screen = useTable((s) => s.screen);
  const isSeen = useRef(false);
  useEffect(() => {
    if (isSeen.current || screen.width === 0) return;
    isSeen.current = true;
    if (job.pictures.length === 0 && job.drawings.length === 0 && drawnPieces(job).length > 0)
      setTable({ view: wholeSheet(workBoxOf(job), screen) });
  }, [screen, job]);
}

/** Where images of the chosen things should meet and do not. */
function gapsOf(job: Job, chosen: readonly string[]): readonly { at: Point; gapMm: number }[] {
  return chosen.flatMap((id) => {
    const drawn = job.drawn.find((d) => d.id === id);
    return drawn && drawn.live.length > 0 ? outlinesFrom(drawn, job).gaps : [];
  });
}

/** Tiles for each surface that is shown; those of others are let go. */
function useTiles(surfaces: readonly Surface[]) {
  const kept = useRef(new Map<string, PictureTiles>());
  const [tick, redraw] = useState(0);
  const waiting = useRef(0);
  const ids = surfaces.map((s) => s.id).join(' ');
  const tilesOf = (surface: Surface): PictureTiles => {
    let tiles = kept.current.get(surface.id);
    if (!tiles) {
      tiles = new PictureTiles(surface.id, surface.widthPx, surface.heightPx);
      tiles.onTile(() => {
        cancelAnimationFrame(waiting.current);
        waiting.current = requestAnimationFrame(() => redraw((n) => n + 1));
      });
      kept.current.set(surface.id, tiles);
    }
    return tiles;
  };
  useEffect(() => {
    const wanted = new Set(ids.split(' '));
    for (const id of kept.current.keys()) if (!wanted.has(id)) kept.current.delete(id);
  }, [ids]);
  useEffect(() => () => cancelAnimationFrame(waiting.current), []);
  return { tilesOf, tick };
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

/** Keeps the active picture in its place on the screen when its fit changes; shows all at first. */
function useViewKeptUnder(picture: Picture | null): void {
  const fit = picture ? fitOf(picture) : null;
  const before = useRef({ id: picture?.id, fit, place: picture?.place });
  useLayoutEffect(() => {
    const { view, screen } = useTable.getState();
    const { id, fit: old, place } = before.current;
    const isMovedOnly = place && picture && (place.x !== picture.place.x || place.y !== picture.place.y);
    // Laying a photograph flat changes its whole shape: then all of it is shown anew.
    const isReshaped = (old?.model === 'perspective') !== (fit?.model === 'perspective');
    if (id === picture?.id && isReshaped) setTable({ view: null });
    else if (id === picture?.id && picture && fit && old && old !== fit && !isMovedOnly && (view || screen.width > 0)) {
      setTable({ view: keptUnder(view ?? wholeSheet(old.sheetBox, screen), old, fit, picture) });
    } else if (id === undefined && picture) setTable({ view: null });
    before.current = { id: picture?.id, fit, place: picture?.place };
  }, [picture, fit]);
}
