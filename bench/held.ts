import type { Page } from '@playwright/test';
import { median, type Figure } from './measure.ts';

/** Tasks shorter than this, ms, are not told by browsers: nobody notices them (Long Tasks API of the W3C). */
const NOTICED = 50;
/** How often a word is written, after the first time. */
const ROUNDS = 9;

/** How long the page is held at most while sheets are drawn: all of that is done by a worker. */
export async function heldFigures(page: Page): Promise<Figure[]> {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.locator('[data-drawn="true"]').waitFor({ timeout: 60_000 });
  const whole = await longest(page, async () => {
    await page.getByLabel('Sheets of the project').getByRole('button', { name: 'The whole', exact: true }).click();
    await page.getByRole('button', { name: 'View from the front', exact: true }).waitFor({ timeout: 120_000 });
  });
  const rounds: number[] = [];
  for (let k = 0; k <= ROUNDS; k++) {
    const word = `somebody ${k}`;
    await page.getByLabel('Drawn', { exact: true }).selectText();
    rounds.push(
      await longest(page, async () => {
        await page.keyboard.insertText(word);
        await page.keyboard.press('Enter');
        // nothing is looked for in the page meanwhile, since that holds it too
        await page.waitForTimeout(2000);
      }),
    );
    await page.getByLabel('Sheet', { exact: true }).getByText(word).waitFor({ timeout: 1000 });
  }
  const [first, ...later] = rounds as [number, ...number[]];
  const figure = (name: string, value: number): Figure => ({
    name: `page: held at most while ${name}`,
    ...{ value, unit: 'ms', floor: null, ratio: null },
    aim: `at most ${NOTICED} ms at once; shorter is told as 0`,
    met: value <= NOTICED,
  });
  return [
    figure('the whole is drawn on a sheet for the first time', whole),
    figure('a word is written and the sheet is drawn again, first time', first),
    figure(`the same, in the middle of ${ROUNDS} times more`, median(later)),
    figure('the same, in the worst of them', Math.max(...later)),
  ];
}

/** The longest task of the page while something is done, ms; 0 where none is noticed. */
async function longest(page: Page, act: () => Promise<void>): Promise<number> {
  const tasks = await page.evaluateHandle(() => {
    const found: number[] = [];
    const watch = new PerformanceObserver((list) => found.push(...list.getEntries().map(({ duration }) => duration)));
    watch.observe({ type: 'longtask' });
    return { found, watch };
  });
  // what came before is told late, too
  await page.waitForTimeout(500);
  await tasks.evaluate(({ found }) => void found.splice(0));
  await act();
  await page.waitForTimeout(500);
  return tasks.evaluate(({ found, watch }) => {
    watch.disconnect();
    return Math.max(0, ...found);
  });
}
