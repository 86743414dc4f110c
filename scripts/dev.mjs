// `npm run dev`: the demo's data, with pages and use cases that are compiled again when they change.
// `npm run dev -- --fresh` tells the demo's story anew first.
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import { SERVER, ensureInstalled } from './prepare.mjs';

ensureInstalled();
const folder = process.env.DATA_DIR ?? 'data/dev';
const environment = { ...process.env, DATA_DIR: folder, NEXT_TELEMETRY_DISABLED: '1' };
if (process.argv.includes('--fresh') || !existsSync(folder)) {
  execFileSync('npx', [
    'tsx',
    '-e',
    "import('./scripts/build-workers.ts').then((m) => m.buildWorkers())",
  ]);
  rmSync(folder, { recursive: true, force: true });
  console.log('Making demo data…');
  execFileSync('npx', ['tsx', '--conditions=react-server', 'demo/make-demo.ts'], {
    stdio: 'inherit',
    env: environment,
  });
}
const watching = spawn('npx', ['tsx', 'scripts/watch-workers.ts'], { stdio: 'inherit' });
const server = spawn('npx', ['tsx', 'watch', '--clear-screen=false', 'server.ts'], {
  stdio: 'inherit',
  env: { ...environment, ...SERVER.environment, NODE_ENV: 'development', RELOAD: '1' },
});
server.on('exit', (code) => {
  watching.kill();
  process.exit(code ?? 0);
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
