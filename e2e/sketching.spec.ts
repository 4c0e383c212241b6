import { expect, test, type Bench } from './house.ts';

const states = (bench: Bench) =>
  bench.page.locator('[data-entity]').evaluateAll((lines) => lines.map((line) => line.getAttribute('data-state')));
const tags = (bench: Bench) => bench.page.locator('.tag:not(.guess) text').allTextContents();

test.beforeEach(async ({ bench }) => {
  await bench.newSketch();
});

test('a chain with guesses: shown before they are taken, held off by a key, struck off again', async ({
  bench,
  page,
}) => {
  await bench.press('k');
  await bench.click(-120, -60);
  await bench.move(100, -57);
  await expect(page.locator('.guess text')).toHaveText('H');
  await bench.click(100, -57);
  await page.keyboard.down('q');
  await bench.move(103, 80);
  await expect(page.locator('.guess')).toHaveCount(0);
  await bench.click(103, 80);
  await page.keyboard.up('q');
  await bench.click(-120, -60);
  await expect(page.getByTestId('region')).toHaveCount(1);
  expect(await tags(bench)).toEqual(['H']);
  // six coordinates, less the level line
  await expect(bench.title()).toContainText('5 freedoms left');
  await bench.press('Control+z');
  await expect(page.getByTestId('region')).toHaveCount(0);
  await expect(page.getByText('2 open ends, ringed in the view')).toBeVisible();
});

test('the desk speaks of what is selected now, and of what is selected next', async ({ bench }) => {
  await bench.press('k');
  await bench.click(-200, 100);
  await bench.click(-50, 100);
  await bench.press('Escape');
  await bench.click(100, 50);
  await bench.click(200, 120);
  await bench.press('Escape');
  await bench.press('Escape');
  for (const [x, y, name] of [
    [-120, 100, 'line 1'],
    [150, 85, 'line 2'],
  ] as const) {
    await bench.click(x, y);
    await expect(bench.desk.locator('section', { hasText: 'Selected' }).locator('p').first()).toHaveText(name);
  }
});

test('loose geometry is dragged, relations hold; settled geometry stays', async ({ bench, page }) => {
  await bench.press('b');
  await bench.click(-100, -50);
  await bench.click(100, 60);
  await bench.press('Escape');
  expect(new Set(await states(bench))).toEqual(new Set(['loose']));
  await bench.drag([100, 60], [140, 90]);
  const box = () =>
    page.locator('[data-entity]').evaluateAll((lines) => {
      const rects = lines.map((line) => line.getBoundingClientRect());
      return [
        Math.max(...rects.map((r) => r.right)) - Math.min(...rects.map((r) => r.left)),
        Math.max(...rects.map((r) => r.bottom)) - Math.min(...rects.map((r) => r.top)),
      ];
    });
  const [width, height] = await box();
  expect(Math.abs(width! - 240)).toBeLessThan(6);
  expect(Math.abs(height! - 140)).toBeLessThan(6);
  await expect(bench.title()).toContainText('4 freedoms left');
  await bench.press('Control+z');
  expect(Math.abs((await box())[0]! - 200)).toBeLessThan(6);
});

test('relations by their verbs; a clash names who fights and is dropped by a click', async ({ bench, page }) => {
  await bench.press('b');
  await bench.click(-100, -50);
  await bench.click(100, 60);
  await bench.press('Escape');
  await bench.click(40, 60);
  await page.keyboard.down('Shift');
  await bench.click(100, 20);
  await page.keyboard.up('Shift');
  await page.getByTestId('verb-equal').click();
  await expect(bench.title()).toContainText('3 freedoms left');
  // a square: level and upright sides of one length; two different sizes can't be
  const square = await page
    .locator('[data-entity]')
    .evaluateAll((lines) => lines.map((line) => line.getBoundingClientRect()).map((r) => Math.max(r.width, r.height)));
  expect(Math.max(...square) - Math.min(...square)).toBeLessThan(2);
  const view = (await page.getByLabel('View', { exact: true }).boundingBox())!;
  const edges = await page.locator('[data-entity]').evaluateAll((lines) => {
    const rects = lines.map((line) => line.getBoundingClientRect());
    return { top: Math.min(...rects.map((r) => r.top)), left: Math.min(...rects.map((r) => r.left)) };
  });
  const top = view.y + view.height / 2 - edges.top;
  const left = edges.left - view.x - view.width / 2;
  await bench.press('n');
  await bench.click(left + 40, top);
  await bench.click(left + 40, top + 50);
  await bench.answer('50 mm');
  await bench.press('Escape');
  await bench.fit();
  const side = await page
    .locator('[data-entity]')
    .evaluateAll((lines) => Math.min(...lines.map((line) => line.getBoundingClientRect().left)));
  const x = side - view.x - view.width / 2;
  await bench.press('n');
  await bench.click(x, 40);
  await bench.click(x - 50, 40);
  await bench.answer('30 mm');
  await expect(bench.title()).toContainText('clash');
  expect(await states(bench)).toContain('clashing');
  await expect(page.getByTestId('step-Sketch 1')).toContainText("can't hold together");
  await page.getByTestId('fighter').filter({ hasText: '30 mm' }).getByRole('button', { name: 'drop' }).click();
  await expect(bench.title()).not.toContainText('clash');
  await expect(page.getByTestId('fighter')).toHaveCount(0);
});

test('bad numbers are told where they are typed; nothing changes', async ({ bench, page }) => {
  await bench.press('o');
  await bench.click(0, 0);
  await bench.click(60, 0);
  await bench.press('n');
  await bench.click(42, 42);
  await bench.click(90, 90);
  const field = page.getByLabel('Size', { exact: true });
  for (const [text, reason] of [
    ['0', /not a size above 0/],
    ['-4 mm', /not a size above 0/],
    ['20 deg', /asks for a length/],
    ['nobody', /no value named/],
    ['1 +', /Did not expect the end/],
    ['mm = 4', /is a unit/],
  ] as const) {
    await field.fill(text);
    await field.press('Enter');
    await expect(page.getByRole('alert').first()).toHaveText(reason);
  }
  await field.fill('1 3/16 in');
  await field.press('Enter');
  await expect(bench.title()).toContainText('settled');
  await expect(page.getByRole('button', { name: /^diameter 1: 1 3\/16 in/ })).toBeVisible();
});

test('all by keyboard: a sketch is opened, a verb searched, left again', async ({ bench, page }) => {
  // Esc leaves what is in hand, never the sketch
  await bench.press('Escape');
  await expect(bench.canvas).toBeVisible();
  await bench.press('l');
  await expect(bench.canvas).toBeHidden();
  await page.keyboard.press('Space');
  await page.keyboard.type('front');
  await page.keyboard.press('Enter');
  await expect(bench.title()).toContainText('Sketch 2 on Front');
  await bench.press('Control+k');
  await page.keyboard.type('circ');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('hint')).toContainText('Click the centre, or');
});
