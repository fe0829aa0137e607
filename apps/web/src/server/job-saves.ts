/**
 * How a job is edited: a save takes steps, all or none, and keeps what they change as patches. The document is written anew only
 * when the patches beside it have grown; the job as it stands is kept in memory, so that a small edit costs what it changes.
 */
import { type Command, CommandError, checkChange, documentOf, type Edit, edited, type Job, patched } from '@nuvet/core/job';
import { checkedCommandSchema, checkedJobSchema } from '@nuvet/core/processes';
import type { Patch } from 'immer';
import { Op, type Transaction } from 'sequelize';
import { z } from 'zod';
import { words } from '../words/index.ts';
import { owned, type Person } from './access.ts';
import { HttpError } from './http-error.ts';
import { summaryOf } from './job-summary.ts';
import { type JobRow, models } from './models.ts';
import { pictureOf, tieToJob } from './pictures.ts';

export const stepSchema = z.discriminatedUnion('step', [
  z.strictObject({ step: z.literal('do'), command: checkedCommandSchema }),
  z.strictObject({ step: z.literal('undo') }),
  z.strictObject({ step: z.literal('redo') }),
]);
export type Step = z.infer<typeof stepSchema>;

export interface Saved {
  readonly revision: number;
  readonly job: Job;
}

/** Jobs as they stand, by id; the one used longest ago goes first. */
const standing = new Map<string, Saved>();
const maxStanding = 24;

function stand(id: string, saved: Saved): void {
  standing.delete(id);
  standing.set(id, saved);
  if (standing.size > maxStanding) standing.delete(standing.keys().next().value as string);
}

/** The job as it stands at its row's revision. */
export async function jobAt({ id, revision, documentRevision }: JobRow, transaction?: Transaction): Promise<Saved> {
  const known = standing.get(id);
  if (known?.revision === revision) return known;
  const { JobRow: Jobs, JobSaveRow } = models();
  const stored = await Jobs.findByPk(id, { attributes: ['document'], transaction });
  const since = await JobSaveRow.findAll({
    where: { jobId: id, revision: { [Op.gt]: documentRevision, [Op.lte]: revision } },
    attributes: ['patches'],
    order: [['revision', 'ASC']],
    transaction,
  });
  const job = since.reduce((now, { patches }) => (patches ? patched(now, patches) : now), checkedJobSchema.parse(stored?.document));
  const found = { revision, job };
  // Within a transaction it may yet come to nothing.
  if (!transaction) stand(id, found);
  return found;
}

/**
 * Takes steps on a job, all or none.
 * @param base the revision that the steps were made from
 * @param saveId the save's own id: one that has been taken already gets the answer it had then
 * @throws Problem 409 where another window has saved since; Problem 422 where a step does not apply
 */
export async function takeSteps(
  person: Person,
  id: string,
  base: number,
  steps: readonly Step[],
  saveId: string | null = null,
): Promise<Saved> {
  const saved = await models().sequelize.transaction((transaction) => takeStepsWithin(transaction, person, id, base, saveId, steps));
  if (saved.isNew) stand(id, saved);
  return saved;
}

/** The same within a transaction of its caller's. */
export async function takeStepsWithin(
  transaction: Transaction,
  person: Person,
  id: string,
  base: number,
  saveId: string | null,
  steps: readonly Step[],
): Promise<Saved & { isNew: boolean }> {
  const { JobRow: Jobs, JobSaveRow } = models();
  const row = owned(
    person,
    await Jobs.findByPk(id, { attributes: { exclude: ['document'] }, transaction, lock: transaction.LOCK.UPDATE }),
    'job',
  );
  const before = saveId ? await JobSaveRow.findOne({ where: { jobId: id, saveId }, attributes: ['revision'], transaction }) : null;
  if (before) return { revision: before.revision, job: (await jobAt(row, transaction)).job, isNew: false };
  if (row.revision !== base) throw new HttpError(409, 'changed-elsewhere', words.server.thisJobWasChangedInAnother);
  const { job: start } = await jobAt(row, transaction);
  let job = start;
  const patches: Patch[] = [];
  for (const step of steps) {
    const taken = await applyStep(person, row, job, step, transaction);
    if (!taken) continue;
    job = taken.job;
    patches.push(...taken.patches);
  }
  checkChange(start, job);
  await keep(row, job, patches, saveId, transaction);
  return { revision: row.revision, job, isNew: true };
}

/** Patches of so many bytes are taken into the document, and sooner where the document is small. */
const longestPatches = 256 * 1024;
/** So many saves can be told from new ones. */
const rememberedSaves = 500;

async function keep(row: JobRow, job: Job, patches: Patch[], saveId: string | null, transaction: Transaction): Promise<void> {
  const { JobSaveRow } = models();
  const bytes = JSON.stringify(patches).length;
  row.revision += 1;
  row.summary = summaryOf(job);
  const isFull = row.patchBytes + bytes > longestPatches;
  row.patchBytes = isFull ? 0 : row.patchBytes + bytes;
  if (isFull) {
    row.document = documentOf(job);
    row.documentRevision = row.revision;
  }
  await row.save({ transaction });
  await JobSaveRow.create(
    { jobId: row.id, revision: row.revision, saveId: saveId ?? crypto.randomUUID(), patches: isFull ? null : patches },
    { transaction },
  );
  if (!isFull) return;
  const at = { jobId: row.id };
  await JobSaveRow.destroy({ where: { ...at, revision: { [Op.lte]: row.revision - rememberedSaves } }, transaction });
  await JobSaveRow.update({ patches: null }, { where: { ...at, patches: { [Op.ne]: null } }, transaction });
}

async function applyStep(
  person: Person,
  row: JobRow,
  job: Job,
  step: Step,
  transaction: Transaction,
): Promise<{ job: Job; patches: Patch[] } | null> {
  const { JobEditRow } = models();
  const at = { jobId: row.id };
  if (step.step === 'do') {
    const result = doCommand(job, await checked(person, row.id, step.command, transaction));
    if (!result) return null;
    await JobEditRow.destroy({ where: { ...at, seq: { [Op.gt]: row.cursor } }, transaction });
    row.cursor += 1;
    await JobEditRow.create({ ...at, seq: row.cursor, ...result.edit }, { transaction });
    return { job: result.job, patches: result.edit.forward };
  }
  const seq = step.step === 'undo' ? row.cursor : row.cursor + 1;
  const edit = await JobEditRow.findOne({ where: { ...at, seq }, transaction });
  if (!edit) throw new HttpError(422, 'no-more-steps', words.server.thereIsNothingMoreTo(step.step));
  row.cursor += step.step === 'undo' ? -1 : 1;
  const patches = step.step === 'undo' ? edit.back : edit.forward;
  return { job: patched(job, patches), patches };
}

function doCommand(job: Job, command: Command): { job: Job; edit: Edit } | null {
  try {
    return edited(job, command);
  } catch (error) {
    if (error instanceof CommandError) throw new HttpError(422, error.code, error.message);
    throw error;
  }
}

/** A picture that is brought in must be one that was uploaded, and is what its own bytes say. */
async function checked(person: Person, jobId: string, command: Command, transaction: Transaction): Promise<Command> {
  if (command.do !== 'bring-in') return command;
  const stored = await pictureOf(person, command.picture.id);
  await tieToJob(stored.id, jobId, transaction);
  return { ...command, picture: { ...command.picture, widthPx: stored.widthPx, heightPx: stored.heightPx } };
}
