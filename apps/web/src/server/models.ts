/**
 * The tables as Sequelize models. What a job holds is its document (see docs/job-format.md); the edits beside it let
 * undo reach back to the job's beginning.
 */
import type { Edit, JobDocument, Picture } from '@nuvet/core/job';
import type { Path } from '@nuvet/core/plane';
import type { ShelfKind, ShelfValue } from '@nuvet/core/shelf';
import type { PictureKind } from '@nuvet/pictures';
import type { Patch } from 'immer';
import { type CreationOptional, DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize';
import { database } from './database.ts';

/** What the list of jobs shows of a job. */
export interface Summary {
  readonly name: string;
  readonly stock: string | null;
  /** Names of its processes, in order. */
  readonly processes: readonly string[];
  /** Items of the shelf that it keeps a copy of, by id. */
  readonly uses: readonly string[];
  readonly pictureId: string | null;
  /** Outlines traced and drawn. */
  readonly pieces: number;
  /** Whether there are outlines of any kind, also such as were brought in. */
  readonly hasOutlines: boolean;
}

export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  /** As it stood at `documentRevision`; what saves have changed since lies in `job_saves`. */
  declare document: JobDocument;
  declare documentRevision: CreationOptional<number>;
  /** Bytes of patches that lie beside the document. */
  declare patchBytes: CreationOptional<number>;
  /** What the list of jobs shows of it. */
  declare summary: Summary;
  /** When it was put in the bin; null outside it. */
  declare deletedAt: CreationOptional<Date | null>;
  /** Grows by one with every save: a save that was made from another revision is refused. */
  declare revision: CreationOptional<number>;
  /** How many of the job's edits are done; those past it can be redone. */
  declare cursor: CreationOptional<number>;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

export class JobEditRow extends Model<InferAttributes<JobEditRow>, InferCreationAttributes<JobEditRow>> {
  declare jobId: string;
  declare seq: number;
  declare label: string;
  declare forward: Edit['forward'];
  declare back: Edit['back'];
}

export class JobSaveRow extends Model<InferAttributes<JobSaveRow>, InferCreationAttributes<JobSaveRow>> {
  declare jobId: string;
  declare revision: number;
  declare saveId: string;
  declare patches: Patch[] | null;
  declare createdAt: CreationOptional<Date>;
}

export class JobPictureRow extends Model<InferAttributes<JobPictureRow>, InferCreationAttributes<JobPictureRow>> {
  declare jobId: string;
  declare pictureId: string;
}

export class JobDrawingRow extends Model<InferAttributes<JobDrawingRow>, InferCreationAttributes<JobDrawingRow>> {
  declare jobId: string;
  declare revision: number;
  declare svg: string;
}

export class PictureRow extends Model<InferAttributes<PictureRow>, InferCreationAttributes<PictureRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare name: string;
  declare kind: PictureKind;
  /** Of a file with several, from 0. */
  declare page: CreationOptional<number>;
  /** A working copy's original, and the fit that it was made for. */
  declare originalId: CreationOptional<string | null>;
  declare workingKey: CreationOptional<string | null>;
  declare widthPx: number;
  declare heightPx: number;
  declare resolutionDpi: number | null;
  declare resolutionSource: NonNullable<Picture['resolution']>['source'] | null;
  declare resolutionTrusted: CreationOptional<boolean>;
  declare byteLength: number;
  declare createdAt: CreationOptional<Date>;
}

export class PictureChunkRow extends Model<InferAttributes<PictureChunkRow>, InferCreationAttributes<PictureChunkRow>> {
  declare pictureId: string;
  declare seq: number;
  declare bytes: Buffer;
}

export class PictureTileRow extends Model<InferAttributes<PictureTileRow>, InferCreationAttributes<PictureTileRow>> {
  declare pictureId: string;
  declare level: number;
  declare tileColumn: number;
  declare tileRow: number;
  declare bytes: Buffer;
}

export class MotifRow extends Model<InferAttributes<MotifRow>, InferCreationAttributes<MotifRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare name: string;
  declare tags: string[];
  declare paths: Path[];
  declare createdAt: CreationOptional<Date>;
}

export class ShelfRow extends Model<InferAttributes<ShelfRow>, InferCreationAttributes<ShelfRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare kind: ShelfKind;
  declare name: string;
  declare value: ShelfValue;
  /** Grows by one with every change. */
  declare revision: number;
  declare createdAt: CreationOptional<Date>;
  declare updatedAt: CreationOptional<Date>;
}

const id = { type: DataTypes.UUID, primaryKey: true, defaultValue: DataTypes.UUIDV4 } as const;
const key = (type: typeof DataTypes.UUID | typeof DataTypes.INTEGER) => ({ type, primaryKey: true, allowNull: false }) as const;
const needed = <T>(type: T) => ({ type, allowNull: false }) as const;

