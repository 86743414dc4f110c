import 'server-only';
import { findingWords } from '@/core/ledger/finding-words';
import { isAppError } from '@/core/base/errors';
import { kindOf } from '@/core/insight/kinds';
import { openCheckpoint, type Checkpoint } from '@/core/ledger/checkpoint';
import { commitmentOf } from '@/core/ledger/commitment';
import type { Entry } from '@/core/ledger/entry';
import { LedgerError } from '@/core/ledger/errors';
import { applyEntry, differences, emptyAccess, type AccessState } from '@/core/ledger/fold';
import { LedgerWalk, type Problem, type Verification } from '@/core/ledger/verify';
import { termsText } from '@/core/policy/rights';
import type { Reading } from '@/server/db/database';
import { SEALED_TABLES } from '@/server/db/sealed-tables';
import { type Seals } from '@/server/db/seals';
import { allGrants, termsOf } from '@/server/repositories/access/grant-reader';
import { revokedDocumentIds } from '@/server/repositories/documents/document-repository';
import {
  countsByKind,
  misreadColumns,
  personalBetween,
  storedEnd,
  storedEntries,
} from '@/server/repositories/ledger/ledger-chain';
import { listCheckpoints } from '@/server/repositories/ledger/checkpoint-repository';
import { nodeHash } from '@/server/vault/node-hash';
import { verifyEd25519 } from '@/server/vault/vault';

/**
 * What is taken from outside the database: without it a verification proves nothing against anyone who
 * can write there.
 */
export type Outside = {
  readonly publicKey: Uint8Array;
  /** Signed checkpoints that were kept elsewhere: in a witness file, mailed, printed. */
  readonly witnesses?: readonly { readonly size: number; readonly text: string }[] | undefined;
  /** The seals of rows that decide; absent where the master key is not at hand. */
  readonly seals?: Pick<Seals, 'broken' | 'unbalanced' | 'isEndOurs'> | undefined;
};

/** Most rows that are named one by one; more are counted. */
const MOST_NAMED = 20;

type Checkpoints = {
  readonly bySize: ReadonlyMap<number, readonly Checkpoint[]>;
  readonly problems: readonly Problem[];
  readonly last: number;
  readonly outside: readonly number[];
  readonly inside: ReadonlySet<number>;
};

function opened(
  rows: readonly { readonly size: number; readonly text: string }[],
  publicKey: Uint8Array,
  where: (what: string) => string,
): { readonly found: Checkpoint[]; readonly problems: Problem[] } {
  const found: Checkpoint[] = [];
  const problems: Problem[] = [];
  for (const { size, text } of rows) {
    try {
      const checkpoint = openCheckpoint(text, publicKey, nodeHash, verifyEd25519);
      if (checkpoint.size !== size) throw new LedgerError('BAD_CHECKPOINT', findingWords.otherSize);
      found.push(checkpoint);
    } catch (error) {
      if (!isAppError(error)) throw error;
      problems.push({
        sequence: size,
        kind: 'checkpoint-differs',
        detail: where(error.message),
      });
    }
  }
  return { found, problems };
}

async function readCheckpoints(
  db: Reading,
  { publicKey, witnesses = [] }: Outside,
): Promise<Checkpoints> {
  const inside = opened(await listCheckpoints(db), publicKey, findingWords.inDatabase);
  const outside = opened(witnesses, publicKey, findingWords.keptOutside);
  const bySize = new Map<number, Checkpoint[]>();
  for (const each of [...inside.found, ...outside.found])
    bySize.set(each.size, [...(bySize.get(each.size) ?? []), each]);
  return {
    bySize,
    problems: [...inside.problems, ...outside.problems],
    last: Math.max(0, ...bySize.keys()),
    outside: outside.found.map(({ size }) => size),
    inside: new Set(inside.found.map(({ size }) => size)),
  };
}

