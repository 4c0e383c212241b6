import { readFile } from 'node:fs/promises';
import { armAndPost, STANDS } from './arm-and-post.ts';
import { expect, test } from './house.ts';
import { openFile } from './plate.ts';

test('a study of an arm is told, run, stepped through and read; what is changed makes it out of date, undo does not', async ({
  page,
  bench,
}) => {
  await bench.signUp();
  await openFile(page, armAndPost().project);
  await page.getByRole('link', { name: 'Motion' }).click();
  await page.getByRole('button', { name: '+ study a motion' }).click();
  const card = page.getByTestId('study-Study 1');
  const tell = async (label: string, text: string) => {
    await card.getByRole('button', { name: label }).press('Enter');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  await tell('Beginning of Study 1', '-20 deg');
  await tell('End of Study 1', '70 deg');
  await tell('Seconds of Study 1', '3');
  await tell('Steps of Study 1', '45');
  await card.getByRole('button', { name: 'Law of Study 1' }).click();
  await page.getByRole('option', { name: 'as a harmonic' }).click();
  const run = card.getByRole('button', { name: 'Run Study 1' });
  await run.click();
  const pane = page.getByTestId('study-pane');
  const now = page.getByTestId('study-now');
  await expect(now).toHaveText('0 s · -20 deg');

  // nothing touches yet: it goes through
  await expect(card).toContainText('nothing is told to touch yet');
  await expect(card).not.toContainText('It stops');
  await pane.getByLabel('Time of the study').fill('30');
  const at = -20 + (90 * (1 - Math.cos((Math.PI * 2) / 3))) / 2;
  await expect(now).toHaveText(`2 s · ${Number(at.toFixed(2))} deg`);
  await pane.getByRole('button', { name: 'One pose back' }).click();
  await expect(now).toContainText('1.933 s');

  // how far they are apart at the beginning: the nearer corner from the upper side of the arm
  await pane.getByRole('button', { name: '+ chart' }).click();
  const added = pane.getByRole('button', { name: 'What the chart shows: speed' });
  await added.click();
  await page.getByRole('option', { name: 'distance', exact: true }).click();
  await expect(page.getByTestId('chart-Base to Post').locator('figcaption')).toContainText('70 mm');
  await pane.getByRole('button', { name: 'To what' }).click();
  await page.getByRole('option', { name: 'Arm' }).click();
  await pane.getByRole('button', { name: 'From what' }).click();
  await page.getByRole('option', { name: 'Post' }).click();
  await page.getByTestId('contacts').getByRole('button', { name: 'let everything touch' }).click();
  await expect(pane).toContainText('out of date');
  await run.click();
  await expect(card).toContainText('It stops at');
  const said = /It stops at ([\d.]+) s: Arm stands against Post\./.exec(await card.innerText())!;
  const share = (STANDS + 20) / 90;
  expect(Number(said[1])).toBeCloseTo((3 * Math.acos(1 - 2 * share)) / Math.PI, 3);
  const apart = [
    [30, 30],
    [50, 30],
  ].map(([x, y]) => Math.hypot(x!, y!) * Math.sin(Math.atan2(y!, x!) + Math.PI / 9) - 4);
  await expect(page.getByTestId('chart-Post to Arm').locator('figcaption')).toContainText(
    Number(Math.min(...apart).toFixed(3)).toString(),
  );

  // how near they come: with what they stop at they touch when they stop
  await pane.getByRole('button', { name: '+ how near' }).click();
  const nearest = page.getByTestId('nearest');
  await expect(nearest).toContainText(`and Arm touch at ${said[1]} s.`);
  await nearest.getByRole('button', { name: 'may not come nearer than …' }).click();
  await expect(nearest).toContainText(`touch at ${said[1]} s, where 1 mm is asked for.`);
  await nearest.getByRole('button', { name: /^Show / }).click();
  await expect(page.getByTestId('study-now')).toContainText(`${said[1]} s`);
  await expect(pane).not.toContainText('out of date');

  // a file with all of it
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    pane.getByRole('button', { name: 'CSV' }).click(),
  ]);
  const rows = (await readFile(await download.path(), 'utf8')).trim().split('\r\n');
  expect(rows[0]).toBe('time (s),Hinge turn (deg),Hinge turn (deg),Post to Arm (mm)');
  expect(Number(rows.at(-1)!.split(',')[1])).toBeCloseTo(STANDS, 5);
  expect(Number(rows.at(-1)!.split(',')[3])).toBeCloseTo(0, 5);

  await tell('Seconds of Study 1', '5');
  await expect(pane).toContainText('out of date');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(pane).not.toContainText('out of date');

  // what it can not do is said; over a reload the study is there and is run again
  await tell('Steps of Study 1', '2.5');
  await run.click();
  await expect(card.getByRole('alert')).toContainText('a whole number from 1 to 2000');
  await tell('Steps of Study 1', '20');
  await bench.kept();
  await page.reload();
  await run.click();
  await expect(card).toContainText('It stops at');
  await card.getByRole('button', { name: 'Remove Study 1' }).click();
  await expect(pane).toHaveCount(0);
});
