'use client';
/**
 * What segments nearly are to one another: found on request, shown as ticks on the table, refused by kind or one by one,
 * the rest made exact together.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Typography from '@mui/material/Typography';
import type { Job, Piece } from '@nuvet/core/job';
import { type RelationKind, relationKinds } from '@nuvet/core/trace';
import { memo, useEffect, useState } from 'react';
import { signOf } from '@/table/drawing-relations';
import { setTable, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';
import { useJob } from '../../job/job-store';

const relationWords: Record<RelationKind, string> = {
  level: words.trace.level,
  plumb: words.trace.plumb,
  parallel: words.trace.parallel,
  square: words.trace.squareToAnother,
  'in-line': words.trace.inOneLine,
  'equal-length': words.trace.ofEqualLength,
  'equal-radius': words.trace.ofEqualRadius,
  concentric: words.trace.aboutOneCentre,
};

/** What is nearer than this holds already, mm. */
const exactMm = 1e-6;

export const Relations = memo(function Relations({
  pieces,
  toleranceMm,
  unit,
}: {
  pieces: readonly Piece[];
  toleranceMm: number;
  unit: Job['unit'];
}) {
  const run = useJob((s) => s.run);
  const relations = useTable((s) => s.relations);
  const [isBusy, setIsBusy] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const traces = useJob((s) => s.job.traces);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whatever changes the trace makes the ticks stale
  useEffect(() => () => setTable({ relations: null }), [traces]);
  const look = async () => {
    setMessage(null);
    const all = await tracer().relations(pieces, toleranceMm);
    const seen = all.filter(({ off }) => off > exactMm);
    if (seen.length > 0) setTable({ relations: { seen, refused: [] } });
    else setMessage(all.length > 0 ? words.trace.allNearAlignmentsAreExactAlready : words.trace.noNearParallelNearEqualOr);
  };
  const make = async () => {
    if (!relations) return;
    setIsBusy(true);
    const made = await tracer()
      .related(pieces, relations.refused, toleranceMm)
      .catch(() => []);
    setIsBusy(false);
    setTable({ relations: null });
    const count = made.reduce((sum, { held }) => sum + held, 0);
    if (made.length > 0) run({ do: 'relate', pieces: made.map(({ pieceId, outer, holes }) => ({ pieceId, outer, holes: [...holes] })) });
    setMessage(count > 0 ? words.trace.relationsHoldExactlyNow(count) : words.trace.theyContradictOneAnotherOrWould);
  };
  return (
    <Section title={words.trace.relations}>
      {!relations && (
        <Button size="small" variant="outlined" onClick={() => void look()}>
          {words.trace.lookForLevelParallelEqual}
        </Button>
      )}
      {relations && (
        <Box role="group" aria-label={words.trace.relationsFound}>
          {relationKinds.map((kind) => {
            const own = relations.seen.filter((tick) => tick.kind === kind);
            if (own.length === 0) return null;
            const refused = own.filter(({ key }) => relations.refused.includes(key)).length;
            const worst = Math.max(...own.map(({ off }) => off));
            const keys = own.map(({ key }) => key);
            const others = relations.refused.filter((key) => !keys.includes(key));
            return (
              <Box key={kind} sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 34 }}>
                <Checkbox
                  size="small"
                  sx={{ p: 0.5 }}
                  checked={refused < own.length}
                  indeterminate={refused > 0 && refused < own.length}
                  onChange={() => setTable({ relations: { ...relations, refused: refused < own.length ? [...others, ...keys] : others } })}
                  slotProps={{ input: { 'aria-label': relationWords[kind] } }}
                />
                <svg width="18" height="18" viewBox="-7 -7 14 14" aria-hidden="true">
                  <path d={signOf(kind)} fill="none" stroke={colours.indigo} strokeWidth="1.5" />
                </svg>
                <Typography variant="body2" sx={{ flex: 1 }}>
                  {own.length - refused} {relationWords[kind]}
                </Typography>
                <Typography variant="body2" color="textSecondary">
                  {words.trace.offBy(unit, worst.toFixed(4), (worst / 25.4).toFixed(5))}
                </Typography>
              </Box>
            );
          })}
          <Typography variant="caption" color="textSecondary">
            {words.trace.clickATickOnTheTable}
          </Typography>
          <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
            <Button size="small" variant="contained" disabled={isBusy} onClick={() => void make()}>
              {isBusy ? words.trace.working : words.trace.makeExact}
            </Button>
            <Button size="small" onClick={() => setTable({ relations: null })}>
              {words.trace.leaveAsItIs}
            </Button>
          </Box>
        </Box>
      )}
      {message && (
        <Typography variant="body2" role="status" sx={{ mt: 0.5 }}>
          {message}
        </Typography>
      )}
    </Section>
  );
});
