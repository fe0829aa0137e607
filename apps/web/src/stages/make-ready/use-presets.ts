'use client';
/**
 * What the workshop remembers of its stocks and machines.
 */
import { machineSchema, stockPresetSchema } from '@nuvet/core/job';
import { useEffect, useRef, useState } from 'react';
import { z } from 'zod';
import { ask } from '@/ui/requests';
import { words } from '@/words';

const presetSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('stock'), name: z.string(), value: stockPresetSchema }),
  z.object({ kind: z.literal('machine'), name: z.string(), value: machineSchema }),
]);
export type Preset = z.infer<typeof presetSchema>;

export function usePresets() {
  const [presets, setPresets] = useState<readonly Preset[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  const coming = useRef<Promise<readonly Preset[]>>(Promise.resolve([]));
  useEffect(() => {
    coming.current = ask('GET', '/api/presets', z.array(presetSchema)).then(
      (found) => {
        setPresets(found);
        return found;
      },
      (error: Error) => {
        setMessage(error.message);
        return [];
      },
    );
  }, []);
  const keep = async (preset: Preset) => {
    try {
      await ask('POST', '/api/presets', z.null(), preset);
      setPresets((before) =>
        [...before.filter((p) => p.kind !== preset.kind || p.name !== preset.name), preset].sort((a, b) => a.name.localeCompare(b.name)),
      );
      setMessage(words.makeReady.isRemembered(preset.name));
    } catch (error) {
      setMessage((error as Error).message);
    }
  };
  /** One that is named before the list has come is waited for. */
  const named = async (kind: Preset['kind'], name: string): Promise<Preset | undefined> => {
    const isIt = (p: Preset) => p.kind === kind && p.name === name;
    return presets.find(isIt) ?? (await coming.current).find(isIt);
  };
  return { presets, keep, named, message };
}
