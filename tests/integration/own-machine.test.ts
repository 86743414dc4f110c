// A protected file that is read on the person's own machine: who is given its key, for what, and what
// can be had of it then.
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import { newId } from '@/core/base/ids';
import type { LicenceId } from '@/core/base/ids';
import { newBoxKeyPair, unboxKey } from '@/core/licence/key-box';
import type { OwnDocument } from '@/core/own-machine/own-document';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { newLayer } from '@/core/watermark/layers';
import { wholePage } from '@/core/watermark/layout';
import { createScriptFonts } from '@/server/rendering/script-fonts';
import { carriedScripts, glyphsToCarry } from '@/core/watermark/carried-glyphs';
import { createMarker } from '@/core/watermark/marker';
import type { DispatchInput } from '@/contracts/dispatch';
import type { HandInInput, KeyTaken } from '@/contracts/own-machine';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { viewDocument } from '@/server/services/documents/view-document';
import { viewPerson } from '@/server/services/people/manage-people';
import { previewCeiling, putCeiling } from '@/server/services/policy/manage-ceilings';
import { findLicence } from '@/server/repositories/reading/reader-repository';
import { makeDevice } from '@/server/services/reading/make-device';
import { handIn } from '@/server/services/reading/hand-in';
import { openDocument } from '@/server/services/reading/open-document';
import { noteReading, renderPage } from '@/server/services/reading/read-pages';
import { ifRevokedText } from '@/ui/dispatches/if-revoked';
import { effectOfRevoke } from '@/server/services/access/revoke-effect';
import { grantRows } from '@/server/services/access/grant-rows';
import { stillReadable } from '@/server/services/reading/still-readable';
import { takeFile } from '@/server/services/reading/take-file';
import { takeKey } from '@/server/services/reading/take-key';
import {
  drawing,
  newPublicKey,
  protect,
  startProduct,
  whole,
  type Product,
} from '../support/product';
import {
  licenceIn,
  openOnMachine,
  openOwn,
  sendOwn,
  takeOwnKey,
  type SentOwn,
} from '../support/own-machine';
import { present } from '../support/present';

let product: Product;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

type Sent = SentOwn;

const send = (terms: Partial<DispatchInput['terms']>, form?: DispatchInput['form']) =>
  sendOwn(product, terms, form);
const open = (sent: Sent) => openOwn(product, sent);
const keys = await newBoxKeyPair();
const take = (sent: Sent, licence: LicenceId, boxKey = keys.boxKey) =>
  takeOwnKey(product, sent, licence, boxKey);

async function fileOf({ dispatch: id, document }: Sent): Promise<Uint8Array> {
  const file = await takeProtectedFile(product.deps, product.ida, { id, document });
  return whole({ pieces: file.read() });
}

const read = (taken: KeyTaken) => licenceIn(product, taken);
const openHere = (taken: KeyTaken, file: Uint8Array) =>
  openOnMachine(product, taken, keys.privateKey, file);

const entriesOf = async ({ document }: Sent) =>
  (await listEntries(product.deps.db.read, {}, 200))
    .map(({ entry }) => entry)
    .filter((entry) => entry.document === document);

