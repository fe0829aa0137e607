/**
 * Migrates the database and, where it holds no job yet, puts the demo jobs in, as their makers would have made them.
 */
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import {
  type Command,
  defaultTraceSettings,
  emptyJob,
  fitOf,
  type JobTrace,
  type Mark,
  type Picture,
  piecesToMake,
  plainLayout,
  rectifiedPlanOf,
  traceOnSheet,
} from '@nuvet/core/job';
import { layoutOfPieces } from '@nuvet/core/nesting';
import {
  apply,
  centreOf,
  circlePath,
  distance,
  inverseProjection,
  isInside,
  type Path,
  type Point,
  pathArea,
  pathBox,
  polygonPath,
  project,
  reversedPath,
} from '@nuvet/core/plane';
import { newEntry } from '@nuvet/core/processes';
import { type GreyPicture, greyPicture, onlyInside, warped } from '@nuvet/core/raster';
import { millToolFrom, shelfKinds } from '@nuvet/core/shelf';
import { finished } from '@nuvet/core/steps';
import { traceColours, tracePicture } from '@nuvet/core/trace';
import type { TrayObject } from '@nuvet/core/tray';
import { findScaleCard } from '@nuvet/core/trueup';
import {
  colourPngOf,
  type DemoDrawn,
  type DemoJob,
  type DemoMilling,
  type DemoPhoto,
  type DemoPrint,
  demoDrawn,
  demoJobs,
  demoPhotos,
  demoPrints,
  type FoundersTool,
  jpegOf,
  photographScene,
  pngOf,
  type Scene,
  scanColours,
  scanScene,
} from '@nuvet/truth';
import { requirePermission } from '../apps/web/src/server/access.ts';
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
  const person = await requirePermission('make-job');
  const brought = await receivePicture(person, { name: file, page: 0, resolution: null }, streamOf(bytes));
  const id = await makeJob(person, name, [brought.id]);
  const { revision } = await openJob(person, id);
  const steps = edits(brought.id).map((command) => ({ step: 'do' as const, command }));
  const { job, revision: next } = await takeSteps(person, id, revision, steps);
  const keepSteps = (commands: readonly Command[]) =>
    takeSteps(
      person,
      id,
      next,
      commands.map((command) => ({ step: 'do' as const, command })),
    );
  const keepTrace = (trace: JobTrace, more: readonly Command[] = []) => keepSteps([{ do: 'set-trace', trace }, ...more]);
  return { person, picture: job.pictures[0] as Picture, keepTrace, keepSteps };
}

/** The settings that a job is milled with. */
function settingsOf(milling: DemoMilling | undefined, material: string | null): Record<string, unknown> {
  if (!milling) return {};
  const tools = milling.tools.map((name, k) => {
    const tool = shelfKinds.tool.starters.find((one) => one.name === name);
    if (!tool) throw new Error(`no tool ${name} ships`);
    return millToolFrom(tool, null, `tool-${k + 1}`, material);
  });
  return { ...milling.settings, tools };
}

/** Of a traced piece the holes about its middle as pockets of their own, and rings drawn about it. */
function milled(trace: JobTrace, { pocketsWithinMm = 0, ringsMm = [] }: DemoMilling): { trace: JobTrace; rings: Command[] } {
  const largest = trace.pieces.reduce((best, piece) => (Math.abs(pathArea(piece.outer)) > Math.abs(pathArea(best.outer)) ? piece : best));
  const middle = centreOf(pathBox(largest.outer));
  const isPocket = (hole: Path): boolean => distance(centreOf(pathBox(hole)), middle) < pocketsWithinMm;
  const river = largest.holes.filter(isPocket).map((hole, k) => ({
    ...largest,
    id: `${largest.id}-river-${k + 1}`,
    name: `River ${k + 1}`,
    purpose: 'pocket' as const,
    outer: reversedPath(hole),
    holes: [],
  }));
  const pieces = trace.pieces.flatMap((piece) =>
    piece === largest ? [{ ...piece, holes: piece.holes.filter((hole) => !isPocket(hole)) }, ...river] : [piece],
  );
  const rings = ringsMm.map((radius, k): Command => {
    const source = { kind: 'path' as const, path: circlePath(middle, radius) };
    return { do: 'draw', drawn: { id: `ring-${k + 1}`, name: `Ring ${k + 1}`, purpose: 'engrave', leftOut: false, source, live: [] } };
  });
  return { trace: { ...trace, pieces }, rings };
}

