import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { House } from './running-house.ts';
import { Bench } from './house.ts';
const house = await House.build();
const browser = await chromium.launch(config.use?.launchOptions ?? {});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: house.address });
page.on('pageerror', (e) => console.log('PAGEERROR', e.message, e.stack));
page.on('console', (m) => {
  if (m.type() === 'error') console.log('CONSOLE', m.text());
});
const bench = new Bench(page, house);
const shot = (name: string) => page.screenshot({ path: `/tmp/shots/${name}.png` });
const pause = (ms: number) => page.waitForTimeout(ms);
try {
  const { play } = await import(process.argv[2]!);
  await play({ page, bench, shot, pause });
} catch (e) {
  console.log(e);
  await shot('error');
} finally {
  await browser.close();
  await house.close();
}
