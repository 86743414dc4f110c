import { existsSync, realpathSync } from 'node:fs';
import { homedir } from 'node:os';
import path from 'node:path';
import type { Config } from '@/server/config/env';
import type { Health } from '@/server/health/health';
import { whyNotConfined } from '@/server/rendering/office/confine';
import type { Office } from '@/server/rendering/office/office-pages';

/** What is kept there is in memory and on no disk (tmpfs(5)). */
const IN_MEMORY = '/dev/shm';

/**
 * LibreOffice as this machine lets it be used; `null` where it is switched off, or could read what it
 * must not: then it is not used, and the operator is told why.
 */
export function officeOf(
  { office: program, dataDir, masterKeyFile }: Pick<Config, 'office' | 'dataDir' | 'masterKeyFile'>,
  health: Pick<Health, 'raise'>,
): Office | null {
  if (program === null) return null;
  const folders = [path.dirname(masterKeyFile), dataDir, process.cwd(), homedir()]
    .filter(existsSync)
    .map((each) => realpathSync(each));
  // What lies in another is emptied first: afterwards it is not there any more.
  const hidden = [...new Set(folders)].sort((one, other) => other.length - one.length);
  const why = existsSync(IN_MEMORY) ? whyNotConfined(hidden, program) : `there is no ${IN_MEMORY}`;
  if (why === null) return { program, scratch: IN_MEMORY, hidden };
  health.raise('office-unusable', why);
  return null;
}
