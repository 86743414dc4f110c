// What is open on the person's own machine is printed and kept there: decided, counted and written
// down by the service, and made there under what it signed.
import { PDFDocument } from '@cantoo/pdf-lib';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { HOUR } from '@/core/base/time';
import type { LicenceId } from '@/core/base/ids';
import { newBoxKeyPair } from '@/core/licence/key-box';
import { readPermit } from '@/core/licence/permit';
import type { OwnDocument } from '@/core/own-machine/own-document';
import { carriedScripts } from '@/core/watermark/carried-glyphs';
import { createMarker } from '@/core/watermark/marker';
import type { DispatchInput } from '@/contracts/dispatch';
import type { KeyTaken, PermitGiven } from '@/contracts/own-machine';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { permitKeep, permitPrint } from '@/server/services/reading/own-copies';
import { paperRegister } from '@/server/services/reading/paper-register';
import {
  issuerOf,
  openOnMachine,
  openOwn,
  sendOwn,
  takeOwnKey,
  type SentOwn,
} from '../support/own-machine';
import { startProduct, whole, type Product } from '../support/product';

const keys = await newBoxKeyPair();
let product: Product;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

type Open = SentOwn & { readonly licence: LicenceId; readonly taken: KeyTaken };

async function openWith(terms: Partial<DispatchInput['terms']>): Promise<Open> {
  const sent = await sendOwn(product, { conditions: { offline: HOUR }, ...terms });
  const licence = await openOwn(product, sent);
  return { ...sent, licence, taken: await takeOwnKey(product, sent, licence, keys.boxKey) };
}

async function documentOf({ taken, dispatch, document }: Open): Promise<OwnDocument> {
  const packed = await takeProtectedFile(product.deps, product.ida, { id: dispatch, document });
  const file = await whole({ pieces: packed.read() });
  return openOnMachine(product, taken, keys.privateKey, file);
}

const print = ({ reader, licence }: Open, from = 1, to = 2) =>
  permitPrint(product.deps, reader, { licence, from, to });

const given = (answer: Awaited<ReturnType<typeof print>>): PermitGiven => {
  if (answer.outcome === 'refused') throw new Error(answer.reason);
  return answer;
};

const permitIn = ({ taken, licence }: Open, { permit }: PermitGiven) =>
  readPermit(permit, issuerOf(taken), licence, product.clock.now());

const entriesOf = async ({ document }: Open, action: string) =>
  (await listEntries(product.deps.db.read, {}, 200))
    .map(({ entry }) => entry)
    .filter((entry) => entry.document === document && entry.action === action);

test('a print is counted and registered before it is made, and bears its number', async () => {
  const open = await openWith({ rights: ['read', 'print'], prints: 1 });
  const asked = await Promise.all(Array.from({ length: 20 }, () => print(open, 2, 2)));
  const granted = asked.filter(({ outcome }) => outcome === 'granted');
  expect(granted).toHaveLength(1);
  expect(
    asked.filter((each) => each.outcome === 'refused' && each.reason === 'prints-used-up'),
  ).toHaveLength(19);
  const { copies } = await paperRegister(product.deps, product.ida, { id: open.document });
  expect(copies).toMatchObject([{ number: 1, from: 2, to: 2 }]);
  const written = await entriesOf(open, 'document.printed');
  expect(written.filter(({ outcome }) => outcome === 'granted')).toMatchObject([
    { details: { from: 2, to: 2, copy: 1, here: true } },
  ]);
  const [answer] = granted;
  if (answer?.outcome !== 'granted') throw new Error('none');
  const permit = await permitIn(open, answer);
  expect(JSON.stringify(permit.watermark)).toContain('1');
  const marker = createMarker(carriedScripts(answer.glyphs));
  const document = await documentOf(open);
  const { picture, points } = await document.sheet(permit, 2, marker);
  const bare = { ...permit, watermark: [] };
  expect(picture.rgba).not.toEqual((await document.sheet(bare, 2, marker)).picture.rgba);
  expect(points).toEqual((await document.picture({ page: 2, width: 200 })).points);
  // Another page than was counted has no way out, and neither has the file itself.
  await expect(document.sheet(permit, 1, marker)).rejects.toMatchObject({ code: 'WITHHELD' });
  expect(() => document.plain(permit)).toThrow(expect.objectContaining({ code: 'WITHHELD' }));
});

test('a copy in the clear is the very file, and no print comes of its permit', async () => {
  const open = await openWith({ rights: ['read', 'copy', 'print', 'keep'] });
  const answer = given(await permitKeep(product.deps, open.reader, { licence: open.licence }));
  expect(answer.name).toMatch(/\.pdf$/);
  expect(await entriesOf(open, 'document.kept')).toMatchObject([
    { outcome: 'granted', details: { here: true } },
  ]);
  const permit = await permitIn(open, answer);
  const document = await documentOf(open);
  const plain = document.plain(permit);
  const pdf = await PDFDocument.load(plain.read(0, plain.size));
  expect(pdf.getPageCount()).toBe(2);
  const marker = createMarker(carriedScripts(answer.glyphs));
  await expect(document.sheet(permit, 1, marker)).rejects.toMatchObject({ code: 'WITHHELD' });
});

test('neither is permitted without the right, and that is recorded', async () => {
  const open = await openWith({ rights: ['read'] });
  expect(await print(open)).toMatchObject({ outcome: 'refused', reason: 'not-given' });
  expect(await permitKeep(product.deps, open.reader, { licence: open.licence })).toMatchObject({
    outcome: 'refused',
    reason: 'not-given',
  });
  for (const action of ['document.printed', 'document.kept'])
    expect(await entriesOf(open, action)).toMatchObject([{ outcome: 'refused' }]);
});

test('neither is permitted after a revocation, nor for an open whose key never left', async () => {
  const open = await openWith({ rights: ['read', 'copy', 'print', 'keep'] });
  const sent = await sendOwn(product, { rights: ['read', 'print'], conditions: { offline: HOUR } });
  const keyless = await openOwn(product, sent);
  await expect(
    permitPrint(product.deps, sent.reader, { licence: keyless, from: 1, to: 1 }),
  ).rejects.toMatchObject({ problem: 'not-on-own-machine' });
  await expect(print({ ...open, reader: sent.reader })).rejects.toMatchObject({
    problem: 'not-open-here',
  });
  await revokeGrants(product.deps, product.ida, { grants: open.grants.map(({ id }) => id) });
  expect(await print(open)).toMatchObject({ outcome: 'refused', reason: 'revoked' });
});

test('pages that are not there cost no print', async () => {
  const open = await openWith({ rights: ['read', 'print'], prints: 1 });
  await expect(print(open, 1, 3)).rejects.toMatchObject({ problem: 'no-such-pages' });
  await expect(print(open, 2, 1)).rejects.toMatchObject({ problem: 'no-such-pages' });
  expect(await print(open)).toMatchObject({ outcome: 'granted' });
});
