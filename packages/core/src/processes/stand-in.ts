/** What a machine that stands in for a real one is sent: programs, and what it mills or sews and is measured against; plain data. */

export interface StandInTool {
  readonly number: number;
  readonly name: string;
}

export interface StandInProgram {
  readonly text: string;
  /** In the order that they are put in by hand; none where nothing is changed. */
  readonly tools: readonly StandInTool[];
}

export interface StandInJob {
  readonly programs: readonly StandInProgram[];
  /** Stock and tools, and the outlines, as docs/cutter-protocol.md has them; null for what is not milled. */
  readonly mill: { readonly setUp: object; readonly outlines: object } | null;
  /** The cloth, and the drawn line; none for what is not sewn. */
  readonly needle?: { readonly setUp: object; readonly drawn: object } | null;
  /** Towers, block and burn, and the faces; none for what no hot wire cuts. */
  readonly wire?: { readonly setUp: object; readonly faces: object } | null;
}
