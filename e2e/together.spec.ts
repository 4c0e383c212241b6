import type { Page } from '@playwright/test';
import { ProjectScript, type Project, type Step } from '@helb/core';
import { circle, rectangle } from '@helb/core/samples';
import { expect, test } from './house.ts';
import { openFile } from './plate.ts';

// Two parts and an empty one, put together by somebody who tries things.

function blockAndWheel(): Project {
  const script = new ProjectScript('Together').do('value.add', { id: 'v', name: 'high', expression: '40 mm' });
  const part = (id: string, name: string, entities: object, distance: string) => {
    script.do('part.add', { id, name });
    const sketch = { kind: 'sketch', name: `Outline of ${name}`, plane: 'top', entities, relations: {} };
    script.do('step.add', { part: id, id: `${id}s`, step: sketch as Step });
    const body = { kind: 'extrude', name: `Body of ${name}`, sketch: `${id}s`, distance };
    script.do('step.add', { part: id, id: `${id}e`, step: body as Step });
  };
  part('block', 'Block', rectangle(0, 0, 60, 30), 'high');
  part('wheel', 'Wheel', circle(0, 0, 15), '6 mm');
  return script.do('part.add', { id: 'empty', name: 'Nothing yet' }).project;
}

const placements = (page: Page) => page.getByRole('list', { name: 'Placements' });
const desk = (page: Page) => page.getByTestId('placement');

async function placed(page: Page): Promise<void> {
  await openFile(page, blockAndWheel());
  await page.getByRole('tab', { name: /Parts/ }).click();
  for (const name of ['Block', 'Wheel', 'Nothing yet'])
    await page.getByRole('button', { name: `Place ${name}`, exact: true }).click();
  await expect(placements(page)).toContainText('Nothing yet');
}

/** The middle of a placement on the screen. */
async function middle(page: Page, at: number): Promise<[number, number]> {
  const pane = page.getByLabel('The whole', { exact: true });
  await expect(pane).toHaveAttribute('data-moving', '0');
  const box = (await pane.boundingBox())!;
  await expect.poll(async () => Number(await pane.getAttribute('data-arrivals'))).toBeGreaterThan(0);
  const all = JSON.parse((await pane.getAttribute('data-middles'))!) as Record<string, [number, number]>;
  const [x, y] = Object.values(all)[at]!;
  return [box.x + x, box.y + y];
}

async function click(page: Page, at: number): Promise<void> {
  const [x, y] = await middle(page, at);
  await page.mouse.move(x, y);
  await expect(page.getByTestId('under')).toBeVisible();
  await page.mouse.click(x, y);
}

test('flush from above: nothing else moves, it follows the size; removed it tells what goes with it; an empty part is chosen', async ({
  page,
  bench,
}) => {
  await bench.signUp();
  await placed(page);
  await page.getByRole('link', { name: 'Motion' }).click();
  await page.getByRole('navigation', { name: 'Views' }).getByRole('button', { name: 'Top', exact: true }).click();
  await click(page, 0);
  await page.keyboard.press('r');
  await click(page, 1);
  const joining = page.getByTestId('joining');
  // both look up: flush is guessed, and a key turns that
  await expect(joining).toContainText('looking the same way');
  await expect(joining).toContainText(/Block · face · flat.*Wheel · face · flat/);
  await page.keyboard.press('w');
  await expect(joining).toContainText('looking against each other');
  await joining.getByRole('button', { name: /coincident/ }).click();
  await page.getByRole('option', { name: 'flush' }).click();
  await expect(joining).toContainText('looking the same way');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Relations of parts')).toContainText('flush');
  await click(page, 1);
  await expect(desk(page)).toContainText('now at 80 0 34 mm, turned 0 0 0');

  await page.getByRole('link', { name: 'Values' }).click();
  const high = page.getByLabel('Expression of high', { exact: true });
  await high.fill('44');
  await high.press('Enter');
  // what is typed over a length is a length
  await expect(high).toHaveValue('44 mm');
  await page.getByRole('link', { name: 'Bench' }).click();
  await page.getByRole('tab', { name: /Parts/ }).click();
  await placements(page).getByRole('button', { name: 'Wheel' }).click();
  await expect(desk(page)).toContainText('now at 80 0 38 mm, turned 0 0 0');
  await placements(page).getByRole('button', { name: 'Nothing yet' }).click();
  await expect(desk(page)).toContainText('free to go anywhere');
  await placements(page).getByRole('button', { name: 'Wheel' }).click();
  await desk(page).getByRole('button', { name: 'remove' }).click();
  await expect(page.getByText('Taken away with it, since it stood on it: Flush 1.')).toBeVisible();
});

test('what is pulled shifts without turning, and is kept where it was pulled to', async ({ page, bench }) => {
  await bench.signUp();
  await placed(page);
  await page.getByRole('link', { name: 'Motion' }).click();
  await page.getByRole('navigation', { name: 'Views' }).getByRole('button', { name: 'Top', exact: true }).click();
  const [x, y] = await middle(page, 1);
  await page.mouse.move(x, y);
  await expect(page.getByTestId('under')).toBeVisible();
  await page.mouse.down();
  await page.mouse.move(x + 30, y - 90, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByTestId('pose')).toContainText('Moved');
  await click(page, 1);
  const now = /now at [-\d.\s]+ mm, turned 0\s+0\s+0/;
  await expect(desk(page)).toContainText(now);
  const pulled = now.exec((await desk(page).textContent())!)![0];
  expect(pulled).not.toMatch(/now at 80 /);

  await page.keyboard.press('Escape');
  await click(page, 0);
  await page.keyboard.press('j');
  // both are chosen, and shown joined, before they are told to be kept
  await click(page, 1);
  await page.getByRole('button', { name: /move into place/ }).click();
  await page.getByRole('option', { name: 'keep where they are' }).click();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('pose')).toContainText('At rest');
  await click(page, 1);
  await expect(desk(page)).toContainText(pulled);
  await page.reload();
  await page.getByRole('navigation', { name: 'Views' }).getByRole('button', { name: 'Top', exact: true }).click();
  await click(page, 1);
  await expect(desk(page)).toContainText(pulled);
});
