import 'server-only';
import type { DispatchId, DocumentId, RecipientId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { domainOf, normaliseAddress } from '@/core/policy/address';
import { ANYWHERE } from '@/core/policy/conditions';
import { decide } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';
import type {
  AccessThen,
  AccessThenInput,
  AccessThenRow,
  StateThen,
} from '@/contracts/access-then';
import { grantsOf } from '@/server/repositories/access/grant-reader';
import { type RecipientRecord } from '@/server/repositories/people/recipient-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { blockedAt } from '@/server/repositories/access/past-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { documentThen, documentThenFor, type Then } from '@/server/services/policy/access-then';
import { askerOf } from '@/server/services/policy/document-policy';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone } from '@/server/services/base/record';

type Person = Pick<RecipientRecord, 'id' | 'address' | 'name' | 'organisation' | 'kind' | 'zone'>;
type Paper = NonNullable<Awaited<ReturnType<typeof findDocument>>>['document'];

/** What people could do at one moment. */
type Judge = (person: Person) => StateThen;

async function judgeAt(
  deps: Pick<Deps, 'db'>,
  then: Then,
  people: readonly Person[],
  at: Moment,
): Promise<Judge> {
  const [blocked, organisation] = await Promise.all([
    blockedAt(
      deps.db.read,
      people.map(({ id }) => id),
      at,
    ),
    findOrganisation(deps.db.read),
  ]);
  return (person) => {
    const decision = decide(then.policyFor(person), {
      identity: 'proven',
      recipient: askerOf(person, { id: person.id, blocked: blocked.has(person.id) }),
      at: {
        now: at,
        zone: person.zone ?? organisation?.zone ?? 'UTC',
        country: ANYWHERE,
        network: ANYWHERE,
        device: ANYWHERE,
      },
    });
    if (decision.outcome === 'refused') return { opens: false, reason: decision.reason };
    const { print } = decision.rights;
    return {
      opens: true,
      rights: RIGHTS.filter((right) => decision.rights[right].granted),
      printsLeft: print.granted ? print.printsLeft : null,
      until: decision.until,
    };
  };
}

function rowOf(
  person: Person,
  { id, title, reference }: Paper,
  then: StateThen,
  compared: StateThen | null,
): AccessThenRow {
  const { address, name, organisation, kind } = person;
  return {
    recipient: person.id,
    kind,
    name,
    address,
    organisation,
    document: id,
    title,
    reference,
    then,
    compared,
  };
}

async function needPaper(deps: Pick<Deps, 'db'>, id: DocumentId): Promise<Paper> {
  const found = await findDocument(deps.db.read, id);
  if (found === null) throw new ServiceError('no-document');
  return found.document;
}

/** Who could open a document, of everybody who was given it, or only of some. */
async function ofDocument(
  deps: Pick<Deps, 'db'>,
  id: DocumentId,
  at: Moment,
  also: Moment | null,
  among: ReadonlySet<RecipientId> | null,
): Promise<AccessThenRow[]> {
  const paper = await needPaper(deps, id);
  const [first, second] = [
    await documentThen(deps, paper, at),
    also === null ? null : await documentThen(deps, paper, also),
  ];
  const all = new Map(
    [...first.people, ...(second?.people ?? [])].map((person) => [person.id, person]),
  );
  // Anyone who is in a group has a grant of their own.
  const people = [...all.values()].filter(
    ({ kind, id: person }) => kind !== 'group' && (among === null || among.has(person)),
  );
  const judge = await judgeAt(deps, first, people, at);
  const judgeAlso =
    second === null || also === null ? null : await judgeAt(deps, second, people, also);
  return people.map((person) =>
    rowOf(person, paper, judge(person), judgeAlso === null ? null : judgeAlso(person)),
  );
}

async function ofDispatch(
  deps: Pick<Deps, 'db'>,
  dispatch: DispatchId,
  at: Moment,
  also: Moment | null,
): Promise<AccessThenRow[]> {
  const rows = await grantsOf(deps.db.read, { dispatch });
  const people = new Set(rows.map(({ recipient }) => recipient.id));
  const found: AccessThenRow[] = [];
  for (const id of new Set(rows.map(({ document }) => document.id)))
    found.push(...(await ofDocument(deps, id, at, also, people)));
  return found;
}

