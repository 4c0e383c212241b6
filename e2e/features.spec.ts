import { expect, test } from './house.ts';

test.beforeEach(async ({ bench }) => {
  await bench.signUp();
  await bench.newDemo();
});

/** The long edge at the front of the foot plate, and the one at its left; the view stands on its corner. */
const FRONT_EDGE = [90, -92] as const;

test('an edge is rounded by a click; the plate changes and the rounding follows; too large says what would build', async ({
  bench,
  page,
}) => {
  await bench.click(...FRONT_EDGE);
  await expect(bench.desk.getByText('edge · straight 72')).toBeVisible();
  await expect(page.getByTestId('reading-length')).toHaveText('72 mm');
  await page.getByTestId('verb-fillet').click();
  await expect(bench.desk).toContainText('Round an edge of Foot plate by');
  await bench.press('Enter');
  const volume = (length: number, radius: number) => {
    const disc = (d: number) => (Math.PI * d * d) / 4;
    return (
      (length * ((length * 2) / 3) - 4 * disc(5.5)) * 8 +
      disc(24) * 20 -
      disc(12) * 28 -
      (1 - Math.PI / 4) * radius * radius * length
    );
  };
  const shows = (length: number, radius: number) =>
    expect
      .poll(async () => Number.parseFloat((await bench.figure('Volume').textContent()) ?? ''))
      .toBeCloseTo(volume(length, radius), 0);
  await shows(72, 2);
  await bench.chip('radius', '3 mm');
  await shows(72, 3);
  // the sketch that the edge comes from gets another length: the same edge is rounded
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of plate length', { exact: true }).fill('96 mm');
  await page.getByLabel('Expression of plate length', { exact: true }).press('Enter');
  await page.getByRole('link', { name: 'Bench' }).click();
  await shows(96, 3);
  await expect(page.getByTestId('unsure')).toHaveCount(0);
  await bench.chip('radius', '60 mm');
  await expect(page.getByTestId('step-Fillet 1')).toContainText(/can not be rounded by so much. About [\d.]+ mm/);
  await bench.press('Control+z');
  await shows(96, 3);
});

test('built up to a step, a new one goes in there; steps are chosen together and removed with what needs them', async ({
  bench,
  page,
}) => {
  await bench.step('Foot plate', 'Build up to here');
  await expect(page.getByTestId('built-to')).toBeVisible();
  await expect(bench.figure('Size')).toContainText('48 × 8 mm');
  await bench.click(...FRONT_EDGE);
  await page.getByTestId('verb-chamfer').click();
  await bench.press('Enter');
  const order = () =>
    page.locator('[data-testid^="step-"]').evaluateAll((rows) => rows.map((row) => row.getAttribute('data-testid')));
  await expect
    .poll(order)
    .toEqual(
      ['Foot outline', 'Foot plate', 'Chamfer 1', 'Boss', 'Boss body', 'Bore', 'Shaft bore'].map(
        (name) => `step-${name}`,
      ),
    );
  await page.getByRole('button', { name: 'build all' }).click();
  await expect(bench.figure('Size')).toContainText('48 × 28 mm');
  await bench.step('Boss', 'Remove');
  await expect(page.getByRole('alert').filter({ hasText: 'is needed by' })).toContainText('Boss body');
  await page.getByRole('button', { name: 'Remove 2' }).click();
  await expect.poll(async () => (await order()).length).toBe(5);
  await bench.press('Control+z');
  await expect.poll(async () => (await order()).length).toBe(7);
  await page.getByRole('button', { name: 'Choose step 6' }).click();
  await page.getByRole('button', { name: 'Choose step 7' }).click();
  await page.getByTestId('chosen').getByRole('button', { name: 'leave out' }).click();
  await expect(page.getByTestId('step-Bore')).toContainText('left out');
});
