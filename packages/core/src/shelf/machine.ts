/**
 * Machines on the shelf: what each is for, and what it expects, as jobs copy it.
 */
import { z } from 'zod';
import { machineSchema } from '../job/machine.ts';
import { anyText, text } from '../job/schema-parts.ts';
import type { Column } from './column.ts';

export const axes = ['xy', 'xyz', 'xyz and a turning axis'] as const;

const { shelf: _, ...own } = machineSchema.shape;
export const shelfMachineSchema = z.strictObject({
  ...own,
  name: text(60),
  /** The process that it does, by its name in the registry. */
  process: text(40).default('laser'),
  axes: z.enum(axes).default('xy'),
  note: anyText(300).default(''),
});
export type ShelfMachine = z.infer<typeof shelfMachineSchema>;

export const machineColumns: readonly Column[] = [
  { field: 'name', word: 'Name', kind: 'text' },
  { field: 'process', word: 'Process', kind: 'text' },
  { field: 'bedWidthMm', word: 'Bed width', kind: 'length' },
  { field: 'bedHeightMm', word: 'Bed height', kind: 'length' },
  { field: 'axes', word: 'Axes', kind: 'choice', choices: axes },
  { field: 'unit', word: 'Unit', kind: 'choice', choices: ['mm', 'in'] },
  { field: 'y', word: 'Y axis points', kind: 'choice', choices: ['up', 'down'] },
  { field: 'origin', word: 'Origin', kind: 'choice', choices: ['lower-left', 'upper-left', 'centre', 'sheet'] },
  { field: 'dxf', word: 'Curves in DXF', kind: 'choice', choices: ['arcs', 'splines', 'plain'] },
  { field: 'toleranceMm', word: 'Tolerance', kind: 'length' },
  { field: 'fullS', word: 'S at full power', kind: 'number' },
  { field: 'travelMmPerMin', word: 'Rapid speed', kind: 'number', unit: 'mm/min' },
  { field: 'accelerationMmPerS2', word: 'Acceleration', kind: 'number', unit: 'mm/s²' },
  { field: 'maxFeedMmPerMin', word: 'Fastest cut', kind: 'number', unit: 'mm/min' },
  { field: 'travelZMm', word: 'Height travel', kind: 'length' },
  { field: 'spindleMinRpm', word: 'Slowest spindle', kind: 'number', unit: 'rpm' },
  { field: 'spindleMaxRpm', word: 'Fastest spindle', kind: 'number', unit: 'rpm' },
  { field: 'toolChange', word: 'Tool change', kind: 'choice', choices: ['program', 'stop', 'changer'] },
  { field: 'retract', word: 'Retracts to', kind: 'choice', choices: ['safe height', 'G28', 'G53'] },
  { field: 'arcs', word: 'Arcs', kind: 'choice', choices: ['centre', 'radius', 'lines'] },
  { field: 'decimals', word: 'Decimals', kind: 'number' },
  { field: 'comments', word: 'Comments', kind: 'choice', choices: ['brackets', 'semicolon', 'none'] },
  { field: 'note', word: 'Note', kind: 'text' },
];
