import 'server-only';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import type { ExplainInput, Explained, NamedReason, NamedWay } from '@/contracts/explain';
import { LEVELS, type Level, type Subject } from '@/core/policy/levels';
import type { Ceiling } from '@/core/policy/ceiling';
import type { Change } from '@/core/policy/changes';
import { ANYWHERE, type Circumstances } from '@/core/policy/conditions';
import { conditionLines } from '@/core/policy/condition-lines';
import { domainOf, normaliseAddress } from '@/core/policy/address';
import type { Decision } from '@/core/policy/decide';
import type { CompiledDocument } from '@/core/policy/compile';
import { explain, type Explanation, type Reason, type Way } from '@/core/policy/explain';
import { dispatchesOfGrants } from '@/server/repositories/dispatching/dispatch-repository';
import { type RecipientRecord } from '@/server/repositories/people/recipient-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { blockedAt } from '@/server/repositories/access/past-repository';
import { lastChanges, lastDone } from '@/server/repositories/ledger/last-done';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { readsWithAids } from '@/server/services/policy/reading-aids';
import { askerOf, policyFor } from '@/server/services/policy/document-policy';
import { ServiceError } from '@/server/services/base/errors';
import { subjectNames } from '@/server/services/base/level-subjects';
import { documentThenFor } from '@/server/services/policy/access-then';
import { recordAlone } from '@/server/services/base/record';

const isLevel = (level: string): level is Level => LEVELS.some((each) => each === level);

/** The circumstances that are asked about. @param countryOf what a network's place is estimated to be */
export function circumstances(
  { at, network, country, device }: Pick<ExplainInput, 'at' | 'network' | 'country' | 'device'>,
  now: number,
  zone: string,
  countryOf: (network: string) => string | null,
): Circumstances {
  const moment = at ?? now;
  const asked = network == null || network === '' ? null : network;
  return {
    now: moment,
    zone,
    network: asked ?? ANYWHERE,
    // A network says where it is; a country that is named beside it is taken at its word.
    country:
      country == null || country === '' ? (asked === null ? ANYWHERE : countryOf(asked)) : country,
    device:
      device == null
        ? ANYWHERE
        : { id: 'a device', kept: device === 'kept', provenAt: moment, passkeyAt: moment },
  };
}

type Document = NonNullable<Awaited<ReturnType<typeof findDocument>>>['document'];
type Act = { readonly by: string | null; readonly at: number };

/** Who ended access and when, where a refusal rests on somebody's act. */
async function whoEnded(
  deps: Deps,
  why: Reason,
  decision: Decision,
  document: DocumentId,
  recipient: RecipientId,
): Promise<Act | null> {
  if (decision.outcome === 'granted') return null;
  switch (decision.reason) {
    case 'revoked':
      return lastDone(deps.db.read, 'grant.revoked', { grant: why.subject });
    case 'document-revoked':
      return lastDone(deps.db.read, 'document.revoked', { document });
    case 'recipient-blocked':
      return lastDone(deps.db.read, 'recipient.blocked', { recipient });
    case 'key-destroyed':
      return lastDone(deps.db.read, 'key.destroyed', { document });
    default:
      return null;
  }
}

/** Every grant that an explanation speaks of. */
function grantsNamed({ why, rights, ways }: Explanation): GrantId[] {
  const reasons = [why, ...rights.map(({ reason }) => reason)];
  const rules = [...reasons, ...ways.flatMap(({ endedBy }) => endedBy?.rule ?? [])];
  const ofRules = rules
    .filter(({ level }) => level === 'grant')
    .map(({ subject }) => subject as GrantId);
  const ofChanges = reasons.flatMap(({ changes }) =>
    changes.flatMap((change) => ('grant' in change ? [change.grant] : [])),
  );
  return [...new Set([...ways.map(({ grant }) => grant), ...ofRules, ...ofChanges])];
}

