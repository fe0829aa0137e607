import { notFound } from 'next/navigation';
import { z } from 'zod';
import { personWhoMay } from '@/server/access';
import { hasCutter } from '@/server/cutter';
import { openJob } from '@/server/jobs';
import { Problem } from '@/server/problem';
import { JobPage } from '@/stages/JobPage';
import { stages } from '@/stages/stage';

export const dynamic = 'force-dynamic';

interface Asked {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ stage?: string | string[] }>;
}

export default async function OneJobPage({ params, searchParams }: Asked) {
  const person = await personWhoMay('read-job');
  const id = z.uuid().safeParse((await params).id);
  if (!id.success) notFound();
  const opened = await openJob(person, id.data).catch((error) => {
    if (error instanceof Problem && error.status === 404) notFound();
    throw error;
  });
  const asked = (await searchParams).stage;
  return (
    <JobPage
      opened={opened}
      asked={stages.find((s) => s === asked) ?? null}
      scannerService={process.env.NUVET_SCANNER ?? null}
      hasCutter={hasCutter()}
    />
  );
}
