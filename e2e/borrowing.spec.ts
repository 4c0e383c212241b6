import { formatAmount } from '@helb/core';
import { expect, test } from './house.ts';

test.beforeEach(async ({ bench }) => {
  await bench.signUp();
  await bench.newDemo();
});

/** The top of the foot plate, left of the boss; the view stands on its corner. */
const PLATE_TOP = [-10, -118] as const;

test('a sketch on a face borrows its outline; the plate grows and what is raised on it follows', async ({
  bench,
  page,
}) => {
  await bench.click(...PLATE_TOP);
  await expect(bench.desk.getByText('face · flat')).toBeVisible();
  await bench.turning(() => page.getByTestId('verb-sketch-here').click());
  await expect(bench.title()).toContainText('on the end of Foot plate');
  await bench.press('r');
  await expect(page.getByTestId('hint')).toContainText('live copy');
  await bench.move(60, 75);
  await expect(page.getByTestId('under')).toContainText('outline of face · flat');
  await bench.click(60, 75);
  await expect(page.getByTestId('loans')).toContainText('the end of Foot plate');
  await expect(bench.title()).toContainText('settled');
  // four sides, four bolt holes, the boss
  await expect(page.locator('[data-state="borrowed"]')).toHaveCount(9);
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await bench.chip('distance', '2 mm', 4);
  await bench.press('Enter');
  const disc = (d: number) => (Math.PI * d * d) / 4;
  const volume = (length: number, raise: number) =>
    length * ((length * 2) / 3) * (8 + raise) - 4 * disc(5.5) * (8 + raise) + disc(24) * (20 - raise) - disc(12) * 28;
  await expect(bench.figure('Volume')).toHaveText(`${formatAmount(volume(72, 2), 1)} mm³`);
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of plate length', { exact: true }).fill('90 mm');
  await page.getByLabel('Expression of plate length', { exact: true }).press('Enter');
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(bench.figure('Volume')).toHaveText(`${formatAmount(volume(90, 2), 1)} mm³`);
  await expect(page.getByTestId('unsure')).toHaveCount(0);
});

test('a datum plane is made by picking, asked one line after another, and drawn on', async ({ bench, page }) => {
  await bench.press('d');
  await expect(page.getByTestId('ask-on.0')).toHaveAttribute('aria-pressed', 'true');
  await bench.click(...PLATE_TOP);
  await expect(bench.desk).toContainText('offset from the end of Foot plate');
  await expect(page.getByTestId('ask-on.0')).toHaveAttribute('aria-pressed', 'false');
  await bench.desk.getByRole('button', { name: 'way: offset from' }).click();
  await bench.desk.getByRole('option', { name: 'parallel to' }).click();
  // what was picked stays, the point is asked
  await expect(page.getByTestId('ask-on.1')).toHaveAttribute('aria-pressed', 'true');
  await expect(bench.desk).toContainText('Click a corner, a centre or a point.');
  await bench.move(0, 116);
  await expect(page.getByTestId('under')).toContainText('rim');
  await bench.click(0, 116);
  await expect(bench.desk).toContainText('parallel to the end of Foot plate through an edge of');
  await bench.press('Enter');
  await expect(page.getByTestId('step-Plane 1')).toContainText('Datum plane Plane 1 parallel to');
  await bench.kept();
  // picked by its border, drawn on, seen square on at the height of the boss
  await page.getByText('Plane 1', { exact: true }).last().waitFor();
  await page.getByTestId('step-Plane 1').hover();
  await bench.step('Plane 1', 'Sketch on it');
  await expect(bench.title()).toContainText('on Plane 1');
  await bench.press('o');
  await bench.click(0, 0);
  await bench.click(30, 0);
  await expect(bench.title()).toContainText('1 freedom left');
});
