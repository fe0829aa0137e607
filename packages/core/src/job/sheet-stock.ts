/** The sheets at hand that a process lays its parts out on: rectangles of a size and count, or what is left of a sheet. Lengths in mm. */
import { z } from 'zod';
import { finite, pathSchema, text } from './schema-parts.ts';

const sideMm = finite.min(10).max(20_000);

export const sheetStockSchema = z.strictObject({
  widthMm: sideMm,
  heightMm: sideMm,
  count: z.int().min(1).max(400),
  /** Of boards that thick; of all where it does not say. */
  boardMm: finite.min(0.5).max(2000).optional(),
  /** What is left of a sheet: its name and its outline, whose box begins at the origin. */
  leftover: z.strictObject({ name: text(100), outline: pathSchema }).optional(),
});
export type SheetStock = z.infer<typeof sheetStockSchema>;
