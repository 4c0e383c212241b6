import { expect, test } from './house.ts';

test('what is drawn is typed at the pointer: a plate and a triangle, settled without a size asked for afterwards', async ({
  bench,
  page,
}) => {
  await bench.newSketch();
  const wrong = page.getByRole('alert');

  // a rectangle from the origin: its numbers can be read all the way
  await bench.press('b');
  await bench.click(0, 0);
  await bench.move(170, 90);
  await expect(page.getByTestId('drawn-sizes')).toContainText(/width.*mm.*height.*mm/s);
  await expect(page.getByTestId('pointer-at')).toContainText(/^x -?[\d.]+ {2}y -?[\d.]+ mm$/);
  await page.keyboard.type('2-1/8"');
  await bench.press('Tab');
  await page.keyboard.type('4 * wall');
  await bench.press('Enter');
  await expect(wrong).toContainText('"wall"');
  await page.getByLabel('value of wall').fill('10');
  await bench.press('Enter');
  await expect(wrong).toHaveCount(0);
  await expect(bench.title()).toContainText('settled');
  await expect(page.locator('text[data-size]').filter({ hasText: '4 * wall = 40' })).toBeVisible();
  await expect(page.locator('text[data-size]').filter({ hasText: '2-1/8" = 53.97' })).toBeVisible();

  // a chain by lengths and directions: a triangle of 3, 4 and 5 of its own
  await bench.press('Escape');
  await bench.press('k');
  await bench.click(-220, -150);
  for (const [length, angle] of [
    ['30', '0'],
    ['40', '90°'],
  ] as const) {
    await bench.move(-120, -90);
    await page.keyboard.type(length);
    await bench.press('Tab');
    await page.keyboard.type(angle);
    await bench.press('Enter');
    await expect(page.getByLabel('length', { exact: true })).toHaveCount(0);
  }
  // a wrong number stays to be mended, and Esc leaves it to the pointer
  await page.keyboard.type('5 deg');
  await bench.press('Enter');
  await expect(wrong).toContainText('a length');
  await bench.press('Escape');
  await expect(wrong).toHaveCount(0);
  await bench.click(-220, -150);
  await expect(bench.desk).toContainText('2 closed areas');
  await expect(bench.title()).toContainText('2 freedoms left');

  // more Esc than there is to leave: the sketch stays open
  for (let k = 0; k < 4; k++) await bench.press('Escape');
  await expect(bench.canvas).toBeVisible();
  await bench.turning(() => bench.press('l'));

  // digits go to the number of the step, after a click on a word beside the view as well
  await bench.press('x');
  await bench.desk.getByRole('checkbox').nth(1).click();
  await page.keyboard.type('17');
  await bench.press('Enter');
  await bench.press('Enter');
  await bench.bodies(1);
  await expect(page.getByLabel('Steps of the part')).toContainText('by 17');
  // 2-1/8 in by 40 mm by 17 mm
  await expect(bench.figure('Volume')).toHaveText('36703 mm³');
});

test('what is in the making stands as it was: over another screen, another part, and a page that is loaded anew', async ({
  bench,
  page,
}) => {
  await bench.newSketch();
  await bench.press('o');
  await bench.click(0, 0);
  await bench.move(60, 0);
  await page.keyboard.type('24');
  await bench.press('Enter');
  await expect(bench.title()).toContainText('settled');

  // a number that throws it out of the view: it is fitted again
  await bench.press('Escape');
  const rim = page.locator('[data-entity^=c]').first();
  const isSeen = async () => {
    const [drawn, view] = [await rim.boundingBox(), await page.getByLabel('View', { exact: true }).boundingBox()];
    return drawn!.x > view!.x && drawn!.y > view!.y && drawn!.y + drawn!.height < view!.y + view!.height;
  };
  await page.locator('text[data-size]').first().click();
  await bench.answer('480');
  await expect.poll(isSeen).toBe(true);
  await bench.press('Control+z');
  await expect(page.locator('text[data-size]')).toHaveText('⌀24');

  // the open sketch
  await page.reload();
  await expect(bench.canvas).toBeVisible();
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(bench.canvas).toBeVisible();
  await bench.settleView();
  await bench.turning(() => bench.press('l'));

  // a step, with the number that was typed
  await bench.press('x');
  await page.keyboard.type('1/2 in');
  await page.getByRole('link', { name: 'Checks' }).click();
  await page.getByRole('link', { name: 'Bench' }).click();
  const standing = page.getByTestId('standing');
  await expect(standing).toContainText('by 1/2 in');
  await standing.getByRole('button', { name: 'go on' }).click();
  await expect(standing).toHaveCount(0);
  await expect(bench.desk.getByRole('button', { name: /1\/2 in/ })).toBeVisible();
  await page.reload();
  await expect(standing).toContainText('by 1/2 in');

  // another part leaves it where it is
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByRole('button', { name: '+ new part' }).click();
  await page.keyboard.press('Enter');
  await expect(standing).toHaveCount(0);
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByTitle('Edit Part 1').click();
  await expect(standing).toContainText('by 1/2 in');
  await standing.getByRole('button', { name: 'go on' }).click();
  await bench.press('Enter');
  await bench.bodies(1);
  await expect(bench.figure('Volume')).toHaveText('5745.3 mm³');
  await expect(standing).toHaveCount(0);
});

