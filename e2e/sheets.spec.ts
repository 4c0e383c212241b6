import { execFileSync } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expect, test } from './house.ts';

test.beforeEach(async ({ bench }) => {
  await bench.signUp();
  await bench.newDemo();
});

const sheet = (page: Page) => page.getByLabel('Sheet', { exact: true });
const view = (page: Page, name: string) => page.getByRole('button', { name: `View ${name}`, exact: true });
const row = (page: Page, name: string) =>
  page.getByLabel('Sheets of the project').getByRole('button', { name, exact: true });

async function toSheets(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await expect(sheet(page)).toHaveAttribute('data-drawn', 'true', { timeout: 60_000 });
}
async function saved(page: Page, name: string): Promise<string> {
  // all sheets in one are drawn first
  const download = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name, exact: true }).click();
  return (await download).path();
}
/** Middle and size of a view on the screen. */
async function place(page: Page, name: string) {
  const box = (await view(page, name).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, width: box.width };
}

test('a sheet of the bearing: its section, folded out of it, its files', async ({ page }) => {
  await toSheets(page);
  await expect(sheet(page).getByText('A–A')).toBeVisible();
  await expect(sheet(page).getByText('Aluminium 6082')).toBeVisible();
  const [top, cut] = [await place(page, 'from above'), await place(page, 'cut: Through the shaft')];
  // in first angle what is seen from the front stands over what is seen from above, and in line with it
  expect(cut.y).toBeLessThan(top.y);
  await page.getByRole('button', { name: 'projection: first angle' }).click();
  await page.getByRole('option', { name: 'third angle' }).click();
  await expect.poll(async () => (await place(page, 'cut: Through the shaft')).y).toBeGreaterThan(top.y);
  const pdf = await saved(page, 'PDF');
  expect(execFileSync('pdfinfo', [pdf], { encoding: 'utf8' })).toMatch(/Page size:\s+841\.89 x 595\.27\d* pts \(A4\)/);
  expect(execFileSync('pdftotext', [pdf, '-'], { encoding: 'utf8' })).toContain('Bearing bracket');
  expect(execFileSync('ezdxf', ['audit', await saved(page, 'DXF')], { encoding: 'utf8' })).toContain('No errors found');
  expect(await readFile(await saved(page, 'SVG'), 'utf8')).toContain('width="297mm" height="210mm"');
  const all = await saved(page, 'all in one PDF file');
  expect(execFileSync('pdfinfo', [all], { encoding: 'utf8' })).toMatch(/Pages:\s+4\n/);
});

test('a part is drawn at once; views are added, dragged, put back and removed', async ({ page }) => {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: 'Draw Rail' }).click();
  await expect(row(page, 'Rail')).toHaveAttribute('aria-current', 'true');
  await expect(view(page, 'from the front')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByLabel('Views of the sheet').getByRole('listitem')).toHaveCount(4);
  await view(page, 'from the front').click();
  await page.getByRole('button', { name: 'from its right', exact: true }).click();
  await expect(view(page, 'from the front, from its right')).toBeVisible();
  // dragged down along its line only
  const before = await place(page, 'from the front, from its right');
  await page.mouse.move(before.x, before.y);
  await page.mouse.down();
  await page.mouse.move(before.x - 30, before.y + 40, { steps: 4 });
  await page.mouse.up();
  await expect
    .poll(async () => Math.round((await place(page, 'from the front, from its right')).x))
    .toBeLessThan(before.x - 20);
  expect((await place(page, 'from the front, from its right')).y).toBeCloseTo(before.y, 0);
  await page.getByRole('button', { name: 'put back' }).click();
  await expect.poll(async () => (await place(page, 'from the front, from its right')).x).toBeCloseTo(before.x, 0);
  // with the view goes what is folded out of it
  await page.getByRole('button', { name: 'Remove the view from the front', exact: true }).click();
  await expect(page.getByLabel('Views of the sheet').getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByLabel('Views of the sheet').getByRole('listitem')).toHaveCount(5);
  await page.getByRole('textbox', { name: 'Checked' }).fill('the village');
  await page.getByRole('textbox', { name: 'Checked' }).press('Enter');
  await expect(sheet(page).getByText('the village')).toBeVisible();
});

