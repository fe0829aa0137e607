'use client';
/**
 * The dark border that a scanner's lid leaves about the paper: excluded as it is traced, included again in one click.
 */
import type { Piece } from '@nuvet/core/job';
import { words } from '@/words';
import { Told } from './Told';

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
    <Told
      text={isOut ? words.trace.scanBorderExcluded : words.trace.scanBorderIncluded}
      action={isOut ? words.trace.include : words.trace.exclude}
      onClick={() => onLeaveOut(ids, !isOut)}
    />
  );
}
