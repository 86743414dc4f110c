// What is told of a past moment is what was decided then: a history of acts, each followed by every
// decision, asked about afterwards.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { ANYWHERE } from '@/core/policy/conditions';
import { decide } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { recipients } from '@/server/db/schema/people';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateDocument, revokeDocument } from '@/server/services/access/revoke-document';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { askerOf, policyFor } from '@/server/services/policy/document-policy';
import { explainAccess } from '@/server/services/policy/explain-access';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { putCeiling, viewCeilings } from '@/server/services/policy/manage-ceilings';
import { makeFolder } from '@/server/services/filing/manage-filing';
import { blockPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { passOn } from '@/server/services/access/pass-on';
import { printDocument } from '@/server/services/reading/take-copies';
import { whoCouldOpen } from '@/server/services/policy/who-could-open';
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
let document: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
/** Every decision after each act, with the moment. */
const history: {
  readonly act: string;
  readonly at: number;
  readonly states: ReadonlyMap<string, string>;
}[] = [];
const SILENT = 'nothing given';

async function everybody() {
  return (await product.deps.db.read.select().from(recipients)).filter(
    ({ kind }) => kind === 'person' || kind === 'domain',
  );
}

async function decidedNow(): Promise<Map<string, string>> {
  const { deps, clock } = product;
  const found = await findDocument(deps.db.read, document);
  if (found === null) throw new Error('gone');
  const states = new Map<string, string>();
  for (const person of await everybody()) {
    const decision = decide(await policyFor(deps, deps.db.read, found, person), {
      identity: 'proven',
      recipient: askerOf(person, person),
      at: {
        now: clock.now(),
        zone: 'Europe/Oslo',
        country: ANYWHERE,
        network: ANYWHERE,
        device: ANYWHERE,
      },
    });
    const { print } = decision.outcome === 'granted' ? decision.rights : { print: null };
    states.set(
      person.address,
      decision.outcome === 'refused'
        ? decision.reason
        : JSON.stringify([
            RIGHTS.filter((right) => decision.rights[right].granted),
            print?.granted === true ? print.printsLeft : null,
            decision.until,
          ]),
    );
  }
  return states;
}

async function then(act: string, done: () => Promise<unknown>): Promise<void> {
  product.clock.set(product.clock.now() + 2 * HOUR);
  await done();
  history.push({ act, at: product.clock.now(), states: await decidedNow() });
}

async function grantOf(address: string) {
  const row = (await grantRows(product.deps, product.ida, { dispatch: sent.id })).find(
    (each) => each.address === address,
  );
  if (row === undefined) throw new Error(address);
  return row;
}
const idOf = async (address: string): Promise<RecipientId> =>
  (await everybody()).find((each) => each.address === address)?.id ?? 'rcp_';
async function change(address: string, terms: object): Promise<void> {
  const { id, revision } = await grantOf(address);
  await changeGrants(product.deps, product.ida, { changes: [{ grant: id, revision, ...terms }] });
}
async function opened(address: string) {
  const { link } = await grantOf(address);
  const token = link.split('/').at(-1) ?? '';
  const reader = await prove(product, token, address);
  return { reader, result: await openDocument(product.deps, reader, { token, document }) };
}

beforeAll(async () => {
  product = await startProduct();
  const { deps, ida } = product;
  document = await protect(product, await drawing(1));
  await then('sent', async () => {
    sent = await dispatch(
      product,
      [document],
      ['mira@yard.example', 'ola@yard.example', 'bo@port.example'],
      {
        rights: ['read', 'print', 'pass-on'],
        prints: 4,
        until: START + 20 * DAY,
        conditions: { opens: 2, passOn: { people: 2, domains: null, steps: 1 } },
      },
    );
  });
  const mira = await prove(product, sent.tokenOf('mira@yard.example'), 'mira@yard.example');
  await then('passed on', () =>
    passOn(deps, mira, {
      document,
      address: 'per@class.example',
      rights: ['read', 'print'],
      until: START + 9 * DAY,
      note: '',
    }),
  );
  await then('narrowed', () =>
    change('ola@yard.example', { rights: ['read'], until: START + 2 * DAY }),
  );
  await then('to a domain', () =>
    dispatchDocuments(deps, ida, {
      documents: [document],
      recipients: [],
      domains: [{ domain: '@port.example' }],
      terms: { rights: ['read', 'copy'], from: null, until: START + 40 * DAY, prints: null },
      subject: 'For the port',
      note: '',
      watermark: DEFAULT_WATERMARK,
      delivery: 'by-hand',
    }),
  );
  await then('opened and printed', async () => {
    const { reader, result } = await opened('per@class.example');
    if (result.outcome === 'granted')
      await printDocument(deps, reader, { licence: result.licence, from: 1, to: 1 });
  });
  await then('revoked', async () => {
    await revokeGrants(deps, ida, { grants: [(await grantOf('mira@yard.example')).id] });
  });
  await then('opens used up', async () => {
    await opened('bo@port.example');
  });
  await then('a ceiling', () =>
    putCeiling(deps, ida, {
      level: 'organisation',
      subject: '',
      limits: { ...NO_LIMITS, rights: ['read', 'print'], prints: 3 },
      seen: null,
    }),
  );
  await then('reinstated', async () => {
    await reinstateGrants(deps, ida, { grants: [(await grantOf('mira@yard.example')).id] });
  });
  await then('blocked', async () => {
    await blockPerson(deps, ida, { id: await idOf('bo@port.example'), blocked: true });
  });
  await then('filed under a stricter folder', async () => {
    const { id } = await makeFolder(deps, ida, { name: 'Close', parentId: null });
    await putCeiling(deps, ida, {
      level: 'folder',
      subject: id,
      limits: { ...NO_LIMITS, rights: ['read'] },
      seen: null,
    });
    await fileDocuments(deps, ida, { documents: [document], folderId: id });
  });
  await then('document revoked', () => revokeDocument(deps, ida, { id: document }));
  await then('document reinstated', () => reinstateDocument(deps, ida, { id: document }));
  await then('ceiling removed, unblocked', async () => {
    const seen =
      (await viewCeilings(deps)).find(({ level }) => level === 'organisation')?.setAt ?? null;
    await putCeiling(deps, ida, { level: 'organisation', subject: '', limits: NO_LIMITS, seen });
    await blockPerson(deps, ida, { id: await idOf('bo@port.example'), blocked: false });
  });
  await then('out of the folder', () =>
    fileDocuments(deps, ida, { documents: [document], folderId: null }),
  );
  product.clock.set(START + 30 * DAY);
});
afterAll(async () => {
  await product.close();
});

const text = (state: Awaited<ReturnType<typeof whoCouldOpen>>['rows'][number]['then']): string =>
  state.opens ? JSON.stringify([state.rights, state.printsLeft, state.until]) : state.reason;

describe('who could open a document', () => {
  test('at every moment of its history is who could', async () => {
    expect(history.length).toBe(15);
    for (const { act, at, states } of history) {
      const { rows } = await whoCouldOpen(product.deps, product.ida, { of: { document }, at });
      const told = new Map(rows.map((row) => [row.address, text(row.then)]));
      for (const [address, state] of states)
        expect([act, address, told.get(address) ?? SILENT]).toEqual([
          act,
          address,
          state === 'not-addressed' ? (told.get(address) ?? SILENT) : state,
        ]);
    }
  });

  test('is the same asked about one person, about the dispatch, and when a case is tried then', async () => {
    for (const { act, at, states } of history)
      for (const address of ['mira@yard.example', 'bo@port.example', 'per@class.example']) {
        const recipient = await idOf(address);
        const { rows } = await whoCouldOpen(product.deps, product.ida, { of: { recipient }, at });
        const expected = states.get(address) ?? 'not-addressed';
        expect([act, address, ...rows.map((row) => text(row.then))]).toEqual([
          act,
          address,
          expected,
        ]);
        const explained = await explainAccess(product.deps, product.ida, {
          document,
          recipient,
          at,
        });
        expect([act, address, explained.past, explained.reason ?? 'opens']).toEqual([
          act,
          address,
          true,
          expected.startsWith('[') ? 'opens' : expected,
        ]);
      }
    const { rows } = await whoCouldOpen(product.deps, product.ida, {
      of: { dispatch: sent.id },
      at: history[0]?.at ?? 0,
    });
    expect(
      rows
        .filter((row) => row.then.opens)
        .map(({ address }) => address)
        .sort(),
    ).toEqual(['bo@port.example', 'mira@yard.example', 'ola@yard.example']);
  });

  test('is compared with another moment, and with another person', async () => {
    const [first] = history;
    const last = history.at(-1);
    const days = await whoCouldOpen(product.deps, product.ida, {
      of: { document },
      at: first?.at ?? 0,
      also: last?.at ?? 0,
    });
    expect(days.rows.find(({ address }) => address === 'ola@yard.example')).toMatchObject({
      then: { opens: true, rights: ['read', 'print', 'pass-on'] },
      compared: { opens: true, rights: ['read'] },
    });
    const people = await whoCouldOpen(product.deps, product.ida, {
      of: { recipient: await idOf('mira@yard.example') },
      at: history[2]?.at ?? 0,
      other: 'ola@yard.example',
    });
    expect(people).toMatchObject({
      other: 'ola@yard.example',
      rows: [{ then: { rights: ['read', 'print', 'pass-on'] }, compared: { rights: ['read'] } }],
    });
  });

  test('cannot be told of what is still to come', async () => {
    await expect(
      whoCouldOpen(product.deps, product.ida, { of: { document }, at: START + 31 * DAY }),
    ).rejects.toMatchObject({ code: 'INVALID' });
  });
});