/** Personal values that no longer belong to the commitment in their entry, or are not there at all. */
async function checkPersonal(
  db: Reading,
  after: number,
  upTo: number,
  entries: ReadonlyMap<number, Entry>,
): Promise<Problem | null> {
  const missing = new Set(
    [...entries].flatMap(([sequence, { personal }]) =>
      Object.keys(personal).map((field) => `${String(sequence)} ${field}`),
    ),
  );
  for (const { sequence, field, salt, value } of await personalBetween(db, after, upTo)) {
    missing.delete(`${String(sequence)} ${field}`);
    const committed = entries.get(sequence)?.personal[field];
    if (committed !== commitmentOf(field, value, new Uint8Array(salt), nodeHash))
      return {
        sequence,
        kind: 'personal-differs',
        detail: findingWords.personalDiffers(field),
      };
  }
  const [first] = missing;
  if (first === undefined) return null;
  const [sequence = '', field = ''] = first.split(' ');
  return {
    sequence: Number(sequence),
    kind: 'personal-missing',
    detail: findingWords.personalMissing(field),
  };
}

async function tablesAsTheyStand(db: Reading): Promise<AccessState> {
  const [rows, revoked] = await Promise.all([allGrants(db), revokedDocumentIds(db)]);
  return {
    grants: new Map(
      rows.map((row) => [
        row.id,
        { terms: termsText(termsOf(row)), revoked: row.revokedAt !== null },
      ]),
    ),
    revokedDocuments: new Set(revoked),
  };
}

/** How many entries of each kind, outcome and reason there are, as the entries themselves say. */
class Tally {
  readonly #counts = new Map<string, number>();

  add({ action, outcome, reason }: Entry): void {
    const key = `${kindOf(action, outcome)} ${outcome} ${reason ?? ''}`;
    this.#counts.set(key, (this.#counts.get(key) ?? 0) + 1);
  }

