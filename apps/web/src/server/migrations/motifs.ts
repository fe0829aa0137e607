/**
 * A workshop's own motifs.
 */
import { DataTypes } from 'sequelize';
import type { Up } from './up.ts';

export const up: Up = async (tables, transaction) => {
  await tables.createTable(
    'motifs',
    {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      workshop_id: { type: DataTypes.UUID, allowNull: false },
      name: { type: DataTypes.TEXT, allowNull: false },
      tags: { type: DataTypes.JSONB, allowNull: false },
      paths: { type: DataTypes.JSONB, allowNull: false },
      created_at: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await tables.addIndex('motifs', ['workshop_id', 'name'], { transaction });
};
