import 'server-only';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import type {
  ExplainInput,
  Explained,
  NamedChange,
  NamedReason,
  NamedWay,
} from '@/contracts/explain';
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
import { lastChanges, lastDone } from '@/server/repositories/ledger/ledger-reader';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { askerOf, policyFor } from '@/server/services/policy/document-policy';
import { ServiceError } from '@/server/services/base/errors';
import { subjectNames } from '@/server/services/base/level-subjects';
import { documentThenFor } from '@/server/services/policy/access-then';
import { recordAlone } from '@/server/services/base/record';

const isLevel = (level: string): level is Level => LEVELS.some((each) => each === level);

function circumstances(
  { at, network, country, device }: ExplainInput,
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
      device == null ? ANYWHERE : { id: 'a device', kept: device === 'kept', provenAt: moment },
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

async function personAsked(deps: Deps, { recipient, address }: ExplainInput) {
  if (address == null || address === '') {
    const [known] = await recipientsByIds(deps.db.read, [recipient]);
    if (known === undefined) throw new ServiceError('no-person');
    return known;
  }
  const known = await findRecipientByAddress(deps.db.read, normaliseAddress(address) ?? '');
  if (known === null) throw new ServiceError('never-sent', { address });
  return known;
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
  const now = deps.clock.now();
  // Asking on about the same two is not another look at them.
  const plain =
    input.at == null && input.network == null && input.country == null && input.device == null;
  if (plain || recipient.id !== input.recipient)
    await recordAlone(deps, {
      action: 'staff.viewed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      recipient: recipient.id,
      document: found.document.id,
    });
  const zone = recipient.zone ?? organisation?.zone ?? 'UTC';
  const at = circumstances(
    input,
    now,
    zone,
    (network) => deps.places.find(network)?.country ?? null,
  );
  const past = at.now < now;
  const { policy, blocked } = past
    ? await stoodThen(deps, found.document, recipient, at.now)
    : { policy: await policyFor(deps, deps.db.read, found, recipient), blocked: recipient.blocked };
  const explanation = explain(policy, {
    identity: 'proven',
    recipient: askerOf(recipient, { id: recipient.id, blocked }),
    at,
  });
  const { decision, why, rights, ways } = explanation;
  const grants = grantsNamed(explanation);
  const [staff, subjectOf, dispatches, ended, changes] = await Promise.all([
    namesOfStaff(deps.db.read),
    subjectNames(deps.db.read, [found.document.id]),
    dispatchesOfGrants(deps.db.read, grants),
    past ? null : whoEnded(deps, why, decision, found.document.id, recipient.id),
    past ? new Map<string, Act>() : lastChanges(deps.db.read, grants),
  ]);
  const dispatchOf = (grant: string): NamedWay['dispatch'] =>
    dispatches.get(grant) ?? { id: '', reference: '', subject: '' };
  const ceilingName = (ceiling: Subject): string => subjectOf(ceiling) ?? '';
  const changeNamed = (change: Change): NamedChange => ({
    ...change,
    name:
      'grant' in change
        ? dispatchOf(change.grant).reference
        : 'ceiling' in change
          ? ceilingName(change.ceiling)
          : '',
  });
  const lastChange = (grant: string): NamedReason['lastChange'] => {
    const last = changes.get(grant);
    return last === undefined ? null : { by: staff.get(last.by ?? '') ?? '', at: last.at };
  };
  const named = (reason: Reason, act: Act | null): NamedReason => {
    const { setBy, setAt } = act === null ? reason : { setBy: act.by, setAt: act.at };
    const isGrant = reason.level === 'grant';
    return {
      level: reason.level,
      subject: reason.subject,
      setBy,
      setAt,
      setByName: setBy === null ? '' : (staff.get(setBy) ?? ''),
      ended: act !== null,
      name: isGrant
        ? dispatchOf(reason.subject).reference
        : isLevel(reason.level) && reason.setBy !== null
          ? ceilingName({ level: reason.level, subject: reason.subject })
          : '',
      lastChange: isGrant && act === null ? lastChange(reason.subject) : null, // What is over cannot be changed.
      changes: past ? [] : reason.changes.map(changeNamed),
    };
  };
  const wayNamed = (way: Way): NamedWay => {
    const { grant, standing, rights: held, from, until, givenAt } = way;
    const conditions = [...new Set(way.conditions.flatMap((each) => conditionLines(each, zone)))];
    return {
      grant,
      dispatch: dispatchOf(grant),
      standing,
      rights: held,
      from,
      until,
      givenBy: staff.get(way.givenBy) ?? '',
      givenAt,
      conditions,
      endedBy: endedByWords(way, ceilingName),
    };
  };
  const granted = decision.outcome === 'granted';
  return {
    now: at.now,
    past,
    person: recipient.name === '' ? recipient.address : recipient.name,
    document: found.document.title,
    opens: granted,
    reason: granted ? null : decision.reason,
    until: granted ? decision.until : null,
    why: named(why, ended),
    rights: rights.map(({ right, verdict, reason }) => ({
      right,
      verdict,
      reason: named(reason, granted ? null : ended),
    })),
    ways: ways.map(wayNamed),
  };
}
