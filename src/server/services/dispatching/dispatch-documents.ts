import 'server-only';
import {
  newId,
  type ConsentId,
  type DispatchId,
  type DocumentId,
  type VersionId,
  type TermsId,
} from '@/core/base/ids';
import { reaches } from '@/core/policy/permissions';
import { groupBy } from '@/core/base/group';
import type { LedgerEvent } from '@/core/ledger/entry';
import { DAY } from '@/core/base/time';
import { underCeilings } from '@/core/policy/ceiling';
import { termsAt } from '@/core/policy/saved-terms';
import { termsText } from '@/core/policy/rights';
import {
  carriesFile,
  IN_THE_CLEAR,
  isInTheClear,
  keepForbiddenBy,
  type DeliveryForm,
} from '@/core/policy/delivery';
import { windowState } from '@/core/policy/decide';
import {
  MOST_MAILED,
  MOST_RECIPIENTS,
  type AddPeopleInput,
  type DispatchInput,
  type DispatchResult,
  type MailAgainInput,
} from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import { dispatchMail } from '@/server/mail/dispatch-mail';
import {
  documentsOfDispatch,
  findDispatch,
  linksOf,
} from '@/server/repositories/dispatching/dispatch-repository';
import {
  findRecipients,
  insertRecipients,
} from '@/server/repositories/people/recipient-repository';
import { grantsOf, toFacts } from '@/server/repositories/access/grant-reader';
import {
  bytesOfVersions,
  findDocuments,
} from '@/server/repositories/documents/document-repository';
import { listSavedTerms } from '@/server/repositories/documents/filing-repository';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { settleWider } from '@/server/services/access/settle-wider';
import { ceilingFinder } from '@/server/services/policy/document-policy';
import {
  addGrants,
  giveGrants,
  type Addressee,
  type Given,
} from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needAllowed } from '@/server/services/policy/within-rules';

type People = Pick<
  DispatchInput,
  'recipients' | 'groups' | 'domains' | 'openLink' | 'terms' | 'kept'
>;
/** `givenAt`: where it was before now. */
export type Settled = Addressee & { readonly zone: string | null; readonly givenAt?: number };

/** The saved terms that a dispatch says it uses, where its terms are those indeed. */
async function unchangedTerms(
  tx: Transaction,
  { kept: id, terms }: People,
  now: number,
): Promise<TermsId | null> {
  const kept = id == null ? undefined : (await listSavedTerms(tx)).find((each) => each.id === id);
  if (kept === undefined) return null;
  // Composing takes a while, and the days were counted when it began.
  const end = termsAt(kept, now).until;
  const sameEnd =
    end === null || terms.until === null ? end === terms.until : Math.abs(end - terms.until) <= DAY;
  return sameEnd &&
    terms.from === null &&
    termsText({ ...termsAt(kept, now), until: null }) === termsText({ ...terms, until: null })
    ? kept.id
    : null;
}

/**
 * The recipients as rows, known ones kept as they are: people, with those who are in the groups,
 * and what stands for many.
 */
async function settleRecipients(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  dispatch: DispatchId,
  input: People,
  now: number,
): Promise<{ readonly people: Settled[]; readonly wider: Addressee[] }> {
  const kept = await unchangedTerms(tx, input, now);
  const wanted = new Map(input.recipients.map((each) => [each.address, each]));
  const known = await findRecipients(tx, [...wanted.keys()]);
  const isKnown = new Set(known.map((each) => each.address));
  const added = [...wanted.values()]
    .filter((each) => !isKnown.has(each.address))
    .map(({ address, name, organisation }) => ({
      id: newId('recipient', deps.random),
      address,
      name,
      organisation,
      zone: null,
      addedBy: actor.id,
      createdAt: now,
    }));
  await insertRecipients(tx, added);
  const people = [...known, ...added].map(({ id, address, zone }) => ({
    id,
    address,
    zone,
    terms: wanted.get(address)?.terms ?? input.terms,
    kept: wanted.get(address)?.terms == null ? kept : null,
  }));
  const { wider, members } = await settleWider(
    deps,
    tx,
    input,
    dispatch,
    new Set(people.map(({ id }) => id)),
    now,
  );
  if (people.length + members.length > MOST_RECIPIENTS)
    throw new ServiceError('too-many-recipients', {
      most: MOST_RECIPIENTS,
      found: people.length + members.length,
    });
  const given = { terms: input.terms, kept };
  return {
    people: [...people, ...members.map((member) => ({ ...member, ...given }))],
    wider: wider.map((each) => ({ ...each, ...given })),
  };
}

