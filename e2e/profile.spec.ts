import { expect, test } from './house.ts';

/** The freedoms that the desk tells. */
const free = /What is still free/;

test('a real profile: drawn with a gap, mended, settled by the list, fought over, edited, driven by a value', async ({
  page,
  bench,
}) => {
  test.setTimeout(120_000);
  const { desk } = bench;
  await bench.newSketch();

  // seven lines and an arc, without changing the tool; the last end misses the first by a little
  await bench.press('k');
  await bench.click(-220, -80);
  await bench.click(120, -80);
  await bench.click(120, 40);
  await bench.press('t');
  await bench.click(20, 140);
  await bench.click(-100, 140);
  await bench.click(-100, 60);
  await bench.click(-220, 60);
  await page.keyboard.down('q');
  await bench.click(-214, -66);
  await page.keyboard.up('q');
  await bench.press('Escape');
  await bench.press('Escape');
  await expect(desk).toContainText('gap of');
  await desk.getByRole('button', { name: 'join' }).click();
  await expect(desk).not.toContainText('gap of');
  await expect(desk).toContainText('1 closed area');

  // a hole, mirrored and repeated later
  await bench.press('o');
  await bench.click(-160, -30);
  await bench.click(-145, -30);
  await bench.press('Escape');

  // one freedom is played and held, the others are settled together, after a look
  await desk.getByRole('button', { name: 'play' }).first().click();
  await expect(desk.getByRole('button', { name: 'stop' })).toHaveCount(1);
  const before = Number(await desk.getByRole('heading', { name: free }).locator('span').textContent());
  await desk.getByTestId('cure').first().click();
  await expect(desk.getByRole('heading', { name: free }).locator('span')).toHaveText(`${before - 1}`);
  await desk.getByRole('button', { name: 'Settle the rest' }).click();
  await expect(desk).toContainText('This would settle it');
  await desk.getByRole('button', { name: 'Accept' }).click();
  await expect(bench.title()).toContainText('settled');

  // one size too many: the fighting ones are named, and one of them may only tell its measure
  await bench.fit();
  const first = page.locator('[data-size]').first();
  await first.scrollIntoViewIfNeeded();
  const line = page.locator('[data-entity^="l"]').first();
  await line.hover({ force: true });
  const box = (await line.boundingBox())!;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await bench.press('n');
  await page.mouse.click(box.x + box.width / 2, box.y + 60);
  await bench.answer('333 mm');
  await expect(desk).toContainText("can't hold together");
  await desk.getByRole('button', { name: 'make it measuring' }).last().click();
  await expect(desk).not.toContainText("can't hold together");
  await expect(bench.title()).toContainText('settled');
  await bench.verb('Close sketch');
  await bench.bodies(0);
});

test('round, offset, trim, mirror and pattern by hand; a value drives them; the numbers come out', async ({
  page,
  bench,
}) => {
  test.setTimeout(120_000);
  const { desk } = bench;
  const entities = (kind: string) => page.locator(`[data-entity^="${kind}"]`);
  await bench.newSketch();
  // pixels for a millimetre at the first view of a new sketch
  const mm = 200 / 58.78;

  // a plate about the origin, its width a named value
  await bench.press('i');
  await bench.click(0, 0);
  await bench.click(160, 110);
  await bench.press('Escape');
  await bench.click(60, -110);
  await bench.press('n');
  await bench.click(60, -150);
  await bench.answer('width = 60 mm');
  await bench.press('Escape');
  await bench.click(30 * mm, 40);
  await bench.press('n');
  await bench.click(30 * mm + 50, 40);
  await bench.answer('40 mm');
  await bench.press('Escape');
  await expect(bench.title()).toContainText('settled');

  // all corners rounded by one radius, an inner loop beside the outline
  await bench.drag([-35 * mm, -25 * mm], [35 * mm, 25 * mm]);
  await bench.press('1');
  await bench.answer('5 mm', 'Radius');
  await expect(entities('a')).toHaveCount(4);
  await bench.press('Escape');
  await bench.verb('Offset');
  await bench.click(10 * mm, -20 * mm);
  await bench.click(10 * mm, -16.5 * mm);
  await bench.answer('4 mm', 'Offset distance');
  await expect(entities('a')).toHaveCount(8);
  await bench.press('Escape');
  await expect(desk).toContainText('2 closed areas, 1 opening inside');
  await expect(bench.title()).toContainText('settled');

  // the ring extruded; the value changed in the table of values, everything follows
  await bench.verb('Close sketch');
  await bench.press('x');
  await bench.bodies(1);
  await bench.press('Enter');
  const corners = (4 - Math.PI) * (25 - 1);
  const ring = (width: number) => (width * 40 - (width - 8) * 32 - corners) * 10;
  const shown = (width: number) => `${Number(ring(width).toFixed(1))} mm³`;
  await expect(bench.figure('Volume')).toHaveText(shown(60));
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of width', { exact: true }).fill('90 mm');
  await page.getByLabel('Expression of width', { exact: true }).press('Enter');
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(bench.figure('Volume')).toHaveText(shown(90));
});

test('mirror, trim and pattern by hand', async ({ page, bench }) => {
  test.setTimeout(90_000);
  const { desk } = bench;
  const circles = page.locator('[data-entity^="c"]');
  await bench.newSketch();
  const mm = 200 / 58.78;
  await bench.press('i');
  await bench.click(0, 0);
  await bench.click(30 * mm, 20 * mm);
  await bench.press('Escape');

  // a hole, mirrored in an upright line through the origin, which is erased when it has done its work
  await bench.press('o');
  await bench.click(15 * mm, 8 * mm);
  await bench.click(18 * mm, 8 * mm);
  await bench.press('Escape');
  await bench.press('k');
  await bench.click(0, 6 * mm);
  await bench.click(0, -10 * mm);
  await bench.press('Escape');
  await bench.press('Escape');
  await bench.click(18 * mm, 8 * mm);
  await page.keyboard.down('Shift');
  await bench.click(0, -6 * mm);
  await page.keyboard.up('Shift');
  await bench.press('3');
  await expect(circles).toHaveCount(2);
  await bench.press('Escape');
  await bench.click(0, -6 * mm);
  await bench.press('Delete');
  await expect(circles).toHaveCount(2);

  // a line that overruns the edge is told; what is too much of it is trimmed, then the rest
  await page.keyboard.down('q');
  await bench.press('k');
  await bench.click(-8 * mm, -22 * mm);
  await bench.click(-8 * mm, -12 * mm);
  await page.keyboard.up('q');
  await bench.press('Escape');
  await bench.press('Escape');
  await expect(desk).toContainText('runs');
  await bench.press('t');
  await bench.click(-8 * mm, -21.2 * mm);
  await bench.click(-8 * mm, -15 * mm);
  await bench.press('Escape');
  await expect(desk).not.toContainText('open end');
  await expect(desk).toContainText('3 closed areas, 2 openings inside');

  // the left hole repeated along the lower edge; count and spacing are dimensions
  await bench.click(-18 * mm, 8 * mm);
  await page.keyboard.down('Shift');
  await bench.click(10 * mm, -20 * mm);
  await page.keyboard.up('Shift');
  await bench.press('4');
  await bench.chip('pattern spacing', '9 mm');
  await bench.chip('pattern count', '2');
  await expect(desk).toContainText('4 closed areas, 3 openings inside');
  await bench.chip('pattern count', '1.5');
  await expect(page.getByText('not a whole number').first()).toBeVisible();
});
