/**
 * Long work is a generator that yields the share done, so that whoever drives it can show progress, breathe, and stop it.
 */

/** Does all the work in one go. */
export function finished<T>(steps: Generator<unknown, T>): T {
  for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/** Work that is a part of more: its share of 0 to 1 is told as one from `from` to `to`. */
export function* asPart<T>(steps: Generator<number, T>, from: number, to: number): Generator<number, T> {
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) return step.value;
    yield from + (to - from) * step.value;
  }
}