/** Every document must be there and live: what nobody could open is not sent. */
async function checkDocuments(tx: Transaction, actor: StaffActor, ids: readonly DocumentId[]) {
  const found = await findDocuments(tx, ids);
  if (found.length !== new Set(ids).size) throw new ServiceError('a-document-gone');
  const foreign = found.find(
    (document) => !reaches(actor, { owner: document.ownerId, deputy: document.deputyId }),
  );
  if (foreign !== undefined) throw new ServiceError('title-of-others', { title: foreign.title });
  const revoked = found.find((document) => document.revokedAt !== null);
  if (revoked !== undefined) throw new ServiceError('title-revoked', { title: revoked.title });
  return found;
}

/** @throws ServiceError `MAIL_NOT_SET_UP`, `INVALID` */
function checkPeople(deps: Deps, { terms, recipients }: People, now: number): void {
  if (deps.mailer === null) throw new ServiceError('mail-not-set-up-for-codes');
  if (
    [terms, ...recipients.flatMap(({ terms: own }) => (own == null ? [] : [own]))].some(
      ({ until }) => until !== null && until <= now,
    )
  )
    throw new ServiceError('an-end-past');
}

type Message = {
  readonly subject: string;
  readonly note: string;
  readonly form: DeliveryForm;
  readonly documents: readonly (Filed & {
    readonly title: string;
    readonly versionId: VersionId;
  })[];
};
/** Where a document lies, which is what ceilings reach it by. */
type Filed = Parameters<Awaited<ReturnType<typeof ceilingFinder>>>[0];

/** What is mailed has to fit into a message. @throws ServiceError `TOO_LARGE` */
async function checkSize(
  tx: Transaction,
  form: DeliveryForm,
  documents: readonly { readonly versionId: VersionId }[],
): Promise<void> {
  if (!carriesFile(form) && !isInTheClear(form)) return;
  const bytes = await bytesOfVersions(
    tx,
    documents.map(({ versionId }) => versionId),
  );
  if (bytes > MOST_MAILED)
    throw new ServiceError('too-large-to-mail', { bytes, most: MOST_MAILED });
}

/** Queues to each person the message with their link or protected files. */
export async function mailLinks(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { id, tokens }: Pick<Given, 'id' | 'tokens'>,
  people: readonly Settled[],
  { subject, note, form, documents }: Message,
  now: number,
): Promise<void> {
  const organisation = await findOrganisation(tx);
  const ceilingsOf = await ceilingFinder(tx);
  await queueMail(
    tx,
    people.map((person) => {
      // What is told is what opens: the end that ceilings leave.
      const ends = documents.map(
        (document) =>
          underCeilings(person.terms, person.givenAt ?? now, ceilingsOf(document)).terms.until,
      );
      const mail = dispatchMail({
        senderName: actor.name,
        organisation: organisation?.name ?? '',
        zone: person.zone ?? organisation?.zone ?? 'UTC',
        subject,
        note,
        form,
        titles: documents.map(({ title }) => title),
        from: person.terms.from,
        ends,
        link: `${deps.publicUrl}/r/${tokens.get(person.id) ?? ''}`,
        address: person.address,
      });
      return {
        id: newId('message', deps.random),
        dispatchId: id,
        recipientId: person.id,
        toAddress: person.address,
        ...mail,
        attached: form !== 'link' ? documents.map(({ versionId }) => versionId) : [],
        state: 'waiting' as const,
        nextAttemptAt: now,
        createdAt: now,
      };
    }),
  );
}

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

/** Whether it could be sent as it stands. @throws ServiceError as for `dispatchDocuments` */
export async function checkDispatch(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  input: DispatchInput,
  now: number,
) {
  checkPeople(deps, input, now);
  const documents = await checkDocuments(tx, actor, input.documents);
  if (input.delivery === 'mail') await checkSize(tx, input.form ?? 'link', documents);
  if (isInTheClear(input.form ?? 'link')) {
    checkUnprotected(input);
    await checkKept(tx, documents);
  }
  return documents;
}

/** @throws ServiceError `INVALID` */
function checkUnprotected({
  delivery,
  reason = '',
  groups = [],
  domains = [],
  openLink = false,
}: DispatchInput): void {
  if (reason === '') throw new ServiceError('unprotected-needs-reason');
  if (delivery !== 'mail') throw new ServiceError('unprotected-by-hand');
  if (openLink || groups.length + domains.length > 0) throw new ServiceError('unprotected-by-name');
}

/**
 * Whoever has it in the clear keeps it: what nobody may keep does not go out so, whoever asks.
 * @throws ServiceError `NOT_ALLOWED`
 */
