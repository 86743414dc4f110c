// A document that is encrypted on its sender's machine: what of it comes here, what it is good for,
// and that nothing else is to be had of it.
import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { generateX25519Identity, identityToRecipient } from 'age-encryption';
import { base64 } from '@scure/base';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { PAYLOAD_NONCE, payloadKey } from '@/core/age/chunks';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import { sealStream } from '@/core/age/stream';
import { HOUR } from '@/core/base/time';
import { newBoxKeyPair, unboxKey } from '@/core/licence/key-box';
import { readOwnLicence } from '@/core/licence/own-licence';
import { openOwnDocument } from '@/core/own-machine/own-document';
import { createMarker } from '@/core/watermark/marker';
import { ownScriptsOnly } from '@/core/watermark/shape';
import { NO_LIMITS } from '@/core/policy/ceiling';
import type { DocumentId, UploadId } from '@/core/base/ids';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { changeRecoveryKey } from '@/server/services/keys/manage-keys';
import { checkContents } from '@/server/services/documents/check-contents';
import {
  beginLocal,
  coverForLocal,
  protectLocal,
} from '@/server/services/documents/local-document';
import { cancelUpload } from '@/server/services/documents/protect-document';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { receivePart } from '@/server/services/documents/receive-part';
import { openDocument } from '@/server/services/reading/open-document';
import { renderPage } from '@/server/services/reading/read-pages';
import { keepDocument } from '@/server/services/reading/take-copies';
import { takeKey } from '@/server/services/reading/take-key';
import { makeComment, readComments } from '@/server/services/comments/recipient-comments';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import {
  dispatch,
  drawing,
  inPieces,
  isOnDisk,
  prove,
  startProduct,
  type Product,
} from '../support/product';

const cipher = await sodiumChunkCipher();
const pdfium = await loadInstalledPdfium();
let product: Product;
let identity: string;
let number = 0;

beforeAll(async () => {
  product = await startProduct();
  identity = await generateX25519Identity();
  await changeRecoveryKey(product.deps, product.ida, {
    recoveryKey: await identityToRecipient(identity),
  });
});
afterAll(async () => {
  await product.close();
});

/** What the browser does: takes the key, seals the file itself, and puts the cover around it. */
async function encryptHere(
  plain: Uint8Array,
  reference: string,
): Promise<{ id: DocumentId; file: Buffer }> {
  const { deps, ida } = product;
  const { boxKey, privateKey } = await newBoxKeyPair();
  const begun = await beginLocal(deps, ida, { fileName: 'Plan.pdf', bytes: plain.length, boxKey });
  const fileKey = await unboxKey(begun.box, privateKey, begun.version);
  const nonce = new Uint8Array(randomBytes(PAYLOAD_NONCE));
  const sealed: Uint8Array[] = [];
  for await (const piece of sealStream(cipher(payloadKey(fileKey, nonce)), inPieces(plain)))
    sealed.push(piece);
  const { head, tail } = await coverForLocal(deps, ida, { id: begun.id, reference });
  const file = Buffer.concat([
    base64.decode(head),
    base64.decode(begun.header),
    nonce,
    ...sealed,
    base64.decode(tail),
  ]);
  const { id } = await protectLocal(deps, ida, {
    id: begun.id,
    title: 'Plan',
    reference,
    mediaType: 'application/pdf',
    pages: 2,
  });
  return { id, file };
}

const secret = randomBytes(32);
async function secretPdf(): Promise<Uint8Array> {
  return new Uint8Array(Buffer.concat([await drawing(2), Buffer.from('\n%'), secret]));
}

async function made(conditions = { offline: 0 }) {
  const { id, file } = await encryptHere(await secretPdf(), `LOC-${String(++number)}`);
  const address = `nora.${String(number)}@brackwater.example`;
  const sent = await dispatch(product, [id], [address], {
    rights: ['read', 'comment', 'copy', 'print', 'keep'],
    conditions,
  });
  const token = sent.tokenOf(address);
  const reader = await prove(product, token, address);
  return { id, file, sent, token, reader };
}

