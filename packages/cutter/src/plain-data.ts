/** Data as a line carries it: what is no JSON is nothing. */
export function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
