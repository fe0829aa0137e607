/**
 * The flattening worker: reads a picture's colours once and warps bands of it. Two share a picture: the first reads it
 * and hands a copy to the second.
 */
import type { RectifiedPlan } from '@nuvet/core/job';
import { greyFromRgb, type Pixels, warped } from '@nuvet/core/raster';
import { expose, type Remote, transfer, wrap } from 'comlink';
import { fetchBytes } from './pixels';
import { runInSlices } from './slices';

let held: { readonly id: string; readonly pixels: Pixels } | null = null;
let partner: Remote<Rectifier> | null = null;
let newest = 0;

const rectifier = {
  /** Where the other worker is reached. */
  meet(port: MessagePort, isFirst: boolean): void {
    if (isFirst) partner = wrap<Rectifier>(port);
    else expose(rectifier, port);
  },

  take(id: string, pixels: Pixels): void {
    held = { id, pixels };
  },

  async read(id: string, size: { widthPx: number; heightPx: number }, onShare: (share: number) => void): Promise<void> {
    if (held?.id === id) return;
    const colour = await fetchBytes(`/api/pictures/${id}/colours`, 3 * size.widthPx * size.heightPx, onShare);
    const { grey, isGrey } = greyFromRgb(colour, size.widthPx, size.heightPx);
    const pixels: Pixels = { width: size.widthPx, height: size.heightPx, grey, colour: isGrey ? null : colour };
    held = { id, pixels };
    await partner?.take(id, pixels);
  },

  /** Rows `from` to `to` of the working copy; null where a newer request came. */
  async band(id: string, plan: RectifiedPlan, from: number, to: number, onShare: (share: number) => void): Promise<Pixels | null> {
    if (held?.id !== id) throw new Error('the picture is not read yet');
    const mine = ++newest;
    const steps = warped(held.pixels, plan, from, to);
    const made = await runInSlices(steps, onShare, () => mine === newest);
    return made && transfer(made, [made.grey.buffer, ...(made.colour ? [made.colour.buffer] : [])]);
  },

  stop(): void {
    newest++;
  },
};

export type Rectifier = typeof rectifier;

expose(rectifier);
