import 'server-only';
import { WAITED_AT_BACKUP } from '@/server/mail/failure-words';
import type { BackupManifest } from '@/core/ledger/backup-manifest';
import { both, narrower, stricter, stricterSender, type Endings } from '@/core/ledger/endings';
import type { LedgerEvent } from '@/core/ledger/entry';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { LEAVES, wholeRules } from '@/core/policy/rules';
import { NO_SENDER_LIMITS } from '@/core/policy/sender-limits';
import { termsText } from '@/core/policy/rights';
import type { Transaction } from '@/server/db/database';
import {
  disableStaffRow,
  endWhatWasOpen,
  liveGrantIds,
  setPrintsMade,
} from '@/server/repositories/base/backup-repository';
import { grantsByIds, termsOf, type GrantRecord } from '@/server/repositories/access/grant-reader';
import { setAllRevoked, setGrantTerms } from '@/server/repositories/access/grant-writer';
import { listCeilings, putCeilingRow } from '@/server/repositories/policy/ceiling-repository';
import { renewDaysAtMost } from '@/server/repositories/access/effective-end';
import {
  dropKeys,
  findDocument,
  setDocumentRevoked,
} from '@/server/repositories/documents/document-repository';
import { findPerson, setBlocked } from '@/server/repositories/people/people-repository';
import { listRules, putRuleRow } from '@/server/repositories/policy/rules-repository';
import {
  findSenderLimits,
  putSenderLimits,
} from '@/server/repositories/policy/sender-limits-repository';
import { findStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { record } from '@/server/services/base/record';

/** Ids asked for at a time: fewer than SQLite takes parameters. */
const AT_ONCE = 5_000;

export type Restored = {
  readonly revoked: number;
  readonly narrowed: number;
  readonly documents: number;
  readonly destroyed: number;
  readonly blocked: number;
  readonly disabled: number;
  readonly ceilings: number;
  readonly settings: number;
};

/**
 * Brings a restored database to where access has ended since the backup, on its own ledger, and
 * ends what was under way. Nothing that was given back since is given back by this.
 *
 * @param endings what ended since; `null` where no list is left: then every grant is revoked
 */
export async function endSinceBackup(
  deps: Pick<Deps, 'db' | 'clock' | 'recorder'>,
  actor: StaffActor,
  manifest: BackupManifest,
  endings: Endings | null,
): Promise<Restored> {
  const now = deps.clock.now();
  const by = { kind: 'staff' as const, id: actor.id };
  return deps.db.write(async (tx) => {
    await record(deps, tx, {
      action: 'service.restored',
      outcome: 'done',
      actor: by,
      occurredAt: now,
      details: { madeAt: manifest.madeAt, entries: manifest.entries, list: endings !== null },
    });
    await endWhatWasOpen(tx, now, WAITED_AT_BACKUP);
    if (endings === null) {
      const ids = await liveGrantIds(tx);
      await setAllRevoked(tx, ids, actor.id, now);
      for (let at = 0; at < ids.length; at += AT_ONCE)
        await record(
          deps,
          tx,
          ...(await grantsByIds(tx, ids.slice(at, at + AT_ONCE))).map((grant) =>
            aboutEnded(grant, by, now),
          ),
        );
      return {
        revoked: ids.length,
        narrowed: 0,
        documents: 0,
        destroyed: 0,
        blocked: 0,
        disabled: 0,
        ceilings: 0,
        settings: 0,
      };
    }
    const grants = await endGrants(deps, tx, actor, endings, now);
    const documents = await endDocuments(deps, tx, actor, endings, now);
    const people = await endPeople(deps, tx, by, endings, now);
    const ceilings = await lowerCeilings(deps, tx, actor, endings, now);
    const settings =
      (await tightenRules(deps, tx, actor, endings, now)) +
      (await limitSenders(deps, tx, actor, endings, now));
    return { ...grants, ...documents, ...people, ceilings, settings };
  });
}

function about(grant: GrantRecord, actor: LedgerEvent['actor'], now: number) {
  return {
    outcome: 'done' as const,
    actor,
    occurredAt: now,
    grant: grant.id,
    dispatch: grant.dispatchId,
    document: grant.documentId,
    recipient: grant.recipientId,
  };
}

function aboutEnded(grant: GrantRecord, actor: LedgerEvent['actor'], now: number): LedgerEvent {
  return {
    action: 'grant.revoked',
    ...about(grant, actor, now),
    details: { terms: termsText(termsOf(grant)), restored: true },
  };
}

async function endGrants(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  actor: StaffActor,
  { grants }: Endings,
  now: number,
): Promise<{ readonly revoked: number; readonly narrowed: number }> {
  const by = { kind: 'staff' as const, id: actor.id };
  const ids = [...grants.keys()];
  const known: GrantRecord[] = [];
  for (let at = 0; at < ids.length; at += AT_ONCE)
    known.push(...(await grantsByIds(tx, ids.slice(at, at + AT_ONCE))));
  const events: LedgerEvent[] = [];
  const revoked: GrantRecord[] = [];
  let narrowed = 0;
  for (const grant of known) {
    const ending = grants.get(grant.id);
    if (ending === undefined) continue;
    if (ending.printsMade > grant.printsMade) await setPrintsMade(tx, grant.id, ending.printsMade);
    const before = termsOf(grant);
    const after = narrower(
      { until: grant.untilAt, rights: grant.rights, prints: grant.prints },
      ending,
    );
    const conditions = both(grant.conditions, ending.conditions ?? null);
    const text = termsText({ ...before, ...after, ...(conditions === null ? {} : { conditions }) });
    if (text !== termsText(before)) {
      await setGrantTerms(tx, grant.id, grant.revision, { ...after, conditions });
      events.push({
        action: 'grant.changed',
        ...about(grant, by, now),
        details: { before: termsText(before), terms: text, restored: true },
      });
      narrowed++;
    }
    if (ending.revoked && grant.revokedAt === null) revoked.push(grant);
  }
  await setAllRevoked(
    tx,
    revoked.map(({ id }) => id),
    actor.id,
    now,
  );
  await record(deps, tx, ...events, ...revoked.map((grant) => aboutEnded(grant, by, now)));
  return { revoked: revoked.length, narrowed };
}

/** Lowers ceilings to where they were set since; none is raised. */
async function lowerCeilings(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  actor: StaffActor,
  { ceilings }: Endings,
  now: number,
): Promise<number> {
  const known = await listCeilings(tx);
  let lowered = 0;
  for (const { level, subject, limits } of ceilings.values()) {
    const before =
      known.find((each) => each.level === level && each.subject === subject)?.limits ?? NO_LIMITS;
    const after = stricter(before, limits);
    if (JSON.stringify(after) === JSON.stringify(stricter(before, NO_LIMITS))) continue;
    lowered++;
    await putCeilingRow(tx, { level, subject, limits: after, setBy: actor.id, setAt: now });
    await record(deps, tx, {
      action: 'ceiling.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { level, subject, before: { ...before }, limits: { ...after }, restored: true },
    });
  }
  if (lowered > 0) await renewDaysAtMost(tx, 'all');
  return lowered;
}

/** Forbids what was forbidden since, or has a second person agree to it; nothing is allowed again. */
async function tightenRules(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  actor: StaffActor,
  { rules }: Endings,
  now: number,
): Promise<number> {
  let tightened = 0;
  for (const { way, leave: before } of wholeRules(await listRules(tx))) {
    const after = rules.get(way)?.leave ?? before;
    if (LEAVES.indexOf(after) <= LEAVES.indexOf(before)) continue;
    tightened++;
    await putRuleRow(tx, { way, leave: after, reason: '', setBy: actor.id, setAt: now });
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { rule: way, before, after, restored: true },
    });
  }
  return tightened;
}

