/**
 * Long work in a worker that lets other requests in now and then.
 */

/** How long a worker computes before it looks about. */
const breathMs = 30;

/** Lets what has been asked meanwhile be heard. */
export const breath = () => new Promise<void>((resolve) => setTimeout(resolve, 0));

export type OnShare = (share: number) => void;

/** Runs steps with a breath now and then; where they may become unwanted, null once they are. */
export async function runInSlices<T>(steps: Generator<number, T>, onShare: OnShare): Promise<T>;
export async function runInSlices<T>(steps: Generator<number, T>, onShare: OnShare, isWanted: () => boolean): Promise<T | null>;
export async function runInSlices<T>(steps: Generator<number, T>, onShare: OnShare, isWanted = () => true): Promise<T | null> {
  let since = performance.now();
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    if (performance.now() - since < breathMs) continue;
    onShare(step.value);
    await breath();
    if (!isWanted()) return null;
    since = performance.now();
  }
}
