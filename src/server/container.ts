import { hasDatabase } from '@/server/db/database-file';
import { randomBytes } from 'node:crypto';
import { availableParallelism } from 'node:os';
import path from 'node:path';
import { pino, type Logger } from 'pino';
import { hasCode } from '@/core/base/errors';
import type { RandomSource } from '@/core/base/random';
import { Secret } from '@/core/base/secret';
import { DAY, MINUTE, SECOND } from '@/core/base/time';
import { licenceSigner } from '@/core/licence/licence';
import { permitSigner } from '@/core/licence/permit';
import { createCalendar } from '@/server/clock/calendar';
import { createDemoClock, type DemoClock } from '@/server/clock/demo-clock';
import { systemClock, type Clock } from '@/server/clock/clock';
import { createSteadyClock, type SteadyClock } from '@/server/clock/steady-clock';
import { ConfigError, type Config } from '@/server/config/env';
import { createCovers } from '@/server/covers/covers';
import { openDatabase, type Database } from '@/server/db/database';
import { LONG_TABLES } from '@/server/db/unreadable';
import { createSeals } from '@/server/db/seals';
import { createHealth } from '@/server/health/health';
import { createProofsUsed, type ProofsUsed } from '@/server/identity/device-proof';
import { createStaffIdentity, type StaffIdentity } from '@/server/identity/staff-identity';
import { createFairQueue } from '@/server/limits/fair-queue';
import { createLentBuffers } from '@/server/limits/lent-buffers';
import { createLimits } from '@/server/limits/limits';
import { createLiveChanges } from '@/server/live/live-changes';
import { mailOf } from '@/server/mail/mail-of';
import { createLedgerProver } from '@/server/verifying/ledger-prover';
import { createLedgerVerifier } from '@/server/verifying/ledger-verifier';
import { createSealingThreads } from '@/server/storage/sealing-threads';
import { createLedgerExporter } from '@/server/exporting/ledger-exporter';
import { createCountryPlaces } from '@/server/places/country-places';
import { inventedPlaces } from '@/server/places/invented-places';
import { createLedgerCounts } from '@/server/repositories/ledger/ledger-counts';
import { officeOf } from '@/server/rendering/office/office-of';
import { createRenderPool, type Renderer } from '@/server/rendering/render-pool';
import { forgetActs } from '@/server/repositories/base/act-repository';
import { namedBlobKeys } from '@/server/repositories/documents/document-repository';
import { accessChangesSince, lastSequence } from '@/server/repositories/ledger/access-changes';
import { newestMoment } from '@/server/repositories/ledger/ledger-chain';
import { signLedger, type Recorder } from '@/server/repositories/ledger/ledger-writer';
import {
  findOrganisation,
  findServiceKey,
  insertServiceKey,
} from '@/server/repositories/staff/organisation-repository';
import { sendHeld } from '@/server/services/dispatching/hold-dispatch';
import { takeReports } from '@/server/services/mailing/take-reports';
import { deliverMail, settleInterrupted } from '@/server/services/mailing/deliver-mail';
import { PART_BYTES } from '@/server/services/documents/receive-part';
import { recountDays } from '@/server/services/ledger/recount-days';
import { clearAbandonedUploads } from '@/server/services/documents/discard-upload';
import type { Deps } from '@/server/services/base/deps';
import { lookAfter, type Around } from '@/server/services/documents/look-after';
import { mailCheckpoint } from '@/server/services/ledger/keep-checkpoints';
import { sendNotices } from '@/server/services/mailing/send-notices';
import { tellOfEnds } from '@/server/services/mailing/tell-of-ends';
import { noteCheckpoints } from '@/server/services/ledger/note-checkpoints';
import { checkDatabase } from '@/server/checking/database-check';
import { mendDatabase, mendFound, sayDamaged } from '@/server/services/keys/mend-database';
import { createSealReport } from '@/server/services/keys/report-seals';
import { goOnNoting, noteEndings } from '@/server/services/ledger/note-endings';
import { record, whereabouts } from '@/server/services/base/record';
import { createDiskBlobStore, realDisk } from '@/server/storage/disk-blob-store';
import { createReserve } from '@/server/storage/reserve';
import { clearCopies } from '@/server/storage/leftovers';
import { createWitness } from '@/server/storage/witness';
import { createEndedList } from '@/server/storage/ended-list';
import { createKeyring } from '@/server/vault/keyring';
import { openMasterKeys } from '@/server/vault/master-key';
import { nodeHash } from '@/server/vault/node-hash';
import {
  createHashes,
  createKeyWrap,
  newSigningKey,
  signerOf,
  type KeyWrap,
} from '@/server/vault/vault';

