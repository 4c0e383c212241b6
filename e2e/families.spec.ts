import { expect, test, type Bench } from './house.ts';

const onPlane = (bench: Bench, plane: string) => () => bench.page.getByTestId(`verb-sketch-${plane}`).click();

/** A circle by its diameter, about the origin or so far from it; the bench is left in the view of the part. */
async function circle(bench: Bench, open: () => Promise<void>, diameter: string, away?: string): Promise<void> {
  const at = away === undefined ? 0 : 120;
  await bench.turning(open);
  await expect(bench.canvas).toBeVisible();
  await bench.press('o');
  await bench.click(at, 0);
  await bench.click(at + 60, 0);
  await bench.press('Escape');
  await bench.press('n');
  await bench.click(at, 60);
  await bench.click(at + 60, 90);
  await bench.answer(diameter);
  if (away !== undefined) {
    await bench.click(0, 0);
    await bench.click(at, 0);
    await bench.click(at / 2, -60);
    await bench.answer(away);
  }
  await expect(bench.title()).toContainText('settled');
  await bench.press('Escape');
  await bench.turning(() => bench.press('l'));
}

const volume = (bench: Bench) =>
  expect.poll(async () => Number.parseFloat((await bench.figure('Volume').textContent()) ?? ''));

test.beforeEach(async ({ bench }) => {
  await bench.signUp();
  await bench.newProject();
});

test('a ring is turned about an axis that is picked, and its sketch changed afterwards', async ({ bench, page }) => {
  await circle(bench, onPlane(bench, 'front'), '10 mm', '30 mm');
  await bench.press('v');
  await bench.desk.getByText('none chosen').click();
  await bench.click(0, 100);
  await bench.press('Enter');
  const torus = (r: number, d: number) => 2 * Math.PI * r * ((Math.PI * d * d) / 4);
  await volume(bench).toBeCloseTo(torus(30, 10), 0);
  await page.getByTestId('step-Revolution 1').getByRole('button', { name: 'angle: 360 deg' }).click();
  await page.getByRole('textbox', { name: 'angle' }).fill('90 deg');
  await page.getByRole('textbox', { name: 'angle' }).press('Enter');
  await volume(bench).toBeCloseTo(torus(30, 10) / 4, 0);
});

test('a spring is swept along a helix; a number of an earlier step is changed while it is made', async ({
  bench,
  page,
}) => {
  await bench.verb('Helix curve');
  await page.getByText('the z axis').waitFor();
  await bench.click(0, 100);
  await bench.press('Enter');
  await bench.chip('radius', '20 mm');
  await circle(bench, onPlane(bench, 'front'), '4 mm', '20 mm');
  await bench.press('w');
  await expect(bench.desk).toContainText('Click an edge or a drawn curve.');
  // the step in the making stays in sight
  await bench.chip('pitch', '8 mm');
  await expect(page.getByTestId('step-Sweep 1')).toBeVisible();
  await bench.click(-85, 12);
  await expect(bench.desk).toContainText('Helix curve 1');
  await bench.press('Enter');
  await bench.bodies(1);
  const spring = 4 * 2 * Math.PI * 20 * Math.PI * 4;
  await volume(bench).toBeGreaterThan(spring * 0.998);
  await volume(bench).toBeLessThan(spring * 1.002);
});

test('a cone between two circles, hollowed, its walls looked at; its foot grows', async ({ bench, page }) => {
  await circle(bench, onPlane(bench, 'top'), '40 mm');
  await bench.verb('Datum plane');
  // the border of Top
  await page.getByRole('button', { name: 'Top', exact: true }).last().waitFor();
  await bench.click(-213, 54);
  await bench.press('Enter');
  await bench.chip('offset', '30 mm');
  await circle(bench, () => bench.step('Plane 1', 'Sketch on it'), '20 mm');
  await bench.press('l');
  // the sketches that wait are taken; what lacks its sections is not kept
  for (const sketch of ['Sketch 1', 'Sketch 2']) await bench.desk.getByLabel(sketch).uncheck();
  await bench.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Choose at least one step for the sections');
  for (const sketch of ['Sketch 1', 'Sketch 2']) await bench.desk.getByLabel(sketch).check();
  await bench.press('Enter');
  await bench.bodies(1);
  const cone = (r: number, s: number) => (Math.PI * 30 * (r * r + r * s + s * s)) / 3;
  await volume(bench).toBeCloseTo(cone(20, 10), 0);

  // open at its top
  await bench.fit();
  await bench.press('e');
  await bench.click(0, 110);
  await expect(bench.desk).toContainText('Shell, open at the end of Loft 1');
  await bench.press('Enter');
  const level = 2 * Math.hypot(1, 1 / 3);
  const cut = (r: number, s: number, h: number) => (Math.PI * h * (r * r + r * s + s * s)) / 3;
  const inside = cut(20 - level, 10 - level, 30) - cut(20 - level, 20 - level - 2 / 3, 2);
  await volume(bench).toBeCloseTo(cone(20, 10) - inside, 0);
  await page.getByRole('button', { name: /^look/ }).click();
  await page.getByRole('option', { name: 'Wall thickness' }).click();
  await expect(page.getByTestId('paint-legend')).toContainText(/thinnest about\s*(1\.9|2)\d* mm/);

  // the foot grows, and all that was built on it follows
  await bench.turning(() => bench.step('Sketch 1', 'Open sketch'));
  await bench.chip('diameter 1', '50 mm');
  await bench.turning(() => page.getByTestId('verb-done').click());
  await expect(bench.figure('Size')).toContainText('50 × 50 × 30 mm');
  await expect(page.getByTestId('paint-legend')).toContainText(/thinnest about\s*(1\.9|2)\d* mm/);
  await expect(page.getByTestId('unsure')).toHaveCount(0);
});

test('a loft is begun at corners that are chosen: other ones turn it on its way', async ({ bench, page }) => {
  const square = async (open: () => Promise<void>) => {
    await bench.turning(open);
    await bench.press('i');
    await bench.click(0, 0);
    await bench.click(80, 80);
    await bench.press('Escape');
    await bench.turning(() => bench.press('l'));
  };
  await square(onPlane(bench, 'top'));
  await bench.verb('Datum plane');
  await page.getByRole('button', { name: 'Top', exact: true }).last().waitFor();
  await bench.click(-213, 54);
  await bench.press('Enter');
  await bench.chip('offset', '30 mm');
  await square(() => bench.step('Plane 1', 'Sketch on it'));
  await bench.press('l');
  await bench.desk.getByLabel('Sketch 1').check();
  await bench.desk.getByLabel('Sketch 2').check();
  await bench.press('Enter');
  await bench.bodies(1);
  const prism = Number.parseFloat((await bench.figure('Volume').textContent()) ?? '');
  await bench.step('Loft 1', 'Change');
  await page.getByTestId('ask-starts').click();
  // the corner in front below, and above it the one to the right
  await bench.click(-47, -230);
  await expect(bench.desk).toContainText('begun at a curve or point of Sketch 1');
  await bench.click(264, 85);
  await expect(bench.desk).toContainText('begun at 2 starting points');
  await bench.press('Enter');
  // a square goes over into itself turned by a quarter: two thirds of the prism
  await expect
    .poll(async () => Number.parseFloat((await bench.figure('Volume').textContent()) ?? '') / prism)
    .toBeCloseTo(2 / 3, 3);
});
