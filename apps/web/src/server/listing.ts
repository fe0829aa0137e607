/**
 * In: the query of an address. Out: which page of the list of jobs it asks for.
 */
import { cleanText } from '@nuvet/core/job';
import { z } from 'zod';
import type { Listing } from './jobs.ts';

const listingSchema = z.object({
  page: z.coerce.number().int().min(0).max(100_000).catch(0),
  search: z.string().overwrite(cleanText).max(120).catch(''),
  bin: z.string().optional(),
});

export function listingOf(query: Readonly<Record<string, unknown>>): Listing {
  const { page, search, bin } = listingSchema.parse(query);
  return { page, search, inBin: bin !== undefined };
}
