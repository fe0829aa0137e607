/**
 * Jobs in the database: listed, made, read, edited step by step, deleted.
 */
import {
  type Command,
  CommandError,
  commandSchema,
  type Edit,
  edited,
  emptyJob,
  type Job,
  jobSchema,
  redone,
  undone,
} from '@nuvet/core/job';
import { literal, Op, type Transaction } from 'sequelize';
import { z } from 'zod';
import { owned, type Person } from './access.ts';
import { models } from './models.ts';
import { adoptPicture, pictureOf } from './pictures.ts';
import { Problem } from './problem.ts';

export interface JobSummary {
  readonly id: string;
  readonly name: string;
  readonly making: Job['making'];
  readonly pictureId: string | null;
  /** Outlines traced and drawn. */
  readonly pieces: number;
  /** Whether there are outlines of any kind, also such as were brought in. */
  readonly hasOutlines: boolean;
  readonly updatedAt: string;
}

export interface OpenedJob {
  readonly id: string;
  readonly job: Job;
  readonly revision: number;
  /** What each edit is called: those done, and those that can be redone. */
  readonly done: string[];
  readonly redoable: string[];
}

export const stepSchema = z.discriminatedUnion('step', [
  z.strictObject({ step: z.literal('do'), command: commandSchema }),
  z.strictObject({ step: z.literal('undo') }),
  z.strictObject({ step: z.literal('redo') }),
]);
export type Step = z.infer<typeof stepSchema>;

export async function listJobs(person: Person): Promise<JobSummary[]> {
  const rows = await models().JobRow.findAll({
    where: { workshopId: person.workshopId },
    attributes: [
      'id', 'updatedAt',
      [literal(`document->>'name'`), 'name'],
      [literal(`document->'making'`), 'making'],
      [literal(`document->'pictures'->0->>'id'`), 'pictureId'],
      [literal(`jsonb_array_length(case when jsonb_typeof(document->'trace'->'pieces') = 'array' then document->'trace'->'pieces' else '[]' end) + jsonb_array_length(coalesce(document->'drawn', '[]'))`), 'pieces'],
      [literal(`coalesce(document->'drawn', '[]') <> '[]' or coalesce(document->'drawings', '[]') <> '[]' or coalesce(document->'trace', 'null') <> 'null'`), 'hasOutlines'],
    ],
    order: [['updatedAt', 'DESC']],
  }); // biome-ignore format: a column a line
  return rows.map((row) => {
    const read = row as unknown as { get(name: string): never };
    return {
      id: row.id,
      name: read.get('name'),
      making: read.get('making'),
      pictureId: read.get('pictureId'),
      pieces: read.get('pieces'),
      hasOutlines: read.get('hasOutlines'),
      updatedAt: row.updatedAt.toISOString(),
    };
  });
}

/** A new job, with the pictures that it starts from, side by side. */
export async function makeJob(person: Person, name: string, pictureIds: readonly string[]): Promise<string> {
  const { sequelize, JobRow } = models();
  return sequelize.transaction(async (transaction) => {
    const row = await JobRow.create({ workshopId: person.workshopId, document: emptyJob(name) }, { transaction });
    for (const pictureId of pictureIds) {
      const picture = await pictureOf(person, pictureId);
      await applyStep(person, row, { step: 'do', command: { do: 'bring-in', picture } }, transaction);
    }
    if (pictureIds.length > 0) await row.save({ transaction });
    return row.id;
  });
}

export async function openJob(person: Person, id: string): Promise<OpenedJob> {
  const { JobRow, JobEditRow } = models();
  const row = owned(person, await JobRow.findByPk(id), 'job');
  const edits = await JobEditRow.findAll({ where: { jobId: id }, attributes: ['seq', 'label'], order: [['seq', 'ASC']] });
  return {
    id,
    job: jobSchema.parse(row.document),
    revision: row.revision,
    done: edits.filter((e) => e.seq <= row.cursor).map((e) => e.label),
    redoable: edits.filter((e) => e.seq > row.cursor).map((e) => e.label),
  };
}

/**
 * Takes steps on a job, all or none.
 * @param base the revision that the steps were made from
 * @throws Problem 409 where another window has saved since; Problem 422 where a step does not apply
 */
export async function takeSteps(person: Person, id: string, base: number, steps: readonly Step[]): Promise<{ revision: number; job: Job }> {
  const { sequelize, JobRow } = models();
  return sequelize.transaction(async (transaction) => {
    const row = owned(person, await JobRow.findByPk(id, { transaction, lock: transaction.LOCK.UPDATE }), 'job');
    if (row.revision !== base) throw new Problem(409, 'changed-elsewhere', 'This job was changed in another window.');
    for (const step of steps) await applyStep(person, row, step, transaction);
    // What is stored is always a whole, valid job.
    row.document = jobSchema.parse(row.document);
    row.revision += 1;
    await row.save({ transaction });
    return { revision: row.revision, job: row.document };
  });
}

async function applyStep(
  person: Person,
  row: InstanceType<ReturnType<typeof models>['JobRow']>,
  step: Step,
  transaction: Transaction,
): Promise<void> {
  const { JobEditRow } = models();
  const at = { jobId: row.id };
  if (step.step === 'do') {
    const result = doCommand(jobSchema.parse(row.document), await checked(person, row.id, step.command, transaction));
    if (!result) return;
    await JobEditRow.destroy({ where: { ...at, seq: { [Op.gt]: row.cursor } }, transaction });
    row.cursor += 1;
    await JobEditRow.create({ ...at, seq: row.cursor, ...result.edit }, { transaction });
    row.document = result.job;
    return;
  }
  const seq = step.step === 'undo' ? row.cursor : row.cursor + 1;
  const edit = await JobEditRow.findOne({ where: { ...at, seq }, transaction });
  if (!edit) throw new Problem(422, 'no-more-steps', `There is nothing more to ${step.step}.`);
  // Edits from before a document's version are brought up to it again.
  row.document = jobSchema.parse(step.step === 'undo' ? undone(row.document, edit) : redone(row.document, edit));
  row.cursor += step.step === 'undo' ? -1 : 1;
}

function doCommand(job: Job, command: Command): { job: Job; edit: Edit } | null {
  try {
    return edited(job, command);
  } catch (error) {
    if (error instanceof CommandError) throw new Problem(422, error.code, error.message);
    throw error;
  }
}

/** A picture that is brought in must be one that was uploaded, and is what its own bytes say. */
async function checked(person: Person, jobId: string, command: Command, transaction: Transaction): Promise<Command> {
  if (command.do !== 'bring-in') return command;
  const stored = await pictureOf(person, command.picture.id);
  await adoptPicture(stored.id, jobId, transaction);
  return { ...command, picture: { ...command.picture, widthPx: stored.widthPx, heightPx: stored.heightPx } };
}

export async function deleteJob(person: Person, id: string): Promise<void> {
  const row = owned(person, await models().JobRow.findByPk(id), 'job');
  await row.destroy();
}

/** @throws Problem 404 where the job is not one of this workshop's */
export async function ownedJob(person: Person, id: string): Promise<void> {
  owned(person, await models().JobRow.findByPk(id, { attributes: ['id', 'workshopId'] }), 'job');
}
