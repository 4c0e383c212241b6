import type { Page } from '@playwright/test';
import type { Figure } from './measure.ts';

/** Tasks shorter than this, ms, are not told by browsers: nobody notices them (Long Tasks API of the W3C). */
const NOTICED = 50;

/** How long the page is held at most while sheets are drawn: all of that is done by a worker. */
export async function heldFigures(page: Page): Promise<Figure[]> {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.locator('[data-drawn="true"]').waitFor({ timeout: 60_000 });
  const row = (name: string) =>
    page.getByLabel('Sheets of the project').getByRole('button', { name, exact: true }).click();
  const whole = await longest(page, async () => {
    await row('The whole');
    await page.getByRole('button', { name: 'View from the front', exact: true }).waitFor({ timeout: 120_000 });
  });
  // nothing is looked for in the page meanwhile, since that holds it too
  await page.getByLabel('Drawn', { exact: true }).selectText();
  const changed = await longest(page, async () => {
    await page.keyboard.insertText('somebody else');
    await page.keyboard.press('Enter');
    await page.waitForTimeout(3000);
  });
  await page.getByLabel('Sheet', { exact: true }).getByText('somebody else').waitFor({ timeout: 1000 });
  const figure = (name: string, value: number): Figure => ({
    name: `page: held at most while ${name}`,
    ...{ value, unit: 'ms', floor: null, ratio: null },
    aim: `at most ${NOTICED} ms at once; shorter is told as 0`,
    met: value <= NOTICED,
  });
  return [figure('the whole is drawn on a sheet for the first time', whole), figure('a sheet is drawn again', changed)];
}

/** The longest task of the page while something is done, ms; 0 where none is noticed. */
async function longest(page: Page, act: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const tasks: number[] = [];
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({
      type: 'longtask',
    });
    Object.assign(globalThis, { heldTasks: tasks });
  });
  await act();
  // what is painted last is told later
  await page.waitForTimeout(500);
  return page.evaluate(() => Math.max(0, ...(globalThis as unknown as { heldTasks: number[] }).heldTasks));
}
