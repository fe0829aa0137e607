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
  type RasterSource,
  sheetBoxOf,
  shownBoxOf,
  workBoxOf,
} from '@nuvet/core/job';
import type { Point, Box as SheetBox } from '@nuvet/core/plane';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useJob } from '@/job/job-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { CanvasLayer } from './CanvasLayer';
import { coordinatesOf } from './coordinates';
import { drawDatum, drawOverallSize, drawRuling, drawSheet } from './drawing';
import { drawDeviation } from './drawing-deviation';
import { drawChosenPieces, drawPieces } from './drawing-outlines';
import { drawRelations } from './drawing-relations';
import { drawSymmetry } from './drawing-symmetry';
import { isDrawTool, useHand } from './hand-store';
import { useMaking } from './making-store';
import { OutlinesAtRest } from './outline-bitmap-cache';
import { PictureLayer } from './PictureLayer';
import { PictureTiles } from './picture-tiles';
import { usePointerActions } from './pointer-actions';
import { useFirstLook } from './preview';
import { useRasterSources, useRectifiedImages } from './rectified-images';
import { PickingGlass, ToolOverlay } from './ToolOverlay';
import type { TableProcess } from './table-process';
import { setTable, type TableState, useTable } from './table-store';
import { keptUnder, type Size, type View, wholeSheet } from './view';

/** Told to whoever measures whenever other outlines have been drawn. */
const outlinesPainted = 'outlines painted';

/** Where outlines are proved the picture only shows through. */
const paleShare = 0.3;
const isProving = (stage: string): boolean => stage === 'prove' || stage === 'make-ready';

/** What the table is drawn by, but for what follows the pointer; see `ToolOverlay`. */
const tableView = (s: TableState) => ({
  view: s.view,
  screen: s.screen,
  tool: s.tool,
  taken: s.taken,
  opacity: s.opacity,
  hoveredPiece: s.hoveredPiece,
  selectedPiece: s.selectedPiece,
  asPhotographed: s.asPhotographed,
  draggedPlace: s.draggedPlace,
  isDragging: s.dragged !== null,
  peeked: s.peeked,
  symmetry: s.symmetry,
  deviation: s.deviation,
  relations: s.relations,
});

interface LightTableProps {
  readonly active: Picture | null;
  readonly stage: string;
  readonly pieces: readonly Piece[];
  /** The process that is open, while it is made ready. */
  readonly process?: TableProcess | null;
  /** The sheet of stock that pieces are laid out on, apart from the pictures that they come from; null where they lie as drawn. */
  readonly stockBox?: SheetBox | null;
}

export default function LightTable({ active, stage, pieces, process = null, stockBox = null }: LightTableProps) {
  const job = useJob((s) => s.job);
  const {
    view,
    screen,
    tool,
    taken,
    opacity,
    hoveredPiece,
    selectedPiece,
    asPhotographed,
    draggedPlace,
    isDragging,
    peeked,
    symmetry,
    deviation,
    relations,
  } = useTable(useShallow(tableView));
  const isAsking = useMaking((s) => s.asking !== null);
  const { isByHand, isHandPicking, handGaps, splitAt, shows, chosen } = useHandView(job, stage);
  const frame = useRef<HTMLDivElement>(null);
  const [message, setMessage] = useState<string | null>(null);
  const pictures = useMemo(
    () => (stockBox ? [] : job.pictures).map((p) => (draggedPlace?.pictureId === p.id ? { ...p, place: draggedPlace.place } : p)),
    [job.pictures, draggedPlace, stockBox],
  );
  const shownActive = pictures.find((p) => p.id === active?.id) ?? null;
  const rasters = useRasterSources(pictures, asPhotographed && stage === 'true-up');
  const { tilesOf, tick } = useTiles(rasters);
  useRectifiedImages(job.pictures, isDragging);
  useScreenSize(frame);
  useViewKeptUnder(active);
  useViewOfDrawn(job, stockBox);
  const box = useMemo(() => stockBox ?? sheetBoxOf({ pictures, drawings: job.drawings }), [pictures, job.drawings, stockBox]);
  const shownView = useMemo(() => view ?? (screen.width > 0 ? wholeSheet(box, screen) : null), [view, screen, box]);
  const actions = usePointerActions(frame, active, stage, pieces, process, setMessage);
  const raster = shownActive ? (rasters[pictures.indexOf(shownActive)] as RasterSource) : null;
  const coordinates = useMemo(
    () => (shownActive && raster && shownView ? coordinatesOf(shownActive, raster, shownView) : null),
    [shownActive, raster, shownView],
  );
  // The docket's button ends what has been taken so far.
  const finishTaken = useRef(actions.finishTaken);
  finishTaken.current = actions.finishTaken;
  useEffect(() => setTable({ endPlaces: tool ? () => finishTaken.current(tool, taken) : null }), [tool, taken]);
  // Kept as they are while only the pointer moves, so that the canvases are not drawn again.
  const drawSheets = useCallback(
    (canvas: CanvasRenderingContext2D) => {
      if (!shownView) return;
      for (const p of pictures) if (!p.hidden) drawSheet(canvas, shownView, shownBoxOf(p));
      if (pictures.every((p) => p.hidden)) drawSheet(canvas, shownView, box);
    },
    [shownView, pictures, box],
  );
  const painted = useRef<readonly Piece[]>(null);
  const redrawOutlines = useRef<(() => void) | null>(null);
  useEffect(() => useFirstLook.subscribe(() => redrawOutlines.current?.()), []);
  const [rested, redrawAtRest] = useState(0);
  const atRest = useMemo(() => new OutlinesAtRest(() => redrawAtRest((n) => n + 1)), []);
  useEffect(() => () => atRest.end(), [atRest]);
  const showsOutlines = !(isByHand && shows === 'picture');
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the view rests all is drawn sharp again
  const drawOutlines = useCallback(
    (canvas: CanvasRenderingContext2D) => {
      if (!shownView || !showsOutlines) return;
      drawRuling(canvas, shownView, box, screen);
      const first = useFirstLook.getState().pieces;
      if (first) drawPieces(canvas, shownView, first);
      else atRest.draw(canvas, shownView, pieces, screen);
      if (painted.current !== (first ?? pieces)) performance.mark(outlinesPainted);
      painted.current = first ?? pieces;
      drawChosenPieces(canvas, shownView, pieces, hoveredPiece, isByHand ? null : selectedPiece, isByHand ? chosen : none);
      if (stage === 'trace') drawFindings(canvas, shownView, screen, { deviation, relations, symmetry });
      const overall = isProving(stage) ? overallBox(pieces) : null;
      if (overall) drawOverallSize(canvas, shownView, overall, job.unit);
      if (stage === 'true-up') drawDatum(canvas, shownView);
    },
    [
      shownView,
      showsOutlines,
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
    ],
  );
  const isPicking = (tool !== null && tool !== 'move-picture') || actions.holding === 'mark';
  const cursors = cursorsFor(isPicking || isHandPicking || isAsking, isByHand, tool);
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
        <>
          <CanvasLayer draw={drawSheets} screen={screen} />
          {pictures.map((picture, k) => {
            const shown = rasters[k] as RasterSource;
            if (picture.hidden !== (peeked === picture.id)) return null;
            if (isByHand && shows === 'outlines') return null;
            const share = picture.id === active?.id && opacity !== null ? opacity : picture.opacity;
            return (
              <PictureLayer
                key={picture.id}
                tiles={tilesOf(shown)}
                tick={tick}
                raster={shown}
                view={shownView}
                picture={picture}
                screen={screen}
                showsAll={tool?.startsWith('crop') === true && picture.id === active?.id}
                opacity={share * (isProving(stage) ? paleShare : 1)}
                splitAt={splitAt}
              />
            );
          })}
          <CanvasLayer draw={drawOutlines} screen={screen} redraw={redrawOutlines} />
          <ToolOverlay
            job={job}
            active={active}
            coordinates={coordinates}
            stage={stage}
            pieces={pieces}
            view={shownView}
            isByHand={isByHand}
            isPicking={isPicking}
            gaps={handGaps}
            process={process}
          />
        </>
      )}
      {isPicking && coordinates && <PickingGlass coordinates={coordinates} tilesOf={tilesOf} />}
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

