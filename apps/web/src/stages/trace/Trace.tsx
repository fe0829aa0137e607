'use client';
import RefreshOutlined from '@mui/icons-material/RefreshOutlined';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import {
  defaultTraceSettings,
  fitOf,
  type Job,
  type JobTraceSettings,
  measuresOf,
  type Picture,
  type Piece,
  type Purpose,
  purposes,
} from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { memo, useCallback, useState } from 'react';
import { setTable, useTable } from '@/table/table-store';
import { LengthField } from '@/ui/LengthField';
import { colours } from '@/ui/theme';
import { Docket, Reading, Section, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';
import { useAutomaticTrace } from './use-automatic-trace';

/** More rows than this are shown on request only. */
const rowsAtFirst = 200;

export function Trace({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [moving, setMoving] = useState<JobTraceSettings | null>(null);
  const settings = moving ?? job.trace?.settings ?? defaultTraceSettings;
  const { progress, message, stop, again } = useAutomaticTrace(picture, settings, moving !== null, () => setMoving(null));
  const preview = useTable((s) => s.preview);
  const shown = preview ?? job.trace;
  const pieces = shown?.pieces ?? [];
  const kept = pieces.filter((p) => !p.leftOut);
  const leaveOut = useCallback((pieceIds: string[], leftOut: boolean) => run({ do: 'leave-out', pieceIds, leftOut }), [run]);
  const isSized = fitOf(picture).model !== 'unsized';
  return (
    <Docket
      tray={
        <>
          <ToolCard icon={<RefreshOutlined />} word="Find again" explanation="Trace the picture anew with these settings" onClick={again} />
          <ToolCard
            icon={<VisibilityOutlined />}
            word="Take all in"
            explanation="Take back in what was left out"
            disabled={kept.length === pieces.length}
            onClick={() =>
              leaveOut(
                pieces.filter((p) => p.leftOut).map((p) => p.id),
                false,
              )
            }
          />
        </>
      }
      next={{ word: 'Next: prove', onClick: () => onStage('prove'), disabled: kept.length === 0 }}
    >
      {!isSized && (
        <Alert severity="warning" variant="outlined">
          The true size is not known yet, so that tolerance and sizes are only a guess.
        </Alert>
      )}
      <Settings settings={settings} found={shown?.threshold ?? null} unit={job.unit} onMove={setMoving} />
      {message ? (
        <Alert severity="warning">{message}</Alert>
      ) : progress ? (
        <Box role="status">
          <Typography variant="body2">{progress.word === 'reading' ? 'Reading the picture' : 'Finding outlines'} …</Typography>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <LinearProgress variant="determinate" value={progress.share * 100} sx={{ flex: 1 }} />
            <Button size="small" onClick={stop}>
              Stop
            </Button>
          </Box>
        </Box>
      ) : null}
      <PieceList job={job} pieces={pieces} dropped={shown?.dropped ?? 0} onLeaveOut={leaveOut} />
    </Docket>
  );
}

interface SettingsProps {
  readonly settings: JobTraceSettings;
  readonly found: number | null;
  readonly unit: Job['unit'];
  readonly onMove: (settings: JobTraceSettings) => void;
}

/** Sliders run evenly in the logarithm, so that fine settings have as much room as coarse ones. */
const toSlider = (mm: number) => Math.round(Math.log10(Math.max(0.01, mm)) * 100);
const fromSlider = (value: number) => Number((10 ** (value / 100)).toPrecision(2));

function Settings({ settings, found, unit, onMove }: SettingsProps) {
  const threshold = settings.threshold === 'auto' ? (found ?? 128) : settings.threshold;
  const lengths = [
    { key: 'toleranceMm', label: 'Tolerance', hint: 'closer … smoother', min: 0.01, max: 2 },
    { key: 'smallestMm', label: 'Smallest', hint: 'specks under this are left out', min: 0.1, max: 20 },
  ] as const;
  return (
    <Section title="What counts as ink">
      <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="body2" color="textSecondary">
          Threshold {Math.round(threshold)}
        </Typography>
        <FormControlLabel
          label="automatic"
          labelPlacement="start"
          control={
            <Switch
              size="small"
              checked={settings.threshold === 'auto'}
              onChange={(_, on) => onMove({ ...settings, threshold: on ? 'auto' : Math.round(threshold) })}
            />
          }
        />
      </Box>
      <Slider
        aria-label="Threshold"
        size="small"
        min={1}
        max={254}
        value={threshold}
        onChange={(_, value) => onMove({ ...settings, threshold: value as number })}
      />
      {lengths.map(({ key, label, hint, min, max }) => (
        <Box key={key} sx={{ display: 'grid', gridTemplateColumns: '1fr 128px', columnGap: 2, alignItems: 'start', mt: 1 }}>
          <Box>
            <Typography variant="caption" color="textSecondary">
              {hint}
            </Typography>
            <Slider
              aria-label={label}
              size="small"
              min={toSlider(min)}
              max={toSlider(max)}
              value={toSlider(settings[key])}
              onChange={(_, value) => onMove({ ...settings, [key]: fromSlider(value as number) })}
            />
          </Box>
          <LengthField
            label={label}
            text={`${settings[key]} mm`}
            unit={unit}
            hint=" "
            onLength={(mm) => onMove({ ...settings, [key]: Math.min(10, Math.max(min, mm)) })}
          />
        </Box>
      ))}
    </Section>
  );
}

function PieceList({
  job,
  pieces,
  dropped,
  onLeaveOut,
}: {
  job: Job;
  pieces: readonly Piece[];
  dropped: number;
  onLeaveOut: (ids: string[], leftOut: boolean) => void;
}) {
  const { hoveredPiece, selectedPiece } = useTable();
  const [all, setAll] = useState(false);
  const kept = pieces.filter((p) => !p.leftOut);
  if (pieces.length === 0) return null;
  const selected = pieces.find((p) => p.id === selectedPiece);
  return (
    <Section
      title={`${kept.length} ${kept.length === 1 ? 'piece' : 'pieces'}${kept.length < pieces.length ? `, ${pieces.length - kept.length} left out` : ''}`}
    >
      <Typography variant="caption" color="textSecondary">
        Sizes in {job.unit}. {dropped > 0 ? `${dropped} specks and pinholes dropped.` : 'No specks dropped.'}
      </Typography>
      {selected && <SelectedPiece piece={selected} unit={job.unit} />}
      <Box component="table" aria-label="Pieces" sx={pieceTable}>
        <thead>
          <tr>
            <th>Piece</th>
            <th>Wide</th>
            <th>High</th>
            <th>Perimeter</th>
            <th>Points</th>
            <th aria-label="Left out or not" />
          </tr>
        </thead>
        <tbody>
          {pieces.slice(0, all ? undefined : rowsAtFirst).map((piece) => (
            <PieceRow
              key={piece.id}
              piece={piece}
              unit={job.unit}
              isLit={piece.id === selectedPiece || piece.id === hoveredPiece}
              onLeaveOut={onLeaveOut}
            />
          ))}
        </tbody>
      </Box>
      {!all && pieces.length > rowsAtFirst && <Button onClick={() => setAll(true)}>Show all {pieces.length}</Button>}
    </Section>
  );
}

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
      <td>{piece.name.replace('Piece ', '')}</td>
      <td>{shortLength(m.widthMm, unit)}</td>
      <td>{shortLength(m.heightMm, unit)}</td>
      <td>{shortLength(m.perimeterMm, unit)}</td>
      <td>{m.segments}</td>
      <td>
        <button
          type="button"
          title={piece.leftOut ? 'Take this piece back in' : 'Leave this piece out'}
          aria-label={`${piece.leftOut ? 'Take in' : 'Leave out'} ${piece.name}`}
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

const pieceTable = {
  width: '100%',
  borderCollapse: 'collapse',
  fontSize: 13,
  mt: 0.5,
  '& th': { fontWeight: 600, color: 'text.secondary', textAlign: 'right', p: 0.5, borderBottom: `1px solid ${colours.line}` },
  '& td': { textAlign: 'right', p: 0.5, borderBottom: `1px solid ${colours.line}` },
  '& th:first-of-type, & td:first-of-type': { textAlign: 'left' },
  '& tbody tr': { cursor: 'pointer' },
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

function SelectedPiece({ piece, unit }: { piece: Piece; unit: Job['unit'] }) {
  const run = useJob((s) => s.run);
  const m = measuresOf(piece);
  return (
    <Box sx={{ my: 1, p: 1.25, borderRadius: 1, bgcolor: 'rgba(30, 123, 107, 0.08)' }}>
      <Typography variant="h3">{piece.name}</Typography>
      <Reading name="Wide">{printBoth(m.widthMm, unit)}</Reading>
      <Reading name="High">{printBoth(m.heightMm, unit)}</Reading>
      <Reading name="All round">{printBoth(m.perimeterMm, unit)}</Reading>
      <Reading name="Area">{(m.areaMm2 / 100).toFixed(2)} cm²</Reading>
      <Reading name="Holes">{m.holes}</Reading>
      <TextField
        select
        fullWidth
        label="Purpose"
        value={piece.purpose}
        onChange={(event) => run({ do: 'set-purpose', pieceIds: [piece.id], purpose: event.target.value as Purpose })}
        sx={{ mt: 1.25 }}
      >
        {purposes.map((purpose) => (
          <MenuItem key={purpose} value={purpose}>
            {purpose}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  );
}
