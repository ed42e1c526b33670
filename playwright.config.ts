import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { defineConfig } from '@playwright/test';

/** Without windows and what goes with them: a fifth faster than the whole browser. */
const SHELL = '/usr/bin/chromium-headless-shell';
const HEADLESS = existsSync(SHELL) ? SHELL : '/usr/bin/chromium';

const work = process.env.ESTRELLA_TEST_WORK ?? '.data-test';

export default defineConfig({
  testDir: 'e2e',
  tsconfig: './tsconfig.tests.json',
  testMatch: '**/*.spec.ts',
  workers: Number(process.env.ESTRELLA_BROWSERS ?? 2),
  retries: 0,
  timeout: 240_000,
  expect: { timeout: 20_000 },
  globalSetup: './e2e/support/global-setup.ts',
  reporter: [['list'], ['json', { outputFile: join(work, 'e2e.json') }]],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: HEADLESS,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
    acceptDownloads: true,
    screenshot: 'only-on-failure',
  },
});