const none: readonly string[] = [];

/** What of the hand's state the table shows. */
function useHandView(job: Job, stage: string) {
  const hand = useHand(useShallow((s) => ({ tray: s.tray, tool: s.tool, isAsking: s.asking !== null, chosen: s.chosen, shows: s.shows })));
  const isByHand = stage === 'trace' && hand.tray !== 'find';
  const { chosen, shows } = hand;
  const isSplit = isByHand && shows === 'split';
  const splitAt = useTable((s) => (isSplit && s.pointer ? s.pointer.x : null));
  const handGaps = useMemo(() => (isByHand ? gapsOf(job, chosen) : []), [isByHand, job, chosen]);
  return {
    isByHand,
    chosen,
    shows,
    handGaps,
    isHandPicking: isByHand && (isDrawTool(hand.tool) || hand.isAsking || hand.tool === 'trim'),
    splitAt,
  };
}

/** A job without pictures opens on what is drawn in it; one that is laid out on the sheet of stock. */
function useViewOfDrawn(job: Job, stockBox: SheetBox | null): void {
  const screen = useTable((s) => s.screen);
  const isSeen = useRef(false);
  useEffect(() => {
    if (isSeen.current || screen.width === 0) return;
    isSeen.current = true;
    if (stockBox) setTable({ view: null });
    else if (job.pictures.length === 0 && job.drawings.length === 0 && drawnPieces(job).length > 0)
      setTable({ view: wholeSheet(workBoxOf(job), screen) });
  }, [screen, job, stockBox]);
}

/** Where images of the chosen things should meet and do not. */
function gapsOf(job: Job, chosen: readonly string[]): readonly { at: Point; gapMm: number }[] {
  return chosen.flatMap((id) => {
    const drawn = job.drawn.find((d) => d.id === id);
    return drawn && drawn.live.length > 0 ? outlinesFrom(drawn, job).gaps : [];
  });
}

/** Tiles for each raster that is shown; those of others are let go. */
function useTiles(rasters: readonly RasterSource[]) {
  const kept = useRef(new Map<string, PictureTiles>());
  const [tick, redraw] = useState(0);
  const waiting = useRef(0);
  const ids = rasters.map((s) => s.id).join(' ');
  const tilesOf = (raster: RasterSource): PictureTiles => {
    let tiles = kept.current.get(raster.id);
    if (!tiles) {
      tiles = new PictureTiles(raster.id, raster.widthPx, raster.heightPx);
      tiles.onTile(() => {
        cancelAnimationFrame(waiting.current);
        waiting.current = requestAnimationFrame(() => redraw((n) => n + 1));
      });
      kept.current.set(raster.id, tiles);
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
