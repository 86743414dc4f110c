import 'server-only';
import { groupBy } from '@/core/base/group';
import { newId, type GrantId, type GroupId, type RecipientId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import { domainOf } from '@/core/policy/address';
import { addressOfGroup, standsForMany } from '@/core/policy/addressee';
import { reaches } from '@/core/policy/permissions';
import type { Transaction } from '@/server/db/database';
import { grantsByIds, termsOf, type GrantRecord } from '@/server/repositories/access/grant-reader';
import {
  insertGrants,
  setAllRevoked,
  setGrantsReinstated,
  setGrantsRevoked,
  noteBack,
  noteLeft,
  setAbove,
} from '@/server/repositories/access/grant-writer';
import { insertRecipients } from '@/server/repositories/people/recipient-repository';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import { findPerson, recipientsByIds } from '@/server/repositories/people/people-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import {
  givenByOtherGroups,
  hasLink,
  liveBeneath,
  liveOfAddressee,
  organisationAt,
  ownGrantIn,
  ownIn,
  type WiderGrant,
} from '@/server/repositories/access/wider-repository';
import { aboutReinstated, aboutRevoked } from '@/server/services/access/revoke-grants';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { aboutGiven, newLink } from '@/server/services/access/give-grants';
import { needWithinLimits } from '@/server/services/policy/sender-limits';
import { needOurs, onlyOurs } from '@/server/services/base/trusted-rows';
import { record } from '@/server/services/base/record';

type Copy = { readonly for: RecipientId; readonly givenAt: number };

/** A grant like another one, in the same dispatch, for somebody else. */
function alike(
  deps: Pick<Deps, 'random'>,
  { dispatchId, documentId, rights, fromAt, untilAt, prints, conditions, givenBy }: GrantRecord,
  { for: recipientId, givenAt }: Copy,
) {
  return {
    id: newId('grant', deps.random),
    dispatchId,
    documentId,
    recipientId,
    rights,
    fromAt,
    untilAt,
    prints,
    conditions,
    termsId: null,
    parentId: null as GrantId | null,
    follows: false,
    givenBy,
    givenAt,
  };
}

/** A grant of somebody's own beneath one that is given to many: the same, until it is changed by itself. */
function beneath(deps: Pick<Deps, 'random'>, above: GrantRecord, copy: Copy) {
  return { ...alike(deps, above, copy), parentId: above.id, follows: true };
}

/** Writes grants in dispatches there are already, and links for anyone who has none to the dispatch yet. */
async function insertIntoDispatches(
  deps: Pick<Deps, 'random'>,
  tx: Transaction,
  rows: readonly ReturnType<typeof alike>[],
  now: number,
): Promise<void> {
  const links = [];
  for (const [first] of groupBy(
    rows,
    ({ dispatchId, recipientId }) => `${dispatchId} ${recipientId}`,
  ).values()) {
    if (first !== undefined && !(await hasLink(tx, first.dispatchId, first.recipientId)))
      links.push(newLink(deps, first.dispatchId, first.recipientId, now));
  }
  await insertGrants(tx, rows, links);
}

/**
 * The grant that an open is charged to. Beneath one that is given to many, a grant of the person's
 * own is made at their first open, so that they can be changed or revoked alone; who was not known
 * becomes a recipient by it.
 */
export async function ownGrant(
  deps: Pick<Deps, 'random' | 'recorder'>,
  tx: Transaction,
  actor: ReaderActor,
  id: GrantId,
  now: number,
): Promise<GrantId> {
  const [above] = await grantsByIds(tx, [id]);
  const addressee = above === undefined ? null : await findPerson(tx, above.recipientId);
  if (above === undefined || addressee === null || !standsForMany(addressee.kind)) return id;
  const known = await findRecipientByAddress(tx, actor.address);
  const person = known?.id ?? newId('recipient', deps.random);
  if (known === null)
    await insertRecipients(tx, [
      {
        id: person,
        address: actor.address,
        name: '',
        organisation: await organisationAt(tx, domainOf(actor.address)),
        createdAt: now,
      },
    ]);
  const there = await ownGrantIn(tx, person, above.dispatchId, above.documentId);
  if (there !== null) return there.id;
  const row = beneath(deps, above, { for: person, givenAt: above.givenAt });
  await insertIntoDispatches(deps, tx, [row], now);
  await record(deps, tx, aboutGiven(row, above.dispatchId, { kind: 'recipient', id: person }, now));
  return row.id;
}