describe('a protected file on the person’s own machine', () => {
  test('shows the very pages that the service would send, marked', async () => {
    const sent = await send({ conditions: { offline: 0 } });
    const licence = await open(sent);
    const own = await openHere(await take(sent, licence), await fileOf(sent));
    expect(own.pages).toBe(2);
    const { picture, points } = await own.picture({ page: 2, width: 900 });
    const page = await renderPage(product.deps, sent.reader, { licence, page: 2, width: 900 });
    if ('outcome' in page) throw new Error(page.reason);
    const { data, info } = await sharp(page.bytes)
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([picture.width, picture.height]);
    expect(points).toEqual(page.points);
    expect(Buffer.compare(data, Buffer.from(picture.rgba))).toBe(0);
    const given = (await entriesOf(sent)).filter(({ action }) => action === 'key.given');
    expect(given).toMatchObject([{ outcome: 'granted', licence, details: { offlineUntil: null } }]);
  });

  test('tells which pages it showed, which nobody else knows', async () => {
    const sent = await send({ conditions: { offline: 0 } });
    const licence = await open(sent);
    const tell = (page: number) =>
      noteReading(product.deps, sent.reader, { licence, pages: [{ page, shown: 900 }] });
    await tell(1);
    expect((await entriesOf(sent)).some(({ action }) => action === 'page.shown')).toBe(false);
    await take(sent, licence);
    for (const page of [2, 2, 3]) await tell(page);
    const shown = (await entriesOf(sent)).filter(({ action }) => action === 'page.shown');
    expect(shown.map(({ details }) => details)).toEqual([{ page: 2, told: true }]);
  });

  test('is marked alike in scripts whose fonts are not there', async () => {
    const fonts = createScriptFonts();
    const watermark = [newLayer('tiled', '田中 直美 · שירה לוי · Ida Roe · {page}')];
    const glyphs = await glyphsToCarry(watermark, 'screen', fonts);
    expect(glyphs.map(({ run }) => run)).toEqual(['田中 直美', 'שירה לוי']);
    const stamps = [fonts, carriedScripts(glyphs), carriedScripts([])].map((scripts) =>
      createMarker(scripts).stamp(watermark, 12, wholePage(800, 1_000)),
    );
    const [here, there, without] = await Promise.all(stamps);
    expect(there).toEqual(here);
    expect(without).not.toEqual(here);
  });

  const openedWith = async (rights: DispatchInput['terms']['rights']): Promise<OwnDocument> => {
    const sent = await send({ rights, conditions: { offline: 0 } });
    return openHere(await take(sent, await open(sent)), await fileOf(sent));
  };

  test('gives no text without the right to copy: words are found, not read', async () => {
    const own = await openedWith(['read']);
    expect(() => own.text(1)).toThrow(expect.objectContaining({ code: 'WITHHELD' }));
    expect(() => own.outline()).toThrow(expect.objectContaining({ code: 'WITHHELD' }));
    expect(own.find('Outline', 1).found.length).toBeGreaterThan(0);
  });

  test('gives text with it', async () => {
    const runs = (await openedWith(['read', 'copy'])).text(1);
    expect(runs.map(({ text }) => text).join(' ')).toContain('Outline');
  });

  test('shows nothing once the licence is over', async () => {
    const sent = await send({ conditions: { offline: HOUR } });
    const own = await openHere(await take(sent, await open(sent)), await fileOf(sent));
    const began = product.clock.now();
    await own.picture({ page: 1, width: 300 });
    product.clock.set(began + HOUR);
    await expect(own.picture({ page: 1, width: 300 })).rejects.toMatchObject({
      code: 'LICENCE_OVER',
    });
    product.clock.set(began);
  });
});

