// The master key is rotated, cut off at every point, beside a server that goes on working.
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { versions, uploads } from '@/server/db/schema/documents';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import { beginUpload } from '@/server/services/documents/begin-upload';
import type { Deps } from '@/server/services/base/deps';
import { openDocument } from '@/server/services/reading/open-document';
import { protectDocument } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';
import { rotateMasterKey } from '@/server/services/keys/rotate-master-key';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { openMasterKeys } from '@/server/vault/master-key';
import { runUntilKilled } from '../support/killed';
import {
  dispatch,
  drawing,
  inPieces,
  isOnDisk,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { blobFile } from '../support/blob-file';

const keyFile = (folder: string): string => path.join(folder, 'keys', 'master.key');
const system = { kind: 'system', id: null } as const;
const rotate = (product: Product, progress?: () => void) =>
  rotateMasterKey(product.deps, keyFile(product.folder), system, progress);

async function unwrapAll({ db, vault }: Deps): Promise<number> {
  const stored = [
    ...(await db.read.select().from(versions)).map((row) => ({ ...row, owner: row.id })),
    ...(await db.read.select().from(uploads)).map((row) => ({ ...row, owner: row.versionId })),
  ];
  for (const { wrappedKey, keyGeneration, owner } of stored)
    expect(
      vault.unwrap({ wrapped: wrappedKey ?? Buffer.alloc(0), generation: keyGeneration }, owner),
    ).toHaveLength(16);
  return stored.length;
}

describe('rotating', () => {
  let product: Product;
  let bytes: Uint8Array;
  beforeEach(async () => {
    [product, bytes] = [await startProduct(), await drawing(1)];
  });
  afterEach(() => product.close());

  test('wraps every key anew, keeps sessions and codes, leaves the old key nowhere, and is on the ledger', async () => {
    const document = await protect(product, bytes);
    const { tokenOf } = await dispatch(product, [document], ['mira@yard.example']);
    const reader = await prove(product, tokenOf('mira@yard.example'), 'mira@yard.example');
    const mac = product.deps.vault.mac('x', 'y');
    const before = openMasterKeys(keyFile(product.folder), false).current();
    const blob = readFileSync(
      blobFile(product, (await product.deps.db.read.select().from(versions))[0]?.blobKey ?? ''),
    );
    expect(await rotate(product)).toEqual({ generation: 2, keys: 1 });
    expect(readFileSync(keyFile(product.folder), 'utf8')).toMatch(/^2 [A-Za-z0-9+/]{43}=\n$/);
    expect(statSync(keyFile(product.folder)).mode & 0o777).toBe(0o600);
    expect(
      isOnDisk(product.folder, Buffer.from(Buffer.from(before.key.reveal()).toString('base64'))),
    ).toBe(false);
    expect(await unwrapAll(product.deps)).toBe(1);
    expect(product.deps.vault.mac('x', 'y')).toBe(mac);
    expect(
      readFileSync(
        blobFile(product, (await product.deps.db.read.select().from(versions))[0]?.blobKey ?? ''),
      ).equals(blob),
    ).toBe(true);
    expect(
      (await openDocument(product.deps, reader, { token: tokenOf('mira@yard.example'), document }))
        .outcome,
    ).toBe('granted');
    expect(
      (
        await verifyLedger(product.deps.db.read, {
          publicKey: product.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
    // A process that starts now has the new key alone, and opens everything.
    const other = await createContainer(
      readConfig({ DATA_DIR: product.folder, LOG_LEVEL: 'silent' }),
      { demo: true, threads: 1, beside: true },
    );
    expect(await unwrapAll(other.deps)).toBe(1);
    expect(other.deps.vault.mac('x', 'y')).toBe(mac);
    await other.close();
  });

  test('cut off wherever, it goes on with the key it began, and ends once', async () => {
    for (let i = 0; i < 3; i++) await protect(product, bytes);
    await expect(
      rotate(product, () => {
        throw new Error('pulled');
      }),
    ).rejects.toThrow('pulled');
    expect(readFileSync(keyFile(product.folder), 'utf8').split('\n')).toHaveLength(3);
    await unwrapAll(product.deps);
    const again = await startOther(product);
    await unwrapAll(again.deps);
    await again.close();
    expect((await rotate(product)).generation).toBe(2);
    expect((await rotate(product)).generation).toBe(3);
    await unwrapAll(product.deps);
  });

  test('an upload that is on its way goes on, and what comes in meanwhile is wrapped under the new key', async () => {
    const { id } = await beginUpload(product.deps, product.ida, {
      fileName: 'a.pdf',
      bytes: bytes.length,
    });
    await rotate(product);
    await receivePart(product.deps, product.ida, { id, offset: 0 }, inPieces(bytes));
    await rotate(product);
    await protectDocument(product.deps, product.ida, {
      id,
      title: 'On its way',
      reference: 'WAY-1',
    });
    await protect(product, bytes);
    const rows = await product.deps.db.read
      .select({ generation: versions.keyGeneration })
      .from(versions);
    expect(rows).toEqual([{ generation: 3 }, { generation: 3 }]);
  });

  test('a key that does not open stops it, and nothing is forgotten', async () => {
    await protect(product, bytes);
    await product.deps.db.write(async (tx) => {
      await tx.update(versions).set({ wrappedKey: Buffer.alloc(44) });
    });
    await expect(rotate(product)).rejects.toMatchObject({ code: 'CANNOT_UNWRAP' });
    expect(readFileSync(keyFile(product.folder), 'utf8')).toContain('1 ');
  });

  test('a key file that others can read, or that holds something else, is refused', () => {
    for (const text of [
      '',
      'hello\n',
      '1 short\n',
      `1 ${'A'.repeat(43)}=\n1 ${'B'.repeat(43)}=\n`,
      `0 ${'A'.repeat(43)}=\n`,
    ]) {
      writeFileSync(keyFile(product.folder), text);
      expect(() => openMasterKeys(keyFile(product.folder), false)).toThrow('does not hold a key');
    }
  });
});

function startOther(product: Product) {
  return createContainer(readConfig({ DATA_DIR: product.folder, LOG_LEVEL: 'silent' }), {
    demo: true,
    threads: 1,
    beside: true,
  });
}

test('killed again and again beside a server that encrypts, no key is ever lost', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-rotate-'));
  const load = runUntilKilled('tests/support/busy-product.ts', folder, 'busy', 9_000);
  await new Promise((resolve) => {
    setTimeout(resolve, 3_500);
  });
  for (const after of [5, 60, 200, 450])
    await runUntilKilled('tests/support/rotator.ts', folder, 'begun', after);
  // However slow the machine, one rotation was whole, and the kill came in one of the next.
  await runUntilKilled('tests/support/rotator.ts', folder, 'rotated', 40);
  await load;
  const config = readConfig({ DATA_DIR: folder, LOG_LEVEL: 'silent' });
  const { deps, close } = await createContainer(config, { demo: true, threads: 1 });
  expect(await unwrapAll(deps)).toBeGreaterThan(1);
  expect(deps.vault.generation()).toBeGreaterThan(1);
  const { generation } = await rotateMasterKey(deps, config.masterKeyFile, system);
  expect(readFileSync(config.masterKeyFile, 'utf8')).toMatch(
    new RegExp(`^${String(generation)} \\S+\\n$`),
  );
  await unwrapAll(deps);
  expect(
    (await verifyLedger(deps.db.read, { publicKey: deps.recorder.signer.publicKey })).problems,
  ).toEqual([]);
  await close();
  rmSync(folder, { recursive: true, force: true });
}, 90_000);
