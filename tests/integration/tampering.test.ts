// Somebody with write access to the database, and neither the master key nor the witness: what they
// gain, and what is found.
import { cpSync } from 'node:fs';
import path from 'node:path';
import { createClient, type Client } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { GENESIS } from '@/core/ledger/hash';
import { EMPTY_TREE, appendLeaf, leafHash, treeRoot } from '@/core/ledger/merkle';
import { signCheckpoint } from '@/core/ledger/checkpoint';
import { writeEntry } from '@/core/ledger/entry';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { openDatabase } from '@/server/db/database';
import { createSeals } from '@/server/db/seals';
import { signLedger } from '@/server/repositories/ledger/ledger-writer';
import { accountOf } from '@/server/repositories/staff/staff-repository';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import type { ReaderActor } from '@/server/services/base/deps';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { blockPerson } from '@/server/services/people/manage-people';
import { noteCheckpoints } from '@/server/services/ledger/note-checkpoints';
import { openDocument } from '@/server/services/reading/open-document';
import { signIn } from '@/server/services/staff/sign-in';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { nodeHash } from '@/server/vault/node-hash';
import { newSigningKey, signerOf } from '@/server/vault/vault';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

let product: Product;
let outside: Client;
let document: DocumentId;
let mira: ReaderActor;
let token: string;
const ADDRESS = 'mira@yard.example';

/** A copy of the database as it stands honest: each test harms one of its own. */
async function inCopy(harm: (client: Client) => Promise<unknown>): Promise<string[]> {
  const file = path.join(product.folder, `copy-${String(copies++)}.db`);
  await product.deps.db.copyTo(file);
  const client = createClient({ url: `file:${file}` });
  await harm(client);
  client.close();
  const db = await openDatabase(`file:${file}`);
  const { problems } = await verifyLedger(db.read, {
    publicKey: product.deps.witness.read().publicKey ?? new Uint8Array(32),
    witnesses: product.deps.witness.read().checkpoints,
    seals: createSeals(Buffer.from(product.deps.vault.derive('row seals'), 'hex')),
  });
  await db.close();
  return problems.map(({ kind }) => kind);
}
let copies = 0;

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
  const sent = await dispatch(product, [document], [ADDRESS, 'per@yard.example']);
  token = sent.tokenOf(ADDRESS);
  mira = await prove(product, token, ADDRESS);
  const group = await putGroup(product.deps, product.ida, { id: null, name: 'Yards' });
  await changeMembers(product.deps, product.ida, {
    id: group.id,
    add: [mira.recipient ?? 'rcp_'],
    remove: [],
  });
  await putCeiling(product.deps, product.ida, {
    level: 'marking',
    subject: '',
    limits: { ...NO_LIMITS, days: 90 },
    seen: null,
  }).catch(() => undefined);
  await putCeiling(product.deps, product.ida, {
    level: 'organisation',
    subject: '',
    limits: { ...NO_LIMITS, rights: ['read'] },
    seen: null,
  });
  const other = sent.grants.find((grant) => grant.address === 'per@yard.example');
  await changeGrants(product.deps, product.ida, {
    changes: [{ grant: other?.id ?? 'grt_', revision: 1, until: START + DAY }],
  });
  await revokeGrants(product.deps, product.ida, { grants: [other?.id ?? 'grt_'] });
  await blockPerson(product.deps, product.ida, { id: other?.recipientId ?? 'rcp_', blocked: true });
  await product.deps.db.write((tx) => signLedger(tx, product.deps.recorder, product.clock.now()));
  await noteCheckpoints(product.deps);
  outside = createClient({ url: `file:${path.join(product.folder, 'embargo.db')}` });
});
afterAll(async () => {
  outside.close();
  await product.close();
});

const reads = async (reader = mira) =>
  (await openDocument(product.deps, reader, { token, document })).outcome;
