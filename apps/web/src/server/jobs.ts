/**
 * Jobs in the database: listed, made, copied, opened, put in the bin and back. How they are edited stands in job-saves.ts.
 */
import { documentOf, emptyJob, type Job, type JobDocument } from '@nuvet/core/job';
import { Op, type Transaction, type WhereOptions } from 'sequelize';
import { owned, type Person } from './access.ts';
import { jobAt, takeStepsWithin } from './job-saves.ts';
import { summaryOf } from './job-summary.ts';
import { type JobRow, models, type Summary } from './models.ts';
import { letUnusedGo, pictureOf } from './pictures.ts';

export interface JobSummary extends Summary {
  readonly id: string;
  readonly revision: number;
  readonly updatedAt: string;
}

export interface OpenedJob {
  readonly id: string;
  /** The document of the job, in its newest version. */
  readonly job: JobDocument;
  readonly revision: number;
  /** What each edit is called: those done, and those that can be redone. */
  readonly done: string[];
  readonly redoable: string[];
  /** Whether it lies in the bin. */
  readonly inBin: boolean;
}

export interface JobPageOfList {
  readonly jobs: JobSummary[];
  /** How many there are in all. */
  readonly count: number;
}

export const jobsOnPage = 50;
/** A job in the bin goes for good after so long. */
export const daysInBin = 30;
const dayMs = 24 * 3600 * 1000;

export interface Listing {
  /** From 0. */
  readonly page: number;
  /** A part of the name; all where it is empty. */
  readonly search: string;
  readonly inBin: boolean;
}

/** A page of the list, the newest first. */
export async function listJobs({ workshopId }: Person, { page, search, inBin }: Listing): Promise<JobPageOfList> {
  await emptyBin(workshopId);
  const named = search.trim() === '' ? {} : { 'summary.name': { [Op.iLike]: `%${search.trim().replace(/[\\%_]/g, '\\$&')}%` } };
  const where: WhereOptions = { workshopId, deletedAt: inBin ? { [Op.ne]: null } : null, ...named };
  const { rows, count } = await models().JobRow.findAndCountAll({
    where,
    attributes: ['id', 'summary', 'revision', 'updatedAt'],
    order: [[inBin ? 'deletedAt' : 'updatedAt', 'DESC'], 'id'],
    limit: jobsOnPage,
    offset: page * jobsOnPage,
  });
  return {
    jobs: rows.map(({ id, summary, revision, updatedAt }) => ({ ...summary, id, revision, updatedAt: updatedAt.toISOString() })),
    count,
  };
}

/** A new job, with the pictures that it starts from, side by side. */
export async function makeJob(person: Person, name: string, pictureIds: readonly string[] = []): Promise<string> {
  return models().sequelize.transaction(async (transaction) => {
    const row = await created(person, emptyJob(name), transaction);
    const pictures = [];
    for (const pictureId of pictureIds) pictures.push(await pictureOf(person, pictureId));
    const steps = pictures.map((picture) => ({ step: 'do', command: { do: 'bring-in', picture } }) as const);
    if (steps.length > 0) await takeStepsWithin(transaction, person, row.id, 1, null, steps);
    return row.id;
  });
}

/** A further job that starts from where another one stands, with the same pictures and a history of its own. */
export async function copyJob(person: Person, id: string, name: string): Promise<string> {
  const { sequelize, JobPictureRow } = models();
  return sequelize.transaction(async (transaction) => {
    const { job } = await jobAt(await rowOf(person, id, transaction), transaction);
    const row = await created(person, { ...job, name }, transaction);
    const pictures = await JobPictureRow.findAll({ where: { jobId: id }, transaction });
    await JobPictureRow.bulkCreate(
      pictures.map(({ pictureId }) => ({ jobId: row.id, pictureId })),
      { transaction },
    );
    return row.id;
  });
}

const created = ({ workshopId }: Person, job: Job, transaction: Transaction): Promise<JobRow> =>
  models().JobRow.create({ workshopId, document: documentOf(job), summary: summaryOf(job) }, { transaction });

export async function openJob(person: Person, id: string): Promise<OpenedJob> {
  const { JobEditRow } = models();
  const row = await rowOf(person, id);
  const { job, revision } = await jobAt(row);
  const edits = await JobEditRow.findAll({ where: { jobId: id }, attributes: ['seq', 'label'], order: [['seq', 'ASC']] });
  return {
    id,
    job: documentOf(job),
    revision,
    done: edits.filter((e) => e.seq <= row.cursor).map((e) => e.label),
    redoable: edits.filter((e) => e.seq > row.cursor).map((e) => e.label),
    inBin: row.deletedAt !== null,
  };
}

const rowOf = async (person: Person, id: string, transaction?: Transaction): Promise<JobRow> =>
  owned(person, await models().JobRow.findByPk(id, { attributes: { exclude: ['document'] }, transaction }), 'job');

/** Puts a job in the bin, or takes it out again. */
export async function binJob(person: Person, id: string, isIn: boolean): Promise<void> {
  const row = await rowOf(person, id);
  await row.update({ deletedAt: isIn ? new Date() : null }, { silent: true });
}

/** Jobs that have lain in the bin for long go, and with them the pictures that no other job uses. */
async function emptyBin(workshopId: string): Promise<void> {
  const long = new Date(Date.now() - daysInBin * dayMs);
  const gone = await models().JobRow.destroy({ where: { workshopId, deletedAt: { [Op.lt]: long } } });
  if (gone > 0) await letUnusedGo(workshopId);
}

/** @throws Problem 404 where the job is not one of this workshop's */
export async function ownedJob(person: Person, id: string): Promise<void> {
  await rowOf(person, id);
}
