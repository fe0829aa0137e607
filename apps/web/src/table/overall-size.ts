/**
 * All outlines of a job brought to another size together, in proportion: what was drawn keeps its steps, what was traced or brought
 * in becomes drawn.
 */
import { type Command, type Drawn, type Job, keptPieces } from '@nuvet/core/job';
import { about, type Point, stretch } from '@nuvet/core/plane';
import { words } from '@/words';
import { movedDrawn, type Target, takenOver, targetOf } from './hand-target';

/** A job holds at most so many drawn things. */
const maxDrawn = 5000;

/** @param fixed the place that stays where it is; null is given where there would be too many drawn things */
export function allScaled(job: Job, factor: number, fixed: Point): Command | null {
  const map = about(fixed, stretch(factor));
  const brought = keptPieces({ ...job, drawn: [] });
  const ids = [...job.drawn.filter((d) => !d.leftOut).map((d) => d.id), ...brought.map((p) => p.id)];
  if (ids.length === 0 || job.drawn.length + brought.length > maxDrawn) return null;
  const by = ids.flatMap((id): Drawn[] => {
    const taken = takenOver(job, id);
    const target = targetOf(job, id) as Target;
    return taken ? [withStepsScaled(movedDrawn(taken.drawn, target, map), factor)] : [];
  });
  return { do: 'replace-drawn', word: words.table.theOverallSize, ids, by };
}

/** Live steps go by lengths of their own. */
function withStepsScaled(drawn: Drawn, factor: number): Drawn {
  const live = drawn.live.map((step): Drawn['live'][number] => {
    switch (step.kind) {
      case 'round':
        return { ...step, size: step.size * factor };
      case 'offset':
        return { ...step, by: step.by * factor };
      case 'band':
        return { ...step, width: step.width * factor };
      case 'mirror':
        return step.reach === undefined ? step : { ...step, reach: step.reach * factor };
      default:
        return step;
    }
  });
  return { ...drawn, live };
}
