/** In: a wing panel's plan. Out: its files: programs for the wire, read back, templates of both faces as drawings and on pages. */
import { strToU8 } from 'fflate';
import type { WingCut, WingPlan, WingSettings } from '../../foam/index.ts';
import { readWireProgram, wireProgramDeviation, writeWireProgram } from '../../formats/index.ts';
import { english } from '../../messages/index.ts';
import { drawingFiles } from '../drawing-files.ts';
import { type Pattern, patternsPdf } from '../paged-patterns.ts';
import type { ProcessFile, ProcessFileMade } from '../process.ts';
import { faceTemplates, wingTemplates } from './wing-templates.ts';

type WingFile = ProcessFile<WingSettings, WingPlan>;

const warmUpS = 5;
/** What rounding leaves of a place, mm. */
const roundedMm = 1e-4;

export const wireText = (cut: WingCut, title: string, { axes }: Pick<WingSettings, 'axes'>): string =>
  writeWireProgram(cut.towers, { title, axes, warmUpS });

const wire: WingFile = {
  word: 'Hot wire',
  about: 'The program for the towers, for each panel of the pair; read back.',
  ending: 'gcode',
  mediaType: 'text/plain',
  what: 'wing',
  async make({ title, settings }, { cut, mirrored, block }) {
    const made = (one: WingCut, part?: string): ProcessFileMade => {
      const text = wireText(one, part ? `${title} ${part}` : title, settings);
      const largestMm = wireProgramDeviation(one.towers, readWireProgram(text, settings.axes));
      return {
        bytes: strToU8(text),
        largestMm,
        toleranceMm: roundedMm,
        widthMm: block.lengthMm,
        heightMm: block.heightMm,
        ...(part && { part }),
      };
    };
    return mirrored ? { ...made(cut, english.foam.firstPanel), further: [made(mirrored, english.foam.otherPanel)] } : made(cut);
  },
};

const drawings = drawingFiles<WingSettings, WingPlan>(
  'Templates of root and tip side by side: cores and their beds to cut, ticks to score.',
  'templates',
  (_, { cut }) => wingTemplates(cut),
);

const pages: WingFile = {
  word: 'Templates',
  about: 'Root and tip at full size with numbered ticks, on pages to print.',
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'templates',
  make: ({ title, settings }, { cut }) => patternsPdf(english.foam.templates(title), faceTemplates(cut).map(patternOf), settings.paper, english.foam.templatesHow), // biome-ignore format: one line
};

const wordOf = (face: 'root' | 'tip'): string => (face === 'root' ? english.foam.rootFace : english.foam.tipFace);

/** Every so many ticks has its number. */
const numberedTicks = 5;

const patternOf = ({ face, core, section, ticks }: ReturnType<typeof faceTemplates>[0]): Pattern => ({
  name: wordOf(face),
  lines: [{ kind: 'cutting', path: core }, { kind: 'sewing', path: section }, ...ticks.map((path) => ({ kind: 'mark', path }) as const)],
  texts: [
    { at: { x: 40, y: -14 }, text: wordOf(face), size: 10, isBold: true },
    ...ticks.flatMap(({ segments }, k) => {
      const [end] = segments;
      return end && k % numberedTicks === 0 ? [{ at: { x: end.to.x - 1, y: end.to.y }, text: String(k), size: 6 }] : [];
    }),
  ],
});

export const wingFiles: Record<string, WingFile> = { wire, ...drawings, pages };
