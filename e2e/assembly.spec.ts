import type { Page } from '@playwright/test';
import { formatAmount } from '@helb/core';
import { expect, test } from './house.ts';
import { bringPlate } from './plate.ts';

// The sieve is put together, moved, taken apart and joined again.

const whole = (page: Page) => page.getByLabel('The whole', { exact: true });

/** Waits until all parts have been brought together anew. */
async function arrived(page: Page, action: () => Promise<unknown>): Promise<void> {
  const count = async () => Number((await whole(page).getAttribute('data-arrivals')) ?? 0);
  const before = (await whole(page).count()) > 0 ? await count() : 0;
  await action();
  await expect.poll(count, { timeout: 60_000 }).toBeGreaterThan(before);
}

/** Where the middle of a placement is on the screen. */
async function middle(page: Page, id: string): Promise<[number, number]> {
  const pane = whole(page);
  await expect(pane).toHaveAttribute('data-moving', '0');
  const box = (await pane.boundingBox())!;
  const [x, y] = (JSON.parse((await pane.getAttribute('data-middles'))!) as Record<string, [number, number]>)[id]!;
  return [box.x + x, box.y + y];
}

async function look(page: Page, view: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Views' }).getByRole('button', { name: view, exact: true }).click();
  await expect(whole(page)).toHaveAttribute('data-moving', '0');
}

const reading = async (page: Page, label: string): Promise<number> =>
  parseFloat(await page.getByLabel(`Drive ${label} to`).inputValue());

async function drive(page: Page, label: string, text: string): Promise<void> {
  await page.getByLabel(`Drive ${label} to`).fill(text);
  await page.getByLabel(`Drive ${label} to`).press('Enter');
}

/** Where the tray is for an angle of the crank, from the middle of its way: an offset slider-crank. */
const slideAt = (degrees: number): number => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return 15 * c - Math.sqrt(110 ** 2 - (82 + 15 * s) ** 2) + Math.sqrt(110 ** 2 - 82 ** 2);
};

test('the crank drives the tray: by numbers, by the hand, and taken apart and joined again', async ({
  page,
  bench,
}) => {
  test.slow();
  await bench.signUp();
  await bench.newDemo();
  await arrived(page, () => page.getByRole('link', { name: 'Motion' }).click());
  await expect(page.getByTestId('freedoms')).toHaveText('2 freedoms');
  expect(await reading(page, 'Shaft turn')).toBeCloseTo(40, 2);

  await drive(page, 'Shaft turn', '130 deg');
  await expect(page.getByTestId('pose')).toContainText('Moved');
  expect(await reading(page, 'Tray on its rails slide')).toBeCloseTo(slideAt(130), 1);
  await expect(page.getByTestId('trace-End of the rod')).toContainText('115.49');
  // what can't be read is told, and nothing moves
  await drive(page, 'Shaft turn', '12 kg');
  await expect(page.getByRole('alert').filter({ hasText: 'angle' })).toBeVisible();
  expect(await reading(page, 'Shaft turn')).toBeCloseTo(130, 2);
  // where it can go no further it says what holds it
  await drive(page, 'Tray on its rails slide', '90 mm');
  await expect(page.getByTestId('pose')).toContainText('Held before it got there by');

  await page.keyboard.press('0');
  await expect(page.getByTestId('pose')).toContainText('At rest');
  expect(await reading(page, 'Shaft turn')).toBeCloseTo(40, 2);

  // the pin of the crank is pulled round
  await look(page, 'Front');
  const [x, y] = await middle(page, 'pin');
  await page.mouse.move(x, y);
  await expect(page.getByTestId('under')).toBeVisible();
  await page.mouse.down();
  for (let k = 1; k <= 10; k++) await page.mouse.move(x - 6 * k, y - 4 * k);
  await page.mouse.up();
  const pulled = await reading(page, 'Shaft turn');
  expect(pulled).toBeGreaterThan(60);
  expect(await reading(page, 'Tray on its rails slide')).toBeCloseTo(slideAt(pulled), 1);
  await page.keyboard.press('0');

  // taken apart: the tray is led by nothing any more
  const card = page.getByRole('listitem', { name: 'Tray on its rails' });
  await card.getByRole('button', { name: 'more' }).click();
  await arrived(page, () => card.getByRole('button', { name: 'remove' }).click());
  await expect(page.getByTestId('freedoms')).not.toHaveText('2 freedoms');

  // and joined again to an edge of the base, where it was drawn
  await page.getByRole('link', { name: 'Bench' }).click();
  await arrived(page, () => page.getByRole('tab', { name: 'Parts' }).click());
  await page.getByLabel('Show Right side').uncheck();
  await look(page, 'Front');
  await bench.verb('Join prismatic');
  const pick = async (id: string, offset: number, isBehind = false) => {
    const [px, py] = await middle(page, id);
    await page.mouse.move(px + offset, py - 1);
    await page.mouse.move(px + offset, py);
    await expect(page.getByTestId('under')).toBeVisible();
    if (isBehind) await page.keyboard.press('Tab');
    await page.mouse.click(px + offset, py);
  };
  // seen so thin, its side is meant; its edges come after it
  await pick('base', 130, true);
  await expect(page.getByTestId('joining')).toContainText('Base · edge · straight 300 mm');
  await page.getByTestId('joining').getByRole('button', { name: 'placing' }).click();
  await page.getByRole('option', { name: 'keep where they are' }).click();
  await arrived(page, () => pick('tray', 20));
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('joining')).toBeHidden();

  await arrived(page, () => page.getByRole('link', { name: 'Motion' }).click());
  await expect(page.getByTestId('freedoms')).toHaveText('2 freedoms');
  const before = await reading(page, 'Prismatic 1 slide');
  await drive(page, 'Shaft turn', '130 deg');
  const way = (await reading(page, 'Prismatic 1 slide')) - before;
  expect(Math.abs(way)).toBeCloseTo(Math.abs(slideAt(130) - slideAt(40)), 1);
});

