import 'server-only';
import { newId, type ConsentId } from '@/core/base/ids';
import { IN_THE_CLEAR, isInTheClear } from '@/core/policy/delivery';
import { type DispatchInput, type DispatchResult } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { giveGrants } from '@/server/services/access/give-grants';
import { record } from '@/server/services/base/record';
import { checkDispatch } from '@/server/services/dispatching/check-dispatch';
import { settleRecipients } from '@/server/services/dispatching/settle-recipients';
import { mailLinks } from '@/server/services/dispatching/mail-links';

/**
 * Sends documents to recipients: dispatch, grants, links, outbox and ledger in one transaction, so
 * that a crash leaves all of it or none. Sent by hand, the same is written and no mail goes out.
 *
 * @throws ServiceError `NOT_FOUND`, `INVALID`, `MAIL_NOT_SET_UP`, `NOT_ALLOWED`
 */
export function dispatchDocuments(
  deps: Deps,
  actor: StaffActor,
  input: DispatchInput,
): Promise<DispatchResult> {
  return deps.db.write((tx) => dispatchIn(deps, tx, actor, input, deps.clock.now()));
}

/** The same inside a change that somebody else makes. `consent`: the agreement by which it goes out. */
export async function dispatchIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  asked: DispatchInput,
  now: number,
  consent?: ConsentId,
): Promise<DispatchResult> {
  const input = isInTheClear(asked.form ?? 'link')
    ? {
        ...asked,
        terms: IN_THE_CLEAR,
        watermark: [],
        recipients: asked.recipients.map((each) => ({ ...each, terms: null })),
        kept: null,
      }
    : asked;
  const documents = await checkDispatch(deps, tx, actor, input, now);
  const id = newId('dispatch', deps.random);
  const { people, wider } = await settleRecipients(deps, tx, actor, id, input, now);
  const given = await giveGrants(
    deps,
    tx,
    actor,
    { ...input, id, ...(consent === undefined ? {} : { consent }) },
    { documents, people: [...wider, ...people], now },
  );
  if (input.delivery === 'mail')
    await mailLinks(
      deps,
      tx,
      actor,
      given,
      people,
      {
        ...input,
        noteInMail: input.noteInMail ?? true,
        form: input.form ?? 'link',
        documents,
      },
      now,
    );
  await record(deps, tx, ...given.events);
  return { id: given.id, reference: given.reference };
}
