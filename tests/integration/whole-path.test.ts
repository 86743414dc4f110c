import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import sharp from 'sharp';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { verifyLicence } from '@/core/licence/licence';
import { grants } from '@/server/db/schema/access';
import { ledgerEntries, ledgerPersonal } from '@/server/db/schema/ledger';
import { licences } from '@/server/db/schema/reading';
import { signLedger } from '@/server/repositories/ledger/ledger-writer';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateDocument, revokeDocument } from '@/server/services/access/revoke-document';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { checkRecipients } from '@/server/services/dispatching/check-recipients';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { exportLedger } from '@/server/services/ledger/list-entries';
import { openDocument } from '@/server/services/reading/open-document';
import { sharedWith } from '@/server/services/reading/shared-with';
import { checkOpen, watchOpen } from '@/server/services/reading/watch-open';
import { keepDocument, printDocument } from '@/server/services/reading/take-copies';
import { readText, renderPage } from '@/server/services/reading/read-pages';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import {
  dispatch,
  drawing,
  isOnDisk,
  protect,
  prove,
  startProduct,
  whole,
  type Product,
} from '../support/product';

let people = 0;
/** Each test has a person of its own: codes for one address are limited. */
let mira = '';
let product: Product;
let document: DocumentId;

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing());
});
afterAll(async () => {
  await product.close();
});
beforeEach(() => {
  people++;
  mira = `mira.${String(people)}@brackwater.example`;
});

async function opened(rights: Parameters<typeof dispatch>[3] = {}) {
  const sent = await dispatch(product, [document], [mira], rights);
  const token = sent.tokenOf(mira);
  const reader = await prove(product, token, mira);
  const result = await openDocument(product.deps, reader, { token, document });
  if (result.outcome === 'refused') throw new Error(result.reason);
  return { ...sent, token, reader, licence: result.licence, result };
}

/** A document of its own, since grants of one person on one document add up. */
async function openedAlone(rights: Parameters<typeof dispatch>[3] = {}) {
  document = await protect(product, await drawing());
  return opened(rights);
}

const verify = () =>
  verifyLedger(product.deps.db.read, { publicKey: product.deps.recorder.signer.publicKey });
const newest = (limit = 1) => listEntries(product.deps.db.read, {}, limit);

