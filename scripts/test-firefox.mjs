// `npm run test:firefox`: whether protected files are read in Firefox, which not every machine has.
import { ensureBuilt, ensureInstalled, ensurePackages, run } from './prepare.mjs';

ensureInstalled();
ensurePackages('firefox-esr', ['firefox-esr']);
ensureBuilt();
run('npx', ['vitest', 'run', '--project', 'firefox'], { ...process.env, TEST_FIREFOX: '1' });
