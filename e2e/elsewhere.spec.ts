import { formatAmount } from '@helb/core';
import { expect, test } from './house.ts';
import { bringPlate } from './plate.ts';

// Parts that are drawn in other projects.

const volume = (wide: number) => `${formatAmount(wide * 40 * 6, 1)} mm³`;

test('a part comes from another project and is given a number; it is taken anew when it has changed there, and stays when that project goes', async ({
  page,
  bench,
}) => {
  test.slow();
  const shelf = () => page.getByRole('link', { name: 'Helb' }).click();
  const parts = page.getByRole('tab', { name: 'Parts' });
  await bench.signUp();
  await bringPlate(page);
  await bench.bodies(1);
  await shelf();
  await bench.newProject();
  const host = page.url();
  await parts.click();
  await page.getByRole('button', { name: '+ from another project' }).click();
  const panel = page.getByRole('region', { name: 'From another project' });
  await panel.getByRole('button', { name: /^Box/ }).click();
  await expect(panel).toContainText('As it is now, revision 0');
  await panel.getByRole('button', { name: 'Bring Plate' }).click();
  await expect(page.getByRole('list', { name: 'Placements' })).toContainText('Plate');
  await expect(page.getByTestId('whole-Size')).toHaveText('60 × 40 × 6 mm');
  await page.getByTitle('Edit Plate').click();
  await expect(bench.figure('Volume')).toHaveText(volume(60));

  // its steps are only told, its value is given
  const sheet = page.getByLabel('A part from another project');
  await expect(sheet).toContainText('Nothing is newer there.');
  await expect(sheet.getByRole('listitem')).toHaveText([/Outline sketch/, /Sheet extrude/]);
  await expect(page.getByTestId('verb-sketch-top')).toHaveCount(0);
  await bench.chip('wide', '50 mm * 2');
  await expect(bench.figure('Volume')).toHaveText(volume(100));
  await bench.chip('wide', '20 deg');
  await expect(page.getByRole('alert').filter({ hasText: 'length' })).toBeVisible();
  await bench.press('Escape');
  await sheet.getByRole('button', { name: 'Leave wide as it is there' }).click();
  await expect(bench.figure('Volume')).toHaveText(volume(60));
  await bench.kept();

  // it is changed where it is drawn
  await sheet.getByRole('link', { name: 'Box' }).click();
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of wide', { exact: true }).fill('75 mm');
  await page.getByLabel('Expression of wide', { exact: true }).press('Enter');
  await bench.kept();
  await page.goto(host);
  await parts.click();
  await expect(page.getByRole('list', { name: 'Parts of the project' })).toContainText('newer');
  await page.getByTitle('Edit Plate').click();
  await expect(bench.figure('Volume')).toHaveText(volume(60));
  await expect(sheet.getByRole('status')).toContainText('wide: 75 mm instead of 60 mm');
  await sheet.getByRole('button', { name: 'Take revision 1' }).click();
  await expect(bench.figure('Volume')).toHaveText(volume(75));
  await expect(sheet).toContainText('Nothing is newer there.');
  await bench.press('Control+z');
  await expect(bench.figure('Volume')).toHaveText(volume(60));
  await bench.press('Control+y');
  await expect(bench.figure('Volume')).toHaveText(volume(75));
  await bench.kept();

  // the other project goes: the part stays
  await shelf();
  const card = page.getByRole('listitem').filter({ hasText: 'Box' });
  await card.getByRole('button', { name: 'remove…' }).click();
  await card.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(card).toHaveCount(0);
  await page.goto(host);
  await parts.click();
  await expect(page.getByRole('list', { name: 'Parts of the project' })).toContainText('source gone');
  await page.getByTitle('Edit Plate').click();
  await expect(sheet).toContainText('This project is not on your shelf any more. The part stays here as it was.');
  await expect(bench.figure('Volume')).toHaveText(volume(75));
});