test('a placement is moved by its numbers, what is in its way is told, and meant', async ({ page, bench }) => {
  test.slow();
  await bench.signUp();
  await bench.newDemo();
  await arrived(page, () => page.getByRole('tab', { name: 'Parts' }).click());
  const placements = page.getByRole('list', { name: 'Placements' });
  await expect(placements.getByRole('listitem')).toHaveCount(19);
  await expect(page.getByTestId('make-up')).toContainText('Stud');
  // drawn by instances: two calls for each part, however often it is there
  expect(Number(await whole(page).getAttribute('data-calls'))).toBeLessThan(40);

  await placements.getByRole('button', { name: 'Shaft', exact: true }).click();
  await expect(page.getByTestId('placement')).toContainText('turns about y');
  await page.getByLabel('At y: tray width / 2').click();
  // it is shown while it is typed: Enter may bring nothing new
  await arrived(page, async () => {
    await page.getByLabel('At y', { exact: true }).fill('tray width / 2 + 12 mm');
    await page.keyboard.press('Enter');
  });
  await page.getByTestId('interference').getByRole('button', { name: 'Look', exact: true }).click();
  const pairs = page.getByRole('list', { name: 'Pairs' });
  const crossed = pairs.getByRole('listitem').filter({ hasText: 'Shaft and Rod' });
  await expect(crossed).toContainText('overlap', { timeout: 60_000 });
  await arrived(page, () => crossed.getByRole('button', { name: 'is meant' }).click());
  await page.getByTestId('interference').getByRole('button', { name: 'Look', exact: true }).click();
  await expect(crossed).toContainText('as meant', { timeout: 60_000 });

  // used once more, made a group, and taken away again
  await arrived(page, () => page.getByRole('button', { name: 'Place Stud' }).click());
  await placements.getByRole('button', { name: 'Stud', exact: true }).click();
  await page
    .getByRole('list', { name: 'Placements' })
    .getByRole('button', { name: 'Spout' })
    .click({ modifiers: ['Shift'] });
  await arrived(page, () => bench.verb('Make a group'));
  await expect(page.getByRole('list', { name: 'Groups of the project' })).toBeVisible();
  await expect(placements.getByRole('listitem')).toHaveCount(19);
  await arrived(page, () => page.getByRole('button', { name: 'Undo' }).click());
  await expect(placements.getByRole('listitem')).toHaveCount(20);

  // two hundred of a part cost no more calls than one
  await placements.getByRole('button', { name: 'Stud', exact: true }).click();
  await page.getByRole('button', { name: 'repeat: once' }).click();
  await arrived(page, () => page.getByRole('option', { name: 'in a row' }).click());
  await page.getByRole('button', { name: 'count: 2' }).click();
  await arrived(page, async () => {
    await page.getByLabel('count', { exact: true }).fill('200');
    await page.keyboard.press('Enter');
  });
  await expect(page.getByTestId('make-up').getByRole('row', { name: /Stud/ })).toContainText('202');
  await page.getByRole('button', { name: 'Top', exact: true }).click();
  await expect.poll(async () => Number(await whole(page).getAttribute('data-calls'))).toBeLessThan(44);
});

