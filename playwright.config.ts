import { defineConfig } from '@playwright/test';
import { DEMO_ADDRESSES } from './scripts/demo-address.mjs';

export default defineConfig({
  testDir: 'tests/e2e',
  workers: DEMO_ADDRESSES.length,
  timeout: 240_000,
  // A busy machine draws late: what is looked for is waited for, and nothing is slower for it.
  expect: { timeout: 20_000 },
  use: {
    viewport: { width: 1280, height: 800 },
    timezoneId: 'Europe/Oslo',
    // What moves is not what is tested.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
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
  webServer: DEMO_ADDRESSES.map((address) => ({
    command: 'node scripts/demo.mjs',
    url: `${address.PUBLIC_URL}/healthz`,
    timeout: 180_000,
    env: { ...address, LOG_LEVEL: 'warn' },
    // What a server warns of is told where a test fails for it.
    stdout: 'pipe' as const,
  })),
});
