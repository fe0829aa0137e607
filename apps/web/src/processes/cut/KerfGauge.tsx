'use client';
/**
 * A kerf gauge as a job of its own, and reading it: which slot the tab sits in says the kerf.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { plainMaking } from '@nuvet/core/job';
import { kerfGauge, kerfRead, plainGauge, slotsOf } from '@nuvet/core/make';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { z } from 'zod';
import { Pick } from '@/ui/Rows';
import { ask } from '@/ui/requests';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

export function KerfGauge({ open: { entry, set, stock } }: { open: OpenProcess<{ kerfMm: number }> }) {
  const [isOpen, setOpen] = useState(false);
  const [message, setMessage] = useState<string | null>(null);
  const slots = slotsOf(plainGauge);
  const [slot, setSlot] = useState('');
  if (!isOpen)
    return (
      <Button size="small" onClick={() => setOpen(true)}>
        {words.makeReady.findTheKerfWithAGauge}
      </Button>
    );
  /** A job with comb and tab, cut without any kerf taken off. */
  const makeJob = async () => {
    try {
      const { id } = await ask('POST', '/api/jobs', z.object({ id: z.uuid() }), {
        name: words.makeReady.kerfGauge(stock.name ?? words.makeReady.stock).slice(0, 120),
        pictureIds: [],
      });
      const steps = [
        { step: 'do', command: { do: 'set-stock', change: stock } },
        { step: 'do', command: { do: 'remove-process', id: plainMaking.processes[0]?.id } },
        { step: 'do', command: { do: 'add-process', entry: { ...entry, settings: { ...entry.settings, kerfMm: 0 } } } },
        ...kerfGauge(plainGauge).map(({ name, purpose, outer }) => ({
          step: 'do',
          command: {
            do: 'draw',
            drawn: { id: nanoid(10), name, purpose, leftOut: false, source: { kind: 'path', path: outer }, live: [] },
          },
        })),
      ];
      await ask('POST', `/api/jobs/${id}/edits`, z.object({ revision: z.int() }), { base: 1, steps, wanted: false });
      window.open(`/jobs/${id}?stage=make-ready`, '_blank');
      setMessage(words.makeReady.kerfGaugeMade);
    } catch (error) {
      setMessage((error as Error).message);
    }
  };
  const ticks = Object.fromEntries([
    ['', words.makeReady.notTriedYet],
    ...slots.map(({ widthMm }, k) => [String(k), words.makeReady.ticksAndWidth(k, widthMm.toFixed(2))]),
  ]);
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="caption" color="textSecondary">
        {words.makeReady.kerfGaugeExplanation}
      </Typography>
      <Button size="small" variant="outlined" onClick={() => void makeJob()}>
        {words.makeReady.makeTheGaugeAsAJob}
      </Button>
      <Pick
        label={words.makeReady.theTabJustSitsInThe}
        value={slot}
        words={ticks}
        onPick={(k) => {
          setSlot(k);
          const found = k === '' ? undefined : slots[Number(k)];
          if (found) set({ kerfMm: Number(kerfRead(plainGauge.tabMm, found.widthMm).toFixed(4)) });
        }}
      />
      {slot !== '' && (
        <Typography variant="body2">
          ({plainGauge.tabMm} − {slots[Number(slot)]?.widthMm.toFixed(2)}) / 2 = {slots[Number(slot)]?.kerfMm.toFixed(3)}{' '}
          {words.makeReady.mmRememberItWithTheStock}
        </Typography>
      )}
      {message && (
        <Typography variant="caption" role="status">
          {message}
        </Typography>
      )}
    </Box>
  );
}
