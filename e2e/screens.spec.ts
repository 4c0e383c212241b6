import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './house.ts';

test('the shelf loads neither kernel nor view', async ({ bench, page }) => {
  const loaded: string[] = [];
  page.on('request', (request) => loaded.push(request.url()));
  await bench.signUp();
  await page.getByRole('button', { name: 'Another copy of the demo' }).waitFor();
  expect(loaded.filter((url) => /wasm|three|engine|bench/.test(url))).toEqual([]);
  await bench.newDemo();
  const wasm = loaded.find((url) => url.endsWith('.wasm'))!;
  const answer = await page.request.get(wasm, { headers: { 'accept-encoding': 'br' } });
  expect(answer.headers()).toMatchObject({
    'cache-control': expect.stringContaining('immutable'),
    'content-encoding': 'br',
  });
});

test('the view glides to where it is to look, and comes to rest; for who wants no motion it is there at once', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newDemo();
  const view = page.getByLabel('View', { exact: true });
  const frames = async () => Number(await view.getAttribute('data-drawn'));
  const turned = async (name: string) => {
    const before = await frames();
    await page.getByRole('button', { name, exact: true }).click();
    await expect(view).toHaveAttribute('data-moving', '0');
    await bench.settleView();
    return (await frames()) - before;
  };
  await bench.settleView();
  const atOnce = await turned('Top');
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await page.reload();
  await bench.settleView();
  const gliding = await turned('Top');
  expect(atOnce).toBeGreaterThan(0);
  expect(gliding).toBeGreaterThan(atOnce);
  await page.emulateMedia({ reducedMotion: 'reduce' });
});

test("somebody else's project is not there", async ({ bench, page, browser, house }) => {
  await bench.signUp();
  await bench.newDemo();
  const address = page.url();
  const stranger = await browser.newPage({ baseURL: house.address });
  await stranger.goto(address);
  await expect(stranger).toHaveURL(/\/enter/);
  await stranger.getByLabel('Name').fill('demo');
  await stranger.getByLabel('Password').fill('seed-sieve-demo');
  await stranger.getByRole('button', { name: 'Sign in' }).click();
  await expect(stranger.getByText('not yours')).toBeVisible();
  await stranger.close();
});

test('a file that is no project is refused in words; a project file comes in', async ({ bench, page }) => {
  await bench.signUp();
  const input = page.locator('input[type=file]');
  await input.setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from('{"format": ') });
  await expect(page.getByRole('alert')).toContainText('not a readable project file');
  await input.setInputFiles({ name: 'other.json', mimeType: 'application/json', buffer: Buffer.from('{"a": 1}') });
  await expect(page.getByRole('alert')).toContainText('not a Helb project file');
  const project = {
    format: 'helb-project',
    schema: 1,
    name: 'Brought in',
    unit: 'mm',
    values: {},
    valueOrder: [],
    parts: { p: { name: 'Lid', colour: 3, steps: {}, stepOrder: [] } },
    partOrder: ['p'],
  };
  await input.setInputFiles({
    name: 'good.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(project)),
  });
  await expect(page.getByTestId('part-name')).toHaveText('Lid');
});

test('hovering a face lights up its sentence; a pick is measured on the desk', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.turning(() => page.getByRole('button', { name: 'Top', exact: true }).click());
  await bench.move(-120, 60);
  await expect(page.getByText('face · flat').first()).toBeVisible();
  await bench.click(-120, 60);
  await bench.move(0, 340);
  await expect(page.getByRole('heading', { name: 'Picked' })).toBeVisible();
  await expect(page.getByTestId('step-Foot plate')).toHaveClass(/bg-paper/);
});

test('the view is turned, shifted and zoomed by hand, and turned square on by a word', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  const axes = () =>
    page
      .locator('svg[viewBox="-48 -48 96 96"] line')
      .evaluateAll((lines) =>
        lines.map((line) => ['x2', 'y2'].map((end) => Math.round(Number(line.getAttribute(end))) + 0)),
      );
  await bench.turning(() => page.getByRole('button', { name: 'Front', exact: true }).click());
  // front: x to the right, z up, y away from the viewer
  expect(await axes()).toEqual([
    [30, 0],
    [0, 0],
    [0, -30],
  ]);
  const drag = async (button: 'right' | 'middle', shift: boolean) => {
    if (shift) await page.keyboard.down('Shift');
    await bench.move(200, -200);
    await page.mouse.down({ button });
    await page.mouse.move(...(await bench.at(120, -120)), { steps: 5 });
    await page.mouse.up({ button });
    if (shift) await page.keyboard.up('Shift');
    await bench.settleView();
  };
  const front = await axes();
  await drag('right', true);
  expect(await axes()).toEqual(front);
  await drag('middle', false);
  expect(await axes()).not.toEqual(front);
  // by keys: turned to the left and back again
  const turned = await axes();
  await bench.turning(() => bench.press('ArrowLeft'));
  expect(await axes()).not.toEqual(turned);
  await bench.turning(() => bench.press('ArrowRight'));
  expect(await axes()).toEqual(turned);
  await bench.turning(() => page.getByRole('button', { name: 'Square-on' }).click());
  expect(await axes()).toEqual(front);
  await bench.fit();
  expect(await axes()).toEqual(front);
  const picture = () => page.getByTestId('model-canvas').screenshot();
  const before = await picture();
  await bench.move(0, 0);
  await page.mouse.wheel(0, -400);
  await bench.settleView();
  expect(Buffer.compare(await picture(), before)).not.toBe(0);
});

