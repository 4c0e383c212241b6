import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { unzipSync } from 'fflate';
import { Secret, TOTP } from 'otpauth';
import { expect, test } from './house.ts';

const OLD = 'long enough pw';
const NEW = 'kettle on seven stairs';

const codeOf = (secret: string, ago = 0) =>
  new TOTP({ secret: Secret.fromBase32(secret), digits: 6, period: 30 }).generate({ timestamp: Date.now() - ago });

async function signIn(page: Page, name: string, password: string): Promise<void> {
  await page.goto('/enter');
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}
const shelf = (page: Page) => expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();

test('a password that is soon guessed is refused at the door, with what would do', async ({ page }) => {
  await page.goto('/enter');
  await page.getByRole('button', { name: 'I am new here' }).click();
  await page.getByLabel('Name').fill('Somebody else');
  await page.getByLabel('Password').fill('password1234');
  await page.getByRole('button', { name: 'Sign up' }).click();
  await expect(page.getByRole('alert')).toHaveText(/^This would be guessed soon/);
});

test('a new password, a second device, one-time codes, everything taken out, and gone', async ({
  bench,
  page,
  browser,
  house,
}) => {
  const name = await bench.signUp();
  const other = await browser.newPage({ baseURL: house.address });
  await signIn(other, name, OLD);
  await shelf(other);

  await page.getByRole('link', { name }).click();
  await expect(page.getByText('since').first()).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  const places = page.getByRole('listitem');
  await expect(places).toHaveCount(2);

  await page.getByRole('button', { name: 'Change the password …' }).click();
  await page.getByLabel('Your password').fill('not this one');
  await page.getByLabel('New password').fill(NEW);
  await page.getByRole('button', { name: 'Change the password', exact: true }).click();
  await expect(page.getByRole('alert')).toHaveText('The password is not right.');
  // what was typed stays
  await page.getByLabel('Your password').fill(OLD);
  await page.getByRole('button', { name: 'Change the password', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('The password is changed');
  await expect(places).toHaveCount(1);
  await other.reload();
  await expect(other).toHaveURL(/\/enter/);

  await page.getByRole('button', { name: 'Ask for codes …' }).click();
  const secret = (await page.locator('code').innerText()).replace(/\s/g, '');
  await page.getByLabel('Your password').fill(NEW);
  await page.getByLabel('Code of now').fill(codeOf(secret, 30_000));
  await page.getByRole('button', { name: 'Ask for codes', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('From now on a code is asked for');

  await signIn(other, name, NEW);
  await other.getByLabel('Code that').fill('000000');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByRole('alert')).toContainText('not the code of now');
  await other.getByLabel('Code that').fill(codeOf(secret));
  await other.getByRole('button', { name: 'Sign in' }).click();
  await shelf(other);
  await other.getByRole('button', { name: 'Another copy of the demo' }).click();
  await expect(other.getByTestId('part-name')).toBeVisible();
  await other.close();

  const downloading = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Take everything out' }).click();
  const zip = unzipSync(await readFile(await (await downloading).path()));
  expect(Object.keys(zip).sort()).toEqual(['001 Seed sieve.zip', 'account.json']);
  // each of it can be imported
  await page.getByRole('link', { name: 'Shelf' }).click();
  await page.locator('input[type=file]').setInputFiles({
    name: 'back.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from(zip['001 Seed sieve.zip']!),
  });
  await expect(page.getByTestId('part-name')).toBeVisible();

  await page.goto('/account');
  await page.getByRole('button', { name: 'Remove the account …' }).click();
  await page.getByLabel('Your password').fill(NEW);
  await page.getByLabel('Code of now').fill(codeOf(secret, -30_000));
  await page.getByRole('button', { name: 'Remove the account', exact: true }).click();
  await expect(page).toHaveURL(/\/enter/);
  await signIn(page, name, NEW);
  await expect(page.getByRole('alert')).toContainText('do not fit together');
});

test('all places are signed out at once, and a word of the administrator lets in again', async ({
  bench,
  page,
  house,
}) => {
  const name = await bench.signUp();
  await page.getByRole('link', { name }).click();
  await page.getByRole('button', { name: /Sign out everywhere/ }).click();
  await expect(page).toHaveURL(/\/enter/);
  await page.getByRole('button', { name: 'I have a word to come back in' }).click();
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Word of whoever').fill('not the word');
  await page.getByLabel('New password').fill(NEW);
  await page.getByRole('button', { name: 'Come back in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not fit together');
  await page.getByLabel('Word of whoever').fill(await house.recovery(name));
  await page.getByRole('button', { name: 'Come back in' }).click();
  await shelf(page);
});
