import { requirePermission } from '@/server/access';
import { listJobs } from '@/server/jobs';
import { listingOf } from '@/server/listing';
import { JobList } from '@/stages/JobList';

export const dynamic = 'force-dynamic';

export default async function JobsPage({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const listing = listingOf(await searchParams);
  const person = await requirePermission('list-jobs');
  return <JobList {...(await listJobs(person, listing))} listing={listing} />;
}