test('all parts as one file, where they stand; what they are made of and cut from', async ({ page }) => {
  await page.getByRole('link', { name: 'Output' }).click();
  const whole = async (format: string): Promise<string> => {
    const download = page.waitForEvent('download', { timeout: 120_000 });
    await page.getByLabel(`Download ${format} of All parts, as they are placed`).click();
    return (await download).path();
  };
  expect(await readFile(await whole('STEP'), 'latin1')).toContain("'Left drum end'");
  // a zip file, and glTF
  expect((await readFile(await whole('3MF'))).subarray(0, 2).toString()).toBe('PK');
  expect((await readFile(await whole('glTF'))).subarray(0, 4).toString()).toBe('glTF');
  await page.getByRole('button', { name: 'count and measure' }).click();
  const cut = page.getByRole('table', { name: 'Cut list' });
  await expect(cut.getByRole('row', { name: /2 × Side plate/ })).toBeVisible({ timeout: 60_000 });
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'cut list as CSV' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toMatch(/^panel,.*,6,Side plate,2,/m);
  await page.emulateMedia({ media: 'print' });
  await expect(cut).toBeVisible();
  await expect(page.getByRole('link', { name: 'Bench' })).toBeHidden();
});

test('the sheet follows the part: a value changes, and the paper has other views', async ({ bench, page }) => {
  await toSheets(page);
  const before = await place(page, 'from above');
  await page.getByRole('link', { name: 'Values' }).click();
  const value = page.getByLabel('Expression of plate length', { exact: true });
  await value.fill('60 mm');
  await value.press('Enter');
  await toSheets(page);
  await expect
    .poll(async () => (await place(page, 'from above')).width / before.width, { timeout: 30_000 })
    .toBeLessThan(0.9);
  await bench.kept();
  await page.reload();
  await expect(sheet(page)).toHaveAttribute('data-drawn', 'true', { timeout: 60_000 });
});

test('the whole taken apart, with numbers and its list of parts', async ({ page }) => {
  await toSheets(page);
  await row(page, 'The whole').click();
  const said = sheet(page);
  await expect(said.getByText('Throw wheel')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('Every part is seen where it has its number.')).toBeVisible();
  await expect(said.getByText('15', { exact: true })).toHaveCount(2);
  // put together, parts hide each other, and that is told
  const views = page.getByLabel('Views of the sheet').getByRole('listitem');
  await views
    .filter({ hasText: 'from the left' })
    .getByRole('button', { name: /Remove/ })
    .click();
  await views.filter({ hasText: 'from a corner' }).first().getByRole('slider').fill('0');
  await expect(page.getByLabel('Before it goes out')).toContainText('is not seen where parts have their numbers');
  // one begins another just so; without numbers there is no list
  await page.getByRole('button', { name: 'Draw the whole' }).click();
  await expect(said.getByText('Base plate')).toBeVisible({ timeout: 60_000 });
  await views.first().getByLabel('numbers').uncheck();
  await expect(said.getByText('Base plate')).toBeHidden();
});

test('a view cut open by half, and a detail of it larger', async ({ page }) => {
  await toSheets(page);
  await row(page, 'Crank knob').click();
  const cut = 'cut: Through the middle';
  await expect(view(page, cut)).toBeVisible({ timeout: 60_000 });
  const hatched = () => view(page, cut).locator('path').count();
  const half = await hatched();
  await page.getByRole('button', { name: 'Goes on as before' }).click();
  await expect(sheet(page).getByText('A–A')).toBeVisible();
  await page.getByRole('button', { name: 'goes on elsewhere' }).click();
  await expect(sheet(page).getByText('A–A')).toBeHidden();
  await expect.poll(hatched).toBe(half);
  await page.getByRole('button', { name: 'show a detail larger' }).click();
  const { x, y } = await place(page, cut);
  await page.mouse.click(x + 20, y);
  const detail = `a detail of: ${cut}`;
  await expect(view(page, detail)).toBeVisible();
  await expect(sheet(page).getByText('Z (4:1)')).toBeVisible();
  const before = (await place(page, detail)).width;
  await page.getByRole('button', { name: 'how large: 2 times as large' }).click();
  await page.getByRole('option', { name: '5 times as large' }).click();
  await expect(sheet(page).getByText(/^Z \(\d+:1\)$/)).not.toHaveText('Z (4:1)');
  const field = page.getByLabel('How far round its middle it reaches, mm');
  await field.fill('0');
  await field.press('Enter');
  await expect(page.getByText('Type how far the detail reaches')).toBeVisible();
  await field.fill('3');
  await field.press('Enter');
  await expect.poll(async () => (await place(page, detail)).width).not.toBe(before);
  // with its view goes the detail
  await page.getByRole('button', { name: `Remove the view ${cut}`, exact: true }).click();
  await expect(view(page, detail)).toBeHidden();
  await page.keyboard.press('Control+z');
  await expect(view(page, detail)).toBeVisible();
});

