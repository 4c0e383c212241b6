import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { formatPage, STEP_NAMES, stepKind, stepsPage } from '@helb/core';
import { ROOT } from './build-server.ts';
import { writeDemoMarks } from './demo-marks.ts';
import { thirdPartyPage, type Lock } from './third-party.ts';

await writeFile(join(ROOT, 'docs/format.md'), formatPage());
await writeFile(join(ROOT, 'docs/steps.md'), stepsPage({ names: STEP_NAMES, kind: stepKind }));
const lock = JSON.parse(await readFile(join(ROOT, 'package-lock.json'), 'utf8')) as Lock;
await writeFile(join(ROOT, 'THIRD-PARTY.md'), thirdPartyPage(lock));
process.stderr.write(`Wrote docs/format.md, docs/steps.md, THIRD-PARTY.md and ${await writeDemoMarks()}.\n`);
process.exit(0);
