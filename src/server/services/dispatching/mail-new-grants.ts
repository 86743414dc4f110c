import 'server-only';
import { groupBy } from '@/core/base/group';
import type { DispatchId, RecipientId } from '@/core/base/ids';
import type { Transaction } from '@/server/db/database';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { linksToMail } from '@/server/services/dispatching/change-link';
import { grantsOf, termsOf } from '@/server/repositories/access/grant-reader';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { mailLinks } from '@/server/services/dispatching/mail-links';

/** Mails people the links to what was just given to them in dispatches there were already, where those are mailed. */
export async function mailNewGrants(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  given: readonly { readonly dispatchId: DispatchId; readonly recipientId: RecipientId }[],
  now: number,
): Promise<void> {
  for (const [dispatch, rows] of groupBy(given, ({ dispatchId }) => dispatchId)) {
    const found = await findDispatch(tx, dispatch);
    if (found?.dispatch.delivery !== 'mail' || deps.mailer === null) continue;
    const people = new Set(rows.map(({ recipientId }) => recipientId));
    const theirs = (await grantsOf(tx, { dispatch })).filter(({ recipient }) =>
      people.has(recipient.id),
    );
    const settled = [...groupBy(theirs, ({ recipient }) => recipient.id).values()].flatMap((own) =>
      own.slice(0, 1).map(({ recipient, grant }) => ({
        id: recipient.id,
        address: recipient.address,
        name: recipient.name,
        organisation: recipient.organisation,
        zone: recipient.zone,
        language: recipient.language,
        terms: termsOf(grant),
      })),
    );
    const documents = [...new Map(theirs.map(({ document }) => [document.id, document])).values()];
    await mailLinks(
      deps,
      tx,
      actor,
      { id: dispatch, tokens: await linksToMail(deps, tx, actor, dispatch, settled) },
      settled,
      { ...found.dispatch, documents },
      now,
    );
  }
}
