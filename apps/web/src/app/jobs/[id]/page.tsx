import { notFound } from 'next/navigation';
import { z } from 'zod';
import { requirePermission } from '@/server/access';
import { hasCutter } from '@/server/cutter';
import { HttpError } from '@/server/http-error';
import { openJob } from '@/server/jobs';
import { JobPage } from '@/stages/JobPage';
import { stages } from '@/stages/stage';

export const dynamic = 'force-dynamic';

interface RequestContext {
  readonly params: Promise<{ id: string }>;
  readonly searchParams: Promise<{ stage?: string | string[] }>;
}

export default async function OneJobPage({ params, searchParams }: RequestContext) {
  const person = await requirePermission('read-job');
  const id = z.uuid().safeParse((await params).id);
  if (!id.success) notFound();
  const opened = await openJob(person, id.data).catch((error) => {
    if (error instanceof HttpError && error.status === 404) notFound();
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
