import type { ModelAttributeColumnOptions, QueryInterface } from 'sequelize';

// Changes of tables that can be made again: a server that was killed in the middle of a migration runs it anew, as the
// database keeps what it has done of it.

/** Adds a column unless it is there; true where it was added now. */
export async function addColumnOnce(
  tables: QueryInterface,
  table: string,
  column: string,
  options: ModelAttributeColumnOptions,
): Promise<boolean> {
  const columns = await tables.describeTable(table);
  if (column in columns) return false;
  await tables.addColumn(table, column, options);
  return true;
}

/** Adds an index unless it is there. */
export async function addIndexOnce(
  tables: QueryInterface,
  table: string,
  fields: string[],
  options: { readonly name: string; readonly unique?: boolean },
): Promise<void> {
  const indexes = (await tables.showIndex(table)) as { name: string }[];
  if (!indexes.some(({ name }) => name === options.name)) await tables.addIndex(table, fields, options);
}
