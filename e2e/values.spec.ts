import { readFile } from 'node:fs/promises';
import { expect, test, type Bench } from './house.ts';

test.beforeEach(async ({ bench }) => {
  await bench.signUp();
  await bench.newDemo();
});

const values = (bench: Bench) => bench.page.getByRole('link', { name: 'Values' }).click();
const toBench = (bench: Bench) => bench.page.getByRole('link', { name: 'Bench' }).click();
const cell = (bench: Bench, label: string) => bench.page.getByLabel(label, { exact: true });

async function type(bench: Bench, label: string, text: string): Promise<void> {
  await cell(bench, label).fill(text);
  await cell(bench, label).press('Enter');
}

test('variants side by side: switched in a moment, a step left out of one, weighed together', async ({
  bench,
  page,
}) => {
  await values(bench);
  await type(bench, 'Expression of plate length in table', '60 mm');
  await expect(cell(bench, 'Expression of plate width in table')).toHaveAttribute('title', 'comes to 40 mm');
  await page.getByRole('button', { name: 'Show table' }).click();
  await toBench(bench);
  await expect(bench.figure('Size')).toHaveText('60 × 40 × 28 mm');
  await bench.step('Boss body', 'Leave out');
  await expect(bench.figure('Size')).toHaveText('60 × 40 × 8 mm');
  await page.getByRole('button', { name: 'variant: table' }).click();
  await page.getByRole('option', { name: 'bench' }).click();
  await expect(bench.figure('Size')).toHaveText('72 × 48 × 28 mm');
  // a new one like that which is shown; it stays chosen over a reload
  await values(bench);
  await page.getByRole('button', { name: 'Show table' }).click();
  await page.getByLabel('Name of the new variant').fill('travel');
  await page.getByLabel('Name of the new variant').press('Enter');
  await page.getByRole('button', { name: 'Show travel' }).click();
  await expect(cell(bench, 'Expression of plate length in travel')).toHaveValue('60 mm');
  await bench.kept();
  await page.reload();
  await expect(page.getByRole('button', { name: 'variant: travel' })).toBeVisible();
  await page.getByRole('button', { name: 'weigh and measure' }).click();
  const line = page.getByRole('row', { name: /size of Bearing bracket/ });
  await expect(line).toContainText('72 × 48 × 28 mm', { timeout: 90_000 });
  await expect(line.getByText('60 × 40 × 8 mm')).toHaveCount(2, { timeout: 60_000 });
  await page.getByRole('button', { name: 'remove the variant travel' }).click();
  await expect(page.getByRole('button', { name: 'variant: bench' })).toBeVisible();
});

test('a number without a name is found by clicking the geometry, or in the table, and named there', async ({
  bench,
  page,
}) => {
  await bench.click(90, -92);
  const numbers = page.getByTestId('picked-numbers');
  await expect(numbers).toContainText('Foot plate · distance');
  await numbers.getByRole('button', { name: 'Foot plate · distance: plate thickness' }).click();
  await page.getByRole('textbox', { name: 'Foot plate · distance' }).fill('foot = 10 mm');
  await page.getByRole('textbox', { name: 'Foot plate · distance' }).press('Enter');
  await expect(bench.figure('Size')).toHaveText('72 × 48 × 30 mm');
  await values(bench);
  await expect(cell(bench, 'Expression of foot')).toHaveValue('10 mm');

  const table = page.getByTestId('numbers');
  await page.getByLabel('Filter values').fill('turns');
  await table.getByRole('button', { name: 'Expression of Spout · Thread · turns: 3' }).focus();
  await page.getByLabel('Name for this number').fill('thread turns');
  await page.getByRole('button', { name: 'Name it' }).click();
  await page.getByLabel('Filter values').fill('thread turns');
  await expect(cell(bench, 'Expression of thread turns')).toHaveValue('3');
  await expect(page.getByTestId('value-desk')).toContainText('Spout · Thread · turns');
  // one gesture, undone as one
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(bench, 'Expression of thread turns')).toHaveCount(0);
  await page.getByLabel('Filter values').fill('turns');
  await table.getByRole('button', { name: 'Show Spout · Thread · turns' }).click();
  await expect(page.getByTestId('part-name')).toHaveText('Spout');
});

test('what a value may come to, its group and its place', async ({ bench, page }) => {
  await values(bench);
  await type(bench, 'Expression of plate thickness', '9 mm');
  const row = page.getByTestId('value-plate thickness');
  await expect(row).toContainText('plate thickness comes to 9 mm, and it may be one of 6 mm, 8 mm, 10 mm.');
  await type(bench, 'Allowed for plate thickness', '8 mm; 9 mm');
  await expect(row).toContainText('one of 8 mm, 9 mm');
  await expect(row).not.toContainText('comes to 9 mm');
  await type(bench, 'Group of plate thickness', 'Offcuts');
  await expect(
    page.getByRole('rowheader', { name: 'Offcuts' }).or(page.getByRole('columnheader', { name: 'Offcuts' })),
  ).toBeVisible();
  await bench.page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Offcuts', { exact: true })).toHaveCount(0);
});

test('a round trip through a spreadsheet, with what was changed on both sides told', async ({ bench, page }) => {
  await values(bench);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'to CSV' }).click();
  const written = await readFile(await (await download).path(), 'utf8');
  expect(written).toContain('plate length,72 mm,72 mm,foot of the bracket,Bearing,66 mm,,72 mm,66 mm,');
  // changed there: two; changed here meanwhile: one of them
  const back = written.replace('plate length,72 mm', 'plate length,80 mm').replace('shaft,12 mm', 'shaft,14 mm');
  await type(bench, 'Expression of shaft', '13 mm');
  const bring = (text: string) =>
    page
      .getByLabel('Values from CSV')
      .setInputFiles({ name: 'back.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await bring(back);
  const changes = page.getByTestId('table-changes');
  await expect(changes.getByRole('checkbox')).toHaveCount(2);
  await expect(changes).toContainText('changed here and there');
  await changes.getByRole('button', { name: 'Take over 1' }).click();
  await expect(changes).toHaveCount(0);
  await expect(cell(bench, 'Expression of plate length')).toHaveValue('80 mm');
  await expect(cell(bench, 'Expression of shaft')).toHaveValue('13 mm');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(cell(bench, 'Expression of plate length')).toHaveValue('72 mm');
  await bring('no,table\n1,2\n');
  await expect(page.getByRole('alert')).toContainText('This is no table of values');
});
