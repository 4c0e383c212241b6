import { expect, test } from './house.ts';

const volumeShown = async (text: Promise<string | null>) => Number.parseFloat((await text) ?? '');

test('edges are taken by a rule: what an early sketch gets later is rounded too', async ({ bench, page }) => {
  await bench.newSketch();
  await bench.press('k');
  for (const [x, y] of [
    [-150, -100],
    [150, -100],
    [150, 100],
    [-150, 100],
    [-150, -100],
  ] as const)
    await bench.click(x, y);
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await bench.press('Enter');
  await bench.bodies(1);
  await bench.chip('distance', '20 mm');
  await bench.fit();

  // the upright edge in front
  await bench.press('u');
  await bench.click(-107, -103);
  await expect(bench.desk).toContainText('Round an edge of Extrusion 1');
  await page.getByTestId('wider').getByRole('button', { name: 'all edges between sides of Extrusion 1' }).click();
  await bench.press('Enter');
  await expect(page.getByTestId('step-Fillet 1')).toContainText('all edges between sides of Extrusion 1');
  await expect(bench.figure('Bodies')).toHaveText('1 with 10 faces');

  // the line on the right becomes two that meet further out: five upright edges, all of them rounded
  await bench.turning(() => bench.step('Sketch 1', 'Open sketch'));
  const boxes = await page
    .locator('[data-entity^="l"]')
    .evaluateAll((lines) => lines.map((line) => line.getBoundingClientRect().toJSON() as DOMRect));
  const right = boxes.reduce((a, b) => (b.x + b.width / 2 > a.x + a.width / 2 ? b : a));
  const x = right.x + right.width / 2;
  const [top, bottom] = [right.y, right.y + right.height];
  await page.mouse.click(x, (top + bottom) / 2);
  await bench.press('Delete');
  await bench.press('k');
  for (const [to, y] of [
    [x, top],
    [x + 70, (top + bottom) / 2 + 11],
    [x, bottom],
  ] as const) {
    await page.mouse.move(to, y, { steps: 3 });
    await page.mouse.click(to, y);
  }
  await bench.press('Escape');
  await expect(bench.desk).toContainText('1 closed area');
  await page.getByTestId('verb-done').click();
  await expect(bench.figure('Bodies')).toHaveText('1 with 12 faces');
  await expect(page.getByTestId('unsure')).toHaveCount(0);
});

test('a gap, walls along lines, another body left alone while it is not shown, a section, hidden lines, a material', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newDemo();
  // the front edge of the plate and the rim of the boss: 12 mm apart seen from above, 20 mm in height
  await bench.click(90, -92);
  await page.keyboard.down('Shift');
  await bench.click(-10, 118);
  await page.keyboard.up('Shift');
  await expect(page.getByTestId('reading-smallest gap')).toHaveText(`${Math.hypot(12, 20).toFixed(3)} mm`);
  await bench.press('Escape');

  await page.getByLabel('Material').selectOption('Brass CW614N');
  await expect(page.getByTestId('density')).toContainText('8470 kg/m³, EN 1991-1-1');
  // what it weighs comes with the next build
  const density = async () =>
    (await volumeShown(bench.figure('Mass').textContent())) / (await volumeShown(bench.figure('Volume').textContent()));
  await expect.poll(density).toBeCloseTo(8470e-6, 5);
  await expect(bench.figure('I xx yy zz')).toBeVisible();

  // thin frames round the outline and its four holes as bodies of their own, beside what was there
  await bench.step('Foot outline', 'Extrude');
  const said = async (label: string, word: string) => {
    await bench.desk.getByRole('button', { name: new RegExp(`^${label}`) }).click();
    await page.getByRole('option', { name: word, exact: true }).click();
  };
  await said('result', 'new body');
  await said('body', 'as thin walls');
  await said('walls lie', 'outside (right of) the lines');
  await bench.press('Enter');
  await bench.bodies(6);
  const bodies = page.getByTestId('bodies');
  await expect(bodies).toContainText('Foot plate');

  // what is not shown is not cut
  await bodies.getByRole('checkbox').nth(1).uncheck();
  await expect(bodies).toContainText('New steps leave alone what is not shown.');

  const sections = page.getByTestId('sections');
  // the one that is on its sheet
  await sections.getByRole('button', { name: 'remove' }).click();
  await expect(sections).toHaveCount(0);
  await bench.press('i');
  await expect(sections).toContainText('cut 0 mm off Right');
  await bench.chip('offset', '12 mm');
  await sections.getByLabel('Name of Section 1', { exact: true }).fill('Through the screws');
  await sections.getByLabel('Name of Section 1', { exact: true }).press('Enter');
  await expect(sections.getByLabel('Cut open at Through the screws')).toBeChecked();
  await sections.getByLabel('Cut open at Through the screws').uncheck();
  await bench.kept();
  await page.reload();
  await bench.bodies(6);
  await expect(page.getByTestId('sections').getByLabel('Name of Through the screws', { exact: true })).toBeVisible();
  await page.getByTestId('sections').getByRole('button', { name: 'remove' }).click();
  await expect(page.getByTestId('sections')).toHaveCount(0);
});