/** Limits senders as they were limited since; nobody may send more by it. */
async function limitSenders(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  actor: StaffActor,
  { staff }: Endings,
  now: number,
): Promise<number> {
  let limited = 0;
  for (const { id, limits } of staff.values()) {
    if (limits == null || (await findStaff(tx, id)) === null) continue;
    const before = (await findSenderLimits(tx, id))?.limits ?? NO_SENDER_LIMITS;
    const after = stricterSender(before, limits);
    if (JSON.stringify(after) === JSON.stringify(stricterSender(before, NO_SENDER_LIMITS)))
      continue;
    limited++;
    await putSenderLimits(tx, { staffId: id, limits: after, setBy: actor.id, setAt: now });
    await record(deps, tx, {
      action: 'staff.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { staff: id, before: { ...before }, limits: { ...after }, restored: true },
    });
  }
  return limited;
}

async function endDocuments(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  actor: StaffActor,
  { documents }: Endings,
  now: number,
): Promise<{ readonly documents: number; readonly destroyed: number }> {
  const by = { kind: 'staff' as const, id: actor.id };
  let ended = 0;
  let destroyed = 0;
  for (const { id, revoked, destroyed: gone } of documents.values()) {
    const found = await findDocument(tx, id);
    if (found === null) continue;
    if (revoked && (await setDocumentRevoked(tx, id, actor.id, now))) {
      ended++;
      await record(deps, tx, {
        action: 'document.revoked',
        outcome: 'done',
        actor: by,
        occurredAt: now,
        document: id,
        details: { restored: true },
      });
    }
    if (gone && found.version.wrappedKey !== null) {
      destroyed++;
      await dropKeys(tx, id);
      await record(deps, tx, {
        action: 'key.destroyed',
        outcome: 'done',
        actor: by,
        occurredAt: now,
        document: id,
        version: found.version.id,
        details: { restored: true },
      });
    }
  }
  return { documents: ended, destroyed };
}

async function endPeople(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  by: LedgerEvent['actor'],
  { recipients, staff }: Endings,
  now: number,
): Promise<{ readonly blocked: number; readonly disabled: number }> {
  let [blocked, disabled] = [0, 0];
  for (const { id, blocked: shut } of recipients.values()) {
    if (!shut || (await findPerson(tx, id))?.blocked !== false) continue;
    blocked++;
    await setBlocked(tx, id, true);
    await record(deps, tx, {
      action: 'recipient.blocked',
      outcome: 'done',
      actor: by,
      occurredAt: now,
      recipient: id,
      details: { restored: true },
    });
  }
  for (const { id, disabled: shut } of staff.values()) {
    const found = shut ? await findStaff(tx, id) : null;
    if (found?.disabledAt !== null) continue;
    disabled++;
    await disableStaffRow(tx, id, now);
    await record(deps, tx, {
      action: 'staff.changed',
      outcome: 'done',
      actor: by,
      occurredAt: now,
      details: { staff: id, before: found.role, after: `${found.role}, disabled`, restored: true },
    });
  }
  return { blocked, disabled };
}
