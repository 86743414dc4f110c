import 'server-only';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { ExplainInput, Explained, NamedReason, NamedWay } from '@/contracts/explain';
import { LEVELS, type Level } from '@/core/policy/levels';
import { ANYWHERE, type Circumstances } from '@/core/policy/conditions';
import { conditionLines } from '@/core/policy/condition-lines';
import { normaliseAddress } from '@/core/policy/address';
import type { Decision } from '@/core/policy/decide';
import { explain, type Reason, type Way } from '@/core/policy/explain';
import { dispatchesOfGrants } from '@/server/repositories/dispatch-repository';
import { findDocument } from '@/server/repositories/document-repository';
import { findOrganisation } from '@/server/repositories/organisation-repository';
import { findRecipientByAddress } from '@/server/repositories/reader-repository';
import { lastDone } from '@/server/repositories/ledger-reader';
import { recipientsByIds } from '@/server/repositories/people-repository';
import { namesOfStaff } from '@/server/repositories/staff-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { askerOf, policyFor } from '@/server/services/document-policy';
import { ServiceError } from '@/server/services/errors';
import { subjectNames } from '@/server/services/level-subjects';
import { recordAlone } from '@/server/services/record';

const isLevel = (level: string): level is Level => LEVELS.some((each) => each === level);

function circumstances({ at, network, country, device }: ExplainInput, now: number, zone: string, countryOf: (network: string) => string | null): Circumstances {
  const moment = at ?? now;
  const asked = network == null || network === '' ? null : network;
  return {
    now: moment, zone, network: asked ?? ANYWHERE,
    // A network says where it is; a country that is named beside it is taken at its word.
    country: country == null || country === '' ? (asked === null ? ANYWHERE : countryOf(asked)) : country,
    device: device == null ? ANYWHERE : { id: 'a device', kept: device === 'kept', provenAt: moment },
  };
}

/** A refusal that somebody's act brought about names who acted and when, not who gave the access. */
async function withWhoEnded(deps: Deps, why: Reason, decision: Decision, document: DocumentId, recipient: RecipientId): Promise<Reason> {
  if (decision.outcome === 'granted') return why;
  const acts = { revoked: ['grant.revoked', { recipient, grant: why.subject }], 'document-revoked': ['document.revoked', { document }], 'recipient-blocked': ['recipient.blocked', { recipient }], 'key-destroyed': ['key.destroyed', { document }] } as const;
  const act = decision.reason in acts ? acts[decision.reason as keyof typeof acts] : null;
  const done = act === null ? null : await lastDone(deps.db.read, act[0], act[1]);
  return done === null ? why : { ...why, setBy: done.by, setAt: done.at };
}

async function personAsked(deps: Deps, { recipient, address }: ExplainInput) {
  if (address == null || address === '') {
    const [known] = await recipientsByIds(deps.db.read, [recipient]);
    if (known === undefined) throw new ServiceError('NOT_FOUND', 'There is no such person.');
    return known;
  }
  const known = await findRecipientByAddress(deps.db.read, normaliseAddress(address) ?? '');
  if (known === null) throw new ServiceError('NOT_FOUND', `Nobody with the address “${address}” was ever sent anything.`);
  return known;
}

/**
 * Why a person can or cannot open a document, now or at another time, place or device: the decision, the rule behind it and
 * behind each right, and every way in they have. Looking is recorded.
 *
 * @throws ServiceError `NOT_FOUND`
 */
export async function explainAccess(deps: Deps, actor: StaffActor, input: ExplainInput): Promise<Explained> {
  const [found, recipient, organisation] = await Promise.all([findDocument(deps.db.read, input.document), personAsked(deps, input), findOrganisation(deps.db.read)]);
  if (found === null) throw new ServiceError('NOT_FOUND', 'There is no such document.');
  const now = deps.clock.now();
  // Asking on about the same two is not another look at them.
  const plain = input.at == null && input.network == null && input.country == null && input.device == null;
  if (plain || recipient.id !== input.recipient) await recordAlone(deps, { action: 'staff.viewed', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, recipient: recipient.id, document: found.document.id });
  const zone = recipient.zone ?? organisation?.zone ?? 'UTC';
  const at = circumstances(input, now, zone, (network) => deps.places.find(network)?.country ?? null);
  const { decision, why, rights, ways } = explain(await policyFor(deps, deps.db.read, found, recipient), { identity: 'proven', recipient: askerOf(recipient, recipient), at });
  const [staff, nameOf, dispatches] = await Promise.all([namesOfStaff(deps.db.read), subjectNames(deps.db.read, [found.document.id]), dispatchesOfGrants(deps.db.read, ways.map(({ grant }) => grant))]);

  const dispatchOf = (grant: string): NamedWay['dispatch'] => dispatches.get(grant) ?? { id: '', reference: '', subject: '' };
  const named = (reason: Reason): NamedReason => ({
    ...reason, setByName: reason.setBy === null ? '' : (staff.get(reason.setBy) ?? ''),
    name: isLevel(reason.level) && reason.setBy !== null ? (nameOf({ level: reason.level, subject: reason.subject }) ?? '') : reason.level === 'grant' ? dispatchOf(reason.subject).reference : '',
  });
  const way = ({ grant, standing, rights: held, from, until, endedBy, givenBy, givenAt, conditions }: Way): NamedWay => ({
    grant, dispatch: dispatchOf(grant), standing, rights: held, from, until, givenBy: staff.get(givenBy) ?? '', givenAt, conditions: conditionLines(conditions, zone),
    endedBy: endedBy.from === 'grant' ? null : (nameOf(endedBy.ceiling) ?? endedBy.ceiling.level),
  });
  return {
    now: at.now, person: recipient.name === '' ? recipient.address : recipient.name, document: found.document.title,
    opens: decision.outcome === 'granted', reason: decision.outcome === 'granted' ? null : decision.reason, until: decision.outcome === 'granted' ? decision.until : null,
    why: named(await withWhoEnded(deps, why, decision, found.document.id, recipient.id)), rights: rights.map(({ right, verdict, reason }) => ({ right, verdict, reason: named(reason) })), ways: ways.map(way),
  };
}
