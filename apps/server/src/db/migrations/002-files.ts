import { DataTypes, type QueryInterface } from 'sequelize';
import { addIndexOnce } from './tables.ts';

export async function up(tables: QueryInterface): Promise<void> {
  await tables.createTable('files', {
    project_id: {
      type: DataTypes.STRING(24),
      primaryKey: true,
      references: { model: 'projects', key: 'id' },
      onDelete: 'CASCADE',
    },
    hash: { type: DataTypes.STRING(64), primaryKey: true },
    size: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
    packed: { type: DataTypes.BLOB('medium'), allowNull: false },
  });
  await addIndexOnce(tables, 'files', ['hash'], { name: 'files_by_hash' });
}

export const down = (tables: QueryInterface): Promise<void> => tables.dropTable('files');
