/** Tool tray: pockets for things in a drawer or a case, from a photograph, each brought to its true size by its height. */
import { heightOf, pathBox, widthOf } from '../../plane/index.ts';
import { plainTray, type TrayPlan, type TraySettings, trayPlan, traySchema } from '../../tray/index.ts';
import { lengthOption } from '../length-option.ts';
import { processKind, type SheetLine } from '../process.ts';
import { withReports } from '../reports.ts';
import { trayFiles } from './tray-files.ts';

const object = 'an object in the tray';

const reportOf = ({ camera, pockets, layers, widthMm, lengthMm }: TrayPlan) => ({
  camera: camera && { heightMm: camera.camera.z, standardErrorMm: camera.heightErrorMm, tiltDegrees: (camera.camera.tilt * 180) / Math.PI },
  tray: { widthMm, lengthMm, sheets: layers.map(({ thicknessMm, pockets }) => ({ thicknessMm, cuts: pockets.length })) },
  objects: pockets.map(({ number, name, heightMm, edge, depthMm, outline, movedMm, at, turn }) => {
    const box = pathBox(outline.outer);
    return { number, name, heightMm, edge, depthMm, widthMm: widthOf(box), lengthMm: heightOf(box), correctedMm: movedMm, at, turn };
  }),
});

export const tray = processKind<TraySettings, TrayPlan>({
  word: 'Tool tray',
  about: 'Lays photographed tools in a drawer: true outlines by their height, pockets, finger notches, sheets of foam.',
  settings: traySchema,
  plain: plainTray,
  makes: { part: object, line: null, dashes: null, fill: object, nothing: null },
  purposes: {},
  ofMaterial: [],
  takesPhotographs: true,
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  plan: ({ pieces, photographs = [], settings, stock }) => trayPlan(pieces, photographs, settings, stock),
  notes: ({ notes }) => notes,
  estimate: () => ({ rows: [], seconds: null }),
  drawing: ({ pockets }) => pockets.flatMap(({ outline }) => [outline.outer, ...outline.holes].map((path): SheetLine => ({ path, kind: 'work', purpose: 'cut' }))), // biome-ignore format: one line
  files: withReports(trayFiles, reportOf),
  options: {
    height: { takes: 'word', about: 'how high the objects are', read: (word) => ({ heightMm: lengthOption(word, 'mm') }) },
    camera: { takes: 'word', about: 'how high the camera was, where its picture does not tell it', read: (word) => ({ cameraMm: lengthOption(word, 'mm') }) }, // biome-ignore format: one line
    clearance: {
      takes: 'word',
      about: 'what is left free around each object',
      read: (word) => ({ clearanceMm: lengthOption(word, 'mm') }),
    },
    drawer: { takes: 'word', about: 'the size of the drawer, as 400x300mm', read: drawerSaid },
    upright: { takes: 'nothing', about: 'the objects have upright sides, not round ones', read: () => ({ edge: 'upright' }) },
  },
});

function drawerSaid(word: string): Partial<TraySettings> {
  const [width, length, ...more] = word.split('x');
  const unit = /[a-z"']+$/i.exec(word.trim())?.[0] ?? '';
  if (!width || !length || more.length > 0) throw new Error(`“${word}” is no size: write it as 400x300mm.`);
  return { widthMm: lengthOption(/[a-z"']\s*$/i.test(width) ? width : width + unit, 'mm'), lengthMm: lengthOption(length, 'mm') };
}
