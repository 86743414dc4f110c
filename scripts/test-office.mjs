// `npm run test:office`: whether LibreOffice, which not every machine has, makes pages as it should, shut in.
import { spawnSync } from 'node:child_process';
import { ensureInstalled } from './prepare.mjs';

const PACKAGES = [
  'libreoffice-writer-nogui',
  'libreoffice-impress-nogui',
  'fonts-liberation',
  'poppler-utils',
];

function run(command, args, env = process.env) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', env });
  if (error !== undefined || status !== 0) {
    console.error(`${command} did not end well${error === undefined ? '' : `: ${error.message}`}.`);
    process.exit(1);
  }
}

ensureInstalled();
if (spawnSync('sh', ['-c', 'command -v soffice']).status !== 0) {
  if (process.getuid?.() !== 0) {
    console.error(`LibreOffice is not here. As root: apt install ${PACKAGES.join(' ')}`);
    process.exit(1);
  }
  run('apt-get', ['install', '--yes', '--no-install-recommends', ...PACKAGES]);
}
run('npx', ['vitest', 'run', '--project', 'office'], { ...process.env, TEST_OFFICE: '1' });
