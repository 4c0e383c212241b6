import { join } from 'node:path';
import { ProjectScript, type Step } from '@helb/core';
import { rectangle } from '@helb/core/samples';
import { expect, test } from './house.ts';
import { openFile } from './plate.ts';

const CASES = join(import.meta.dirname, '../fuzz/cases');

test('what a stranger brings: a jar with the right volume; a step that breaks the library harms nothing else, also after a reload', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  const shelf = page.locator('input[type=file]');
  await shelf.setInputFiles(join(CASES, 'jar-wrong-volume.helb.json'));
  await expect(page.getByText('27562.6 mm³')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByText('0 0 54.26 mm')).toBeVisible();

  await page.goto('/');
  await shelf.setInputFiles(join(CASES, 'rounded-corners-null-function.helb.json'));
  // corners whose rounds reach the opening
  await expect(page.getByText('32793 mm³')).toBeVisible({ timeout: 30_000 });

  await page.goto('/');
  await shelf.setInputFiles(join(CASES, 'growing-round-breaks-the-library.helb.json'));
  const isThere = async () => {
    await expect(page.getByText('34113.6 mm³')).toBeVisible({ timeout: 30_000 });
    await expect(page.getByText('broke down over this').first()).toBeVisible();
    await expect(page.getByText('"Part 1" is not as it is told: its step "Fillet 1" fails.')).toBeVisible();
  };
  await isThere();
  await page.reload();
  await isThere();
});

test('a value that makes a step fail: lists, motion, sheets and files say so; undone, all is as it was', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newDemo();
  const value = page.getByLabel('Expression of edge distance', { exact: true });
  await page.getByRole('link', { name: 'Values' }).click();
  await value.fill('-3 mm');
  await value.press('Enter');

  // opened anew on this screen: the model is shown as on any other
  await page.getByRole('link', { name: 'Motion' }).click();
  await expect(page).toHaveURL(/motion$/);
  await expect(page.getByText('All kept')).toBeVisible();
  await page.reload();
  const words = '"Bearing bracket" is not as it is told: its step "Foot outline" fails.';
  await expect(page.getByLabel('Desk').getByText(words)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByLabel('Desk').getByText('"Side plate" is not as it is told: it takes from')).toBeVisible();
  await expect(page.getByTestId('whole')).toContainText('300 × 226 × 276 mm');

  await page.getByRole('link', { name: 'Output' }).click();
  await page.getByLabel('Download STL of Bearing bracket').click();
  const asked = page.getByRole('alert').filter({ hasText: words });
  await expect(asked).toBeVisible({ timeout: 30_000 });
  const download = page.waitForEvent('download');
  await asked.getByRole('button', { name: 'write the last that was good all the same' }).click();
  expect((await download).suggestedFilename()).toContain('.stl');
  await expect(asked).toHaveCount(0);

  await page.getByRole('link', { name: 'Sheets' }).click();
  await expect(page.getByLabel('Before it goes out').getByText(words)).toBeVisible({ timeout: 60_000 });

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Before it goes out').getByText(words)).toHaveCount(0, { timeout: 60_000 });
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('tab', { name: 'Parts' }).click();
  await expect(page.getByText('Bearing bracket').first()).toBeVisible();
  await expect(page.getByTestId('part-trouble')).toHaveCount(0);
});

test('areas: what is taken is ticked, the last one may go, one that is gone is dropped', async ({ bench, page }) => {
  await bench.signUp();
  const script = new ProjectScript('Areas').do('part.add', { id: 'part', name: 'Part' });
  const second = Object.fromEntries(
    Object.entries(rectangle(50, 0, 12, 9)).map(([id, entity]) => [
      `q${id}`,
      entity.kind === 'line' ? { ...entity, a: `q${entity.a}`, b: `q${entity.b}` } : entity,
    ]),
  );
  const sketch = {
    kind: 'sketch',
    name: 'Two',
    plane: 'top',
    entities: { ...rectangle(0, 0, 20, 10), ...second },
    relations: {},
  };
  script.do('step.add', { part: 'part', id: 's', step: sketch as Step });
  const key = 'a+ b+ c+ d+';
  const body = { kind: 'extrude', name: 'Body', sketch: 's', areas: [key, 'w+ x+ y+'], distance: '5 mm' };
  script.do('step.add', { part: 'part', id: 'e', step: body as unknown as Step });
  await openFile(page, script.project);

  await expect(page.getByText('1 of the 2 chosen areas is not in the sketch any more').first()).toBeVisible({
    timeout: 30_000,
  });
  await bench.step('Body', 'Change');
  const areas = bench.desk.getByRole('group', { name: 'Areas' });
  await expect(areas).toContainText('one with 3 sides that is gone');
  await expect(areas.getByRole('checkbox').first()).toBeChecked();
  await areas.getByRole('button', { name: 'drop it' }).click();
  await bench.press('Enter');
  await expect(bench.figure('Volume')).toHaveText('1000 mm³');
  await bench.step('Body', 'Change');
  await areas.getByRole('checkbox').first().uncheck();
  await expect(bench.desk).toContainText('No area is chosen');
  await areas.getByRole('checkbox').nth(1).check();
  await bench.press('Enter');
  await expect(bench.figure('Volume')).toHaveText('540 mm³');
});

test('walls that a boss is in the way of: told right after which step they build, and put there', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  const script = new ProjectScript('Tub')
    .do('project.unit', { unit: 'in' })
    .do('part.add', { id: 'part', name: 'Part' });
  const step = (id: string, record: object) =>
    script.do('step.add', { part: 'part', id, step: { name: id.toUpperCase(), ...record } as unknown as Step });
  const end = { to: 'face', name: 'block/end' };
  step('s', { kind: 'sketch', plane: 'top', entities: rectangle(0, 0, 50.8, 25.4), relations: {} });
  step('block', { kind: 'extrude', sketch: 's', distance: '1 in' });
  step('t', { kind: 'sketch', plane: end, entities: rectangle(10, 10, 5, 5), relations: {} });
  step('boss', { kind: 'extrude', sketch: 't', distance: '0.2 in', result: 'add' });
  step('walls', { kind: 'shell', open: [end], wall: '0.1 in' });
  await openFile(page, script.project);
  const told = page.getByRole('alert').filter({ hasText: 'would hang in the air' });
  await expect(told.first()).toContainText(/, at [\d.]+ \/ [\d.]+ \/ [\d.]+ in, .* Right after BLOCK it builds\./, {
    timeout: 30_000,
  });

  // from the list, and from the desk while it is changed
  const puts = [() => Promise.resolve(), () => bench.step('WALLS', 'Change')];
  for (const open of puts) {
    await open();
    await page.getByRole('button', { name: 'put it there' }).click();
    await expect(told).toHaveCount(0);
    await expect(bench.figure('Bodies')).toContainText('2 with');
    // the hollow is 1.8 x 0.8 x 0.9, the boss stands over it
    const left = 2 - 1.8 * 0.8 * 0.9 + (5 / 25.4) ** 2 * 0.2;
    await expect(bench.figure('Volume')).toHaveText(`${left.toFixed(5)} in³`);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(told.first()).toBeVisible();
  }
});
