/**
 * A workshop's own motifs in the database: listed, kept, deleted.
 */
import { cleanText, pathSchema } from '@nuvet/core/job';
import { z } from 'zod';
import { words } from '../words/index.ts';
import { owned, type Person } from './access.ts';
import { HttpError } from './http-error.ts';
import { models } from './models.ts';

/** All motifs are listed at once: none may be a picture of its own. */
const maxSegments = 5000;

export const newMotifSchema = z.strictObject({
  name: z.string().overwrite(cleanText).trim().min(1).max(100),
  tags: z.array(z.string().overwrite(cleanText).trim().min(1).max(40)).max(20),
  /** At true size, mm. */
  paths: z
    .array(pathSchema)
    .min(1)
    .max(2000)
    .refine((paths) => paths.reduce((sum, { segments }) => sum + segments.length, 0) <= maxSegments, words.server.tooManySegmentsForAMotif),
});
type NewMotif = z.infer<typeof newMotifSchema>;

export type StoredMotif = NewMotif & { readonly id: string };

/** More would not be found again on a shelf. */
const maxMotifs = 2000;

export async function listMotifs(person: Person): Promise<StoredMotif[]> {
  const rows = await models().MotifRow.findAll({ where: { workshopId: person.workshopId }, order: [['createdAt', 'DESC']] });
  return rows.map(({ id, name, tags, paths }) => ({ id, name, tags, paths }));
}

export async function keepMotif(person: Person, motif: NewMotif): Promise<StoredMotif> {
  const { MotifRow } = models();
  if ((await MotifRow.count({ where: { workshopId: person.workshopId } })) >= maxMotifs)
    throw new HttpError(409, 'shelf-full', words.server.theShelfHoldsNoMoreMotifs);
  const row = await MotifRow.create({ workshopId: person.workshopId, ...motif, paths: [...motif.paths] });
  return { id: row.id, ...motif };
}

export async function deleteMotif(person: Person, id: string): Promise<void> {
  const row = owned(person, await models().MotifRow.findByPk(id), 'motif');
  await row.destroy();
}
