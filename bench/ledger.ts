import { randomBytes } from 'node:crypto';
import path from 'node:path';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { LedgerInput } from '@/contracts/ledger';
import { createCalendar } from '@/server/clock/calendar';
import { openDatabase } from '@/server/db/database';
import { recipients } from '@/server/db/schema/people';
import { createLedgerExporter } from '@/server/exporting/ledger-exporter';
import { inventedPlaces } from '@/server/places/invented-places';
import { createLedgerCounts } from '@/server/repositories/ledger/ledger-counts';
import { appendEntries, type Recorder } from '@/server/repositories/ledger/ledger-writer';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { viewOpens } from '@/server/services/ledger/count-opens';
import { exportLedger, listLedger } from '@/server/services/ledger/list-entries';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { nodeHash } from '@/server/vault/node-hash';
import { newSigningKey, signerOf } from '@/server/vault/vault';
import { say, sayMedian, seconds } from './measure';

/** Appending to the ledger and verifying it. */
export async function ledger(folder: string): Promise<void> {
  const db = await openDatabase(`file:${path.join(folder, 'ledger.db')}`);
  const { privateKey, publicKey } = newSigningKey();
  const recorder: Recorder = {
    hash: nodeHash,
    random: (length) => new Uint8Array(randomBytes(length)),
    signer: signerOf(privateKey, publicKey),
    origin: 'embargo-ledger',
    dayOf: createCalendar('UTC').dayOf,
  };
  const entry: LedgerEvent = {
    action: 'page.shown',
    outcome: 'granted',
    actor: { kind: 'recipient', id: 'rcp_00000000000000000001' },
    occurredAt: 1_790_000_000_000,
    document: 'doc_00000000000000000001',
    recipient: 'rcp_00000000000000000001',
    licence: 'lic_00000000000000000001',
    details: { page: 1 },
  };
  const single = 4_000;
  const one = await seconds(() =>
    Promise.all(
      Array.from({ length: single }, () => db.write((tx) => appendEntries(tx, recorder, [entry]))),
    ),
  );
  say('ledger: append, an entry a write, queued', `${(single / one).toFixed(0)} entries/s`, '2000');
  const many = 100_000;
  const batched = await seconds(async () => {
    for (let i = 0; i < many; i += 1000)
      await db.write((tx) =>
        appendEntries(
          tx,
          recorder,
          Array.from({ length: 1000 }, () => entry),
        ),
      );
  });
  say('ledger: append, a thousand a write', `${(many / batched).toFixed(0)} entries/s`, '');
  let found = 0;
  const taken = await seconds(async () => {
    found = (await verifyLedger(db.read, { publicKey })).entries;
  });
  say(
    'ledger: verify from the database',
    `${(found / taken).toFixed(0)} entries/s (${String(found)})`,
    '100000',
  );
  await db.close();
}

