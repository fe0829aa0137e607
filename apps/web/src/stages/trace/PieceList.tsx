'use client';
/**
 * The pieces found, as a table: sizes, points, left out or not; and the selected one in full.
 */
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Job, measuresOf, type Piece } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { memo, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { setTable, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PieceThumbnail } from './PieceThumbnail';
import { PurposeField } from './PurposeField';
import { SymmetryOffers } from './SymmetryOffers';

/** More rows than this are shown on request only. */
const rowsAtFirst = 200;

export const PieceList = memo(function PieceList({
  unit,
  pieces,
  dropped,
  onLeaveOut,
}: {
  unit: Job['unit'];
  pieces: readonly Piece[];
  dropped: number;
  onLeaveOut: (ids: string[], leftOut: boolean) => void;
}) {
  const { hoveredPiece, selectedPiece } = useTable(useShallow((s) => ({ hoveredPiece: s.hoveredPiece, selectedPiece: s.selectedPiece })));
  const [all, setAll] = useState(false);
  const kept = pieces.filter((p) => !p.leftOut);
  if (pieces.length === 0) return null;
  return (
    <Section
      title={`${kept.length} ${kept.length === 1 ? 'piece' : 'pieces'}${kept.length < pieces.length ? words.trace.excludedCount(pieces.length - kept.length) : ''}`}
    >
      <Typography variant="caption" color="textSecondary">
        {words.trace.sizesIn(unit, dropped)}
      </Typography>
      <Box component="table" aria-label={words.trace.pieces} sx={pieceTable}>
        <thead>
          <tr>
            <th>{words.trace.piece}</th>
            <th>{words.trace.wide}</th>
            <th>{words.trace.high}</th>
            <th>{words.trace.perimeter}</th>
            <th>{words.trace.pointsColumn}</th>
            <th aria-label={words.trace.included} />
          </tr>
        </thead>
        <tbody>
          {pieces.slice(0, all ? undefined : rowsAtFirst).map((piece) => (
            <PieceRow
              key={piece.id}
              piece={piece}
              unit={unit}
              isLit={piece.id === selectedPiece || piece.id === hoveredPiece}
              onLeaveOut={onLeaveOut}
            />
          ))}
        </tbody>
      </Box>
      {!all && pieces.length > rowsAtFirst && <Button onClick={() => setAll(true)}>{words.trace.showAll(pieces.length)}</Button>}
    </Section>
  );
});

interface PieceRowProps {
  readonly piece: Piece;
  readonly unit: Job['unit'];
  readonly isLit: boolean;
  readonly onLeaveOut: (ids: string[], leftOut: boolean) => void;
}

/** A row of plain elements: there may be hundreds, and they must not hold up the page. */
const PieceRow = memo(function PieceRow({ piece, unit, isLit, onLeaveOut }: PieceRowProps) {
  const m = measuresOf(piece);
  return (
    <tr
      aria-selected={isLit}
      data-left-out={piece.leftOut || undefined}
      onPointerEnter={() => setTable({ hoveredPiece: piece.id })}
      onPointerLeave={() => setTable({ hoveredPiece: null })}
      onClick={() => setTable(({ selectedPiece }) => ({ selectedPiece: piece.id === selectedPiece ? null : piece.id }))}
    >
      <td>
        <PieceThumbnail piece={piece} />
        {piece.name.replace('Piece ', '')}
      </td>
      <td>{shortLength(m.widthMm, unit)}</td>
      <td>{shortLength(m.heightMm, unit)}</td>
      <td>{shortLength(m.perimeterMm, unit)}</td>
      <td>{m.segments}</td>
      <td>
        <button
          type="button"
          title={piece.leftOut ? words.trace.includePiece : words.trace.excludePiece}
          aria-label={`${piece.leftOut ? words.trace.include : words.trace.exclude} ${piece.name}`}
          onFocus={() => setTable({ hoveredPiece: piece.id })}
          onBlur={() => setTable({ hoveredPiece: null })}
          onClick={(event) => {
            event.stopPropagation();
            onLeaveOut([piece.id], !piece.leftOut);
          }}
        >
          {piece.leftOut ? <VisibilityOffOutlined fontSize="inherit" /> : <VisibilityOutlined fontSize="inherit" />}
        </button>
      </td>
    </tr>
  );
});

/** Rows that are not in sight are neither laid out nor painted; those that are stand as a picture of their own. */
const rowHeight = 39;
const columns = '1.05fr 1fr 1fr 1.4fr 0.95fr 34px';

const pieceTable = {
  display: 'block',
  fontSize: 13,
  mt: 0.5,
  willChange: 'transform',
  '& thead, & tbody': { display: 'block' },
  '& tr': { display: 'grid', gridTemplateColumns: columns, alignItems: 'center', borderBottom: `1px solid ${colours.line}` },
  '& tbody tr': { height: rowHeight, contentVisibility: 'auto', containIntrinsicHeight: rowHeight, cursor: 'pointer' },
  '& th': { fontWeight: 600, color: 'text.secondary', textAlign: 'right', p: 0.5 },
  '& td': { textAlign: 'right', p: 0.5 },
  '& th:first-of-type, & td:first-of-type': { textAlign: 'left' },
  '& td:first-of-type': { whiteSpace: 'nowrap' },
  '& tbody tr[aria-selected=true]': { bgcolor: 'rgba(30, 123, 107, 0.1)' },
  '& tr[data-left-out] td': { textDecoration: 'line-through', color: 'text.secondary' },
  '& button': {
    border: 0,
    bgcolor: 'transparent',
    p: 0.5,
    display: 'grid',
    fontSize: 18,
    color: 'text.secondary',
    cursor: 'pointer',
    borderRadius: 1,
    ml: 'auto',
  },
  '& button:hover': { color: 'primary.main' },
} as const;

const shortLength = (mm: number, unit: Job['unit']): string => (unit === 'mm' ? mm.toFixed(2) : (mm / 25.4).toFixed(3));

/** The piece that is selected: its sizes, symmetry and purpose. */
export function SelectedPiece({ piece, unit }: { piece: Piece; unit: Job['unit'] }) {
  const m = measuresOf(piece);
  return (
    <Box sx={{ my: 1, p: 1.25, borderRadius: 1, bgcolor: 'rgba(30, 123, 107, 0.08)' }}>
      <Typography variant="h3">{piece.name}</Typography>
      <Reading name={words.trace.wide}>{printBoth(m.widthMm, unit)}</Reading>
      <Reading name={words.trace.high}>{printBoth(m.heightMm, unit)}</Reading>
      <Reading name={words.trace.perimeter}>{printBoth(m.perimeterMm, unit)}</Reading>
      <Reading name={words.trace.area}>{words.trace.squareCentimetres((m.areaMm2 / 100).toFixed(2))}</Reading>
      <Reading name={words.trace.holes}>{m.holes}</Reading>
      <SymmetryOffers piece={piece} unit={unit} />
      <Box sx={{ mt: 1.25 }}>
        <PurposeField pieces={[piece]} />
      </Box>
    </Box>
  );
}
