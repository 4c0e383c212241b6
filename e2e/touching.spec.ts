import type { Page } from '@playwright/test';
import { armAndPost, STANDS } from './arm-and-post.ts';
import { expect, test } from './house.ts';
import { openFile } from './plate.ts';

const reading = async (page: Page): Promise<number> =>
  parseFloat(await page.getByLabel('Drive Hinge turn to').inputValue());
async function drive(page: Page, text: string): Promise<void> {
  await page.getByLabel('Drive Hinge turn to').fill(text);
  await page.getByLabel('Drive Hinge turn to').press('Enter');
}

test('an arm stops where it stands against a post, says so, and that becomes its limit', async ({ page, bench }) => {
  await bench.signUp();
  await openFile(page, armAndPost().project);
  await page.getByRole('link', { name: 'Motion' }).click();
  const contacts = page.getByTestId('contacts');
  await expect(contacts).toContainText('Parts pass through each other');

  // without contact it goes through
  await drive(page, '90');
  await expect.poll(() => reading(page)).toBeCloseTo(90, 1);
  await drive(page, '0');

  await contacts.getByRole('button', { name: 'let everything touch' }).click();
  await expect(contacts.getByRole('checkbox', { name: 'Let everything that can meet touch' })).toBeChecked();
  await expect(contacts).not.toContainText('is made ready');
  await drive(page, '90');
  await expect(page.getByText('It stops: Arm stands against Post.')).toBeVisible();
  expect(await reading(page)).toBeCloseTo(STANDS, 1);

  // the other way there is nothing
  await drive(page, '-60');
  await expect.poll(() => reading(page)).toBeCloseTo(-60, 1);
  await drive(page, '90');
  await contacts.getByRole('button', { name: 'make it the limit' }).click();
  await bench.kept();
  // the limit holds without contact, also over a reload
  await contacts.getByRole('checkbox', { name: 'Let everything that can meet touch' }).uncheck();
  await bench.kept();
  await page.reload();
  await expect(contacts.getByRole('checkbox', { name: 'Let everything that can meet touch' })).not.toBeChecked();
  await drive(page, '90');
  await expect(page.getByText('It stops at its limit.')).toBeVisible();
  expect(await reading(page)).toBeCloseTo(STANDS, 1);
});
