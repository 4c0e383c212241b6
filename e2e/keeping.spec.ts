import { expect, test } from './house.ts';

test('the server is killed while drawing: the page goes on, says so, and sends it when the server is back', async ({
  bench,
  page,
  house,
}) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.kept();
  await house.killServer();
  await bench.chip('distance', '9 mm', 0);
  await expect(page.getByTestId('saved')).toContainText('Your work is safe on this computer');
  await bench.chip('distance', '11 mm', 0);
  await expect(bench.figure('Size')).toContainText('31 mm');
  await house.startServer();
  await bench.kept();
  await page.reload();
  await bench.bodies(1);
  await expect(page.getByTestId('step-Foot plate')).toContainText('11 mm');
  // both changes are in the log, each undone by itself
  await bench.press('Control+z');
  await expect(page.getByTestId('step-Foot plate')).toContainText('9 mm');
});

test('the page is closed while the server is dead: the next visit brings what was not kept', async ({
  bench,
  page,
  house,
}) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.kept();
  const address = page.url();
  await house.killServer();
  await bench.chip('distance', '7 mm', 0);
  await expect(page.getByTestId('saved')).toContainText('safe on this computer');
  await page.close();
  await house.startServer();
  const next = await page.context().newPage();
  await next.goto(address);
  await expect(next.getByTestId('step-Foot plate')).toContainText('7 mm');
  await expect(next.getByTestId('saved')).toContainText('All kept');
  await next.reload();
  await expect(next.getByTestId('step-Foot plate')).toContainText('7 mm');
});

test('two windows on one project: both changes stand', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  const second = await page.context().newPage();
  await second.goto(page.url());
  await expect(second.getByTestId('step-Foot plate')).toBeVisible();
  await bench.chip('distance', '9 mm', 0);
  await bench.kept();
  await second.getByLabel('More for Bore').click();
  await second.getByRole('menuitem', { name: 'Rename' }).click();
  await second.getByLabel('Name of the step', { exact: true }).fill('Through bore');
  await second.getByLabel('Name of the step', { exact: true }).press('Enter');
  await expect(second.getByTestId('saved')).toContainText('All kept');
  await expect(second.getByTestId('step-Foot plate')).toContainText('9 mm');
  await page.reload();
  await expect(page.getByTestId('step-Through bore')).toBeVisible();
});