  async problems(db: Reading, size: number): Promise<Problem[]> {
    const stored = new Map(
      (await countsByKind(db)).map(({ kind, outcome, reason, entries }) => [
        `${kind} ${outcome} ${reason}`,
        entries,
      ]),
    );
    const differ = [...new Set([...stored.keys(), ...this.#counts.keys()])].filter(
      (key) => (stored.get(key) ?? 0) !== (this.#counts.get(key) ?? 0),
    );
    return differ.length === 0
      ? []
      : [
          {
            sequence: size,
            kind: 'counts-differ',
            detail: findingWords.countsDiffer(differ.slice(0, 3)),
          },
        ];
  }
}

async function checkEnd(
  db: Reading,
  walk: LedgerWalk,
  seals: Outside['seals'],
): Promise<Problem[]> {
  const end = await storedEnd(db);
  const here = { size: walk.size, hash: walk.last };
  if (end !== null && (end.size !== here.size || end.hash !== here.hash))
    return [
      {
        sequence: walk.size,
        kind: 'end-differs',
        detail: findingWords.endDiffers(end.size),
      },
    ];
  if (seals === undefined || (await seals.isEndOurs(db))) return [];
  return [
    {
      sequence: walk.size,
      kind: 'end-foreign',
      detail: findingWords.endForeign,
    },
  ];
}

async function checkSeals(
  db: Reading,
  size: number,
  seals: NonNullable<Outside['seals']>,
): Promise<Problem[]> {
  const problems: Problem[] = [];
  for (const table of SEALED_TABLES) {
    const broken = await seals.broken(db, { [table]: 'all' });
    problems.push(
      ...broken.slice(0, MOST_NAMED).map(({ key }): Problem => ({
        sequence: size,
        kind: 'row-foreign',
        detail: findingWords.rowForeign(key, table),
      })),
    );
    if (broken.length > MOST_NAMED)
      problems.push({
        sequence: size,
        kind: 'row-foreign',
        detail: findingWords.moreForeign(broken.length - MOST_NAMED, table),
      });
  }
  for (const table of await seals.unbalanced(db, SEALED_TABLES))
    problems.push({
      sequence: size,
      kind: 'rows-missing',
      detail: findingWords.rowsMissing(table),
    });
  return problems;
}

/** Goes through all entries, and stops at the first that breaks the chain. */
class Verifier {
  readonly walk = new LedgerWalk(nodeHash);
  readonly access = emptyAccess();
  readonly tally = new Tally();
  readonly reported: Problem[] = [];
  backwards = 0;
  #latest = '';

  constructor(readonly checkpoints: Checkpoints) {}

  /** @returns what is wrong with the entry itself, or with the checkpoint behind it */
  next(stored: Parameters<LedgerWalk['next']>[0]): Problem | Entry {
    const step = this.walk.next(stored);
    if ('problem' in step) return step.problem;
    const { entry } = step;
    applyEntry(this.access, entry);
    this.tally.add(entry);
    if (entry.receivedAt < this.#latest) this.backwards++;
    else this.#latest = entry.receivedAt;
    if (entry.action === 'seal.broken')
      this.reported.push({
        sequence: this.walk.size,
        kind: 'reported',
        detail: findingWords.reported,
      });
    for (const checkpoint of this.checkpoints.bySize.get(this.walk.size) ?? []) {
      const differs = this.walk.compare(checkpoint);
      if (differs !== null) return differs;
    }
    return entry;
  }

  /** A stretch of entries with what belongs to them. @returns the first thing that is wrong */
  async block(
    db: Reading,
    block: readonly Parameters<LedgerWalk['next']>[0][],
  ): Promise<Problem | null> {
    const after = this.walk.size;
    const withPersonal = new Map<number, Entry>();
    for (const stored of block) {
      const read = this.next(stored);
      if ('detail' in read) return read;
      if (Object.keys(read.personal).length > 0) withPersonal.set(this.walk.size, read);
    }
    return checkPersonal(db, after, this.walk.size, withPersonal);
  }

  /** Whether as much is here as was ever signed. */
  cutOff(): Problem | null {
    const { last } = this.checkpoints;
    if (last <= this.walk.size) return null;
    return {
      sequence: this.walk.size + 1,
      kind: 'checkpoint-differs',
      detail: findingWords.cutOff(last, this.walk.size),
    };
  }

  result(problems: readonly Problem[], sealed: boolean): Verification {
    const { outside, bySize, last } = this.checkpoints;
    const reached = outside.filter((size) => size <= this.walk.size);
    return {
      entries: this.walk.size,
      checkpoints: bySize.size,
      signed: Math.min(last, this.walk.size),
      backwards: this.backwards,
      sealed,
      witnessed: outside.length === 0 ? null : Math.max(0, ...reached),
      problems: [...problems, ...this.checkpoints.problems],
    };
  }
}

/** What is beside the chain: its columns, counts, end and seals, and access as it stands. */
async function checkBeside(
  db: Reading,
  { walk, access, tally, reported, checkpoints }: Verifier,
  seals: Outside['seals'],
): Promise<Problem[]> {
  const gone = checkpoints.outside.filter((size) => !checkpoints.inside.has(size));
  return [
    ...gone.slice(0, 1).map((size): Problem => ({
      sequence: size,
      kind: 'checkpoint-missing',
      detail: findingWords.checkpointsGone(gone.length),
    })),
    ...(await misreadColumns(db)).map((sequence): Problem => ({
      sequence,
      kind: 'columns-differ',
      detail: findingWords.columnsDiffer,
    })),
    ...(await tally.problems(db, walk.size)),
    ...(await checkEnd(db, walk, seals)),
    ...(seals === undefined ? [] : await checkSeals(db, walk.size, seals)),
    ...reported,
    ...differences(access, await tablesAsTheyStand(db)).map((detail): Problem => ({
      sequence: walk.size,
      kind: 'state-differs',
      detail,
    })),
  ];
}

/**
 * Verifies the ledger from its first entry: chain, every signed checkpoint here and outside,
 * personal values, the columns and counts that lists show, the stored end, and that access stands
 * in the tables as recorded and sealed. Reading it needs the public key and the checkpoints that
 * were kept elsewhere; seals need the master key.
 *
 * @param onProgress is told how many entries are done
 */
export async function verifyLedger(
  db: Reading,
  outside: Outside,
  onProgress: (entries: number) => void = () => undefined,
): Promise<Verification> {
  const { seals } = outside;
  const verifier = new Verifier(await readCheckpoints(db, outside));
  const result = (problems: readonly Problem[]): Verification =>
    verifier.result(problems, seals !== undefined);
  for await (const block of storedEntries(db)) {
    const problem = await verifier.block(db, block);
    if (problem !== null) return result([problem]);
    onProgress(verifier.walk.size);
  }
  const cutOff = verifier.cutOff();
  return result(cutOff === null ? await checkBeside(db, verifier, seals) : [cutOff]);
}