describe('a document that was encrypted on its sender’s machine', () => {
  test('opens on the reader’s machine, and is nowhere on the disk of the service', async () => {
    const { id, file, token, reader } = await made();
    const opened = await openDocument(product.deps, reader, { token, document: id });
    if (opened.outcome === 'refused') throw new Error(opened.reason);
    expect(opened).toMatchObject({ isLocal: true, pages: 2, offline: 0 });
    const { boxKey, privateKey } = await newBoxKeyPair();
    const taken = await takeKey(product.deps, reader, {
      licence: opened.licence,
      version: opened.version,
      boxKey,
    });
    if (taken.outcome === 'refused') throw new Error(taken.reason);
    const licence = await readOwnLicence(
      taken.statement,
      Buffer.from(taken.issuer.publicKey, 'base64url'),
      taken.issuer.name,
      taken.now,
    );
    const own = await openOwnDocument(
      { size: file.length, readAt: (at, length) => new Uint8Array(file.subarray(at, at + length)) },
      {
        licence,
        fileKey: await unboxKey(taken.box, privateKey, licence.id),
        cipher,
        pdfium,
        marker: createMarker(ownScriptsOnly),
        now: () => product.clock.now(),
      },
    );
    expect(own.pages).toBe(2);
    expect((await own.picture({ page: 1, width: 300 })).picture.width).toBe(300);
    expect(isOnDisk(product.folder, secret)).toBe(false);
    expect(
      isOnDisk(product.folder, new Uint8Array(file.subarray(-900_000, -4_000).subarray(0, 64))),
    ).toBe(false);
  });

  test('opens with the standard tools and the recovery key', async () => {
    const { file } = await made();
    const folder = mkdtempSync(path.join(tmpdir(), 'embargo-local-'));
    const at = (name: string): string => path.join(folder, name);
    writeFileSync(at('file.pdf'), file);
    writeFileSync(at('key.txt'), `${identity}\n`);
    expect(execFileSync('qpdf', ['--check', at('file.pdf')], { encoding: 'utf8' })).toContain(
      'No syntax',
    );
    execFileSync('pdfdetach', ['-save', '1', '-o', at('x.age'), at('file.pdf')]);
    const plain = execFileSync('age', ['-d', '-i', at('key.txt'), at('x.age')]);
    expect(plain.includes(secret)).toBe(true);
  });

  test('has comments, and passes every check of what is stored', async () => {
    const { id, token, reader } = await made();
    const opened = await openDocument(product.deps, reader, { token, document: id });
    if (opened.outcome === 'refused') throw new Error(opened.reason);
    const { licence } = opened;
    await makeComment(product.deps, reader, {
      licence,
      page: 1,
      place: { kind: 'point', left: 100, top: 100 },
      text: 'Is this so?',
      answers: null,
    });
    expect(JSON.stringify(await readComments(product.deps, reader, { licence }))).toContain(
      'Is this so?',
    );
    expect((await checkContents(product.deps, null, () => undefined)).damaged).toEqual([]);
  });

  test('is not drawn, kept, carried or sent in parts by the service', async () => {
    const { id, token, reader, sent } = await made();
    const opened = await openDocument(product.deps, reader, { token, document: id });
    if (opened.outcome === 'refused') throw new Error(opened.reason);
    const { licence } = opened;
    const elsewhere = { problem: 'content-elsewhere' };
    await expect(
      renderPage(product.deps, reader, { licence, page: 1, width: 300 }),
    ).rejects.toMatchObject(elsewhere);
    await expect(keepDocument(product.deps, reader, { licence })).rejects.toMatchObject(elsewhere);
    await expect(
      takeProtectedFile(product.deps, product.ida, { id: sent.id, document: id }),
    ).rejects.toMatchObject({
      problem: expect.stringMatching(/content-elsewhere|not-sent/) as string,
    });
    const { boxKey } = await newBoxKeyPair();
    const begun = await beginLocal(product.deps, product.ida, {
      fileName: 'a.pdf',
      bytes: 10,
      boxKey,
    });
    await expect(
      receivePart(
        product.deps,
        product.ida,
        { id: begun.id, offset: 0 },
        inPieces(new Uint8Array(10)),
      ),
    ).rejects.toMatchObject(elsewhere);
  });

  test('becomes one document, however often at once that is asked, or none where it is cancelled', async () => {
    const { deps, ida } = product;
    const { boxKey } = await newBoxKeyPair();
    const begin = () => beginLocal(deps, ida, { fileName: 'Once.pdf', bytes: 10, boxKey });
    const finish = (id: UploadId, reference: string) =>
      protectLocal(deps, ida, {
        id,
        title: 'Once',
        reference,
        mediaType: 'application/pdf',
        pages: 1,
      });
    const { id } = await begin();
    const tried = await Promise.allSettled(
      Array.from({ length: 20 }, (_, i) => finish(id, `LOC-ONCE-${String(i)}`)),
    );
    expect(tried.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const other = await begin();
    await Promise.allSettled([
      finish(other.id, 'LOC-CANCELLED'),
      cancelUpload(deps, ida, { id: other.id }),
    ]);
    expect((await checkContents(deps, null, () => undefined)).damaged).toEqual([]);
  });

  test('is sent only where it can be read: to people’s own machines, its file by hand', async () => {
    const { id } = await encryptHere(await drawing(1), 'LOC-NOT');
    await expect(dispatch(product, [id], ['a@yard.example'])).rejects.toMatchObject({
      problem: 'local-needs-own-machine',
    });
    const { id: other, token, reader } = await made({ offline: HOUR });
    await putCeiling(product.deps, product.ida, {
      level: 'document',
      subject: other,
      limits: { ...NO_LIMITS, offline: 'never' },
      seen: null,
    });
    const opened = await openDocument(product.deps, reader, { token, document: other });
    expect(opened).toMatchObject({ outcome: 'granted', offline: null });
  });
});
