import { expect, test } from './house.ts';

test('three short tasks are ticked by what is really done, left, taken up again, over a reload', async ({
  bench,
  page,
}) => {
  await bench.signUp();
  const tasks = page.getByRole('region', { name: 'Three short tasks' });
  const line = tasks.locator('li[aria-current=step]');
  await page.getByRole('button', { name: /^Three short tasks/ }).click();
  await bench.bodies(1);
  await expect(line).toContainText('Begin a part of its own');
  // asked for once: the address asks no more
  await expect(page).toHaveURL(/\/project\/\w+$/);

  await page.getByRole('tab', { name: /^Parts/ }).click();
  await page.getByRole('button', { name: '+ new part' }).click();
  await bench.press('Enter');
  await expect(line).toContainText('Draw an outline in it');
  await bench.sketchOnTop();
  await bench.press('b');
  // among the others much could be drawn to: nothing is guessed
  await page.keyboard.down('q');
  await bench.click(-100, -60);
  await bench.click(40, 50);
  await page.keyboard.up('q');
  // a key that is held is a key
  await expect(page.getByText('is no key here')).toHaveCount(0);
  await expect(line).toContainText('Settle it');
  await bench.press('Escape');
  // what would settle it is looked at, left by Esc, kept by Enter
  await page.getByRole('button', { name: 'Settle the rest' }).click();
  await bench.press('Escape');
  await expect(bench.desk.getByText('This would settle it')).toHaveCount(0);
  await page.getByRole('button', { name: 'Settle the rest' }).click();
  await bench.press('Enter');
  await expect(bench.title()).toContainText('settled');
  await expect(line).toContainText('Make it solid');

  await tasks.getByRole('button', { name: 'leave' }).click();
  await expect(tasks).toHaveCount(0);
  await bench.kept();
  await page.reload();
  await expect(bench.title()).toContainText('settled');
  await expect(tasks).toHaveCount(0);
  await bench.press('l');
  await bench.verb('short tasks');
  await expect(line).toContainText('Make it solid');
  await bench.press('x');
  await bench.bodies(1);
  await bench.press('Enter');
  await expect(line).toContainText('Work on it');
  // what is taken back was done all the same; another task is begun by its number
  await tasks.getByRole('button', { name: 'Join and move' }).click();
  await expect(line).toContainText('Place a part');
  await expect(tasks.getByRole('button', { name: 'Draw and settle' })).toHaveText('✓');
});

test('verbs are found by what they do, also while drawing; what lacks something says what and does nothing', async ({
  bench,
  page,
}) => {
  await bench.newSketch();
  await bench.press('b');
  await bench.click(-100, -60);
  await bench.click(100, 60);
  await bench.press('Escape');
  const search = page.getByLabel('Search verbs');
  const card = page.getByTestId('verb-card');
  await bench.press(' ');
  await search.fill('round corner');
  await expect(card).toContainText('Pick corners first.');
  await bench.press('Enter');
  await expect(search).toBeVisible();
  // by a word of its sentence
  await search.fill('hexagon');
  await expect(page.getByRole('option')).toHaveText(['Polygon']);
  await expect(card.locator('svg')).toBeVisible();
  await search.fill('extrude');
  await expect(card).toContainText('Closes the sketch.');
  await bench.press('Enter');
  await expect(bench.canvas).toHaveCount(0);
  await bench.bodies(1);
  await expect(bench.desk).toContainText('Extrude');
});

test('a question mark shows the keys of this place, and what is in hand stays; the help is searched without a server', async ({
  bench,
  page,
  context,
}) => {
  await bench.newSketch();
  await bench.press('b');
  await bench.click(-100, -60);
  await bench.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await expect(keys.getByRole('region', { name: 'Keys of this place' })).toContainText('Chain');
  // keys mean nothing behind it, and Esc closes no more than it
  await bench.press('k');
  await bench.press('Escape');
  await expect(keys).toHaveCount(0);
  await expect(page.getByTestId('hint')).not.toContainText('Click one corner');
  await bench.press('Escape');
  await bench.press('Escape');
  await expect(bench.canvas).toBeVisible();

  await bench.kept();
  await context.setOffline(true);
  await page.getByRole('button', { name: 'Keys and help' }).click();
  await keys.getByRole('link').click();
  await page.getByLabel('Search the help').fill('hinge');
  await expect(page.getByRole('main').getByRole('heading', { level: 3 })).toHaveText(['Join revolute']);
  await context.setOffline(false);
  await page.getByRole('button', { name: 'back to where you were' }).click();
  await expect(bench.canvas).toBeVisible();
});
