'use client';
/**
 * A scanner behind a small service, as docs/scanner-protocol.md describes it: list, preview, scan. The stand-in that
 * comes with the demo and a real scanner's service answer alike.
 */
import { z } from 'zod';
import { words } from '@/words';

const scannerSchema = z.object({
  id: z.string().min(1).max(100),
  name: z.string().min(1).max(200),
  bed: z.object({ widthMm: z.number().positive(), heightMm: z.number().positive() }),
  resolutions: z.array(z.number().positive()).min(1),
});
export type Scanner = z.infer<typeof scannerSchema>;

/** A part of the bed, mm from its upper left corner. */
export interface Area {
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

export class ScannerError extends Error {}

const gone = () => new ScannerError(words.bringIn.theScannerDoesNotAnswerIs);

async function answered(address: string, init?: RequestInit): Promise<Response> {
  const response = await fetch(address, init).catch(() => {
    throw gone();
  });
  if (!response.ok)
    throw new ScannerError(
      ((await response.json().catch(() => null)) as { message?: string } | null)?.message ?? words.bringIn.theScannerCouldNotDoThis,
    );
  return response;
}

/** The scanners of a service; none where it does not answer. */
export async function scannersAt(service: string): Promise<Scanner[]> {
  const response = await answered(`${service}/scanners`).catch(() => null);
  const read = z.object({ scanners: z.array(scannerSchema) }).safeParse(await response?.json().catch(() => null));
  return read.success ? read.data.scanners : [];
}

/** The whole bed, coarsely, as a PNG. */
export const previewOf = async (service: string, id: string): Promise<Blob> =>
  (await answered(`${service}/scanners/${encodeURIComponent(id)}/preview`)).blob();

/** A part of the bed at a resolution, as a PNG that states it. */
export async function scan(service: string, id: string, dpi: number, area: Area, signal: AbortSignal): Promise<Blob> {
  const response = await answered(`${service}/scanners/${encodeURIComponent(id)}/scan`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ dpi, area }),
    signal,
  });
  return response.blob();
}
