import { chromium } from '@playwright/test';
import { buildServer } from '@helb/scripts/build-server.ts';
import config from '../playwright.config.ts';
import { Bench } from './house.ts';
import { House } from './running-house.ts';
await buildServer();
const house = await House.build();
const browser = await chromium.launch(config.use?.launchOptions ?? {});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: house.address });
page.on('pageerror', (e) => console.log('FAULT', e.message));
page.setDefaultTimeout(8000);
const bench = new Bench(page, house);
const shot = (name: string) => page.screenshot({ path: `/tmp/shots/${name}.png` });
const verb = async (name: string) => {
  await bench.press('Space');
  await page.getByLabel('Search verbs').fill(name);
  await bench.press('Enter');
};
try {
  await bench.signUp();
  await bench.newProject();
  await bench.sketchOnTop();
  await (await import(process.argv[2]!)).default({ page, bench, shot, verb });
} catch (e) {
  console.log('ERR', e);
  await shot('error');
} finally {
  await browser.close();
  await house.close();
}
