/**
 * A bin for jobs; saves by an id of their own, with what each changed; which jobs use which pictures; drawings for the list.
 */
import { DataTypes, QueryTypes } from 'sequelize';
import type { Up } from './up.ts';

const uuid = { type: DataTypes.UUID, allowNull: false } as const;
const whole = { type: DataTypes.INTEGER, allowNull: false } as const;
const time = { type: DataTypes.DATE, allowNull: false } as const;
const ofJob = { ...uuid, primaryKey: true, references: { model: 'jobs', key: 'id' }, onDelete: 'CASCADE' } as const;

export const up: Up = async (tables, transaction) => {
  const query = (sql: string) => tables.sequelize.query(sql, { type: QueryTypes.RAW, transaction });

  await tables.addColumn('jobs', 'summary', { type: DataTypes.JSONB, allowNull: true }, { transaction });
  await query(`update jobs set summary = jsonb_build_object(
    'name', document->'name',
    'making', document->'making',
    'pictureId', coalesce(document->'pictures'->0->'id', 'null'),
    'pieces', jsonb_array_length(case when jsonb_typeof(document->'trace'->'pieces') = 'array' then document->'trace'->'pieces' else '[]' end)
      + jsonb_array_length(case when jsonb_typeof(document->'drawn') = 'array' then document->'drawn' else '[]' end),
    'hasOutlines', coalesce(document->'drawn', '[]') <> '[]' or coalesce(document->'drawings', '[]') <> '[]' or coalesce(document->'trace', 'null') <> 'null')`);
  await tables.changeColumn('jobs', 'summary', { type: DataTypes.JSONB, allowNull: false }, { transaction });
  await tables.addColumn('jobs', 'deleted_at', { type: DataTypes.DATE, allowNull: true }, { transaction });
  // The document stands as it was at this revision; what saves have changed since lies beside it.
  await tables.addColumn('jobs', 'document_revision', { type: DataTypes.INTEGER, allowNull: true }, { transaction });
  await query('update jobs set document_revision = revision');
  await tables.changeColumn('jobs', 'document_revision', { ...whole, defaultValue: 1 }, { transaction });
  await tables.addColumn('jobs', 'patch_bytes', { ...whole, defaultValue: 0 }, { transaction });

  await tables.createTable(
    'job_saves',
    {
      job_id: ofJob,
      revision: { ...whole, primaryKey: true },
      save_id: uuid,
      /** Null once the document has taken them in. */
      patches: { type: DataTypes.JSONB, allowNull: true },
      created_at: time,
    },
    { transaction },
  );
  await tables.addIndex('job_saves', ['job_id', 'save_id'], { unique: true, transaction });

  await tables.createTable(
    'job_pictures',
    {
      job_id: ofJob,
      picture_id: { ...uuid, primaryKey: true, references: { model: 'pictures', key: 'id' }, onDelete: 'CASCADE' },
    },
    { transaction },
  );
  await tables.addIndex('job_pictures', ['picture_id'], { transaction });
  await query(
    'insert into job_pictures (job_id, picture_id) select job_id, id from pictures where job_id is not null and original_id is null',
  );
  await tables.removeIndex('pictures', ['job_id'], { transaction });
  await tables.removeColumn('pictures', 'job_id', { transaction });

  await tables.createTable(
    'job_drawings',
    { job_id: ofJob, revision: whole, svg: { type: DataTypes.TEXT, allowNull: false } },
    { transaction },
  );
};
