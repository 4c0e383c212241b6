// holds a browser and a house open; plays scripts sent over HTTP
import http from 'node:http';
import { chromium, expect } from '@playwright/test';
import { House } from './running-house.ts';
import { Bench } from './house.ts';
import { Hand } from './jobs/hand.ts';
const house = await House.build();
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run', '--disable-quic'] });
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true, baseURL: house.address, reducedMotion: 'reduce' });
const page = await context.newPage();
page.setDefaultTimeout(15_000);
let logs: string[] = [];
page.on('console', (m) => m.type() === 'error' && logs.push(`error: ${m.text().slice(0, 400)}`));
page.on('pageerror', (e) => logs.push(`PAGE ERROR: ${String(e.stack ?? e).slice(0, 800)}`));
const bench = new Bench(page, house);
const hand = new Hand(bench, { name: 'zz', today: 0, aim: 0 });
const shared: Record<string, unknown> = {};
const shot = async (file: string) => (await page.screenshot({ path: file }), file);
const words = async (selector = 'body') => (await page.locator(selector).first().innerText()).replace(/\n{2,}/g, '\n');
const AsyncFunction = (async () => {}).constructor as any;
http.createServer((request, response) => {
  let body = '';
  request.on('data', (d) => (body += d));
  request.on('end', async () => {
    logs = []; const out: string[] = []; const started = Date.now();
    const log = (t: unknown) => out.push(typeof t === 'string' ? t : JSON.stringify(t));
    try {
      const value = await new AsyncFunction('page','context','bench','hand','shared','shot','words','log','expect', body)(page, context, bench, hand, shared, shot, words, log, expect);
      if (value !== undefined) log(value);
    } catch (e: any) { log(`ERROR ${String(e?.message ?? e).slice(0, 1500)}`); }
    response.end(`${out.join('\n')}\n[${Date.now() - started} ms, ${hand.actions} actions]${logs.length ? `\n${logs.slice(0, 20).join('\n')}` : ''}\n`);
  });
}).listen(9201, '127.0.0.1', () => console.log('ready'));
