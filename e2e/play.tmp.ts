import { chromium } from '@playwright/test';
import config from '../playwright.config.ts';
import { House } from './running-house.ts';
const house = await House.build();
const browser = await chromium.launch(config.use!.launchOptions!);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: house.address, acceptDownloads: true });
page.on('console', (m) => ['error','warning'].includes(m.type()) && console.log('CONSOLE', m.text().slice(0, 300)));
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
const shot = (n: string) => page.screenshot({ path: `/tmp/shots/${n}.png` });
const pause = (ms: number) => page.waitForTimeout(ms);
try {
  await page.goto('/'); await page.getByLabel('Name').fill('demo'); await page.getByLabel('Password').fill('seed-sieve-demo');
  await page.getByRole('button', { name: 'Sign in' }).click(); await page.getByText('Seed sieve').first().waitFor();
  const { play } = await import(process.argv[2]!);
  await play({ page, shot, pause, house });
} catch (e) { console.log('ERR', e); await shot('failed'); }
finally { await browser.close(); await house.close(); }
