export { Dimensioning, type DimensionRules, holeOf, lengthWritten } from './dimensions.ts';
export { planSheet, type SheetPlan } from './plan-sheet.ts';
export {
  mostMoved,
  type PlanSheetSettings,
  plainPlanSheet,
  planSheetSchema,
  type SheetScale,
  sheetPapers,
  sheetScales,
} from './settings.ts';
export { type DrawnDimension, type LineKind, letters, lineLooks, type SheetStroke, type SheetText, textWidth } from './sheet-lines.ts';
