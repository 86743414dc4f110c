import { randomBytes } from 'node:crypto';
import { newId, type DocumentId, type GrantId, type RecipientId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { termsText } from '@/core/policy/rights';
import { systemClock } from '@/server/clock/clock';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import { devices, licences } from '@/server/db/schema/reading';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, versions } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { recipients } from '@/server/db/schema/people';
import { revokeAccess, previewRevoke } from '@/server/services/access/revoke-access';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { listDocuments } from '@/server/services/documents/list-documents';
import { previewCeiling } from '@/server/services/policy/manage-ceilings';
import { listPeople } from '@/server/services/people/manage-people';
import { checkOpen, watchOpen } from '@/server/services/reading/watch-open';
import { record } from '@/server/services/base/record';
import { setUpOrganisation, setUpToken } from '@/server/services/staff/set-up-organisation';
import { median, say, sayMedian, seconds } from './measure';

const MANY = 10_000;
const READERS = 200;
const random = (length: number): Uint8Array => new Uint8Array(randomBytes(length));
const inParts = <T>(rows: readonly T[], size = 1_000): T[][] =>
  Array.from({ length: Math.ceil(rows.length / size) }, (_, i) =>
    rows.slice(i * size, (i + 1) * size),
  );

const LIMITED = 200_000;

/** What a ceiling of the organisation would do to 200,000 live grants, and how long anybody else waits meanwhile. */
async function impactOfCeiling(
  deps: Deps,
  ida: StaffActor,
  {
    dispatches: rows,
    papers,
    people,
  }: {
    readonly dispatches: readonly (typeof dispatches.$inferInsert)[];
    readonly papers: readonly { readonly id: DocumentId }[];
    readonly people: readonly { readonly id: RecipientId }[];
  },
): Promise<void> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    await tx.insert(dispatches).values([...rows]);
    for (const part of inParts(Array.from({ length: LIMITED }, (_, n) => n))) {
      await tx.insert(grants).values(
        part.map((n) => ({
          id: newId('grant', random),
          dispatchId: rows[n % rows.length]?.id ?? 'dsp_',
          documentId: papers[n % MANY]?.id ?? 'doc_',
          recipientId: people[(n * 7 + Math.floor(n / MANY)) % MANY]?.id ?? 'rcp_',
          rights: n % 2 === 0 ? ['read' as const] : ['read' as const, 'print' as const],
          untilAt: now + (n % 90) * DAY + DAY,
          givenBy: ida.id,
          givenAt: now - (n % 30) * DAY,
        })),
      );
    }
  });
  const waits: number[] = [];
  const times: number[] = [];
  for (let round = 0; round < 3; round++) {
    let last = performance.now();
    let longest = 0;
    const watch = setInterval(() => {
      longest = Math.max(longest, performance.now() - last);
      last = performance.now();
    }, 1);
    times.push(
      await seconds(() =>
        previewCeiling(deps, ida, {
          level: 'organisation',
          subject: '',
          limits: { ...NO_LIMITS, rights: ['read'], days: 30 },
          seen: null,
        }),
      ),
    );
    clearInterval(watch);
    waits.push(longest);
  }
  say(
    `impact of a ceiling on ${String(LIMITED)} grants`,
    `${(median(times) * 1000).toFixed(0)} ms; others wait ${median(waits).toFixed(0)} ms at most`,
    'under 1000 ms',
  );
}

