import { DataTypes, type QueryInterface } from 'sequelize';
import { addIndexOnce } from './tables.ts';

const account = () => ({
  type: DataTypes.INTEGER.UNSIGNED,
  allowNull: false,
  references: { model: 'accounts', key: 'id' },
  onDelete: 'CASCADE',
});
const project = () => ({
  type: DataTypes.STRING(24),
  allowNull: false,
  references: { model: 'projects', key: 'id' },
  onDelete: 'CASCADE',
});
const time = () => ({ type: DataTypes.DATE(3), allowNull: false });

export async function up(tables: QueryInterface): Promise<void> {
  await tables.createTable('accounts', {
    id: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true, autoIncrement: true },
    name: { type: DataTypes.STRING(40), allowNull: false, unique: true },
    password_hash: { type: DataTypes.STRING(255), allowNull: false },
    created_at: time(),
  });
  await tables.createTable('sessions', {
    token_hash: { type: DataTypes.STRING(64), primaryKey: true },
    account_id: account(),
    expires_at: time(),
  });
  await tables.createTable('projects', {
    id: { type: DataTypes.STRING(24), primaryKey: true },
    account_id: account(),
    name: { type: DataTypes.STRING(60), allowNull: false },
    revision: { type: DataTypes.INTEGER.UNSIGNED, allowNull: false },
    created_at: time(),
    changed_at: time(),
    findings: { type: DataTypes.INTEGER.UNSIGNED, allowNull: true },
    picture: { type: DataTypes.BLOB('medium'), allowNull: true },
  });
  await tables.createTable('changes', {
    project_id: { ...project(), primaryKey: true },
    revision: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
    change_id: { type: DataTypes.STRING(24), allowNull: false },
    account_id: { ...account(), allowNull: true, onDelete: 'SET NULL' },
    made_at: time(),
    entry: { type: DataTypes.TEXT('medium'), allowNull: false },
  });
  await addIndexOnce(tables, 'changes', ['project_id', 'change_id'], { unique: true, name: 'changes_by_id' });
  await tables.createTable('snapshots', {
    project_id: { ...project(), primaryKey: true },
    revision: { type: DataTypes.INTEGER.UNSIGNED, primaryKey: true },
    document: { type: DataTypes.TEXT('long'), allowNull: false },
  });
}

export async function down(tables: QueryInterface): Promise<void> {
  for (const table of ['snapshots', 'changes', 'projects', 'sessions', 'accounts']) await tables.dropTable(table);
}