/** A new job is cut by laser; these are made of their own stock by their own processes. */
const madeBy = ({
  stock,
  processes,
  milling,
  quilting,
  foam,
  tray,
  solid,
}: Pick<DemoJob, 'stock' | 'processes' | 'milling' | 'quilting' | 'foam'> &
  Pick<DemoPhoto, 'tray'> &
  Pick<DemoDrawn, 'solid'>): Command[] => [
  { do: 'set-stock', change: stock },
  { do: 'remove-process', id: 'first' },
  ...processes.map((process): Command => {
    const entry = newEntry(process, process, emptyJob(''));
    const settings =
      { cnc: settingsOf(milling, stock.name), quilting: { ...quilting }, foam: { ...foam }, tray: { ...tray }, solid: { ...solid } }[
        process
      ] ?? {};
    return { do: 'add-process', entry: { ...entry, settings: settings as typeof entry.settings } };
  }),
];

async function load(job: DemoJob): Promise<void> {
  const { name, scene, scan: settings, milling, unit, known, check, take } = job;
  const scan = scanScene(scene, settings);
  const { picture, keepTrace } = await made(name, `${scene.name}.png`, await pngOf(scan.picture, settings.dpi), (pictureId) => [
    { do: 'set-unit', unit },
    ...madeBy(job),
    { do: 'add-mark', pictureId, mark: markOf(scene, scan.at, 'known-length', known.mark, [{ text: known.text, value: known.mm }]) },
    { do: 'add-mark', pictureId, mark: markOf(scene, scan.at, 'level', 'level', []) },
    { do: 'add-mark', pictureId, mark: markOf(scene, scan.at, 'check', check, untyped) },
  ]);
  const { mmPerPx } = fitOf(picture);
  const wish = { ...defaultTraceSettings, take };
  const trace = traceOnSheet(picture, wish, tracePicture(scan.picture, mmPerPx, wish));
  const work = milling ? milled(trace, milling) : { trace, rings: [] };
  await keepTrace(work.trace, work.rings);
}

async function loadPhoto({
  name,
  scene,
  photo: settings,
  stock,
  processes,
  milling,
  unit,
  frame,
  check,
  take,
  threshold,
  onlyLargest,
  box,
  quilting,
  outline,
  tools = [],
  tray,
}: DemoPhoto): Promise<void> {
  const photo = photographScene(scene, settings, tools.flatMap(({ parts }) => parts)); // biome-ignore format: one line
  const { widthMm: w, heightMm: h } = scene;
  // The table is left out: only the paper counts.
  const crop = [[4, 4], [w - 4, 4], [w - 4, h - 4], [4, h - 4]].map(([x, y]) => photo.at({ x: x as number, y: y as number })); // biome-ignore format: corners
  const { person, picture, keepTrace, keepSteps } = await made(name, `${scene.name}.jpg`, await jpegOf(photo.picture, 72), (pictureId) => [
    { do: 'set-unit', unit },
    ...madeBy({ stock, processes, milling, quilting, tray }),
    { do: 'change-picture', pictureId, change: { crop } },
    {
      do: 'add-mark',
      pictureId,
      mark: frame === 'scale card' ? cardIn(photo.picture) : markOf(scene, photo.at, 'frame', frame.mark, [...frame.stated]),
    },
    { do: 'add-mark', pictureId, mark: markOf(scene, photo.at, 'check', check, untyped) },
    ...(box ? [{ do: 'prove-by', change: { box } } as const] : []),
  ]);
  const plan = rectifiedPlanOf(picture);
  if (!plan) throw new Error(`${name} is not seen at an angle`);
  const { width, height, data: grey } = photo.picture;
  const steps = warped({ width, height, grey, colour: null }, plan);
  let step = steps.next();
  while (!step.done) step = steps.next();
  const flat = step.value.grey;
  const size = { width: plan.widthPx, height: plan.heightPx, channels: 1 } as const;
  await keepWorkingCopy(person, picture.id, plan.key, size, streamOf(flat));
  const back = inverseProjection(plan.toOriginal);
  if (outline) {
    const corners = scene.marks?.[outline.mark]?.map((p) => apply(plan.toSheet, project(back, photo.at(p)))) ?? [];
    const source = { kind: 'path' as const, path: polygonPath(corners) };
    await keepSteps([{ do: 'draw', drawn: { id: outline.mark, name: outline.name, purpose: 'cut', leftOut: false, source, live: [] } }]);
    return;
  }
  const paper = onlyInside(
    greyPicture(flat, plan.widthPx, plan.heightPx),
    crop.map((p) => project(back, p)),
  );
  const wish = { ...defaultTraceSettings, take, threshold };
  const trace = traceOnSheet(picture, wish, tracePicture(paper, plan.mmPerPx, wish), plan);
  if (tools.length > 0) {
    const at = (tool: FoundersTool): Point => apply(plan.toSheet, project(back, photo.at(tool.at)));
    const toolOf = (outer: Path): FoundersTool | undefined => tools.find((tool) => isInside(outer, at(tool)));
    const isTool = ({ outer }: (typeof trace.pieces)[0]): boolean => Math.abs(pathArea(outer)) < largestTool && toolOf(outer) !== undefined;
    const pieces = trace.pieces.map((one) => (isTool(one) ? { ...one, name: toolOf(one.outer)?.name ?? one.name } : { ...one, leftOut: true })); // biome-ignore format: one line
    const objects = pieces.filter(isTool).map(({ id, outer }): TrayObject => {
      const { heightMm, edge } = toolOf(outer) as FoundersTool;
      return { pieceId: id, heightMm, edge, depthMm: null, place: null };
    });
    await keepTrace({ ...trace, pieces }, [{ do: 'set-process', id: 'tray', process: 'tray', change: { objects } }]);
    return;
  }
  const isPrint = ({ purpose }: (typeof trace.pieces)[0], k: number) => onlyLargest === true && k > 0 && purpose === 'cut';
  await keepTrace({ ...trace, pieces: trace.pieces.map((piece, k) => (isPrint(piece, k) ? { ...piece, leftOut: true } : piece)) });
}

