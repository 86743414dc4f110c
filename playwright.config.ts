import { defineConfig } from '@playwright/test';

const PORT = 4187;

export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  timeout: 120_000,
  // A busy machine draws late: what is looked for is waited for, and nothing is slower for it.
  expect: { timeout: 20_000 },
  use: {
    baseURL: `http://localhost:${String(PORT)}`,
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Oslo',
    // What moves is not what is tested.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: {
    command: 'node scripts/demo.mjs',
    url: `http://localhost:${String(PORT)}/healthz`,
    timeout: 180_000,
    env: {
      PORT: String(PORT),
      PUBLIC_URL: `http://localhost:${String(PORT)}`,
      DATA_DIR: 'data/e2e',
      LOG_LEVEL: 'warn',
    },
  },
});
