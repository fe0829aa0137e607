/**
 * What a job is made from and how: its stock, its processes, and how files are named. The settings of a process are its own
 * (`processes/`): here they are plain data of bounded size.
 */
import { z } from 'zod';
import { machineSchema, plainMachine } from './machine.ts';
import { finite, shelfCopySchema, sizeMm, text } from './schema-parts.ts';
import { sheetLayoutSchema } from './sheet-layout.ts';

export const stockSchema = z.strictObject({
  name: text(100).nullable(),
  /** As measured, mm. */
  thicknessMm: finite.positive().max(100_000).nullable(),
  /** The sheet's size, where it is known, mm. */
  widthMm: sizeMm.nullable(),
  heightMm: sizeMm.nullable(),
  /** The material on the shelf that this is a copy of. */
  shelf: shelfCopySchema.nullable(),
});
export type Stock = z.infer<typeof stockSchema>;

const maxSettingsChars = 20_000;
/** The settings of a process: checked in full by the process itself. */
export const processSettingsSchema = z
  .record(text(60), z.json())
  .refine((settings) => JSON.stringify(settings).length <= maxSettingsChars, 'too many settings');

export const processEntrySchema = z.strictObject({
  id: text(64),
  /** Its name in the registry of processes. */
  process: text(40),
  machine: machineSchema,
  settings: processSettingsSchema,
});
/** One process of a job. */
export type ProcessEntry = z.infer<typeof processEntrySchema>;

export const makingSchema = z.strictObject({
  stock: stockSchema,
  processes: z.array(processEntrySchema).max(12),
  /** How the pieces lie on sheets, for the processes that cut them; without one they are made where they are drawn. */
  layout: sheetLayoutSchema.nullable().optional(),
  /** How files are named: {job}, {what}, {process}, {machine}, {date}, {revision}. */
  fileNames: text(120),
});
export type Making = z.infer<typeof makingSchema>;

export const plainStock: Stock = { name: null, thicknessMm: null, widthMm: null, heightMm: null, shelf: null };
export const plainFileNames = '{job}-{what}';

/** A new job is cut by laser, until somebody says otherwise. */
export const plainMaking: Making = {
  stock: plainStock,
  processes: [{ id: 'first', process: 'laser', machine: plainMachine, settings: {} }],
  fileNames: plainFileNames,
};
