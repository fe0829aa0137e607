/**
 * Pages of files with several, resolutions that cannot be trusted, and working copies of pictures.
 */
import { DataTypes } from 'sequelize';
import type { Up } from './up.ts';

export const up: Up = async (tables, transaction) => {
  await tables.addColumn('pictures', 'page', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 }, { transaction });
  await tables.addColumn(
    'pictures',
    'resolution_trusted',
    { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true },
    { transaction },
  );
  await tables.addColumn(
    'pictures',
    'original_id',
    {
      type: DataTypes.UUID,
      allowNull: true,
      references: { model: 'pictures', key: 'id' },
      onDelete: 'CASCADE',
    },
    { transaction },
  );
  await tables.addColumn('pictures', 'working_key', { type: DataTypes.TEXT, allowNull: true }, { transaction });
  await tables.addIndex('pictures', ['original_id', 'working_key'], { transaction });
};
