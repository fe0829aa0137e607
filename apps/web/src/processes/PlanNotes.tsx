'use client';
/** What a plan could not do as it was set: faults first to be mended, the rest to be known. */
import Alert from '@mui/material/Alert';
import type { PlanNote } from '@nuvet/core/processes';
import { useJob } from '@/job/job-store';
import { told } from '@/words/told';

export function PlanNotes({ notes }: { notes: readonly PlanNote[] }) {
  const unit = useJob((s) => s.job.unit);
  return notes.map(({ said, message, isFailure }) => (
    <Alert key={message} severity={isFailure ? 'error' : 'warning'} variant="outlined">
      {told(said, unit)}
    </Alert>
  ));
}
