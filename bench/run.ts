// `npm run bench [-- arrival compose content files kinds ledger lists own-machine people policy reading seals start]`:
// each figure against its limit in the same run.
// `npm run bench -- soak` takes an hour (MINUTES), and runs only where it is named.
// It, `arrival`, `compose`, `reading` and `start` need what was built.
// SIZE_MB sets the size of the file (1024 at first), ENTRIES that of the ledger (1,000,000).
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { buildWorkers } from '../scripts/build-workers';
import { arriving } from './arrival';
import { browserCipher } from './browser';
import { composing, dispatching } from './compose';
import { encrypting, firstPage } from './content';
import { protectedFiles, randomPage } from './files';
import { making } from './kinds';
import { ledger, ledgerScreen } from './ledger';
import { lists } from './lists';
import { ownMachine } from './own-machine';
import { bringingPeople } from './people';
import { deciding } from './policy';
import { crowd, details } from './reading';
import { sealing } from './seals';
import { soak } from './soak';
import { starting } from './start';

const parts: Readonly<Record<string, readonly ((folder: string) => Promise<void>)[]>> = {
  arrival: [arriving],
  compose: [dispatching, composing],
  content: [encrypting, firstPage],
  files: [protectedFiles, randomPage, browserCipher],
  kinds: [making],
  ledger: [ledger, ledgerScreen],
  lists: [lists],
  'own-machine': [ownMachine],
  people: [bringingPeople],
  policy: [deciding],
  reading: [details, crowd],
  seals: [sealing],
  start: [starting],
};
const onlyNamed: typeof parts = { soak: [soak] };
const wanted = process.argv.slice(2);
const folder = await mkdtemp(path.join(tmpdir(), 'embargo-bench-'));
await buildWorkers();
try {
  for (const name of wanted.length === 0 ? Object.keys(parts) : wanted) {
    for (const part of parts[name] ?? onlyNamed[name] ?? []) await part(folder);
  }
} finally {
  await rm(folder, { recursive: true, force: true });
}