export type Container = {
  readonly deps: Deps;
  readonly identity: StaffIdentity;
  readonly proofsUsed: ProofsUsed;
  readonly log: Logger;
  /** Starts what goes on beside requests: delivering mail, signing the ledger. */
  readonly startBackground: () => void;
  readonly close: () => Promise<void>;
};

const random: RandomSource = (length) => new Uint8Array(randomBytes(length));
/** The first pages come before what takes long. */
const AFTER_START = 3 * SECOND;
const MAIL_INTERVAL = SECOND;
const HELD_INTERVAL = SECOND;
const REPORT_INTERVAL = 2 * SECOND;
const CODE_INTERVAL = SECOND / 4;
const SIGN_INTERVAL = 5 * MINUTE;
const CLEAR_INTERVAL = 10 * MINUTE;
const NOTICE_INTERVAL = MINUTE / 2;
const LOOK_INTERVAL = 10 * SECOND;
const ORIGIN = 'embargo-ledger';

type ServiceKey = { readonly privateKey: Uint8Array; readonly publicKey: Uint8Array };

/** A key of the service itself, made at the first start and wrapped from then on. */
async function loadServiceKey(
  db: Database,
  keyWrap: KeyWrap,
  name: 'issuer' | 'hashes',
  make: () => ServiceKey,
  now: number,
): Promise<ServiceKey> {
  return db.write(async (tx) => {
    const found = await findServiceKey(tx, name);
    if (found !== null)
      return {
        publicKey: new Uint8Array(found.publicKey),
        privateKey: unwrapOrSay(keyWrap, found, name),
      };
    const { privateKey, publicKey } = make();
    await insertServiceKey(tx, {
      name,
      ...keyWrap.wrap(privateKey, name),
      publicKey: Buffer.from(publicKey),
      createdAt: now,
    });
    return { privateKey, publicKey };
  });
}

/** @throws ConfigError where the master key is not the one that this database was made with */
function unwrapOrSay(
  keyWrap: KeyWrap,
  found: Parameters<KeyWrap['unwrap']>[0],
  name: string,
): Uint8Array {
  try {
    return keyWrap.unwrap(found, name);
  } catch (error) {
    if (!hasCode(error, 'CANNOT_UNWRAP')) throw error;
    throw new ConfigError(
      'The master key is not the one that the keys in this database were wrapped with. Put that one back.',
    );
  }
}

/** Time never runs behind the record, unless a test says what time it is; a demo's can be moved. */
async function chooseClock(
  db: Database,
  { clock: given, steady: isSteady }: Options,
  demo: boolean,
  known: Awaited<ReturnType<typeof findOrganisation>>,
): Promise<{
  readonly clock: Clock;
  readonly demoClock: DemoClock | null;
  readonly behind: SteadyClock['behind'] | null;
}> {
  const offset = demo ? (known?.clockOffset ?? 0) : 0;
  const own = given ?? systemClock;
  const steady =
    given === undefined || isSteady === true
      ? createSteadyClock(own.now, (await newestMoment(db.read)) - offset)
      : null;
  const base = steady ?? own;
  const demoClock = demo ? createDemoClock(offset, base.now) : null;
  return { clock: demoClock ?? base, demoClock, behind: steady?.behind ?? null };
}

/** What only a server does at its start, and nothing that may run beside one. */
async function tidyUp(deps: Deps): Promise<void> {
  deps.clearLeftovers();
  await goOnNoting(deps);
  await settleInterrupted(deps, true);
  await recountDays(deps);
}

function ownThreads(config: Config, { threads }: Options, health: Deps['health']): Renderer {
  return createRenderPool(config.workersDir, threads ?? Math.max(2, availableParallelism()), {
    office: officeOf(config, health),
  });
}

