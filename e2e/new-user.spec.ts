import { readFile } from 'node:fs/promises';
import { stlVolume } from '@helb/core/samples';
import { expect, test } from './house.ts';
import { stepVolume } from './step-volume.ts';

test('a new user: enter, draw, dimension, extrude, cut a hole, name a value, use it twice, change it, undo, redo, reload, export', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newProject();

  // a rectangle about the origin
  await bench.sketchOnTop();
  await bench.press('i');
  await bench.click(0, 0);
  await bench.click(130, 80);
  await expect(bench.title()).toContainText('2 freedoms left');

  // sizes, typed where they stand; the first one names a value, the second uses it
  await bench.press('n');
  await bench.click(60, 80);
  await bench.click(60, 130);
  await bench.answer('width = 60 mm');
  await bench.press('Escape');
  await bench.fit();
  const right = await page
    .locator('[data-entity]')
    .evaluateAll((lines) => Math.max(...lines.map((line) => line.getBoundingClientRect().right)));
  const view = (await page.getByLabel('View', { exact: true }).boundingBox())!;
  const x = right - view.x - view.width / 2;
  await bench.press('n');
  await bench.click(x, 30);
  await bench.click(x + 40, 30);
  await bench.answer('width * 2 / 3');
  await expect(bench.title()).toContainText('settled');
  await expect(page.getByTestId('step-Sketch 1')).toContainText('settled');
  await bench.press('Escape');
  await bench.press('l');

  // extrude
  await bench.press('x');
  await bench.bodies(1);
  await bench.press('Enter');
  await expect(bench.figure('Volume')).toHaveText('24000 mm³');

  // a hole, its diameter from the same value
  await bench.sketchOnTop();
  await bench.press('o');
  await bench.click(0, 0);
  await bench.click(40, 10);
  await bench.press('n');
  await bench.click(40, 10);
  await bench.click(90, 90);
  await bench.answer('width / 5');
  await expect(bench.title()).toContainText('settled');
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await page.getByRole('button', { name: 'result: added' }).last().click();
  await page.getByRole('option', { name: 'cut away' }).click();
  await expect(page.getByRole('button', { name: 'result: cut away' }).last()).not.toBeFocused();
  await bench.press('Enter');
  const volume = (width: number) => (width * ((width * 2) / 3) - (Math.PI * (width / 5) ** 2) / 4) * 10;
  const shown = (width: number) => `${Number(volume(width).toFixed(1))} mm³`;
  await expect(bench.figure('Volume')).toHaveText(shown(60));

  // the value is changed: every size follows
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of width', { exact: true }).fill('75 mm');
  await page.getByLabel('Expression of width', { exact: true }).press('Enter');
  await expect(page.getByRole('cell', { name: '3 sizes' })).toBeVisible();
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(bench.figure('Volume')).toHaveText(shown(75));

  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(bench.figure('Volume')).toHaveText(shown(60));
  await bench.press('Control+Shift+z');
  await expect(bench.figure('Volume')).toHaveText(shown(75));

  // it is all still there after a reload, undo too
  await bench.kept();
  await page.reload();
  await expect(bench.figure('Volume')).toHaveText(shown(75));
  await bench.press('Control+z');
  await expect(bench.figure('Volume')).toHaveText(shown(60));
  await bench.press('Control+Shift+z');
  await expect(bench.figure('Volume')).toHaveText(shown(75));

  // files, measured
  await page.getByRole('link', { name: 'Output' }).click();
  await expect(page.getByRole('note')).toContainText('Guards on');
  const download = async (name: RegExp) => {
    const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name }).click()]);
    return readFile(await file.path());
  };
  expect(await stepVolume(await download(/Download STEP/))).toBeCloseTo(volume(75), 5);
  const stl = stlVolume(await download(/Download STL/))!;
  expect(Math.abs(stl / volume(75) - 1)).toBeLessThan(1e-3);
  const file = JSON.parse((await download(/project file/)).toString()) as { format: string };
  expect(file.format).toBe('helb-project');
});
