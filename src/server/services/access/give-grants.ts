import 'server-only';
import {
  newId,
  randomText,
  type ConsentId,
  type DispatchId,
  type DocumentId,
  type GrantId,
  type RecipientId,
  type TermsId,
} from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { Delivery, DeliveryForm } from '@/core/policy/delivery';
import { termsText, type Terms } from '@/core/policy/rights';
import type { Transaction } from '@/server/db/database';
import {
  countDispatches,
  insertDispatch,
  linksOf,
} from '@/server/repositories/dispatching/dispatch-repository';
import { insertGrants } from '@/server/repositories/access/grant-writer';
import { termsOf } from '@/server/repositories/access/grant-reader';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { needWithinLimits } from '@/server/services/policy/sender-limits';

const TOKEN_CHARACTERS = 24;

export type Addressee = {
  readonly id: RecipientId;
  readonly address: string;
  readonly terms: Terms;
  /** The saved terms that these are, unchanged. */
  readonly kept?: TermsId | null;
  /** The group, among these as well, by which they are given it. */
  readonly through?: RecipientId;
};

type Sending = {
  /** The id that a new sending is to have; absent: any. */
  readonly id?: DispatchId;
  readonly subject: string;
  readonly note?: string;
  readonly watermark: string;
  /** Without mail the links are carried by hand, or lead those who already have one. */
  readonly delivery?: Delivery;
  readonly form?: DeliveryForm;
  readonly titleOnCover?: boolean;
  /** Why it goes out as it does. */
  readonly reason?: string | undefined;
  /** The agreement of a second person by which it goes out. */
  readonly consent?: ConsentId;
  readonly documents: readonly { readonly id: DocumentId }[];
  readonly people: readonly Addressee[];
  readonly now: number;
  /** A sending there is already, which these people join. */
  readonly joins?: { readonly id: DispatchId; readonly reference: string };
};

export type Given = {
  readonly id: DispatchId;
  readonly reference: string;
  readonly tokens: ReadonlyMap<RecipientId, string>;
  readonly events: readonly LedgerEvent[];
};

/**
 * Writes a dispatch with its grants and links, or adds grants to one. The one place where access
 * comes into being; the caller records the events in the same transaction.
 *
 * @throws ServiceError `NOT_ALLOWED` where it goes beyond what the member of staff may give
 */
export async function giveGrants(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  actor: StaffActor,
  sending: Sending,
): Promise<Given> {
  const {
    documents,
    people,
    now,
    joins,
    subject,
    note = '',
    watermark,
    delivery = 'by-hand',
    form = 'link',
    titleOnCover = false,
    reason = '',
    consent,
  } = sending;
  const papers = await findDocuments(
    tx,
    documents.map((document) => document.id),
  );
  await needWithinLimits(tx, actor, {
    addresses: people.map(({ address }) => address),
    documents: papers,
    terms: people.map(({ terms }) => terms),
    givenAt: now,
  });
  const id = joins?.id ?? sending.id ?? newId('dispatch', deps.random);
  const reference =
    joins?.reference ?? `D-${String((await countDispatches(tx)) + 1).padStart(4, '0')}`;
  const known = joins === undefined ? new Map<RecipientId, string>() : await linksOf(tx, id);
  const links = people
    .filter((person) => !known.has(person.id))
    .map((person) => newLink(deps, id, person.id, now));
  const ids = new Map(
    people.flatMap((person) =>
      documents.map((document): [string, GrantId] => [
        `${person.id} ${document.id}`,
        newId('grant', deps.random),
      ]),
    ),
  );
  const idOf = (person: RecipientId, document: DocumentId): GrantId =>
    ids.get(`${person} ${document}`) ?? newId('grant', deps.random);
  const grants = people.flatMap(({ id: recipientId, terms, kept, through }) =>
    documents.map((document) => ({
      id: idOf(recipientId, document.id),
      parentId: through === undefined ? null : idOf(through, document.id),
      follows: through !== undefined,
      dispatchId: id,
      documentId: document.id,
      recipientId,
      rights: terms.rights,
      fromAt: terms.from,
      untilAt: terms.until,
      prints: terms.rights.includes('print') ? terms.prints : null,
      conditions: terms.conditions ?? null,
      termsId: kept ?? null,
      givenBy: actor.id,
      givenAt: now,
    })),
  );
  if (joins === undefined)
    await insertDispatch(tx, {
      id,
      reference,
      subject,
      note,
      watermark,
      delivery,
      form,
      titleOnCover,
      reason,
      sentBy: actor.id,
      sentAt: now,
    });
  await insertGrants(tx, grants, links);
  const by = { kind: 'staff' as const, id: actor.id };
  const sent: LedgerEvent = {
    action: 'dispatch.sent',
    outcome: 'done',
    actor: by,
    occurredAt: now,
    dispatch: id,
    details: {
      reference,
      delivery: `${formText[form]}${deliveryText[delivery]}`,
      documents: documents.length,
      recipients: people.length,
      watermark,
      ...(consent === undefined ? {} : { consent }),
    },
    personal: { text: [subject, note, ...(reason === '' ? [] : [reason])].join('\n') },
  };
  return {
    id,
    reference,
    tokens: new Map([
      ...known,
      ...links.map(({ recipientId, token }): [RecipientId, string] => [recipientId, token]),
    ]),
    events: [
      ...(joins === undefined ? [sent] : []),
      ...grants.map((grant) => aboutGiven(grant, id, by, now)),
    ],
  };
}

/** The forms as the ledger names them. */
const formText: Record<DeliveryForm, string> = {
  link: 'reader-link',
  file: 'protected-file',
  both: 'reader-link-and-protected-file',
  unprotected: 'unprotected',
};

/** How they were delivered, where it was not as usual. */
const deliveryText: Record<Delivery, string> = { mail: '', 'by-hand': '-by-hand' };

/** A link that leads an addressee to a dispatch. */
export function newLink(
  deps: Pick<Deps, 'random'>,
  dispatchId: DispatchId,
  recipientId: RecipientId,
  createdAt: number,
) {
  return {
    id: newId('link', deps.random),
    token: randomText(TOKEN_CHARACTERS, deps.random),
    dispatchId,
    recipientId,
    createdAt,
  };
}

type GrantRow = Parameters<typeof termsOf>[0] & {
  readonly id: GrantId;
  readonly documentId: DocumentId;
  readonly recipientId: RecipientId;
  readonly parentId: GrantId | null;
};

/** The entry about a grant just given. */
export function aboutGiven(
  grant: GrantRow,
  dispatch: DispatchId,
  actor: LedgerEvent['actor'],
  now: number,
): LedgerEvent {
  return {
    action: 'grant.given',
    outcome: 'done',
    actor,
    occurredAt: now,
    dispatch,
    grant: grant.id,
    document: grant.documentId,
    recipient: grant.recipientId,
    details: {
      terms: termsText(termsOf(grant)),
      ...(grant.parentId === null ? {} : { beneath: grant.parentId }),
    },
  };
}
