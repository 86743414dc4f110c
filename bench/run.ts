// `npm run bench`: each figure against its limit in the same run. SIZE_MB sets the size of the file (1024 at first).
import { createCipheriv, randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdtemp, open, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { newFileKey, embargoStanza } from '@/core/age/recipients';
import { sealStream } from '@/core/age/stream';
import type { Happening } from '@/core/ledger/entry';
import { createCalendar } from '@/server/clock/calendar';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { LedgerInput } from '@/contracts/ledger';
import { recipients } from '@/server/db/schema';
import type { Deps, StaffActor } from '@/server/services/deps';
import { exportLedger, listLedger } from '@/server/services/list-entries';
import { openDatabase } from '@/server/db/database';
import { loadPdfium } from '@/server/rendering/pdfium';
import { openPdf } from '@/server/rendering/pdf-document';
import { createRenderPool } from '@/server/rendering/render-pool';
import { appendEntries, type Recorder } from '@/server/repositories/ledger-writer';
import { verifyLedger } from '@/server/services/verify-ledger';
import { createDiskBlobStore } from '@/server/storage/disk-blob-store';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { nodeHash } from '@/server/vault/node-hash';
import { newSigningKey, signerOf } from '@/server/vault/vault';
import sharp from 'sharp';
import { drawPaper } from '../demo/drawings';
import { buildWorkers } from '../scripts/build-workers';

const folder = await mkdtemp(path.join(tmpdir(), 'embargo-bench-'));
const mebibytes = Number(process.env['SIZE_MB'] ?? 1024);
const seconds = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
};
const median = (values: number[]): number => values.sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
const say = (name: string, figure: string, limit: string): void => { console.log(`${name.padEnd(46)} ${figure.padEnd(38)} wanted: ${limit}`); };

async function encrypting(): Promise<void> {
  const plain = path.join(folder, 'plain');
  const file = await open(plain, 'w');
  const block = randomBytes(1 << 20);
  for (let i = 0; i < mebibytes; i++) await file.write(block);
  await file.sync();
  await file.close();

  const bare = async (): Promise<void> => {
    const cipher = createCipheriv('chacha20-poly1305', randomBytes(32), randomBytes(12), { authTagLength: 16 });
    const out = await open(path.join(folder, 'bare'), 'w');
    for await (const bytes of createReadStream(plain, { highWaterMark: 1 << 20 })) await out.write(cipher.update(bytes as Buffer));
    await out.close();
  };
  const blobs = createDiskBlobStore(folder);
  let peak = 0;
  const idle = process.memoryUsage().rss;
  const ours = async (): Promise<void> => {
    const { fileKey, stanzas } = await newFileKey([]);
    const header = encodeHeader([embargoStanza('ver_00000000000000000001', 'https://embargo.example'), ...stanzas], fileKey);
    const nonce = randomBytes(PAYLOAD_NONCE);
    const sealed = async function* (): AsyncGenerator<Uint8Array> {
      yield header;
      yield nonce;
      yield* sealStream(nodeChunkCipher(payloadKey(fileKey, nonce)), createReadStream(plain, { highWaterMark: 1 << 18 }));
    };
    const watch = setInterval(() => { peak = Math.max(peak, process.memoryUsage().rss); }, 5);
    await blobs.writeAt('bench', 0, sealed());
    clearInterval(watch);
    await blobs.finish('bench', header.length + PAYLOAD_NONCE + sealedSize((await stat(plain)).size));
  };
  await bare();
  const [limit, taken] = [await seconds(bare), await seconds(ours)];
  say(`encrypt and store ${String(mebibytes)} MiB`, `${(mebibytes / taken).toFixed(0)} MiB/s = ${(limit / taken).toFixed(2)} of node:crypto, +${((peak - idle) / 2 ** 20).toFixed(0)} MiB`, '0.60, 150 MiB');
}

async function firstPage(): Promise<void> {
  const pages = 300;
  const bytes = await drawPaper({ reference: 'BENCH', title: 'Specification', kind: 'text', pages });
  const key = new Uint8Array(randomBytes(32));
  const cipher = nodeChunkCipher(key);
  const source = { path: path.join(folder, 'page.age'), start: 0, sealedBytes: sealedSize(bytes.length), key };
  const out = await open(source.path, 'w');
  for await (const sealed of sealStream(cipher, (async function* () { yield await Promise.resolve(bytes); })())) await out.write(sealed);
  await out.close();

  const pdfium = await loadPdfium();
  const bare: number[] = [];
  const ours: number[] = [];
  const pool = createRenderPool('build/workers', 1);
  await pool.run({ kind: 'inspect', source });
  for (let i = 0; i < 40; i++) {
    const plainReader = { size: bytes.length, opened: () => 0, read: (at: number, length: number) => bytes.subarray(at, Math.min(bytes.length, at + length)) };
    bare.push(await seconds(async () => {
      const pdf = openPdf(pdfium, plainReader);
      const picture = pdf.draw(1, 1275);
      await sharp(picture.rgba, { raw: { width: picture.width, height: picture.height, channels: 4 } }).png({ compressionLevel: 1 }).toBuffer();
      pdf.close();
    }));
    // A fresh watermark each time, as a fresh licence has; the document is opened anew because the worker let it go.
    await pool.run({ kind: 'inspect', source });
    ours.push(await seconds(() => pool.run({ kind: 'page', source, page: 1, width: 1275, watermark: `mira.kolbe@brackwater.example · 25 Nov 2026 13:${String(i)} CET · 203.0.113.24 · REF-1` })));
  }
  await pool.close();
  say(`first page of ${String(pages)}, decrypted, marked`, `${(median(ours) * 1000).toFixed(0)} ms = ${(median(ours) / median(bare)).toFixed(2)} × bare render and encode`, 'at most 1.50');
}

