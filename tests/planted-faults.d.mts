export const plantedFaults: readonly {
  readonly what: string;
  readonly file: string;
  readonly right: string;
  readonly wrong: string;
  readonly project: 'pure' | 'server';
  readonly tests: readonly string[];
}[];
