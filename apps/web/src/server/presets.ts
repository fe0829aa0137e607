/**
 * Stocks and machines in the database: what was set up with one is remembered under its name.
 */
import { cleanText, machineSchema, stockPresetSchema } from '@nuvet/core/job';
import { z } from 'zod';
import { words } from '../words/index.ts';
import type { Person } from './access.ts';
import { models } from './models.ts';
import { Problem } from './problem.ts';

const name = z.string().overwrite(cleanText).trim().min(1).max(100);
export const presetSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('stock'), name, value: stockPresetSchema }),
  z.strictObject({ kind: z.literal('machine'), name, value: machineSchema }),
]);
export type Preset = z.infer<typeof presetSchema>;

const mostPresets = 1000;

export async function listPresets(person: Person): Promise<Preset[]> {
  const rows = await models().PresetRow.findAll({ where: { workshopId: person.workshopId }, order: [['name', 'ASC']] });
  return rows.map(({ kind, name, value }) => presetSchema.parse({ kind, name, value }));
}

/** One of the same kind and name gives way. */
export async function keepPreset(person: Person, { kind, name, value }: Preset): Promise<void> {
  const { PresetRow } = models();
  const { workshopId } = person;
  const before = await PresetRow.findOne({ where: { workshopId, kind, name } });
  if (before) {
    await before.update({ value });
    return;
  }
  if ((await PresetRow.count({ where: { workshopId } })) >= mostPresets)
    throw new Problem(409, 'shelf-full', words.server.noMoreStocksAndMachinesCan);
  await PresetRow.create({ workshopId, kind, name, value });
}
