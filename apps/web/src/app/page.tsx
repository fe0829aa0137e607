import { personWhoMay } from '@/server/access';
import { listJobs } from '@/server/jobs';
import { JobList } from '@/stages/JobList';

export const dynamic = 'force-dynamic';

export default async function JobsPage() {
  return <JobList jobs={await listJobs(await personWhoMay('list-jobs'))} />;
}
