/**
 * Materials on the shelf: what they are, how thick they really are, what sheets there are of them, and how machines cut them.
 */
import { z } from 'zod';
import { processSettingsSchema } from '../job/making.ts';
import { anyText, finite, hexColour, pathSchema, sizeMm, text } from '../job/schema-parts.ts';
import type { Column } from './column.ts';

export const materialKinds = ['wood', 'board', 'paper', 'cloth', 'leather', 'foam', 'plastic', 'metal', 'other'] as const;
export const grains = ['none', 'along the width', 'along the height'] as const;
export const priceUnits = ['sheet', 'm²', 'm'] as const;

/** How a machine cuts it, as it was found or set up last. */
const onMachineSchema = z.strictObject({
  machine: text(60),
  process: text(40),
  kerfMm: finite.nonnegative().max(50).nullable(),
  /** Settings of the process that belong to the material: power, speed. */
  settings: processSettingsSchema,
});

export const materialSchema = z.strictObject({
  name: text(100),
  kind: z.enum(materialKinds).default('other'),
  /** As it is sold, and as it was measured, mm. */
  nominalMm: sizeMm.nullable().default(null),
  measuredMm: sizeMm.nullable().default(null),
  sheets: z
    .array(z.strictObject({ widthMm: sizeMm, heightMm: sizeMm, count: z.int().min(0).max(100_000) }))
    .max(50)
    .default([]),
  /** What is left of sheets, as outlines, mm. */
  leftovers: z
    .array(z.strictObject({ name: text(100), outline: pathSchema }))
    .max(50)
    .default([]),
  grain: z.enum(grains).default('none'),
  densityKgPerM3: finite.positive().max(100_000).nullable().default(null),
  price: finite.nonnegative().max(1e6).nullable().default(null),
  pricePer: z.enum(priceUnits).default('sheet'),
  colour: hexColour.nullable().default(null),
  /** A photograph of it: JPEG, and how wide what it shows is, mm. */
  photo: z
    .strictObject({ jpegBase64: z.base64().max(160_000), widthMm: sizeMm, heightMm: sizeMm })
    .nullable()
    .default(null),
  onMachines: z.array(onMachineSchema).max(30).default([]),
  note: anyText(300).default(''),
});
export type Material = z.infer<typeof materialSchema>;

export const materialColumns: readonly Column[] = [
  { field: 'name', word: 'Name', kind: 'text' },
  { field: 'kind', word: 'Kind', kind: 'choice', choices: materialKinds },
  { field: 'nominalMm', word: 'Sold as', kind: 'length' },
  { field: 'measuredMm', word: 'Measured', kind: 'length' },
  { field: 'sheets', word: 'Sheets', kind: 'sheets' },
  { field: 'grain', word: 'Grain', kind: 'choice', choices: grains },
  { field: 'densityKgPerM3', word: 'Density', kind: 'number', unit: 'kg/m³' },
  { field: 'price', word: 'Price', kind: 'number' },
  { field: 'pricePer', word: 'Per', kind: 'choice', choices: priceUnits },
  { field: 'colour', word: 'Colour', kind: 'colour' },
  { field: 'note', word: 'Note', kind: 'text' },
];