async function ledger(): Promise<void> {
  const db = await openDatabase(`file:${path.join(folder, 'ledger.db')}`);
  const { privateKey, publicKey } = newSigningKey();
  const recorder: Recorder = { hash: nodeHash, random: (length) => new Uint8Array(randomBytes(length)), signer: signerOf(privateKey, publicKey), origin: 'embargo-ledger', dayOf: createCalendar('UTC').dayOf };
  const entry: Happening = { action: 'page.shown', outcome: 'granted', actor: { kind: 'recipient', id: 'rcp_00000000000000000001' }, occurredAt: 1_790_000_000_000, document: 'doc_00000000000000000001', recipient: 'rcp_00000000000000000001', licence: 'lic_00000000000000000001', details: { page: 1 } };
  const single = 4_000;
  const one = await seconds(() => Promise.all(Array.from({ length: single }, () => db.write((tx) => appendEntries(tx, recorder, [entry])))));
  say('ledger: append, an entry a write, queued', `${(single / one).toFixed(0)} entries/s`, '2000');
  const many = 100_000;
  const batched = await seconds(async () => { for (let i = 0; i < many; i += 1000) await db.write((tx) => appendEntries(tx, recorder, Array.from({ length: 1000 }, () => entry))); });
  say('ledger: append, a thousand a write', `${(many / batched).toFixed(0)} entries/s`, '');
  let found = 0;
  const taken = await seconds(async () => { found = (await verifyLedger(db.read, publicKey)).entries; });
  say('ledger: verify from the database', `${(found / taken).toFixed(0)} entries/s (${String(found)})`, '100000');
  await db.close();
}

/** A ledger of a year: people, documents and places in the proportions of a busy office. */
async function ledgerScreen(): Promise<void> {
  const many = Number(process.env['ENTRIES'] ?? 1_000_000);
  const db = await openDatabase(`file:${path.join(folder, 'screen.db')}`);
  const { privateKey, publicKey } = newSigningKey();
  const recorder: Recorder = { hash: nodeHash, random: (length) => new Uint8Array(randomBytes(length)), signer: signerOf(privateKey, publicKey), origin: 'embargo-ledger', dayOf: createCalendar('Europe/Oslo').dayOf };
  const id = (kind: string, n: number): string => `${kind}_${String(n).padStart(20, '0')}`;
  const people = Array.from({ length: 600 }, (_, n) => ({ id: id('rcp', n) as RecipientId, address: `person${String(n)}@org${String(n % 40)}.example`, name: `Person ${String(n)}`, organisation: `Organisation ${String(n % 40)}`, createdAt: 0 }));
  await db.write((tx) => tx.insert(recipients).values(people));
  const start = Date.UTC(2026, 0, 1);
  const happening = (n: number): Happening => {
    // Eight entries an open: the open, the key, six pages; every eleventh open is refused and leaves one.
    const [session, step] = [Math.floor(n / 8), n % 8];
    const person = people[(session * 7) % people.length] ?? people[0];
    const recipient = person?.id ?? 'rcp_';
    const refused = session % 11 === 0;
    const action = step === 0 || refused ? 'document.opened' : step === 1 ? 'key.unwrapped' : 'page.shown';
    return {
      action, outcome: refused ? 'refused' : action === 'key.unwrapped' ? 'done' : 'granted', ...(refused ? { reason: n % 2 === 0 ? 'revoked' : 'expired' } : {}), actor: { kind: 'recipient', id: recipient },
      occurredAt: start + Math.floor((n / many) * 330 * 86_400_000), document: id('doc', (session * 13) % 300) as DocumentId, recipient,
      ...(action === 'document.opened' ? { personal: { network: '203.0.113.24', place: `Place ${String((session * 7) % 25)}, within about 50 km` } } : {}),
    };
  };
  const filling = await seconds(async () => { for (let from = 0; from < many; from += 2000) await db.write((tx) => appendEntries(tx, recorder, Array.from({ length: 2000 }, (_, i) => happening(from + i)))); });
  say(`ledger of ${many.toLocaleString('en-GB')}: append, with counts`, `${(many / filling).toFixed(0)} entries/s`, '2000');
  const deps = { db, clock: { now: () => start }, recorder } as unknown as Deps;
  const actor = { kind: 'staff', id: 'stf_1' } as unknown as StaffActor;
  const filters: readonly (readonly [string, LedgerInput])[] = [['none', {}], ['refused', { kind: 'refused' }], ['one person', { recipient: id('rcp', 5) }], ['one organisation', { organisation: 'Organisation 7' }], ['one place', { place: 'Place 3' }], ['a week, refused, one reason', { kind: 'refused', reason: 'expired', from: '2026-05-04', to: '2026-05-10' }]];
  for (const [name, input] of filters) {
    const times: number[] = [];
    for (let i = 0; i < 5; i++) times.push(await seconds(() => listLedger(deps, input)));
    say(`ledger screen: ${name}`, `${(median(times) * 1000).toFixed(0)} ms`, 'under 100 ms');
  }
  let lines = 0;
  const before = process.memoryUsage().rss;
  let peak = before;
  const exporting = await seconds(async () => {
    for await (const piece of exportLedger(deps, actor, { kind: 'opened' })) {
      lines += piece.split('\n').length - 1;
      peak = Math.max(peak, process.memoryUsage().rss);
    }
  });
  say('ledger: export', `${(lines / exporting).toFixed(0)} rows/s, +${((peak - before) / 2 ** 20).toFixed(0)} MiB`, '100000 rows/s');
  await db.close();
}

await buildWorkers();
try {
  await encrypting();
  await firstPage();
  await ledger();
  await ledgerScreen();
} finally {
  await rm(folder, { recursive: true, force: true });
}