test('a part is edited among the others, and a group that moves inside is driven', async ({ page, bench }) => {
  test.slow();
  await bench.signUp();
  await bench.newDemo();
  const view = page.getByLabel('View', { exact: true });
  await expect(view).toHaveAttribute('data-others', '0');
  await page.getByLabel('among the others').check();
  await expect(view).toHaveAttribute('data-others', '19', { timeout: 60_000 });
  await page.keyboard.press('q');
  await expect(view).toHaveAttribute('data-others', '0');

  // the crank with its pin and its knob becomes a group: its joint is driven from the list still
  await arrived(page, () => page.getByRole('tab', { name: 'Parts' }).click());
  const placements = page.getByRole('list', { name: 'Placements' });
  await placements.getByRole('button', { name: 'Crank', exact: true }).click();
  for (const name of ['Crank pin', 'Knob'])
    await placements.getByRole('button', { name, exact: true }).click({ modifiers: ['Shift'] });
  await arrived(page, () => bench.verb('Make a group'));
  await page.getByRole('link', { name: 'Motion' }).click();
  await expect(page.getByTestId('freedoms')).toHaveText('2 freedoms');
  await drive(page, 'Group 1 · Knob on its pin turn', '30 deg');
  expect(await reading(page, 'Group 1 · Knob on its pin turn')).toBeCloseTo(30, 2);
  // the joint to the shaft reaches into the group
  await drive(page, 'Shaft turn', '90 deg');
  expect(await reading(page, 'Shaft turn')).toBeCloseTo(90, 2);
});

test('a second part is drawn on the first and takes its outline; a value changes and both follow', async ({
  page,
  bench,
}) => {
  await bench.signUp();
  await bringPlate(page);
  await bench.bodies(1);
  await page.getByRole('tab', { name: 'Parts' }).click();
  await page.getByRole('button', { name: '+ new part' }).click();
  await page.keyboard.press('Enter');
  // a new part is seen among the others at once
  const view = page.getByLabel('View', { exact: true });
  await expect(view).toHaveAttribute('data-others', '1');
  await bench.turning(() => page.getByRole('button', { name: 'Top', exact: true }).click());
  await bench.fit();

  // the plate is in the middle of the view: its top is drawn on, and its outline taken
  await bench.click(0, 0);
  await expect(bench.desk.getByText('in Plate')).toBeVisible();
  await bench.turning(() => page.getByTestId('verb-sketch-here').click());
  await expect(bench.title()).toContainText('on the end of Sheet in Plate');
  await bench.press('r');
  await bench.move(10, 10);
  await expect(page.getByTestId('under')).toContainText('outline of face · flat in Plate');
  await bench.click(10, 10);
  await expect(page.getByTestId('loans')).toContainText('the end of Sheet in Plate');
  await expect(bench.title()).toContainText('settled');
  await bench.press('Escape');
  await bench.press('l');
  await bench.press('x');
  await bench.chip('distance', '2 mm', 1);
  await bench.press('Enter');
  const volume = (wide: number) => `${formatAmount(wide * 40 * 2, 1)} mm³`;
  await expect(bench.figure('Volume')).toHaveText(volume(60));

  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Expression of wide', { exact: true }).fill('75 mm');
  await page.getByLabel('Expression of wide', { exact: true }).press('Enter');
  await page.getByRole('link', { name: 'Bench' }).click();
  await expect(bench.figure('Volume')).toHaveText(volume(75));

  // what takes from what is shown, and the other way round is refused
  await arrived(page, () => page.getByRole('tab', { name: 'Parts' }).click());
  const links = page.getByRole('region', { name: 'What takes from what' });
  await expect(links.getByRole('button')).toHaveText(['Plate', 'Part 2']);
  await expect(links.getByTitle('Part 2 takes from Plate by Sketch 1')).toBeVisible();
  const placements = page.getByRole('list', { name: 'Placements' });
  await placements.getByRole('button', { name: 'Part 2', exact: true }).click();
  await arrived(page, () => bench.verb('Opposite hand of it'));
  await expect(links.getByRole('button')).toHaveText(['Plate', 'Part 2', 'Part 2, opposite hand']);
  await links.getByRole('button', { name: 'Part 2, opposite hand' }).click();
  await expect(bench.figure('Volume')).toHaveText(volume(75));
  await page.getByRole('tab', { name: 'Parts' }).click();
  await links.getByRole('button', { name: 'Plate' }).click();
  await expect(view).toHaveAttribute('data-others', '2');
  await bench.turning(() => page.getByRole('button', { name: 'Top', exact: true }).click());
  // what is of the part itself comes first
  await bench.click(40, 40);
  await expect(page.getByTestId('under')).toContainText('face · flat in Part 2');
  await bench.press('Tab');
  await page.mouse.down();
  await page.mouse.up();
  await expect(bench.desk.getByText('in Part 2')).toBeVisible();
  await page.getByTestId('verb-sketch-here').click();
  await expect(page.getByRole('alert')).toContainText('take from each other in a loop');
});

