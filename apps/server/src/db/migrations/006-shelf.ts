import { DataTypes, type QueryInterface } from 'sequelize';
import { addColumnOnce, addIndexOnce } from './tables.ts';

const COLUMNS = {
  folder: { type: DataTypes.STRING(255), allowNull: true },
  whole_picture: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
  thrown_at: { type: DataTypes.DATE(3), allowNull: true },
};

/** Folders on the shelf; pictures of the whole; projects that were thrown away and can be taken back. */
export async function up(tables: QueryInterface): Promise<void> {
  for (const [column, options] of Object.entries(COLUMNS)) await addColumnOnce(tables, 'projects', column, options);
  await addIndexOnce(tables, 'projects', ['thrown_at'], { name: 'projects_thrown' });
}

export async function down(tables: QueryInterface): Promise<void> {
  for (const column of Object.keys(COLUMNS)) await tables.removeColumn('projects', column);
}
