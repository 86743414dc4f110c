// Each worker has a demo of its own: what one test does is not seen by another that runs beside it.
import { test as base } from '@playwright/test';
import { DEMO_ADDRESSES } from '../../scripts/demo-address.mjs';

type Demo = (typeof DEMO_ADDRESSES)[number];

export const test = base.extend<{ demo: Demo }>({
  demo: async ({}, use, { parallelIndex }) => {
    const demo = DEMO_ADDRESSES[parallelIndex];
    if (demo === undefined) throw new Error(`No demo for worker ${String(parallelIndex)}.`);
    await use(demo);
  },
  baseURL: async ({ demo }, use) => use(process.env['DEMO_AT'] ?? demo.PUBLIC_URL),
});
