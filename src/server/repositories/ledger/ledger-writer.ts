import 'server-only';
import { eq, sql, type SQL } from 'drizzle-orm';
import type { RandomSource } from '@/core/base/random';
import type { Moment } from '@/core/base/time';
import { kindOf } from '@/core/insight/kinds';
import { signCheckpoint } from '@/core/ledger/checkpoint';
import type { Signer } from '@/core/ledger/note';
import { SALT_BYTES } from '@/core/ledger/commitment';
import { writeEntry, type LedgerEvent } from '@/core/ledger/entry';
import { GENESIS, type Hash } from '@/core/ledger/hash';
import { EMPTY_TREE, appendLeaf, leafHash, treeRoot, type Frontier } from '@/core/ledger/merkle';
import { carriedToCommit, type Transaction } from '@/server/db/database';
import { ledgerCheckpoints, ledgerEnd } from '@/server/db/schema/ledger';
import { recipients } from '@/server/db/schema/people';

/** What writing the ledger needs besides a transaction. */
export type Recorder = {
  readonly hash: Hash;
  readonly random: RandomSource;
  readonly signer: Signer;
  readonly origin: string;
  readonly dayOf: (moment: Moment) => string;
};

/** A signed checkpoint is made at least every so many entries. */
export const CHECKPOINT_EVERY = 256;
const HASH_BYTES = 32;
const HEX = 2 * HASH_BYTES;
const ONLY_ROW = 1;

type End = { readonly tree: Frontier; readonly hash: string; readonly signedSize: number };

function packNodes(nodes: readonly Uint8Array[]): Buffer {
  return Buffer.concat(nodes);
}

function hexOf(bytes: Uint8Array): string {
  return Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('hex');
}

function unpackNodes(packed: Uint8Array): Uint8Array[] {
  return Array.from(
    { length: packed.length / HASH_BYTES },
    (_, i) => new Uint8Array(packed.subarray(i * HASH_BYTES, (i + 1) * HASH_BYTES)),
  );
}

async function readEnd(tx: Transaction): Promise<End> {
  const [row] = await tx.select().from(ledgerEnd).where(eq(ledgerEnd.id, ONLY_ROW));
  if (row === undefined) return { tree: EMPTY_TREE, hash: GENESIS, signedSize: 0 };
  return {
    tree: { size: row.size, nodes: unpackNodes(row.nodes) },
    hash: row.hash,
    signedSize: row.signedSize,
  };
}

async function writeEnd(tx: Transaction, { tree, hash, signedSize }: End): Promise<void> {
  const row = { size: tree.size, hash, nodes: packNodes(tree.nodes), signedSize };
  await tx
    .insert(ledgerEnd)
    .values({ id: ONLY_ROW, ...row })
    .onConflictDoUpdate({ target: ledgerEnd.id, set: row });
}

/** Entries that wait for their batch's commit: where they leave the ledger, and their rows, newest first. */
type Pending = {
  readonly end: End;
  readonly recorder: Recorder;
  readonly newest: Written | null;
  readonly now: Moment;
  readonly toBeSigned: boolean;
};
type Written = {
  readonly entries: readonly EntryRow[];
  readonly personal: readonly PersonalRow[];
  readonly facts: readonly DayFacts[];
  readonly before: Written | null;
};
type EntryRow = { readonly sequence: number; readonly body: string; readonly hash: string };
type PersonalRow = readonly [sequence: number, field: string, salt: string, value: string];

/**
 * Rows as one JSON parameter, taken apart inside SQLite: for thousands of rows a fraction of the
 * time that as many parameters of their own would take.
 */
function asRows(rows: readonly unknown[]): SQL {
  return sql`json_each(${JSON.stringify(rows)})`;
}

const pending = carriedToCommit<Pending>('ledger', writePending);

async function pendingOf(tx: Transaction, recorder: Recorder): Promise<Pending> {
  return (
    pending.get(tx) ?? { end: await readEnd(tx), recorder, newest: null, now: 0, toBeSigned: false }
  );
}

async function writePending(
  tx: Transaction,
  { end, recorder, newest, now, toBeSigned }: Pending,
): Promise<void> {
  const written: Written[] = [];
  for (let each = newest; each !== null; each = each.before) written.unshift(each);
  const entries = written.flatMap((each) => each.entries);
  const personal = written.flatMap((each) => each.personal);
  // Sequences follow one another, so bodies and hashes come as two long values and no row has to be
  // taken apart. The hashes are bytes: a place in text is counted from its start, every time.
  const [first] = entries;
  if (first !== undefined)
    await tx.run(
      sql`INSERT INTO ledger_entries (sequence, body, hash)
        SELECT key + ${first.sequence}, value,
        CAST(substr(${Buffer.from(entries.map(({ hash }) => hash).join(''))}, key * ${HEX} + 1,
        ${HEX}) AS TEXT) FROM ${asRows(entries.map(({ body }) => body))}`,
    );
  if (personal.length > 0)
    await tx.run(
      sql`INSERT INTO ledger_personal (sequence, field, salt, value)
        SELECT value ->> 0, value ->> 1, unhex(value ->> 2), value ->> 3 FROM ${asRows(personal)}`,
    );
  await countDays(
    tx,
    written.flatMap((each) => each.facts),
    recorder.dayOf,
    end.tree.size,
  );
  const unsigned = end.tree.size - end.signedSize;
  await writeEnd(
    tx,
    unsigned >= CHECKPOINT_EVERY || (toBeSigned && unsigned > 0)
      ? await sign(tx, recorder, end, now)
      : end,
  );
}