describe('reading', () => {
  test('a licence is issued, pages come as marked pictures, and each page is recorded once', async () => {
    const { reader, licence, result } = await openedAlone();
    expect(result).toMatchObject({
      title: 'Lines plan',
      pages: 3,
      address: mira,
      sender: { name: 'Ida Roe', organisation: 'Tern & Quill' },
    });
    const [row] = await product.deps.db.read
      .select()
      .from(licences)
      .where(eq(licences.id, licence));
    expect(row?.watermark[0]?.line).toMatch(
      /^mira\.\d+@brackwater\.example · 25 Nov 2026 10:00 CET · 203\.0\.113\.24 · REF-\d+$/,
    );
    await expect(
      verifyLicence(
        row?.statement ?? '',
        product.deps.recorder.signer.publicKey,
        product.deps.publicUrl,
        product.clock.now(),
      ),
    ).resolves.toMatchObject({ id: licence });

    const page = await renderPage(product.deps, reader, { licence, page: 2, width: 800 });
    if ('outcome' in page) throw new Error(page.reason);
    expect(await sharp(page.bytes).metadata()).toMatchObject({ format: 'png', width: 800 });
    await renderPage(product.deps, reader, { licence, page: 2, width: 800 });
    const shown = await listEntries(product.deps.db.read, { with: { document: [document] } }, 50);
    expect(
      shown
        .filter(({ entry }) => entry.action === 'page.shown' && entry.licence === licence)
        .map(({ entry }) => entry.details['page']),
    ).toEqual([2]);
  });

  test('without a right the server refuses, whatever is asked for, and records the refusal', async () => {
    const { reader, licence } = await openedAlone();
    const { deps } = product;
    await expect(readText(deps, reader, { licence, page: 1 })).resolves.toMatchObject({
      outcome: 'refused',
      reason: 'not-given',
    });
    await expect(printDocument(deps, reader, { licence, from: 1, to: 1 })).resolves.toMatchObject({
      outcome: 'refused',
      reason: 'not-given',
    });
    await expect(keepDocument(deps, reader, { licence })).resolves.toMatchObject({
      outcome: 'refused',
      reason: 'not-given',
    });
    expect(
      (await newest(3)).map(({ entry }) => [entry.action, entry.outcome, entry.reason]),
    ).toEqual([
      ['document.kept', 'refused', 'not-given'],
      ['document.printed', 'refused', 'not-given'],
      ['text.copied', 'refused', 'not-given'],
    ]);
  });

  test('a licence is worth nothing on another device', async () => {
    const { token, licence } = await openedAlone();
    const other = await prove(product, token, mira);
    await expect(
      renderPage(product.deps, other, { licence, page: 1, width: 800 }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('copy gives the text, keep gives the document', async () => {
    const { reader, licence } = await openedAlone({ rights: ['read', 'copy', 'print', 'keep'] });
    const text = await readText(product.deps, reader, { licence, page: 1 });
    expect('runs' in text && text.runs.map((run) => run.text).join(' ')).toContain(
      'The yard shall build the vessel',
    );
    const kept = await keepDocument(product.deps, reader, { licence });
    expect(
      kept.outcome === 'made' && Buffer.from((await whole(kept)).subarray(0, 5)).toString(),
    ).toBe('%PDF-');
    expect((await newest())[0]?.entry.details['marked']).toBe(true);
  });

  test('of two prints asked for at once with one left, one is made', async () => {
    const { reader, licence } = await openedAlone({ rights: ['read', 'print'], prints: 1 });
    const results = await Promise.all(
      [1, 2].map(() => printDocument(product.deps, reader, { licence, from: 1, to: 2 })),
    );
    expect(results.filter(({ outcome }) => outcome === 'made')).toHaveLength(1);
    expect(results.find(({ outcome }) => outcome === 'refused')).toMatchObject({
      outcome: 'refused',
      reason: 'prints-used-up',
    });
  });

  test('nothing of the plain document is on the disk', async () => {
    const bytes = await drawing(4);
    await protect(product, bytes);
    expect(isOnDisk(product.folder, bytes.subarray(200, 260))).toBe(false);
    expect(isOnDisk(product.folder, Buffer.from('age-encryption.org/v1'))).toBe(true);
  });
});

describe('access over time', () => {
  test('a window begins and ends to the moment', async () => {
    document = await protect(product, await drawing());
    const now = product.clock.now();
    const { tokenOf } = await dispatch(product, [document], [mira], {
      from: now + HOUR,
      until: now + DAY,
    });
    const token = tokenOf(mira);
    const reader = await prove(product, token, mira);
    const open = () => openDocument(product.deps, reader, { token, document });
    await expect(open()).resolves.toMatchObject({ outcome: 'refused', reason: 'not-yet' });
    product.clock.set(now + HOUR);
    const inside = await open();
    expect(inside.outcome).toBe('granted');
    product.clock.set(now + DAY);
    await expect(open()).resolves.toMatchObject({ outcome: 'refused', reason: 'expired' });
  });

  test('a revocation bites inside an open, and reinstating brings back what was there', async () => {
    const { reader, licence, grants: rows } = await openedAlone();
    const ids = rows.map((row) => row.id);
    await revokeGrants(product.deps, product.ida, { grants: ids });
    await expect(
      renderPage(product.deps, reader, { licence, page: 1, width: 800 }),
    ).resolves.toMatchObject({ outcome: 'refused', reason: 'revoked' });
    await expect(revokeGrants(product.deps, product.ida, { grants: ids })).resolves.toEqual({
      changed: 0,
    });
    await reinstateGrants(product.deps, product.ida, { grants: ids });
    await expect(checkOpen(product.deps, reader, { licence })).resolves.toMatchObject({
      outcome: 'granted',
    });
  });

  test('a revoked document beats every grant and leaves the grants as they were', async () => {
    const { reader, licence } = await openedAlone();
    await revokeDocument(product.deps, product.ida, { id: document });
    await expect(checkOpen(product.deps, reader, { licence })).resolves.toMatchObject({
      outcome: 'refused',
      reason: 'document-revoked',
    });
    await reinstateDocument(product.deps, product.ida, { id: document });
    await expect(checkOpen(product.deps, reader, { licence })).resolves.toMatchObject({
      outcome: 'granted',
    });
  });

  test('an open reader hears of it well within two seconds', async () => {
    const { reader, licence, grants: rows } = await openedAlone();
    const heard = new Promise<number>((resolve) => {
      void watchOpen(product.deps, reader, { licence }, () => {
        resolve(performance.now());
      });
    });
    await new Promise((resolve) => {
      setTimeout(resolve, 500);
    });
    const since = performance.now();
    await revokeGrants(product.deps, product.ida, { grants: rows.map((row) => row.id) });
    expect((await heard) - since).toBeLessThan(1500);
  });

  test('of two people changing one grant at once the second is told', async () => {
    const { grants: rows } = await openedAlone();
    const [grant] = rows;
    if (grant === undefined) throw new Error('no grant');
    const change = {
      changes: [
        { grant: grant.id, revision: grant.revision, until: product.clock.now() + 2 * DAY },
      ],
    };
    await expect(changeGrants(product.deps, product.ida, change)).resolves.toEqual({
      changed: [
        {
          grant: grant.id,
          revision: 2,
          before: {
            until: grant.until,
            rights: grant.rights,
            prints: grant.prints,
            conditions: null,
          },
        },
      ],
    });
    await expect(changeGrants(product.deps, product.ida, change)).rejects.toMatchObject({
      code: 'CONFLICT',
    });
  });

  test('several ends change together or not at all', async () => {
    const other = await protect(product, await drawing());
    const { grants: rows } = await dispatch(product, [document, other], [mira]);
    const changes = rows.map((row) => ({
      grant: row.id,
      revision: row.revision,
      until: product.clock.now() + 3 * DAY,
    }));
    const [first, second] = changes;
    if (first === undefined || second === undefined) throw new Error('no grants');
    await expect(
      changeGrants(product.deps, product.ida, { changes: [first, { ...second, revision: 7 }] }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await expect(
      changeGrants(product.deps, product.ida, { changes: [first, { ...second, until: 1 }] }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await expect(changeGrants(product.deps, product.ida, { changes })).resolves.toMatchObject({
      changed: [{ revision: 2 }, { revision: 2 }],
    });
    expect((await verify()).problems).toEqual([]);
  });
});

test('a forwarded link shows a stranger who they are here, and nothing else', async () => {
  const { tokenOf } = await dispatch(product, [document], [mira]);
  const reader = await prove(product, tokenOf(mira), 'buying@outsider.example');
  const shared = await sharedWith(product.deps, reader, { token: tokenOf(mira) });
  expect(shared).toEqual({
    address: 'buying@outsider.example',
    sender: null,
    note: '',
    documents: [],
  });
  const result = await openDocument(product.deps, reader, { token: tokenOf(mira), document });
  expect(result).toMatchObject({
    outcome: 'refused',
    reason: 'not-addressed',
    at: null,
    address: 'buying@outsider.example',
    sender: null,
    requests: [],
  });
  const [last] = await newest();
  expect(last?.entry).toMatchObject({
    action: 'document.opened',
    outcome: 'refused',
    reason: 'not-addressed',
    document,
    actor: { kind: 'stranger', id: null },
  });
  expect(last?.personal['address']).toBe('buying@outsider.example');
});

describe('the ledger', () => {
  test('export carries what the screen shows, formulas disarmed', async () => {
    let text = '';
    for await (const piece of await exportLedger(product.deps, product.ida, { kind: ['refused'] }))
      text += new TextDecoder().decode(piece);
    const [head = '', columns, ...rows] = text.trimEnd().split('\r\n');
    expect(head).toMatch(/filter: kind=refused; rows: \d+; of these: refused \d+$/);
    expect(columns).toMatch(/^sequence,occurredAt/);
    expect(rows).toHaveLength(Number(/rows: (\d+)/.exec(head)?.[1]));
    expect(rows.every((row) => row.includes(',refused,'))).toBe(true);
  });

  test('holds, and names what somebody with the database changed', async () => {
    const { db } = product.deps;
    await db.write((tx) => signLedger(tx, product.deps.recorder, product.clock.now()));
    await expect(verify()).resolves.toMatchObject({ problems: [] });

    const [personal] = await db.read
      .select()
      .from(ledgerPersonal)
      .where(eq(ledgerPersonal.field, 'address'))
      .limit(1);
    if (personal === undefined) throw new Error('no personal value');
    const setPersonal = (value: string) =>
      db.write((tx) =>
        tx
          .update(ledgerPersonal)
          .set({ value })
          .where(sql`sequence = ${personal.sequence} AND field = 'address'`),
      );
    await setPersonal('somebody@else.example');
    await expect(verify()).resolves.toMatchObject({
      problems: [{ kind: 'personal-differs', sequence: personal.sequence }],
    });
    await setPersonal(personal.value);

    const [some] = await db.read
      .select()
      .from(grants)
      .where(sql`rights = '["read"]'`)
      .limit(1);
    const setRights = (rights: (typeof grants.$inferInsert)['rights']) =>
      db.write((tx) =>
        tx
          .update(grants)
          .set({ rights })
          .where(eq(grants.id, some?.id ?? 'grt_')),
      );
    await setRights(['read', 'copy', 'print', 'keep']);
    await expect(verify()).resolves.toMatchObject({ problems: [{ kind: 'state-differs' }] });
    await setRights(['read']);
    await expect(verify()).resolves.toMatchObject({ problems: [] });

    const [third] = await db.read.select().from(ledgerEntries).where(eq(ledgerEntries.sequence, 3));
    await db.write((tx) =>
      tx
        .update(ledgerEntries)
        .set({ body: (third?.body ?? '').replace('"done"', '"failed"') })
        .where(eq(ledgerEntries.sequence, 3)),
    );
    await expect(verify()).resolves.toMatchObject({ problems: [{ kind: 'altered', sequence: 3 }] });
    await db.write((tx) =>
      tx
        .update(ledgerEntries)
        .set({ body: third?.body ?? '' })
        .where(eq(ledgerEntries.sequence, 3)),
    );

    // Cutting the newest entries off leaves a chain that is whole, and a signed checkpoint that says otherwise.
    await db.write(async (tx) => {
      await tx.delete(ledgerPersonal).where(sql`sequence > 40`);
      await tx.delete(ledgerEntries).where(sql`sequence > 40`);
    });
    expect((await verify()).problems[0]).toMatchObject({
      kind: 'checkpoint-differs',
      sequence: 41,
    });
  });
});

describe('people of one dispatch', () => {
  test('may each have terms of their own; the rest have everybody’s', async () => {
    const own = {
      rights: ['read' as const, 'copy' as const],
      from: null,
      until: product.clock.now() + 2 * DAY,
      prints: null,
    };
    const input = {
      documents: [await protect(product, await drawing(1))],
      recipients: [
        { address: mira, name: '', organisation: '' },
        { address: `apart.${mira}`, name: 'Apart', organisation: 'Elsewhere', terms: own },
      ],
      terms: { rights: ['read' as const], from: null, until: null, prints: null },
      subject: 'x',
      note: '',
      watermark: [],
      delivery: 'mail' as const,
    };
    const { id } = await dispatchDocuments(product.deps, product.ida, input);
    const rows = await product.deps.db.read.select().from(grants).where(eq(grants.dispatchId, id));
    expect(rows.map((row) => [row.rights, row.untilAt]).sort()).toEqual([
      [['read'], null],
      [['read', 'copy'], own.until],
    ]);
    const past = {
      ...input,
      recipients: [{ address: mira, name: '', organisation: '', terms: { ...own, until: 1 } }],
    };
    await expect(dispatchDocuments(product.deps, product.ida, past)).rejects.toMatchObject({
      code: 'INVALID',
    });
  });

  test('are checked before: known, new, one slip away from somebody known, unreadable left out', async () => {
    await dispatch(
      product,
      [await protect(product, await drawing(1))],
      ['tove.lind@meridian.example'],
    );
    const { checks } = await checkRecipients(product.deps, product.ida, {
      addresses: [
        'Tove.Lind@Meridian.example',
        'tove.lind@meridain.example',
        'new@new.example',
        'not an address',
      ],
      domains: [],
    });
    expect(checks).toMatchObject([
      {
        address: 'tove.lind@meridian.example',
        known: { name: '', organisation: '', blocked: false },
        looksLike: null,
        publicMail: false,
      },
      {
        address: 'tove.lind@meridain.example',
        known: null,
        looksLike: 'tove.lind@meridian.example',
        publicMail: false,
      },
      { address: 'new@new.example', known: null, looksLike: null, publicMail: false },
    ]);
  });
});
