import 'server-only';
import { existsSync } from 'node:fs';
import { statfs } from 'node:fs/promises';
import { CLOCKS_APART } from '@/server/clock/steady-clock';
import { sayDamagedContents } from '@/server/services/documents/check-contents';
import type { Deps } from '@/server/services/base/deps';
import type { Reserve } from '@/server/storage/reserve';
import { RESERVE } from '@/server/storage/disk-blob-store';

/** Space below which somebody has to make room. */
const LOW = 2 * 1024 ** 3;

export type Around = {
  readonly masterKeyFile: string;
  readonly dataDir: string;
  /** How far the machine's clock lags behind the record, in ms; null: it is not asked. */ readonly behind:
    (() => number) | null;
  readonly reserve: Reserve;
};

/** Bytes that can still be written in a folder. */
async function freeSpace(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}

/** Looks at what the product rests on, so that Today and anyone who watches the server know before it fails. */
export async function lookAfter(
  deps: Pick<Deps, 'db' | 'health'>,
  { masterKeyFile, dataDir, behind, reserve }: Around,
): Promise<void> {
  const { health } = deps;
  await sayDamagedContents(deps);
  if (existsSync(masterKeyFile)) health.clear('master-key-gone');
  else health.raise('master-key-gone', masterKeyFile);
  const lag = behind?.() ?? 0;
  if (lag > CLOCKS_APART) health.raise('clock-behind', String(lag));
  else health.clear('clock-behind');
  const free = await freeSpace(dataDir);
  if (free >= LOW) reserve.take();
  if (free < RESERVE) health.raise('disk-full', String(free));
  else health.clear('disk-full');
  if (free < LOW && free >= RESERVE) health.raise('disk-low', String(free));
  else health.clear('disk-low');
}
