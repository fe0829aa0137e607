/**
 * CNC: pieces are milled from stock by tools that turn: profiles, pockets, carvings, lines and holes, each compensated for its tool and
 * measured against the outlines before a program is handed over.
 */
import { purposeKinds } from '../../job/purposes.ts';
import {
  type MillingSettings,
  type MillPlan,
  type Move,
  millingSchema,
  millPlan,
  type Place,
  plainMilling,
  readToolsCsv,
  segmentOfMove,
} from '../../milling/index.ts';
import { circleOf, type Path, rectanglePath, type Segment } from '../../plane/index.ts';
import { processKind, type SheetLine } from '../process.ts';
import { millJob } from './mill-job.ts';
import { madePrograms, madeSolid } from './program-files.ts';

export const cnc = processKind<MillingSettings, MillPlan>({
  word: 'CNC',
  about: 'Mills pockets, lines and outlines with end mills, V-bits and drills.',
  settings: millingSchema,
  plain: plainMilling,
  makes: {
    part: 'cut free by a profile, a radius beside the line',
    line: 'followed along the line with the finest point',
    dashes: null,
    fill: 'cleared to its depth',
    nothing: null,
  },
  purposes: {},
  ofMaterial: ['pocketDepthMm', 'engraveDepthMm', 'spoilMm'],
  cutsSheets: true,
  limits: ({ tools }) => ({ kerfMm: narrowest(tools), thinnestMm: 0 }),
  plan: ({ pieces, settings, machine, stock }) => millPlan(pieces, settings, machine, stock),
  notes: ({ notes }) => notes,
  estimate: ({ runs, seconds }) => ({
    rows: [...new Set(runs.map(({ purpose }) => purpose))]
      .sort((a, b) => purposeKinds[a].order - purposeKinds[b].order)
      .map((purpose) => {
        const own = runs.filter((run) => run.purpose === purpose);
        return {
          purpose,
          lengthMm: own.reduce((sum, run) => sum + run.lengthMm, 0),
          seconds: own.reduce((sum, run) => sum + run.seconds, 0),
        };
      }),
    seconds: runs.length > 0 ? seconds : null,
  }),
  drawing: drawingOf,
  files: {
    gcode: {
      word: 'G-code',
      about: 'Programs for the machine, a tool each, milled on trial before they are handed over.',
      ending: 'gcode',
      mediaType: 'text/x-gcode',
      what: 'program',
      make: madePrograms,
    },
    sheet: {
      word: 'Setup sheet',
      about: 'Stock, zero, tools and order on a page to lie beside the machine.',
      ending: 'pdf',
      mediaType: 'application/pdf',
      what: 'setup',
      make: async (work, plan) => (await import('./set-up-sheet.ts')).madeSetUpSheet(work, plan),
    },
    solid: {
      word: 'Solid',
      about: 'The stock as the programs leave it, to look at.',
      ending: 'stl',
      mediaType: 'model/stl',
      what: 'solid',
      make: madeSolid,
    },
  },
  standIn: millJob,
  options: {
    tools: { takes: 'file', about: 'the tools at hand, a CSV table', read: (text) => ({ tools: readToolsCsv(text) }) },
    'sloped-pockets': { takes: 'nothing', about: 'pockets get the sloped walls of a V-bit', read: () => ({ slopedPockets: true }) },
    'pocket-depth': { takes: 'word', about: 'how deep pockets are, mm', read: (word) => ({ pocketDepthMm: depthSaid(word) }) },
    'engrave-depth': { takes: 'word', about: 'how deep lines are engraved, mm', read: (word) => ({ engraveDepthMm: depthSaid(word) }) },
  },
});

/** The narrowest gap that a profile can go through. */
const narrowest = (tools: MillingSettings['tools']): number => {
  const mills = tools.filter(({ kind }) => kind === 'end mill').map(({ diameterMm }) => diameterMm);
  return mills.length > 0 ? Math.min(...mills) : 0;
};

function depthSaid(word: string): number {
  const mm = Number(word.replace(/mm$/, ''));
  if (!(mm > 0 && mm <= 1000)) throw new Error('a depth in mm is needed');
  return mm;
}

/** The stock and its clamps, and the cuts in their order, with how the tool gets from each to the next. */
function drawingOf({ runs, stock, clamps }: MillPlan): SheetLine[] {
  const boxes = clamps.map(({ x, y, widthMm, heightMm }) => ({ minX: x, minY: y, maxX: x + widthMm, maxY: y + heightMm }));
  const lines = [stock, ...boxes].map((box): SheetLine => ({ path: rectanglePath(box), kind: 'frame', purpose: null }));
  let last: Place | null = null;
  for (const run of runs) {
    if (last) lines.push({ path: straight(last, run.start), kind: 'travel', purpose: null });
    lines.push(...linesOf(run));
    last = run.moves.at(-1)?.to ?? run.start;
  }
  return lines;
}

function linesOf({ start, moves, purpose }: MillPlan['runs'][0]): SheetLine[] {
  const lines: SheetLine[] = [];
  let at = start;
  let [from, segments]: [Place, Segment[]] = [start, []];
  const close = (): void => {
    if (segments.length > 0) lines.push({ path: { start: flat(from), segments, closed: false }, kind: 'work', purpose });
    segments = [];
  };
  for (const move of moves) {
    const isFlat = Math.hypot(move.to.x - at.x, move.to.y - at.y) > 1e-9 || move.sweep !== 0;
    if (move.isRapid) close();
    if (move.isRapid && isFlat) lines.push({ path: straight(at, move.to), kind: 'travel', purpose: null });
    if (!move.isRapid && isFlat) {
      if (segments.length === 0) from = at;
      segments.push(shownSegment(at, move));
    }
    at = move.to;
  }
  close();
  return lines;
}

const flat = ({ x, y }: Place): { x: number; y: number } => ({ x, y });
const straight = (a: Place, b: Place): Path => ({ start: flat(a), segments: [{ kind: 'line', to: flat(b) }], closed: false });

/** An arc that is hardly one is a line to look at. */
function shownSegment(from: Place, move: Move): Segment {
  const segment = segmentOfMove(move);
  return segment.kind === 'arc' && !(circleOf(from, segment).radius > 1e-6) ? { kind: 'line', to: segment.to } : segment;
}
