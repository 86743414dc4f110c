// `npm run demo`: fresh demo data, then the server on it.
import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { builtStamp, ensureBuilt, ensureInstalled, serve } from './prepare.mjs';

/** The story as it was told last, untouched, so that a second start on the same day need not tell it again. */
const TOLD = 'build/demo-data';

ensureInstalled();
ensureBuilt();
const folder = process.env.DATA_DIR ?? 'data/demo';
const wanted = [
  builtStamp(),
  new Date().toISOString().slice(0, 10),
  process.env.PORT,
  process.env.PUBLIC_URL,
].join(' ');
const stamp = path.join(TOLD, '.stamp');
if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== wanted) {
  rmSync(TOLD, { recursive: true, force: true });
  console.log('Making demo data…');
  execFileSync('npx', ['tsx', '--conditions=react-server', 'demo/make-demo.ts'], {
    stdio: 'inherit',
    env: { ...process.env, DATA_DIR: TOLD },
  });
  writeFileSync(stamp, wanted);
} else {
  console.log(
    'Fresh demo data. Sign in as ida.roe@tern-quill.example; the sign-in page says the password.',
  );
}
rmSync(folder, { recursive: true, force: true });
cpSync(TOLD, folder, { recursive: true });
serve({ DATA_DIR: folder });