describe('the key', () => {
  test('is not given where the terms, or a ceiling, keep the document here', async () => {
    const here = await send({});
    await expect(take(here, await open(here))).rejects.toMatchObject({
      problem: 'not-on-own-machine',
    });
    const under = await send({ conditions: { offline: 5 * HOUR } });
    const licence = await open(under);
    const ceiling = { level: 'document', subject: under.document } as const;
    const { setAt } = await putCeiling(product.deps, product.ida, {
      ...ceiling,
      limits: { ...NO_LIMITS, offline: HOUR },
      seen: null,
    });
    const { offlineUntil } = await read(await take(under, licence));
    expect(offlineUntil).toBe(product.clock.now() + HOUR);
    await putCeiling(product.deps, product.ida, {
      ...ceiling,
      limits: { ...NO_LIMITS, offline: 'never' },
      seen: setAt,
    });
    await expect(take(under, licence)).rejects.toMatchObject({ problem: 'not-on-own-machine' });
  });

  test('is no licence to read on without asking, on a device that is not remembered', async () => {
    const sent = await send({ conditions: { offline: 5 * HOUR } });
    const visit = { ...sent, reader: { ...sent.reader, kept: false } };
    const { offlineUntil } = await read(await take(visit, await open(visit)));
    expect(offlineUntil).toBeNull();
    const found = await stillReadable(product.deps, product.ida, { document: sent.document });
    expect(found.running).toEqual([]);
  });

  test('is not given after a revocation, and that is recorded', async () => {
    const sent = await send({ conditions: { offline: 0 } });
    const licence = await open(sent);
    await revokeGrants(product.deps, product.ida, {
      grants: sent.grants.map(({ id }) => id),
    });
    const answer = await takeKey(product.deps, sent.reader, {
      licence,
      version: sent.version,
      boxKey: keys.boxKey,
    });
    expect(answer).toMatchObject({ outcome: 'refused', reason: 'revoked' });
  });

  test('is not given for another version, nor to another device', async () => {
    const [sent, other] = [
      await send({ conditions: { offline: 0 } }),
      await send({ conditions: { offline: 0 } }),
    ];
    const licence = await open(sent);
    await expect(take({ ...sent, version: other.version }, licence)).rejects.toMatchObject({
      problem: 'file-of-another-version',
    });
    await expect(take({ ...sent, reader: other.reader }, licence)).rejects.toMatchObject({
      problem: 'not-open-here',
    });
  });

  test('opens for the key of the device and the licence alone', async () => {
    const sent = await send({ conditions: { offline: 0 } });
    const taken = await take(sent, await open(sent));
    const { box } = taken;
    const { id } = await read(taken);
    await expect(unboxKey(box, (await newBoxKeyPair()).privateKey, id)).rejects.toMatchObject({
      code: 'BAD_LICENCE',
    });
    await expect(unboxKey(box, keys.privateKey, 'lic_other')).rejects.toMatchObject({
      code: 'BAD_LICENCE',
    });
    const parts = box.split('.');
    const sealed = parts[3] ?? '';
    // Another letter than stands there, whichever that is.
    const other = `${sealed.startsWith('A') ? 'B' : 'A'}${sealed.slice(1)}`;
    const altered = [...parts.slice(0, 3), other, parts[4]].join('.');
    await expect(unboxKey(altered, keys.privateKey, id)).rejects.toMatchObject({
      code: 'BAD_LICENCE',
    });
    expect((await unboxKey(box, keys.privateKey, id)).length).toBe(16);
  });

  test('opens no file of another version, nor one that was cut or altered', async () => {
    const [sent, other] = [
      await send({ conditions: { offline: 0 } }),
      await send({ conditions: { offline: 0 } }),
    ];
    const taken = await take(sent, await open(sent));
    await expect(openHere(taken, await fileOf(other))).rejects.toMatchObject({
      code: 'ANOTHER_VERSION',
    });
    const file = await fileOf(sent);
    await expect(openHere(taken, file.subarray(0, -900))).rejects.toMatchObject({
      code: 'DAMAGED',
    });
    const swapped = file.slice();
    // Where the sealed content stands: the end of the file is the table of the wrapper.
    const at = swapped.length - 2_000;
    swapped[at] = (swapped[at] ?? 0) ^ 1;
    await expect(
      openHere(taken, swapped).then((own) => own.picture({ page: 1, width: 300 })),
    ).rejects.toMatchObject({ code: 'DAMAGED' });
  });
});

