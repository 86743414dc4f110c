// `npm run test:office`: whether LibreOffice, which not every machine has, makes pages as it should, shut in.
import { ensureInstalled, ensurePackages, run } from './prepare.mjs';

ensureInstalled();
ensurePackages('soffice', [
  'libreoffice-writer-nogui',
  'libreoffice-impress-nogui',
  'fonts-liberation',
  'poppler-utils',
]);
run('npx', ['vitest', 'run', '--project', 'office'], { ...process.env, TEST_OFFICE: '1' });
