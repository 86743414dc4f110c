import 'server-only';
import { bytesToHex } from '@noble/hashes/utils.js';
import { eq } from 'drizzle-orm';
import { utf8 } from '@/core/base/bytes';
import type { RandomSource } from '@/core/base/random';
import { signCheckpoint, type Signer } from '@/core/ledger/checkpoint';
import { SALT_BYTES } from '@/core/ledger/commitment';
import { writeEntry, type Happening } from '@/core/ledger/entry';
import { GENESIS, type Hash } from '@/core/ledger/hash';
import { EMPTY_TREE, appendLeaf, leafHash, treeRoot, type Frontier } from '@/core/ledger/merkle';
import type { Transaction } from '@/server/db/database';
import { ledgerCheckpoints, ledgerEnd, ledgerEntries, ledgerPersonal } from '@/server/db/schema';

/** What writing the ledger needs besides a transaction. */
export type Recorder = { readonly hash: Hash; readonly random: RandomSource; readonly signer: Signer; readonly origin: string };

/** A signed checkpoint is made at least every so many entries. */
export const CHECKPOINT_EVERY = 256;
const HASH_BYTES = 32;
const ONLY_ROW = 1;

type End = { readonly tree: Frontier; readonly hash: string; readonly signedSize: number };

function packNodes(nodes: readonly Uint8Array[]): Buffer {
  return Buffer.concat(nodes);
}

function unpackNodes(packed: Uint8Array): Uint8Array[] {
  return Array.from({ length: packed.length / HASH_BYTES }, (_, i) => new Uint8Array(packed.subarray(i * HASH_BYTES, (i + 1) * HASH_BYTES)));
}

async function readEnd(tx: Transaction): Promise<End> {
  const [row] = await tx.select().from(ledgerEnd).where(eq(ledgerEnd.id, ONLY_ROW));
  if (row === undefined) return { tree: EMPTY_TREE, hash: GENESIS, signedSize: 0 };
  return { tree: { size: row.size, nodes: unpackNodes(row.nodes) }, hash: row.hash, signedSize: row.signedSize };
}

async function writeEnd(tx: Transaction, { tree, hash, signedSize }: End): Promise<void> {
  const row = { size: tree.size, hash, nodes: packNodes(tree.nodes), signedSize };
  await tx.insert(ledgerEnd).values({ id: ONLY_ROW, ...row }).onConflictDoUpdate({ target: ledgerEnd.id, set: row });
}

async function sign(tx: Transaction, { hash, signer, origin }: Recorder, end: End, now: number): Promise<End> {
  const text = signCheckpoint({ origin, size: end.tree.size, root: treeRoot(end.tree, hash) }, signer, hash);
  await tx.insert(ledgerCheckpoints).values({ size: end.tree.size, text, createdAt: now });
  return { ...end, signedSize: end.tree.size };
}

/**
 * Writes entries at the end of the ledger. The only function that does, always inside the
 * transaction that makes the change recorded.
 *
 * @returns the sequence number of the last entry written
 */
export async function appendEntries(tx: Transaction, recorder: Recorder, happenings: readonly Happening[]): Promise<number> {
  const { hash, random } = recorder;
  let end = await readEnd(tx);
  const rows: (typeof ledgerEntries.$inferInsert)[] = [];
  const personal: (typeof ledgerPersonal.$inferInsert)[] = [];
  for (const happening of happenings) {
    const sequence = end.tree.size + 1;
    const fields = Object.entries(happening.personal ?? {});
    const salts = Object.fromEntries(fields.map(([field]) => [field, random(SALT_BYTES)]));
    const body = writeEntry(happening, { sequence, previous: end.hash }, salts, hash);
    const leaf = leafHash(utf8(body), hash);
    const hex = bytesToHex(leaf);
    rows.push({ sequence, body, hash: hex });
    for (const [field, value] of fields) personal.push({ sequence, field, salt: Buffer.from(salts[field] ?? []), value });
    end = { tree: appendLeaf(end.tree, leaf, hash), hash: hex, signedSize: end.signedSize };
  }
  await tx.insert(ledgerEntries).values(rows);
  if (personal.length > 0) await tx.insert(ledgerPersonal).values(personal);
  const due = end.tree.size - end.signedSize >= CHECKPOINT_EVERY;
  await writeEnd(tx, due ? await sign(tx, recorder, end, happenings.at(-1)?.occurredAt ?? 0) : end);
  return end.tree.size;
}

/** Signs the ledger as it stands, unless nothing was written since the last checkpoint. */
export async function signLedger(tx: Transaction, recorder: Recorder, now: number): Promise<void> {
  const end = await readEnd(tx);
  if (end.tree.size > end.signedSize) await writeEnd(tx, await sign(tx, recorder, end, now));
}