describe('what was read without a connection', () => {
  const tell = (sent: Sent, told: Partial<HandInInput>, reader = sent.reader) =>
    handIn(product.deps, reader, { opens: [], kept: [], forgotten: [], ...told });
  const opensOf = async (sent: Sent) =>
    (await entriesOf(sent)).filter(({ action }) => action === 'document.opened-offline');

  test('is written down once, with when it was and when it was told, and what is missing', async () => {
    const sent = await send({ conditions: { offline: 5 * HOUR } });
    const licence = await open(sent);
    await take(sent, licence);
    const began = product.clock.now();
    product.clock.set(began + 4 * HOUR);
    const first = {
      licence,
      number: 1,
      openedAt: began + HOUR,
      pages: [[2, 700]] as [number, number][],
    };
    await Promise.all([tell(sent, { opens: [first] }), tell(sent, { opens: [first, first] })]);
    await tell(sent, { opens: [{ ...first, number: 4, openedAt: began + 2 * HOUR }] });
    // In the future, and before the key was there: neither can be.
    await tell(sent, { opens: [{ ...first, number: 5, openedAt: began + 50 * HOUR }] });
    await tell(sent, { opens: [{ ...first, number: 6, openedAt: 0 }] });
    const written = (await opensOf(sent)).toReversed();
    expect(written.map(({ details }) => details)).toEqual([
      { number: 1, pages: 1 },
      { number: 4, pages: 1, missing: 2 },
      { number: 5, pages: 1 },
      { number: 6, pages: 1 },
    ]);
    expect(written.map(({ occurredAt }) => Date.parse(occurredAt) - began)).toEqual([
      HOUR,
      2 * HOUR,
      4 * HOUR,
      0,
    ]);
    expect(written.every(({ receivedAt }) => Date.parse(receivedAt) === began + 4 * HOUR)).toBe(
      true,
    );
    product.clock.set(began);
  });

  test('is not taken for what somebody else opened, or where no key was given', async () => {
    const [sent, other] = [
      await send({ conditions: { offline: HOUR } }),
      await send({ conditions: { offline: HOUR } }),
    ];
    const licence = await open(sent);
    const opens = [{ licence, number: 1, openedAt: 0, pages: [] }];
    await tell(sent, { opens });
    await take(sent, licence);
    expect(await tell(other, { opens })).toMatchObject({ taken: 0 });
    expect(await opensOf(sent)).toEqual([]);
    expect(await tell(other, { kept: [licence] })).toMatchObject({
      over: [{ licence, reason: 'not-addressed' }],
    });
  });

  test('ends with what ended meanwhile, once the device is there again', async () => {
    const sent = await send({ conditions: { offline: 5 * HOUR } });
    const licence = await open(sent);
    await take(sent, licence);
    expect(await tell(sent, { kept: [licence] })).toMatchObject({ over: [] });
    await revokeGrants(product.deps, product.ida, { grants: sent.grants.map(({ id }) => id) });
    expect(await tell(sent, { kept: [licence] })).toMatchObject({
      over: [{ licence, reason: 'revoked' }],
    });
    const until = async () =>
      (await findLicence(product.deps.db.read, licence))?.licence.offlineUntil;
    expect(await until()).not.toBeNull();
    await tell(sent, { forgotten: [licence] });
    expect(await until()).toBeNull();
  });
});

describe('the file once more, for whoever reads by the link', () => {
  const takeIt = (sent: Sent, licence: LicenceId, reader = sent.reader) =>
    takeFile(product.deps, reader, { licence });

  test('is the one that was mailed: it opens on their machine, and that is recorded', async () => {
    const sent = await send({ conditions: { offline: 0 } }, 'both');
    const licence = await open(sent);
    const taken = await takeIt(sent, licence);
    if (taken.outcome === 'refused') throw new Error(taken.reason);
    const file = await whole({ pieces: taken.read() });
    expect(file.length).toBe(taken.bytes);
    expect((await openHere(await take(sent, licence), file)).pages).toBe(2);
    const entries = await entriesOf(sent);
    expect(entries.filter(({ action }) => action === 'file.taken')).toMatchObject([
      { outcome: 'done', licence, actor: { kind: 'recipient' }, details: { bytes: file.length } },
    ]);
  });

  test('is not to be had where none went out, or where it opens nowhere', async () => {
    const linked = await send({ conditions: { offline: 0 } }, 'link');
    const hosted = await send({}, 'both');
    for (const sent of [linked, hosted])
      await expect(takeIt(sent, await open(sent))).rejects.toMatchObject({
        problem: 'not-on-own-machine',
      });
  });

  test('is not to be had on another device, nor after a revocation', async () => {
    const sent = await send({ conditions: { offline: 0 } }, 'both');
    const other = await send({ conditions: { offline: 0 } }, 'both');
    const licence = await open(sent);
    await expect(takeIt(sent, licence, other.reader)).rejects.toMatchObject({
      problem: 'not-open-here',
    });
    await revokeGrants(product.deps, product.ida, { grants: sent.grants.map(({ id }) => id) });
    expect(await takeIt(sent, licence)).toMatchObject({ outcome: 'refused', reason: 'revoked' });
  });
});

