'use client';
/** One of the outlines that are made, by its name. */
import type { Piece } from '@nuvet/core/job';
import { Pick } from '@/ui/Rows';
import { words } from '@/words';

/** More outlines than this are no list to choose from. */
const mostListed = 60;

interface Props {
  readonly label: string;
  readonly pieces: readonly Piece[];
  /** Null, or of an outline that is gone, is told. */
  readonly value: string | null;
  /** Words for what may be chosen in place of an outline, by what is given for them. */
  readonly also?: Readonly<Record<string, string>>;
  readonly onPick: (id: string) => void;
}

export function OutlinePick({ label, pieces, value, also = {}, onPick }: Props) {
  const chosen = value ?? '';
  const shown = pieces.filter(({ id }, k) => k < mostListed || id === chosen);
  const listed = { ...also, ...Object.fromEntries(shown.map(({ id, name }) => [id, name])) };
  return (
    <Pick
      label={label}
      value={chosen}
      words={chosen in listed ? listed : { [chosen]: words.makeReady.outlineGone, ...listed }}
      onPick={onPick}
    />
  );
}