/** A ledger of a year: people, documents and places in the proportions of a busy office. */
export async function ledgerScreen(folder: string): Promise<void> {
  const many = Number(process.env['ENTRIES'] ?? 1_000_000);
  const databaseUrl = `file:${path.join(folder, 'screen.db')}`;
  const db = await openDatabase(databaseUrl);
  const { privateKey, publicKey } = newSigningKey();
  const recorder: Recorder = {
    hash: nodeHash,
    random: (length) => new Uint8Array(randomBytes(length)),
    signer: signerOf(privateKey, publicKey),
    origin: 'embargo-ledger',
    dayOf: createCalendar('Europe/Oslo').dayOf,
  };
  const id = (kind: string, n: number): string => `${kind}_${String(n).padStart(20, '0')}`;
  const people = Array.from({ length: 600 }, (_, n) => ({
    id: id('rcp', n) as RecipientId,
    address: `person${String(n)}@org${String(n % 40)}.example`,
    name: `Person ${String(n)}`,
    organisation: `Organisation ${String(n % 40)}`,
    createdAt: 0,
  }));
  await db.write((tx) => tx.insert(recipients).values(people));
  const start = Date.UTC(2026, 0, 1);
  const happening = (n: number): LedgerEvent => {
    // Eight entries an open: the open, the key, six pages; every eleventh open is refused and leaves one.
    const [session, step] = [Math.floor(n / 8), n % 8];
    const person = people[(session * 7) % people.length] ?? people[0];
    const recipient = person?.id ?? 'rcp_';
    const refused = session % 11 === 0;
    const action =
      step === 0 || refused ? 'document.opened' : step === 1 ? 'key.unwrapped' : 'page.shown';
    const about = {
      ...(refused ? { reason: n % 2 === 0 ? 'revoked' : 'expired' } : {}),
      actor: { kind: 'recipient' as const, id: recipient },
      occurredAt: start + Math.floor((n / many) * 330 * 86_400_000),
      document: id('doc', (session * 13) % 300) as DocumentId,
      recipient,
    };
    if (action === 'key.unwrapped')
      return { action, outcome: 'done', ...about, details: { for: 'open' } };
    const outcome = refused ? 'refused' : 'granted';
    if (action === 'page.shown') return { action, outcome, ...about, details: { page: step } };
    return {
      action,
      outcome,
      ...about,
      personal: {
        network: '203.0.113.24',
        place: `Place ${String((session * 7) % 25)}, within about 50 km`,
      },
    };
  };
  const filling = await seconds(async () => {
    for (let from = 0; from < many; from += 2000)
      await db.write((tx) =>
        appendEntries(
          tx,
          recorder,
          Array.from({ length: 2000 }, (_, i) => happening(from + i)),
        ),
      );
  });
  say(
    `ledger of ${many.toLocaleString('en-GB')}: append, with counts`,
    `${(many / filling).toFixed(0)} entries/s`,
    '2000',
  );
  const counts = createLedgerCounts(db.read, recorder.dayOf);
  const deps = {
    db,
    clock: { now: () => start },
    recorder,
    counts,
    exporter: createLedgerExporter('build/workers', databaseUrl),
    places: inventedPlaces,
  } as unknown as Deps;
  say(
    'ledger screen: the first question',
    `${((await seconds(() => counts.count({}))) * 1000).toFixed(0)} ms`,
    'once a start',
  );
  const actor = { kind: 'staff', id: 'stf_1', role: 'administrator' } as unknown as StaffActor;
  const filters: readonly (readonly [string, LedgerInput])[] = [
    ['none', {}],
    ['refused', { kind: ['refused'] }],
    ['one person', { recipient: [id('rcp', 5)] }],
    ['one organisation', { organisation: ['Organisation 7'] }],
    ['one place', { place: ['Place 3'] }],
    [
      'a week, refused, one reason',
      { kind: ['refused'], reason: ['expired'], from: '2026-05-04', to: '2026-05-10' },
    ],
    [
      'all but two organisations',
      {
        without: [
          { dimension: 'organisation', value: 'Organisation 7' },
          { dimension: 'organisation', value: 'Organisation 8' },
        ],
      },
    ],
    ['what one person did', { actor: [id('rcp', 5)] }],
    ['all but one person', { without: [{ dimension: 'recipient', value: id('rcp', 5) }] }],
    ['an hour', { from: '2026-05-04T14:00', to: '2026-05-04T14:59' }],
  ];
  for (const [name, input] of filters)
    await sayMedian(`ledger screen: ${name}`, 7, 'under 100 ms', () =>
      listLedger(deps, actor, input),
    );
  await sayMedian('who opened how often: everybody, everything', 7, 'under 300 ms', () =>
    viewOpens(deps, actor, {}),
  );
  await sayMedian('who opened how often: a document, three months', 7, 'under 300 ms', () =>
    viewOpens(deps, actor, { document: id('doc', 13), from: '2026-03-01', to: '2026-05-31' }),
  );
  await exporting('everything', deps, actor, {});
  await exporting('opens', deps, actor, { kind: ['opened'] });
  await db.close();
}

/** Line ends in a piece; by the engine's own search, so that counting costs the export next to nothing. */
function linesIn(piece: Uint8Array): number {
  const bytes = Buffer.from(piece.buffer, piece.byteOffset, piece.length);
  let lines = 0;
  for (let at = bytes.indexOf(10); at !== -1; at = bytes.indexOf(10, at + 1)) lines++;
  return lines;
}

/** Rows a second and memory of an export, and how long other requests wait meanwhile. */
async function exporting(
  name: string,
  deps: Deps,
  actor: StaffActor,
  input: LedgerInput,
): Promise<void> {
  let lines = 0;
  const before = process.memoryUsage().rss;
  let peak = before;
  const waits: number[] = [];
  const beat = setInterval(() => {
    const asked = performance.now();
    void deps.counts.count({ with: { kind: ['refused'] } }).then(() => {
      waits.push(performance.now() - asked);
    });
  }, 50);
  const taken = await seconds(async () => {
    for await (const piece of await exportLedger(deps, actor, input)) {
      lines += linesIn(piece);
      peak = Math.max(peak, process.memoryUsage().rss);
    }
  });
  clearInterval(beat);
  say(
    `ledger export: ${name}`,
    `${(lines / taken).toFixed(0)} rows/s of ${String(lines)}, +${((peak - before) / 2 ** 20).toFixed(0)} ` +
      `MiB, others wait ${Math.max(0, ...waits).toFixed(0)} ms at most`,
    '100000 rows/s',
  );
}
