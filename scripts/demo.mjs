// `npm run demo`: fresh demo data, then the server on it.
import { cpSync, rmSync } from 'node:fs';
import { TOLD, ensureBuilt, ensureInstalled, ensureTold, serve } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const folder = process.env.DATA_DIR ?? 'data/demo';
if (!ensureTold())
  console.log(
    'Fresh demo data. Sign in as ida.roe@tern-quill.example; the sign-in page says the password.',
  );
rmSync(folder, { recursive: true, force: true });
cpSync(TOLD, folder, { recursive: true });
serve({ DATA_DIR: folder });