/** What of an entry decides on which tally it is counted. */
export type DayFacts = Pick<LedgerEvent, 'action' | 'outcome' | 'occurredAt'> &
  Readonly<
    Partial<
      Record<'reason' | 'document' | 'recipient' | 'dispatch' | 'place', string | null | undefined>
    >
  >;

async function organisationsOf(
  tx: Transaction,
  ids: readonly string[],
): Promise<Map<string, string>> {
  if (ids.length === 0) return new Map();
  // As one value: a wide change names more people than a statement takes parameters.
  const rows = await tx
    .select({ id: recipients.id, organisation: recipients.organisation })
    .from(recipients)
    .where(sql`${recipients.id} IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`);
  return new Map(rows.map((row) => [row.id, row.organisation]));
}

/** Equal rows as one, with how many there were behind them. */
function heaped(rows: readonly (readonly string[])[]): (readonly (string | number)[])[] {
  const counts = new Map<string, number>();
  const firsts: (readonly string[])[] = [];
  const keys = rows.map((row) => row.join('\u0000'));
  keys.forEach((key, i) => {
    const before = counts.get(key) ?? 0;
    if (before === 0) firsts.push(rows[i] ?? []);
    counts.set(key, before + 1);
  });
  return firsts.map((row) => [...row, counts.get(row.join('\u0000')) ?? 0]);
}

/** Adds entries to the tallies they are counted on; `last` is the sequence of the newest among them. */
export async function countDays(
  tx: Transaction,
  facts: readonly DayFacts[],
  dayOf: Recorder['dayOf'],
  last: number,
): Promise<void> {
  if (facts.length === 0) return;
  const organisations = await organisationsOf(tx, [
    ...new Set(facts.flatMap(({ recipient }) => (recipient == null ? [] : [recipient]))),
  ]);
  const days = facts.map(({ action, outcome, reason, recipient, place, occurredAt }) => [
    dayOf(occurredAt),
    kindOf(action, outcome),
    outcome,
    reason ?? '',
    place?.split(',')[0] ?? '',
    organisations.get(recipient ?? '') ?? '',
  ]);
  // What names nothing is never asked for by name.
  const pairs = facts.flatMap(({ document, recipient, dispatch }, i) =>
    document == null && recipient == null && dispatch == null
      ? []
      : [[...(days[i] ?? []), document ?? '', recipient ?? '', dispatch ?? '']],
  );
  // “WHERE true” keeps the parser from taking ON CONFLICT for a join's condition.
  await tx.run(sql`
    INSERT INTO ledger_days (day, kind, outcome, reason, place, organisation, entries, last)
    SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5,
    value ->> 6, ${last} FROM ${asRows(heaped(days))} WHERE true
    ON CONFLICT (day, kind, outcome, reason, place, organisation) DO UPDATE
    SET entries = entries + excluded.entries, last = excluded.last`);
  await tx.run(sql`
    INSERT INTO ledger_pairs (day, kind, outcome, reason, place, organisation, document_id,
    recipient_id, dispatch_id, entries)
    SELECT value ->> 0, value ->> 1, value ->> 2, value ->> 3, value ->> 4, value ->> 5,
    value ->> 6, value ->> 7, value ->> 8, value ->> 9 FROM ${asRows(heaped(pairs))} WHERE true
    ON CONFLICT (document_id, recipient_id, dispatch_id, day, kind, outcome, reason, place,
    organisation) DO UPDATE SET entries = entries + excluded.entries`);
}

async function sign(
  tx: Transaction,
  { hash, signer, origin }: Recorder,
  end: End,
  now: Moment,
): Promise<End> {
  const text = signCheckpoint(
    { origin, size: end.tree.size, root: treeRoot(end.tree, hash) },
    signer,
    hash,
  );
  await tx.insert(ledgerCheckpoints).values({ size: end.tree.size, text, createdAt: now });
  return { ...end, signedSize: end.tree.size };
}

/**
 * Writes entries at the end of the ledger. The only function that does, always inside the
 * transaction that makes the change recorded. Their rows go in together with those of the other
 * jobs of the batch, just before it is committed.
 */
export async function appendEntries(
  tx: Transaction,
  recorder: Recorder,
  events: readonly LedgerEvent[],
): Promise<void> {
  const { hash, random } = recorder;
  const before = await pendingOf(tx, recorder);
  let { end } = before;
  const entries: EntryRow[] = [];
  const personal: PersonalRow[] = [];
  for (const happening of events) {
    const sequence = end.tree.size + 1;
    const fields = Object.entries(happening.personal ?? {});
    const salts = Object.fromEntries(fields.map(([field]) => [field, random(SALT_BYTES)]));
    const body = writeEntry(happening, { sequence, previous: end.hash }, salts, hash);
    const leaf = leafHash(body, hash);
    const hex = hexOf(leaf);
    entries.push({ sequence, body, hash: hex });
    for (const [field, value] of fields)
      personal.push([sequence, field, hexOf(salts[field] ?? new Uint8Array()), value]);
    end = { tree: appendLeaf(end.tree, leaf, hash), hash: hex, signedSize: end.signedSize };
  }
  pending.set(tx, {
    ...before,
    end,
    newest: {
      entries,
      personal,
      facts: events.map((happening) => ({ ...happening, place: happening.personal?.place })),
      before: before.newest,
    },
    now: events.at(-1)?.occurredAt ?? before.now,
  });
}

/** Signs the ledger as it stands, unless nothing was written since the last checkpoint. */
export async function signLedger(tx: Transaction, recorder: Recorder, now: Moment): Promise<void> {
  pending.set(tx, { ...(await pendingOf(tx, recorder)), now, toBeSigned: true });
}
