'use client';
/**
 * The page's two rectifying workers: they warp the halves of a picture side by side; the result goes to the server.
 */
import type { Picture, RectifiedPlan } from '@nuvet/core/job';
import { proxy, type Remote, transfer, wrap } from 'comlink';
import pLimit from 'p-limit';
import { z } from 'zod';
import { sendBytes } from '@/ui/requests';
import type { Rectifier } from './rectifier.worker';

/** The two workers hold one picture at a time. */
const oneAtATime = pLimit(1);
let pair: readonly [Remote<Rectifier>, Remote<Rectifier>] | null = null;

function rectifiers(): readonly [Remote<Rectifier>, Remote<Rectifier>] {
  if (!pair) {
    const make = () => wrap<Rectifier>(new Worker(new URL('./rectifier.worker.ts', import.meta.url), { type: 'module' }));
    pair = [make(), make()];
    const channel = new MessageChannel();
    void pair[0].meet(transferred(channel.port1), true);
    void pair[1].meet(transferred(channel.port2), false);
  }
  return pair;
}

const transferred = (port: MessagePort): MessagePort => transfer(port, [port]);

/**
 * Makes the working copy of a plan and keeps it on the server.
 * @param onShare hears the share done, 0 to 1
 */
export const rectify = (...given: Parameters<typeof rectifiedOnServer>): ReturnType<typeof rectifiedOnServer> =>
  oneAtATime(() => rectifiedOnServer(...given));

async function rectifiedOnServer(
  picture: Picture,
  plan: RectifiedPlan,
  address: string,
  onShare: (share: number) => void,
  signal: AbortSignal,
): Promise<{ id: string } | null> {
  signal.throwIfAborted();
  const [first, second] = rectifiers();
  const stop = () => {
    void first.stop();
    void second.stop();
  };
  signal.addEventListener('abort', stop);
  await first.read(
    picture.id,
    { widthPx: picture.widthPx, heightPx: picture.heightPx },
    proxy((share: number) => onShare(0.3 * share)),
  );
  signal.throwIfAborted();
  const middle = plan.heightPx >> 1;
  const shares = [0, 0];
  const heard = (which: number) =>
    proxy((share: number) => {
      shares[which] = share;
      onShare(0.3 + 0.2 * ((shares[0] as number) + (shares[1] as number)));
    });
  const start = performance.now();
  const bands = await Promise.all([
    first.band(picture.id, plan, 0, middle, heard(0)),
    second.band(picture.id, plan, middle, plan.heightPx, heard(1)),
  ]);
  // Read by the bench.
  performance.measure('laid flat', { start });
  signal.removeEventListener('abort', stop);
  signal.throwIfAborted();
  const [upper, lower] = bands;
  if (!upper || !lower) return null;
  const isColour = upper.colour !== null && lower.colour !== null;
  const parts = isColour ? [upper.colour, lower.colour] : [upper.grey, lower.grey];
  const body = new Blob(parts as Uint8Array<ArrayBuffer>[]);
  const query = `&width=${plan.widthPx}&height=${plan.heightPx}&channels=${isColour ? 3 : 1}`;
  return sendBytes(`${address}${query}`, body, z.object({ id: z.uuid() }), (share) => onShare(0.7 + 0.25 * share), signal);
}
