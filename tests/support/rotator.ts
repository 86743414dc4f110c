// Rotates the master key of a folder again and again until it is killed.
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import { rotateMasterKey } from '@/server/services/keys/rotate-master-key';

const config = readConfig({ DATA_DIR: process.argv[2] ?? '', LOG_LEVEL: 'silent' });
const { deps } = await createContainer(config, { demo: true, threads: 1, beside: true });
process.stdout.write('begun\n');
for (;;) {
  await rotateMasterKey(deps, config.masterKeyFile, { kind: 'system', id: null });
  process.stdout.write('rotated\n');
}
