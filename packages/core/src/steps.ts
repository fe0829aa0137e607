/**
 * Long work is a generator that yields the share done, so that whoever drives it can show progress, breathe, and stop it.
 */

/** Does all the work in one go. */
export function finished<T>(steps: Generator<unknown, T>): T {
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}
