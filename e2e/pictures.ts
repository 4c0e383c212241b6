import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { buildServer, ROOT } from '@helb/scripts/build-server.ts';
import { buildWeb } from '@helb/scripts/build-web.ts';
import config, { FLAGS } from '../playwright.config.ts';
import { House } from './running-house.ts';

/** Takes the pictures of docs/screenshots anew, from the demo project only. */
const FOLDER = join(ROOT, 'docs/screenshots');

await Promise.all([buildServer(), buildWeb()]);
const house = await House.build();
const browser = await chromium.launch({ ...config.use?.launchOptions, args: [...FLAGS] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: house.address });
const shot = (name: string) => page.screenshot({ path: join(FOLDER, `${name}.png`) });
const pause = (ms: number) => page.waitForTimeout(ms);

try {
  await page.goto('/enter');
  await page.getByLabel('Name').fill('demo');
  await page.getByLabel('Password').fill('seed-sieve-demo');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('link', { name: 'Seed sieve', exact: true }).click();
  await page.locator('[data-bodies="1"]').waitFor({ timeout: 60_000 });
  await pause(2500);
  await page.mouse.move(612, 326);
  await pause(400);
  await shot('bench');
  await page.getByRole('link', { name: 'Helb' }).click();
  await pause(800);
  await shot('shelf');
  await page.getByRole('link', { name: 'Seed sieve', exact: true }).click();
  await page.locator('[data-bodies="1"]').waitFor();
  await sketchPictures(page);
  await page.getByLabel('More for Boss', { exact: true }).click();
  await page.getByRole('menuitem', { name: 'Extrude' }).click();
  await page.getByRole('button', { name: 'distance: 10 mm' }).last().click();
  await page.getByRole('textbox', { name: 'distance' }).fill('boss height * 2');
  await page.getByRole('textbox', { name: 'distance' }).press('Enter');
  await pause(1500);
  await shot('extrude');
  await page.keyboard.press('Escape');
  await drumPictures(page);
  await stepPictures(page);
  await wholePictures(page);
  await page.getByRole('link', { name: 'Values' }).click();
  await page.getByLabel('Name of plate thickness', { exact: true }).focus();
  await shot('values');
  await page.getByRole('link', { name: 'Output' }).click();
  await page.getByRole('button', { name: 'count and measure' }).click();
  await page.getByRole('table', { name: 'Cut list' }).waitFor({ timeout: 60_000 });
  await shot('output');
  await page.getByRole('link', { name: 'Sheets' }).click();
  await page.locator('[data-drawn="true"]').waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Distance 72', exact: true }).locator('> rect').click();
  await pause(300);
  await shot('sheets');
  await page.getByRole('link', { name: 'Checks' }).click();
  await page.getByLabel('Hard to change later').waitFor({ timeout: 120_000 });
  await shot('checks');
} finally {
  await browser.close();
  await house.close();
}

async function sketchPictures(on: Page): Promise<void> {
  await on.getByLabel('More for Foot outline').click();
  await on.getByRole('menuitem', { name: 'Open sketch' }).click();
  await on.mouse.move(660, 700);
  await pause(1500);
  await shot('sketch');
  // without the edge distances the holes can move
  for (let k = 0; k < 2; k++) {
    await on.locator('text[data-size]').filter({ hasText: 'edge distance' }).first().click();
    await on.keyboard.press('Escape');
    await on.keyboard.press('Delete');
    await pause(200);
  }
  await on.getByRole('button', { name: 'play', exact: true }).first().click();
  await on.mouse.move(660, 700);
  await pause(560);
  await shot('loose');
  await on.getByRole('button', { name: 'stop', exact: true }).click();
  await on.keyboard.press('Control+z');
  await on.keyboard.press('Control+z');
  await on.keyboard.press('l');
  await pause(1000);
}

/** Opens a part from the list of all parts. */
async function openPart(on: Page, name: string): Promise<void> {
  await on.getByRole('tab', { name: 'Parts' }).click();
  await on.getByRole('list', { name: 'Parts of the project' }).getByRole('button', { name, exact: true }).click();
}