test('a second part is drawn in its own colour, the first stays as it is', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('tab', { name: /Parts/ }).click();
  await page.getByRole('button', { name: '+ new part' }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('part-name')).toHaveText('Part 16');
  await bench.bodies(0);
  await bench.sketchOnTop();
  await bench.press('o');
  await bench.click(0, 0);
  await bench.click(60, 0);
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await bench.bodies(1);
  await bench.press('Enter');
  await expect(bench.figure('Bodies')).toHaveText('1 with 3 faces');
  await page.getByRole('tab', { name: /Parts/ }).click();
  await page
    .getByRole('list', { name: 'Parts of the project' })
    .getByRole('button', { name: 'Bearing bracket', exact: true })
    .click();
  await expect(bench.figure('Bodies')).toHaveText('1 with 13 faces');
  await page.getByRole('link', { name: 'Output' }).click();
  await expect(page.getByRole('button', { name: 'Download STEP of Part 16' })).toBeVisible();
});

test('a value is named while a step is being made, and kept with it by Enter in one undo step', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.step('Boss', 'Extrude');
  const desk = page.getByRole('complementary', { name: 'Desk' });
  await desk.getByRole('button', { name: 'distance: 10 mm' }).click();
  const field = desk.getByRole('textbox', { name: 'distance' });
  await field.fill('collar = 34 mm');
  await field.press('Enter');
  await expect(desk.getByRole('button', { name: 'distance: collar' })).toBeVisible();
  await expect(desk.getByRole('alert')).toHaveCount(0);
  await page.getByLabel('View', { exact: true }).hover({ position: { x: 30, y: 300 } });
  await bench.press('Enter');
  await expect(bench.figure('Size')).toContainText('42 mm');
  await bench.press('Control+z');
  await expect(bench.figure('Size')).toContainText('28 mm');
  await page.getByRole('link', { name: 'Values' }).click();
  await expect(page.getByText('55 named')).toBeVisible();
});

test('a chip is scrubbed with a live preview, and Esc leaves it as it was', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  await bench.chip('distance', '10 mm');
  await expect(bench.figure('Size')).toContainText('48 × 30 mm');
  const chip = page.getByRole('button', { name: 'distance: 10 mm' });
  const box = (await chip.boundingBox())!;
  await page.mouse.move(box.x + 10, box.y + 5);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, box.y + 5, { steps: 5 });
  await expect(page.getByRole('button', { name: 'distance: 20 mm' })).toBeVisible();
  await page.mouse.up();
  await page.getByRole('button', { name: 'distance: 20 mm' }).click();
  await page.getByRole('textbox', { name: 'distance' }).fill('45 mm');
  await expect(bench.figure('Size')).toContainText('65 mm');
  await page.keyboard.press('Escape');
  await expect(bench.figure('Size')).toContainText('40 mm');
});

test('a failing step says why in its sentence and leaves the last good body', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newDemo();
  await page.getByRole('button', { name: 'direction: forwards' }).last().click();
  await page.getByRole('option', { name: 'backwards' }).click();
  await expect(page.getByTestId('step-Shaft bore').getByRole('alert')).toContainText('cuts nothing');
  await bench.bodies(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByTestId('step-Shaft bore').getByRole('alert')).toHaveCount(0);
});

test('no screen has a fault that the accessibility checker knows', async ({ bench, page }) => {
  const check = async () => {
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html).join(' ')}`)).toEqual([]);
  };
  await page.goto('/enter');
  await check();
  await bench.signUp();
  await check();
  await bench.newDemo();
  await check();
  await bench.step('Foot outline', 'Open sketch');
  await bench.settleView();
  await check();
  await page.getByRole('link', { name: 'Values' }).click();
  await check();
  await page.getByRole('link', { name: 'Sheets' }).click();
  await expect(page.getByLabel('Sheet', { exact: true })).toHaveAttribute('data-drawn', 'true', { timeout: 60_000 });
  await check();
  await page.getByRole('link', { name: 'Checks' }).click();
  await expect(page.getByLabel('Hard to change later')).toBeVisible({ timeout: 60_000 });
  await check();
  await page.getByRole('link', { name: 'Output' }).click();
  await check();
});
