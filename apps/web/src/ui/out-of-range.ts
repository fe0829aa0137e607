/** What is said of a value that its field does not take. */
import { words } from '@/words';

interface Range {
  readonly least?: number;
  readonly most?: number;
}

/** Null where the value is within the range. @param printed how a limit is written; as it is, unless told */
export function outOfRange(
  value: number,
  { least = -Infinity, most = Infinity }: Range,
  printed: (limit: number) => string = (limit) => limit.toLocaleString('en'),
): string | null {
  if (value < least) return words.ui.atLeast(printed(least));
  return value > most ? words.ui.atMost(printed(most)) : null;
}
