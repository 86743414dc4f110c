// A backup made while work goes on, brought back on an empty folder: everything opens, and nothing
// that ended comes back.
import { execFileSync } from 'node:child_process';
import {
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
  existsSync,
} from 'node:fs';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { unwrapFileKey } from '@/core/age/recipients';
import { parseHeader } from '@/core/age/header';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import { grants } from '@/server/db/schema/access';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { outbox } from '@/server/db/schema/mailing';
import { staffSessions } from '@/server/db/schema/staff';
import { versions } from '@/server/db/schema/documents';
import { destroyKey, destroyKeys } from '@/server/services/documents/destroy-keys';
import { answerConsent, listConsents } from '@/server/services/consents/answer-consents';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import { listRules } from '@/server/repositories/policy/rules-repository';
import { listSenderLimits } from '@/server/repositories/policy/sender-limits-repository';
import { changeSenderLimits } from '@/server/services/policy/sender-limits';
import { listCeilings } from '@/server/repositories/policy/ceiling-repository';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { newestEndings } from '@/core/ledger/endings';
import { readEndings } from '@/server/storage/ended-list';
import { blockPerson } from '@/server/services/people/manage-people';
import { noteEndings } from '@/server/services/ledger/note-endings';
import { decideFor } from '@/server/services/policy/decide-access';
import { rotateMasterKey } from '@/server/services/keys/rotate-master-key';
import { setTwoPeople } from '@/server/services/keys/manage-keys';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { listPasskeys } from '@/server/repositories/reading/passkey-repository';
import { beginPasskey, finishPasskey } from '@/server/services/reading/passkeys';
import { Authenticator } from '../support/authenticator';
import {
  START,
  dispatch,
  drawing,
  filesIn,
  isOnDisk,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { present } from '../support/present';
import { joinStaff } from '../support/staff';
import { setWay } from '../support/rules';
import { runCommand, type Ran } from '../support/command';
import { DAY } from '@/core/base/time';
import { blobFile } from '../support/blob-file';

let product: Product;
let bytes: Uint8Array;
const at = (name: string): string => path.join(product.folder, 'work', name);
const run = (args: readonly string[], folder = product.folder): Promise<Ran> =>
  runCommand(args, { DATA_DIR: folder });
beforeEach(async () => {
  [product, bytes] = [await startProduct(), await drawing(1)];
  mkdirSync(at(''));
  writeFileSync(at('key'), `${product.privateKey}\n`);
});
afterEach(() => product.close());

async function backUp(): Promise<void> {
  expect(await run(['backup', '--out', at('b.age')])).toMatchObject({ code: 0, err: '' });
}
const restore = (...more: string[]): Promise<Ran> =>
  run(['restore', at('b.age'), '--identity', at('key'), '--into', at('new'), ...more]);
const ended = (): string => path.join(product.folder, 'ended.jsonl');

async function openRestored() {
  return createContainer(readConfig({ DATA_DIR: at('new'), LOG_LEVEL: 'silent' }), {
    demo: true,
    threads: 1,
    clock: product.clock,
  });
}

describe('a backup', () => {
  test('is a tar in an age file, opened by standard tools, and has no copy left beside it', async () => {
    await protect(product, bytes);
    await backUp();
    writeFileSync(
      at('b.tar'),
      execFileSync('age', ['-d', '-i', at('key'), at('b.age')], { maxBuffer: 1 << 28 }),
    );
    const names = execFileSync('tar', ['tf', at('b.tar')], { encoding: 'utf8' })
      .trim()
      .split('\n');
    expect(names.slice(0, 3)).toEqual(['manifest.json', 'keys/master.key', 'embargo.db']);
    expect(names.slice(3)).toEqual([expect.stringMatching(/^blobs\/ver_[0-9a-z]{20}\.age$/)]);
    expect(statSync(at('b.age')).mode & 0o777).toBe(0o600);
    expect(readdirSync(product.folder).filter((name) => name.startsWith('.backup'))).toEqual([]);
    expect(
      (await product.deps.db.read.select().from(ledgerEntries)).some(
        ({ action }) => action === 'backup.made',
      ),
    ).toBe(true);
  });

  test('holds no key that was destroyed before it, and the database and its log neither', async () => {
    const document = await protect(product, bytes);
    await protect(product, bytes);
    const [version] = await product.deps.db.read.select().from(versions);
    const [wrapped, key] = [
      version?.wrappedKey ?? Buffer.alloc(1),
      product.deps.vault.unwrap(
        { wrapped: version?.wrappedKey ?? Buffer.alloc(0), generation: 1 },
        version?.id ?? '',
      ),
    ];
    expect(isOnDisk(product.folder, wrapped)).toBe(true);
    const { reference } = {
      reference:
        (
          await product.deps.db.read.query.documents.findFirst({
            where: (table, { eq }) => eq(table.id, document),
          })
        )?.reference ?? '',
    };
    await destroyKey(product.deps, product.ida, { id: document, typed: reference });
    expect(isOnDisk(product.folder, wrapped)).toBe(false);
    await backUp();
    const tar = execFileSync('age', ['-d', '-i', at('key'), at('b.age')], { maxBuffer: 1 << 28 });
    expect(tar.includes(wrapped)).toBe(false);
    expect(tar.includes(Buffer.from(key))).toBe(false);
  });

  test('cannot be made without a recovery key, or of contents that are not whole', async () => {
    await protect(product, bytes);
    const [version] = await product.deps.db.read.select().from(versions);
    writeFileSync(blobFile(product, version?.blobKey ?? ''), 'cut');
    expect(await run(['backup', '--out', at('b.age')])).toMatchObject({
      code: 1,
      err: expect.stringContaining('is damaged') as string,
    });
    expect(
      filesIn(product.folder).filter((name) => name.endsWith('/b.age') || name.includes('.backup')),
    ).toEqual([]);
  });
});

describe('a restore', () => {
  test('brings everything back, also after a rotation; everybody signs in anew; the ledger holds', async () => {
    const document = await protect(product, bytes);
    const { tokenOf } = await dispatch(product, [document], ['mira@yard.example']);
    const reader = await prove(product, tokenOf('mira@yard.example'), 'mira@yard.example');
    const asked = await beginPasskey(product.deps, reader, { another: false });
    if (asked.kind !== 'make') throw new Error('there is a passkey');
    const answer = await new Authenticator(product.deps.publicUrl).make(asked.options);
    await finishPasskey(product.deps, reader, { kind: 'make', answer });
    await rotateMasterKey(product.deps, path.join(product.folder, 'keys', 'master.key'), {
      kind: 'system',
      id: null,
    });
    await backUp();
    await noteEndings(product.deps);
    writeFileSync(at('list'), '');
    const { code, out } = await restore('--ended', at('list'));
    expect([code, out]).toEqual([0, expect.stringContaining('1 stored file')]);
    const restored = await openRestored();
    const { read } = restored.deps.db;
    expect((await decideFor(restored.deps, restored.deps.db.read, reader, document)).outcome).toBe(
      'granted',
    );
    const [version] = await read.select().from(versions);
    const header = parseHeader(
      readFileSync(blobFile({ folder: at('new') }, version?.blobKey ?? '')),
    );
    expect(
      Buffer.from(await unwrapFileKey(header, product.privateKey)).equals(
        Buffer.from(
          restored.deps.vault.unwrap(
            {
              wrapped: version?.wrappedKey ?? Buffer.alloc(0),
              generation: version?.keyGeneration ?? 0,
            },
            version?.id ?? '',
          ),
        ),
      ),
    ).toBe(true);
    expect(await read.$count(staffSessions)).toBe(0);
    // One that was removed since must not come back: each is made anew.
    expect(await listPasskeys(read, reader.address)).toEqual([]);
    expect((await read.select().from(outbox)).every(({ state }) => state !== 'waiting')).toBe(true);
    expect(
      (await verifyLedger(read, { publicKey: restored.deps.recorder.signer.publicKey })).problems,
    ).toEqual([]);
    expect(
      (await read.select().from(ledgerEntries)).some(({ action }) => action === 'service.restored'),
    ).toBe(true);
    await restored.close();
  });

  test('brings nothing back that was revoked, narrowed, blocked or destroyed since', async () => {
    const [first, second, third] = [
      await protect(product, bytes),
      await protect(product, bytes),
      await protect(product, bytes),
    ];
    const { grants: given } = await dispatch(
      product,
      [first, second, third],
      ['mira@yard.example', 'jonas@yard.example'],
      { rights: ['read', 'print'] },
    );
    const [a, b, c] = given;
    if (a === undefined || b === undefined || c === undefined) throw new Error('no grants');
    await revokeGrants(product.deps, product.ida, { grants: [b.id] });
    const ceiling = (limits: Partial<Limits>, seen: number | null) =>
      putCeiling(product.deps, product.ida, {
        level: 'organisation',
        subject: '',
        limits: { ...NO_LIMITS, ...limits },
        seen,
      });
    const { setAt } = await ceiling({ days: 50, prints: 3 }, null);
    const nils = await joinStaff(product, 'sender', 'nils');
    const limit = (limits: { days: number; domains: string[] }, seen: number | null) =>
      changeSenderLimits(product.deps, product.ida, {
        id: nils.id,
        limits: { rights: null, folders: null, ...limits },
        seen,
      });
    const limited = await limit({ days: 30, domains: ['@yard.example', '@kelder.example'] }, null);
    await setWay(product, 'file', 'forbidden');
    await backUp();
    // Forbidden since, and allowed since: only the first is brought back.
    await setWay(product, 'link', 'agreed');
    await setWay(product, 'file', 'allowed');
    await limit({ days: 60, domains: ['@yard.example'] }, limited.setAt);
    // Lowered in one thing and raised in another: the raise is not brought back.
    await ceiling({ days: 20, prints: 9 }, setAt);
    await revokeGrants(product.deps, product.ida, { grants: [a.id] });
    // Given back since the backup: stays shut, since a restore never gives.
    await reinstateGrants(product.deps, product.ida, { grants: [b.id] });
    await changeGrants(product.deps, product.ida, {
      changes: [
        {
          grant: c.id,
          revision: c.revision,
          until: START + DAY,
          rights: ['read'],
          conditions: { opens: 2, networks: ['192.0.2.0/24'] },
        },
      ],
    });
    await revokeDocument(product.deps, product.ida, { id: second });
    await blockPerson(product.deps, product.ida, { id: a.recipientId, blocked: true });
    const third3 = await product.deps.db.read.query.documents.findFirst({
      where: (table, { eq }) => eq(table.id, third),
    });
    await destroyKey(product.deps, product.ida, { id: third, typed: third3?.reference ?? '' });
    await noteEndings(product.deps);
    expect((await restore('--ended', ended())).code).toBe(0);
    const restored = await openRestored();
    const rows = new Map(
      (await restored.deps.db.read.select().from(grants)).map((grant) => [grant.id, grant]),
    );
    expect(rows.get(a.id)?.revokedAt).not.toBeNull();
    expect(rows.get(b.id)?.revokedAt).not.toBeNull();
    expect(rows.get(c.id)).toMatchObject({
      untilAt: START + DAY,
      rights: ['read'],
      conditions: { opens: 2, networks: ['192.0.2.0/24'] },
    });
    expect(await listCeilings(restored.deps.db.read)).toMatchObject([
      { level: 'organisation', limits: { days: 20, prints: 3 } },
    ]);
    expect(
      (await listRules(restored.deps.db.read)).map(({ way, leave }) => [way, leave]).sort(),
    ).toEqual([
      ['file', 'forbidden'],
      ['link', 'agreed'],
    ]);
    expect(await listSenderLimits(restored.deps.db.read)).toMatchObject([
      { staffId: nils.id, limits: { days: 30, domains: ['@yard.example'], rights: null } },
    ]);
    const stored = await restored.deps.db.read.select().from(versions);
    expect(
      stored.filter(({ wrappedKey }) => wrappedKey === null).map(({ documentId }) => documentId),
    ).toEqual([third]);
    const document = await restored.deps.db.read.query.documents.findFirst({
      where: (table, { eq }) => eq(table.id, second),
    });
    expect(document?.revokedAt).not.toBeNull();
    expect(
      (
        await restored.deps.db.read.query.recipients.findFirst({
          where: (table, { eq }) => eq(table.id, a.recipientId),
        })
      )?.blocked,
    ).toBe(true);
    expect(
      (
        await verifyLedger(restored.deps.db.read, {
          publicKey: restored.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
    // The list goes on: what ends from now on is noted behind it.
    const before = readFileSync(path.join(at('new'), 'ended.jsonl'), 'utf8').length;
    await revokeDocument(restored.deps, product.ida, { id: first });
    await noteEndings(restored.deps);
    expect(readFileSync(path.join(at('new'), 'ended.jsonl'), 'utf8').length).toBeGreaterThan(
      before,
    );
    await restored.close();
  });

  test('again from the list that the first restore wrote: ceilings, rules and limits are in it as well', async () => {
    await protect(product, bytes);
    await backUp();
    await putCeiling(product.deps, product.ida, {
      level: 'organisation',
      subject: '',
      limits: { ...NO_LIMITS, days: 5 },
      seen: null,
    });
    await setWay(product, 'link', 'forbidden');
    await noteEndings(product.deps);
    expect((await restore('--ended', ended())).code).toBe(0);
    const again = await run([
      'restore',
      at('b.age'),
      '--identity',
      at('key'),
      '--into',
      at('newer'),
      '--ended',
      path.join(at('new'), 'ended.jsonl'),
    ]);
    expect(again.code).toBe(0);
    const restored = await createContainer(
      readConfig({ DATA_DIR: at('newer'), LOG_LEVEL: 'silent' }),
      { demo: true, threads: 1, clock: product.clock },
    );
    expect(await listCeilings(restored.deps.db.read)).toMatchObject([{ limits: { days: 5 } }]);
    expect((await listRules(restored.deps.db.read)).map(({ way, leave }) => [way, leave])).toEqual([
      ['link', 'forbidden'],
    ]);
    await restored.close();
  });

  test('the database alone put back beside a newer list: what is revoked from then on is in the list', async () => {
    const { grants } = await dispatch(
      product,
      [await protect(product, bytes)],
      ['a@yard.example', 'b@yard.example'],
    );
    const [a, b] = [present(grants[0]).id, present(grants[1]).id];
    const old = path.join(product.folder, 'old.db');
    await product.deps.db.copyTo(old);
    for (let i = 0; i < 5; i++) {
      await revokeGrants(product.deps, product.ida, { grants: [a] });
      await reinstateGrants(product.deps, product.ida, { grants: [a] });
    }
    await noteEndings(product.deps);
    await product.container.close();
    for (const name of ['embargo.db', 'embargo.db-wal', 'embargo.db-shm'])
      rmSync(path.join(product.folder, name), { force: true });
    renameSync(old, path.join(product.folder, 'embargo.db'));
    const back = await createContainer(
      readConfig({ DATA_DIR: product.folder, LOG_LEVEL: 'silent' }),
      { demo: true, threads: 1, clock: product.clock },
    );
    await revokeGrants(back.deps, product.ida, { grants: [b] });
    await noteEndings(back.deps);
    expect(newestEndings(readEndings(ended())).grants.get(b)).toMatchObject({
      revoked: true,
    });
    await revokeGrants(back.deps, product.ida, { grants: [a] });
    await back.close();
    // Known again after the next start as well.
    const later = await createContainer(
      readConfig({ DATA_DIR: product.folder, LOG_LEVEL: 'silent' }),
      { demo: true, threads: 1, clock: product.clock },
    );
    await noteEndings(later.deps);
    expect(newestEndings(readEndings(ended())).grants.get(a)).toMatchObject({
      revoked: true,
    });
    await later.close();
  });

  test('copies that a killed backup left go at the next start, and when a key is destroyed', async () => {
    const document = await protect(product, bytes);
    const left = path.join(product.folder, '.backup-0123456789ab.db');
    await product.deps.db.copyTo(left);
    const { reference = '' } =
      (await product.deps.db.read.query.documents.findFirst({
        where: (table, { eq }) => eq(table.id, document),
      })) ?? {};
    await destroyKey(product.deps, product.ida, { id: document, typed: reference });
    expect(existsSync(left)).toBe(false);
    writeFileSync(left, 'a copy');
    const next = await createContainer(
      readConfig({ DATA_DIR: product.folder, LOG_LEVEL: 'silent' }),
      { demo: true, threads: 1, clock: product.clock },
    );
    expect(existsSync(left)).toBe(false);
    await next.close();
  });

  test('without a list everything is revoked, and that has to be said', async () => {
    await dispatch(product, [await protect(product, bytes)], ['mira@yard.example']);
    await backUp();
    expect(await restore()).toMatchObject({
      code: 2,
      err: expect.stringContaining('--revoke-all') as string,
    });
    expect((await restore('--revoke-all')).code).toBe(0);
    const restored = await openRestored();
    expect(
      (await restored.deps.db.read.select().from(grants)).every(
        ({ revokedAt }) => revokedAt !== null,
      ),
    ).toBe(true);
    expect(
      (
        await verifyLedger(restored.deps.db.read, {
          publicKey: restored.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
    await restored.close();
  });

  test('of a backup that is cut, altered, something else, or into a full folder, leaves nothing', async () => {
    await protect(product, bytes);
    await backUp();
    const whole = readFileSync(at('b.age'));
    for (const [bad, why] of [
      [whole.subarray(0, whole.length - 5000), /cannot be decrypted/],
      [
        Buffer.from(whole.map((byte, i) => (i === whole.length - 9000 ? byte ^ 1 : byte))),
        /cannot be decrypted/,
      ],
      [Buffer.from('Dear all'), /not a backup of Embargo/],
    ] as const) {
      writeFileSync(at('b.age'), bad);
      const { code, err } = await restore('--revoke-all');
      expect([code, err]).toEqual([1, expect.stringMatching(why)]);
      expect(readdirSync(at('')).filter((name) => name.startsWith('new'))).toEqual([]);
    }
    writeFileSync(at('b.age'), whole);
    mkdirSync(at('new'));
    writeFileSync(at('new/mine'), 'keep');
    expect((await restore('--revoke-all')).code).toBe(2);
    expect(readFileSync(at('new/mine'), 'utf8')).toBe('keep');
  });
});

describe('destroying many keys', () => {
  test('needs a second administrator where the organisation asks for two, who is never oneself', async () => {
    const ids = [await protect(product, bytes), await protect(product, bytes)];
    await expect(setTwoPeople(product.deps, product.ida, { on: true })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    await product.deps.db.write(async (tx) => {
      const { changeOrganisation } =
        await import('@/server/repositories/staff/organisation-repository');
      await changeOrganisation(tx, { twoPeople: true });
    });
    const vera = { ...product.ida, id: 'stf_00000000000000000002' as const, name: 'Vera Holm' };
    await product.deps.db.write(async (tx) => {
      const { insertStaff } = await import('@/server/repositories/staff/staff-repository');
      await insertStaff(
        tx,
        { id: vera.id, name: vera.name, email: 'vera@tern-quill.example', role: 'administrator' },
        START - 30 * DAY,
      );
    });
    await expect(
      destroyKeys(product.deps, product.ida, { documents: ids, typed: 'destroy 3', reason: '' }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    expect(
      await destroyKeys(product.deps, product.ida, {
        documents: ids,
        typed: 'destroy 2',
        reason: 'The project is over',
      }),
    ).toEqual({ destroyed: 0, waits: true });
    const [asked] = await listConsents(product.deps, product.ida);
    expect(asked).toMatchObject({
      own: true,
      titles: [expect.stringContaining('Lines plan'), expect.stringContaining('Lines plan')],
      reason: 'The project is over',
    });
    const id = asked?.id ?? 'cns_';
    await expect(
      answerConsent(product.deps, product.ida, { id, agree: true }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    expect(
      (await product.deps.db.read.select().from(versions)).every(
        ({ wrappedKey }) => wrappedKey !== null,
      ),
    ).toBe(true);
    expect(await answerConsent(product.deps, vera, { id, agree: true })).toEqual({
      destroyed: 2,
      waits: false,
    });
    expect(
      (await product.deps.db.read.select().from(versions)).every(
        ({ wrappedKey }) => wrappedKey === null,
      ),
    ).toBe(true);
    await expect(answerConsent(product.deps, vera, { id, agree: true })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    expect(existsSync(ended())).toBe(true);
    // One person alone cannot go back to one person.
    expect(await setTwoPeople(product.deps, product.ida, { on: false })).toEqual({ waits: true });
    const [back] = await listConsents(product.deps, vera);
    await answerConsent(product.deps, vera, { id: back?.id ?? 'cns_', agree: true });
    expect(await listConsents(product.deps, vera)).toEqual([]);
    expect(
      (
        await verifyLedger(product.deps.db.read, {
          publicKey: product.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
  });
});
