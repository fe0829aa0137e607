/** In: a tray's plan. Out: its sheets as files: drawings, one sheet beside the next, pages at full size, and a table of what lies in it. */
import { strToU8 } from 'fflate';
import { csvText } from '../../formats/csv.ts';
import type { Piece } from '../../job/schema.ts';
import { printMm } from '../../length/index.ts';
import { english } from '../../messages/index.ts';
import { heightOf, pathArea, pathBox, reversedPath, shift, transformedPath, widthOf } from '../../plane/index.ts';
import type { TrayPlan, TraySettings } from '../../tray/index.ts';
import { drawingFiles } from '../drawing-files.ts';
import { type Pattern, patternsPdf } from '../paged-patterns.ts';
import type { ProcessFile } from '../process.ts';

type TrayFile = ProcessFile<TraySettings, TrayPlan>;

const betweenSheetsMm = 20;

/** The sheets as pieces, the uppermost first, with the numbers on it. */
export function sheetsOfTray({ layers, pockets, widthMm }: TrayPlan): Piece[] {
  return layers.flatMap(({ number, outer, pockets: holes }): Piece[] => {
    const to = shift((number - 1) * (widthMm + betweenSheetsMm), 0);
    const name = english.tray.layer(number);
    const piece = (what: string, purpose: Piece['purpose'], path: Piece['outer'], inner: Piece['holes'] = []): Piece => ({ id: `${number} ${what}`, name, purpose, leftOut: false, runsOff: false, outer: transformedPath(path, to), holes: inner.map((hole) => transformedPath(hole, to)) }); // biome-ignore format: one line
    // What stands within a pocket is a piece of its own: it is glued in.
    const [cut, islands] = [holes.filter((path) => pathArea(path) > 0), holes.filter((path) => pathArea(path) < 0)];
    return [
      piece('sheet', 'cut', outer, cut.map(reversedPath)),
      ...islands.map((island, k) => piece(`island ${k + 1}`, 'cut', reversedPath(island))),
      ...(number === 1 ? pockets.flatMap(({ number: own, numeral }) => numeral.map((line, k) => piece(`number ${own} ${k}`, 'engrave', line))) : []), // biome-ignore format: one line
    ];
  });
}

const drawings = drawingFiles<TraySettings, TrayPlan>(
  'The sheets of the tray side by side, the uppermost first: pockets to cut, numbers to engrave.',
  'tray',
  (_, plan) => sheetsOfTray(plan),
);

const pages: TrayFile = {
  word: 'Pages',
  about: 'Every sheet of the tray at full size, on pages to print and to cut along.',
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'tray',
  make: ({ title, settings }, plan) => patternsPdf(english.tray.trays(title), patternsOf(plan), settings.paper, english.tray.traysHow),
};

const textPoints = 9;

function patternsOf({ layers, pockets }: TrayPlan): Pattern[] {
  return layers.map(({ number, thicknessMm, outer, pockets: holes }) => ({
    name: english.tray.layer(number),
    lines: [
      ...[outer, ...holes].map((path) => ({ kind: 'cutting', path }) as const),
      ...(number === 1 ? pockets.flatMap(({ numeral }) => numeral.map((path) => ({ kind: 'mark', path }) as const)) : []),
    ],
    texts: [{ at: { x: 4, y: 3 }, text: english.tray.layerOf(number, printMm(thicknessMm)), size: textPoints }],
  }));
}

export const trayColumns = ['number', 'name', 'heightMm', 'edge', 'depthMm', 'widthMm', 'lengthMm', 'correctedMm'] as const;

const table: TrayFile = {
  word: 'List of what lies in it',
  about: 'Each object with its number: how high it is, how deep it lies, its true size, and how much was taken off its outline.',
  ending: 'csv',
  mediaType: 'text/csv',
  what: 'list',
  async make(_, { pockets, widthMm, lengthMm }) {
    const rows = pockets.map(({ number, name, heightMm, edge, depthMm, outline, movedMm }) => {
      const box = pathBox(outline.outer);
      return [
        number,
        name,
        heightMm.toFixed(2),
        edge,
        depthMm.toFixed(2),
        ...[widthOf(box), heightOf(box), movedMm].map((v) => v.toFixed(3)),
      ];
    });
    return { bytes: strToU8(csvText(trayColumns, rows)), largestMm: null, toleranceMm: null, widthMm, heightMm: lengthMm };
  },
};

export const trayFiles: Record<string, TrayFile> = { ...drawings, pages, list: table };