const started = new WeakSet<Sequelize>();

/** The models, bound to the connection on first use. */
export function models() {
  const sequelize = database();
  if (!started.has(sequelize)) {
    started.add(sequelize);
    JobRow.init(
      {
        id,
        workshopId: needed(DataTypes.UUID),
        document: needed(DataTypes.JSONB),
        documentRevision: { ...needed(DataTypes.INTEGER), defaultValue: 1 },
        patchBytes: { ...needed(DataTypes.INTEGER), defaultValue: 0 },
        summary: needed(DataTypes.JSONB),
        deletedAt: DataTypes.DATE,
        revision: { ...needed(DataTypes.INTEGER), defaultValue: 1 },
        cursor: { ...needed(DataTypes.INTEGER), defaultValue: 0 },
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      },
      { sequelize, modelName: 'JobRow', tableName: 'jobs' },
    );
    JobEditRow.init(
      {
        jobId: key(DataTypes.UUID),
        seq: key(DataTypes.INTEGER),
        label: needed(DataTypes.TEXT),
        forward: needed(DataTypes.JSONB),
        back: needed(DataTypes.JSONB),
      },
      { sequelize, modelName: 'JobEditRow', tableName: 'job_edits', timestamps: false },
    );
    JobSaveRow.init(
      {
        jobId: key(DataTypes.UUID),
        revision: key(DataTypes.INTEGER),
        saveId: needed(DataTypes.UUID),
        patches: DataTypes.JSONB,
        createdAt: DataTypes.DATE,
      },
      { sequelize, modelName: 'JobSaveRow', tableName: 'job_saves', updatedAt: false },
    );
    JobPictureRow.init(
      { jobId: key(DataTypes.UUID), pictureId: key(DataTypes.UUID) },
      { sequelize, modelName: 'JobPictureRow', tableName: 'job_pictures', timestamps: false },
    );
    JobDrawingRow.init(
      { jobId: key(DataTypes.UUID), revision: needed(DataTypes.INTEGER), svg: needed(DataTypes.TEXT) },
      { sequelize, modelName: 'JobDrawingRow', tableName: 'job_drawings', timestamps: false },
    );
    PictureRow.init(
      {
        id,
        workshopId: needed(DataTypes.UUID),
        name: needed(DataTypes.TEXT),
        kind: needed(DataTypes.TEXT),
        widthPx: needed(DataTypes.INTEGER),
        heightPx: needed(DataTypes.INTEGER),
        resolutionDpi: DataTypes.DOUBLE,
        resolutionSource: DataTypes.TEXT,
        resolutionTrusted: { ...needed(DataTypes.BOOLEAN), defaultValue: true },
        page: { ...needed(DataTypes.INTEGER), defaultValue: 0 },
        originalId: DataTypes.UUID,
        workingKey: DataTypes.TEXT,
        byteLength: needed(DataTypes.INTEGER),
        createdAt: DataTypes.DATE,
      },
      { sequelize, modelName: 'PictureRow', tableName: 'pictures', updatedAt: false },
    );
    PictureChunkRow.init(
      { pictureId: key(DataTypes.UUID), seq: key(DataTypes.INTEGER), bytes: needed(DataTypes.BLOB) },
      { sequelize, modelName: 'PictureChunkRow', tableName: 'picture_chunks', timestamps: false },
    );
    MotifRow.init(
      {
        id,
        workshopId: needed(DataTypes.UUID),
        name: needed(DataTypes.TEXT),
        tags: needed(DataTypes.JSONB),
        paths: needed(DataTypes.JSONB),
        createdAt: DataTypes.DATE,
      },
      { sequelize, modelName: 'MotifRow', tableName: 'motifs', updatedAt: false },
    );
    ShelfRow.init(
      {
        id,
        workshopId: needed(DataTypes.UUID),
        kind: needed(DataTypes.TEXT),
        name: needed(DataTypes.TEXT),
        value: needed(DataTypes.JSONB),
        revision: needed(DataTypes.INTEGER),
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      },
      { sequelize, modelName: 'ShelfRow', tableName: 'shelf_items' },
    );
    PictureTileRow.init(
      {
        pictureId: key(DataTypes.UUID),
        level: key(DataTypes.INTEGER),
        tileColumn: key(DataTypes.INTEGER),
        tileRow: key(DataTypes.INTEGER),
        bytes: needed(DataTypes.BLOB),
      },
      { sequelize, modelName: 'PictureTileRow', tableName: 'picture_tiles', timestamps: false },
    );
  }
  return {
    sequelize,
    MotifRow,
    ShelfRow,
    JobRow,
    JobEditRow,
    JobSaveRow,
    JobPictureRow,
    JobDrawingRow,
    PictureRow,
    PictureChunkRow,
    PictureTileRow,
  };
}
