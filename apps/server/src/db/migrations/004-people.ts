import { DataTypes, type QueryInterface } from 'sequelize';
import { addColumnOnce } from './tables.ts';

const time = () => ({ type: DataTypes.DATE(3), allowNull: true });

const ACCOUNT = {
  password_at: time(),
  recovery_hash: { type: DataTypes.STRING(255), allowNull: true },
  recovery_ends_at: time(),
  second_factor: { type: DataTypes.BLOB('tiny'), allowNull: true },
  second_factor_used: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false, defaultValue: 0 },
};
const SESSION = {
  opened_at: time(),
  seen_at: time(),
  address: { type: DataTypes.STRING(45), allowNull: false, defaultValue: '' },
  device: { type: DataTypes.STRING(200), allowNull: false, defaultValue: '' },
};

/** Where sessions were opened and when they were used; ways back in; codes; what is counted for limits. */
export async function up(tables: QueryInterface): Promise<void> {
  for (const [column, options] of Object.entries(ACCOUNT)) await addColumnOnce(tables, 'accounts', column, options);
  for (const [column, options] of Object.entries(SESSION)) await addColumnOnce(tables, 'sessions', column, options);
  await tables.sequelize.query('UPDATE sessions SET opened_at = NOW(3), seen_at = NOW(3) WHERE seen_at IS NULL');
  // in memory only: it may be lost, and costs nothing to write
  await tables.createTable(
    'counts',
    {
      id: { type: 'CHAR(32) CHARACTER SET ascii COLLATE ascii_bin', primaryKey: true },
      count: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
      ends_at: { type: DataTypes.DATE(3), allowNull: false },
    },
    { engine: 'MEMORY' },
  );
}

export async function down(tables: QueryInterface): Promise<void> {
  for (const column of Object.keys(ACCOUNT)) await tables.removeColumn('accounts', column);
  for (const column of Object.keys(SESSION)) await tables.removeColumn('sessions', column);
  await tables.dropTable('counts');
}