test('the title block is laid out: fields are moved, called otherwise, added and taken off, on all sheets', async ({
  page,
}) => {
  await toSheets(page);
  const field = (name: string) => page.getByRole('button', { name: `Field ${name}`, exact: true });
  const block = page.getByRole('region', { name: 'Title block' });
  // a field that is pressed on the paper is written into
  await field('Checked').click();
  await page.keyboard.type('the village');
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByText('the village')).toBeVisible();
  await expect(field('Mass')).toHaveCount(0);
  await block.getByRole('button', { name: 'lay it out' }).click();
  await field('Mass').click();
  await expect(field('Mass')).toHaveAttribute('aria-pressed', 'true');
  const wide = async (name: string) => (await field(name).boundingBox())!;
  const before = await wide('Mass');
  await block.getByRole('button', { name: 'wider', exact: true }).click();
  await expect.poll(async () => (await wide('Mass')).width).toBeGreaterThan(before.width);
  await block.getByRole('button', { name: 'down', exact: true }).click();
  await expect.poll(async () => (await wide('Mass')).y).toBeGreaterThan(before.y + before.height / 2);
  await block.getByLabel('called').fill('Weight');
  await block.getByLabel('called').press('Enter');
  await expect(sheet(page).getByText('Weight', { exact: true })).toBeVisible();
  // one of its own, with words that stand on every sheet
  await block.getByRole('button', { name: 'Add to row 4' }).click();
  await page.getByRole('option', { name: 'one of its own' }).click();
  await block.getByLabel('called').fill('Finish');
  await block.getByLabel('called').press('Enter');
  await block.getByLabel('says always').fill('oiled');
  await block.getByLabel('says always').blur();
  await expect(sheet(page).getByText('oiled', { exact: true })).toBeVisible();
  await row(page, 'Crank knob').click();
  await expect(sheet(page).getByText('A–A')).toBeHidden({ timeout: 60_000 });
  await expect(sheet(page).getByText('oiled', { exact: true })).toBeVisible();
  await block.getByRole('button', { name: 'done' }).click();
  await block.getByLabel('Finish').fill('waxed');
  await block.getByLabel('Finish').press('Enter');
  await expect(sheet(page).getByText('waxed', { exact: true })).toBeVisible();
  await block.getByRole('button', { name: 'lay it out' }).click();
  await field('Finish').click();
  await block.getByRole('button', { name: 'take off' }).click();
  await expect(sheet(page).getByText('waxed', { exact: true })).toBeHidden();
  await block.getByRole('button', { name: 'as usual again' }).click();
  await expect(field('Mass')).toBeVisible();
  await expect(field('Owner')).toHaveCount(0);
});

test('of a long part the middle is left out, so that it is drawn larger', async ({ page }) => {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.getByRole('button', { name: 'Draw Shaft' }).click();
  await expect(view(page, 'from the front')).toBeVisible({ timeout: 60_000 });
  const shown = page.getByLabel('Views of the sheet').getByRole('listitem').first();
  const scale = page.getByRole('button', { name: /^scale: / });
  const before = await scale.textContent();
  await page.getByRole('button', { name: 'Remove the view from a corner' }).click();
  await shown.getByLabel('middle left out').check();
  await expect(scale).not.toHaveText(before!);
  await expect(shown).not.toContainText('no stretch of it');
  // the view beside it stays in line: it leaves out the same
  const beside = page.getByLabel('Views of the sheet').getByRole('listitem').nth(1);
  await expect(beside.getByLabel('middle left out')).toBeChecked();
  await expect(beside.getByLabel('middle left out')).toBeDisabled();
  const above = page.getByLabel('Views of the sheet').getByRole('listitem').nth(2);
  await above.getByLabel('middle left out').check();
  await expect(above).toContainText('no stretch of it is long and the same all along');
});

