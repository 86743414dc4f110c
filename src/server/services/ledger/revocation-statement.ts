import 'server-only';
import { keptText, statementName } from '@/core/insight/after-words';
import { toUtcText } from '@/core/base/time';
import { takenText, wayText } from '@/core/insight/after-words';
import { standsForMany } from '@/core/policy/addressee';
import { addresseeName } from '@/core/policy/addressee-name';
import { signStatement, type ProvenEntry, type StatementRow } from '@/core/ledger/statement';
import type { AfterInput, AfterRow, Copies } from '@/contracts/after-revocation';
import { signLedger } from '@/server/repositories/ledger/ledger-writer';
import { lastCheckpoint } from '@/server/repositories/ledger/checkpoint-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { afterRevocation } from '@/server/services/ledger/after-revocation';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone } from '@/server/services/base/record';

function copiesText(copies: Copies): string[] {
  const { keptAt } = copies;
  return [...takenText(copies), ...(keptAt === null ? [] : [keptText(keptAt)])];
}

const moment = (at: number | null): string => (at === null ? '' : toUtcText(at));

function rowOf(row: AfterRow): StatementRow {
  const state = row.ways.length > 0 ? 'open' : row.offlineUntil === null ? 'closed' : 'offline';
  return {
    who: standsForMany(row.kind) ? addresseeName(row) : row.name,
    address: standsForMany(row.kind) ? '' : row.address,
    document: `${row.reference} ${row.title}`,
    dispatch: row.dispatch,
    state,
    since: moment(row.since),
    until: moment(state === 'offline' ? row.offlineUntil : row.until),
    by: row.by,
    reason: row.reason,
    ways: row.ways.map(wayText),
    tries: row.tries,
    triesByOthers: row.triesByOthers,
    lastTry: moment(row.lastTry),
    copies: copiesText(row.copies),
  };
}

/** One at a time: each reads the hashes of the whole ledger. */
let isRunning = false;

/**
 * What came of pulling access back as a signed text, with the entries of the ledger that it is read
 * from and the proof that they stand there. The ledger is signed first, so that all of them are
 * covered.
 *
 * @throws ServiceError `NOT_FOUND` where nothing was pulled back, `TOO_MANY` while another one is
 * made
 */
export async function revocationStatement(
  deps: Deps,
  actor: StaffActor,
  input: AfterInput,
): Promise<{ readonly name: string; readonly text: string }> {
  if (isRunning) throw new ServiceError('statement-running');
  isRunning = true;
  try {
    const now = deps.clock.now();
    await deps.db.write((tx) => signLedger(tx, deps.recorder, now));
    const { about, rows, openLinks, entries } = await afterRevocation(deps, actor, input);
    if (rows.length === 0) throw new ServiceError('nothing-revoked');
    const { hash, origin, signer } = deps.recorder;
    const checkpoint = await lastCheckpoint(deps.db.read);
    const covered = [...new Map(entries.map((each) => [each.entry.sequence, each])).values()]
      .filter(({ entry }) => entry.sequence <= (checkpoint?.size ?? 0))
      .sort((a, b) => a.entry.sequence - b.entry.sequence);
    if (checkpoint === null) throw new ServiceError('nothing-signed');
    const paths = await deps.prover.prove(
      covered.map(({ entry }) => entry.sequence),
      checkpoint.size,
    );
    const proven = covered.map(({ entry, text }): ProvenEntry => ({
      sequence: entry.sequence,
      text,
      path: paths.get(entry.sequence) ?? [],
    }));
    const organisation = (await findOrganisation(deps.db.read))?.name ?? '';
    const text = signStatement(
      {
        v: 1,
        organisation,
        about: `${about.reference} ${about.name}`,
        madeAt: toUtcText(now),
        madeBy: actor.name,
        rows: rows.map(rowOf),
        openLinks: openLinks.map(({ title, dispatch }) => `${title}, ${dispatch}`),
        checkpoint: checkpoint.text,
        entries: proven,
      },
      origin,
      signer,
      hash,
    );
    await recordAlone(deps, {
      action: 'ledger.exported',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      ...('document' in input ? { document: input.document } : { dispatch: input.dispatch }),
      details: { statement: statementName(about.reference), entries: proven.length },
    });
    return { name: `${statementName(about.reference)}.txt`, text };
  } finally {
    isRunning = false;
  }
}
