/**
 * What a workshop remembers of its stocks and machines, by name.
 */
import { DataTypes } from 'sequelize';
import type { Up } from './up.ts';

export const up: Up = async (tables, transaction) => {
  await tables.createTable(
    'presets',
    {
      id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
      workshop_id: { type: DataTypes.UUID, allowNull: false },
      kind: { type: DataTypes.TEXT, allowNull: false },
      name: { type: DataTypes.TEXT, allowNull: false },
      value: { type: DataTypes.JSONB, allowNull: false },
      created_at: { type: DataTypes.DATE, allowNull: false },
    },
    { transaction },
  );
  await tables.addIndex('presets', ['workshop_id', 'kind', 'name'], { unique: true, transaction });
};
