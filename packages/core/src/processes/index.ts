export {
  checkedCommandSchema,
  checkedJobSchema,
  faultsOfJob,
  faultsTogether,
  type JobProcess,
  limitsOf,
  newEntry,
  processesOf,
  type SharedLimits,
  settingsOf,
  workOf,
} from './job-processes.ts';
export type { KnifeSettings } from './knife/knife.ts';
export type { LaidOut, LaidPart, LaidSheet } from './laid-sheets.ts';
export type { LaserSettings } from './laser/laser.ts';
export type { OutlinesSettings } from './outlines/outlines.ts';
export type { PaperSettings } from './paper/paper.ts';
export type { AnyProcess, Estimate, FileChoices, PlanNote, ProcessFile, ProcessFileMade, ProcessKind, SheetLine, Work } from './process.ts';
export { meaningOf } from './process.ts';
export { needleRimMm } from './quilting/needle-job.ts';
export { processKinds, processNames } from './registry.ts';
export type { StandInBlock, StandInJob, StandInTool } from './stand-in.ts';
export { wingTemplates } from './wing/wing-templates.ts';