/** What somebody has of their own in the dispatches of these grants. */
async function documentsIn(
  tx: Transaction,
  person: RecipientId,
  grants: readonly GrantRecord[],
): Promise<ReadonlySet<string>> {
  const own =
    grants.length === 0
      ? []
      : await ownIn(tx, [person], [...new Set(grants.map(({ dispatchId }) => dispatchId))]);
  return new Set(own.map(({ dispatchId, documentId }) => `${dispatchId} ${documentId}`));
}

/** Gives somebody what another one has, in the same dispatches, but for documents that they have there already. */
export async function giveAlike(
  deps: Pick<Deps, 'random' | 'integrity'>,
  tx: Transaction,
  actor: StaffActor,
  loaded: readonly GrantRecord[],
  person: RecipientId,
  now: number,
) {
  const held = await onlyOurs(deps, tx, 'grants', loaded);
  const theirs = await documentsIn(tx, person, held);
  const wanted = new Map(held.map((grant) => [`${grant.dispatchId} ${grant.documentId}`, grant]));
  const rows = [...wanted]
    .filter(([key]) => !theirs.has(key))
    .map(([, grant]) => ({
      ...alike(deps, grant, { for: person, givenAt: now }),
      givenBy: actor.id,
    }));
  await insertIntoDispatches(deps, tx, rows, now);
  return {
    rows,
    events: rows.map((row) =>
      aboutGiven(row, row.dispatchId, { kind: 'staff', id: actor.id }, now),
    ),
  };
}

/** Gives one person grants of their own beneath these, where they have none in the same dispatch yet. */
export async function giveBeneath(
  deps: Pick<Deps, 'random' | 'integrity'>,
  tx: Transaction,
  loaded: readonly GrantRecord[],
  person: RecipientId,
  now: number,
): Promise<readonly LedgerEvent[]> {
  const above = await onlyOurs(deps, tx, 'grants', loaded);
  const theirs = await documentsIn(tx, person, above);
  const rows = above
    .filter(({ dispatchId, documentId }) => !theirs.has(`${dispatchId} ${documentId}`))
    .map((grant) => beneath(deps, grant, { for: person, givenAt: grant.givenAt }));
  await insertIntoDispatches(deps, tx, rows, now);
  return rows.map((row) => aboutGiven(row, row.dispatchId, { kind: 'recipient', id: person }, now));
}

/** @throws ServiceError `NOT_ALLOWED` */
function needReachOver(actor: StaffActor, wider: readonly WiderGrant[]): void {
  if (
    wider.every(({ sentBy, ownerId, deputyId }) =>
      reaches(actor, { sender: sentBy, owner: ownerId, deputy: deputyId }),
    )
  )
    return;
  throw new ServiceError('group-of-others');
}

/**
 * Joining gives: a limited sender puts into a group only whom they could have given the same.
 * @throws ServiceError `NOT_ALLOWED`
 */
async function needGivable(
  tx: Transaction,
  actor: StaffActor,
  wider: readonly WiderGrant[],
  people: readonly RecipientId[],
): Promise<void> {
  const addresses = (await recipientsByIds(tx, people)).map(({ address }) => address);
  const documents = await findDocuments(tx, [
    ...new Set(wider.map(({ grant }) => grant.documentId)),
  ]);
  for (const { grant } of wider)
    await needWithinLimits(tx, actor, {
      addresses,
      documents: documents.filter(({ id }) => id === grant.documentId),
      terms: [termsOf(grant)],
      givenAt: grant.givenAt,
    });
}

export type Joined = {
  readonly given: readonly GrantRecord['id'][];
  readonly newGrants: readonly {
    readonly dispatchId: GrantRecord['dispatchId'];
    readonly recipientId: RecipientId;
  }[];
  readonly events: readonly LedgerEvent[];
};

