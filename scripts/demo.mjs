// `npm run demo`: fresh demo data, then the server on it.
import { cpSync, rmSync } from 'node:fs';
import { ensureBuilt, ensureInstalled, ensureTold, serve, toldFolder } from './prepare.mjs';

ensureInstalled();
ensureBuilt();
const folder = process.env.DATA_DIR ?? 'data/demo';
if (!ensureTold())
  console.log(
    'Fresh demo data. Sign in as ida.roe@tern-quill.example; the sign-in page says the password.',
  );
rmSync(folder, { recursive: true, force: true });
cpSync(toldFolder(process.env.PORT), folder, { recursive: true });
serve({ DATA_DIR: folder });
