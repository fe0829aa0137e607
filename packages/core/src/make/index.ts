export { type Cutting, cuttingSchema, leadKinds, type PowerSetting, plainCutting, powerSettingOf } from './cutting.ts';
export { type Compensated, kerfCompensated } from './kerf.ts';
export { type GaugeSettings, kerfGauge, kerfRead, plainGauge, slotsOf } from './kerf-gauge.ts';
export { type Ordered, orderedStops, type Stop, travelOf } from './order.ts';
export { originOn, toMachine } from './placement.ts';
export { type CutPlan, cutPlan, noCut, plannedCut, type Run } from './plan.ts';
export { type Printing, plainPrinting, printingSchema } from './printing.ts';
export { ownPaper, type Page, PaperError, paperSize, papers, type Tiling, tiled } from './tiles.ts';
