/**
 * Pages of files with several, resolutions that cannot be trusted, and working copies of pictures.
 */
import { DataTypes, type QueryInterface } from 'sequelize';

export async function up(tables: QueryInterface): Promise<void> {
  await tables.addColumn('pictures', 'page', { type: DataTypes.INTEGER, allowNull: false, defaultValue: 0 });
  await tables.addColumn('pictures', 'resolution_trusted', { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: true });
  await tables.addColumn('pictures', 'original_id', {
    type: DataTypes.UUID,
    allowNull: true,
    references: { model: 'pictures', key: 'id' },
    onDelete: 'CASCADE',
  });
  await tables.addColumn('pictures', 'working_key', { type: DataTypes.TEXT, allowNull: true });
  await tables.addIndex('pictures', ['original_id', 'working_key']);
}