test('the lengths of a step in the making are pulled where they are; pulled over to the other side it is turned round', async ({
  bench,
  page,
}) => {
  await bench.newSketch();
  await bench.press('i');
  await bench.click(0, 0);
  await bench.move(60, 40);
  await page.keyboard.type('46');
  await bench.press('Tab');
  await page.keyboard.type('31');
  await bench.press('Enter');
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await bench.bodies(1);
  await bench.settleView();
  const arrow = page.getByRole('button', { name: 'Pull the distance' });
  const distance = page.getByRole('complementary', { name: 'Desk' }).getByRole('button', { name: /^distance: / });
  /** Pulls it up, pixels; the arrow is taken at its middle. */
  const pull = async (up: number) => {
    const shaft = (await arrow.locator('path').nth(2).boundingBox())!;
    const [x, y] = [shaft.x + shaft.width / 2, shaft.y + shaft.height / 2];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x, y - up, { steps: 6 });
    await page.mouse.up();
  };
  await pull(50);
  await expect(distance).not.toHaveText('10 mm');
  const first = parseFloat(await distance.innerText());
  expect(first).toBeGreaterThan(10);
  await expect(bench.desk).toContainText('forwards');
  await pull(-400);
  await expect(bench.desk).toContainText('backwards');
  // a click turns it back
  await pull(0);
  await expect(bench.desk).toContainText('forwards');
  // what is told by a name is changed where that is told
  await distance.click();
  await page.getByRole('textbox', { name: 'distance' }).fill('high = 12');
  await bench.press('Enter');
  await expect(arrow).toHaveCount(0);
  await bench.press('Enter');
  await expect(bench.figure('Volume')).toHaveText('17112 mm³');
});

test('the first number of a project asks in which unit: what is being typed stays', async ({ bench, page }) => {
  await bench.newSketch();
  await bench.press('o');
  await bench.click(0, 0);
  await bench.move(60, 40);
  await page.keyboard.type('1 1/2');
  const unit = page.getByRole('group', { name: 'Unit' });
  await unit.getByRole('button', { name: 'in', exact: true }).click();
  await expect(page.getByRole('button', { name: 'unit of lengths: inches' })).toBeVisible();
  await bench.press('Enter');
  await expect(bench.desk).not.toContainText('freedoms');
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await page.keyboard.type('2');
  await bench.press('Enter');
  await bench.press('Enter');
  // pi / 4 * 1.5^2 * 2
  await expect(bench.figure('Volume')).toContainText(/^3\.534\d* in³$/);
  // it was asked once
  await bench.sketchOnTop();
  await bench.press('o');
  await bench.click(100, 0);
  await bench.move(140, 30);
  await page.keyboard.type('0.5');
  await expect(page.getByLabel('diameter', { exact: true })).toBeFocused();
  await expect(unit).toHaveCount(0);
});

test('a plane that is set off is pulled to either side of what it is set off from', async ({ bench, page }) => {
  await bench.signUp();
  await bench.newProject();
  await bench.verb('datum plane');
  // its name in the view, not the view from there
  await page
    .locator('button[tabindex="-1"]')
    .filter({ hasText: /^\s*Front\s*$/ })
    .click();
  const arrow = page.getByRole('button', { name: 'Pull the offset' });
  const offset = bench.desk.getByRole('button', { name: /^offset: / });
  await expect(offset).toHaveText('10 mm');
  const [ax, ay, bx, by] = (await arrow.locator('path').nth(2).getAttribute('d'))!.match(/-?[\d.]+/g)!.map(Number);
  const view = (await bench.view.boundingBox())!;
  // taken at its middle and pulled back, over where it counts from
  const along = (share: number): [number, number] => [
    view.x + ax! + share * (bx! - ax!),
    view.y + ay! + share * (by! - ay!),
  ];
  await page.mouse.move(...along(0.5));
  await page.mouse.down();
  await page.mouse.move(...along(-6), { steps: 6 });
  await page.mouse.up();
  await expect(offset).toHaveText(/^-\d+(\.\d+)? mm$/);
  await bench.press('Enter');
  await expect(page.getByTestId('step-Plane 1')).toContainText(/-\d/);
});
