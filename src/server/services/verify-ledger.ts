import 'server-only';
import { isAppError } from '@/core/base/errors';
import { LedgerError } from '@/core/ledger/errors';
import { openCheckpoint, type Checkpoint } from '@/core/ledger/checkpoint';
import { commitmentOf } from '@/core/ledger/commitment';
import { applyEntry, differences, emptyAccess, type AccessState } from '@/core/ledger/fold';
import { LedgerWalk, type Problem } from '@/core/ledger/verify';
import type { Entry } from '@/core/ledger/entry';
import { termsText } from '@/core/policy/rights';
import type { Reading } from '@/server/db/database';
import { allGrants, toFacts } from '@/server/repositories/dispatch-repository';
import { revokedDocumentIds } from '@/server/repositories/document-repository';
import { listCheckpoints, personalBetween, storedEntries } from '@/server/repositories/ledger-reader';
import { nodeHash } from '@/server/vault/node-hash';
import { verifyEd25519 } from '@/server/vault/vault';

export type Verification = {
  readonly entries: number;
  readonly checkpoints: number;
  /** How many entries the newest signed checkpoint covers. */
  readonly signed: number;
  readonly problems: readonly Problem[];
};

type Checkpoints = { readonly bySize: ReadonlyMap<number, Checkpoint>; readonly problems: readonly Problem[]; readonly last: number };

async function readCheckpoints(db: Reading, publicKey: Uint8Array): Promise<Checkpoints> {
  const bySize = new Map<number, Checkpoint>();
  const problems: Problem[] = [];
  for (const { size, text } of await listCheckpoints(db)) {
    try {
      const checkpoint = openCheckpoint(text, publicKey, nodeHash, verifyEd25519);
      if (checkpoint.size !== size) throw new LedgerError('BAD_CHECKPOINT', 'The checkpoint is for another size.');
      bySize.set(size, checkpoint);
    } catch (error) {
      if (!isAppError(error)) throw error;
      problems.push({ sequence: size, kind: 'checkpoint-differs', detail: error.message });
    }
  }
  return { bySize, problems, last: Math.max(0, ...bySize.keys()) };
}

/** Personal values that no longer belong to the commitment in their entry. Erased ones are simply not there. */
async function checkPersonal(db: Reading, after: number, upTo: number, entries: ReadonlyMap<number, Entry>): Promise<Problem | null> {
  for (const { sequence, field, salt, value } of await personalBetween(db, after, upTo)) {
    const committed = entries.get(sequence)?.personal[field];
    if (committed !== commitmentOf(field, value, new Uint8Array(salt), nodeHash)) return { sequence, kind: 'personal-differs', detail: `its ${field} is not what was recorded` };
  }
  return null;
}

async function tablesAsTheyStand(db: Reading): Promise<AccessState> {
  const grants = await allGrants(db);
  return {
    grants: new Map(grants.map((grant) => [grant.id, { terms: termsText(toFacts(grant).terms), revoked: grant.revokedAt !== null }])),
    revokedDocuments: new Set(await revokedDocumentIds(db)),
  };
}

/**
 * Verifies the whole ledger: every hash, the chain, every signed checkpoint, every personal value
 * still kept, and that grants and documents stand as the entries left them. Stops at the first bad
 * entry, since nothing behind it is proven.
 */
export async function verifyLedger(db: Reading, publicKey: Uint8Array, onProgress: (entries: number) => void = () => undefined): Promise<Verification> {
  const checkpoints = await readCheckpoints(db, publicKey);
  const walk = new LedgerWalk(nodeHash);
  const access = emptyAccess();
  const result = (problems: readonly Problem[]): Verification => ({ entries: walk.size, checkpoints: checkpoints.bySize.size, signed: Math.min(checkpoints.last, walk.size), problems: [...problems, ...checkpoints.problems] });

  for await (const block of storedEntries(db)) {
    const after = walk.size;
    const entries = new Map<number, Entry>();
    for (const stored of block) {
      const step = walk.next(stored);
      if ('problem' in step) return result([step.problem]);
      applyEntry(access, step.entry);
      if (Object.keys(step.entry.personal).length > 0) entries.set(walk.size, step.entry);
      const checkpoint = checkpoints.bySize.get(walk.size);
      const differs = checkpoint === undefined ? null : walk.compare(checkpoint);
      if (differs !== null) return result([differs]);
    }
    const personal = await checkPersonal(db, after, walk.size, entries);
    if (personal !== null) return result([personal]);
    onProgress(walk.size);
  }
  if (checkpoints.last > walk.size) return result([{ sequence: walk.size + 1, kind: 'checkpoint-differs', detail: `a signed checkpoint covers ${String(checkpoints.last)} entries, and only ${String(walk.size)} are here` }]);
  return result(differences(access, await tablesAsTheyStand(db)).map((detail) => ({ sequence: walk.size, kind: 'state-differs', detail })));
}
