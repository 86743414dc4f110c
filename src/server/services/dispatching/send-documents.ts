import 'server-only';
import { newId } from '@/core/base/ids';
import { MINUTE } from '@/core/base/time';
import { isInTheClear } from '@/core/policy/delivery';
import type { DraftBody } from '@/core/compose/draft';
import type { DispatchInput, SendResult } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import { insertConsent } from '@/server/repositories/policy/consent-repository';
import { findDraft, removeDraft } from '@/server/repositories/dispatching/draft-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { checkDispatch } from '@/server/services/dispatching/check-dispatch';
import { dispatchIn } from '@/server/services/dispatching/dispatch-documents';
import { holdIn } from '@/server/services/dispatching/hold-dispatch';
import { record } from '@/server/services/base/record';
import { readWorkSettings } from '@/server/services/base/work-settings';
import { quotedDocument } from '@/server/services/documents/find-passages';
import { needsSecond } from '@/server/services/policy/within-rules';

/**
 * Sends, within the rules of the organisation: where they want a second person for it, one is asked
 * instead, and nothing goes out until they agree. Where a later time is asked for, or the
 * organisation holds what leaves back for a while, it leaves then.
 *
 * @throws ServiceError `NOT_ALLOWED` for what is forbidden; else as for any dispatch
 */
export async function sendDocuments(
  deps: Deps,
  actor: StaffActor,
  input: DispatchInput,
): Promise<SendResult> {
  if (!isInTheClear(input.form ?? 'link')) await needNotQuoted(deps, actor, input);
  return deps.db.write(async (tx) => {
    const now = deps.clock.now();
    const { heldFor } = await readWorkSettings(tx);
    const leavesAt = Math.max(input.leavesAt ?? now, now + heldFor * MINUTE);
    const isAsked = await needsSecond(tx, input);
    const found = input.draft == null ? null : await findDraft(tx, input.draft, actor.id);
    const draft = found?.body ?? null;
    const sent =
      isAsked || leavesAt <= now
        ? await sendIn(deps, tx, actor, input, now, draft)
        : await holdIn(deps, tx, actor, input, { now, leavesAt, draft });
    if (input.draft != null) await removeDraft(tx, input.draft, actor.id);
    return sent;
  });
}

/** What is protected does not leave in the clear beside itself. @throws ServiceError `INVALID` */
async function needNotQuoted(
  deps: Deps,
  actor: StaffActor,
  { documents, note, noteInMail = true, delivery }: DispatchInput,
): Promise<void> {
  if (!noteInMail || delivery !== 'mail') return;
  const quoted = await quotedDocument(deps, actor, documents, note);
  if (quoted !== null) throw new ServiceError('note-quotes', { title: quoted.title });
}

/**
 * The same inside a change that somebody else makes.
 *
 * @param draft what it was composed in, for its sender where the second person declines
 */
export async function sendIn(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  input: DispatchInput,
  now: number,
  draft: DraftBody | null = null,
): Promise<SendResult> {
  if (!(await needsSecond(tx, input)))
    return { ...(await dispatchIn(deps, tx, actor, input, now)), held: null, waits: false };
  // What could not be sent is not worth anybody's agreement.
  await checkDispatch(deps, tx, actor, input, Math.max(now, input.leavesAt ?? now));
  const id = newId('consent', deps.random);
  await insertConsent(tx, {
    id,
    kind: 'send',
    documents: input.documents,
    body: input,
    draft,
    reason: input.reason ?? '',
    askedBy: actor.id,
    askedAt: now,
  });
  await record(deps, tx, {
    action: 'consent.asked',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    details: {
      consent: id,
      kind: 'send',
      documents: [...input.documents],
      recipients: input.recipients.length,
    },
    personal: { text: `${input.subject}\n${input.reason ?? ''}` },
  });
  return { id: null, reference: '', held: null, waits: true };
}
