import type { Page } from '@playwright/test';
import { expect, test } from './house.ts';

/** Something done in another window. */
async function renameBore(window: Page): Promise<void> {
  await window.getByLabel('More for Bore').click();
  await window.getByRole('menuitem', { name: 'Rename' }).click();
  await window.getByLabel('Name of the step', { exact: true }).fill('Through bore');
  await window.getByLabel('Name of the step', { exact: true }).press('Enter');
}

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

test('the server is away: the shelf says so, and nobody is shown the door', async ({ bench, page }) => {
  await bench.signUp();
  await page.route('**/api/**', (route) => route.abort());
  // the page itself is there still: a phone in a tunnel
  await page.reload();
  await expect(page.getByRole('alert')).toContainText('The server does not answer');
  await expect(page).toHaveURL(/\/$/);
  await page.unroute('**/api/**');
  await page.reload();
  await expect(page.getByRole('region', { name: 'Begin' })).toBeVisible();
});

test('two windows on one project: both changes stand', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  const second = await page.context().newPage();
  await second.goto(page.url());
  await expect(second.getByTestId('step-Foot plate')).toBeVisible();
  await bench.chip('distance', '9 mm', 0);
  await bench.kept();
  await renameBore(second);
  await expect(second.getByTestId('saved')).toContainText('All kept');
  await expect(second.getByTestId('step-Foot plate')).toContainText('9 mm');
  await page.reload();
  await expect(page.getByTestId('step-Through bore')).toBeVisible();
});

test('two windows work cut off and are closed: the next visit brings the work of both', async ({
  bench,
  page,
  house,
}) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.kept();
  const address = page.url();
  const second = await page.context().newPage();
  await second.goto(address);
  await expect(second.getByTestId('step-Foot plate')).toBeVisible();
  await house.killServer();
  await bench.chip('distance', '7 mm', 0);
  await expect(page.getByTestId('saved')).toContainText('safe on this computer');
  await renameBore(second);
  await expect(second.getByTestId('saved')).toContainText('safe on this computer');
  await second.close();
  await page.close();
  await house.startServer();
  const next = await page.context().newPage();
  await next.goto(address);
  await expect(next.getByTestId('step-Foot plate')).toContainText('7 mm');
  await expect(next.getByTestId('step-Through bore')).toBeVisible();
  await expect(next.getByTestId('saved')).toContainText('All kept');
});

test('two windows set one size: both are told both values, an idle one learns of it, and each undoes its own', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.kept();
  const second = await page.context().newPage();
  await second.goto(page.url());
  await expect(second.getByTestId('step-Foot plate')).toBeVisible();
  await bench.chip('distance', '9 mm', 0);
  await bench.kept();
  // nobody has touched the second window
  await expect(second.getByTestId('step-Foot plate')).toContainText('9 mm');
  await renameBore(second);
  await expect(second.getByTestId('saved')).toContainText('All kept');
  await expect(page.getByTestId('step-Through bore')).toBeVisible();
  await page.bringToFront();
  await bench.press('Control+z');
  await expect(page.getByTestId('step-Foot plate')).not.toContainText('9 mm');
  await expect(page.getByTestId('step-Through bore')).toBeVisible();
  await bench.kept();
  // now both at once: the second is cut off while the first sets the size
  await second
    .context()
    .route('**/changes**', (route) => (route.request().frame().page() === second ? route.abort() : route.continue()));
  await second.bringToFront();
  const chip = second
    .getByTestId('step-Foot plate')
    .getByRole('button', { name: /distance/ })
    .first();
  await chip.click();
  await second.keyboard.press('Control+a');
  await second.keyboard.type('13 mm');
  await second.keyboard.press('Enter');
  await expect(second.getByTestId('saved')).toContainText('safe on this computer');
  await page.bringToFront();
  await bench.chip('distance', '11 mm', 0);
  await bench.kept();
  await second.context().unroute('**/changes**');
  await expect(second.getByRole('alert')).toContainText('13 mm here, 11 mm in another window. Yours stands.');
  await expect(page.getByRole('alert')).toContainText('11 mm here, 13 mm in another window. Theirs stands.');
  await page.screenshot({ path: 'test-results/two-windows.png' });
  await page.getByRole('button', { name: 'take 11 mm' }).click();
  await expect(page.getByTestId('step-Foot plate')).toContainText('11 mm');
  await expect(second.getByTestId('step-Foot plate')).toContainText('11 mm');
});

test('a page that is loaded anew right after a change, or after its undoing, has lost neither', async ({
  bench,
  page,
}) => {
  await bench.newSketch();
  await bench.press('o');
  await bench.click(0, 0);
  await bench.move(60, 0);
  await page.keyboard.type('24');
  await bench.press('Enter');
  await bench.kept();
  await bench.press('Escape');
  const size = page.locator('text[data-size]');
  for (const [typed, undone] of [
    ['25', '24'],
    ['26', '24'],
    ['27', '24'],
  ] as const) {
    await size.click();
    await bench.answer(typed);
    await page.reload();
    await expect(size).toHaveText(`⌀${typed}`);
    await bench.press('Control+z');
    await expect(size).toHaveText(`⌀${undone}`);
    await page.reload();
    await expect(size).toHaveText(`⌀${undone}`);
    await bench.settleView();
  }
});
