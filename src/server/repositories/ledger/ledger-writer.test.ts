import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { LedgerEvent } from '@/core/ledger/entry';
import { createCalendar } from '@/server/clock/calendar';
import { openDatabase, type Database } from '@/server/db/database';
import { ledgerState } from '@/server/repositories/ledger/ledger-chain';
import { listCheckpoints } from '@/server/repositories/ledger/checkpoint-repository';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import {
  CHECKPOINT_EVERY,
  appendEntries,
  signLedger,
  type Recorder,
} from '@/server/repositories/ledger/ledger-writer';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { nodeHash } from '@/server/vault/node-hash';
import { newSigningKey, signerOf } from '@/server/vault/vault';

const { privateKey, publicKey } = newSigningKey();
const recorder: Recorder = {
  hash: nodeHash,
  random: (length) => new Uint8Array(randomBytes(length)),
  signer: signerOf(privateKey, publicKey),
  origin: 'embargo-ledger',
  dayOf: createCalendar('UTC').dayOf,
};
const shown = (page: number): LedgerEvent => ({
  action: 'page.shown',
  outcome: 'granted',
  actor: { kind: 'recipient', id: 'rcp_1' },
  occurredAt: 1_790_000_000_000,
  details: { page },
  personal: { network: '203.0.113.24' },
});

let folder: string;
let db: Database;
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'embargo-ledger-'));
  db = await openDatabase(`file:${path.join(folder, 'test.db')}`);
});
afterEach(async () => {
  await db.close();
  rmSync(folder, { recursive: true });
});

const write = (...pages: number[]) =>
  db.write((tx) => appendEntries(tx, recorder, pages.map(shown)));
const pagesRecorded = async (): Promise<unknown[]> =>
  (await listEntries(db.read, {}, 1000)).map(({ entry }) => entry.details['page']).reverse();

describe('the end of the ledger', () => {
  test('takes the entries of jobs that are committed together in the order they were asked for', async () => {
    await Promise.all([write(1), write(2, 3), write(4)]);
    expect(await pagesRecorded()).toEqual([1, 2, 3, 4]);
    expect(await verifyLedger(db.read, { publicKey })).toMatchObject({ entries: 4, problems: [] });
  });

  test('holds nothing of a job that failed after it recorded, and closes the gap', async () => {
    const failing = db.write(async (tx) => {
      await appendEntries(tx, recorder, [shown(2), shown(3)]);
      throw new Error('on purpose');
    });
    const outcomes = await Promise.allSettled([write(1), failing, write(4)]);
    expect(outcomes.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
    await write(5);
    expect(await pagesRecorded()).toEqual([1, 4, 5]);
    expect(await verifyLedger(db.read, { publicKey })).toMatchObject({ entries: 3, problems: [] });
  });

  test('refuses only the job whose entry has no canonical form', async () => {
    const outcomes = await Promise.allSettled([write(1), write(Number.NaN), write(2)]);
    expect(outcomes[1]).toMatchObject({ status: 'rejected', reason: { code: 'NOT_CANONICAL' } });
    expect(await pagesRecorded()).toEqual([1, 2]);
  });

  test('is signed when enough was written, and when asked, and not twice for the same size', async () => {
    await write(...Array.from({ length: CHECKPOINT_EVERY }, (_, i) => i));
    expect((await listCheckpoints(db.read)).map(({ size }) => size)).toEqual([CHECKPOINT_EVERY]);
    await write(1);
    expect(await ledgerState(db.read)).toMatchObject({
      size: CHECKPOINT_EVERY + 1,
      signedSize: CHECKPOINT_EVERY,
    });
    for (let i = 0; i < 2; i++) await db.write((tx) => signLedger(tx, recorder, 1_790_000_000_000));
    expect((await listCheckpoints(db.read)).map(({ size }) => size)).toEqual([
      CHECKPOINT_EVERY,
      CHECKPOINT_EVERY + 1,
    ]);
    expect(await verifyLedger(db.read, { publicKey })).toMatchObject({
      checkpoints: 2,
      signed: CHECKPOINT_EVERY + 1,
      problems: [],
    });
  });

  test('takes more entries in one job than one statement holds', async () => {
    await write(...Array.from({ length: 5000 }, (_, i) => i));
    expect(await verifyLedger(db.read, { publicKey })).toMatchObject({
      entries: 5000,
      problems: [],
    });
  });

  test('cannot be written to outside the write queue', async () => {
    await expect(
      db.read.transaction((tx) => appendEntries(tx, recorder, [shown(1)])),
    ).rejects.toThrow('Only inside a job');
  });
});