/** Long lists, wide cuts, and many open readers. */
export async function lists(folder: string): Promise<void> {
  const container = await createContainer(
    readConfig({ DATA_DIR: `${folder}/lists`, LOG_LEVEL: 'error' }),
    { clock: systemClock, demo: true, threads: 1 },
  );
  const { deps } = container;
  const { staffId } = await setUpOrganisation(
    deps,
    container.identity,
    {
      token: setUpToken(deps),
      organisation: 'Tern & Quill',
      zone: 'Europe/Oslo',
      name: 'Ida Roe',
      email: 'ida@tern-quill.example',
      password: 'a long enough password',
      recoveryKey: null,
    },
    true,
  );
  const ida: StaffActor = {
    kind: 'staff',
    id: staffId,
    name: 'Ida Roe',
    email: 'ida@tern-quill.example',
    role: 'administrator',
    session: 'bench',
    proven: true,
    from: { network: '192.0.2.10', agent: 'bench' },
  };
  const now = deps.clock.now();
  const papers = Array.from({ length: MANY }, (_, n) => ({
    id: newId('document', random),
    versionId: newId('version', random),
    reference: `TQ-${String(n)}`,
    title: `Drawing ${String(n)} of the hull`,
    ownerId: staffId,
    createdAt: now - n * 60_000,
  }));
  const people = Array.from({ length: MANY }, (_, n) => ({
    id: newId('recipient', random),
    address: `person${String(n)}@org${String(n % 300)}.example`,
    name: `Person ${String(n)}`,
    organisation: `Organisation ${String(n % 300)}`,
    createdAt: now,
  }));
  const dispatch = {
    id: newId('dispatch', random),
    reference: 'D-0001',
    subject: 'Everything',
    note: '',
    watermark: [],
    sentBy: staffId,
    sentAt: now,
  };
  const given = people.slice(0, MANY / 20).flatMap((person) =>
    papers.slice(0, 20).map((paper) => ({
      id: newId('grant', random),
      dispatchId: dispatch.id,
      documentId: paper.id,
      recipientId: person.id,
      rights: ['read' as const],
      untilAt: now + 30 * DAY,
      givenBy: staffId,
      givenAt: now,
    })),
  );
  await deps.db.write(async (tx) => {
    for (const rows of inParts(papers)) {
      await tx.insert(documents).values(rows);
      await tx.insert(versions).values(
        rows.map((row) => ({
          id: row.versionId,
          documentId: row.id,
          number: 1,
          fileName: 'a.pdf',
          mediaType: 'application/pdf' as const,
          pages: 3,
          bytes: 90_000,
          contentMac: row.versionId,
          blobKey: row.versionId,
          headerBytes: 200,
          wrappedKey: Buffer.alloc(60),
          keyGeneration: 1,
          createdAt: now,
          createdBy: staffId,
        })),
      );
    }
    for (const rows of inParts(people)) await tx.insert(recipients).values(rows);
    await tx.insert(dispatches).values(dispatch);
    for (const rows of inParts(given)) await tx.insert(grants).values(rows);
  });
  // What was given stands on the ledger, as it would.
  for (const rows of inParts(given))
    await deps.db.write((tx) =>
      record(
        deps,
        tx,
        ...rows.map((row) => ({
          action: 'grant.given' as const,
          outcome: 'done' as const,
          details: {
            terms: termsText({ rights: row.rights, from: null, until: row.untilAt, prints: null }),
          },
          actor: { kind: 'staff' as const, id: staffId },
          occurredAt: now,
          grant: row.id,
          document: row.documentId,
          recipient: row.recipientId,
          dispatch: row.dispatchId,
        })),
      ),
    );

  const [half] = [papers[MANY / 2]];
  await sayMedian('10,000 documents: first rows', 7, 'under 100 ms', () =>
    listDocuments(deps, ida, { q: '' }),
  );
  await sayMedian('10,000 documents: from the middle on', 7, 'under 100 ms', () =>
    listDocuments(deps, ida, { q: '', after: half?.id }),
  );
  await sayMedian('10,000 documents: searched', 7, 'under 100 ms', () =>
    listDocuments(deps, ida, { q: '99' }),
  );
  await sayMedian('10,000 people: first rows', 7, 'under 100 ms', () =>
    listPeople(deps, ida, { q: '' }),
  );
  await sayMedian('10,000 people: from the middle on', 7, 'under 100 ms', () =>
    listPeople(deps, ida, { q: '', after: people[MANY / 2]?.id }),
  );
  await sayMedian('10,000 people: searched', 7, 'under 100 ms', () =>
    listPeople(deps, ida, { q: 'org77.' }),
  );

  const readers = await openReaders(given, papers[0]?.versionId ?? 'ver_');
  let blank = 0;
  const start = { at: 0 };
  const allBlank = new Promise<number>((resolve) => {
    for (const { actor, licence } of readers) {
      void watchOpen(deps, actor, { licence }, () => {
        void checkOpen(deps, actor, { licence }).then((result) => {
          if (result.outcome === 'refused' && ++blank === READERS)
            resolve(performance.now() - start.at);
        });
      });
    }
  });
  const scope = { kind: 'dispatch', dispatch: dispatch.id } as const;
  await sayMedian('10,000 grants: whom a cut would hit', 3, '', () =>
    previewRevoke(deps, ida, { scope }),
  );
  // The readers' watch looks every so often: let it have its first look.
  await new Promise((resolve) => {
    setTimeout(resolve, 1_000);
  });
  start.at = performance.now();
  const cutting = await seconds(() => revokeAccess(deps, ida, { scope }));
  say('10,000 grants: revoked', `${(cutting * 1000).toFixed(0)} ms`, 'under 1000 ms');
  say(
    '200 open readers: all told to go blank',
    `${(await allBlank).toFixed(0)} ms after the cut was asked for`,
    'under 2000 ms',
  );
  await impactOfCeiling(deps, ida, {
    dispatches: Array.from({ length: 20 }, (_, n) => ({
      ...dispatch,
      id: newId('dispatch', random),
      reference: `D-1${String(n)}`,
    })),
    papers,
    people,
  });
  await container.close();

  async function openReaders(
    of: readonly {
      readonly id: GrantId;
      readonly documentId: DocumentId;
      readonly recipientId: RecipientId;
    }[],
    versionId: `ver_${string}`,
  ) {
    const own = of.filter((grant) => grant.documentId === papers[0]?.id).slice(0, READERS);
    const rows = own.map((grant) => ({
      grant,
      device: newId('device', random),
      licence: newId('licence', random),
      address: people.find((person) => person.id === grant.recipientId)?.address ?? '',
    }));
    await deps.db.write(async (tx) => {
      await tx.insert(devices).values(
        rows.map((row) => ({
          id: row.device,
          address: row.address,
          recipientId: row.grant.recipientId,
          label: '',
          kept: false,
          tokenHash: row.device,
          publicKey: {},
          createdAt: now,
          provenAt: now,
          expiresAt: now + DAY,
        })),
      );
      await tx.insert(licences).values(
        rows.map((row) => ({
          id: row.licence,
          grantId: row.grant.id,
          documentId: row.grant.documentId,
          versionId,
          recipientId: row.grant.recipientId,
          deviceId: row.device,
          watermark: [],
          statement: '',
          openedAt: now,
          expiresAt: now + DAY,
        })),
      );
    });
    return rows.map((row) => ({
      licence: row.licence,
      actor: {
        kind: 'reader',
        device: row.device,
        kept: true,
        provenAt: now,
        passkeyAt: null,
        address: row.address,
        recipient: row.grant.recipientId,
        from: { network: '203.0.113.24', agent: '' },
      } satisfies ReaderActor,
    }));
  }
}