/** Waits until the product writes nothing: two clients in one process would wait for each other. */
const quiet = async () => {
  for (let i = 0; i < 3; i++) await product.deps.db.write(() => Promise.resolve());
};
/** Does something to the product's own database, looks at what it gives, and puts it back as it was. */
async function whileHarmed<T>(table: string, harm: string, look: () => Promise<T>): Promise<T> {
  await quiet();
  const before = await outside.execute(`SELECT * FROM ${table}`);
  await outside.execute('PRAGMA foreign_keys = OFF');
  try {
    await outside.execute(harm);
    return await look();
  } finally {
    await quiet();
    await outside.execute(`DELETE FROM ${table}`);
    const columns = before.columns.map((name) => `"${name}"`).join(', ');
    for (const row of before.rows)
      await outside.execute({
        sql: `INSERT INTO ${table} (${columns}) VALUES (${before.columns.map(() => '?').join(', ')})`,
        args: before.columns.map((name) => row[name] ?? null),
      });
  }
}

test('untouched, everything holds against the witness and the seals', async () => {
  expect(await inCopy(() => Promise.resolve())).toEqual([]);
  expect(await reads()).toBe('granted');
});

describe('opens nothing by', () => {
  test('a grant slipped in, widened, or revived', async () => {
    const stranger = await prove(product, token, 'mallory@elsewhere.example');
    expect(await reads(stranger)).toBe('refused');
    await quiet();
    await outside.execute(
      'INSERT INTO recipients (id, kind, address, name, organisation, blocked, created_at) ' +
        "VALUES ('rcp_mallory', 'person', 'mallory@elsewhere.example', '', '', 0, 0)",
    );
    await outside.execute({
      sql:
        'INSERT INTO grants (id, dispatch_id, document_id, recipient_id, rights, prints_made, ' +
        "follows, revision, given_by, given_at) SELECT 'grt_mallory', dispatch_id, " +
        "document_id, 'rcp_mallory', rights, 0, 0, 1, given_by, given_at FROM grants LIMIT 1",
      args: [],
    });
    expect(await reads(stranger)).toBe('refused');
    await quiet();
    await outside.execute("DELETE FROM grants WHERE id = 'grt_mallory'");
    await outside.execute("DELETE FROM recipients WHERE id = 'rcp_mallory'");
    const per = await prove(product, token, 'per@yard.example');
    expect(await reads(per)).toBe('refused');
    expect(
      await whileHarmed('grants', 'UPDATE grants SET revoked_at = NULL, until_at = NULL', () =>
        reads(per),
      ),
    ).toBe('refused');
    expect(
      await whileHarmed('recipients', 'UPDATE recipients SET blocked = 0', () => reads(per)),
    ).toBe('refused');
    expect(
      await whileHarmed(
        'grants',
        `UPDATE grants SET rights = '["read","copy","print","keep"]'`,
        () => reads(),
      ),
    ).toBe('refused');
    expect(await reads()).toBe('granted');
  });

  test.each([
    ['a ceiling taken away', 'ceilings', 'DELETE FROM ceilings'],
    [
      'a ceiling raised',
      'ceilings',
      'UPDATE ceilings SET limits = ' +
        `'{"rights":null,"days":null,"prints":null,"opens":null,"countries":null,"networks":null}'`,
    ],
    ['a document moved', 'documents', "UPDATE documents SET marking_id = 'mrk_x'"],
    ['another version put in its place', 'versions', 'UPDATE versions SET number = 9'],
    [
      'a person whose address was changed',
      'recipients',
      `UPDATE recipients SET name = 'x' WHERE address = '${ADDRESS}'`,
    ],
  ])('%s', async (_what, table, harm) => {
    expect(await whileHarmed(table, harm, () => reads())).toBe('refused');
    expect(await reads()).toBe('granted');
  });

  test('a password written over, a role raised, a member put into a group, another recovery key', async () => {
    const attempt = () =>
      signIn(
        product.deps,
        product.container.identity,
        product.ida.from,
        new Headers({ 'x-embargo-network': '192.0.2.10' }),
        { email: product.ida.email, password: 'a long enough password', code: '' },
      ).then(
        () => 'in',
        (error: unknown) => (error as { code: string }).code,
      );
    expect(await attempt()).toBe('in');
    expect(
      await whileHarmed(
        'staff_accounts',
        `UPDATE staff_accounts SET account_id = 'x' WHERE id = '${accountOf(product.ida.id)}'`,
        attempt,
      ),
    ).toBe('NOT_SIGNED_IN');
    expect(await whileHarmed('staff', "UPDATE staff SET name = 'x'", attempt)).toBe(
      'NOT_SIGNED_IN',
    );
    const groups = (await outside.execute('SELECT id FROM groups')).rows.map(({ id }) => ({
      id: id as `grp_${string}`,
    }));
    const toGroup = () =>
      dispatchDocuments(product.deps, product.ida, {
        documents: [document],
        recipients: [],
        groups,
        terms: { rights: ['read'], from: null, until: START + DAY, prints: null },
        subject: 's',
        note: '',
        watermark: [],
        delivery: 'by-hand',
      }).then(
        () => 'sent',
        (error: unknown) => (error as { code: string }).code,
      );
    expect(
      await whileHarmed(
        'group_members',
        'INSERT INTO group_members (group_id, recipient_id) SELECT group_id, (SELECT id FROM ' +
          "recipients WHERE address = 'per@yard.example') FROM group_members LIMIT 1",
        toGroup,
      ),
    ).toBe('CONFLICT');
    const taking = () =>
      beginUpload(product.deps, product.ida, { fileName: 'a.pdf', bytes: 10 }).then(
        () => 'begun',
        (error: unknown) => (error as { code: string }).code,
      );
    expect(
      await whileHarmed('organisation', "UPDATE organisation SET recovery_key = 'age1x'", taking),
    ).toBe('CONFLICT');
    expect(await taking()).toBe('begun');
  });

  test('and each is reported once, on the ledger and on Today', async () => {
    const rows = (
      await outside.execute("SELECT count(*) AS n FROM ledger_entries WHERE action = 'seal.broken'")
    ).rows[0]?.['n'];
    expect(Number(rows)).toBeGreaterThan(3);
    expect(product.deps.health.list().map(({ code }) => code)).toContain('seal-broken');
  });
});

