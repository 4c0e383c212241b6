import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Config } from '../config.ts';
import { defineModels, type Models } from './models.ts';
import { MIGRATIONS } from './migrations/index.ts';

export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
}

/** Connects and brings the tables up to date. */
export async function openDatabase(config: Config): Promise<Database> {
  const sequelize = new Sequelize(config.HELB_DB_NAME, config.HELB_DB_USER, config.HELB_DB_PASSWORD, {
    host: config.HELB_DB_HOST,
    port: config.HELB_DB_PORT,
    dialect: 'mariadb',
    logging: false,
    pool: { max: 10, acquire: 5000 },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });
  await sequelize.authenticate();
  await migrate(sequelize);
  return { sequelize, models: defineModels(sequelize) };
}

async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up, down }) => ({
      name,
      up: () => up(sequelize.getQueryInterface()),
      down: () => down(sequelize.getQueryInterface()),
    })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
  await umzug.up();
}