test('a part is shifted and turned by the handle; gathered with another and taken apart again', async ({
  page,
  bench,
}) => {
  await bench.signUp();
  await bringPlate(page);
  await bench.bodies(1);
  await arrived(page, () => page.getByRole('tab', { name: 'Parts' }).click());
  await arrived(page, () => page.getByRole('button', { name: 'Place Plate' }).click());
  await page.getByRole('button', { name: 'Fit', exact: true }).click();
  const placements = page.getByRole('list', { name: 'Placements' });
  const choose = (name: string, ...modifiers: 'Shift'[]) =>
    placements.getByRole('button', { name, exact: true }).click({ modifiers });
  await choose('Plate 2');
  await page.getByTestId('verb-handle').click();
  await expect(whole(page)).toHaveAttribute('data-moving', '0');
  const placement = page.getByTestId('placement');
  const number = (label: string) => placement.getByRole('button', { name: new RegExp(`^${label}: `) });
  /** Drags a grip by its middle. */
  const drag = async (grip: string, right: number, down: number) => {
    const line = page.getByRole('button', { name: grip }).locator('path').nth(1);
    const [x, y] = await line.evaluate((path: SVGPathElement) => {
      const { x, y } = path.getPointAtLength(path.getTotalLength() / 2);
      const box = path.ownerSVGElement!.getBoundingClientRect();
      return [x + box.left, y + box.top] as const;
    });
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + right, y + down, { steps: 5 });
    await arrived(page, () => page.mouse.up());
  };
  await expect(number('At z')).toHaveText('0 mm');
  await drag('Shift along z', 0, -40);
  await expect(number('At z')).toHaveText(/^[1-9]\d* mm$/);
  await expect(number('At x')).toHaveText('80 mm');
  await drag('Turn about z', 60, -10);
  await expect(number('Turned about z')).toHaveText(/^-\d*[05] deg$/);
  await expect(number('Turned about x')).toHaveText('0 deg');
  await expect(page.getByTestId('pose')).toHaveText('At rest');
  const z = await number('At z').textContent();
  const turn = await number('Turned about z').textContent();

  // the first is held by the assembly: gathered with it both stand where they were, and so they do taken apart
  await choose('Plate', 'Shift');
  await arrived(page, () => bench.verb('Make a group'));
  await expect(placements.getByRole('listitem')).toHaveText([/Group 1 × 2/]);
  await placements.getByRole('button', { name: /^Group 1/ }).click();
  await arrived(page, () => bench.verb('Take the group apart'));
  await expect(placements.getByRole('listitem')).toHaveText([/Plate 2/, /Plate/]);
  await choose('Plate 2');
  await expect(number('At z')).toHaveText(z!);
  await expect(number('Turned about z')).toHaveText(turn!);
});

test('a part tells where it is placed and what holds it; it is held still there, and shown among all parts', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  await bench.newDemo();
  const placed = bench.desk.getByRole('region', { name: 'Where it is placed' });
  await expect(placed).toContainText('Outer bearing on its side, with Right side');
  await placed.getByRole('button', { name: 'Hold still: Inner bearing' }).click();
  await expect(placed).toContainText('stands still');
  // the same by a key, for all of its places
  await bench.press('h');
  await expect(placed.getByRole('button', { name: /^Let go/ })).toHaveCount(2);
  await bench.press('h');
  await expect(placed.getByRole('button', { name: /^Let go/ })).toHaveCount(0);
  // a joint is changed where the part is; of one that holds as it was drawn there is nothing to set off
  const opened = placed.getByRole('button', { name: 'open', exact: true });
  await opened.first().click();
  const card = placed.getByRole('listitem').first();
  await expect(card).toContainText('Right side – Outer bearing');
  await card.getByRole('button', { name: 'more' }).click();
  await expect(card.getByRole('button', { name: 'remove' })).toBeVisible();
  await expect(card.getByRole('button', { name: / of .*: / })).toHaveCount(0);
  await placed.getByRole('button', { name: 'close', exact: true }).click();
  await expect(card).toHaveCount(0);
  await opened.nth(1).click();
  await card.getByRole('button', { name: 'more' }).click();
  const rest = card.getByLabel('rest turn of Shaft');
  await expect(rest).toHaveValue('40 deg');
  await rest.fill('50 deg');
  await rest.press('Enter');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(rest).toHaveValue('40 deg');
  await page.getByRole('button', { name: 'Redo', exact: true }).click();
  await expect(rest).toHaveValue('50 deg');
  await placed.getByRole('button', { name: 'close', exact: true }).click();
  await placed.getByRole('button', { name: 'Show Shaft' }).click();
  await expect(page.getByTestId('part-name')).toHaveText('All parts');
  await expect(bench.desk).toContainText('Joined by Outer bearing on its side, Shaft', { timeout: 60_000 });
  // and again, when all is there already
  await page.getByRole('tab', { name: /^Steps/ }).click();
  await placed.getByRole('button', { name: 'Inner bearing', exact: true }).click();
  await expect(bench.desk).toContainText('Joined by Inner bearing on its side');
});
