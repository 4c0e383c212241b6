import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, test } from './house.ts';

test.beforeEach(async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('link', { name: 'Sheets' }).click();
  await expect(sheet(page)).toHaveAttribute('data-drawn', 'true', { timeout: 60_000 });
});

const sheet = (page: Page) => page.getByLabel('Sheet', { exact: true });
/** The text of a dimension: it is picked and dragged by that. */
const mark = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).locator('> rect');
const findings = (page: Page) => page.getByLabel('Before it goes out');
const picked = (page: Page) => page.getByLabel('What is picked');

async function saved(page: Page, name: string): Promise<string> {
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name, exact: true }).click();
  return (await download).path();
}
/** A new sheet of the bearing, with all of its sizes. */
async function toldBearing(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Remove the sheet Bearing bracket' }).click();
  await page.getByRole('button', { name: 'Draw Bearing bracket' }).click();
  await page.getByRole('button', { name: 'tell all 9 that are missing' }).click();
  await expect(mark(page, 'Diameter ⌀12')).toBeVisible();
}

test('a sheet of the bearing: all sizes are taken over, one is lost, reported, told again, and goes to the shop', async ({
  page,
}) => {
  await toldBearing(page);
  await expect(findings(page)).not.toContainText('Missing');
  await mark(page, 'Distance 72').click();
  await page.keyboard.press('Delete');
  await expect(findings(page)).toContainText('Missing: 72, between two sides of Foot plate.');
  await expect(mark(page, 'Distance 72')).toHaveCount(0);
  await findings(page).getByRole('button', { name: 'show me' }).first().click();
  await findings(page).getByRole('button', { name: 'tell it' }).click();
  await expect(mark(page, 'Distance 72')).toBeVisible();
  await expect(findings(page)).not.toContainText('Missing');
  const words = execFileSync('pdftotext', [await saved(page, 'PDF'), '-'], { encoding: 'utf8' }).split(/\s+/);
  for (const size of ['72', '48', '8.25', '5.5', '24', '12', '28', '8']) expect(words).toContain(size);
  const dxf = await saved(page, 'DXF');
  expect(execFileSync('ezdxf', ['audit', dxf], { encoding: 'utf8' })).toContain('No errors found');
  expect(await readFile(dxf, 'utf8')).toMatch(/\n8\nSIZE\n/);
});

test('a size that drives the model is changed on the sheet; undo takes it back', async ({ page }) => {
  await mark(page, 'Distance 72').click();
  await expect(picked(page)).toContainText('plate length');
  await picked(page).getByRole('button', { name: /72 mm/ }).click();
  await page.keyboard.type('90 mm');
  await page.keyboard.press('Enter');
  await expect(mark(page, 'Distance 90')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(mark(page, 'Distance 72')).toBeVisible();
});

test('a dimension is dragged, given a class of fits, and put back where there is room', async ({ page }) => {
  await expect(mark(page, 'Diameter ⌀12 H7 +0.018/0')).toBeVisible();
  await mark(page, 'Distance 28').click();
  const before = (await mark(page, 'Distance 28').boundingBox())!;
  await page.mouse.move(before.x + 4, before.y + 4);
  await page.mouse.down();
  await page.mouse.move(before.x - 26, before.y + 4, { steps: 5 });
  await page.mouse.up();
  await expect.poll(async () => (await mark(page, 'Distance 28').boundingBox())!.x).toBeLessThan(before.x - 20);
  await picked(page).getByRole('button', { name: 'put where there is room' }).click();
  await expect.poll(async () => (await mark(page, 'Distance 28').boundingBox())!.x).toBeCloseTo(before.x, 0);
  await picked(page).getByRole('button', { name: 'tolerance: as the general ones' }).click();
  await page.getByRole('option', { name: '±' }).click();
  await expect(mark(page, 'Distance 28 ±0.1')).toBeVisible();
  await picked(page).getByLabel('plus and minus').fill('0.2');
  await page.keyboard.press('Enter');
  await expect(mark(page, 'Distance 28 ±0.2')).toBeVisible();
});

test('a dimension is put into another view in which it can be read', async ({ page }) => {
  const [top, cut] = ['from above', 'cut: Through the shaft'];
  const where = async () => JSON.stringify(await mark(page, 'Distance 72').boundingBox());
  const stands = (view: string) => picked(page).getByRole('button', { name: `stands in the view: ${view}` });
  await mark(page, 'Distance 72').click();
  const before = await where();
  await stands(top).click();
  await page.getByRole('option', { name: cut, exact: true }).click();
  await expect(stands(cut)).toBeVisible();
  await expect.poll(where).not.toBe(before);
  await stands(cut).click();
  await page.getByRole('option', { name: top, exact: true }).click();
  await expect.poll(where).toBe(before);
});

test('what is picked offers what can be told of it; said once more it is reported', async ({ page }) => {
  const view = (await page.getByRole('button', { name: 'View from above', exact: true }).boundingBox())!;
  await page.getByRole('button', { name: 'a size', exact: true }).click();
  // the left and the right edge of the plate
  const across = [view.x + 7, view.x + view.width - 7];
  // what lies under the pointer is lit only while something is written; Esc leaves that
  const lit = page.locator('path[stroke="#1f7370"]');
  await page.mouse.move(across[0]!, view.y + view.height / 2 - 24);
  await expect(lit).toHaveCount(1);
  await page.keyboard.press('Escape');
  await expect(lit).toHaveCount(0);
  await page.getByRole('button', { name: 'a size', exact: true }).click();
  for (const x of across) await page.mouse.click(x, view.y + view.height / 2 - 24);
  await page.getByLabel('What it could say').getByRole('button', { name: 'Distance 72' }).click();
  await expect(findings(page)).toContainText('72 is said twice: it follows from 72.');
  await picked(page).getByLabel('in brackets').check();
  await expect(findings(page)).not.toContainText('said twice');
  await expect(mark(page, 'Distance (72)')).toBeVisible();
});

test('notes, surfaces, datum letters and geometrical tolerances point to what is picked', async ({ page }) => {
  const view = (await page.getByRole('button', { name: 'View from above', exact: true }).boundingBox())!;
  const at = [view.x + 7, view.y + view.height / 2 - 24] as const;
  const write = async (what: string) => {
    await page.getByRole('button', { name: what, exact: true }).click();
    await page.mouse.click(...at);
  };
  await write('a note');
  await picked(page).getByLabel('Text of the note').fill('Edges broken');
  await picked(page).getByLabel('Text of the note').blur();
  await expect(mark(page, 'Note Edges broken')).toBeVisible();
  await write('a datum letter');
  await expect(mark(page, 'Datum letter datum A')).toBeVisible();
  await write('a surface');
  await expect(mark(page, 'Surface Ra 3.2')).toBeVisible();
  await write('a geometrical tolerance');
  await picked(page).getByRole('button', { name: 'characteristic: flatness' }).click();
  await page.getByRole('option', { name: 'squareness' }).click();
  await picked(page).getByLabel('Letters of datums').fill('A');
  await page.keyboard.press('Enter');
  await expect(mark(page, 'Geometrical tolerance squareness | 0.1 | A')).toBeVisible();
});