/** Everything that is placed: apart, and moved with the way of a point. */
async function wholePictures(on: Page): Promise<void> {
  await on.getByRole('tab', { name: 'Parts' }).click();
  await on.getByTestId('make-up').waitFor({ timeout: 60_000 });
  await pause(2000);
  await on.getByRole('list', { name: 'Placements' }).getByRole('button', { name: 'Throw wheel' }).click();
  await on.getByLabel('Drawn apart').fill('0.5');
  await on.getByRole('button', { name: 'Fit', exact: true }).click();
  await on.mouse.move(700, 700);
  await pause(1200);
  await shot('parts');
  await on.getByLabel('Drawn apart').fill('0');
  await on.getByLabel('Show Left side').uncheck();
  await on.getByRole('link', { name: 'Motion' }).click();
  await pause(2500);
  await on.getByRole('button', { name: 'Back', exact: true }).click();
  await on.getByLabel('Drive Shaft turn to').fill('300 deg');
  await on.getByLabel('Drive Shaft turn to').press('Enter');
  await pause(1500);
  await on.getByRole('button', { name: 'Fit', exact: true }).click();
  await on.getByRole('button', { name: 'Run One turn' }).click();
  await on.getByTestId('study-pane').waitFor({ timeout: 60_000 });
  for (let k = 0; k < 20; k++) await on.getByRole('button', { name: 'One pose on' }).click();
  await on.getByRole('button', { name: 'Fit', exact: true }).click();
  await on.mouse.move(640, 20);
  await pause(1200);
  await shot('motion');
  await on.getByRole('button', { name: 'Close the study' }).click();
  await on.getByRole('link', { name: 'Bench' }).click();
  await openPart(on, 'Side plate');
  await on.getByLabel('among the others').check();
  await on.locator('[data-others="19"]').waitFor({ timeout: 60_000 });
  await on.getByLabel('More for Bolt holes').click();
  await on.getByRole('menuitem', { name: 'Open sketch' }).click();
  await on.mouse.move(660, 700);
  await pause(2500);
  await shot('taken');
  await on.keyboard.press('Escape');
  await on.keyboard.press('l');
}

/** The drum end: a settled profile with patterns, and the same with a size too many. */
async function drumPictures(on: Page): Promise<void> {
  await openPart(on, 'Drum end');
  await on.getByLabel('More for Disc outline').click();
  await on.getByRole('menuitem', { name: 'Open sketch' }).click();
  await on.mouse.move(660, 720);
  await pause(1800);
  await shot('profile');
  const rim = (await on.locator('[data-entity^="c"]').first().boundingBox())!;
  await on.mouse.click(rim.x + rim.width * 0.147, rim.y + rim.height * 0.147);
  await on.keyboard.press('d');
  await pause(300);
  await on.getByLabel('Size', { exact: true }).fill('110 mm');
  await on.keyboard.press('Enter');
  await pause(600);
  await shot('clash');
  await on.keyboard.press('Control+z');
  await on.keyboard.press('l');
  await pause(600);
}

/** A sketch that borrows, and a rounding in the making. */
async function stepPictures(on: Page): Promise<void> {
  await on.getByLabel('More for Collar').click();
  await on.getByRole('menuitem', { name: 'Open sketch' }).click();
  await on.mouse.move(660, 720);
  await pause(1800);
  await shot('borrowed');
  await on.keyboard.press('l');
  await openPart(on, 'Bearing bracket');
  await pause(2500);
  await on.mouse.move(740, 514, { steps: 3 });
  await on.mouse.click(740, 514);
  await on.keyboard.press('u');
  await pause(1200);
  await on.mouse.move(700, 600, { steps: 3 });
  await pause(600);
  await on.keyboard.press('Enter');
  await pause(600);
  await mendPicture(on);
  await openPart(on, 'Tray');
  await pause(3500);
  await shot('tray');
  await on.mouse.click(700, 700);
  await on.keyboard.press('i');
  await pause(1200);
  await shot('section');
  await on.getByTestId('sections').getByRole('button', { name: 'remove' }).last().click();
  await on.getByRole('button', { name: 'look: Shaded' }).click();
  await on.getByRole('option', { name: 'Wall thickness' }).click();
  await on.getByText('thinnest about').waitFor();
  await on.mouse.move(700, 700);
  await pause(600);
  await shot('walls');
  await on.getByRole('button', { name: 'look: Wall thickness' }).click();
  await on.getByRole('option', { name: 'Shaded' }).click();
}

/** The line whose edge was rounded is drawn otherwise: the step says what is gone and offers what may be meant. */
async function mendPicture(on: Page): Promise<void> {
  await on.getByLabel('More for Foot outline').click();
  await on.getByRole('menuitem', { name: 'Open sketch' }).click();
  await pause(1500);
  const boxes = await on
    .locator('[data-entity^="l"]')
    .evaluateAll((lines) => lines.map((line) => line.getBoundingClientRect().toJSON() as DOMRect));
  const low = boxes.reduce((a, b) => (b.y + b.height / 2 > a.y + a.height / 2 ? b : a));
  const y = low.y + low.height / 2;
  await on.mouse.click(low.x + low.width * 0.4, y);
  await on.keyboard.press('Delete');
  await on.keyboard.press('k');
  for (const [x, down] of [
    [low.x, 0],
    [low.x + low.width * 0.45, 34],
    [low.x + low.width, 0],
  ] as const) {
    await on.mouse.move(x, y + down, { steps: 3 });
    await on.mouse.click(x, y + down);
  }
  await on.keyboard.press('Escape');
  await pause(500);
  await on.getByTestId('verb-done').click();
  await on.mouse.move(700, 700);
  await pause(2500);
  await shot('mend');
  const undo = on.getByRole('button', { name: 'Undo' });
  while (await undo.isEnabled()) {
    await undo.click();
    await pause(150);
  }
}
