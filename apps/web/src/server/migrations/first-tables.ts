/**
 * Jobs with their edits, pictures with their bytes and tiles.
 */
import { DataTypes } from 'sequelize';
import type { Up } from './up.ts';

const uuid = { type: DataTypes.UUID, allowNull: false } as const;
const whole = { type: DataTypes.INTEGER, allowNull: false } as const;
const text = { type: DataTypes.TEXT, allowNull: false } as const;
const json = { type: DataTypes.JSONB, allowNull: false } as const;
const bytes = { type: DataTypes.BLOB, allowNull: false } as const;
const time = { type: DataTypes.DATE, allowNull: false } as const;
const partOf = (table: string) => ({ ...uuid, primaryKey: true, references: { model: table, key: 'id' }, onDelete: 'CASCADE' }) as const;

export const up: Up = async (tables, transaction) => {
  await tables.createTable(
    'jobs',
    {
      id: { ...uuid, primaryKey: true },
      workshop_id: uuid,
      document: json,
      revision: whole,
      cursor: whole,
      created_at: time,
      updated_at: time,
    },
    { transaction },
  );
  await tables.addIndex('jobs', ['workshop_id', 'updated_at'], { transaction });
  await tables.createTable(
    'job_edits',
    {
      job_id: partOf('jobs'),
      seq: { ...whole, primaryKey: true },
      label: text,
      forward: json,
      back: json,
    },
    { transaction },
  );
  await tables.createTable(
    'pictures',
    {
      id: { ...uuid, primaryKey: true },
      workshop_id: uuid,
      job_id: { type: DataTypes.UUID, references: { model: 'jobs', key: 'id' }, onDelete: 'CASCADE' },
      name: text,
      kind: text,
      width_px: whole,
      height_px: whole,
      resolution_dpi: DataTypes.DOUBLE,
      resolution_source: DataTypes.TEXT,
      byte_length: whole,
      created_at: time,
    },
    { transaction },
  );
  await tables.addIndex('pictures', ['job_id'], { transaction });
  await tables.createTable(
    'picture_chunks',
    { picture_id: partOf('pictures'), seq: { ...whole, primaryKey: true }, bytes },
    { transaction },
  );
  await tables.createTable(
    'picture_tiles',
    {
      picture_id: partOf('pictures'),
      level: { ...whole, primaryKey: true },
      tile_column: { ...whole, primaryKey: true },
      tile_row: { ...whole, primaryKey: true },
      bytes,
    },
    { transaction },
  );
};
