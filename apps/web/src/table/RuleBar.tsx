'use client';
/**
 * The strip of live readings under the light table, always in mm and in inches.
 */
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import Typography from '@mui/material/Typography';
import { fitOf, measuresOf, type Picture, type Piece, sheetBoxOf } from '@nuvet/core/job';
import { printInches } from '@nuvet/core/length';
import { distance, type Point, project } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import { useShallow } from 'zustand/react/shallow';
import { useJob } from '@/job/job-store';
import { colours } from '@/ui/colours';
import { touch } from '@/ui/widths';
import { words } from '@/words';
import { coordinatesOf } from './coordinates';
import { growing } from './hand-drawing';
import { useHand } from './hand-store';
import { rasterNow } from './rectified-images';
import { setTable, useTable } from './table-store';
import { toSheet, wholeSheet } from './view';

export function RuleBar({ picture, pieces }: { picture: Picture | null; pieces: readonly Piece[] }) {
  const { view, screen, pointer, taken, dragged, selected, selectedPiece, hoveredPiece, asPhotographed } = useTable(
    useShallow((s) => ({
      view: s.view,
      screen: s.screen,
      pointer: s.pointer,
      taken: s.taken,
      dragged: s.dragged,
      selected: s.selected,
      selectedPiece: s.selectedPiece,
      hoveredPiece: s.hoveredPiece,
      asPhotographed: s.asPhotographed,
    })),
  );
  const job = useJob((s) => s.job);
  const fit = picture ? fitOf(picture) : null;
  const shownView = view ?? (screen.width > 0 ? wholeSheet(sheetBoxOf(job), screen) : null);
  const at = shownView && pointer ? toSheet(shownView, pointer) : null;
  const chosenByHand = useHand((s) => (s.tray === 'find' ? undefined : s.chosen.at(-1)));
  const piece = pieces.find((p) => p.id === (chosenByHand ?? selectedPiece ?? hoveredPiece));
  const chosen = picture?.marks.find((m) => m.id === selected?.markId);
  const coordinates = picture && shownView ? coordinatesOf(picture, rasterNow(picture, asPhotographed), shownView) : null;
  const span =
    taken.length > 0 && coordinates && pointer
      ? [taken.at(-1) as Point, coordinates.toOriginal(pointer)]
      : (dragged ?? chosen)?.points.slice(0, 2);
  const ends =
    span && fit && span.length === 2
      ? ([project(fit.projection, span[0] as Point), project(fit.projection, span[1] as Point)] as const)
      : null;
  const { aim, places, tray } = useHand(useShallow((s) => ({ aim: s.aim, places: s.places, tray: s.tray })));
  const lastPlace = places.at(-1) ?? (tray === 'draw' ? growing(job)?.points.at(-1)?.at : undefined);
  const drawnEnds = aim && lastPlace ? ([lastPlace, aim] as const) : null;
  const shownEnds = ends ?? drawnEnds;
  const size = piece ? measuresOf(piece) : null;
  return (
    <Box
      component="footer"
      aria-label={words.table.ruleBar}
      sx={{
        gridColumn: '1 / -1',
        display: 'flex',
        alignItems: 'center',
        gap: 4,
        px: 2,
        height: 34,
        bgcolor: 'background.paper',
        borderTop: `1px solid ${colours.line}`,
        overflow: 'hidden',
        whiteSpace: 'nowrap',
        [touch]: { height: 48 },
      }}
    >
      <TouchSwitches />
      <Reading name={words.table.position} text={at ? position(at, fit) : '–'} width={300} />
      <Reading name={words.table.distance} text={shownEnds ? length(distance(...shownEnds), fit) : '–'} width={190} />
      <Reading name={words.table.angle} text={shownEnds ? `${angleOf(...shownEnds).toFixed(2)}°` : '–'} width={80} />
      <Reading
        name={words.table.piece}
        text={
          size
            ? words.table.pieceSize(
                size.widthMm.toFixed(2),
                size.heightMm.toFixed(2),
                printInches(size.widthMm).replace(' in', ''),
                printInches(size.heightMm),
              )
            : '–'
        }
        width={300}
      />
      {fit && !isTrue(fit) && (
        <Typography variant="caption" sx={{ color: 'warning.main', fontWeight: 600, ml: 'auto' }}>
          {words.table.notAtTrueSizeYet}
        </Typography>
      )}
    </Box>
  );
}

/** Before the true size is known, readings are in the picture's pixels: millimetres would be made up. */
const isTrue = (fit: TrueUpFit): boolean => fit.model !== 'unsized';

function position({ x, y }: Point, fit: TrueUpFit | null): string {
  if (fit && !isTrue(fit)) return words.table.pixelPlace((x / fit.mmPerPx).toFixed(1), (y / fit.mmPerPx).toFixed(1));
  return words.table.place(x.toFixed(2), y.toFixed(2), printInches(x).replace(' in', ''), printInches(y));
}

function length(mm: number, fit: TrueUpFit | null): string {
  return !fit || isTrue(fit) ? words.table.length(mm.toFixed(2), printInches(mm)) : words.table.pixelLength((mm / fit.mmPerPx).toFixed(1));
}

/** Degrees counter-clockwise from level, within half a turn either way. */
const angleOf = (a: Point, b: Point): number => (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;

function Reading({ name, text, width }: { name: string; text: string; width: number }) {
  return (
    <Box sx={{ display: 'flex', gap: 1, minWidth: width }}>
      <Typography variant="caption" color="textSecondary">
        {name}
      </Typography>
      <Typography variant="caption" sx={{ fontWeight: 600 }}>
        {text}
      </Typography>
    </Box>
  );
}

/** What Alt and Shift do, for fingers and pens. */
function TouchSwitches() {
  const isFree = useTable((s) => s.isFree);
  const isAdding = useTable((s) => s.isAdding);
  return (
    <Box sx={{ display: 'none', gap: 1, [touch]: { display: 'flex' } }}>
      <ToggleButton value="free" selected={isFree} onChange={() => setTable({ isFree: !isFree })} sx={{ height: 40 }}>
        {words.table.noSnapping}
      </ToggleButton>
      <ToggleButton value="add" selected={isAdding} onChange={() => setTable({ isAdding: !isAdding })} sx={{ height: 40 }}>
        {words.table.selectMore}
      </ToggleButton>
    </Box>
  );
}
