import { newLayer } from '@/core/watermark/layers';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { grantsFromOdrl } from '@/core/odrl/grants';
import type { Json } from '@/core/odrl/report';
import { importTerms, previewTerms, takeTermsOut } from '@/server/services/access/exchange-terms';
import {
  importGrants,
  previewGrants,
  takeGrantsOut,
} from '@/server/services/dispatching/exchange-grants';
import { putTerms } from '@/server/services/access/change-saved-terms';
import { viewTerms } from '@/server/services/filing/manage-filing';
import type { DispatchId, DocumentId, GroupId } from '@/core/base/ids';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { DAY } from '@/core/base/time';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import type { StaffActor } from '@/server/services/base/deps';
import { grantRows } from '@/server/services/access/grant-rows';
import { START, dispatch, drawing, protect, startProduct, type Product } from '../support/product';
import { setWay } from '../support/rules';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
  await putTerms(product.deps, product.ida, {
    id: null,
    name: 'Bidders',
    rights: ['read', 'print'],
    days: 21,
    prints: 2,
    watermark: [newLayer('tiled', '{address}')],
  });
  await putTerms(product.deps, product.ida, {
    id: null,
    name: 'Partners',
    rights: ['read', 'copy', 'print', 'keep'],
    days: null,
    prints: null,
    watermark: [],
  });
});
afterAll(() => product.close());

type Policy = {
  'embargo:name': string;
  permission: {
    action: string;
    constraint?: { leftOperand: string; operator: string; rightOperand: unknown }[];
  }[];
};
const out = async (): Promise<{ '@graph': Policy[] }> =>
  JSON.parse(JSON.stringify((await takeTermsOut(product.deps)).document)) as { '@graph': Policy[] };
const preview = async (document: unknown) =>
  (await previewTerms(product.deps, product.ida, { text: JSON.stringify(document) })).brought;

describe('saved terms', () => {
  test('come back the same, and change nothing', async () => {
    expect((await preview(await out())).map(({ name, state }) => [name, state])).toEqual([
      ['Bidders', 'same'],
      ['Partners', 'same'],
    ]);
    expect(
      await importTerms(product.deps, product.ida, { text: JSON.stringify(await out()) }),
    ).toEqual({ taken: 0 });
  });

  test('with a change, a new name and something unknown: only what is understood whole is taken', async () => {
    const document = await out();
    const [bidders, partners] = document['@graph'];
    if (bidders === undefined || partners === undefined) throw new Error('no policies');
    const longer = structuredClone(bidders);
    for (const { constraint } of longer.permission)
      for (const each of constraint ?? [])
        if (each.leftOperand === 'embargo:sinceDispatch')
          each.rightOperand = { '@value': 'P30D', '@type': 'xsd:duration' };
    const fresh = { ...structuredClone(partners), 'embargo:name': 'Owners' };
    const strange = {
      ...structuredClone(partners),
      'embargo:name': 'Strange',
      prohibition: [{ action: 'print' }],
    };
    const revising = {
      ...structuredClone(bidders),
      'embargo:name': 'Revising',
      permission: [...bidders.permission, { ...bidders.permission[0], action: 'derive' }],
    };
    const brought = { ...document, '@graph': [longer, fresh, strange, revising, { ...fresh }] };
    expect((await preview(brought)).map(({ name, state }) => [name, state])).toEqual([
      ['Bidders', 'changed'],
      ['Owners', 'new'],
      ['Strange', 'stopped'],
      ['Revising', 'stopped'],
      ['Owners', 'stopped'],
    ]);
    expect(await importTerms(product.deps, product.ida, { text: JSON.stringify(brought) })).toEqual(
      { taken: 2 },
    );
    const { terms } = await viewTerms(product.deps);
    expect(terms.map(({ name, days }) => [name, days])).toEqual([
      ['Bidders', 30],
      ['Owners', null],
      ['Partners', null],
    ]);
    expect((await preview(await out())).every(({ state }) => state === 'same')).toBe(true);
  });

  test.each(['', 'Dear all', '[]', '7'])('%j is no such file', async (text) => {
    await expect(previewTerms(product.deps, product.ida, { text })).rejects.toMatchObject({
      code: 'INVALID',
    });
  });
});

test('the grants of a dispatch go out with addresses, references, ends and what was revoked', async () => {
  const document = await protect(product, await drawing(1));
  const { id, grants } = await dispatch(product, [document], ['mira+tender@yard.example'], {
    rights: ['read', 'print'],
    prints: 3,
  });
  const taken = await takeGrantsOut(product.deps, product.ida, { id });
  const [read] = grantsFromOdrl(JSON.parse(JSON.stringify(taken.document)) as Json);
  expect(read).toMatchObject({
    unknown: [],
    grant: {
      id: grants[0]?.id,
      giver: 'ida@tern-quill.example',
      address: 'mira+tender@yard.example',
      revoked: false,
      terms: { rights: ['read', 'print'], prints: 3, until: grants[0]?.until },
    },
  });
});