describe('is found by the verification where somebody', () => {
  const run = (statement: string) => async (client: Client) => {
    await client.execute('PRAGMA foreign_keys = OFF');
    await client.executeMultiple(statement);
  };

  test.each<[string, string, string]>([
    [
      'slips a grant in',
      'INSERT INTO grants (id, dispatch_id, document_id, recipient_id, rights, prints_made, ' +
        "follows, revision, given_by, given_at) SELECT 'grt_x', dispatch_id, document_id, " +
        "'rcp_x', rights, 0, 0, 1, given_by, given_at FROM grants LIMIT 1",
      'row-foreign',
    ],
    [
      'gives a grant to another person',
      "UPDATE grants SET recipient_id = 'rcp_x' WHERE revoked_at IS NULL AND rowid = (SELECT " +
        'min(rowid) FROM grants WHERE revoked_at IS NULL)',
      'row-foreign',
    ],
    ['takes a grant away', 'DELETE FROM grants WHERE revoked_at IS NOT NULL', 'rows-missing'],
    [
      'changes an address',
      `UPDATE recipients SET address = 'x@elsewhere.example' WHERE address = '${ADDRESS}'`,
      'row-foreign',
    ],
    ['lifts a block', 'UPDATE recipients SET blocked = 0 WHERE blocked', 'row-foreign'],
    ['takes a ceiling away', 'DELETE FROM ceilings', 'rows-missing'],
    [
      'puts somebody into a group',
      "INSERT INTO group_members (group_id, recipient_id) SELECT group_id, 'rcp_y' FROM group_members LIMIT 1",
      'row-foreign',
    ],
    ['takes somebody out of one', 'DELETE FROM group_members', 'rows-missing'],
    ['gives a device another key', `UPDATE devices SET public_key = '{}'`, 'row-foreign'],
    ['revives a device', 'UPDATE devices SET expires_at = 9999999999999', 'row-foreign'],
    ['changes a watermark', "UPDATE dispatches SET watermark = '[]'", 'row-foreign'],
    ['sets a count back', 'UPDATE grants SET prints_made = -5', 'row-foreign'],
    ['takes an open away', 'DELETE FROM licences', 'rows-missing'],
    ['changes a version', "UPDATE versions SET blob_key = 'x'", 'row-foreign'],
    [
      'raises a role',
      "UPDATE staff SET role = 'administrator', disabled_at = NULL, factor = NULL, name = name || 'x'",
      'row-foreign',
    ],
    ['changes a password', "UPDATE staff_accounts SET password = 'x'", 'row-foreign'],
    [
      'moves a session',
      "UPDATE staff_sessions SET user_id = 'x'; INSERT INTO staff_sessions (id, token, " +
        "user_id, expires_at, created_at, updated_at) VALUES ('ses_x', 'x', 'stf_x', 0, 0, 0)",
      'row-foreign',
    ],
    [
      'changes the organisation',
      'UPDATE organisation SET two_people = 1 - two_people',
      'row-foreign',
    ],
    [
      'adds a link',
      "INSERT INTO links (id, token, dispatch_id, recipient_id, created_at) SELECT 'lnk_x', " +
        "'x', dispatch_id, recipient_id, 0 FROM links LIMIT 1",
      'row-foreign',
    ],
    [
      'alters an entry',
      `UPDATE ledger_entries SET body = replace(body, '"done"', '"failed"') WHERE sequence = 3`,
      'altered',
    ],
    [
      'cuts the ledger short',
      'DELETE FROM ledger_personal WHERE sequence > 5; DELETE FROM ledger_entries WHERE sequence > 5',
      'checkpoint-differs',
    ],
    ['deletes checkpoints', 'DELETE FROM ledger_checkpoints', 'checkpoint-missing'],
    [
      'deletes a personal value',
      'DELETE FROM ledger_personal WHERE rowid = (SELECT min(rowid) FROM ledger_personal)',
      'personal-missing',
    ],
    [
      'changes a personal value',
      "UPDATE ledger_personal SET value = 'x' WHERE rowid = (SELECT min(rowid) FROM ledger_personal)",
      'personal-differs',
    ],
    ['changes the stored end', "UPDATE ledger_end SET hash = 'x'", 'end-differs'],
    ['changes the counts', 'UPDATE ledger_days SET entries = entries + 1', 'counts-differ'],
    [
      'changes what the sums say',
      "UPDATE table_sums SET sum = x'00000000000000000000000000000000' WHERE name = 'grants'",
      'rows-missing',
    ],
    [
      'has columns say something else',
      `CREATE TABLE changed AS SELECT sequence, body, hash, occurred_at, 'document.opened' ` +
        'AS action, outcome, document_id, recipient_id, dispatch_id, grant_id, reason FROM ' +
        'ledger_entries; DROP TABLE ledger_entries; ALTER TABLE changed RENAME TO ' +
        'ledger_entries',
      'columns-differ',
    ],
  ])('%s', async (_what, statement, kind) => {
    expect(await inCopy(run(statement))).toContain(kind);
  });

  test('puts a row back to what it once was', async () => {
    const [before] = (
      await outside.execute({
        sql: 'SELECT seal FROM recipients WHERE address = ?',
        args: [ADDRESS],
      })
    ).rows;
    await blockPerson(product.deps, product.ida, { id: mira.recipient ?? 'rcp_', blocked: true });
    const harm = (client: Client) =>
      client.execute({
        sql: 'UPDATE recipients SET blocked = 0, seal = ? WHERE address = ?',
        args: [before?.['seal'] ?? null, ADDRESS],
      });
    expect(await inCopy(harm)).toContain('rows-missing');
    await blockPerson(product.deps, product.ida, { id: mira.recipient ?? 'rcp_', blocked: false });
  });

  test('appends an entry that fits', async () => {
    expect(
      await inCopy(async (client) => {
        const rows = (
          await client.execute('SELECT body, hash FROM ledger_entries ORDER BY sequence')
        ).rows;
        const last = rows.at(-1)?.['hash'] as string;
        const body = writeEntry(
          {
            action: 'staff.signed-in',
            outcome: 'done',
            actor: { kind: 'staff', id: product.ida.id },
            occurredAt: product.clock.now(),
          },
          { sequence: rows.length + 1, previous: last },
          {},
          nodeHash,
        );
        const hash = Buffer.from(leafHash(body, nodeHash)).toString('hex');
        let tree = EMPTY_TREE;
        for (const text of [...rows.map((row) => row['body'] as string), body])
          tree = appendLeaf(tree, leafHash(text, nodeHash), nodeHash);
        await client.execute({
          sql: 'INSERT INTO ledger_entries (sequence, body, hash) VALUES (?, ?, ?)',
          args: [rows.length + 1, body, hash],
        });
        await client.execute({
          sql: 'UPDATE ledger_end SET size = ?, hash = ?, nodes = ?',
          args: [tree.size, hash, Buffer.concat(tree.nodes)],
        });
        await client.execute(
          'UPDATE ledger_days SET entries = entries + 1 WHERE (day, kind, outcome, reason, ' +
            'place, organisation) IN (SELECT day, kind, outcome, reason, place, organisation ' +
            "FROM ledger_days WHERE kind = 'staff' AND outcome = 'done' LIMIT 1)",
        );
      }),
    ).toContain('end-foreign');
  });

  test('rewrites the whole history and signs it anew', async () => {
    expect(
      (
        await inCopy(async (client) => {
          const { privateKey, publicKey } = newSigningKey();
          const signer = signerOf(privateKey, publicKey);
          const rows = (
            await client.execute('SELECT sequence, body FROM ledger_entries ORDER BY sequence')
          ).rows;
          let [tree, previous] = [EMPTY_TREE, GENESIS];
          for (const row of rows) {
            const body = (row['body'] as string)
              .replace(/"previous":"[0-9a-f]{64}"/, `"previous":"${previous}"`)
              .replace('document.protected', 'document.revised');
            const leaf = leafHash(body, nodeHash);
            previous = Buffer.from(leaf).toString('hex');
            tree = appendLeaf(tree, leaf, nodeHash);
            await client.execute({
              sql: 'UPDATE ledger_entries SET body = ?, hash = ? WHERE sequence = ?',
              args: [body, previous, row['sequence'] ?? 0],
            });
          }
          const text = signCheckpoint(
            {
              origin: product.deps.recorder.origin,
              size: tree.size,
              root: treeRoot(tree, nodeHash),
            },
            signer,
            nodeHash,
          );
          await client.execute('DELETE FROM ledger_checkpoints');
          await client.execute({
            sql: 'INSERT INTO ledger_checkpoints (size, text, created_at) VALUES (?, ?, 0)',
            args: [tree.size, text],
          });
          await client.execute({
            sql: 'UPDATE ledger_end SET size = ?, hash = ?, nodes = ?, signed_size = ?',
            args: [tree.size, previous, Buffer.concat(tree.nodes), tree.size],
          });
          await client.execute({
            sql: "UPDATE service_keys SET public_key = ? WHERE name = 'issuer'",
            args: [Buffer.from(publicKey)],
          });
        })
      )[0],
    ).toBe('checkpoint-differs');
  });

  test('puts the whole database back to what it was', async () => {
    const old = path.join(product.folder, 'old.db');
    await product.deps.db.copyTo(old);
    await revokeGrants(product.deps, product.ida, {
      grants: [
        (await outside.execute('SELECT id FROM grants WHERE revoked_at IS NULL')).rows[0]?.[
          'id'
        ] as `grt_${string}`,
      ],
    });
    await product.deps.db.write((tx) => signLedger(tx, product.deps.recorder, product.clock.now()));
    await noteCheckpoints(product.deps);
    cpSync(old, path.join(product.folder, 'rolled-back.db'));
    const db = await openDatabase(`file:${path.join(product.folder, 'rolled-back.db')}`);
    const { publicKey, checkpoints } = product.deps.witness.read();
    expect(
      (
        await verifyLedger(db.read, {
          publicKey: publicKey ?? new Uint8Array(32),
          witnesses: checkpoints,
        })
      ).problems.map(({ kind }) => kind),
    ).toContain('checkpoint-differs');
    expect(
      (await verifyLedger(db.read, { publicKey: publicKey ?? new Uint8Array(32) })).witnessed,
    ).toBeNull();
    await noteCheckpoints({ ...product.deps, db });
    expect(product.deps.health.list().map(({ code }) => code)).toContain('witness-ahead');
    expect((await db.read.all<{ n: number }>(sql`SELECT 1 AS n`))[0]?.n).toBe(1);
    await db.close();
  });
});
