import { administrate } from './admin/commands.ts';
import { readConfig } from './config.ts';
import { openServices } from './services.ts';
import { Refusal } from './services/refusal.ts';

// What whoever looks after a server does from its command line, on the database of the environment.

try {
  const { database, services } = await openServices(readConfig(process.env));
  try {
    process.stdout.write(`${await administrate(process.argv.slice(2), { database, ...services })}\n`);
  } finally {
    await database.sequelize.close();
  }
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exitCode = error instanceof Refusal ? 1 : 3;
}