async function checkKept(
  tx: Transaction,
  documents: Awaited<ReturnType<typeof checkDocuments>>,
): Promise<void> {
  const ceilingsOf = await ceilingFinder(tx);
  for (const document of documents) {
    const ceiling = keepForbiddenBy(ceilingsOf(document));
    if (ceiling === null) continue;
    throw new ServiceError('keep-forbidden', { title: document.title, level: ceiling.level });
  }
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
        watermark: '',
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
      { subject: input.subject, note: input.note, form: input.form ?? 'link', documents },
      now,
    );
  await record(deps, tx, ...given.events);
  return { id: given.id, reference: given.reference };
}

/**
 * Adds people to a dispatch: they get the documents that it carries, on terms of their own, and
 * everybody else is left as they are.
 *
 * @throws ServiceError `CONFLICT` where somebody is among its people already; else as for a new one
 */
export async function addPeople(
  deps: Deps,
  actor: StaffActor,
  input: AddPeopleInput,
): Promise<{ readonly added: number }> {
  const now = deps.clock.now();
  checkPeople(deps, input, now);
  return deps.db.write(async (tx) => {
    const dispatch = await needDispatch(tx, actor, input.id);
    const { documents: ids, recipients } = await documentsOfDispatch(tx, input.id);
    const documents = await checkDocuments(tx, actor, ids);
    if (dispatch.delivery === 'mail') await checkSize(tx, dispatch.form, documents);
    if (isInTheClear(dispatch.form)) throw new ServiceError('unprotected-adds-nobody');
    await needAllowed(tx, { form: dispatch.form, domains: input.domains });
    const { people, wider } = await settleRecipients(deps, tx, actor, input.id, input, now);
    const already = [...wider, ...people].filter((person) => recipients.has(person.id));
    if (already.length > 0)
      throw new ServiceError('already-recipients', {
        addresses: already.map(({ address }) => address),
      });
    const given = await addGrants(deps, tx, actor, dispatch, {
      documents,
      people: [...wider, ...people],
      now,
    });
    if (dispatch.delivery === 'mail')
      await mailLinks(deps, tx, actor, given, people, { ...dispatch, documents }, now);
    await record(deps, tx, ...given.events);
    return { added: people.length };
  });
}

/**
 * Mails their link once more to people of a dispatch who could open something of it now. What was
 * carried by hand is not mailed.
 *
 * @throws ServiceError `CONFLICT` where nobody among them could open anything, `NOT_ALLOWED`
 */
export async function mailAgain(
  deps: Deps,
  actor: StaffActor,
  input: MailAgainInput,
): Promise<{ readonly mailed: number }> {
  const now = deps.clock.now();
  if (deps.mailer === null) throw new ServiceError('mail-not-set-up');
  return deps.db.write(async (tx) => {
    const dispatch = await needDispatch(tx, actor, input.id);
    if (isInTheClear(dispatch.form)) throw new ServiceError('unprotected-not-again');
    if (dispatch.delivery !== 'mail') throw new ServiceError('links-by-hand');
    const rows = (await grantsOf(tx, { dispatch: input.id })).filter(
      ({ grant, recipient, document }) =>
        input.recipients.includes(recipient.id) &&
        recipient.kind === 'person' &&
        !recipient.blocked &&
        document.revokedAt === null &&
        windowState(toFacts(grant), now) !== 'revoked' &&
        windowState(toFacts(grant), now) !== 'expired',
    );
    const people = [...groupBy(rows, ({ recipient }) => recipient.id).values()].flatMap((own) =>
      own.slice(0, 1).map(({ recipient, grant }): Settled => ({
        id: recipient.id,
        address: recipient.address,
        zone: recipient.zone,
        terms: toFacts(grant).terms,
        givenAt: grant.givenAt,
      })),
    );
    if (people.length === 0) throw new ServiceError('nobody-could-open');
    const documents = [...new Map(rows.map(({ document }) => [document.id, document])).values()];
    await mailLinks(
      deps,
      tx,
      actor,
      { id: input.id, tokens: await linksOf(tx, input.id) },
      people,
      { ...dispatch, documents },
      now,
    );
    await record(
      deps,
      tx,
      ...people.map(({ id }): LedgerEvent => ({
        action: 'dispatch.mailed-again',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        dispatch: input.id,
        recipient: id,
      })),
    );
    return { mailed: people.length };
  });
}

async function needDispatch(tx: Transaction, actor: StaffActor, id: DispatchId) {
  const found = await findDispatch(tx, id);
  if (found === null) throw new ServiceError('no-dispatch');
  if (!reaches(actor, { sender: found.dispatch.sentBy }))
    throw new ServiceError('dispatch-of-others');
  return found.dispatch;
}