/** No tool covers more of the sheet, square mm. */
const largestTool = 20_000;

/** The scale card as it is found in a photograph. */
function cardIn(picture: GreyPicture): Mark {
  const found = findScaleCard(picture);
  if (!found) throw new Error('the scale card is not found in its own photograph');
  return { id: 'card', kind: 'scale-card', points: found.points, places: found.places, stated: [{ text: '100 mm', value: 100 }] };
}

async function loadPrint({ name, sheet, dpi, tiltDegrees, stock, processes, known, colours }: DemoPrint): Promise<void> {
  const scan = scanColours(sheet, { dpi, tiltDegrees, noise: 5, seed: 37 });
  const points = known.places.map((p) => apply(scan.toPixels, p));
  const { picture, keepTrace } = await made(name, 'festival badge.png', await colourPngOf(scan.picture, dpi), (pictureId) => [
    ...madeBy({ stock, processes }),
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

/** A job that was drawn by hand, as its makers left it: with its processes, and laid out where it is cut from sheets. */
async function loadDrawn({ name, outlines, stock, processes, solid, layout }: DemoDrawn): Promise<void> {
  const person = await requirePermission('make-job');
  const id = await makeJob(person, name, []);
  const { revision } = await openJob(person, id);
  const draw = outlines.map(({ paths, ...drawn }): Command => ({ do: 'draw', drawn: { ...drawn, leftOut: false, source: { kind: 'paths', paths: [...paths] }, live: [] } })); // biome-ignore format: one line
  const stepsOf = (commands: readonly Command[]) => commands.map((command) => ({ step: 'do' as const, command }));
  const { job, revision: next } = await takeSteps(person, id, revision, stepsOf([...madeBy({ stock, processes, solid }), ...draw]));
  if (!layout) return;
  const wanted = { ...plainLayout, ...layout };
  // By a clock that goes on as it is looked at: the same on any machine.
  let looks = 0;
  const { laid } = finished(layoutOfPieces(piecesToMake(job), { ...wanted, seconds: 1 }, 1, () => looks++ / 20));
  await takeSteps(person, id, next, stepsOf([{ do: 'lay-out', layout: { ...wanted, laid } }]));
}

await migrate();
const person = await requirePermission('list-jobs');
if ((await listJobs(person, { page: 0, search: '', inBin: false })).count === 0) {
  console.log('· drawing the demo jobs');
  // The last one loaded stands first in the list.
  for (const demo of demoPhotos) await loadPhoto(demo);
  for (const demo of demoPrints) await loadPrint(demo);
  for (const demo of [...demoDrawn].reverse()) await loadDrawn(demo);
  for (const demo of [...demoJobs].reverse()) await load(demo);
}
await database().close();
