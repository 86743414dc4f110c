import 'server-only';
import type { LicenceId } from '@/core/base/ids';
import type { HandedIn, HandInInput, OfflineOpen } from '@/contracts/own-machine';
import {
  noteOnDevice,
  noteShownFor,
  offlineOpensOf,
} from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { tooMany } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { decideFor } from '@/server/services/policy/decide-access';
import { aboutOpen, ownKeyedOpen } from '@/server/services/reading/open-licence';
import { noteTold } from '@/server/services/reading/read-pages';

/**
 * Takes in what a device did without a connection: each open is written down once, with when it was
 * and when it was told; what was never told before it is counted. Says
 * which licences end now.
 *
 * @throws ServiceError `TOO_MANY`
 */
export async function handIn(
  deps: Deps,
  actor: ReaderActor,
  { opens, kept, forgotten }: HandInInput,
): Promise<HandedIn> {
  const wait = await deps.limits.readings(actor.recipient ?? actor.address);
  if (wait > 0) throw tooMany(wait);
  const inOrder = [...opens].sort((a, b) => a.number - b.number);
  let taken = 0;
  for (const open of inOrder) if (await takeIn(deps, actor, open)) taken++;
  for (const id of forgotten) await noteForgotten(deps, actor, id);
  const over: HandedIn['over'][number][] = [];
  for (const id of kept) {
    const opened = await ownKeyedOpen(deps, actor, id);
    const decision =
      opened === null
        ? null
        : await decideFor(deps, deps.db.read, actor, opened.licence.documentId, {
            licence: id,
            grant: opened.licence.grantId,
          });
    if (decision === null) over.push({ licence: id, reason: 'not-addressed' });
    else if (decision.outcome === 'refused') over.push({ licence: id, reason: decision.reason });
  }
  return { taken, over };
}

/** @returns whether it is written down, now or before */
async function takeIn(deps: Deps, actor: ReaderActor, open: OfflineOpen): Promise<boolean> {
  const opened = await ownKeyedOpen(deps, actor, open.licence);
  if (opened === null) return false;
  const { licence } = opened;
  await deps.db.write(async (tx) => {
    // Read inside: the same open handed in twice at once is written down once.
    const before = await offlineOpensOf(tx, licence.id);
    if (before === null || open.number <= before) return;
    const now = deps.clock.now();
    const occurredAt = Math.min(now, Math.max(licence.keyGivenAt ?? now, open.openedAt));
    const missing = open.number - before - 1;
    await noteOnDevice(tx, licence.id, { offlineOpens: open.number });
    await record(deps, tx, {
      action: 'document.opened-offline',
      outcome: 'granted',
      ...aboutOpen(opened, actor, deps),
      device: licence.deviceId,
      occurredAt,
      receivedAt: now,
      details: {
        number: open.number,
        pages: open.pages.length,
        ...(missing === 0 ? {} : { missing }),
      },
      personal: { address: actor.address },
    });
    const pages = open.pages.map(([page, shown]) => ({ page, shown }));
    await noteTold(deps, tx, actor, opened, pages, occurredAt);
    await noteShownFor(tx, licence.id, pages, now - licence.openedAt);
  });
  return true;
}

/** A licence that a device says it has forgotten is not counted among those that still run. */
async function noteForgotten(deps: Deps, actor: ReaderActor, id: LicenceId): Promise<void> {
  const opened = await ownKeyedOpen(deps, actor, id);
  if (opened === null) return;
  await deps.db.write((tx) => noteOnDevice(tx, id, { offlineUntil: null }));
}
