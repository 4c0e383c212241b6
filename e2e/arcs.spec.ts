import { expect, test } from './house.ts';

test('a plate with one round end: a chain with a tangent arc, settled by two sizes, extruded to the exact volume', async ({
  bench,
  page,
}) => {
  await bench.newSketch();
  await bench.press('k');
  await bench.click(0, 0);
  await bench.click(120, 0);
  await bench.press('t');
  await expect(page.getByTestId('hint')).toContainText('T: a line next');
  await bench.move(120, -120);
  await expect(page.locator('.guess text').last()).toHaveText('T');
  await bench.click(120, -120);
  await bench.click(0, -120);
  await bench.click(0, 0);
  await expect(page.getByTestId('region')).toHaveCount(1);
  await bench.press('Escape');
  await expect(bench.title()).toContainText('2 freedoms left');

  // the radius of the round end, by its verb
  await bench.click(180, -60);
  await page.getByTestId('verb-radius').click();
  await bench.answer('15 mm');
  await bench.press('Escape');
  await bench.fit();

  // the length of the lower side
  const lines = await page
    .locator('[data-entity]')
    .evaluateAll((all) =>
      all
        .map((line) => line.getBoundingClientRect())
        .map(({ left, right, top, bottom }) => ({ left, right, top, bottom })),
    );
  const lower = lines.filter((r) => r.bottom - r.top < 3).sort((a, b) => b.top - a.top)[0]!;
  const view = (await page.getByLabel('View', { exact: true }).boundingBox())!;
  const y = view.y + view.height / 2 - (lower.top + lower.bottom) / 2;
  const x = (lower.left + lower.right) / 2 - view.x - view.width / 2 + 12;
  await bench.press('n');
  await bench.click(x, y);
  await bench.click(x, y - 50);
  await bench.answer('40 mm');
  await expect(bench.title()).toContainText('settled');
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await bench.bodies(1);
  await bench.press('Enter');
  const volume = (40 * 30 + (Math.PI * 15 ** 2) / 2) * 10;
  await expect(bench.figure('Volume')).toHaveText(`${Number(volume.toFixed(1))} mm³`);
});
