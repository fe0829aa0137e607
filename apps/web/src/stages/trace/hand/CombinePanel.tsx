'use client';
/**
 * Chosen pieces united, taken from one another, kept where they overlap, divided, or cut along a line.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { drawnOf, outlinesFrom } from '@nuvet/core/job';
import type { Path } from '@nuvet/core/plane';
import { type Combining, combined, cutByLine, divided, nested, unitedOutlines } from '@nuvet/core/shape';
import { useState } from 'react';
import { setHand, useHand } from '@/table/hand-store';
import { areaOf, newDrawn, sourceOf, type Target } from '@/table/hand-target';
import { Row } from '@/ui/Rows';
import { words } from '@/words';
import { useChosen } from './use-chosen';
import { usePlaces } from './use-places';

export function CombinePanel() {
  const { job, run, targets } = useChosen();
  const asking = useHand((s) => s.asking);
  const [message, setMessage] = useState<string | null>(null);
  /** What is seen of a target: with all that follows from it. */
  const area = (target: Target): Path[] => {
    const drawn = drawnOf(job.drawn, target.pieceId);
    return areaOf(nested(areaOf(drawn ? outlinesFrom(drawn, job).paths : target.paths)).flatMap(({ outer, holes }) => [outer, ...holes]));
  };
  const replace = (word: string, parts: readonly (readonly Path[])[]) => {
    const made = parts.filter((part) => part.length > 0);
    if (made.length === 0) return setMessage(words.byHand.nothingWouldBeLeftOfThem);
    setMessage(null);
    const purpose = targets[0]?.drawn?.purpose ?? 'cut';
    const by = made.map((paths, k) => ({
      ...newDrawn(job, words.byHand.part, sourceOf(paths), { purpose }),
      name: k === 0 ? (targets[0]?.name ?? words.byHand.part) : `${targets[0]?.name ?? words.byHand.part} ${k + 1}`,
    }));
    run({ do: 'replace-drawn', word, ids: targets.map((t) => t.drawn?.id ?? t.pieceId), by });
    setHand({ chosen: by.map(({ id }) => id) });
  };
  const combine = (how: Combining, word: string) => {
    const [first, ...rest] = targets.map(area);
    if (!first || rest.length === 0) return;
    const paths = how === 'unite' ? unitedAll([first, ...rest]) : rest.reduce((now, next) => combined(now, next, how), first);
    replace(word, [paths]);
  };
  usePlaces('cut', 2, (a, b) => {
    const parts = targets.flatMap((target) =>
      nested(area(target)).flatMap((piece) => {
        const { left, right } = cutByLine(piece, a, b);
        return [...left, ...right].map(({ outer, holes }) => [outer, ...holes]);
      }),
    );
    replace(words.byHand.cuttingAlongALine, parts);
  });
  const isFew = targets.length < 2;
  return (
    <>
      <Row>
        <Button variant="outlined" disabled={isFew} onClick={() => combine('unite', words.byHand.uniting)}>
          {words.byHand.unite}
        </Button>
        <Button variant="outlined" disabled={isFew} onClick={() => combine('take-away', words.byHand.takingAway)}>
          {words.byHand.subtract}
        </Button>
      </Row>
      <Row>
        <Button variant="outlined" disabled={isFew} onClick={() => combine('keep-common', words.byHand.keepingWhatIsCommon)}>
          {words.byHand.intersect}
        </Button>
        <Button
          variant="outlined"
          disabled={targets.length !== 2}
          onClick={() =>
            replace(
              words.byHand.dividing,
              divided(area(targets[0] as Target), area(targets[1] as Target)).flatMap((part) =>
                nested(part).map(({ outer, holes }) => [outer, ...holes]),
              ),
            )
          }
        >
          {words.byHand.divide}
        </Button>
      </Row>
      <Button
        variant={asking === 'cut' ? 'contained' : 'outlined'}
        disabled={targets.length === 0}
        onClick={() => setHand({ asking: asking === 'cut' ? null : 'cut', places: [] })}
      >
        {asking === 'cut' ? words.byHand.clickTwoPlacesOfTheLine : words.byHand.cutAlongALine}
      </Button>
      <Typography variant="caption" color="textSecondary">
        {words.byHand.thePieceSelectedLastIsSubtracted}
      </Typography>
      {message && (
        <Typography variant="body2" color="error" role="alert">
          {message}
        </Typography>
      )}
    </>
  );
}

const unitedAll = (areas: readonly (readonly Path[])[]): Path[] =>
  areas.every((paths) => paths.length === 1)
    ? unitedOutlines(areas.flat())
    : areas.reduce<Path[]>((now, next) => combined(now, next, 'unite'), []);
