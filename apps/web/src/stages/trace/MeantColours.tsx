'use client';
/**
 * The colours of a picture: which are traced, and the purpose of each.
 */
import ColorizeOutlined from '@mui/icons-material/ColorizeOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type JobTraceSettings, type Picture, type Purpose, purposes, type RasterSource } from '@nuvet/core/job';
import { isSameColour, rgbOfHex } from '@nuvet/core/raster';
import { useEffect, useRef, useState } from 'react';
import { takeTool, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';

export interface FoundColour {
  readonly hex: string;
  readonly share: number;
}

type Meant = JobTraceSettings['colours'];

/** The colours of the picture, read once colours are asked for. */
export function useColoursOf(picture: Picture, raster: RasterSource, isByColour: boolean) {
  const [found, setFound] = useState<readonly FoundColour[] | null>(null);
  const [isWanted, setIsWanted] = useState(false);
  const onFirst = useRef<((first: Meant) => void) | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the raster's id stands for picture and raster
  useEffect(() => {
    if (!isByColour && !isWanted) return;
    let isCurrent = true;
    tracer()
      .coloursIn(picture, raster)
      .then(
        (list) => {
          if (!isCurrent) return;
          setFound(list);
          onFirst.current?.(allButPaper(list));
          onFirst.current = null;
          setIsWanted(false);
        },
        () => isCurrent && setIsWanted(false),
      );
    return () => {
      isCurrent = false;
    };
  }, [isByColour || isWanted, raster.id]);
  const want = (then: (first: Meant) => void): void => {
    if (found) then(allButPaper(found));
    else {
      onFirst.current = then;
      setIsWanted(true);
    }
  };
  return { found, isWanted, want };
}

/** The commonest colour is the paper; the others are traced, each for a purpose of its own while there are some. */
const allButPaper = (found: readonly FoundColour[]): Meant =>
  found.slice(1).map(({ hex }, k) => ({ hex, purpose: purposes[Math.min(k, 2)] as Purpose }));

export const isSame = (a: string, b: string): boolean => {
  const [p, q] = [rgbOfHex(a), rgbOfHex(b)];
  return p !== null && q !== null && isSameColour(p, q);
};

interface Props {
  readonly found: readonly FoundColour[] | null;
  readonly settings: JobTraceSettings;
  readonly onMove: (settings: JobTraceSettings) => void;
}

export function MeantColours({ found, settings, onMove }: Props) {
  const isPicking = useTable((s) => s.tool === 'pick-colour');
  const { colours: meant } = settings;
  const set = (next: Meant) => next.length > 0 && onMove({ ...settings, colours: next });
  const rest = (found ?? []).filter(({ hex }) => !meant.some((m) => isSame(m.hex, hex)));
  const shareOf = (hex: string) => found?.find((f) => isSame(f.hex, hex))?.share;
  return (
    <Box role="group" aria-label={words.trace.coloursToTrace} sx={{ mt: 1 }}>
      {!found && <Typography variant="body2">{words.trace.readingTheColours}</Typography>}
      {meant.map(({ hex, purpose }) => (
        <Row
          key={hex}
          hex={hex}
          share={shareOf(hex)}
          isMeant
          onToggle={() => set(meant.filter((m) => m.hex !== hex))}
          isLast={meant.length === 1}
        >
          <TextField
            select
            size="small"
            value={purpose}
            slotProps={{ select: { SelectDisplayProps: { 'aria-label': words.trace.purposeOf(hex) } } }}
            onChange={(event) => set(meant.map((m) => (m.hex === hex ? { hex, purpose: event.target.value as Purpose } : m)))}
            sx={{ minWidth: 112, '& .MuiSelect-select': { py: 0.5 } }}
          >
            {purposes.map((one) => (
              <MenuItem key={one} value={one}>
                {one}
              </MenuItem>
            ))}
          </TextField>
        </Row>
      ))}
      {rest.map(({ hex, share }) => (
        <Row key={hex} hex={hex} share={share} isMeant={false} onToggle={() => set([...meant, { hex, purpose: 'cut' }])} isLast={false} />
      ))}
      <Button
        size="small"
        startIcon={<ColorizeOutlined />}
        variant={isPicking ? 'contained' : 'text'}
        aria-pressed={isPicking}
        onClick={() => takeTool(isPicking ? null : 'pick-colour')}
      >
        {words.trace.pickOneInThePicture}
      </Button>
    </Box>
  );
}

interface RowProps {
  readonly hex: string;
  readonly share: number | undefined;
  readonly isMeant: boolean;
  /** The last one that is meant cannot be let go. */
  readonly isLast: boolean;
  readonly onToggle: () => void;
  readonly children?: React.ReactNode;
}

function Row({ hex, share, isMeant, isLast, onToggle, children }: RowProps) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 38 }}>
      <Checkbox
        size="small"
        checked={isMeant}
        disabled={isLast}
        onChange={onToggle}
        slotProps={{ input: { 'aria-label': words.trace.traceColour(hex) } }}
        sx={{ p: 0.5 }}
      />
      <Box aria-hidden sx={{ width: 26, height: 22, borderRadius: 0.5, bgcolor: hex, border: `1px solid ${colours.line}` }} />
      <Typography variant="body2" sx={{ flex: 1 }}>
        {hex}
        {share !== undefined && (
          <Typography component="span" variant="body2" color="textSecondary">
            {' '}
            {(100 * share).toFixed(share < 0.1 ? 1 : 0)} %
          </Typography>
        )}
      </Typography>
      {children}
    </Box>
  );
}
