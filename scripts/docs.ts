import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { formatPage, stepsPage } from '@helb/core';
import { ROOT } from './build-server.ts';
import { writeDemoMarks } from './demo-marks.ts';

await writeFile(join(ROOT, 'docs/format.md'), formatPage());
await writeFile(join(ROOT, 'docs/steps.md'), stepsPage());
process.stderr.write(`Wrote docs/format.md, docs/steps.md and ${await writeDemoMarks()}.\n`);
process.exit(0);
