import { notFound } from 'next/navigation';
import { z } from 'zod';
import { personWhoMay } from '@/server/access';
import { openJob } from '@/server/jobs';
import { Problem } from '@/server/problem';
import { JobPage } from '@/stages/JobPage';

export const dynamic = 'force-dynamic';

export default async function OneJobPage({ params }: { params: Promise<{ id: string }> }) {
  const person = await personWhoMay('read-job');
  const id = z.uuid().safeParse((await params).id);
  if (!id.success) notFound();
  const opened = await openJob(person, id.data).catch((error) => {
    if (error instanceof Problem && error.status === 404) notFound();
    throw error;
  });
  return <JobPage opened={opened} scannerService={process.env.NUVET_SCANNER ?? null} />;
}
