'use client';
/**
 * What the workshop remembers of its stocks and machines.
 */
import { machineSchema, stockPresetSchema } from '@nuvet/core/job';
import { useEffect, useState } from 'react';
import { z } from 'zod';
import { ask } from '@/ui/requests';

const presetSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('stock'), name: z.string(), value: stockPresetSchema }),
  z.object({ kind: z.literal('machine'), name: z.string(), value: machineSchema }),
]);
export type Preset = z.infer<typeof presetSchema>;

export function usePresets() {
  const [presets, setPresets] = useState<readonly Preset[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  useEffect(() => {
    void ask('GET', '/api/presets', z.array(presetSchema)).then(setPresets, (error: Error) => setMessage(error.message));
  }, []);
  const keep = async (preset: Preset) => {
    try {
      await ask('POST', '/api/presets', z.null(), preset);
      setPresets((before) =>
        [...before.filter((p) => p.kind !== preset.kind || p.name !== preset.name), preset].sort((a, b) => a.name.localeCompare(b.name)),
      );
      setMessage(`${preset.name} is remembered.`);
    } catch (error) {
      setMessage((error as Error).message);
    }
  };
  return { presets, keep, message };
}
