/**
 * The tables as Sequelize models. What a job holds is its document (see docs/job-format.md); the edits beside it let
 * undo reach back to the job's beginning.
 */
import type { Edit, Job, Picture } from '@nuvet/core/job';
import type { Path } from '@nuvet/core/plane';
import type { PictureKind } from '@nuvet/pictures';
import { type CreationOptional, DataTypes, type InferAttributes, type InferCreationAttributes, Model, type Sequelize } from 'sequelize';
import { database } from './database.ts';

export class JobRow extends Model<InferAttributes<JobRow>, InferCreationAttributes<JobRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare document: Job;
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

export class PictureRow extends Model<InferAttributes<PictureRow>, InferCreationAttributes<PictureRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  /** Null until a job takes the picture in. */
  declare jobId: CreationOptional<string | null>;
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

export class PresetRow extends Model<InferAttributes<PresetRow>, InferCreationAttributes<PresetRow>> {
  declare id: CreationOptional<string>;
  declare workshopId: string;
  declare kind: 'stock' | 'machine';
  declare name: string;
  declare value: object;
  declare createdAt: CreationOptional<Date>;
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
        revision: { ...needed(DataTypes.INTEGER), defaultValue: 1 },
        cursor: { ...needed(DataTypes.INTEGER), defaultValue: 0 },
        createdAt: DataTypes.DATE,
        updatedAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'jobs' },
    );
    JobEditRow.init(
      {
        jobId: key(DataTypes.UUID),
        seq: key(DataTypes.INTEGER),
        label: needed(DataTypes.TEXT),
        forward: needed(DataTypes.JSONB),
        back: needed(DataTypes.JSONB),
      },
      { sequelize, tableName: 'job_edits', timestamps: false },
    );
    PictureRow.init(
      {
        id,
        workshopId: needed(DataTypes.UUID),
        jobId: DataTypes.UUID,
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
      { sequelize, tableName: 'pictures', updatedAt: false },
    );
    PictureChunkRow.init(
      { pictureId: key(DataTypes.UUID), seq: key(DataTypes.INTEGER), bytes: needed(DataTypes.BLOB) },
      { sequelize, tableName: 'picture_chunks', timestamps: false },
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
      { sequelize, tableName: 'motifs', updatedAt: false },
    );
    PresetRow.init(
      {
        id,
        workshopId: needed(DataTypes.UUID),
        kind: needed(DataTypes.TEXT),
        name: needed(DataTypes.TEXT),
        value: needed(DataTypes.JSONB),
        createdAt: DataTypes.DATE,
      },
      { sequelize, tableName: 'presets', updatedAt: false },
    );
    PictureTileRow.init(
      {
        pictureId: key(DataTypes.UUID),
        level: key(DataTypes.INTEGER),
        tileColumn: key(DataTypes.INTEGER),
        tileRow: key(DataTypes.INTEGER),
        bytes: needed(DataTypes.BLOB),
      },
      { sequelize, tableName: 'picture_tiles', timestamps: false },
    );
  }
  return { sequelize, MotifRow, PresetRow, JobRow, JobEditRow, PictureRow, PictureChunkRow, PictureTileRow };
}
