import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { House } from './running-house.ts';
const house = await House.build();
const browser = await chromium.launch(config.use?.launchOptions ?? {});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: house.address });
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()));
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
const shot = (name: string) => page.screenshot({ path: `/tmp/shots/${name}.png` });
const pause = (ms: number) => page.waitForTimeout(ms);
try {
  const { play } = await import(process.argv[2]!);
  await play({ page, shot, pause });
} catch (e) { console.log(e); await shot('error'); } finally {
  await browser.close();
  await house.close();
}