export type Options = {
  readonly clock?: Clock;
  readonly demo?: boolean;
  readonly threads?: number;
  /** Threads of somebody else, who ends them, in place of own ones. */
  readonly renderer?: Renderer;
  /** A server may be running on the same database: what only it does at its start is left out. */
  readonly beside?: boolean;
  /** Whether time never runs behind the record, as by the machine's own clock. */
  readonly steady?: boolean;
};

/**
 * Constructs everything, once. `demo` is for making a demo's database; an existing one says itself
 * whether it is a demo.
 */
export async function createContainer(config: Config, options: Options = {}): Promise<Container> {
  const log = pino({ level: config.logLevel, base: null });
  const keyWrap = createKeyWrap(
    openMasterKeys(config.masterKeyFile, !hasDatabase(config.databaseUrl)),
  );
  const reserve = createReserve(path.join(config.dataDir, 'reserve'));
  const db = await openDatabase(config.databaseUrl, reserve.giveUp);
  const health = createHealth();
  const isServer = options.beside !== true;
  // Before anything reads them: one harmed text would end the process.
  if (isServer)
    await mendDatabase(db, health, (table) => config.checkFirst || !LONG_TABLES.includes(table));
  const known = await findOrganisation(db.read);
  const demo = options.demo ?? known?.demo ?? false;
  const { clock, demoClock, behind } = await chooseClock(db, options, demo, known);
  const issuer = await loadServiceKey(db, keyWrap, 'issuer', newSigningKey, clock.now());
  const hashes = await loadServiceKey(
    db,
    keyWrap,
    'hashes',
    () => ({ privateKey: random(32), publicKey: new Uint8Array(0) }),
    clock.now(),
  );
  const vault = { ...keyWrap, ...createHashes(new Secret(hashes.privateKey)) };
  const seals = createSeals(Buffer.from(vault.derive('row seals'), 'hex'));
  const witness = createWitness(config.witnessFile);
  const calendar = createCalendar(known?.zone ?? 'UTC');
  const recorder: Recorder = {
    hash: nodeHash,
    random,
    signer: signerOf(issuer.privateKey, issuer.publicKey),
    origin: ORIGIN,
    dayOf: calendar.dayOf,
  };
  const sealing = createSealingThreads(config.workersDir);
  const blobs = createDiskBlobStore(config.dataDir, realDisk, sealing);
  if (isServer) await blobs.sweep(await namedBlobKeys(db.read));
  const deps: Deps = {
    db,
    clock,
    calendar,
    random,
    vault,
    blobs,
    recorder,
    keyring: createKeyring(() => clock.now()),
    renderer: options.renderer ?? ownThreads(config, options, health),
    ended: createEndedList(config.endedFile),
    clearLeftovers: () => clearCopies(config.dataDir),
    covers: createCovers(config.fontsDir),
    ...mailOf(config, db, clock, demo),
    places: demo ? inventedPlaces : createCountryPlaces(config.placesFile),
    counts: createLedgerCounts(db.read, calendar.dayOf),
    exporter: createLedgerExporter(config.workersDir, config.databaseUrl),
    verifier: createLedgerVerifier(config.workersDir, config.databaseUrl),
    prover: createLedgerProver(config.workersDir, config.databaseUrl),
    demo: demoClock,
    limits: createLimits(),
    turns: {
      parts: createFairQueue({ atOnce: 8, atOnceEach: 1, waiting: 200, waitingEach: 4 }),
      partBuffers: createLentBuffers(PART_BYTES),
      wholes: createFairQueue({ atOnce: 64, atOnceEach: 1, waiting: 500, waitingEach: 4 }),
    },
    live: createLiveChanges(
      () => lastSequence(db.read),
      (sequence) => accessChangesSince(db.read, sequence),
      (error) => {
        log.error({ err: error }, 'watching for changes failed');
      },
    ),
    integrity: {
      ...seals,
      report: (rows) => {
        reportBroken(rows);
      },
    },
    health,
    witness,
    signLicence: await licenceSigner(issuer.publicKey, issuer.privateKey, config.publicUrl),
    signPermit: await permitSigner(issuer.publicKey, issuer.privateKey, config.publicUrl),
    publicUrl: config.publicUrl,
  };
  const reportBroken = createSealReport(deps, log);
  await db.sealWith(seals, reportBroken);
  if (isServer) await tidyUp(deps);
  const identity = createStaffIdentity(
    db,
    { secret: vault.derive('staff sessions'), publicUrl: config.publicUrl, random },
    async (tx, staff, network, agent) => {
      await record(deps, tx, {
        action: 'staff.signed-in',
        outcome: 'done',
        actor: { kind: 'staff', id: staff },
        occurredAt: clock.now(),
        personal: whereabouts(deps, { network, agent }),
      });
    },
  );
  const background = createBackground(
    deps,
    log,
    {
      masterKeyFile: config.masterKeyFile,
      dataDir: config.dataDir,
      behind,
      reserve,
    },
    config,
  );
  return {
    deps,
    identity,
    log,
    proofsUsed: createProofsUsed(),
    startBackground: background.start,
    close: async () => {
      await background.stop();
      deps.live.close();
      deps.mailer?.close();
      await sealing.close();
      if (options.renderer === undefined) await deps.renderer.close();
      await db.close();
    },
  };
}

