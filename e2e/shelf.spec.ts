import type { Page } from '@playwright/test';
import { expect, test } from './house.ts';

const card = (page: Page, name: string) => page.getByRole('listitem', { name, exact: true });
const folder = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Folders' }).getByRole('link', { name: new RegExp(`^${name} \\d+$`) });
async function verb(page: Page, of: string, title: string): Promise<void> {
  await page.getByRole('button', { name: `More for ${of}`, exact: true }).click();
  await page.getByRole('menuitem', { name: title }).click();
}
async function named(page: Page, before: string, after: string): Promise<void> {
  await verb(page, before, 'Rename');
  await page.getByLabel('Name of the project').fill(after);
  await page.keyboard.press('Enter');
  await expect(card(page, after)).toBeVisible();
}

test('an empty shelf begins well; projects are called otherwise, duplicated, put into folders, found and sorted', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await page.getByRole('region', { name: 'Begin' }).getByRole('button', { name: 'Draw a part' }).click();
  await expect(page.getByText('No steps yet')).toBeVisible();
  await page.getByRole('link', { name: 'Helb' }).click();
  await named(page, 'New project', 'Flower press');
  // Esc leaves the name as it is
  await verb(page, 'Flower press', 'Rename');
  await page.getByLabel('Name of the project').fill('Something else');
  await page.keyboard.press('Escape');
  await verb(page, 'Flower press', 'Duplicate');
  await expect(card(page, 'Flower press, copy')).toBeVisible();
  await named(page, 'Flower press, copy', 'Drying rack');
  await verb(page, 'Drying rack', 'Put into a folder');
  await page.getByLabel('Folder', { exact: true }).fill('Garden');
  await page.keyboard.press('Enter');
  await expect(card(page, 'Drying rack')).toContainText('in Garden');
  await folder(page, 'Garden').click();
  await expect(page.getByRole('main').getByRole('listitem')).toHaveCount(1);
  // where one looked is where one looks after a reload
  await page.reload();
  await expect(folder(page, 'Garden')).toHaveAttribute('aria-current', 'true');
  await expect(page.getByRole('main').getByRole('listitem')).toHaveCount(1);
  await folder(page, 'All').click();
  await page.getByRole('button', { name: 'order: the latest first' }).click();
  await page.getByRole('option', { name: 'by name' }).click();
  await expect(page.getByRole('main').getByRole('listitem')).toContainText(['Drying rack', 'Flower press']);
  await page.getByLabel('Find a project').fill('PRESS');
  await expect(page.getByRole('main').getByRole('listitem')).toContainText(['Flower press']);
  await page.getByLabel('Find a project').fill('boat');
  await expect(page.getByText('Nothing here is called “boat”.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  // the name that it has on the shelf is the name that it has within, where the change can be undone
  await page.getByRole('link', { name: 'Drying rack', exact: true }).click();
  await expect(page.getByText('No steps yet')).toBeVisible();
  await expect(page.getByRole('banner')).toContainText('Drying rack');
});

test('what is thrown away comes back, or goes for good; its own page says what has become of it', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newProject();
  const address = page.url();
  await page.getByRole('link', { name: 'Helb' }).click();
  await verb(page, 'New project', 'Throw away');
  await expect(card(page, 'New project')).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(card(page, 'New project')).toBeVisible();
  await verb(page, 'New project', 'Throw away');
  await expect(card(page, 'New project')).toHaveCount(0);
  await page.goto(address);
  await expect(
    page.getByText('"New project" was thrown away. Take it back from the shelf to go on with it.'),
  ).toBeVisible();
  await page.goto('/?pile=thrown');
  await expect(card(page, 'New project')).toContainText('kept until');
  await card(page, 'New project').getByRole('button', { name: 'remove for good…' }).click();
  await card(page, 'New project').getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(card(page, 'New project')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Begin' })).toBeVisible();
});
