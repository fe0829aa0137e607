/**
 * Migrates the database and, where it holds no job yet, puts the demo jobs in, as their makers would have made them.
 */
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import { type Command, defaultTraceSettings, fitOf, type Mark, type Picture, traceOnSheet } from '@nuvet/core/job';
import { tracePicture } from '@nuvet/core/trace';
import { type DemoJob, demoJobs, pngOf, type Scan, scanScene } from '@nuvet/truth';
import { personWhoMay } from '../apps/web/src/server/access.ts';
import { database } from '../apps/web/src/server/database.ts';
import { listJobs, makeJob, openJob, takeSteps } from '../apps/web/src/server/jobs.ts';
import { migrate } from '../apps/web/src/server/migrate.ts';
import { receivePicture } from '../apps/web/src/server/pictures.ts';

function markOf(demo: DemoJob, scan: Scan, kind: Mark['kind'], name: string, stated: Mark['stated']): Mark {
  const ends = demo.scene.marks?.[name];
  if (!ends) throw new Error(`${demo.scene.name} has no mark ${name}`);
  return { id: `${demo.scene.name}-${name}`, kind, points: ends.map((p) => scan.at(p)), stated };
}

/** The edits that bring the job to where the workshop has it now. */
function commandsOf(demo: DemoJob, scan: Scan, pictureId: string): Command[] {
  const { text, mm, mark } = demo.known;
  return [
    { do: 'set-unit', unit: demo.unit },
    { do: 'set-making', making: demo.making },
    { do: 'add-mark', pictureId, mark: markOf(demo, scan, 'known-length', mark, [{ text, value: mm }]) },
    { do: 'add-mark', pictureId, mark: markOf(demo, scan, 'level', 'level', []) },
    { do: 'add-mark', pictureId, mark: markOf(demo, scan, 'check', demo.check, [{ text: '', value: null }]) },
  ];
}

async function load(demo: DemoJob): Promise<void> {
  const person = await personWhoMay('make-job');
  const scan = scanScene(demo.scene, demo.scan);
  const png = await pngOf(scan.picture, demo.scan.dpi);
  const body = Readable.toWeb(Readable.from([png])) as ReadableStream<Uint8Array>;
  const brought = await receivePicture(person, { name: `${demo.scene.name}.png`, page: 0, resolution: null }, body);
  const id = await makeJob(person, demo.name, [brought.id]);
  const { revision } = await openJob(person, id);
  const steps = commandsOf(demo, scan, brought.id).map((command) => ({ step: 'do' as const, command }));
  const { job, revision: next } = await takeSteps(person, id, revision, steps);
  const picture = job.pictures[0] as Picture;
  const { mmPerPx } = fitOf(picture);
  const trace = traceOnSheet(picture, defaultTraceSettings, tracePicture(scan.picture, mmPerPx, defaultTraceSettings));
  await takeSteps(person, id, next, [{ step: 'do', command: { do: 'set-trace', trace } }]);
}

await migrate();
const person = await personWhoMay('list-jobs');
if ((await listJobs(person)).length === 0) {
  console.log('· drawing the demo jobs');
  // The last one loaded stands first in the list.
  for (const demo of [...demoJobs].reverse()) await load(demo);
}
await database().close();
