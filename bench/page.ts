import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { buildServer } from '@helb/scripts/build-server.ts';
import { buildWeb, WEB } from '@helb/scripts/build-web.ts';
import { House } from '@helb/e2e/running-house.ts';
import config from '../playwright.config.ts';
import { heldFigures } from './held.ts';
import { median, type Figure } from './measure.ts';
import { pickFigures } from './picking.ts';

/** Compressed sizes of what the browser downloads, kB. */
async function sizes(): Promise<Figure[]> {
  const assets = join(WEB, 'assets');
  const names = await readdir(assets);
  const size = async (pattern: RegExp) => {
    const files = names.filter((name) => pattern.test(name) && name.endsWith('.br'));
    const bytes = await Promise.all(files.map(async (name) => (await stat(join(assets, name))).size));
    return bytes.reduce((sum, n) => sum + n, 0) / 1000;
  };
  const figure = (name: string, value: number, aim: string, most: number | null): Figure => ({
    name: `page: ${name}, compressed`,
    value,
    unit: 'kB',
    floor: null,
    ratio: null,
    aim,
    met: most === null ? null : value <= most,
  });
  return [
    figure('kernel', await size(/\.wasm\./), 'at most 6000 kB, cached for ever', 6000),
    figure('engine worker', await size(/^engine\.worker/), '', null),
    figure('three.js, in the bench only', await size(/^three/), '', null),
    figure('shelf: page, Vue and styles', await size(/^(index|vue)-/), 'at most 100 kB: no kernel, no three.js', 100),
  ];
}

async function openDemo(page: Page, address: string): Promise<number> {
  await page.goto(address);
  await page.getByText('Seed sieve').first().waitFor();
  const start = performance.now();
  await page.getByText('Seed sieve').first().click();
  await page.locator('[data-bodies="1"]').waitFor({ timeout: 60_000 });
  return performance.now() - start;
}

/** From Enter in a chip until the frame with the new mesh is drawn, and how much of that the engine took (ms). */
async function edits(page: Page): Promise<{ total: number; engine: number }> {
  const totals: number[] = [];
  const engines: number[] = [];
  for (let k = 0; k < 12; k++) {
    await page
      .getByRole('button', { name: /^distance: / })
      .first()
      .click();
    const field = page.getByRole('textbox', { name: 'distance' });
    const view = page.getByLabel('View', { exact: true });
    // typing previews the number already: measured is from the last key to the frame
    const before = Number(await view.getAttribute('data-arrivals'));
    const took = await field.evaluate(
      (input: HTMLInputElement, [text, arrivals]) =>
        new Promise<[number, number]>((resolve) => {
          const pane = document.querySelector('[data-arrivals]')!;
          const started = performance.now();
          const look = () =>
            Number(pane.getAttribute('data-arrivals')) > Number(arrivals)
              ? requestAnimationFrame(() =>
                  resolve([performance.now() - started, Number(pane.getAttribute('data-took'))]),
                )
              : requestAnimationFrame(look);
          input.value = String(text);
          input.dispatchEvent(new Event('input', { bubbles: true }));
          look();
        }),
      [`${8 + (k + 1) / 8} mm`, before] as const,
    );
    await field.press('Escape');
    await page.waitForTimeout(400);
    if (k >= 4) {
      totals.push(took[0]);
      engines.push(took[1]);
    }
  }
  return { total: median(totals), engine: median(engines) };
}

export async function pageFigures(): Promise<Figure[]> {
  await Promise.all([buildServer(), buildWeb()]);
  const house = await House.build();
  let browser: Browser | undefined;
  try {
    browser = await chromium.launch(config.use?.launchOptions ?? {});
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    // the runner of TypeScript names functions by a helper that the page does not have
    await page.addInitScript('globalThis.__name = (named) => named');
    await page.goto(house.address);
    await page.getByLabel('Name').fill('demo');
    await page.getByLabel('Password').fill('seed-sieve-demo');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByText('Seed sieve').first().waitFor();
    const cold = await openDemo(page, house.address);
    const warm = await openDemo(page, house.address);
    const edit = await edits(page);
    return [
      ...(await sizes()),
      {
        name: 'page: open the demo, cold (kernel downloaded and compiled)',
        value: cold,
        unit: 'ms',
        floor: warm,
        ratio: cold / warm,
        aim: '',
        met: null,
      },
      {
        name: 'page: from a changed chip to the frame with the new mesh (no GPU here)',
        value: edit.total,
        unit: 'ms',
        floor: edit.engine,
        ratio: edit.total / edit.engine,
        aim: '1.5 x the engine plus two frames of a browser without a GPU',
        met: edit.total <= 1.5 * edit.engine + 2 * 16 + 34,
      },
      ...(await heldFigures(page)),
      ...(await pickFigures(page, house.address)),
    ];
  } finally {
    await browser?.close();
    await house.close();
  }
}
