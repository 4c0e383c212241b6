import { QueryTypes, Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import type { Config } from '../config.ts';
import { defineModels, type Models } from './models.ts';
import { MIGRATIONS } from './migrations/index.ts';

export interface Database {
  readonly sequelize: Sequelize;
  readonly models: Models;
}

const ACQUIRE_MS = 5000;
const STATEMENT_S = 8;
/** So long one server waits while another brings the tables up to date, s. */
const LOCK_S = 60;

/** Connects and brings the tables up to date. */
export async function openDatabase(config: Config): Promise<Database> {
  // migrations take as long as they take
  const unlimited = connected(config, 0);
  try {
    await unlimited.authenticate();
    await migrate(unlimited);
  } finally {
    await unlimited.close();
  }
  const sequelize = connected(config, STATEMENT_S);
  return { sequelize, models: defineModels(sequelize) };
}

/** @param seconds after which a statement is ended; 0 for never */
const connected = (config: Config, seconds: number): Sequelize =>
  new Sequelize(config.HELB_DB_NAME, config.HELB_DB_USER, config.HELB_DB_PASSWORD, {
    host: config.HELB_DB_HOST,
    port: config.HELB_DB_PORT,
    dialect: 'mariadb',
    logging: false,
    pool: { max: 10, acquire: ACQUIRE_MS },
    dialectOptions: {
      connectTimeout: ACQUIRE_MS,
      ...(config.HELB_DB_TLS === 'yes' && { ssl: true }),
      // the database ends a statement that takes longer; where it does not answer at all it is given up
      ...(seconds > 0 && {
        sessionVariables: { max_statement_time: seconds, innodb_lock_wait_timeout: seconds },
        socketTimeout: 2000 * seconds,
      }),
    },
    define: { underscored: true, timestamps: false, freezeTableName: true },
  });

/** One server at a time; what was left in the middle is done again. */
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
  // the lock belongs to one connection: that of a transaction, which does nothing else
  await sequelize.transaction(async (transaction) => {
    const lock = `helb ${sequelize.getDatabaseName()}`;
    const [row] = await sequelize.query<{ held: number | null }>(`SELECT GET_LOCK(:lock, ${LOCK_S}) AS held`, {
      type: QueryTypes.SELECT,
      replacements: { lock },
      transaction,
    });
    if (row?.held !== 1)
      throw new Error('Another server brings the tables of the database up to date and does not end.');
    try {
      await umzug.up();
    } finally {
      await sequelize.query('SELECT RELEASE_LOCK(:lock)', {
        type: QueryTypes.SELECT,
        replacements: { lock },
        transaction,
      });
    }
  });
}
