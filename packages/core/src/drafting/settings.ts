/** The settings of a plan sheet: paper, scale, which views and dimensions, and what stands in the title block. Lengths in mm. */
import { z } from 'zod';
import { anyText, coordinate, finite, text } from '../job/schema-parts.ts';

export const sheetPapers = ['A4', 'A3', 'A2', 'A1', 'Letter', 'Tabloid'] as const;

/** What of the sheet's length stands for one of the piece. ISO 5455:1979, and the usual ones in feet and inches (common practice). */
export const sheetScales = {
  '10:1': 10,
  '5:1': 5,
  '2:1': 2,
  '1:1': 1,
  '1:2': 1 / 2,
  '1:5': 1 / 5,
  '1:10': 1 / 10,
  '1:20': 1 / 20,
  '3 in = 1 ft': 1 / 4,
  '1 in = 1 ft': 1 / 12,
} as const;
export type SheetScale = keyof typeof sheetScales;
const scaleNames = Object.keys(sheetScales) as [SheetScale, ...SheetScale[]];

export const mostMoved = 300;

export const planSheetSchema = z.strictObject({
  paper: z.enum(sheetPapers),
  isLandscape: z.boolean(),
  /** The largest that fits, where none is named. */
  scale: z.enum(scaleNames).nullable(),
  /** Sizes by ISO 129-1, or in decimal inches as is the custom there. */
  system: z.enum(['iso', 'inch']),
  hasTopView: z.boolean(),
  hasSideView: z.boolean(),
  /** In place of the side view the section along an upright line so far from the left edge of all pieces. */
  sectionAtMm: coordinate.nullable(),
  holes: z.boolean(),
  radii: z.boolean(),
  angles: z.boolean(),
  datum: z.enum(['lower left', 'middle']),
  /** A circle of the drawing that is shown larger, so many times; its middle from the lower left corner of all pieces. */
  detail: z.strictObject({ x: coordinate, y: coordinate, radiusMm: finite.min(0.5).max(1000), times: finite.min(1.5).max(20) }).nullable(),
  toleranceMm: finite.min(0.001).max(100),
  number: anyText(40),
  drawnBy: anyText(60),
  revision: anyText(20),
  date: anyText(20),
  /** Dimensions that are left out, and how far others were moved on the sheet, by their names. */
  leftOut: z.array(text(80)).max(mostMoved),
  moved: z.array(z.strictObject({ name: text(80), dx: coordinate, dy: coordinate })).max(mostMoved),
});
export type PlanSheetSettings = z.infer<typeof planSheetSchema>;

export const plainPlanSheet: PlanSheetSettings = {
  paper: 'A4',
  isLandscape: true,
  scale: null,
  system: 'iso',
  hasTopView: true,
  hasSideView: true,
  sectionAtMm: null,
  holes: true,
  radii: true,
  angles: true,
  datum: 'lower left',
  detail: null,
  toleranceMm: 0.1,
  number: '',
  drawnBy: '',
  revision: '',
  date: '',
  leftOut: [],
  moved: [],
};
