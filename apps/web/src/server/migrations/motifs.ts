/**
 * A workshop's own motifs.
 */
import { DataTypes, type QueryInterface } from 'sequelize';

export async function up(tables: QueryInterface): Promise<void> {
  await tables.createTable('motifs', {
    id: { type: DataTypes.UUID, primaryKey: true, allowNull: false },
    workshop_id: { type: DataTypes.UUID, allowNull: false },
    name: { type: DataTypes.TEXT, allowNull: false },
    tags: { type: DataTypes.JSONB, allowNull: false },
    paths: { type: DataTypes.JSONB, allowNull: false },
    created_at: { type: DataTypes.DATE, allowNull: false },
  });
  await tables.addIndex('motifs', ['workshop_id', 'name']);
}
