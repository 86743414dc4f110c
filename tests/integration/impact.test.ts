// Whom a change touches, told before it is made, compared with every person's decision on every
// document before and after it.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import { ANYWHERE } from '@/core/policy/conditions';
import { decide } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { recipients } from '@/server/db/schema/people';
import { askerOf, policyFor } from '@/server/services/policy/document-policy';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { putCeiling, previewCeiling, viewCeilings } from '@/server/services/policy/manage-ceilings';
import { blockPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { passOn } from '@/server/services/access/pass-on';
import { revokeDocument } from '@/server/services/access/revoke-document';
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
let documents: DocumentId[];
beforeAll(async () => {
  product = await startProduct();
  const bytes = await drawing(1);
  documents = [
    await protect(product, bytes, 'Lines'),
    await protect(product, bytes, 'Deck'),
    await protect(product, bytes, 'Withdrawn'),
  ];
  const [lines, deck, withdrawn] = documents as [DocumentId, DocumentId, DocumentId];
  const { deps, ida } = product;
  const sent = await dispatch(product, [lines], ['mira@yard.example'], {
    rights: ['read', 'print', 'pass-on'],
    prints: 3,
    conditions: { passOn: { people: 2, domains: null, steps: 1 } },
  });
  const mira = await prove(product, sent.tokenOf('mira@yard.example'), 'mira@yard.example');
  await passOn(deps, mira, {
    document: lines,
    address: 'per@class.example',
    rights: ['read', 'print'],
    until: START + 20 * DAY,
    note: '',
  });
  // Tove has two grants on the same document, of which one is less and shorter; Bo may only read;
  // Ola only from one network, once.
  await dispatch(product, [lines], ['tove@port.example'], {
    rights: ['read', 'copy', 'print', 'keep'],
    until: START + 60 * DAY,
  });
  await dispatch(product, [lines, deck], ['tove@port.example', 'bo@port.example'], {
    rights: ['read'],
    until: START + 5 * DAY,
  });
  const counted = await dispatch(product, [deck], ['ola@yard.example'], {
    rights: ['read', 'print'],
    conditions: { networks: ['192.0.2.0/28'], opens: 2 },
  });
  const ola = await prove(product, counted.tokenOf('ola@yard.example'), 'ola@yard.example');
  await openDocument(
    deps,
    { ...ola, from: { ...ola.from, network: '192.0.2.3' } },
    { token: counted.tokenOf('ola@yard.example'), document: deck },
  );
  await dispatch(product, [deck, withdrawn], ['shut@port.example', 'bo@port.example'], {
    rights: ['read', 'print'],
  });
  await dispatchDocuments(deps, ida, {
    documents: [deck],
    recipients: [],
    domains: [{ domain: '@port.example' }],
    terms: { rights: ['read', 'print'], from: null, until: START + 40 * DAY, prints: null },
    subject: 'For the port',
    note: '',
    watermark: DEFAULT_WATERMARK,
    delivery: 'by-hand',
  });
  const shut =
    (await deps.db.read.select().from(recipients)).find(
      ({ address }) => address === 'shut@port.example',
    )?.id ?? 'rcp_';
  await blockPerson(deps, ida, { id: shut, blocked: true });
  await revokeDocument(deps, ida, { id: withdrawn });
});
afterAll(async () => {
  await product.close();
});

/** Every person's decision on every document, at places and moments that these ceilings tell apart. */
async function everything(): Promise<Map<string, string>> {
  const { deps } = product;
  const all = (await deps.db.read.select().from(recipients)).filter(
    ({ kind }) => kind === 'person',
  );
  const found = new Map<string, string>();
  for (const person of all)
    for (const id of documents) {
      const document = await findDocument(deps.db.read, id);
      if (document === null) continue;
      const policy = await policyFor(deps, deps.db.read, document, person);
      const seen = [0, 4, 6, 12, 20, 35, 50].flatMap((days) =>
        [ANYWHERE, '192.0.2.3', '192.0.2.200', '198.51.100.9'].flatMap((network) =>
          ['any', 'NO', 'SE'].map((country) => {
            const decision = decide(policy, {
              identity: 'proven',
              recipient: askerOf(person, person),
              at: { now: START + days * DAY, zone: 'UTC', device: ANYWHERE, network, country },
            });
            if (decision.outcome === 'refused') return 'refused';
            const { print } = decision.rights;
            return JSON.stringify([
              decision.until,
              RIGHTS.filter((right) => decision.rights[right].granted),
              print.granted ? print.printsLeft : null,
              decision.obligations,
            ]);
          }),
        ),
      );
      found.set(`${person.address} ${document.document.title}`, seen.join('|'));
    }
  return found;
}

const CEILINGS: readonly (Partial<Limits> & { readonly level?: 'document' })[] = [
  { rights: ['read'] },
  { rights: ['read', 'print', 'copy', 'keep'] },
  { prints: 2 },
  { prints: 500 },
  { days: 10 },
  { days: 45 },
  { opens: 1 },
  { opens: 9_000 },
  { networks: ['192.0.2.0/24'] },
  { networks: ['0.0.0.0/0', '::/0'] },
  { countries: ['NO'] },
  { rights: ['read'], level: 'document' },
];

test.each(CEILINGS)(
  'a ceiling %j touches whom it says, on what it says, and nobody else',
  async ({ level, ...limits }) => {
    const { deps, ida } = product;
    const subject =
      level === undefined
        ? ({ level: 'organisation', subject: '' } as const)
        : ({ level, subject: documents[0] ?? '' } as const);
    const input = (which: Partial<Limits>, seen: number | null) => ({
      ...subject,
      limits: { ...NO_LIMITS, ...which },
      seen,
    });
    const before = await everything();
    const impact = await previewCeiling(deps, ida, input(limits, null));
    await putCeiling(deps, ida, input(limits, null));
    const after = await everything();
    const [row] = await viewCeilings(deps);
    await putCeiling(deps, ida, input({}, row?.setAt ?? null));
    const changed = [...before]
      .filter(([pair, was]) => after.get(pair) !== was)
      .map(([pair]) => pair)
      .sort();
    const told = impact.rows
      .filter(({ person }) => person)
      .map(({ name, title }) => `${name} ${title}`)
      .sort();
    // How many opens are left shows only once they are used up: Bo and the others would come to that.
    const onlyCounts = limits.opens !== undefined;
    expect(onlyCounts ? told.filter((pair) => changed.includes(pair)) : told).toEqual(changed);
    expect(told.some((pair) => pair.startsWith('shut@') || pair.endsWith('Withdrawn'))).toBe(false);
    expect(impact.people).toBe(new Set(told.map((pair) => pair.split(' ')[0])).size);
  },
);
