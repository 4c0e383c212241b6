import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { formatPage, stepsPage } from '@helb/core';
import { ROOT } from './build-server.ts';

await writeFile(join(ROOT, 'docs/format.md'), formatPage());
await writeFile(join(ROOT, 'docs/steps.md'), stepsPage());
process.stderr.write('Wrote docs/format.md and docs/steps.md.\n');
