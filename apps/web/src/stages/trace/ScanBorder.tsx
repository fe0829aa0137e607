'use client';
/**
 * The dark border that a scanner's lid leaves about the paper: excluded as it is traced, included again in one click.
 */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import type { Piece } from '@nuvet/core/job';
import { words } from '@/words';

interface Props {
  readonly pieces: readonly Piece[];
  readonly onLeaveOut: (pieceIds: string[], leftOut: boolean) => void;
}

export function ScanBorder({ pieces, onLeaveOut }: Props) {
  const border = pieces.filter(({ isScanBorder }) => isScanBorder);
  if (border.length === 0) return null;
  const isOut = border.every(({ leftOut }) => leftOut);
  const ids = border.map(({ id }) => id);
  return (
    <Alert
      severity="info"
      variant="outlined"
      action={
        <Button size="small" color="inherit" onClick={() => onLeaveOut(ids, !isOut)}>
          {isOut ? words.trace.include : words.trace.exclude}
        </Button>
      }
    >
      {isOut ? words.trace.scanBorderExcluded : words.trace.scanBorderIncluded}
    </Alert>
  );
}
