import 'server-only';
import type { Action } from '@/core/ledger/entry';
import { isInTheClear } from '@/core/policy/delivery';
import { addresseeName } from '@/core/policy/addressee-name';
import type { ConsentId, MarkingId } from '@/core/base/ids';
import { secondPersonFrom } from '@/core/policy/consent';
import { holds } from '@/core/policy/permissions';
import { dispatchInput } from '@/contracts/dispatch';
import type { ConsentRow, Destroyed } from '@/contracts/keys';
import type { Transaction } from '@/server/db/database';
import {
  findConsent,
  settleConsent,
  waitingConsents,
  type ConsentRecord,
} from '@/server/repositories/policy/consent-repository';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import { listMarkings } from '@/server/repositories/documents/filing-repository';
import {
  changeOrganisation,
  findOrganisation,
} from '@/server/repositories/staff/organisation-repository';
import { findStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { afterDestruction, destroyIn } from '@/server/services/documents/destroy-keys';
import { dispatchIn } from '@/server/services/dispatching/dispatch-documents';
import { holdIn } from '@/server/services/dispatching/hold-dispatch';
import { restoreDraft } from '@/server/services/dispatching/restore-draft';
import { ServiceError } from '@/server/services/base/errors';
import { fileIn } from '@/server/services/filing/file-documents';
import { needProof } from '@/server/services/staff/prove-staff';
import { record } from '@/server/services/base/record';

/** Who asked, as they are now: what they may do has to hold still. @throws ServiceError `CONFLICT` */
async function askerNow(
  tx: Transaction,
  answering: StaffActor,
  { askedBy }: ConsentRecord,
): Promise<StaffActor> {
  const row = await findStaff(tx, askedBy);
  if (row?.disabledAt !== null) throw new ServiceError('asker-gone');
  return { ...answering, id: row.id, name: row.name, email: row.email, role: row.role };
}

/** @throws ServiceError `NOT_ALLOWED` for who has only just become an administrator: perhaps by the one who asks */
async function needSecondPerson(tx: Transaction, actor: StaffActor, now: number): Promise<void> {
  const row = await findStaff(tx, actor.id);
  const from = secondPersonFrom(row?.roleSince ?? now);
  if (now >= from) return;
  const zone = (await findOrganisation(tx))?.zone ?? 'UTC';
  throw new ServiceError('administrator-too-new', { from, zone });
}

/** Does what was asked for. @returns how many keys were destroyed by it */
async function carryOut(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  consent: ConsentRecord,
  now: number,
): Promise<number> {
  switch (consent.kind) {
    case 'destroy-keys':
      return destroyIn(deps, tx, actor, consent.documents, { consent: consent.id });
    case 'one-person':
      await changeOrganisation(tx, { twoPeople: false });
      return 0;
    case 'send':
      await sendAgreed(deps, tx, await askerNow(tx, actor, consent), consent, now);
      return 0;
    case 'lower-marking':
      await fileIn(
        deps,
        tx,
        await askerNow(tx, actor, consent),
        { documents: [...consent.documents], markingId: consent.body as MarkingId | null },
        now,
        actor,
      );
      return 0;
  }
}

/** Sends what somebody asked to send, at once or at the time that was set for it. */
async function sendAgreed(
  deps: Deps,
  tx: Transaction,
  sender: StaffActor,
  { id, body, draft }: ConsentRecord,
  now: number,
): Promise<void> {
  const input = dispatchInput.parse(body);
  const { leavesAt } = input;
  if (leavesAt == null || leavesAt <= now) await dispatchIn(deps, tx, sender, input, now, id);
  else await holdIn(deps, tx, sender, input, { now, leavesAt, draft, consent: id });
}

/** The action by which each kind of consent is answered. */
const answeredBy = {
  'destroy-keys': 'destruction.answered',
  'one-person': 'settings.changed',
  send: 'consent.answered',
  'lower-marking': 'consent.answered',
} as const satisfies Record<ConsentRecord['kind'], Action>;

/** @throws ServiceError where it is one's own or there is none, and where one is no administrator */
async function needMayAnswer(
  tx: Transaction,
  actor: StaffActor,
  consent: ConsentRecord | null,
  agree: boolean,
  now: number,
): Promise<void> {
  if (consent === null) throw new ServiceError('no-request');
  const isOwn = consent.askedBy === actor.id;
  if (agree && isOwn) throw new ServiceError('own-consent');
  if (!isOwn && !holds(actor.role, 'destroy-key'))
    throw new ServiceError('consent-needs-administrator');
  if (!agree) return;
  needProof(actor);
  await needSecondPerson(tx, actor, now);
}

/**
 * Agrees to what somebody else asked for, which is then done, or declines it. Who asked can take it
 * back. A dispatch that is declined or taken back is a draft of its sender again.
 *
 * @throws ServiceError `NOT_ALLOWED` where it is one's own or one is no administrator, `CONFLICT`
 * where it was answered before
 */
export async function answerConsent(
  deps: Deps,
  actor: StaffActor,
  { id, agree }: { readonly id: ConsentId; readonly agree: boolean },
): Promise<Destroyed> {
  const { destroyed, ending } = await deps.db.write(async (tx) => {
    const now = deps.clock.now();
    await needMayAnswer(tx, actor, await findConsent(tx, id), agree, now);
    const settled = await settleConsent(tx, id, agree ? 'agreed' : 'declined', actor.id, now);
    if (settled === null) throw new ServiceError('consent-answered');
    await record(deps, tx, {
      action: answeredBy[settled.kind],
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { consent: id, kind: settled.kind, agreed: agree },
    });
    if (!agree && settled.draft !== null)
      await restoreDraft(deps, tx, settled.askedBy, settled.draft);
    return {
      ending: agree && settled.kind === 'destroy-keys',
      destroyed: agree ? await carryOut(deps, tx, actor, settled, now) : 0,
    };
  });
  if (ending) await afterDestruction(deps);
  return { destroyed, waits: false };
}

/** What of a request besides documents there is to see: whom a dispatch is for, or the marking wanted. */
async function whatOf(
  deps: Pick<Deps, 'db'>,
  { kind, body }: ConsentRecord,
): Promise<Pick<ConsentRow, 'subject' | 'to'>> {
  if (kind === 'lower-marking')
    return {
      subject:
        (await listMarkings(deps.db.read)).find(({ id }) => id === body)?.name ?? 'no marking',
      to: [],
    };
  const dispatch = kind === 'send' ? dispatchInput.safeParse(body).data : undefined;
  if (dispatch === undefined) return { subject: '', to: [] };
  const open =
    dispatch.openLink != null ? [addresseeName({ kind: 'link', name: '', address: '' })] : [];
  return {
    subject: `${dispatch.subject}${isInTheClear(dispatch.form ?? 'link') ? ', unprotected' : ''}`,
    to: [
      ...dispatch.recipients.map(({ address }) => address),
      ...(dispatch.domains ?? []).map(({ domain: address }) =>
        addresseeName({ kind: 'domain', name: '', address }),
      ),
      ...((dispatch.groups ?? []).length === 0 ? [] : ['groups']),
      ...open,
    ],
  };
}

/** The time that was set for a dispatch to leave; `null`: none. */
function leavesAtOf({ kind, body }: ConsentRecord): number | null {
  if (kind !== 'send') return null;
  return dispatchInput.safeParse(body).data?.leavesAt ?? null;
}

/** What waits for a second person: all of it for who may answer, their own for everybody else. */
export async function listConsents(deps: Deps, actor: StaffActor): Promise<ConsentRow[]> {
  const rows = (await waitingConsents(deps.db.read)).filter(
    ({ consent }) => consent.askedBy === actor.id || holds(actor.role, 'destroy-key'),
  );
  const titles = new Map(
    (
      await findDocuments(
        deps.db.read,
        rows.flatMap(({ consent }) => consent.documents),
      )
    ).map((document) => [document.id, `${document.reference} ${document.title}`]),
  );
  return Promise.all(
    rows.map(async ({ consent, askedBy }) => ({
      id: consent.id,
      kind: consent.kind,
      titles: consent.documents.map((id) => titles.get(id) ?? id),
      ...(await whatOf(deps, consent)),
      leavesAt: leavesAtOf(consent),
      reason: consent.reason,
      askedBy,
      askedAt: consent.askedAt,
      own: consent.askedBy === actor.id,
    })),
  );
}
