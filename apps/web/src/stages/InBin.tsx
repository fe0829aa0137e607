'use client';
/**
 * Says that the open job lies in the bin, and restores it.
 */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { z } from 'zod';
import { ask } from '@/ui/requests';
import { words } from '@/words';

export function InBin({ jobId }: { jobId: string }) {
  const [isIn, setIsIn] = useState(true);
  const [message, setMessage] = useState<string | null>(null);
  if (!isIn) return null;
  const restore = () =>
    ask('POST', `/api/jobs/${jobId}/restore`, z.null(), {}).then(
      () => setIsIn(false),
      (error) => setMessage(error instanceof Error ? error.message : String(error)),
    );
  return (
    <Alert
      severity="warning"
      square
      sx={{ gridColumn: '1 / -1' }}
      action={
        <Button color="inherit" onClick={() => void restore()}>
          {words.job.restore}
        </Button>
      }
    >
      {message ?? words.job.thisJobIsInTheBin}
    </Alert>
  );
}
