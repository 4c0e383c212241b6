import { defineConfig } from '@playwright/test';

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
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--no-first-run',
        '--disable-quic',
        // a software renderer draws these pages: half of the time went into smoothing and putting layers together
        '--webgl-antialiasing-mode=none',
        '--disable-gpu-rasterization',
        '--disable-gpu-compositing',
      ],
    },
  },
});