function endedByWords(
  { grant, endedBy }: Way,
  nameOf: (ceiling: Ceiling) => string,
): NamedWay['endedBy'] {
  const change = endedBy?.change ?? null;
  if (endedBy === null || change === null) return null;
  if (change.kind === 'raise-ceiling') return { kind: 'ceiling', name: nameOf(change.ceiling) };
  if (endedBy.rule.subject !== grant) return { kind: 'above' };
  return change.kind === 'change-condition' ? { kind: 'span' } : null;
}

/** What decided at a moment that is over, by the ledger. */
async function stoodThen(
  deps: Deps,
  document: Document,
  person: RecipientRecord,
  at: number,
): Promise<{ readonly policy: CompiledDocument; readonly blocked: boolean }> {
  const domain = await findRecipientByAddress(deps.db.read, domainOf(person.address));
  const [then, blocked] = await Promise.all([
    documentThenFor(deps, document, person, domain?.id ?? null, at),
    blockedAt(deps.db.read, [person.id], at),
  ]);
  return { policy: then.policyFor(person), blocked: blocked.has(person.id) };
}

export async function personAsked(deps: Deps, { recipient, address }: ExplainInput) {
  if (address == null || address === '') {
    const [known] = await recipientsByIds(deps.db.read, [recipient]);
    if (known === undefined) throw new ServiceError('no-person');
    return known;
  }
  const known = await findRecipientByAddress(deps.db.read, normaliseAddress(address) ?? '');
  if (known === null) throw new ServiceError('never-sent', { address });
  return known;
}

/** Whether they are asked about as they are, and not at another time, place or device. */
function isAsTheyAre({ at, network, country, device }: ExplainInput): boolean {
  return [at, network, country, device].every((each) => each == null);
}

/** The names of all that an explanation speaks of. */
type Names = {
  readonly staff: ReadonlyMap<string, string>;
  readonly dispatchOf: (grant: string) => NamedWay['dispatch'];
  readonly ceiling: (subject: Subject) => string;
  readonly changes: ReadonlyMap<string, Act>;
};

async function namesIn(
  deps: Deps,
  document: DocumentId,
  explanation: Explanation,
  past: boolean,
): Promise<Names> {
  const grants = grantsNamed(explanation);
  const [staff, subjectOf, dispatches, changes] = await Promise.all([
    namesOfStaff(deps.db.read),
    subjectNames(deps.db.read, [document]),
    dispatchesOfGrants(deps.db.read, grants),
    past ? new Map<string, Act>() : lastChanges(deps.db.read, grants),
  ]);
  return {
    staff,
    dispatchOf: (grant) => dispatches.get(grant) ?? { id: '', reference: '', subject: '' },
    ceiling: (subject) => subjectOf(subject) ?? '',
    changes,
  };
}

function nameOfChange(names: Names, change: Change): string {
  if ('grant' in change) return names.dispatchOf(change.grant).reference;
  return 'ceiling' in change ? names.ceiling(change.ceiling) : '';
}

function nameOfReason(names: Names, { level, subject, setBy }: Reason): string {
  if (level === 'grant') return names.dispatchOf(subject).reference;
  return isLevel(level) && setBy !== null ? names.ceiling({ level, subject }) : '';
}

function staffName(names: Names, id: string | null): string {
  return id === null ? '' : (names.staff.get(id) ?? '');
}

function lastChangeOf(names: Names, grant: string): NamedReason['lastChange'] {
  const last = names.changes.get(grant);
  return last === undefined ? null : { by: staffName(names, last.by), at: last.at };
}

/** @param act what ended access, where that is known: it takes the place of who set the rule */
function namedReason(
  names: Names,
  reason: Reason,
  { act, past }: { readonly act: Act | null; readonly past: boolean },
): NamedReason {
  const { setBy, setAt } = act === null ? reason : { setBy: act.by, setAt: act.at };
  // What is over cannot be changed.
  const canChange = reason.level === 'grant' && act === null;
  return {
    level: reason.level,
    subject: reason.subject,
    setBy,
    setAt,
    setByName: staffName(names, setBy),
    ended: act !== null,
    name: nameOfReason(names, reason),
    lastChange: canChange ? lastChangeOf(names, reason.subject) : null,
    changes: past
      ? []
      : reason.changes.map((change) => ({ ...change, name: nameOfChange(names, change) })),
  };
}