test('the whole is cut open at a section of a part that is placed; shafts stay whole', async ({ page }) => {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await row(page, 'The whole').click();
  await expect(view(page, 'from the front')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Through the shaft of Outer bearing' }).click();
  await expect(view(page, 'cut: Through the shaft of Outer bearing')).toBeVisible({ timeout: 60_000 });
  await expect(sheet(page).getByText('A–A')).toBeVisible();
  const views = page.getByLabel('Views of the sheet');
  await views.getByRole('button', { name: 'leave a part whole' }).click();
  await page.getByRole('option', { name: 'Shaft', exact: true }).click();
  await expect(views.getByRole('button', { name: 'Cut Shaft too' })).toBeVisible();
  await views.getByRole('button', { name: 'Cut Shaft too' }).click();
  await expect(views.getByRole('button', { name: 'Cut Shaft too' })).toHaveCount(0);
});

test('on a sheet of the whole a number and the circle of a detail are dragged; a size between two parts is told', async ({
  page,
}) => {
  await page.getByRole('link', { name: 'Sheets' }).click();
  await row(page, 'The whole').click();
  await expect(view(page, 'from the front')).toBeVisible({ timeout: 60_000 });
  const grip = (name: string) => page.getByRole('button', { name, exact: true }).locator('> rect');
  const at = async (name: string) => {
    const box = (await grip(name).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  async function drag(name: string, dx: number, dy: number) {
    const { x, y } = await at(name);
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + dx, y + dy, { steps: 4 });
    await page.mouse.up();
    await expect.poll(async () => (await at(name)).x - x).toBeCloseTo(dx, 0);
    expect((await at(name)).y - y).toBeCloseTo(dy, 0);
  }
  await drag('number 1', 50, 30);
  await page.getByRole('button', { name: 'numbers where there is room' }).click();
  await expect(page.getByRole('button', { name: 'numbers where there is room' })).toHaveCount(0);

  const front = (await view(page, 'from the front').boundingBox())!;
  await page.getByRole('button', { name: 'a size', exact: true }).click();
  // both uprights of the near side plate
  for (const share of [0.075, 0.925])
    await page.mouse.click(front.x + share * front.width, front.y + 0.6 * front.height);
  await page.getByLabel('What it could say').getByRole('button', { name: 'Distance 280' }).click();
  await expect(page.getByRole('button', { name: 'Distance 280', exact: true })).toBeVisible();
  // drawn apart what is between parts tells nothing any more, and says so; what is of one part stays
  const drawnApart = page.getByLabel('Views of the sheet').getByRole('listitem').nth(1).getByRole('slider');
  await drawnApart.fill('0.5');
  await expect(page.getByText('Its view draws apart what this is between')).toHaveCount(1);
  await expect(page.getByRole('button', { name: 'Distance 280', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Its view draws apart what this is between')).toHaveCount(0);

  // where all is drawn apart and slanted a note points to what is picked; for a size nothing can be picked there
  const corner = (await view(page, 'from a corner, drawn apart').boundingBox())!;
  const edge = [corner.x + 0.29 * corner.width, corner.y + 0.62 * corner.height] as const;
  await page.getByRole('button', { name: 'a size', exact: true }).click();
  await page.mouse.click(...edge);
  await expect(page.getByText('1 picked')).toHaveCount(0);
  await page.getByRole('button', { name: 'leave' }).click();
  await page.getByRole('button', { name: 'a note', exact: true }).click();
  await page.mouse.click(...edge);
  await expect(page.getByRole('button', { name: 'Note Note', exact: true })).toBeVisible();
  await page.getByLabel('Text of the note').fill('Glued');
  await page.getByLabel('Text of the note').blur();
  await expect(page.getByRole('button', { name: 'Note Glued', exact: true })).toBeVisible();

  await page.getByRole('button', { name: 'show a detail larger' }).click();
  const { x, y } = await place(page, 'from the front');
  await page.mouse.click(x, y);
  await expect(view(page, 'a detail of: from the front')).toBeVisible();
  await drag('circle of the detail Z', 15, -10);
  // with its circle the detail goes
  await page.getByRole('button', { name: 'circle of the detail Z', exact: true }).press('Delete');
  await expect(view(page, 'a detail of: from the front')).toHaveCount(0);
});
