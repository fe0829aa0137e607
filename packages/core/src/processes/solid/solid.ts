/** Solid: outlines get a thickness and become bodies to print: edges, drafts, a base, raised lines, part spheres. */
import {
  loadSolids,
  plainBody,
  plainSolid,
  type SolidPlan,
  type SolidSettings,
  solidPlan,
  solidSchema,
  wholeSolid,
} from '../../solid/index.ts';
import { lengthOption } from '../length-option.ts';
import { processKind } from '../process.ts';
import { withReports } from '../reports.ts';
import { solidFiles, solidReport } from './solid-files.ts';

const body = 'a body';

export const solid = processKind<SolidSettings, SolidPlan>({
  word: 'Solid',
  about: 'Gives outlines a thickness: bodies to print, with edges, drafts, a base and raised lines.',
  settings: solidSchema,
  plain: plainSolid,
  whole: wholeSolid,
  makes: { part: body, line: body, dashes: body, fill: body, nothing: null },
  purposes: {},
  ofMaterial: ['density'],
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  // Bodies may cross and stand on one another; lines become bands.
  ignores: ['open', 'near-miss', 'crosses-another', 'doubled', 'inside-another', 'too-near', 'drops-out'],
  ready: loadSolids,
  greysIn: ({ reliefs }) => reliefs.map(({ pictureId }) => pictureId),
  plan: ({ pieces, settings, greys }) => solidPlan(pieces, settings, greys),
  notes: ({ notes }) => notes,
  estimate: ({ seconds }) => ({ rows: [], seconds }),
  drawing: () => [],
  files: withReports(solidFiles, solidReport),
  options: {
    thickness: { takes: 'word', about: 'how high the bodies are', read: (word) => ({ body: { ...plainBody, toMm: lengthOption(word, 'mm') } }) }, // biome-ignore format: one line
    base: {
      takes: 'word',
      about: 'how thick a base under them is',
      read: (word) => ({ base: { marginMm: 3, thicknessMm: lengthOption(word, 'mm'), cornerMm: 3, holeMm: null } }),
    },
    lines: { takes: 'word', about: 'how wide drawn lines become', read: (word) => ({ lines: { widthMm: lengthOption(word, 'mm'), fromMm: 0, toMm: plainBody.toMm, how: 'join' as const } }) }, // biome-ignore format: one line
  },
});