/** Repeats a job with a pause in between, one at a time; an error is logged and the next round tried. */
function createBackground(
  deps: Deps,
  log: Logger,
  around: Around,
  config: Pick<Config, 'workersDir' | 'databaseUrl'>,
): { start: () => void; stop: () => Promise<void> } {
  const timers: NodeJS.Timeout[] = [];
  const running = new Set<Promise<void>>();
  const repeat = (name: string, interval: number, job: () => Promise<unknown>): void => {
    let busy = false;
    timers.push(
      setInterval(() => {
        if (busy) return;
        busy = true;
        const round = job()
          .then(
            () => undefined,
            (error: unknown) => {
              log.error({ err: error }, `${name} failed`);
            },
          )
          .finally(() => {
            busy = false;
            running.delete(round);
          });
        running.add(round);
      }, interval),
    );
  };
  /** What takes a while and nobody waits for. */
  const lookThrough = (): void => {
    // The whole database is read through once, beside everything else.
    checkDatabase(config.workersDir, config.databaseUrl)
      .then(async ({ unreadable, problems }) => {
        await mendFound(deps.db, deps.health, unreadable);
        if (problems.length > 0) sayDamaged(deps.health, problems);
      })
      .catch((error: unknown) => {
        log.error({ err: error }, 'the database could not be checked');
      });
    // The first question about a long ledger takes a second; asked now, nobody waits for it.
    deps.counts.count({}).catch((error: unknown) => {
      log.error({ err: error }, 'counting the ledger failed');
    });
  };
  return {
    start: () => {
      timers.push(setTimeout(lookThrough, AFTER_START));
      // Codes have lanes of their own: a long dispatch holds up nobody at the door.
      repeat('delivering codes', CODE_INTERVAL, () => deliverMail(deps, 'urgent'));
      repeat('delivering mail', MAIL_INTERVAL, () => deliverMail(deps));
      repeat('sending what was held back', HELD_INTERVAL, () => sendHeld(deps));
      repeat('taking delivery reports', REPORT_INTERVAL, () => takeReports(deps));
      repeat('settling mail', MINUTE, () => settleInterrupted(deps, false));
      repeat('sending notices', NOTICE_INTERVAL, () => sendNotices(deps));
      repeat('telling of ends', NOTICE_INTERVAL, () => tellOfEnds(deps));
      repeat('mailing checkpoints', NOTICE_INTERVAL, () => mailCheckpoint(deps));
      repeat('noting checkpoints', MAIL_INTERVAL, () => noteCheckpoints(deps));
      repeat('looking after itself', LOOK_INTERVAL, () => lookAfter(deps, around));
      repeat('noting what ended', MAIL_INTERVAL, () => noteEndings(deps));
      repeat('clearing abandoned uploads', CLEAR_INTERVAL, () => clearAbandonedUploads(deps));
      repeat('forgetting requests', CLEAR_INTERVAL, () =>
        deps.db.write((tx) => forgetActs(tx, deps.clock.now() - DAY)),
      );
      repeat('signing the ledger', SIGN_INTERVAL, () =>
        deps.db.write((tx) => signLedger(tx, deps.recorder, deps.clock.now())),
      );
    },
    stop: async () => {
      for (const timer of timers) clearInterval(timer);
      await Promise.all(running);
    },
  };
}
