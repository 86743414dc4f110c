// Builds what runs: the worker threads, the server in front, and the pages. `npx tsx scripts/build.ts`
import { execFileSync } from 'node:child_process';
import { build } from 'esbuild';
import { buildWorkers } from './build-workers';

await buildWorkers();
await build({
  entryPoints: ['server.ts'],
  outfile: 'build/server.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  packages: 'external',
  logLevel: 'warning',
});
execFileSync('npx', ['next', 'build'], {
  stdio: 'inherit',
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});
