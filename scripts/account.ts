import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './build-server.ts';
import { withDatabase } from './private-database.ts';
import { environmentOf } from './server-process.ts';

// Accounts of the server of the environment, or of the demo's where none is set.
const DATA = join(ROOT, '.data');

function run(env: Record<string, string> = {}): void {
  const administrate = join(ROOT, 'apps/server/src/administrate.ts');
  try {
    execFileSync(process.execPath, ['--import', 'tsx', administrate, ...process.argv.slice(2)], {
      env: { ...process.env, ...env },
      stdio: 'inherit',
    });
  } catch (error) {
    process.exitCode = (error as { status?: number }).status ?? 3;
  }
}

if (process.env['HELB_DB_PORT'] !== undefined) run();
else if (!existsSync(join(DATA, 'mariadb'))) {
  process.stderr.write(
    'There is no demo here yet: ./helb demo makes it. For another server set HELB_DB_PORT and so on.\n',
  );
  process.exitCode = 1;
} else await withDatabase(DATA, async (address) => run(await environmentOf(address, DATA)));
