import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { formatPage } from '@helb/core';
import { ROOT } from './build-server.ts';

await writeFile(join(ROOT, 'docs/format.md'), formatPage());
process.stderr.write('Wrote docs/format.md.\n');
