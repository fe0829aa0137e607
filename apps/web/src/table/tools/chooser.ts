/**
 * Chooses what lies under a click: a piece to keep or fill, a piece of the trace, a relation's tick, a picture; and lights up the piece
 * under the pointer.
 */
import { traceWith } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { words } from '@/words';
import { setTable, useTable } from '../table-store';
import { pictureAt, pieceAt, underPoint } from '../under-pointer';
import { toScreen, toSheet } from '../view';
import { pickReach, type Surroundings, type TableTool } from './tool';

export function chooser({ job, run, stage, view, onMessage }: Surroundings): TableTool {
  const reach = (): number => pickReach / view().scale;

  /** The first click keeps that piece alone, further ones take more in; a click into a hole fills it. */
  const takeThisOne = (p: Point): void => {
    const under = underPoint(job, p, reach());
    if (!under) onMessage(words.table.nothingFoundThere);
    else if (under.hole !== null) run({ do: 'fill-hole', pieceId: under.piece.id, hole: under.hole });
    else {
      const isFirst = !traceWith(job, under.piece.id)?.pieces.some((piece) => piece.leftOut);
      run(
        isFirst
          ? { do: 'keep-only', pieceIds: [under.piece.id] }
          : { do: 'leave-out', pieceIds: [under.piece.id], leftOut: !under.piece.leftOut },
      );
    }
  };

  /** A click on a relation's tick refuses it, or takes it back. */
  const refuseTick = (p: Point): boolean => {
    const { relations } = useTable.getState();
    const near = relations?.seen
      .map((tick) => ({ key: tick.key, off: distance(toScreen(view(), tick.at), p) }))
      .filter(({ off }) => off < pickReach)
      .sort((a, b) => a.off - b.off)[0];
    if (!relations || !near) return false;
    const isRefused = relations.refused.includes(near.key);
    const refused = isRefused ? relations.refused.filter((key) => key !== near.key) : [...relations.refused, near.key];
    setTable({ relations: { ...relations, refused } });
    return true;
  };

  return {
    click(at) {
      const { tool } = useTable.getState();
      if (stage === 'trace' && !tool && refuseTick(at)) return true;
      const p = toSheet(view(), at);
      if (tool === 'this-one') takeThisOne(p);
      else if (tool && tool !== 'move-picture') return false;
      else if (stage === 'trace') setTable({ selectedPiece: pieceAt(job, p, reach())?.id ?? null });
      else if (stage === 'true-up') setTable({ selected: null });
      else if (stage === 'bring-in') {
        const under = pictureAt(job, p);
        if (under) setTable({ activeId: under.id });
      }
      return true;
    },
    hover(at) {
      if (stage === 'trace') setTable({ hoveredPiece: pieceAt(job, toSheet(view(), at), reach())?.id ?? null });
    },
  };
}
