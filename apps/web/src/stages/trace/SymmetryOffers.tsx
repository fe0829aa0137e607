'use client';
/**
 * What symmetry a piece nearly has, told in words, with a button that makes it exactly so.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonGroup from '@mui/material/ButtonGroup';
import Typography from '@mui/material/Typography';
import { defaultTraceSettings, type Job, type Piece, traceWith } from '@nuvet/core/job';
import { printDecimalInches, printMm } from '@nuvet/core/length';
import type { HalfSide } from '@nuvet/core/shape';
import type { Mirror, Symmetry } from '@nuvet/core/trace';
import { useEffect, useState } from 'react';
import { setTable } from '@/table/table-store';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';
import { useJob } from '../../job/job-store';
import { halfWords } from './axis-words';

/** What leaves its symmetry by less than this has it already, mm: finer than any machine, and than the axis is found. */
const exactMm = 1e-3;

export function SymmetryOffers({ piece, unit }: { piece: Piece; unit: Job['unit'] }) {
  const run = useJob((s) => s.run);
  const toleranceMm = useJob((s) => traceWith(s.job, piece.id)?.settings.toleranceMm ?? defaultTraceSettings.toleranceMm);
  const [found, setFound] = useState<readonly Symmetry[] | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  useEffect(() => {
    let isWanted = true;
    setFound(null);
    setMessage(null);
    tracer()
      .symmetries(piece)
      .then(
        (list) => isWanted && setFound(list),
        () => isWanted && setFound([]),
      );
    return () => {
      isWanted = false;
      setTable({ symmetry: null });
    };
  }, [piece]);
  if (!found || found.length === 0) return null;
  const make = async (symmetry: Symmetry, stands: HalfSide | null = null) => {
    const made = await tracer().symmetric(piece, symmetry, toleranceMm, stands);
    if (made) run({ do: 'reshape', pieceId: piece.id, outer: made.outer, holes: [...made.holes] });
    else setMessage(words.trace.theHalvesDifferTooMuchTo);
  };
  return (
    <Box sx={{ mt: 1 }} onPointerLeave={() => setTable({ symmetry: null })}>
      {found.map((symmetry) => {
        const isExact = symmetry.worst < exactMm;
        return (
          <Box
            key={symmetry.kind}
            onPointerEnter={() => setTable({ symmetry })}
            sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'space-between', gap: 1, py: 0.5 }}
          >
            <Typography variant="body2">
              {inWords(symmetry)}
              <Typography component="span" variant="body2" color="textSecondary" sx={{ display: 'block' }}>
                {isExact
                  ? words.trace.exactly
                  : words.trace.nearlyWithin(unit === 'mm' ? printMm(symmetry.worst) : printDecimalInches(symmetry.worst))}
              </Typography>
            </Typography>
            {!isExact && (
              <ButtonGroup size="small" sx={{ flexShrink: 0 }} onFocus={() => setTable({ symmetry })}>
                <Button onClick={() => void make(symmetry)}>
                  {symmetry.kind === 'mirror' ? words.trace.average : words.trace.makeExact}
                </Button>
                {symmetry.kind === 'mirror' &&
                  sidesInOrder(symmetry).map(([side, word]) => (
                    <Button key={side} title={words.trace.keepTheHalfAndMirrorIt(word)} onClick={() => void make(symmetry, side)}>
                      {words.trace.keep(word)}
                    </Button>
                  ))}
              </ButtonGroup>
            )}
          </Box>
        );
      })}
      {message && (
        <Typography variant="body2" color="error" role="alert">
          {message}
        </Typography>
      )}
    </Box>
  );
}

/** The halves as they are read: left before right, upper before lower. */
function sidesInOrder({ angle }: Mirror): [HalfSide, string][] {
  const half = halfWords(Math.cos(angle), Math.sin(angle));
  const sides: [HalfSide, string][] = [
    ['left', half.left],
    ['right', half.right],
  ];
  return half.left === 'left' || half.left === 'upper' ? sides : sides.reverse();
}

function inWords(symmetry: Symmetry): string {
  if (symmetry.kind === 'turned') return words.trace.rotationalSymmetryFold(symmetry.order);
  return `Mirrored about an axis at ${((symmetry.angle * 180) / Math.PI).toFixed(2)}°`;
}