describe('grants of a file', () => {
  type Agreement = {
    uid?: string;
    assignee: unknown;
    'embargo:revoked'?: boolean;
    permission: {
      target: string;
      action: string;
      constraint?: { leftOperand: string; operator?: string; rightOperand: unknown }[];
    }[];
  };
  type File = { '@graph': Agreement[] };
  let papers: DocumentId[];
  let sent: Awaited<ReturnType<typeof dispatch>>;
  const UNTIL = new Date(START + 60 * DAY).toISOString();
  const takenOut = async (): Promise<File> =>
    JSON.parse(
      JSON.stringify((await takeGrantsOut(product.deps, product.ida, { id: sent.id })).document),
    ) as File;
  const states = async (file: unknown, actor: StaffActor = product.ida) =>
    (await previewGrants(product.deps, actor, { text: JSON.stringify(file) })).brought.map(
      ({ state }) => state,
    );
  const bring = (file: unknown, actor: StaffActor = product.ida) =>
    importGrants(product.deps, actor, { text: JSON.stringify(file), subject: 'Brought in' });
  const rights = async (address: string) => {
    const person = await findRecipientByAddress(product.deps.db.read, address);
    return person === null
      ? []
      : (await grantRows(product.deps, product.ida, { recipient: person.id })).map((grant) => [
          grant.documentReference,
          grant.rights.join('+'),
          grant.revokedAt !== null,
        ]);
  };
  /** The same agreement as another program would write it: its own name for it, another person. */
  const asOthers = (agreement: Agreement | undefined, address: string): Agreement => ({
    ...structuredClone(agreement ?? { assignee: '', permission: [] }),
    uid: 'urn:example:contract-7',
    assignee: `mailto:${address}`,
  });

  beforeAll(async () => {
    papers = [
      await protect(product, await drawing(2), 'Lines plan'),
      await protect(product, await drawing(3), 'Weight list'),
    ];
    sent = await dispatch(product, papers, ['anna@kelder.example', 'bo@kelder.example'], {
      rights: ['read', 'print'],
      prints: 2,
    });
  });

  test('come back the same and change nothing; no grant is given for them', async () => {
    const file = await takenOut();
    expect(await states(file)).toEqual(['same', 'same', 'same', 'same']);
    expect(await bring(file)).toEqual({ taken: 0, waiting: 0 });
    expect(
      (await grantRows(product.deps, product.ida, { dispatch: sent.id })).map(
        ({ revision }) => revision,
      ),
    ).toEqual(sent.grants.map(({ revision }) => revision));
  });

  test('one is changed, one revoked, one given two documents at once; a second time changes nothing', async () => {
    const file = await takenOut();
    const [annas, others] = [
      file['@graph'].filter(({ assignee }) => assignee === 'mailto:anna@kelder.example'),
      file['@graph'].filter(({ assignee }) => assignee === 'mailto:bo@kelder.example'),
    ];
    const [changed, revoked] = others;
    if (changed === undefined || revoked === undefined) throw new Error('no agreements');
    for (const { constraint } of changed.permission)
      for (const each of constraint ?? [])
        if (each.leftOperand === 'dateTime')
          each.rightOperand = { '@value': UNTIL, '@type': 'xsd:dateTime' };
    revoked['embargo:revoked'] = true;
    file['@graph'].push(...annas.map((each) => asOthers(each, 'New.One@Yard.example')));
    expect(await states(file)).toEqual(['same', 'same', 'changed', 'revoked', 'new', 'new']);
    expect(await bring(file)).toEqual({ taken: 4, waiting: 0 });
    const bos = (await grantRows(product.deps, product.ida, { dispatch: sent.id })).filter(
      ({ address }) => address === 'bo@kelder.example',
    );
    expect(bos.map(({ until, revokedAt }) => [until, revokedAt !== null])).toEqual([
      [START + 60 * DAY, false],
      [START + 30 * DAY, true],
    ]);
    expect(await rights('new.one@yard.example')).toEqual(
      annas.map(({ permission: [first] }) => [
        decodeURIComponent(first?.target.split('/').at(-1) ?? ''),
        'read+print',
        false,
      ]),
    );
    const given = await findRecipientByAddress(product.deps.db.read, 'new.one@yard.example');
    const rows = await grantRows(product.deps, product.ida, { recipient: given?.id ?? 'rcp_' });
    expect([
      new Set(rows.map(({ dispatchId }) => dispatchId)).size,
      rows[0]?.dispatchSubject,
    ]).toEqual([1, 'Brought in']);
    expect(await states(file)).toEqual(['same', 'same', 'same', 'same', 'same', 'same']);
    expect(await bring(file)).toEqual({ taken: 0, waiting: 0 });
  });

  test('everyone at a domain is given access, and people of different terms get dispatches of their own', async () => {
    const [first] = (await takenOut())['@graph'];
    const domain = {
      ...asOthers(first, ''),
      assignee: {
        '@type': 'PartyCollection',
        uid: 'urn:embargo:odrl-profile:1#addressees/%40broker.example',
      },
    };
    const reader = asOthers(first, 'cora@kelder.example');
    expect(
      await bring({
        '@graph': [
          domain,
          { ...reader, permission: reader.permission.filter(({ action }) => action === 'display') },
        ],
      }),
    ).toEqual({ taken: 2, waiting: 0 });
    expect((await rights('@broker.example')).map(([, given]) => given)).toEqual(['read+print']);
    expect((await rights('cora@kelder.example')).map(([, given]) => given)).toEqual(['read']);
  });

  test.each<[string, (agreement: Agreement) => unknown, string]>([
    [
      'a document there is not',
      (each) => ({
        ...each,
        permission: each.permission.map((permission) => ({
          ...permission,
          target: 'urn:embargo:odrl-profile:1#document/No-1',
        })),
      }),
      'there is no document No-1 here',
    ],
    [
      'a grant there is not',
      (each) => ({ ...each, uid: 'urn:embargo:odrl-profile:1#grant/grt_00000000000000000009' }),
      'there is no such grant here',
    ],
    [
      'the holders of a link',
      (each) => ({
        ...each,
        assignee: {
          '@type': 'PartyCollection',
          uid: 'urn:embargo:odrl-profile:1#addressees/link%3Adsp_1',
        },
      }),
      'access cannot be given to',
    ],
    ['no address', (each) => ({ ...each, assignee: 'mailto:cora' }), 'access cannot be given to'],
    [
      'an end that has passed',
      (each) => ({
        ...each,
        permission: each.permission.map((permission) => ({
          ...permission,
          constraint: [
            { leftOperand: 'dateTime', operator: 'lt', rightOperand: '2020-01-01T00:00:00Z' },
          ],
        })),
      }),
      'its end has passed',
    ],
    [
      'a right without what it rests on',
      (each) => ({
        ...each,
        permission: [...each.permission, { ...each.permission[0], action: 'derive' }],
      }),
      'revise needs Keep a copy',
    ],
    ['a prohibition', (each) => ({ ...each, prohibition: [] }), '“prohibition” is not known here'],
  ])('%s is stopped with its reason, and the rest is taken', async (_name, spoil, why) => {
    const [first] = (await takenOut())['@graph'];
    const spoilt = spoil(asOthers(first, 'cora@spoilt.example'));
    const { brought } = await previewGrants(product.deps, product.ida, {
      text: JSON.stringify({ '@graph': [spoilt] }),
    });
    expect(brought).toMatchObject([{ state: 'stopped' }]);
    expect(brought[0]?.unknown.map(({ what }) => what).join()).toContain(why);
    expect(await bring({ '@graph': [spoilt] })).toEqual({ taken: 0, waiting: 0 });
  });

  test('what is stated twice counts once; no grant turns into another’s, no sender changes another’s', async () => {
    const [first] = (await takenOut())['@graph'];
    if (first === undefined) throw new Error('no agreement');
    expect(
      await states({
        '@graph': [asOthers(first, 'dov@kelder.example'), asOthers(first, 'dov@kelder.example')],
      }),
    ).toEqual(['new', 'stopped']);
    expect(
      await states({ '@graph': [{ ...first, assignee: 'mailto:dov@kelder.example' }] }),
    ).toEqual(['stopped']);
    const nils: StaffActor = { ...product.ida, id: 'stf_00000000000000000009', role: 'sender' };
    expect(await states({ '@graph': [{ ...first, 'embargo:revoked': true }] }, nils)).toEqual([
      'stopped',
    ]);
    await expect(
      bring({ '@graph': [asOthers(first, 'dov@kelder.example')] }, nils),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    expect(await rights('dov@kelder.example')).toEqual([]);
  });

  describe('of a live group', () => {
    let group: GroupId;
    let inGroup: DispatchId;
    const ends = async () =>
      Object.fromEntries(
        (await grantRows(product.deps, product.ida, { dispatch: inGroup })).map(
          ({ address, until }) => [address, until],
        ),
      );
    const groupFile = async (until: (agreement: Agreement) => string | null) => {
      const file = JSON.parse(
        JSON.stringify((await takeGrantsOut(product.deps, product.ida, { id: inGroup })).document),
      ) as File;
      for (const agreement of file['@graph']) {
        const at = until(agreement);
        for (const { constraint } of agreement.permission)
          for (const each of constraint ?? [])
            if (at !== null && each.leftOperand === 'dateTime')
              each.rightOperand = { '@value': at, '@type': 'xsd:dateTime' };
      }
      return file;
    };
    const record = async () =>
      (
        await product.deps.db.read
          .select()
          .from(ledgerEntries)
          .where(
            and(eq(ledgerEntries.action, 'grant.changed'), eq(ledgerEntries.dispatchId, inGroup)),
          )
      ).length;
    const isGroup = ({ assignee }: Agreement) => typeof assignee === 'object';

    beforeAll(async () => {
      const people = await Promise.all(
        ['anna@kelder.example', 'bo@kelder.example'].map((address) =>
          findRecipientByAddress(product.deps.db.read, address),
        ),
      );
      ({ id: group } = await putGroup(product.deps, product.ida, { id: null, name: 'Bidders' }));
      await changeMembers(product.deps, product.ida, {
        id: group,
        add: people.map((person) => person?.id ?? 'rcp_'),
        remove: [],
      });
      ({ id: inGroup } = await dispatchDocuments(product.deps, product.ida, {
        documents: [papers[0] ?? 'doc_'],
        recipients: [],
        groups: [{ id: group }],
        terms: { rights: ['read'], from: null, until: START + 10 * DAY, prints: null },
        subject: 'For the group',
        note: '',
        watermark: [],
        delivery: 'by-hand',
      }));
    });

    test('its people follow the change of its grant, and are not changed again by what the file says', async () => {
      const later = new Date(START + 20 * DAY).toISOString();
      expect(await bring(await groupFile(() => later))).toEqual({ taken: 3, waiting: 0 });
      expect(await record()).toBe(3);
      expect(await ends()).toEqual({
        [`group:${group}`]: START + 20 * DAY,
        'anna@kelder.example': START + 20 * DAY,
        'bo@kelder.example': START + 20 * DAY,
      });
    });

    test('one of them is given something else after that, where the file says so', async () => {
      const [later, longest] = [
        new Date(START + 25 * DAY).toISOString(),
        new Date(START + 28 * DAY).toISOString(),
      ];
      expect(
        await bring(
          await groupFile((agreement) =>
            agreement.assignee === 'mailto:bo@kelder.example' ? longest : later,
          ),
        ),
      ).toEqual({ taken: 3, waiting: 0 });
      expect(await ends()).toEqual({
        [`group:${group}`]: START + 25 * DAY,
        'anna@kelder.example': START + 25 * DAY,
        'bo@kelder.example': START + 28 * DAY,
      });
    });

    test('it is revoked with everybody in it', async () => {
      const file = await groupFile(() => null);
      for (const agreement of file['@graph'])
        if (isGroup(agreement)) agreement['embargo:revoked'] = true;
      expect(await states(file)).toEqual(['revoked', 'same', 'same']);
      expect(await bring(file)).toEqual({ taken: 1, waiting: 0 });
      expect(
        (await grantRows(product.deps, product.ida, { dispatch: inGroup })).every(
          ({ revokedAt }) => revokedAt !== null,
        ),
      ).toBe(true);
    });

    test('another document is given to it, and to anyone who is in it, by a file of another program', async () => {
      const [first] = (await groupFile(() => null))['@graph'].filter(isGroup);
      const another = {
        ...asOthers(first, ''),
        assignee: first?.assignee ?? '',
        permission: (first?.permission ?? []).map((permission) => ({
          ...permission,
          target: 'urn:embargo:odrl-profile:1#document/No-2',
        })),
      };
      delete another['embargo:revoked'];
      expect(await states({ '@graph': [another] })).toEqual(['stopped']);
      const known = (await takenOut())['@graph'].at(-1)?.permission[0]?.target ?? '';
      for (const permission of another.permission) permission.target = known;
      expect(await bring({ '@graph': [another] })).toEqual({ taken: 1, waiting: 0 });
      expect((await rights('anna@kelder.example')).length).toBeGreaterThan(3);
    });
  });

  test('where links want a second person, what is new waits for them', async () => {
    await setWay(product, 'link', 'agreed');
    const [first] = (await takenOut())['@graph'];
    expect(await bring({ '@graph': [asOthers(first, 'dov@kelder.example')] })).toEqual({
      taken: 1,
      waiting: 1,
    });
    expect(await rights('dov@kelder.example')).toEqual([]);
    await setWay(product, 'link', 'forbidden');
    await expect(
      bring({ '@graph': [asOthers(first, 'dov@kelder.example')] }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  });
});
