import 'server-only';
import { holds } from '@/core/policy/permissions';
import type { ReadingAsked, ReadingRecord } from '@/contracts/opens';
import { opensOf, pagesShownIn } from '@/server/repositories/reading/reading-record';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/**
 * Which pages of a document somebody had in view, open by open, and for how long, as their browser
 * told: of what the asker may read the record of.
 */
export async function viewReading(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
  { document, recipient }: ReadingAsked,
): Promise<ReadingRecord> {
  const own = holds(actor.role, 'read-record') ? undefined : actor.id;
  const opens = await opensOf(deps.db.read, document, recipient, own);
  const shown = await pagesShownIn(
    deps.db.read,
    opens.map(({ id }) => id),
  );
  return { opens: opens.map((open) => ({ ...open, shown: shown.get(open.id) ?? [] })) };
}