function namedWay(names: Names, way: Way, zone: string): NamedWay {
  const { grant, standing, rights, from, until, givenAt } = way;
  return {
    grant,
    dispatch: names.dispatchOf(grant),
    standing,
    rights,
    from,
    until,
    givenBy: staffName(names, way.givenBy),
    givenAt,
    conditions: [...new Set(way.conditions.flatMap((each) => conditionLines(each, zone)))],
    endedBy: endedByWords(way, names.ceiling),
  };
}

/** Writes down that somebody of the staff looked at what a person can open. */
export async function recordLook(
  deps: Deps,
  actor: StaffActor,
  recipient: RecipientId,
  document: DocumentId,
): Promise<void> {
  await recordAlone(deps, {
    action: 'staff.viewed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    recipient,
    document,
  });
}

/**
 * Why a person can or cannot open a document, now or at another time, place or device: the
 * decision, the rule behind it and behind each right, and every way in they have. Looking is
 * recorded.
 *
 * @throws ServiceError `NOT_FOUND`
 */
export async function explainAccess(
  deps: Deps,
  actor: StaffActor,
  input: ExplainInput,
): Promise<Explained> {
  const [found, recipient, organisation] = await Promise.all([
    findDocument(deps.db.read, input.document),
    personAsked(deps, input),
    findOrganisation(deps.db.read),
  ]);
  if (found === null) throw new ServiceError('no-document');
  const { document } = found;
  // Asking on about the same two is not another look at them.
  if (isAsTheyAre(input) || recipient.id !== input.recipient)
    await recordLook(deps, actor, recipient.id, document.id);
  const now = deps.clock.now();
  const zone = recipient.zone ?? organisation?.zone ?? 'UTC';
  const at = circumstances(
    input,
    now,
    zone,
    (network) => deps.places.find(network)?.country ?? null,
  );
  const past = at.now < now;
  const { policy, blocked } = past
    ? await stoodThen(deps, document, recipient, at.now)
    : { policy: await policyFor(deps, deps.db.read, found, recipient), blocked: recipient.blocked };
  return answer(deps, { document, recipient, policy, blocked, at, zone, past });
}

type Question = {
  readonly document: Document;
  readonly recipient: Pick<RecipientRecord, 'id' | 'name' | 'address'>;
  readonly policy: CompiledDocument;
  readonly blocked: boolean;
  readonly at: Circumstances;
  readonly zone: string;
  readonly past: boolean;
};

/** What is told of a decision, with everything it rests on by its name. */
export async function answer(
  deps: Deps,
  { document, recipient, policy, blocked, at, zone, past }: Question,
): Promise<Explained> {
  const explanation = explain(policy, {
    identity: 'proven',
    recipient: askerOf(recipient, { id: recipient.id, blocked }),
    at,
  });
  const { decision, why, rights, ways } = explanation;
  const [readingAids, names, ended] = await Promise.all([
    !past &&
      decision.outcome === 'granted' &&
      readsWithAids(deps, deps.db.read, decision, {
        owner: document.ownerId,
        recipient: recipient.id,
      }),
    namesIn(deps, document.id, explanation, past),
    past ? null : whoEnded(deps, why, decision, document.id, recipient.id),
  ]);
  return {
    readingAids,
    now: at.now,
    past,
    person: recipient.name === '' ? recipient.address : recipient.name,
    document: document.title,
    ...outcomeOf(decision),
    why: namedReason(names, why, { act: ended, past }),
    rights: rights.map(({ right, verdict, reason }) => ({
      right,
      verdict,
      reason: namedReason(names, reason, { act: ended, past }),
    })),
    ways: ways.map((way) => namedWay(names, way, zone)),
  };
}

function outcomeOf(decision: Decision): Pick<Explained, 'opens' | 'reason' | 'until'> {
  return decision.outcome === 'granted'
    ? { opens: true, reason: null, until: decision.until }
    : { opens: false, reason: decision.reason, until: null };
}
