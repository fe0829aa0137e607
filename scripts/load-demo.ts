/**
 * Migrates the database and, where it holds no job yet, puts the demo jobs in, as their makers would have made them.
 */
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import {
  type Command,
  defaultTraceSettings,
  fitOf,
  type JobTrace,
  type Mark,
  type Picture,
  traceOnSheet,
  workingPlanOf,
} from '@nuvet/core/job';
import { apply, inverseProjection, type Point, project } from '@nuvet/core/plane';
import { greyPicture, onlyInside, warped } from '@nuvet/core/raster';
import { traceColours, tracePicture } from '@nuvet/core/trace';
import {
  colourPngOf,
  type DemoJob,
  type DemoPhoto,
  type DemoPrint,
  demoJobs,
  demoPhotos,
  demoPrints,
  jpegOf,
  photographScene,
  pngOf,
  type Scene,
  scanColours,
  scanScene,
} from '@nuvet/truth';
import { personWhoMay } from '../apps/web/src/server/access.ts';
import { database } from '../apps/web/src/server/database.ts';
import { takeSteps } from '../apps/web/src/server/job-saves.ts';
import { listJobs, makeJob, openJob } from '../apps/web/src/server/jobs.ts';
import { migrate } from '../apps/web/src/server/migrate.ts';
import { keepWorkingCopy, receivePicture } from '../apps/web/src/server/pictures.ts';

const untyped = [{ text: '', value: null }];

/** A mark where its makers put it: at the scene's own places. */
function markOf(scene: Scene, at: (p: Point) => Point, kind: Mark['kind'], name: string, stated: Mark['stated']): Mark {
  const places = scene.marks?.[name];
  if (!places) throw new Error(`${scene.name} has no mark ${name}`);
  return { id: `${scene.name}-${name}`, kind, points: places.map(at), stated };
}

const streamOf = (bytes: Uint8Array) => Readable.toWeb(Readable.from([Buffer.from(bytes)])) as ReadableStream<Uint8Array>;

/** A new job with a picture and the edits that bring it to where the workshop has it now; its picture as it is then. */
async function made(name: string, file: string, bytes: Buffer, edits: (pictureId: string) => Command[]) {
  const person = await personWhoMay('make-job');
  const brought = await receivePicture(person, { name: file, page: 0, resolution: null }, streamOf(bytes));
  const id = await makeJob(person, name, [brought.id]);
  const { revision } = await openJob(person, id);
  const steps = edits(brought.id).map((command) => ({ step: 'do' as const, command }));
  const { job, revision: next } = await takeSteps(person, id, revision, steps);
  const keepTrace = (trace: JobTrace) => takeSteps(person, id, next, [{ step: 'do', command: { do: 'set-trace', trace } }]);
  return { person, picture: job.pictures[0] as Picture, keepTrace };
}

async function load({ name, scene, scan: settings, making, unit, known, check, take }: DemoJob): Promise<void> {
  const scan = scanScene(scene, settings);
  const { picture, keepTrace } = await made(name, `${scene.name}.png`, await pngOf(scan.picture, settings.dpi), (pictureId) => [
    { do: 'set-unit', unit },
    { do: 'set-making', making },
    { do: 'add-mark', pictureId, mark: markOf(scene, scan.at, 'known-length', known.mark, [{ text: known.text, value: known.mm }]) },
    { do: 'add-mark', pictureId, mark: markOf(scene, scan.at, 'level', 'level', []) },
    { do: 'add-mark', pictureId, mark: markOf(scene, scan.at, 'check', check, untyped) },
  ]);
  const { mmPerPx } = fitOf(picture);
  const wish = { ...defaultTraceSettings, take };
  await keepTrace(traceOnSheet(picture, wish, tracePicture(scan.picture, mmPerPx, wish)));
}

async function loadPhoto({
  name,
  scene,
  photo: settings,
  making,
  unit,
  frame,
  check,
  take,
  threshold,
  onlyLargest,
  box,
}: DemoPhoto): Promise<void> {
  const photo = photographScene(scene, settings);
  const { widthMm: w, heightMm: h } = scene;
  // The table is left out: only the paper counts.
  const crop = [[4, 4], [w - 4, 4], [w - 4, h - 4], [4, h - 4]].map(([x, y]) => photo.at({ x: x as number, y: y as number })); // biome-ignore format: corners
  const { person, picture, keepTrace } = await made(name, `${scene.name}.jpg`, await jpegOf(photo.picture, 72), (pictureId) => [
    { do: 'set-unit', unit },
    { do: 'set-making', making },
    { do: 'change-picture', pictureId, change: { crop } },
    { do: 'add-mark', pictureId, mark: markOf(scene, photo.at, 'frame', frame.mark, [...frame.stated]) },
    { do: 'add-mark', pictureId, mark: markOf(scene, photo.at, 'check', check, untyped) },
    ...(box ? [{ do: 'prove-by', change: { box } } as const] : []),
  ]);
  const plan = workingPlanOf(picture);
  if (!plan) throw new Error(`${name} is not seen at an angle`);
  const { width, height, data: grey } = photo.picture;
  const steps = warped({ width, height, grey, colour: null }, plan);
  let step = steps.next();
  while (!step.done) step = steps.next();
  const flat = step.value.grey;
  const size = { width: plan.widthPx, height: plan.heightPx, channels: 1 } as const;
  await keepWorkingCopy(person, picture.id, plan.key, size, streamOf(flat));
  const back = inverseProjection(plan.toOriginal);
  const paper = onlyInside(
    greyPicture(flat, plan.widthPx, plan.heightPx),
    crop.map((p) => project(back, p)),
  );
  const wish = { ...defaultTraceSettings, take, threshold };
  const trace = traceOnSheet(picture, wish, tracePicture(paper, plan.mmPerPx, wish), plan);
  const isPrint = ({ purpose }: (typeof trace.pieces)[0], k: number) => onlyLargest === true && k > 0 && purpose === 'cut';
  await keepTrace({ ...trace, pieces: trace.pieces.map((piece, k) => (isPrint(piece, k) ? { ...piece, leftOut: true } : piece)) });
}

async function loadPrint({ name, sheet, dpi, tiltDegrees, making, known, colours }: DemoPrint): Promise<void> {
  const scan = scanColours(sheet, { dpi, tiltDegrees, noise: 5, seed: 37 });
  const points = known.places.map((p) => apply(scan.toPixels, p));
  const { picture, keepTrace } = await made(name, 'festival badge.png', await colourPngOf(scan.picture, dpi), (pictureId) => [
    { do: 'set-making', making },
    {
      do: 'add-mark',
      pictureId,
      mark: { id: 'badge-width', kind: 'known-length', points, stated: [{ text: known.text, value: known.mm }] },
    },
    { do: 'add-mark', pictureId, mark: { id: 'badge-level', kind: 'level', points, stated: [] } },
  ]);
  const wish = { ...defaultTraceSettings, colours };
  await keepTrace(traceOnSheet(picture, wish, traceColours(scan.picture, fitOf(picture).mmPerPx, wish)));
}

await migrate();
const person = await personWhoMay('list-jobs');
if ((await listJobs(person, { page: 0, search: '', inBin: false })).count === 0) {
  console.log('· drawing the demo jobs');
  // The last one loaded stands first in the list.
  for (const demo of demoPhotos) await loadPhoto(demo);
  for (const demo of demoPrints) await loadPrint(demo);
  for (const demo of [...demoJobs].reverse()) await load(demo);
}
await database().close();
