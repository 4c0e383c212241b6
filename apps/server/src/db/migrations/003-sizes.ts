import { DataTypes, type QueryInterface } from 'sequelize';
import { addColumnOnce } from './tables.ts';

const bytes = () => ({ type: DataTypes.BIGINT.UNSIGNED, allowNull: false, defaultValue: 0 });

/** How large everything is that an account keeps; names of accounts differ in every sign. */
export async function up(tables: QueryInterface): Promise<void> {
  const { sequelize } = tables;
  await addColumnOnce(tables, 'changes', 'size', {
    type: DataTypes.INTEGER.UNSIGNED,
    allowNull: false,
    defaultValue: 0,
  });
  for (const column of ['document_size', 'log_size', 'replay_size'])
    await addColumnOnce(tables, 'projects', column, bytes());
  await sequelize.query('UPDATE changes SET size = LENGTH(entry) WHERE size = 0');
  await sequelize.query(
    `UPDATE projects SET
      log_size = (SELECT COALESCE(SUM(size), 0) FROM changes WHERE project_id = projects.id),
      document_size = (SELECT LENGTH(document) FROM snapshots WHERE project_id = projects.id ORDER BY revision DESC LIMIT 1)`,
  );
  await sequelize.query(
    'ALTER TABLE accounts MODIFY name VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL',
  );
}

export async function down(tables: QueryInterface): Promise<void> {
  await tables.removeColumn('changes', 'size');
  for (const column of ['document_size', 'log_size', 'replay_size']) await tables.removeColumn('projects', column);
}