describe('who could still read', () => {
  const told = (sent: Sent) =>
    stillReadable(product.deps, product.ida, { document: sent.document });
  /** As the line of the only recipient draws it. */
  const tail = async (sent: Sent, actor = product.ida) =>
    (await grantRows(product.deps, actor, { document: sent.document }))[0]?.offline;

  test('is told from the licences that run, until each ends or its device forgot it', async () => {
    const sent = await send({ conditions: { offline: 3 * HOUR } });
    const licence = await open(sent);
    expect(await told(sent)).toMatchObject({ running: [], held: [] });
    await take(sent, licence);
    const now = product.clock.now();
    await revokeGrants(product.deps, product.ida, { grants: sent.grants.map(({ id }) => id) });
    const after = await told(sent);
    expect(after.running).toMatchObject([{ document: sent.document, until: now + 3 * HOUR }]);
    expect(after.curve.map(({ readable }) => readable)).toEqual([1, 1, 1, 0]);
    expect(await tail(sent)).toEqual({ from: now, until: now + 3 * HOUR });
    await handIn(product.deps, sent.reader, {
      opens: [],
      kept: [],
      forgotten: [licence],
    });
    const closed = await told(sent);
    expect(closed.running).toEqual([]);
    expect(await tail(sent)).toBeNull();
    // Whatever the device says, it has held the key.
    expect(closed.held).toHaveLength(1);
  });

  test('is told before a revocation, which shuts nobody out at once who reads on', async () => {
    const sent = await send({ conditions: { offline: 3 * HOUR } });
    const cuts = sent.grants.map(({ id, recipientId }) => ({
      id,
      recipientId,
      documentId: sent.document,
    }));
    const effect = () => effectOfRevoke(product.deps, product.ida, cuts);
    const licence = await open(sent);
    const before = await effect();
    expect(before).toMatchObject({ readsOn: [], shutOut: [expect.stringContaining('vane')] });
    expect(ifRevokedText(before)).toBe('If revoked: 1 person shut out at once.');
    await take(sent, licence);
    const held = await effect();
    expect(held).toMatchObject({
      shutOut: [],
      readsOn: [{ name: before.shutOut[0], until: product.clock.now() + 3 * HOUR }],
    });
    expect(ifRevokedText(held)).toBe(
      'If revoked: 1 person reads on for a while on their own machine.',
    );
  });

  test('is told before a document is revoked, a person is shut out, or a ceiling ends or shortens access', async () => {
    const sent = await send({ conditions: { offline: 3 * HOUR } });
    const began = product.clock.now();
    product.clock.set(began + DAY - 2 * HOUR);
    await take(sent, await open(sent));
    const until = product.clock.now() + 3 * HOUR;
    const name = sent.reader.address;
    const ofDocument = () => viewDocument(product.deps, product.ida, { id: sent.document });
    expect((await ofDocument()).readsOn).toEqual([{ name, until }]);
    const id = present(sent.grants[0]).recipientId;
    expect(await viewPerson(product.deps, product.ida, { id })).toMatchObject({ readsOn: until });
    const sender = { ...product.ida, role: 'sender' as const };
    expect(await viewPerson(product.deps, sender, { id })).toMatchObject({ readsOn: null });
    const lasting = async (days: number) =>
      previewCeiling(product.deps, product.ida, {
        level: 'document',
        subject: sent.document,
        limits: { ...NO_LIMITS, days },
        seen: null,
      });
    const [shorter, long] = [await lasting(1), await lasting(2)];
    expect(shorter).toMatchObject({ endSooner: { people: 1 }, readsOn: { people: 1, until } });
    expect(long).toMatchObject({ endSooner: { people: 1 }, readsOn: null });
    product.clock.set(began + DAY);
    const ended = await lasting(1);
    expect(ended).toMatchObject({ endNow: { people: 1 }, readsOn: { people: 1, until } });
    expect(ended.rows).toMatchObject([{ ends: true, readsOn: until }]);
    product.clock.set(until);
    expect((await ofDocument()).readsOn).toEqual([]);
    expect(await viewPerson(product.deps, product.ida, { id })).toMatchObject({ readsOn: null });
    product.clock.set(began);
  });

  test('is told of whoever came by a domain as well, where a ceiling ends what the domain has', async () => {
    const document = await protect(product, await drawing(2));
    const { id } = await dispatchDocuments(product.deps, product.ida, {
      documents: [document],
      recipients: [],
      domains: [{ domain: '@float.example' }],
      terms: {
        rights: ['read'],
        from: null,
        until: null,
        prints: null,
        conditions: { offline: HOUR },
      },
      subject: 'For the float',
      note: '',
      watermark: [],
      delivery: 'by-hand',
      form: 'both',
    });
    const [grant] = await grantRows(product.deps, product.ida, { dispatch: id });
    const token = present(grant).link.split('/').at(-1) ?? '';
    const { version } = present(await findDocument(product.deps.db.read, document));
    const began = product.clock.now();
    const late = began + DAY - HOUR / 2;
    product.clock.set(late);
    for (const address of ['ada@float.example', 'bo@float.example']) {
      const known = { address, recipient: null, agent: 'test', kept: true };
      const publicKey = await newPublicKey();
      const { device } = await product.deps.db.write((tx) =>
        makeDevice(product.deps, tx, { ...known, publicKey }, late),
      );
      const from = { network: '203.0.113.77', agent: 'test' };
      const passkeyAt = null;
      const reader = { kind: 'reader' as const, ...known, device, provenAt: late, passkeyAt, from };
      const opened = await openDocument(product.deps, reader, { token, document });
      if (opened.outcome === 'refused') throw new Error(opened.reason);
      const asked = { licence: opened.licence, version: version.id, boxKey: keys.boxKey };
      expect(await takeKey(product.deps, reader, asked)).toMatchObject({ outcome: 'granted' });
    }
    const impact = await previewCeiling(product.deps, product.ida, {
      level: 'document',
      subject: document,
      limits: { ...NO_LIMITS, days: 1 },
      seen: null,
    });
    expect(impact).toMatchObject({
      endSooner: { unknown: true },
      readsOn: { people: 2, until: late + HOUR },
    });
    product.clock.set(began);
  });

  test('closes by itself as time goes, and tells nothing of what only the service draws', async () => {
    const [sent, hosted] = [
      await send({ conditions: { offline: 2 * HOUR } }),
      await send({ conditions: { offline: 0 } }),
    ];
    for (const each of [sent, hosted]) await take(each, await open(each));
    const began = product.clock.now();
    expect((await told(hosted)).running).toEqual([]);
    product.clock.set(began + 2 * HOUR);
    expect((await told(sent)).running).toEqual([]);
    product.clock.set(began);
    expect((await told(sent)).running).toHaveLength(1);
  });

  test('is told to those who may read the record of it alone', async () => {
    const sent = await send({ conditions: { offline: HOUR } });
    await take(sent, await open(sent));
    const colleague = {
      ...product.ida,
      id: newId('staff', product.deps.random),
      role: 'sender' as const,
    };
    expect(await stillReadable(product.deps, colleague, { document: sent.document })).toEqual({
      running: [],
      curve: [{ at: product.clock.now(), readable: 0 }],
      held: [],
    });
    expect(await tail(sent, colleague)).toBeNull();
    expect(await tail(sent)).not.toBeNull();
  });
});
