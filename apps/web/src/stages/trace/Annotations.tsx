'use client';
/**
 * Lettering and dimension lines that were traced with the rest, excluded in one go and included again as easily.
 */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import type { Piece } from '@nuvet/core/job';
import { annotationsOf } from '@nuvet/core/trace';
import { useMemo } from 'react';
import { words } from '@/words';

interface Props {
  readonly pieces: readonly Piece[];
  readonly onLeaveOut: (pieceIds: string[], leftOut: boolean) => void;
}

export function Annotations({ pieces, onLeaveOut }: Props) {
  const found = useMemo(() => new Set(annotationsOf(pieces)), [pieces]);
  const seen = pieces.filter(({ id }) => found.has(id));
  if (seen.length === 0) return null;
  const isOut = seen.every(({ leftOut }) => leftOut);
  const count = `${seen.length} ${seen.length === 1 ? 'piece' : 'pieces'}`;
  return (
    <Alert
      severity="info"
      variant="outlined"
      action={
        <Button
          size="small"
          color="inherit"
          onClick={() =>
            onLeaveOut(
              seen.map(({ id }) => id),
              !isOut,
            )
          }
        >
          {isOut ? words.trace.include : words.trace.exclude}
        </Button>
      }
    >
      {isOut ? words.trace.excludedAsLetteringAndDimensionLines(count) : words.trace.letteringAndDimensionLines(count)}
    </Alert>
  );
}
