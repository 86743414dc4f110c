import 'server-only';
import { MINUTE } from '@/core/base/time';
import type { LicenceId } from '@/core/base/ids';
import type { Permit } from '@/core/licence/permit';
import { clearFileName } from '@/core/policy/delivery';
import type { PermitGiven } from '@/contracts/own-machine';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import {
  aboutOpen,
  askerOf,
  decideAgain,
  needLicence,
  recordWithheld,
  render,
  type Opened,
  type Refused,
} from '@/server/services/reading/open-licence';
import { giveBackPrint } from '@/server/services/reading/paper-register';
import { countCopy, recordCopy } from '@/server/services/reading/take-copies';

// What is read on the person's own machine is printed and kept there as well: the service decides,
// counts and writes it down, and the device makes the copy of what it has.

/** How long a permit may wait to be begun. */
const PERMIT_LASTS = 10 * MINUTE;

/** An open whose key is on its device. @throws ServiceError `not-open-here`, `not-on-own-machine` */
async function needKeyed(deps: Deps, actor: ReaderActor, id: LicenceId): Promise<Opened> {
  const opened = await needLicence(deps, actor, id);
  if (opened.licence.keyGivenAt === null) throw new ServiceError('not-on-own-machine');
  return opened;
}

async function permitFor(
  deps: Deps,
  opened: Opened,
  { watermark, take }: Pick<Permit, 'watermark' | 'take'>,
): Promise<Pick<PermitGiven, 'permit' | 'glyphs'>> {
  const { licence } = opened;
  const on = take.kind === 'print' ? 'paper' : 'file';
  const issuedAt = deps.clock.now();
  const [glyphs, permit] = await Promise.all([
    render(deps, opened, { kind: 'glyphs', watermark, on }, askerOf(opened, undefined)),
    deps.signPermit({
      licence: licence.id,
      recipient: licence.recipientId,
      issuedAt,
      expiresAt: issuedAt + PERMIT_LASTS,
      watermark,
      take,
    }),
  ]);
  return { permit, glyphs };
}

/**
 * Lets a device print pages of what it has open itself: counted and written down before it is made,
 * as everywhere. Where it fails there, those who answer for the document can give it back.
 *
 * @throws ServiceError `INVALID`, `TOO_MANY`, `not-on-own-machine`
 */
export async function permitPrint(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly from: number; readonly to: number },
): Promise<PermitGiven | Refused> {
  const opened = await needKeyed(deps, actor, input.licence);
  const counted = await countCopy(deps, actor, opened, input);
  if (counted.outcome === 'refused') return counted;
  const { watermark, name } = counted;
  const take = { kind: 'print', from: input.from, to: input.to } as const;
  const given = await permitFor(deps, opened, { watermark, take }).catch(async (error: unknown) => {
    await giveBackPrint(deps, opened.document.id, counted.paper);
    throw error;
  });
  await recordCopy(deps, actor, opened, input, { ...counted, here: true });
  return { outcome: 'granted', ...given, name };
}

/**
 * Lets a device hand over in the clear what it has open itself. From here on it is beyond reach.
 *
 * @throws ServiceError `TOO_MANY`, `not-on-own-machine`
 */
export async function permitKeep(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
): Promise<PermitGiven | Refused> {
  const opened = await needKeyed(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'keep');
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'keep', decision);
  const wait = await deps.limits.prints(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const { watermark } = opened.licence;
  const given = await permitFor(deps, opened, { watermark, take: { kind: 'keep' } });
  await recordAlone(deps, {
    action: 'document.kept',
    outcome: 'granted',
    ...aboutOpen(opened, actor, deps),
    details: { here: true },
    personal: whereabouts(deps, actor.from),
  });
  const name = clearFileName(opened.document, opened.version);
  return { outcome: 'granted', ...given, name };
}
