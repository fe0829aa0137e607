/**
 * The purposes of lines: what each is called, how it looks on the table and in files, and how it is made. One entry is all that a new
 * purpose needs.
 */

export interface PurposeKind {
  /** As it stands in a sentence. */
  readonly word: string;
  /**
   * How it is made: `part` cuts pieces out of the stock, beside the line where closed; `line` follows the line; `dashes` follows it in
   * cuts and gaps; `fill` clears the area inside it; `nothing` leaves it to look at.
   */
  readonly make: 'part' | 'line' | 'dashes' | 'fill' | 'nothing';
  /** Of all purposes, which is made first: what marks the surface before what parts it, so that nothing has moved yet (common practice). */
  readonly order: number;
  /** Its dash pattern (dash, gap, ...; none is solid) and weight tell it first, its colour second; lengths in mm. */
  readonly look: { readonly colour: `#${string}`; readonly widthMm: number; readonly dashMm: readonly number[] };
  /** Of its layer in DXF: the colour's index. */
  readonly dxfColour: number;
  /** In plotter files, from 1. */
  readonly pen: number;
  /** What the name of a layer or of an element says that means it; asked in the table's order, a plain cut last. */
  readonly named: RegExp;
  /** Where nothing else is set: the share of the full power or pressure, mm/min, and how often. */
  readonly settings: { readonly power: number; readonly speedMmPerMin: number; readonly passes: number };
}

const kinds = {
  cut: {
    word: 'cut',
    make: 'part',
    order: 6,
    look: { colour: '#1E7B6B', widthMm: 0.2, dashMm: [] },
    dxfColour: 7,
    pen: 1,
    named: /cut|outline|profile/i,
    settings: { power: 0.8, speedMmPerMin: 900, passes: 1 },
  },
  score: {
    word: 'score',
    make: 'line',
    order: 4,
    look: { colour: '#A87B1D', widthMm: 0.2, dashMm: [4, 1.5] },
    dxfColour: 33,
    pen: 2,
    named: /score|crease|fold|bend/i,
    settings: { power: 0.25, speedMmPerMin: 2400, passes: 1 },
  },
  perforate: {
    word: 'perforate',
    make: 'dashes',
    order: 5,
    look: { colour: '#2F6F8F', widthMm: 0.2, dashMm: [1.5, 1.5] },
    dxfColour: 144,
    pen: 7,
    named: /perf|tear/i,
    settings: { power: 0.8, speedMmPerMin: 900, passes: 1 },
  },
  engrave: {
    word: 'engrave',
    make: 'line',
    order: 1,
    look: { colour: '#7A4B86', widthMm: 0.2, dashMm: [0.3, 0.8] },
    dxfColour: 196,
    pen: 3,
    named: /engrav|etch/i,
    settings: { power: 0.2, speedMmPerMin: 3000, passes: 1 },
  },
  pocket: {
    word: 'pocket',
    make: 'fill',
    order: 2,
    look: { colour: '#7A4B86', widthMm: 0.3, dashMm: [] },
    dxfColour: 196,
    pen: 4,
    named: /pocket/i,
    settings: { power: 0.35, speedMmPerMin: 3000, passes: 1 },
  },
  stitch: {
    word: 'stitch',
    make: 'line',
    order: 3,
    look: { colour: '#35508F', widthMm: 0.2, dashMm: [3, 1, 0.3, 1] },
    dxfColour: 154,
    pen: 5,
    named: /stitch|sew|quilt/i,
    settings: { power: 0.2, speedMmPerMin: 2400, passes: 1 },
  },
  guide: {
    word: 'guide',
    make: 'nothing',
    order: 7,
    look: { colour: '#8A8A84', widthMm: 0.1, dashMm: [] },
    dxfColour: 8,
    pen: 6,
    named: /guide|construction|help/i,
    settings: { power: 0, speedMmPerMin: 6000, passes: 1 },
  },
} as const satisfies Record<string, PurposeKind>;

export type Purpose = keyof typeof kinds;
export const purposeKinds: Readonly<Record<Purpose, PurposeKind>> = kinds;
export const purposes = Object.keys(kinds) as [Purpose, ...Purpose[]];

/** How outlines of a purpose are made. */
export const makeOf = ({ purpose }: { readonly purpose: Purpose }): PurposeKind['make'] => purposeKinds[purpose].make;

/** Whether an outline of the purpose must be closed. */
export const mustClose = (outline: { readonly purpose: Purpose }): boolean => ['part', 'fill'].includes(makeOf(outline));

/** Whether a tool follows the line itself. */
export const isFollowed = (outline: { readonly purpose: Purpose }): boolean => ['part', 'line', 'dashes'].includes(makeOf(outline));

/** What the name of a layer or of an element says it is for. */
export function purposeNamed(name: string): Purpose | null {
  const last = (purpose: Purpose): boolean => purpose === 'cut';
  const inTurn = [...purposes.filter((p) => !last(p)), ...purposes.filter(last)];
  return inTurn.find((purpose) => purposeKinds[purpose].named.test(name)) ?? null;
}
