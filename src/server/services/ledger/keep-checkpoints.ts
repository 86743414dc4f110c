import 'server-only';
import { newId } from '@/core/base/ids';
import { checkpointMail } from '@/server/mail/notice-mail';
import { lastCheckpoint } from '@/server/repositories/ledger/checkpoint-repository';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { findSetting, putSetting } from '@/server/repositories/staff/settings-repository';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { newestCheckpoint } from '@/server/services/ledger/verify-on-screen';
import { readWorkSettings } from '@/server/services/base/work-settings';

const NAME = 'checkpoint mailed';
type Mailed = { readonly day: string; readonly size: number };

/**
 * Mails the newest signed checkpoint to its keepers outside, once a day and where it covers more
 * than the last.
 * @returns how many messages are on their way
 */
export async function mailCheckpoint(deps: Deps): Promise<number> {
  const db = deps.db.read;
  const { checkpointsTo } = await readWorkSettings(db);
  if (checkpointsTo.length === 0) return 0;
  const now = deps.clock.now();
  const [newest, mailed, organisation] = [
    await lastCheckpoint(db),
    (await findSetting(db, NAME)) as Mailed | null,
    await findOrganisation(db),
  ];
  const day = deps.calendar.dayOf(now);
  if (newest === null || mailed?.day === day || newest.size <= (mailed?.size ?? 0)) return 0;
  const mail = checkpointMail({
    organisation: organisation?.name ?? '',
    text: newest.text,
    size: newest.size,
  });
  return deps.db.write(async (tx) => {
    const current = (await findSetting(tx, NAME)) as Mailed | null;
    if (current?.size !== mailed?.size) return 0;
    await putSetting(tx, NAME, { day, size: newest.size } satisfies Mailed);
    await queueMail(
      tx,
      checkpointsTo.map((toAddress) => ({
        id: newId('message', deps.random),
        toAddress,
        ...mail,
        state: 'waiting' as const,
        nextAttemptAt: now,
        createdAt: now,
      })),
    );
    return checkpointsTo.length;
  });
}

/**
 * The newest checkpoint for a keeper who does not sign in, where the organisation lets them fetch
 * it. @throws ServiceError `NOT_FOUND`
 */
export async function fetchCheckpoint(deps: Pick<Deps, 'db'>): Promise<string> {
  const { checkpointsOpen } = await readWorkSettings(deps.db.read);
  if (!checkpointsOpen) throw new ServiceError('nothing-here');
  return newestCheckpoint(deps);
}
