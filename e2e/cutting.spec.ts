import { readFile } from 'node:fs/promises';
import { unzipSync } from 'fflate';
import type { Page } from '@playwright/test';
import { expect, test } from './house.ts';

async function saved(page: Page, name: string | RegExp): Promise<Buffer> {
  const download = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name }).first().click();
  return readFile(await (await download).path());
}

test('flat faces as they are cut out, all sheets in one zip, and the view as a picture', async ({ page, bench }) => {
  await bench.signUp();
  await bench.newDemo();
  const picture = await saved(page, 'Picture');
  expect(picture.subarray(1, 4).toString()).toBe('PNG');
  expect(picture.readUInt32BE(16)).toBeGreaterThan(1200);
  await page.getByRole('link', { name: 'Output' }).click();
  await page.getByLabel('Width of the cut, mm').fill('-1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('0 to 100');
  await page.getByLabel('Width of the cut, mm').fill('0,2');
  await page.keyboard.press('Enter');
  const plate = (await saved(page, 'Download DXF of the flat face of Side plate')).toString();
  // the bore of 18 mm for the bearing is cut 0.1 mm smaller all round
  expect(plate).toMatch(/CIRCLE[\s\S]*?\n40\n8\.9\n/);
  const sheets = unzipSync(await saved(page, /^sheets/));
  expect(Object.keys(sheets).sort()).toEqual(['bearing-bracket.pdf', 'crank-knob.pdf', 'the-whole.pdf', 'tray.pdf']);
  expect(Buffer.from(sheets['tray.pdf']!).subarray(0, 5).toString()).toBe('%PDF-');
});
