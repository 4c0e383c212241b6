import { defineConfig } from '@playwright/test';

/** What Debian's browser needs to run here: no graphics card, no home of its own, nothing sent anywhere. */
export const FLAGS: readonly string[] = [
  '--no-sandbox',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-first-run',
  '--disable-quic',
];

/**
 * For journeys: a software renderer draws their pages, and half of its time went into smoothing and putting layers together.
 * Not for pictures that are looked at: lines have steps, and what lies below other things has holes.
 */
const QUICK: readonly string[] = [
  '--webgl-antialiasing-mode=none',
  '--disable-gpu-rasterization',
  '--disable-gpu-compositing',
];

/** Two at a time: one waits for its page often enough that two cores carry both. */
export default defineConfig({
  testDir: 'e2e',
  workers: 2,
  // a busy CI machine gets a second try; a test that needs it is listed as flaky
  retries: process.env['CI'] ? 1 : 0,
  timeout: 120_000,
  expect: { timeout: 20_000 },
  outputDir: 'test-results',
  use: {
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    trace: 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [...FLAGS, ...QUICK],
    },
  },
});
