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
  await expect(bench.desk.getByText('edge · straight 72 mm')).toBeVisible();
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

test('what was previewed while it was typed is not built a second time when it is kept; the next edit is', async ({
  bench,
  page,
}) => {
  const view = page.getByLabel('View', { exact: true });
  const builds = async () => Number(await view.getAttribute('data-arrivals'));
  const volume = async () => Number.parseFloat((await bench.figure('Volume').textContent()) ?? '');
  const [plate, before] = [await volume(), await builds()];
  await page
    .getByRole('button', { name: /^distance: / })
    .first()
    .click();
  const field = page.getByRole('textbox', { name: 'distance' });
  await field.fill('2-1/8"');
  await expect.poll(builds).toBeGreaterThan(before);
  // 72 x 48 less four holes of 5.5; the boss and its bore stand on it, and so do not change
  const grown = (72 * 48 - Math.PI * 5.5 ** 2) * (53.975 - 8);
  await expect.poll(async () => Math.abs((await volume()) - plate - grown) < 2 || (await volume())).toBe(true);
  const previewed = await builds();
  await field.press('Enter');
  await expect(page.getByText('All kept')).toBeVisible();
  await page.waitForTimeout(1500);
  expect(await builds()).toBe(previewed);
  await bench.press('Control+z');
  await expect.poll(builds).toBeGreaterThan(previewed);
  await expect.poll(volume).toBe(plate);
});

test('built up to a step, a new one goes in there; steps are chosen together and removed with what needs them', async ({
  bench,
  page,
}) => {
  await bench.step('Foot plate', 'Build up to here');
  await expect(page.getByTestId('built-to')).toBeVisible();
  await expect(bench.figure('Size')).toContainText('48 × 8 mm');
  // what comes later can not be taken, nor is it guessed
  await bench.press('m');
  await expect(bench.desk.getByRole('checkbox')).toHaveCount(1);
  await expect(bench.desk.getByLabel('Foot plate')).not.toBeChecked();
  await bench.press('Escape');
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