/** Gives people what the group that they join has as a group; who left it before has again what they had. */
export async function joinGroup(
  deps: Pick<Deps, 'random' | 'integrity'>,
  tx: Transaction,
  actor: StaffActor,
  group: GroupId,
  people: readonly RecipientId[],
  now: number,
): Promise<Joined> {
  const addressee = await findRecipientByAddress(tx, addressOfGroup(group));
  const wider =
    addressee === null || people.length === 0 ? [] : await liveOfAddressee(tx, addressee.id, now);
  if (wider.length === 0) return { given: [], newGrants: [], events: [] };
  needReachOver(actor, wider);
  await needOurs(deps, tx, { grants: wider.map(({ grant }) => grant.id), recipients: [...people] });
  await needGivable(tx, actor, wider, people);
  const theirs = new Map(
    (await ownIn(tx, people, [...new Set(wider.map(({ grant }) => grant.dispatchId))])).map(
      (grant) => [`${grant.dispatchId} ${grant.documentId} ${grant.recipientId}`, grant],
    ),
  );
  const rows: ReturnType<typeof beneath>[] = [];
  const back: GrantId[] = [];
  for (const { grant } of wider) {
    for (const person of people) {
      const there = theirs.get(`${grant.dispatchId} ${grant.documentId} ${person}`);
      if (there === undefined) rows.push(beneath(deps, grant, { for: person, givenAt: now }));
      else if (there.leftAt !== null && there.leftAt === there.revokedAt) back.push(there.id);
    }
  }
  await insertIntoDispatches(deps, tx, rows, now);
  const reinstated = back.length === 0 ? [] : await setGrantsReinstated(tx, back);
  await noteBack(tx, back);
  const by = { kind: 'staff' as const, id: actor.id };
  return {
    given: [...rows.map(({ id }) => id), ...back],
    newGrants: rows,
    events: [
      ...rows.map((row) => aboutGiven(row, row.dispatchId, by, now)),
      ...reinstated.map((grant) => aboutReinstated(actor, now, grant, { because: 'joined-group' })),
    ],
  };
}

/**
 * Ends what people have because they were in a group that they have left, but for what another
 * group of theirs was sent along with it.
 */
export async function leaveGroup(
  tx: Transaction,
  actor: StaffActor,
  group: GroupId,
  people: readonly RecipientId[],
  now: number,
): Promise<readonly LedgerEvent[]> {
  const addressee = await findRecipientByAddress(tx, addressOfGroup(group));
  const wider =
    addressee === null || people.length === 0 ? [] : await liveOfAddressee(tx, addressee.id, now);
  if (wider.length === 0) return [];
  needReachOver(actor, wider);
  const leaving = new Set(people);
  const beneathThese = (
    await liveBeneath(
      tx,
      wider.map(({ grant }) => grant.id),
    )
  ).filter(({ recipientId }) => leaving.has(recipientId));
  const stay = await givenByOtherGroups(
    tx,
    beneathThese.map(({ id }) => id),
  );
  for (const { id, above } of stay) await setAbove(tx, id, above);
  const ending = beneathThese.filter(({ id }) => !stay.some((each) => each.id === id));
  const revoked =
    ending.length === 0
      ? []
      : await setGrantsRevoked(
          tx,
          ending.map(({ id }) => id),
          actor.id,
          now,
        );
  await noteLeft(
    tx,
    revoked.map(({ id }) => id),
    now,
  );
  return revoked.map((grant) => aboutRevoked(actor, now, grant, { because: 'left-group' }));
}

/** Ends what a group has as a group; what its people have stays theirs. */
export async function endGroup(
  tx: Transaction,
  actor: StaffActor,
  group: GroupId,
  now: number,
): Promise<readonly LedgerEvent[]> {
  const addressee = await findRecipientByAddress(tx, addressOfGroup(group));
  const wider = addressee === null ? [] : await liveOfAddressee(tx, addressee.id, now);
  needReachOver(actor, wider);
  await setAllRevoked(
    tx,
    wider.map(({ grant }) => grant.id),
    actor.id,
    now,
  );
  return wider.map(({ grant }) => aboutRevoked(actor, now, grant, { because: 'group-removed' }));
}
