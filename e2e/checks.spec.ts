import { expect, test } from './house.ts';

test('what is found in the project, where it is, and told at once; limits are set', async ({ page, bench }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: 'Distance 72', exact: true }).locator('> rect').click({ timeout: 60_000 });
  await page.keyboard.press('Delete');
  await page.getByRole('link', { name: 'Checks' }).click();
  const paper = page.getByLabel('Drawings are not ready');
  await expect(paper).toContainText('Missing: 72, between two sides of Foot plate.', { timeout: 60_000 });
  await paper.getByRole('button', { name: 'tell it' }).click();
  await expect(paper).toHaveCount(0);

  const shop = page.getByLabel('Not to be made as it is');
  await expect(shop.getByRole('listitem').filter({ hasText: 'Crank arm' })).toContainText('hole of ⌀12 mm: 5 mm');
  await page.getByRole('button', { name: /^left beside holes/ }).click();
  await page.keyboard.type('0.3');
  await page.keyboard.press('Enter');
  await expect(page.getByText('has changed since')).toBeVisible();
  await page.getByRole('button', { name: 'look through it again' }).click();
  await expect(shop).toHaveCount(0);

  const later = page.getByLabel('Hard to change later').getByRole('listitem').filter({ hasText: 'Tray' });
  await later.getByRole('button', { name: 'show me' }).click();
  await expect(page.getByTestId('numbers')).toContainText('Tray');
  await expect(page.getByTestId('numbers')).not.toContainText('Spout');
});

test('a sheet goes out; what has changed since is told', async ({ page, bench }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('link', { name: 'Sheets' }).click();
  const revisions = page.getByLabel('Revisions');
  await expect(page.getByRole('button', { name: 'Distance 72', exact: true })).toBeVisible({ timeout: 60_000 });
  await revisions.getByLabel('What is new in it').fill('for the first bracket');
  await revisions.getByRole('button', { name: 'goes out' }).click();
  await expect(revisions).toContainText('Nothing has changed since.');
  await expect(page.getByLabel('Sheet', { exact: true }).getByText('for the first bracket')).toBeVisible();
  await page.getByRole('button', { name: 'Distance 72', exact: true }).locator('> rect').click();
  await page.getByLabel('What is picked').getByRole('button', { name: /72 mm/ }).click();
  await page.keyboard.type('76 mm');
  await page.keyboard.press('Enter');
  await expect(revisions).toContainText('72 is 76 now.');
  await revisions.getByRole('button', { name: 'goes out' }).click();
  await expect(revisions).toContainText('Went out as B');
  await expect(revisions).toContainText('Nothing has changed since.');
});
