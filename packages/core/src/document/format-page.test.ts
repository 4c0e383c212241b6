import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { STEP_NAMES, stepKind } from '../steps/index.ts';
import { formatPage, stepsPage } from './index.ts';

test('docs/format.md is what the schemas say (write it anew with ./helb docs)', () => {
  const page = readFileSync(join(import.meta.dirname, '../../../../docs/format.md'), 'utf8');
  expect(page).toBe(formatPage());
});

test('docs/steps.md is what the register of steps says (write it anew with ./helb docs)', () => {
  expect(readFileSync(join(import.meta.dirname, '../../../../docs/steps.md'), 'utf8')).toBe(
    stepsPage({ names: STEP_NAMES, kind: stepKind }),
  );
});
