// `npm run demo`: fresh demo data, then the server on it.
import { execFileSync } from 'node:child_process';
import { ensureBuilt, ensureInstalled, serve } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const environment = { DATA_DIR: process.env.DATA_DIR ?? 'data/demo' };
execFileSync('npx', ['tsx', '--conditions=react-server', 'demo/make-demo.ts'], { stdio: 'inherit', env: { ...process.env, ...environment } });
serve(environment);
