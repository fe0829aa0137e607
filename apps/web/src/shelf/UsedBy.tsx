'use client';
/**
 * The jobs that keep a copy of an item, and bringing them up to it.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MaterialLink from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import { jobSchema } from '@nuvet/core/job';
import { newerOnShelf, type ShelfItem, takeOverCommand } from '@nuvet/core/shelf';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { z } from 'zod';
import { ask } from '@/ui/requests';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useShelfStore } from './shelf-store';

const usedSchema = z.array(z.object({ id: z.uuid(), name: z.string(), revision: z.int() }));
const openedSchema = z.object({ job: jobSchema, revision: z.int() });
type Used = z.infer<typeof usedSchema>[number];

export function UsedBy({ item }: { item: ShelfItem }) {
  const [jobs, setJobs] = useState<readonly Used[] | null>(null);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [told, setTold] = useState<readonly string[]>([]);
  const { id } = item;
  useEffect(() => {
    let isWanted = true;
    setJobs(null);
    setTold([]);
    ask('GET', `/api/shelf/used/${id}`, usedSchema).then(
      (found) => isWanted && setJobs(found),
      (error: Error) => isWanted && setTold([error.message]),
    );
    return () => {
      isWanted = false;
    };
  }, [id]);
  const chosen = (jobs ?? []).filter((job) => !left.has(job.id));
  const update = async () => {
    const said: string[] = [];
    for (const { id: jobId, name } of chosen) {
      try {
        const { job, revision } = await ask('GET', `/api/jobs/${jobId}`, openedSchema);
        const shelf = useShelfStore.getState().items ?? [];
        const steps = newerOnShelf(job, [item]).map((newer) => ({ step: 'do', command: takeOverCommand(newer, job, shelf) }));
        if (steps.length > 0) await ask('POST', `/api/jobs/${jobId}/edits`, z.unknown(), { base: revision, steps });
        said.push(words.shelf.jobUpdated(name));
      } catch (error) {
        said.push(words.shelf.jobNotUpdated(name, (error as Error).message));
      }
      setTold([...said]);
    }
  };
  return (
    <Section title={words.shelf.usedBy}>
      {jobs?.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {words.shelf.notUsed}
        </Typography>
      )}
      {jobs?.map(({ id: jobId, name }) => (
        <Box key={jobId} sx={{ display: 'flex', alignItems: 'center' }}>
          <FormControlLabel
            control={
              <Checkbox
                size="small"
                checked={!left.has(jobId)}
                onChange={(_, isIn) => setLeft((now) => new Set(isIn ? [...now].filter((one) => one !== jobId) : [...now, jobId]))}
              />
            }
            label={
              <MaterialLink component={Link} href={`/jobs/${jobId}?stage=make-ready`}>
                {name}
              </MaterialLink>
            }
          />
        </Box>
      ))}
      {jobs && jobs.length > 0 && (
        <>
          <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 0.75 }}>
            {words.shelf.updateExplanation}
          </Typography>
          <Button size="small" variant="outlined" disabled={chosen.length === 0} onClick={() => void update()}>
            {words.shelf.updateJobs(chosen.length)}
          </Button>
        </>
      )}
      {told.map((line) => (
        <Typography key={line} variant="caption" role="status" sx={{ display: 'block' }}>
          {line}
        </Typography>
      ))}
    </Section>
  );
}
