import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, expect, type BrowserContext, type Locator, type Page } from '@playwright/test';
import { House } from './running-house.ts';

let people = 0;

export const test = base.extend<{ bench: Bench }, { house: House; profile: BrowserContext }>({
  // one browser for all: what it has compiled of the library it need not compile again
  profile: [
    async ({ playwright, launchOptions }, use) => {
      const folder = await mkdtemp(join(tmpdir(), 'helb-browser-'));
      const context = await playwright.chromium.launchPersistentContext(folder, {
        ...launchOptions,
        viewport: { width: 1280, height: 800 },
        // a software renderer draws it: a quarter of the points is enough where nobody looks
        deviceScaleFactor: 0.5,
        // a camera that is there at once is not waited for: that it glides for those who like it is a journey of its own
        reducedMotion: 'reduce',
      });
      await use(context);
      await context.close();
      await rm(folder, { recursive: true });
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  // somebody new: nothing that a journey left is there in the next
  context: async ({ profile, house, actionTimeout }, use) => {
    profile.setDefaultTimeout(actionTimeout);
    profile.setDefaultNavigationTimeout(60_000);
    await use(profile);
    for (const page of profile.pages().slice(1)) await page.close();
    const [left] = profile.pages();
    const session = await profile.newCDPSession(left!);
    await left!.goto('about:blank');
    await session.send('Storage.clearDataForOrigin', { origin: house.address, storageTypes: 'all' });
    await session.detach();
    await profile.clearCookies();
    await profile.unrouteAll();
  },
  page: async ({ context }, use) => {
    const page = await context.newPage();
    await use(page);
    await page.close();
  },
  house: [
    async ({}, use) => {
      const house = await House.build();
      await use(house);
      await house.close();
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: async ({ house }, use) => use(house.address),
  bench: async ({ page, house }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    await use(new Bench(page, house));
    expect(faults).toEqual([]);
  },
});

export { expect };

/** What a person does on the bench, in words. Places on the canvas are pixels from its middle, y up. */
export class Bench {
  constructor(
    readonly page: Page,
    readonly house: House,
  ) {}

  /** Signs up as somebody new. */
  async signUp(): Promise<string> {
    const name = `person ${process.pid} ${++people}`;
    // at the door once is enough: the account's own journeys go through it
    const made = await this.page.request.post('/api/account', { data: { name, newPassword: 'long enough pw' } });
    expect([made.status(), made.ok() ? '' : await made.text()]).toEqual([201, '']);
    await this.page.goto('/');
    await expect(this.page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
    return name;
  }

  async newProject(): Promise<void> {
    await this.page.getByRole('button', { name: 'New project' }).click();
    await expect(this.page.getByText('No steps yet')).toBeVisible();
  }

  async newDemo(): Promise<void> {
    await this.page.getByRole('button', { name: 'Another copy of the demo' }).click();
    await this.bodies(1);
  }

  get canvas(): Locator {
    return this.page.getByTestId('sketch-canvas');
  }

  /** Somebody new with a project of their own and its first sketch, on Top. */
  async newSketch(): Promise<void> {
    await this.signUp();
    await this.newProject();
    await this.sketchOnTop();
  }

  /** Opens a new sketch on Top and waits until it stands square on. */
  async sketchOnTop(): Promise<void> {
    await this.turning(() => this.page.getByTestId('verb-sketch-top').click());
    await expect(this.canvas).toBeVisible();
  }

  /** Does something that moves the camera, and waits until it has moved and stands still again. */
  async turning(action: () => Promise<unknown>): Promise<void> {
    const before = await this.frames();
    await action();
    // where it stood right already no frame comes
    await expect
      .poll(() => this.frames(), { timeout: 3000, intervals: [50] })
      .not.toBe(before)
      .catch(() => undefined);
    await this.settleView();
  }

  fit = (): Promise<void> => this.turning(() => this.page.getByRole('button', { name: 'Fit', exact: true }).click());

  /** The view of the part, or of all parts. */
  get view(): Locator {
    return this.page.locator('section[data-drawn]');
  }

  private async frames(): Promise<string> {
    return (await this.view.getAttribute('data-drawn')) ?? '';
  }

  private get moving(): Promise<string | null> {
    return this.view.getAttribute('data-moving');
  }

  /** Waits until the camera stands still: it has come where it was to go, and no frame was drawn for a quarter of a second. */
  async settleView(): Promise<void> {
    let before = '';
    let still = 0;
    await expect
      .poll(
        async () => {
          const now = await this.frames();
          still = now === before && (await this.moving) === '0' ? still + 1 : 0;
          before = now;
          return still;
        },
        { intervals: [80] },
      )
      .toBeGreaterThanOrEqual(3);
  }

  async at(x: number, y: number): Promise<readonly [number, number]> {
    const box = (await this.page.getByLabel('View', { exact: true }).boundingBox())!;
    return [box.x + box.width / 2 + x, box.y + box.height / 2 - y];
  }

  async move(x: number, y: number): Promise<void> {
    await this.page.mouse.move(...(await this.at(x, y)), { steps: 3 });
  }

  async click(x: number, y: number): Promise<void> {
    await this.move(x, y);
    await this.page.mouse.click(...(await this.at(x, y)));
  }

  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    await this.move(...from);
    await this.page.mouse.down();
    await this.page.mouse.move(...(await this.at(...to)), { steps: 8 });
    await this.page.mouse.up();
  }

  press = (key: string): Promise<void> => this.page.keyboard.press(key);

  /** Types into the number that is asked for on the canvas. */
  async answer(text: string, prompt = 'Size'): Promise<void> {
    const field = this.page.getByLabel(prompt, { exact: true });
    await expect(field).toBeFocused();
    await field.fill(text);
    await field.press('Enter');
    await expect(field).toHaveCount(0);
  }

  /** Searches a verb and does it. */
  async verb(name: string): Promise<void> {
    await this.press('Control+k');
    await this.page.getByLabel('Search verbs').fill(name);
    await this.press('Enter');
  }

  get desk(): Locator {
    return this.page.getByRole('complementary', { name: 'Desk' });
  }

  /** Changes a chip by its label. */
  async chip(label: string, text: string, at = 0): Promise<void> {
    await this.page
      .getByRole('button', { name: new RegExp(`^${label}: `) })
      .nth(at)
      .click();
    const field = this.page.getByRole('textbox', { name: label, exact: true });
    await field.fill(text);
    await field.press('Enter');
  }

  title = (): Locator => this.page.getByTestId('sketch-title');
  figure = (name: string): Locator => this.page.getByTestId(`figure-${name}`);

  async bodies(count: number): Promise<void> {
    await expect(this.page.getByLabel('View', { exact: true })).toHaveAttribute('data-bodies', `${count}`, {
      timeout: 60_000,
    });
  }

  async kept(): Promise<void> {
    await expect(this.page.getByTestId('saved')).toContainText('All kept');
  }

  async step(name: string, verb: string): Promise<void> {
    await this.page.getByLabel(`More for ${name}`, { exact: true }).click();
    await this.page.getByRole('menuitem', { name: verb }).click();
  }
}
