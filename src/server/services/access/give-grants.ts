import 'server-only';
import { linesOf, type Watermark } from '@/core/watermark/layers';
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
import type { DoubtCode } from '@/core/compose/concerns';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { Delivery, DeliveryForm } from '@/core/policy/delivery';
import { termsText, type Terms } from '@/core/policy/rights';
import type { Transaction } from '@/server/db/database';
import {
  countDispatches,
  insertDispatch,
  allLinksOf,
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
  /** Documents of the gift that they are not given. */
  readonly without?: readonly DocumentId[] | undefined;
};

/** Documents and those who are given them, each on terms of their own: one grant for each pair. */
type Gift = {
  readonly documents: readonly { readonly id: DocumentId }[];
  readonly people: readonly Addressee[];
  readonly now: number;
};

/** What a dispatch says besides what it gives. */
type NewDispatch = {
  /** The id that it is to have; absent: any. */
  readonly id?: DispatchId;
  readonly subject: string;
  readonly note?: string;
  readonly watermark: Watermark;
  /** Without mail the links are carried by hand, or lead those who already have one. */
  readonly delivery?: Delivery;
  readonly form?: DeliveryForm;
  readonly titleOnCover?: boolean;
  readonly noteInMail?: boolean;
  /** Why it goes out as it does. */
  readonly reason?: string | undefined;
  /** What its sender was asked about and left as it is. */
  readonly waved?: readonly DoubtCode[] | undefined;
  /** The agreement of a second person by which it goes out. */
  readonly consent?: ConsentId;
};

/** A dispatch there is already, which more people join. */
type Joined = { readonly id: DispatchId; readonly reference: string };

export type Given = {
  readonly id: DispatchId;
  readonly reference: string;
  readonly tokens: ReadonlyMap<RecipientId, string>;
  readonly events: readonly LedgerEvent[];
};

/**
 * Writes a dispatch with its grants and links. With `addGrants` the one place where access comes
 * into being; the caller records the events in the same transaction.
 *
 * @throws ServiceError `NOT_ALLOWED` where it goes beyond what the member of staff may give
 */
export async function giveGrants(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  actor: StaffActor,
  dispatch: NewDispatch,
  gift: Gift,
): Promise<Given> {
  await needToBeAllowed(tx, actor, gift);
  const row = {
    id: dispatch.id ?? newId('dispatch', deps.random),
    reference: `D-${String((await countDispatches(tx)) + 1).padStart(4, '0')}`,
    subject: dispatch.subject,
    note: dispatch.note ?? '',
    watermark: dispatch.watermark,
    delivery: dispatch.delivery ?? 'by-hand',
    form: dispatch.form ?? 'link',
    titleOnCover: dispatch.titleOnCover ?? false,
    noteInMail: dispatch.noteInMail ?? true,
    reason: dispatch.reason ?? '',
    sentBy: actor.id,
    sentAt: gift.now,
  };
  await insertDispatch(tx, row);
  const given = await writeGrants(deps, tx, actor, row, gift, new Map());
  return { ...given, events: [sent(row, gift, dispatch), ...given.events] };
}

/**
 * Adds people, and what they are given, to a dispatch that is there; the caller records the events
 * in the same transaction.
 *
 * @throws ServiceError `NOT_ALLOWED` where it goes beyond what the member of staff may give
 */
export async function addGrants(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  actor: StaffActor,
  dispatch: Joined,
  gift: Gift,
): Promise<Given> {
  await needToBeAllowed(tx, actor, gift);
  return writeGrants(deps, tx, actor, dispatch, gift, await allLinksOf(tx, dispatch.id));
}

async function needToBeAllowed(tx: Transaction, actor: StaffActor, gift: Gift): Promise<void> {
  await needWithinLimits(tx, actor, {
    addresses: gift.people.map(({ address }) => address),
    documents: await findDocuments(
      tx,
      gift.documents.map(({ id }) => id),
    ),
    terms: gift.people.map(({ terms }) => terms),
    givenAt: gift.now,
  });
}

/**
 * Each grant of a gift, and a link for each person who has none in this dispatch yet.
 *
 * @param known the links there are, by person
 */
async function writeGrants(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  actor: StaffActor,
  { id, reference }: Joined,
  gift: Gift,
  known: ReadonlyMap<RecipientId, string>,
): Promise<Given> {
  const links = gift.people
    .filter((person) => !known.has(person.id))
    .map((person) => newLink(deps, id, person.id, gift.now));
  const grants = grantRows(deps, actor, id, gift);
  await insertGrants(tx, grants, links);
  const by = { kind: 'staff' as const, id: actor.id };
  return {
    id,
    reference,
    tokens: new Map([
      ...known,
      ...links.map(({ recipientId, token }): [RecipientId, string] => [recipientId, token]),
    ]),
    events: grants.map((grant) => aboutGiven(grant, id, by, gift.now)),
  };
}

function grantRows(
  deps: Pick<Deps, 'random'>,
  actor: StaffActor,
  dispatchId: DispatchId,
  { people, documents, now }: Gift,
) {
  const givenTo = ({ without = [] }: Addressee) =>
    without.length === 0 ? documents : documents.filter(({ id }) => !without.includes(id));
  const ids = new Map(
    people.flatMap((person) =>
      givenTo(person).map((document): [string, GrantId] => [
        `${person.id} ${document.id}`,
        newId('grant', deps.random),
      ]),
    ),
  );
  const idOf = (person: RecipientId, document: DocumentId): GrantId =>
    ids.get(`${person} ${document}`) ?? newId('grant', deps.random);
  return people.flatMap((person) => {
    const { id: recipientId, terms, kept, through } = person;
    return givenTo(person).map((document) => ({
      id: idOf(recipientId, document.id),
      parentId: through === undefined ? null : idOf(through, document.id),
      follows: through !== undefined,
      dispatchId,
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
    }));
  });
}

type DispatchRow = Parameters<typeof insertDispatch>[1] & {
  readonly form: DeliveryForm;
  readonly delivery: Delivery;
};

/** The entry about a dispatch that went out. */
function sent(
  row: DispatchRow,
  gift: Gift,
  { consent, waved = [] }: Pick<NewDispatch, 'consent' | 'waved'>,
): LedgerEvent {
  const { subject, note, reason } = row;
  return {
    action: 'dispatch.sent',
    outcome: 'done',
    actor: { kind: 'staff', id: row.sentBy },
    occurredAt: row.sentAt,
    dispatch: row.id,
    details: {
      reference: row.reference,
      delivery: `${formText[row.form]}${deliveryText[row.delivery]}`,
      documents: gift.documents.length,
      recipients: gift.people.length,
      watermark: linesOf(row.watermark),
      ...(waved.length === 0 ? {} : { waved: [...new Set(waved)] }),
      ...(consent === undefined ? {} : { consent }),
    },
    personal: { text: [subject, note, ...(reason === '' ? [] : [reason])].join('\n') },
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

/** A link that leads an addressee, or with `null` whoever it was sent to, to a dispatch. */
export function newLink<R extends RecipientId | null>(
  deps: Pick<Deps, 'random'>,
  dispatchId: DispatchId,
  recipientId: R,
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
