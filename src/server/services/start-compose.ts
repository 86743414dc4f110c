import 'server-only';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentRow } from '@/contracts/document';
import type { Deps } from '@/server/services/deps';
import { listDocuments } from '@/server/services/list-documents';

/** Access ends after so long unless somebody decides otherwise. */
const DEFAULT_WINDOW = 30 * DAY;

/** What a new dispatch begins with. */
export async function startCompose(deps: Deps): Promise<{ readonly documents: readonly DocumentRow[]; readonly defaultUntil: number; readonly now: number; readonly mail: boolean }> {
  const now = deps.clock.now();
  return { documents: await listDocuments(deps), defaultUntil: Math.ceil((now + DEFAULT_WINDOW) / HOUR) * HOUR, now, mail: deps.mailer !== null };
}
