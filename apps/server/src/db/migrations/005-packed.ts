import { DataTypes, type QueryInterface } from 'sequelize';
import { addColumnOnce } from './tables.ts';

/** Snapshots are kept packed; those that were there stay as they are until the next one. */
export async function up(tables: QueryInterface): Promise<void> {
  await addColumnOnce(tables, 'snapshots', 'packed', { type: DataTypes.BLOB('long'), allowNull: true });
  await tables.changeColumn('snapshots', 'document', { type: DataTypes.TEXT('long'), allowNull: true });
}

export async function down(tables: QueryInterface): Promise<void> {
  await tables.sequelize.query('DELETE FROM snapshots WHERE document IS NULL');
  await tables.removeColumn('snapshots', 'packed');
}
