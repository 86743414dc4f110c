import 'server-only';
import type { DispatchId } from '@/core/base/ids';
import { sheetAgain, type Take } from '@/core/compose/again';
import type { DraftBody } from '@/core/compose/draft';
import { reaches } from '@/core/policy/permissions';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { grantsOf, termsOf } from '@/server/repositories/access/grant-reader';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/**
 * A dispatch as a draft that sends the same again: all of it, its people, or its terms.
 *
 * @returns `null` where there is no such dispatch, or it is not one's own
 */
export async function composeAgain(
  deps: Pick<Deps, 'db' | 'clock'>,
  actor: StaffActor,
  { dispatch: id, take }: { readonly dispatch: DispatchId; readonly take: Take },
): Promise<DraftBody | null> {
  const found = await findDispatch(deps.db.read, id);
  if (found === null || !reaches(actor, { sender: found.dispatch.sentBy })) return null;
  const { subject, note, watermark, form, delivery, titleOnCover, noteInMail, reason } =
    found.dispatch;
  const grants = (await grantsOf(deps.db.read, { dispatch: id })).filter(
    // What came by a group or was passed on comes that way again.
    ({ grant }) => grant.parentId === null,
  );
  const sheet = sheetAgain(
    grants.map(({ grant, recipient }) => ({
      kind: recipient.kind,
      address: recipient.address,
      name: recipient.name,
      documentId: grant.documentId,
      terms: termsOf(grant),
      givenAt: grant.givenAt,
    })),
    take,
    deps.clock.now(),
  );
  const isAll = take === 'all';
  return {
    sheet,
    subject: isAll ? subject : '',
    note: isAll ? note : '',
    watermark,
    way: { form, delivery, titleOnCover, noteInMail, reason: isAll ? reason : '' },
    waved: [],
  };
}