/** The documents that somebody was ever given, by themselves or with everybody at their domain. */
async function papersOf(
  deps: Pick<Deps, 'db'>,
  person: Person,
): Promise<{ readonly papers: readonly Paper[]; readonly domain: RecipientId | null }> {
  const domain =
    person.kind === 'person'
      ? await findRecipientByAddress(deps.db.read, domainOf(person.address))
      : null;
  const rows = [
    ...(await grantsOf(deps.db.read, { recipient: person.id })),
    ...(domain === null ? [] : await grantsOf(deps.db.read, { recipient: domain.id })),
  ];
  return {
    papers: [...new Map(rows.map(({ document }) => [document.id, document])).values()],
    domain: domain?.id ?? null,
  };
}

async function stateOf(
  deps: Pick<Deps, 'db'>,
  paper: Paper,
  person: Person,
  domain: RecipientId | null,
  at: Moment,
): Promise<StateThen> {
  const then = await documentThenFor(deps, paper, person, domain, at);
  return (await judgeAt(deps, then, [person], at))(person);
}

/** What somebody could open, compared with another moment or with somebody else at the same one. */
async function ofPerson(
  deps: Pick<Deps, 'db'>,
  person: Person,
  at: Moment,
  also: Moment | null,
  other: Person | null,
): Promise<AccessThenRow[]> {
  const [own, theirs] = [
    await papersOf(deps, person),
    other === null ? null : await papersOf(deps, other),
  ];
  const papers = new Map(
    [...own.papers, ...(theirs?.papers ?? [])].map((paper) => [paper.id, paper]),
  );
  const rows: AccessThenRow[] = [];
  for (const paper of papers.values()) {
    const then = await stateOf(deps, paper, person, own.domain, at);
    const compared =
      other !== null
        ? await stateOf(deps, paper, other, theirs?.domain ?? null, at)
        : also === null
          ? null
          : await stateOf(deps, paper, person, own.domain, also);
    rows.push(rowOf(person, paper, then, compared));
  }
  return rows;
}

async function needPerson(deps: Pick<Deps, 'db'>, id: RecipientId): Promise<RecipientRecord> {
  const [person] = await recipientsByIds(deps.db.read, [id]);
  if (person === undefined) throw new ServiceError('no-person');
  return person;
}

async function otherPerson(
  deps: Pick<Deps, 'db'>,
  address: string | null | undefined,
): Promise<RecipientRecord | null> {
  if (address == null || address === '') return null;
  const found = await findRecipientByAddress(deps.db.read, normaliseAddress(address) ?? '');
  if (found === null) throw new ServiceError('never-sent', { address });
  return found;
}

/**
 * Who could open something at a moment, as grants, revocations and ceilings stood then by the
 * ledger, wherever people were and on whatever device. Looking is recorded.
 *
 * @throws ServiceError `NOT_FOUND`, `INVALID` for a moment that is still to come
 */
export async function whoCouldOpen(
  deps: Deps,
  actor: StaffActor,
  { of, at, also = null, other }: AccessThenInput,
): Promise<AccessThen> {
  const now = deps.clock.now();
  if (Math.max(at, also ?? 0) > now) throw new ServiceError('moment-to-come');
  const about =
    'document' in of
      ? { document: of.document }
      : 'dispatch' in of
        ? { dispatch: of.dispatch }
        : { recipient: of.recipient };
  await recordAlone(deps, {
    action: 'staff.viewed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    ...about,
    details: { accessAt: at, ...(also === null ? {} : { also }) },
  });
  if ('document' in of)
    return { rows: await ofDocument(deps, of.document, at, also, null), other: null };
  if ('dispatch' in of) return { rows: await ofDispatch(deps, of.dispatch, at, also), other: null };
  const person = await needPerson(deps, of.recipient);
  const compared = await otherPerson(deps, other);
  return {
    rows: await ofPerson(deps, person, at, also, compared),
    other: compared === null ? null : compared.name === '' ? compared.address : compared.name,
  };
}
