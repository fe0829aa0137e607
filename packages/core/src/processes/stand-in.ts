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
  /** The blocks that a hot wire cuts, one for each program; none for what no hot wire cuts. */
  readonly wire?: { readonly blocks: readonly StandInBlock[] } | null;
}

/** A block of foam between the towers of a hot wire. */
export interface StandInBlock {
  /** What is put between the towers, to be asked for; the first one is there. */
  readonly name: string;
  /** Towers, block and burn, as docs/cutter-protocol.md has them. */
  readonly setUp: object;
  /** Places of the left and the right face that should be left. */
  readonly faces: object;
}
